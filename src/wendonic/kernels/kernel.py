"""The mark of a function that runs interpreted and compiled from one source."""

from collections.abc import Callable, Sequence
from typing import Any, TypeVar

Row = Sequence[float]
"""A row of numbers of fixed width: a list when interpreted, one row of an array when compiled."""

KernelFunction = TypeVar("KernelFunction", bound=Callable[..., Any])

KERNELS: list[Callable[..., Any]] = []
"""Every kernel that has been imported, callees before callers."""


CALLED_KERNELS: list[Callable[..., Any]] = []
"""Those of them that the compiled way calls instead of laying them into the loop."""


def kernel(function: KernelFunction) -> KernelFunction:
    """Enter `function` in `KERNELS` and hand it back untouched.

    The interpreted way calls the very same object; the compiled way hands each entry of `KERNELS` to
    Numba. A kernel takes and returns floats and named tuples of floats, and never raises.

    >>> @kernel
    ... def halve(value: float) -> float:
    ...     return value / 2
    >>> halve(3.0), KERNELS.pop() is halve
    (1.5, True)
    """
    KERNELS.append(function)
    return function


def called_kernel(function: KernelFunction) -> KernelFunction:
    """Do what `kernel` does, for what few profiles need: called, it does not make the loop of all others longer.

    >>> @called_kernel
    ... def double(value: float) -> float:
    ...     return value * 2
    >>> double(3.0), KERNELS.pop() is CALLED_KERNELS.pop() is double
    (6.0, True)
    """
    CALLED_KERNELS.append(function)
    return kernel(function)
