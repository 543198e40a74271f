"""The calls by which a game reports its body: the game owns the body, and the helm is its guest."""

import contextlib
import logging
import math
from abc import abstractmethod
from collections.abc import Iterable, Sequence

from wendonic.compiler.ready import Record
from wendonic.devices.controls import CONTROLS, Control
from wendonic.devices.event import Event, Value, control_and_value, fitting_value
from wendonic.errors import WendonicError
from wendonic.kernels.body.fall import GROUND_UNKNOWN
from wendonic.kernels.body.ground import ground_at
from wendonic.kernels.frames.blocked import blocked_table, squares_in
from wendonic.runtime.corrections import corrected_body, plan_vector
from wendonic.runtime.door import Door
from wendonic.runtime.mode_run import ModeRun
from wendonic.world_axes import GameVector, WorldAxes, vector_numbers

_PLACE = CONTROLS["body.place"]
_VELOCITY = CONTROLS["body.velocity"]
_FACING = CONTROLS["body.facing"]
_PUSH = CONTROLS["body.push"]
_CONTACT = CONTROLS["body.contact"]
_GROUND = CONTROLS["body.ground"]
_RESTART = CONTROLS["body.restart"]
_SQUARE = CONTROLS["square"]
_DISCARD = CONTROLS["discard"]
_STILL = (0.0, 0.0, 0.0)
_LOW_M = 0.1
"""How far a game's body may sink into the ground (m)."""


