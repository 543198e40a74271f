"""The positions of the numbers of a tick: in its record, in its sample, among its parameters."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from typing import Any

from wendonic.compiler.values import Known, Record, Value, leaves, rebuilt

Path = tuple[str, ...]


def paths_of(value: Any) -> list[Path]:
    """Return the paths of all numbers of a nested tuple.

    >>> from wendonic.kernels.vector import Vec2
    >>> paths_of((Vec2(1.0, 2.0), 3.0))
    [('0', 'x'), ('0', 'y'), ('1',)]
    """
    found: list[Path] = []
    _walk(value, (), found)
    return found


def _walk(value: Any, path: Path, found: list[Path]) -> None:
    if isinstance(value, tuple):
        fields = getattr(value, "_fields", None) or map(str, range(len(value)))
        for field, part in zip(fields, value, strict=True):
            _walk(part, (*path, field), found)
    else:
        found.append(path)


def shape_of(value: Any) -> Any:
    """Return the shape of a nested tuple without its numbers: its types and their sizes.

    >>> from wendonic.kernels.vector import Vec2
    >>> shape_of((Vec2(1.0, 2.0), 3.0))
    ('tuple', 2, ('Vec2', 2))
    """
    parts = [shape_of(part) for part in value if isinstance(part, tuple)]
    return (type(value).__name__, len(value), *parts)


def flat(value: Any) -> list[Any]:
    """Return all numbers of a nested tuple.

    >>> flat(((1.0, 2.0), 3.0))
    [1.0, 2.0, 3.0]
    """
    if not isinstance(value, tuple):
        return [value]
    found: list[Any] = []
    _flatten(value, found)
    return found


def _flatten(value: tuple[Any, ...], found: list[Any]) -> None:
    for part in value:
        if isinstance(part, tuple):
            _flatten(part, found)
        else:
            found.append(part)


def built(shape: Any, numbers: Iterator[float]) -> Any:
    """Return a nested tuple of the same shape with other numbers, in the order of `flat`.

    >>> built(((0.0, 0.0), 0.0), iter([1.0, 2.0, 3.0]))
    ((1.0, 2.0), 3.0)
    """
    if isinstance(shape, tuple):
        parts = [built(part, numbers) for part in shape]
        return type(shape)(*parts) if hasattr(shape, "_fields") else tuple(parts)
    return next(numbers)


def structure_of(tuning: Any, sample: Any) -> Any:
    """Return everything about a tuning that is not a number; equal structures have equal tick functions."""
    numbers = tuple("." if isinstance(value, float) else value for value in flat(tuning))
    return numbers, shape_of(tuning), shape_of(sample)


def with_leaves(value: Value, new: Sequence[Value]) -> Value:
    """Return a value with other leaves, in order."""
    return rebuilt(value, iter(new))


@dataclass(frozen=True)
class Layout:
    """The position of each number of a tick in its record, or its constant value.

    `indices` has, for each number of `Tick(memory, outcome)` by its path, the index in the record, or -1 if it is in
    `constants`; numbers that are not needed are missing. `state` is how many numbers at the beginning are read by the
    next tick.
    """

    state: int
    width: int
    indices: dict[Path, int]
    constants: dict[Path, float]
    found: dict[Any, Any] = field(default_factory=dict, compare=False, repr=False)
    """Lookups that have been made before, such as `Cells`."""

    def __deepcopy__(self, memo: dict[int, Any]) -> "Layout":
        """Return itself: it never changes."""
        return self

    def index(self, *path: str) -> int:
        """Return the index of a number, -1 if it is constant or not needed."""
        return self.indices.get(path, -1)

    def number(self, record: Sequence[float], *path: str) -> float:
        """Return a number of a record."""
        index = self.indices.get(path, -1)
        return record[index] if index >= 0 else self.constants[path]

    def flat_record(self, tick: Any) -> list[float]:
        """Return a record with the numbers of a `Tick`."""
        record = [0.0] * self.width
        for path, value in zip(paths_of(tick), flat(tick), strict=True):
            index = self.indices.get(path, -1)
            if index >= 0:
                record[index] = float(value)
        return record


def is_known(value: Value) -> bool:
    """Return whether every part of a value is known."""
    return all(isinstance(leaf, Known) for _, leaf in leaves(value)) if isinstance(value, Record) else True
