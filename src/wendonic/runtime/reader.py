"""What stands where in the record of a mode's tick."""

from collections.abc import Mapping
from typing import Any

from wendonic.compiler.layout import Layout
from wendonic.compiler.ready import Record
from wendonic.kernels.body.body import Body
from wendonic.kernels.tick import Outcome, Tuning, tick_at_rest
from wendonic.kernels.vector import Vec3
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

    __slots__ = ("axes", "layout", "mode", "press_places", "tuning")

    def __init__(
        self, mode: str, axes: WorldAxes, layout: Layout, tuning: Tuning, press_places: Mapping[str, int]
    ) -> None:
        """Keep what it takes."""
        self.mode = mode
        self.axes = axes
        self.layout = layout
        self.tuning = tuning
        self.press_places = dict(press_places)

    def __eq__(self, other: object) -> bool:
        """Return whether both read alike."""
        if not isinstance(other, Reader):
            return NotImplemented
        mine = (self.mode, repr(self.axes), self.layout, self.tuning, self.press_places)
        return mine == (other.mode, repr(other.axes), other.layout, other.tuning, other.press_places)

    def __hash__(self) -> int:
        """Return a hash that equal readers share."""
        return hash((self.mode, repr(self.axes), self.tuning))

    def __repr__(self) -> str:
        """Name the mode."""
        return f'<Reader of mode "{self.mode}">'

    def outcome(self, record: Record) -> Outcome:
        """Return everything that a record has."""
        found: Outcome = self._read(record, ("outcome",), tick_at_rest(self.tuning).outcome)
        return found

    def _read(self, record: Record, path: tuple[str, ...], shape: Any) -> Any:
        if isinstance(shape, tuple):
            fields = getattr(shape, "_fields", None) or list(map(str, range(len(shape))))
            parts = [self._read(record, (*path, field), part) for field, part in zip(fields, shape, strict=True)]
            return type(shape)(*parts) if hasattr(shape, "_fields") else tuple(parts)
        return self.layout.number(record, *path)

    def body(self, record: Record) -> Body:
        """Return the body that a record has."""
        face, x, y, z, vel_x, vel_y, vel_z = (self.layout.number(record, "outcome", *path) for path in BODY)
        return Body(face, Vec3(x, y, z), Vec3(vel_x, vel_y, vel_z))

    def view(self, record: Record) -> tuple[float, float]:
        """Return the yaw and pitch (rad) of the view in a record."""
        number = self.layout.number
        return number(record, "outcome", "view", "yaw"), number(record, "outcome", "view", "pitch")
