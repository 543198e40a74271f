"""Checks of the numbers of stand-ins."""

import math

from wendonic.errors import DeviceError


def no_less(least: float, **numbers: float) -> None:
    """Raise `DeviceError` for a number that is below `least` or not finite.

    >>> no_less(0.0, noise=-1.0)
    Traceback (most recent call last):
    wendonic.errors.DeviceError: noise: found -1.0; allowed: finite, 0 or more
    """
    for name, value in numbers.items():
        if not least <= value < math.inf:
            raise DeviceError(f"{name}: found {value!r}; allowed: finite, {least:g} or more")


def above_zero(**numbers: float) -> None:
    """Raise `DeviceError` for a number that is not above 0, or not finite."""
    for name, value in numbers.items():
        if not 0.0 < value < math.inf:
            raise DeviceError(f"{name}: found {value!r}; allowed: finite, above 0")
