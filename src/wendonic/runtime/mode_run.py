"""One mode of a profile, ready to run."""

import hashlib
import math
from collections.abc import Mapping, Sequence

from wendonic.compiler.ready import ReadyTick, Record, ready
from wendonic.devices.controls import DEVICES, Device
from wendonic.devices.sampler import Sampler
from wendonic.kernels.frames.steer import FRAME_GRID
from wendonic.kernels.press.press import STYLE_TOGGLE, PressState
from wendonic.kernels.row import Row
from wendonic.kernels.tuning import Tuning
from wendonic.profile.schema.profile import Profile
from wendonic.profile.sources import mode_sources
from wendonic.profile.tuning import mode_tuning
from wendonic.runtime.cells import cells_of
from wendonic.runtime.reader import BODY, VIEW, Reader
from wendonic.world_axes import WorldAxes

_DOWN = PressState._fields.index("down")
_ON = PressState._fields.index("on")
_SQUARE = (
    *(("frame", "grid", "step", field) for field in ("x", "y", "to_x", "to_y", "share")),
    *(
        ("frame", "grid", field)
        for field in ("requested", "requested_x", "requested_y", "wait_s", "refused", "refused_x", "refused_y")
    ),
)
_TURNED_TO = (("frame", "grid", "face_x"), ("frame", "grid", "face_y"))
_AIRBORNE = (("fall", "airborne"),)
_SAFE_PLACE = tuple(("comfort", of, axis) for of in ("safe", "head", "outside") for axis in "xy")
_STANDING_ON_SQUARE = (0.0,) * (len(_SQUARE) - 4)


