"""Why a quantity has no value, and measurements that are made once, whether they give a value or a reason."""

from collections.abc import Callable
from typing import Any, Generic, TypeVar, overload

Owner = TypeVar("Owner")
Found = TypeVar("Found")


class Unmeasured(Exception):  # noqa: N818
    """A quantity that a mode has, and that could not be measured; it says why."""


class NotHere(Unmeasured):
    """A quantity that a mode does not have; it says what is not there."""


class once(Generic[Found]):  # noqa: N801
    """A property that is worked out when it is first asked for; a reason why it cannot be is kept like a value.

    >>> class Bench:
    ...     asked = 0
    ...
    ...     @once
    ...     def jump(self) -> float:
    ...         self.asked += 1
    ...         raise NotHere("no press jumps")
    >>> bench = Bench()
    >>> for _ in range(2):
    ...     try:
    ...         bench.jump
    ...     except NotHere as reason:
    ...         print(reason, bench.asked)
    no press jumps 1
    no press jumps 1
    """

    def __init__(self, work: Callable[[Any], Found]) -> None:
        """Take the method that works it out."""
        self._work = work
        self.__doc__ = work.__doc__

    def __set_name__(self, owner: type, name: str) -> None:
        """Learn the property's name."""
        self._kept = f"_{name}_once"

    @overload
    def __get__(self, instance: None, owner: type) -> "once[Found]": ...

    @overload
    def __get__(self, instance: object, owner: type) -> Found: ...

    def __get__(self, instance: object | None, owner: type) -> "once[Found] | Found":
        """Return the value, or raise the reason."""
        if instance is None:
            return self
        if self._kept not in instance.__dict__:
            try:
                instance.__dict__[self._kept] = self._work(instance)
            except Unmeasured as reason:
                instance.__dict__[self._kept] = reason
        kept: Found | Unmeasured = instance.__dict__[self._kept]
        if isinstance(kept, Unmeasured):
            raise kept.with_traceback(None)
        return kept
