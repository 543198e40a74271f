"""What is where in the record of a mode's tick."""

from collections.abc import Mapping
from typing import Any

from wendonic.compiler.layout import Layout, Path
from wendonic.compiler.ready import Record
from wendonic.kernels.body.body import BODY_AT_REST, Body
from wendonic.kernels.tick import Outcome, Tuning, tick_at_rest
from wendonic.kernels.vector import Vec3
from wendonic.runtime.part import Part
from wendonic.world_axes import WorldAxes

BODY = (
    ("body", "face"),
    *(("body", of, axis) for of in ("position", "velocity") for axis in ("x", "y", "z")),
)
"""Paths of the body's numbers."""

VIEW = (("view", "yaw"), ("view", "pitch"))
"""Paths of the view's numbers."""


class Reader:
    """Reads the records of one mode. Two readers of equal modes are equal, and can be pickled."""

    __slots__ = ("_body", "_parts", "axes", "layout", "mode", "press_numbers", "tuning")

    def __init__(
        self, mode: str, axes: WorldAxes, layout: Layout, tuning: Tuning, press_numbers: Mapping[str, int]
    ) -> None:
        """Keep what it takes."""
        self.mode = mode
        self.axes = axes
        self.layout = layout
        self.tuning = tuning
        self.press_numbers = dict(press_numbers)
        self._parts: dict[Path, Part] = {}
        self._body = Part(layout, ("body",), BODY_AT_REST)

    def __reduce__(self) -> tuple[Any, ...]:
        """Pickle it without the parts that it has found."""
        return Reader, (self.mode, self.axes, self.layout, self.tuning, self.press_numbers)

    def __eq__(self, other: object) -> bool:
        """Return whether both read alike."""
        if not isinstance(other, Reader):
            return NotImplemented
        mine = (self.mode, self.axes, self.layout, self.tuning, self.press_numbers)
        return mine == (other.mode, other.axes, other.layout, other.tuning, other.press_numbers)

    def __hash__(self) -> int:
        """Return a hash that equal readers share."""
        return hash((self.mode, repr(self.axes), self.tuning))

    def __repr__(self) -> str:
        """Name the mode."""
        return f'<Reader of mode "{self.mode}">'

    def outcome(self, record: Record) -> Outcome:
        """Return everything that a record has."""
        found: Outcome = self.part(record)
        return found

    def part(self, record: Record, *path: str) -> Any:
        """Return one part of the outcome that a record has, by its path."""
        part = self._parts.get(path)
        if part is None:
            shape: Any = tick_at_rest(self.tuning).outcome
            for field in path:
                shape = getattr(shape, field)
            part = self._parts[path] = Part(self.layout, path, shape)
        return part.read(record)

    def body(self, record: Record) -> Body:
        """Return the body that a record has."""
        face, x, y, z, vel_x, vel_y, vel_z = self._body.numbers(record)
        return Body(face, Vec3(x, y, z), Vec3(vel_x, vel_y, vel_z))

    def view(self, record: Record) -> tuple[float, float]:
        """Return the yaw and pitch (rad) of the view in a record."""
        number = self.layout.number
        return number(record, "outcome", "view", "yaw"), number(record, "outcome", "view", "pitch")
