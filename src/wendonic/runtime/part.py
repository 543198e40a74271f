"""One part of an outcome, such as a step on squares, whose numbers are found once."""

from typing import Any

from wendonic.compiler.layout import Layout, Path, built, paths_of
from wendonic.compiler.ready import Record, getter


class Part:
    """Reads one part of an outcome from records of one layout.

    >>> from wendonic.kernels.vector import Vec2
    >>> layout = Layout(0, 1, {("outcome", "a", "x"): 0}, {("outcome", "a", "y"): 4.0})
    >>> Part(layout, ("a",), Vec2(0.0, 0.0)).read((7.0,))
    Vec2(x=7.0, y=4.0)
    """

    __slots__ = ("_fixed", "_get", "_shape")

    def __init__(self, layout: Layout, path: Path, shape: Any) -> None:
        """Find the numbers of the part at a path; `shape` is a value of the same make."""
        fixed: list[float] = []
        indices: list[int] = []
        for below in paths_of(shape):
            number = ("outcome", *path, *below)
            index = layout.index(*number)
            if index < 0:
                index = layout.width + len(fixed)
                fixed.append(layout.constants[number])
            indices.append(index)
        self._fixed = tuple(fixed)
        self._get = getter(indices)
        self._shape = shape

    def read(self, record: Record) -> Any:
        """Return the part that a record has."""
        return built(self._shape, iter(self.numbers(record)))

    def numbers(self, record: Record) -> tuple[float, ...]:
        """Return the bare numbers of that part."""
        return self._get(record + self._fixed)