class ModeRun:
    """One mode: its tick function with its numbers, its sampler, and where everything is in a record."""

    __slots__ = (
        "_numbers",
        "_tables",
        "airborne",
        "body",
        "carries",
        "devices",
        "enters",
        "gyros",
        "layout",
        "max_dt_s",
        "name",
        "on_squares",
        "part",
        "press_styles",
        "presses",
        "reader",
        "ready",
        "record_at_rest",
        "safe_place",
        "sampler",
        "source_index",
        "square",
        "standing",
        "structure",
        "tick",
        "tuning",
        "turned_to",
        "view",
        "view_index",
    )

    def __init__(
        self,
        profile: Profile,
        name: str,
        seat: str | None,
        course: Row,
        axes: WorldAxes,
        on_course: bool,
        last: "ModeRun | None" = None,
        exported: Mapping[str, ReadyTick] | None = None,
    ) -> None:
        """Prepare it; nothing is looked up by name while ticking. A sampler of the last run with the same sources is
        kept.
        """
        self.name = name
        numbers = mode_tuning(profile, name, on_course)
        self.tuning: Tuning = numbers.tick
        self.gyros: Mapping[str, int] = numbers.gyros
        sources = mode_sources(profile, name, seat)
        self.sampler: Sampler = last.sampler if last and last.sampler.sources == sources else Sampler(sources)
        self.ready: ReadyTick = ready(numbers.tick, self.sampler.layout.sample, name, exported)
        self.layout = self.ready.layout
        bindings = hashlib.sha1(repr(self.sampler.sources).encode(), usedforsecurity=False).hexdigest()
        self.structure = f"{name}:{self.ready.digest}:{self.layout.width}:{bindings}"
        self._numbers, self._tables = self.ready.numbers(numbers.tick), numbers.tables
        self.max_dt_s = numbers.tick.max_dt_s
        self.record_at_rest: Record = self.ready.record_at_rest(numbers.tick)
        self.carries = profile.mode[name].held_presses == "carry"
        self.devices: list[Device | None] = [DEVICES[index] if index >= 0 else None for index in self.sampler.devices]
        self.source_index = self.layout.index("outcome", "source")
        self.view_index = self.sampler.layout.view
        self.press_styles = [press.style for press in self.tuning.presses]
        presses = {press: number for number, press in enumerate(profile.press_names)}
        self.enters = [
            (self.layout.index("outcome", "presses", str(presses[press_name]), flag), press.enter)
            # Within one tick, presses that begin take precedence over those that end.
            for at, flag in (("begin", "began"), ("end", "ended"))
            for press_name, press in profile.mode[name].press.items()
            if press.enters and press.enter_at == at
        ]
        """The modes that presses enter, with the index in a record that says whether the press began or ended."""
        self.reader = Reader(name, axes, self.layout, self.tuning, presses)
        self.body = cells_of(self.layout, BODY)
        self.view = cells_of(self.layout, VIEW)
        self.presses = [
            cells_of(self.layout, tuple(("presses", str(number), field) for field in PressState._fields))
            for number in range(len(self.press_styles))
        ]
        self.square = cells_of(self.layout, _SQUARE)
        self.turned_to = cells_of(self.layout, _TURNED_TO)
        self.on_squares = self.tuning.frame.frame == FRAME_GRID
        falls = self.tuning.gaits[0].fall.falls > 0
        self.airborne = cells_of(self.layout, _AIRBORNE) if falls else None
        self.safe_place = cells_of(self.layout, _SAFE_PLACE)
        self.over(course)

    @property
    def ready_tables(self) -> Row:
        """The tables of its tick function: curves through points, and measured rims."""
        return tuple(self._tables)

    def over(self, course: Row) -> None:
        """Take another course."""
        self.part, self.tick, self.standing = self.ready.make(self._numbers, self._tables, course)

    def with_body(self, record: Record, body: Sequence[float], safe: bool = False, turned: bool = False) -> Record:
        """Return a record with another body, its numbers in the order of `BODY`: on squares it is moved to the middle
        of its square, and with an upward speed it is off the ground. With `safe`, its place counts as safe until a
        better one is known; with `turned`, squares forget any other facing.
        """
        _, x, y, _, _, _, speed_up = body
        after = list(record)
        self.body.write(after, body)
        if self.airborne and speed_up != 0.0:
            self.airborne.write(after, (1.0,))
        if safe and self.tuning.comfort.used > 0:
            self.safe_place.write(after, (x, y, x, y, x, y))
        if self.on_squares:
            self.stand_on_square(after, x, y)
            if turned:
                self.turned_to.write(after, (0.0, 0.0))
        return tuple(after)

    def presses_down(self, record: Record) -> list[bool]:
        """Return which presses are down."""
        return [press.read(record)[_DOWN] > 0.0 for press in self.presses]

    def toggled(self, record: Record) -> list[int]:
        """Return the numbers of the toggles whose state differs from the one that pressing the controls held now
        would leave.
        """
        states = [press.read(record) for press in self.presses]
        return [
            number
            for number, (style, state) in enumerate(zip(self.press_styles, states, strict=True))
            if style == STYLE_TOGGLE and (state[_ON] > 0.0) != (state[_DOWN] > 0.0)
        ]

    def stand_on_square(self, record: list[float], body_x: float, body_y: float) -> None:
        """Put the body in the middle of the square at a place, unless the place belongs to the step under way."""
        square_m, middle = self.tuning.frame.grid.square_m, self.tuning.frame.grid.middle
        axes = self.reader.axes
        # A place on a border is in the square that begins there by the game's counting.
        first, second = axes.level_from_plan(body_x - middle.x, body_y - middle.y)
        x, y = axes.level_to_plan(square_at(first, square_m), square_at(second, square_m))
        x, y = x + 0.0, y + 0.0
        step_x, step_y, to_x, to_y, *_ = self.square.read(tuple(record))
        # A place within the step under way is as expected.
        if (x, y) not in ((step_x, step_y), (to_x, to_y)):
            self.square.write(record, (x, y, x, y, *_STANDING_ON_SQUARE))


def square_at(place_m: float, square_m: float) -> float:
    """Return the index of the square that contains a place, along one axis; square 0 is around the origin.

    >>> square_at(0.4, 1.0), square_at(0.5, 1.0), square_at(-3.2, 2.0)
    (0.0, 1.0, -2.0)
    """
    return float(math.floor(place_m / square_m + 0.5))
