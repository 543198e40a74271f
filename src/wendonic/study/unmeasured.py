"""Reasons why a quantity has no value, and measurements that are made only once, whether they give a value or a
reason.
"""

from collections.abc import Callable, Hashable
from functools import wraps
from typing import Any, Concatenate, Generic, ParamSpec, TypeVar, overload

Owner = TypeVar("Owner")
Found = TypeVar("Found")
Values = ParamSpec("Values")


class Unmeasured(Exception):  # noqa: N818
    """Raised if a quantity of a mode could not be measured; the message says why."""


class NotHere(Unmeasured):
    """Raised if a mode does not have a quantity; the message says what is missing."""


def _kept(owner: object, key: Hashable, work: Callable[[], Found]) -> Found:
    """Return the value that the owner keeps under a key, or raise the reason kept there; compute it once."""
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
    """Compute a measurement once for each owner and each set of further arguments, and keep the value, or the reason
    why there is none, with the owner.

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
    """A property that is computed on first use; a reason why there is no value is kept like a value.

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
        """Take the method that computes it."""
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
