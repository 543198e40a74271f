"""One mode of a profile, ready to run."""

from collections.abc import Mapping, Sequence

from wendonic.compiler.ready import ReadyTick, Record, ready
from wendonic.devices.controls import DEVICES, Device
from wendonic.devices.sampler import Sampler
from wendonic.kernels.body.body import Body
from wendonic.kernels.frames.frame import FRAME_GRID
from wendonic.kernels.press.press import PRESS_AT_REST, PressState
from wendonic.kernels.row import Row
from wendonic.kernels.tick import Tuning
from wendonic.profile.bindings import mode_sources
from wendonic.profile.schema import Profile
from wendonic.profile.tuning import mode_tuning
from wendonic.runtime.reader import BODY, Reader
from wendonic.world_axes import WorldAxes


class ModeRun:
    """One mode: its tick function with its numbers, its sampler, and where everything stands in a record."""

    __slots__ = (
        "_numbers",
        "_tables",
        "carries",
        "devices",
        "gyros",
        "layout",
        "max_dt_s",
        "name",
        "part",
        "press_styles",
        "reader",
        "ready",
        "record_at_rest",
        "sampler",
        "source_place",
        "standing",
        "tick",
        "tuning",
        "view_place",
    )

    def __init__(
        self, profile: Profile, name: str, seat: str | None, course: Row, axes: WorldAxes, on_course: bool
    ) -> None:
        """Make it ready; nothing is looked up by name while ticking."""
        self.name = name
        numbers = mode_tuning(profile, name, on_course)
        self.tuning: Tuning = numbers.tick
        self.gyros: Mapping[str, int] = numbers.gyros
        self.sampler = Sampler(mode_sources(profile, name, seat))
        self.ready: ReadyTick = ready(numbers.tick, self.sampler.places.sample, name)
        self.layout = self.ready.layout
        self._numbers, self._tables = self.ready.numbers(numbers.tick), numbers.tables
        self.max_dt_s = numbers.tick.max_dt_s
        self.record_at_rest: Record = self.ready.record_at_rest(numbers.tick)
        self.carries = profile.mode[name].held_presses == "carry"
        self.devices: list[Device | None] = [DEVICES[index] if index >= 0 else None for index in self.sampler.devices]
        self.source_place = self.layout.place("outcome", "source")
        self.view_place = self.sampler.places.view
        self.press_styles = [press.style for press in self.tuning.presses]
        presses = {press: number for number, press in enumerate(profile.press_names)}
        self.reader = Reader(name, axes, self.layout, self.tuning, presses)
        self.over(course)

    def over(self, course: Row) -> None:
        """Take another course."""
        self.part, self.tick, self.standing = self.ready.make(self._numbers, self._tables, course)

    def with_body(self, record: list[float], body: Body) -> None:
        """Put a body into a record."""
        numbers = (body.face, *body.position, *body.velocity)
        for path, number in zip(BODY, numbers, strict=True):
            self.put(record, number, *path)

    def put(self, record: list[float], number: float, *path: str) -> None:
        """Put a number of the memory into a record, and where it is told; what the structure has no use for is left
        out.
        """
        for part in ("memory", "outcome"):
            place = self.layout.places.get((part, *path), -1)
            if place >= 0:
                record[place] = number

    def press_state(self, record: Record, number: int) -> PressState:
        """Return the state of a press."""
        at = str(number)
        return PressState(*(self._number(record, "presses", at, field) for field in PressState._fields))

    def _number(self, record: Record, *path: str) -> float:
        place = self.layout.places.get(("memory", *path), -1)
        if place < 0:
            place = self.layout.places.get(("outcome", *path), -1)
        return record[place] if place >= 0 else self.layout.constants[("memory", *path)]

    def entered(self, old: "ModeRun", record: Record, carried: Sequence[bool]) -> Record:
        """Return the record in which this mode is entered from another one.

        Body and view stay, and what has been found out of a gyro that both look by; presses that are carried go on,
        of the others only what was switched on, and the time since, is left. What is held still ends.
        """
        after = list(self.record_at_rest)
        body = old.reader.body(record)
        self.with_body(after, body)
        yaw, pitch = old.reader.view(record)
        self.put(after, yaw, "view", "yaw")
        self.put(after, pitch, "view", "pitch")
        for control in self.gyros.keys() & old.gyros.keys():
            here, there = str(self.gyros[control]), str(old.gyros[control])
            for path in self.layout.places:
                if path[:4] == ("memory", "look", here, "gyro"):
                    self.put(after, old._number(record, "look", there, *path[3:]), *path[1:])
        for number, same_press in enumerate(carried):
            state = old.press_state(record, number)
            if not same_press:
                keeps = self.carries and self.press_styles[number] == old.press_styles[number]
                state = PRESS_AT_REST._replace(
                    on=state.on if keeps else 0.0, held=state.held, air_s=state.air_s, begun_s=state.begun_s
                )
            for field, value in zip(state._fields, state, strict=True):
                self.put(after, value, "presses", str(number), field)
        if self.tuning.frame.frame == FRAME_GRID:
            self.stand_on_square(after, body)
        if self.tuning.comfort.used > 0:
            for axis, value in zip("xyz", body.velocity, strict=True):
                self.put(after, value, "comfort", "velocity", axis)
            self.put(after, yaw, "comfort", "yaw")
            for axis, value in zip("xy", body.position, strict=False):
                self.put(after, value, "comfort", "safe", axis)
                self.put(after, value, "comfort", "head", axis)
        if self.tuning.gaits[0].fall.falls > 0 and body.velocity.z != 0.0:
            self.put(after, 1.0, "fall", "airborne")
        return tuple(after)

    def stand_on_square(self, record: list[float], body: Body) -> None:
        """Stand in the middle of the square that the body is in, unless that is part of the step under way."""
        x, y = square_of(self.tuning, body)
        step = [self._number(tuple(record), "frame", "grid", "step", field) for field in ("x", "y", "to_x", "to_y")]
        # Within the step that is under way it is where it should be.
        if (x, y) in ((step[0], step[1]), (step[2], step[3])):
            return
        for field, number in (("x", x), ("y", y), ("to_x", x), ("to_y", y), ("share", 0.0)):
            self.put(record, number, "frame", "grid", "step", field)
        for field in ("asked", "asked_x", "asked_y", "wait_s", "refused", "refused_x", "refused_y"):
            self.put(record, 0.0, "frame", "grid", field)


def square_of(tuning: Tuning, body: Body) -> tuple[float, float]:
    """Return the square that a body is in."""
    square_m = tuning.frame.grid.square_m
    return (
        float(int((body.position.x / square_m + 0.5) // 1.0)),
        float(int((body.position.y / square_m + 0.5) // 1.0)),
    )
