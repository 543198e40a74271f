"""A group of numbers in a record, located once, read and written together."""

from collections.abc import Iterable, Sequence
from typing import Any

from wendonic.compiler.layout import Layout, Path
from wendonic.compiler.ready import Record, getter


class Cells:
    """The positions in a record of some numbers of the memory, given by their paths in `Memory`.

    `sources` has the index of each in a record, or -1 with its value in `constants` if the structure fixes it;
    `targets` has the indices to write it to: in the memory, and in the outcome if it is reported there.

    >>> layout = Layout(2, 3, {("memory", "a"): 1, ("outcome", "a"): 2}, {("memory", "b"): 4.0})
    >>> cells = Cells(layout, [("a",), ("b",)])
    >>> cells.read((7.0, 8.0, 8.0))
    (8.0, 4.0)
    >>> record = [0.0, 0.0, 0.0]
    >>> cells.write(record, (5.0, 6.0))
    >>> record
    [0.0, 5.0, 5.0]
    """

    __slots__ = ("_fixed", "_get", "_written", "constants", "sources", "targets")

    def __init__(self, layout: Layout, paths: Iterable[Path]) -> None:
        """Find them."""
        self.sources: list[int] = []
        self.constants: list[float] = []
        self.targets: list[tuple[int, ...]] = []
        for path in paths:
            memory, outcome = ("memory", *path), ("outcome", *path)
            targets = [index for index in (layout.index(*memory), layout.index(*outcome)) if index >= 0]
            self.targets.append(tuple(targets))
            self.sources.append(targets[0] if targets else -1)
            self.constants.append(layout.constants.get(memory, layout.constants.get(outcome, 0.0)))
        self._written = [(index, number) for number, targets in enumerate(self.targets) for index in targets]
        self._fixed = tuple(self.constants) if -1 in self.sources else ()
        self._get = getter(
            [index if index >= 0 else layout.width + number for number, index in enumerate(self.sources)]
        )

    def __deepcopy__(self, memo: dict[int, Any]) -> "Cells":
        """Return itself: it never changes."""
        return self

    def read(self, record: Record) -> tuple[float, ...]:
        """Return the numbers of a record."""
        return self._get(record + self._fixed)

    def write(self, record: list[float], numbers: Sequence[float]) -> None:
        """Write numbers into a record; those that the structure does not use are skipped."""
        for index, number in self._written:
            record[index] = numbers[number]


def cells_of(layout: Layout, paths: tuple[Path, ...]) -> Cells:
    """Return the cells of some numbers, located once for each layout.

    >>> layout = Layout(1, 1, {("memory", "a"): 0}, {})
    >>> cells_of(layout, (("a",),)) is cells_of(layout, (("a",),))
    True
    """
    found: Cells | None = layout.found.get(paths)
    if found is None:
        found = layout.found[paths] = Cells(layout, paths)
    return found