class BodyDoor(Door):
    """Takes a game's reports of the body, of ground and walls, and of the mode that it enters.

    The game's own calls use its axes and its unit; events of a recording have the same in the plan frame. Every call
    passes its result on to the held state, so that a game's session can be recorded.
    """

    __slots__ = (
        "_blocked_by_game",
        "_changes_seen",
        "_contact",
        "_course_before",
        "_ground",
        "_low_place",
        "_low_place_noted",
        "_record",
        "_row",
        "_run",
        "_runs",
        "_squares",
        "_wall",
        "axes",
    )

    axes: WorldAxes
    _blocked_by_game: tuple[frozenset[tuple[int, int]], WorldAxes, tuple[float, ...]] | None
    """The squares that the game blocked last, its axes at that time, and the resulting course."""
    _changes_seen: int
    _contact: GameVector | None
    _course_before: tuple[float, ...]
    """The course without the squares that have been reported one by one since the last tick that read it."""
    _ground: tuple[float, float, float, float]
    _low_place: tuple[tuple[float, ...], float] | None
    """The last place below the ground that the helm knows, and how far below (m), until the next tick."""
    _low_place_noted: bool
    _record: Record
    _row: list[float]
    _run: ModeRun
    _runs: dict[str, ModeRun]
    _squares: dict[tuple[float, float], None] | None
    """All blocked squares, if they are not in the course yet."""
    _wall: tuple[float, ...] | None

    @property
    def _course(self) -> tuple[float, ...]:
        """The course including blocked squares."""
        self._block_reported()
        return self._course_before

    @abstractmethod
    def enter(self, mode: str) -> None:
        """Enter another mode."""

    @abstractmethod
    def _begin_anew(self) -> None:
        """Forget what is carried from tick to tick, except body, view, clock and mode."""

    def apply(self, event: Event) -> None:
        """Apply one event of any kind: of a device, or what a game reports to its helm.

        Raises `ControlError` for an unknown control or a value that does not fit it, and `WendonicError` for a mode
        that cannot be entered.

        >>> from wendonic import Helm
        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> helm.apply(Event(0.0, "pad.left_stick", (0.0, -1.0)))
        >>> helm.tick(1 / 60).local
        Local(right=0.0, forward=1.0)
        """
        control, value = control_and_value(event)
        if control.kind == "reported":
            self._take(control, value)
        elif control.kind == "mode":
            self.enter(str(fitting_value(control, value)))
        else:
            self.state.set(control, value)

    def _take(self, control: Control, value: Value) -> None:
        """Take a game's report from a recording, in the plan frame."""
        fitting = fitting_value(control, value)
        numbers = fitting if isinstance(fitting, tuple) else (float(fitting),)
        body = self._run.body.read(self._record)
        match control.name:
            case "body.place":
                self._set_body([body[0], *numbers, *body[4:]], safe=True)
            case "body.velocity":
                self._set_velocity(numbers)
            case "body.facing":
                self._set_body([math.radians(numbers[0]), *body[1:]], turned=True)
            case "body.push":
                self._push_by(numbers)
            case "body.contact":
                self._touch_wall(numbers)
            case "body.ground":
                self._stand_on(numbers)
            case "body.restart":
                self._begin_anew()
            case "square":
                self._block_square(*numbers)
            case "discard":
                self.state.discard_counts()
        self.state.report(control, fitting)

    def _set_body(self, body: Sequence[float], safe: bool = False, turned: bool = False) -> None:
        self._record = self._run.with_body(self._record, body, safe, turned)

    def place(
        self,
        *place: float | Sequence[float],
        velocity: Sequence[float] | None = None,
        facing: Sequence[float] | None = None,
    ) -> None:
        """Report where the body is, its velocity and where it faces, all in the game's own axes and unit: a game
        that moves the body itself does so before each tick. What is not mentioned stays as it was. A place may come
        number by number or as one vector.

        In modes whose gait has weight, report the ground as well, see `ground`. A body below the only ground that the
        helm knows is lifted onto it, and no jump leaves it from there; that is logged once.

        Goals, points to aim at and slopes are seen from there, the gait continues from that velocity, and on squares
        the body is in the middle of its square. A body that neither falls nor flies has no upward speed: that is
        the game's alone. Until a better one is known, the place counts as safe. A velocity that has lost its part
        into a wall works like `contact`. Raises `WendonicError` for too few or too many numbers, for one that is not
        finite, and for a facing of zero.

        >>> from wendonic import Helm
        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> helm.place(1.0, 0.0, -2.0, facing=(1.0, 0.0, 0.0))
        >>> intent = helm.tick(0.0)
        >>> intent.motion[:3], intent.face_deg
        ((1.0, 2.0, 0.0), 90.0)
        """
        was = self._run.body.read(self._record)
        body = corrected_body(self.axes, was, place, velocity, facing)
        self._set_body(body, safe=bool(place), turned=facing is not None)
        if velocity is not None:
            self._infer_wall(was[4:], body[4:])
        if place:
            self.state.report(_PLACE, tuple(body[1:4]))
            unknown = self._ground[0] == GROUND_UNKNOWN and not self._low_place_noted
            if unknown and self._run.airborne is not None:
                below_m = ground_at(self._course, body[1], body[2]).height - body[3]
                self._low_place = (vector_numbers(place), below_m) if below_m > _LOW_M else None
                if self._low_place:
                    # This makes the next tick read the changes.
                    self._changes_seen = -1
        if velocity is not None:
            self.state.report(_VELOCITY, tuple(body[4:]))
        if facing is not None:
            self.state.report(_FACING, math.degrees(body[0]))

    def _note_low_place(self, place: tuple[float, ...], below_m: float) -> None:
        """Warn once of a place below the only known ground, unless the game has reported its own since."""
        self._low_place = None
        if self._ground[0] == GROUND_UNKNOWN:
            self._low_place_noted = True
            logging.getLogger("wendonic").warning(
                "place(%s) is %g %s below the only ground that the helm knows, so the body is lifted onto it and "
                "cannot jump from below; report your own ground before each tick: helm.ground(there)",
                ", ".join(f"{number:g}" for number in place),
                below_m * self.axes.units_per_m,
                self.axes.unit,
            )

    def stop(self) -> None:
        """Set the body's speed to zero, as a wall does (see `contact`); facing, view and held controls stay.

        >>> from wendonic import Helm
        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> helm.key("KeyW", down=True)
        >>> for _ in range(60):
        ...     intent = helm.tick(1 / 60)
        >>> helm.stop()
        >>> helm.tick(0.0).velocity()
        (0.0, 0.0, 0.0)
        """
        self._set_velocity(_STILL)
        self.state.report(_VELOCITY, _STILL)

    def _set_velocity(self, velocity: Sequence[float]) -> None:
        """Take a velocity in the plan frame."""
        body = self._run.body.read(self._record)
        self._set_body([*body[:4], *velocity])
        self._infer_wall(body[4:], velocity)

    def _infer_wall(self, was: Sequence[float], velocity: Sequence[float]) -> None:
        """Infer a wall if a new velocity (m/s) has no component left along the difference from the old one."""
        was_x, was_y, was_z = was
        x, y, z = velocity
        taken_x, taken_y, taken_z = was_x - x, was_y - y, was_z - z
        length, was_m_s = math.hypot(taken_x, taken_y, taken_z), math.hypot(was_x, was_y, was_z)
        left = x * taken_x + y * taken_y + z * taken_z
        if was_m_s > 0.0 and length > 0.5 * was_m_s and left <= 1e-6 * length * was_m_s:
            self._tell_wall((-taken_x / length, -taken_y / length, -taken_z / length))

    def _tell_wall(self, normal: Sequence[float]) -> None:
        """Keep the normal of a wall that took the body's speed, for the next tick; in a corner, normals add up."""
        both = [was + part for was, part in zip(self._wall or _STILL, normal, strict=True)]
        length = math.hypot(*both)
        wall = tuple([part / length for part in both] if length > 1e-6 else normal)
        self._wall = wall
        start = self._run.sampler.layout.wall
        self._row[start : start + 3] = wall

    def push(self, *velocity: float | Sequence[float]) -> None:
        """Add a velocity (in the game's own axes and unit) to the body's: a knock, a launch, a step onto ground that
        moves. From the next tick on the gait controls it again, and pushes add up. Push after `place`, whose velocity
        would replace it. It may come number by number or as one vector. Raises `WendonicError` for a velocity that is
        not finite.

        >>> from wendonic import Helm
        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> helm.push((2.0, 0.0, 0.0))
        >>> helm.tick(0.0).velocity()
        (2.0, 0.0, 0.0)
        """
        added = plan_vector(self.axes, "push", velocity, _STILL, self.axes.units_per_m)
        if any(added):
            self._push_by(added)
            self.state.report(_PUSH, added)

    def _push_by(self, added: Sequence[float]) -> None:
        body = self._run.body.read(self._record)
        self._set_body([*body[:4], *(speed + more for speed, more in zip(body[4:], added, strict=True))])

    def contact(self, *normal: float | Sequence[float]) -> None:
        """Report a wall of the game that the body touches, by the normal that points away from it, in the game's own
        axes and of any length. The speed into the wall is gone, the speed along it stays, and once nothing into it is
        held, ramps and smoothing have forgotten it. The next tick's `intent.contact` has it. Raises `WendonicError`
        for a normal that is zero or not finite.

        >>> from wendonic import Helm
        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> helm.push(2.0, 0.0, -1.0)
        >>> helm.contact(-1.0, 0.0, 0.0)
        >>> helm.tick(0.0).velocity()
        (0.0, 0.0, -1.0)
        """
        plan = plan_vector(self.axes, "contact", normal, _STILL)
        if not any(plan):
            raise WendonicError(f"contact: found {vector_numbers(normal)}; allowed: a vector that is not zero")
        length = math.hypot(*plan)
        x, y, z = (part / length for part in plan)
        self._touch_wall((x, y, z))
        self.state.report(_CONTACT, (x, y, z))

    def _touch_wall(self, normal: Sequence[float]) -> None:
        body = self._run.body.read(self._record)
        into = min(sum(speed * part for speed, part in zip(body[4:], normal, strict=True)), 0.0)
        moving = [speed - into * part for speed, part in zip(body[4:], normal, strict=True)]
        self._set_body([*body[:4], *moving])
        self._contact = self.axes.from_plan(*normal)
        self._tell_wall(normal)

    def ground(self, there: bool, normal: Sequence[float] | None = None) -> None:
        """Report whether the body is on the ground, and the ground's normal in the game's own axes, of any length.

        Until it is called, the body stands on level ground; in modes whose gait has weight it stands on the course,
        or at height 0. Without a normal the ground is level, and so is the air. Presses with `buffer_s` or `grace_s`,
        modes with a `slope` and gaits with weight use it. Raises `WendonicError` for a normal that does not point up.

        >>> from wendonic import Helm
        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile("harvest"))
        >>> helm.ground(False)
        >>> helm.tick(1 / 60).motion.grounded
        False
        """
        level = (0.0, 0.0, 1.0)
        x, y, z = level if normal is None else plan_vector(self.axes, "normal", normal, (0.0, 0.0, 0.0))
        length = math.hypot(x, y, z)
        if not 0.0 < length < math.inf or z < 0.0:
            raise WendonicError(f"normal: found {normal}; allowed: a finite vector that points up")
        ground = (1.0 if there else 0.0, x / length, y / length, z / length)
        self._stand_on(ground)
        self.state.report(_GROUND, ground)

    def _stand_on(self, ground: Sequence[float]) -> None:
        there, x, y, z = ground
        self._ground = (there, x, y, z)
        start = self._run.sampler.layout.ground
        self._row[start : start + 4] = self._ground

    def restart(self, *place: float | Sequence[float], facing: Sequence[float] | None = None) -> None:
        """Begin a new life, at rest, at a place and with a facing in the game's own axes and unit, each kept if it is
        not mentioned: ramps, smoothing, toggles, buffers, goals and safe places are forgotten. The view, the clock
        and the mode stay. Held keys and sticks count again, from zero; held presses count again once released.

        >>> from wendonic import Helm
        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> helm.key("KeyW", down=True)
        >>> for _ in range(60):
        ...     intent = helm.tick(1 / 60)
        >>> helm.restart(0.0, 0.0, 0.0)
        >>> helm.tick(0.0).motion[:6]
        (0.0, 0.0, 0.0, 0.0, 0.0, 0.0)
        """
        self.place(*place, facing=facing)
        self._begin_anew()
        self.state.report(_RESTART, 1.0)

    def discard_counts(self) -> None:
        """Discard counts of the mouse and its wheel, and motions of fingers and hands, that no tick has taken yet:
        what piled up behind a menu.

        >>> from wendonic import Helm
        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> helm.mouse(500.0, 0.0)
        >>> helm.discard_counts()
        >>> helm.tick(1 / 60).look.yaw_deg
        0.0
        """
        self.state.discard_counts()
        self.state.report(_DISCARD, 1.0)

    def block(self, squares: Iterable[tuple[int, int]]) -> None:
        """Set the squares that cannot be entered in the steer frame `grid`; they replace the last ones.

        Squares are counted along the game's own horizontal axes, in their order, like places: (0, 0) is around the
        origin, unless `origin_m` moves it. Raises `WendonicError` for one that is not a pair of whole numbers.

        >>> from wendonic import Helm
        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile("crates"))
        >>> helm.block([(1, 0)])
        >>> helm.key("KeyD", down=True)
        >>> helm.tick(1 / 60).step.refused
        (1, 0)
        """
        given = list(squares)
        course = self._course
        # A game may say each tick what it said before.
        if self._blocked_by_game is not None and self._blocked_by_game[1:] == (self.axes, course):
            with contextlib.suppress(TypeError):
                if self._blocked_by_game[0] == frozenset(given):
                    return
        for square in given:
            if len(square) != 2 or any(number != round(number) for number in square):
                raise WendonicError(f"blocked square: found {square}; allowed: two whole numbers")
        wanted = {(float(x), float(y)) for x, y in (self.axes.square_to_plan(*square) for square in given)}
        before = set(squares_in(course))
        if wanted != before:
            self._block(sorted(wanted))
        self._blocked_by_game = frozenset((x, y) for x, y in given), self.axes, self._course_before
        for x, y in sorted(wanted ^ before):
            self.state.report(_SQUARE, (x, y, 1.0 if (x, y) in wanted else 0.0))

    def blocked_squares(self) -> list[tuple[int, int]]:
        """Return the blocked squares, counted as `block` does.

        >>> from wendonic import Helm
        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile("crates"))
        >>> helm.block([(2, -1), (0, 1)])
        >>> sorted(helm.blocked_squares())
        [(0, 1), (2, -1)]
        """
        return [self.axes.square_from_plan(x, y) for x, y in squares_in(self._course)]

    def _block_square(self, x: float, y: float, blocked: float) -> None:
        # A recording reports them one by one: the table is made once for all that come before a tick.
        squares = self._squares
        if squares is None:
            squares = self._squares = dict.fromkeys(squares_in(self._course_before))
        squares.pop((x, y), None)
        if blocked > 0.0:
            squares[x, y] = None
        self._changes_seen = -1

    def _block_reported(self) -> None:
        """Block the squares that were reported one by one, if there are any."""
        squares, self._squares = self._squares, None
        if squares is not None:
            self._block(squares)

    def _block(self, squares: Iterable[tuple[float, float]]) -> None:
        before = self._course_before
        self._course_before = (*before[: int(before[2])], *blocked_table(squares))
        for run in self._runs.values():
            run.over(self._course_before)
