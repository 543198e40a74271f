"""The position of each number in the record of a mode's tick."""

from collections.abc import Mapping, Sequence
from typing import Any

from wendonic.compiler.layout import Layout, Path
from wendonic.compiler.ready import Record
from wendonic.kernels.tick_record import Outcome, tick_at_rest
from wendonic.kernels.tuning import Tuning
from wendonic.runtime.part import Number, Numbers, Part, number_of, numbers_of
from wendonic.world_axes import WorldAxes

BODY = (
    ("body", "face"),
    *(("body", of, axis) for of in ("position", "velocity") for axis in ("x", "y", "z")),
)
"""Paths of the body's numbers."""

PRESS_FIELDS = ("held", "began", "ended", "held_s", "began_count")
"""Numbers of a press, in the order in which an intent reports them."""

STEP = (
    *(("frame", "grid", "step", field) for field in ("x", "y", "to_x", "to_y", "share")),
    *(("frame", "grid", field) for field in ("refused", "refused_x", "refused_y", "began", "ended")),
)
"""Paths of the numbers of a step on squares, as an intent reports it."""

COMFORT = (
    *(("comfort", field) for field in ("shown", "inside_s", "returned")),
    *(("comfort", of, axis) for of in ("offset", "head", "safe") for axis in ("x", "y")),
)
"""Paths of the numbers of comfort in a headset, as an intent reports it."""

VIEW = (("view", "yaw"), ("view", "pitch"))
"""Paths of the view's numbers."""


class Reader:
    """Reads the records of one mode. Two readers of equal modes are equal, and can be pickled.

    The numbers that an intent reports are located once, when the reader is made: `reader.amount(record)` is one
    number, `reader.move(record)` are several, and `reader.presses["jump"](record)` those of a press.
    """

    __slots__ = (
        "_parts",
        "amount",
        "arrived",
        "axes",
        "axis_amounts",
        "comfort",
        "contact",
        "direction",
        "face",
        "goal",
        "grounded",
        "heading",
        "layout",
        "local",
        "look",
        "mode",
        "move",
        "position",
        "press_numbers",
        "presses",
        "refused",
        "sector",
        "slide",
        "step",
        "stuck_s",
        "teleported",
        "tuning",
        "up",
        "velocity",
        "view",
        "waiting_count",
    )

    def __init__(
        self, mode: str, axes: WorldAxes, layout: Layout, tuning: Tuning, press_numbers: Mapping[str, int]
    ) -> None:
        """Keep what identifies it, and locate the numbers."""
        self.mode = mode
        self.axes = axes
        self.layout = layout
        self.tuning = tuning
        self.press_numbers = dict(press_numbers)
        self._parts: dict[Path, Part] = {}

        def one(*path: str) -> Number:
            return number_of(layout, path)

        def of(*path: str, fields: Sequence[str]) -> Numbers:
            return numbers_of(layout, [(*path, field) for field in fields])

        self.amount = one("amount")
        self.heading = one("heading")
        self.face = one("body", "face")
        self.sector = one("sector")
        self.grounded = one("grounded")
        self.refused = one("wanted", "refused")
        self.arrived = one("frame", "arrived")
        self.stuck_s = one("frame", "stuck_s")
        self.waiting_count = one("frame", "waiting_count")
        self.teleported = one("pointing", "teleported")
        self.view = numbers_of(layout, VIEW)
        self.look = of("look", fields=("yaw", "pitch"))
        self.axis_amounts = of("axes", fields=("rise", "throttle", "turn"))
        self.local = of("local", fields="xy")
        self.move = of("move", fields="xy")
        self.contact = of("contact", fields="xy")
        self.goal = of("frame", "goal", fields=("there", "x", "y"))
        self.position = of("body", "position", fields="xyz")
        self.velocity = of("body", "velocity", fields="xyz")
        self.direction = of("wanted", "direction", fields="xyz")
        self.slide = of("wanted", "slide", fields="xyz")
        self.up = of("up", fields="xyz")
        self.step = numbers_of(layout, STEP)
        self.comfort = numbers_of(layout, COMFORT)
        self.presses = {
            name: of("presses", str(number), fields=PRESS_FIELDS) for name, number in self.press_numbers.items()
        }

    def __reduce__(self) -> tuple[Any, ...]:
        """Pickle it without the located parts."""
        return Reader, (self.mode, self.axes, self.layout, self.tuning, self.press_numbers)

    def __eq__(self, other: object) -> bool:
        """Return whether both read the same records in the same way."""
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
        """Return everything that a record reports."""
        found: Outcome = self.part(record)
        return found

    def part(self, record: Record, *path: str) -> Any:
        """Return one part of a record's outcome, by its path."""
        part = self._parts.get(path)
        if part is None:
            shape: Any = tick_at_rest(self.tuning).outcome
            for field in path:
                shape = getattr(shape, field)
            part = self._parts[path] = Part(self.layout, path, shape)
        return part.read(record)
