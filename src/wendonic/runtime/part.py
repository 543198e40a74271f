"""Numbers of an outcome, located once and read from every record."""

import operator
from collections.abc import Callable, Sequence
from typing import Any

from wendonic.compiler.layout import Layout, Path, built, paths_of
from wendonic.compiler.ready import Record, getter

Number = Callable[[Record], float]
"""Reads one number from a record."""

Numbers = Callable[[Record], tuple[float, ...]]
"""Reads some numbers from a record."""


def number_of(layout: Layout, path: Path) -> Number:
    """Return a function that reads the number at a path of the outcome, from records of one layout.

    >>> layout = Layout(0, 1, {("outcome", "a"): 0}, {("outcome", "b"): 4.0})
    >>> number_of(layout, ("a",))((7.0,)), number_of(layout, ("b",))((7.0,))
    (7.0, 4.0)
    """
    index = layout.index("outcome", *path)
    if index < 0:
        constant = layout.constants["outcome", *path]
        return lambda _: constant
    return operator.itemgetter(index)


def numbers_of(layout: Layout, paths: Sequence[Path]) -> Numbers:
    """Return a function that reads the numbers at some paths of the outcome.

    >>> layout = Layout(0, 1, {("outcome", "a"): 0}, {("outcome", "b"): 4.0})
    >>> numbers_of(layout, [("b",), ("a",)])((7.0,)), numbers_of(layout, [("a",), ("b",)])((7.0,))
    ((4.0, 7.0), (7.0, 4.0))
    """
    fixed: list[float] = []
    indices: list[int] = []
    for path in paths:
        index = layout.index("outcome", *path)
        if index < 0:
            index = layout.width + len(fixed)
            fixed.append(layout.constants["outcome", *path])
        indices.append(index)
    get, rest = getter(indices), tuple(fixed)
    if not fixed:
        return get
    changing = len(indices) - len(fixed)
    if changing == 0:
        return lambda _: rest
    if max(indices[:changing]) < layout.width:
        # The constants come last: copying these few numbers is far cheaper than copying the record.
        first = getter(indices[:changing])
        return lambda record: first(record) + rest
    return lambda record: get(record + rest)


class Part:
    """Reads one part of an outcome, such as a step on squares, from records of one layout.

    >>> from wendonic.kernels.vector import Vec2
    >>> layout = Layout(0, 1, {("outcome", "a", "x"): 0}, {("outcome", "a", "y"): 4.0})
    >>> Part(layout, ("a",), Vec2(0.0, 0.0)).read((7.0,))
    Vec2(x=7.0, y=4.0)
    """

    __slots__ = ("_shape", "numbers")

    def __init__(self, layout: Layout, path: Path, shape: Any) -> None:
        """Locate the numbers of the part at a path; `shape` is a value of the same type."""
        self.numbers = numbers_of(layout, [(*path, *below) for below in paths_of(shape)])
        self._shape = shape

    def read(self, record: Record) -> Any:
        """Return the part of a record."""
        return built(self._shape, iter(self.numbers(record)))
