"""Why a quantity has no value, and measurements that are made once, whether they give a value or a reason."""

from collections.abc import Callable, Hashable
from functools import wraps
from typing import Any, Concatenate, Generic, ParamSpec, TypeVar, overload

Owner = TypeVar("Owner")
Found = TypeVar("Found")
Values = ParamSpec("Values")


class Unmeasured(Exception):  # noqa: N818
    """A quantity that a mode has, and that could not be measured; it says why."""


class NotHere(Unmeasured):
    """A quantity that a mode does not have; it says what is not there."""


def _kept(owner: object, key: Hashable, work: Callable[[], Found]) -> Found:
    """Return what the owner keeps under a key, or raise the reason that is kept there; work it out the first time."""
    all_kept: dict[Hashable, Found | Unmeasured] = owner.__dict__.setdefault("_measured", {})
    if key not in all_kept:
        try:
            all_kept[key] = work()
        except Unmeasured as reason:
            all_kept[key] = reason
    kept = all_kept[key]
    if isinstance(kept, Unmeasured):
        raise kept.with_traceback(None)
    return kept


def once_each(
    work: Callable[Concatenate[Owner, Values], Found],
) -> Callable[Concatenate[Owner, Values], Found]:
    """Work a measurement out once for each owner and each set of further values, and keep it with the owner: the
    value, or the reason why there is none.

    >>> class Bench:
    ...     asked = 0
    >>> @once_each
    ... def gain(bench: Bench, swing_m_s: float) -> float:
    ...     bench.asked += 1
    ...     return 2.0 * swing_m_s
    >>> bench = Bench()
    >>> [gain(bench, 1.0), gain(bench, 1.0), gain(bench, 3.0)], bench.asked
    ([2.0, 2.0, 6.0], 2)
    """

    @wraps(work)
    def worked_out_once(owner: Owner, /, *values: Values.args, **keywords: Values.kwargs) -> Found:
        return _kept(owner, (work, values, tuple(keywords.items())), lambda: work(owner, *values, **keywords))

    return worked_out_once


class once(Generic[Found]):  # noqa: N801
    """A property that is worked out on first use; a reason why it cannot be is kept like a value.

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

    @overload
    def __get__(self, instance: None, owner: type) -> "once[Found]": ...

    @overload
    def __get__(self, instance: object, owner: type) -> Found: ...

    def __get__(self, instance: object | None, owner: type) -> "once[Found] | Found":
        """Return the value, or raise the reason."""
        if instance is None:
            return self
        return _kept(instance, self._work, lambda: self._work(instance))
