"""The runtime: events in, one intent out per tick."""

import math
from collections.abc import Iterable, Iterator, Mapping, Sequence

from wendonic.devices.controls import CONTROLS, DEVICES, Device, find_control, find_key, find_kind
from wendonic.devices.event import Event
from wendonic.devices.sampler import Sampler
from wendonic.devices.state import DeviceState
from wendonic.errors import WendonicError, none_such
from wendonic.intent import NO_AXES, NO_LOOK, AxisAmounts, Intent, Look, Presses
from wendonic.kernels.axis_channel import axis_amount, axis_states_at_rest
from wendonic.kernels.body import Body
from wendonic.kernels.fall import NOBODY_TOLD
from wendonic.kernels.formed_source import FORM_AT_REST, formed_source
from wendonic.kernels.ground import NO_COURSE, HasNumbers
from wendonic.kernels.look import LOOK_AT_REST, LookStates, looked
from wendonic.kernels.pipeline import MEMORY_AT_REST, Outcome, tick
from wendonic.kernels.places import GAIT, RAW, RISE_PLACE, SAMPLE_WIDTH, SWING_START, THROTTLE_PLACE, TURN_PLACE
from wendonic.kernels.press import PRESS_AT_REST, PressState, pressed
from wendonic.kernels.sector import sectored
from wendonic.kernels.steer_frame import FRAME_GRID
from wendonic.kernels.steered import ON_GROUND, steered_outcome, wished
from wendonic.kernels.steering import STEERING_AT_REST, settled, steering, steering_entered
from wendonic.kernels.swing import SWING_AT_REST, swung
from wendonic.profile.bindings import mode_sources
from wendonic.profile.schema import Profile
from wendonic.profile.tuning import mode_tuning
from wendonic.view import View
from wendonic.world_axes import WorldAxes

_VIEW = CONTROLS["view"]
_MOUSE = CONTROLS["mouse.move"]
_WHEEL = CONTROLS["mouse.wheel"]
_POINTER = CONTROLS["pointer.at"]
_GOAL = CONTROLS["goal"]
_AIM = CONTROLS["aim"]
_AXES_AT_REST = tuple(axis_states_at_rest(place) for place in (RISE_PLACE, THROTTLE_PLACE, TURN_PLACE))


class _ModeRun:
    """One mode of a profile, made ready to run."""

    __slots__ = (
        "axes",
        "beside",
        "carries",
        "devices",
        "falls",
        "flags",
        "forms",
        "gaits",
        "gyros",
        "jump",
        "look",
        "looks",
        "name",
        "presses",
        "sampler",
        "sector_margin",
        "sectors",
        "squares",
        "steering",
        "swing",
        "tables",
        "tuning",
    )

    def __init__(self, profile: Profile, name: str, seat: str | None, on_course: bool) -> None:
        self.name = name
        tuning = mode_tuning(profile, name, on_course)
        self.tuning, self.forms, self.look, self.tables = tuning.tick, tuning.forms, tuning.look, tuning.tables
        self.looks = tuning.look.source_count > 0
        self.gyros = tuning.gyros
        self.axes = [(index, channel) for index, channel in enumerate(tuning.axes) if channel.source_count]
        self.presses, self.flags = tuning.presses, tuning.flags
        self.sectors, self.sector_margin = tuning.sectors, tuning.sector_margin
        self.swing, self.steering = tuning.swing, tuning.steering
        self.gaits, self.jump = tuning.gaits, tuning.jump
        self.falls = tuning.steering is not None and tuning.steering.fall.on > 0
        self.beside = tuning.swing is not None or tuning.steering is not None
        self.squares = tuning.steering is not None and tuning.steering.frame == FRAME_GRID
        self.sampler = Sampler(mode_sources(profile, name, seat))
        self.carries = profile.mode[name].held_presses == "carry"
        self.devices: list[Device | None] = [DEVICES[index] if index >= 0 else None for index in self.sampler.devices]


def _look_states_of(gyros: Mapping[str, int], old_gyros: Mapping[str, int], old: LookStates) -> LookStates:
    """Return states at rest, but for what has been found out about a gyro that both modes look by: its bias stays."""
    states = list(LOOK_AT_REST)
    for control in gyros.keys() & old_gyros.keys():
        states[gyros[control]] = LOOK_AT_REST[0]._replace(gyro=old[old_gyros[control]].gyro)
    first, second, third, fourth = states
    return first, second, third, fourth


class Helm:
    """Takes raw input as it comes and gives one `Intent` per tick.

    Raw values are given in their device's own standard: W3C key codes, stick y positive towards the player, mouse y
    positive towards the user. A helm starts in the profile's first mode, at rest, at the origin, facing and looking
    along +y. In a `seat` such as "pad1" the profile's `pad` is that pad: several helms may be fed the same events,
    each for its own player. On a `course` (see `wendonic.course`) the body follows its ground and minds its blocked
    squares, where the mode's steering has to do with them.

    >>> from wendonic.profile.load import profile_from_text
    >>> helm = Helm(profile_from_text('''
    ... format = "wendonic-profile"
    ... version = 1
    ... [[mode.foot.move.bind]]
    ... keys = { ahead = ["KeyW"], right = ["KeyD"] }
    ... '''))
    >>> helm.key("KeyW", down=True)
    >>> for _ in range(30):
    ...     intent = helm.tick(1 / 60)
    >>> print(intent)
    tick 30, 0.500 s, foot: amount 1.00, heading   0.0 deg, facing   0.0 deg, 3.20 m/s
    """

    def __init__(self, profile: Profile, seat: str | None = None, course: HasNumbers | None = None) -> None:
        """Make every mode ready; nothing is looked up by name while ticking."""
        world = profile.world
        self.profile = profile
        self.seat = seat or "pad"
        self.axes = WorldAxes(world.right, world.ahead, world.up)
        self.state = DeviceState()
        self._course = NO_COURSE if course is None else course.numbers
        on_course = self._course[0] + self._course[1] > 0.0
        self._modes = {name: _ModeRun(profile, name, seat, on_course) for name in profile.mode}
        self._mode = self._modes[profile.first_mode]
        self._memory = MEMORY_AT_REST
        self._steering = STEERING_AT_REST
        self._swing = SWING_AT_REST
        self._row = [0.0] * SAMPLE_WIDTH
        self._changes_seen = -1
        self._view_changes_seen = 0
        self._view = View()
        self._view_row = (0.0, 0.0)
        self._look = NO_LOOK
        self._look_states = LOOK_AT_REST
        self._look_settled = True
        self._form_states = [FORM_AT_REST] * len(self._mode.forms)
        self._sector = -1.0
        self._faced = 0.0
        self._axis_states = list(_AXES_AT_REST)
        self._axis_amounts = self._axis_begins = NO_AXES
        self._device: Device | None = None
        self._press_places = {name: place for place, name in enumerate(profile.press_names)}
        self._press_states: list[PressState] = [PRESS_AT_REST] * len(self._press_places)
        self._presses = Presses(self._press_places, tuple(self._press_states))
        self._presses_settled = False
        self._ground = ON_GROUND
        self._ticks = 0
        self._t = 0.0
        self._t_rest = 0.0
        self._behind_s = 0.0
        for mode in self._modes.values():
            self.state.watched |= mode.sampler.watched
        self._others = self._other_samplers()
        self._mode.sampler.begin(self.state)

    def _other_samplers(self) -> list[Sampler]:
        return [mode.sampler for mode in self._modes.values() if mode is not self._mode and any(mode.presses)]

    @property
    def mode(self) -> str:
        """Name of the mode it is in."""
        return self._mode.name

    @property
    def health(self) -> dict[str, dict[str, int]]:
        """How often a raw value was cut to its range (`clamped`) or was no finite number (`refused`), by control."""
        return {"clamped": dict(self.state.clamped), "refused": dict(self.state.refused)}

    def apply(self, event: Event) -> None:
        """Take one event of any kind; raises `ControlError` for an unknown control or a value that does not fit."""
        self.state.apply(event)

    def key(self, code: str, down: bool) -> None:
        """Take a key going down or up, by its W3C code such as "KeyW". A repeated down changes nothing."""
        self.state.set(find_key(code), 1.0 if down else 0.0)

    def button(self, control: str, value: float | bool) -> None:
        """Take a button or trigger such as "pad.south": 0 or False is up, 1 or True all the way down."""
        self.state.set(find_kind(control, "button"), float(value))

    def stick(self, control: str, x: float, y: float) -> None:
        """Take a stick such as "pad.left_stick": each axis -1..1, x to the right, y towards the player."""
        self.state.set(find_kind(control, "stick"), (x, y))

    def mouse(self, dx: float, dy: float) -> None:
        """Take counts of the mouse since it was last told of: dx to the right, dy towards the user."""
        self.state.set(_MOUSE, (dx, dy))

    def wheel(self, notches: float) -> None:
        """Take notches of the mouse wheel, towards the user positive."""
        self.state.set(_WHEEL, notches)

    def pointer(self, x: float, y: float) -> None:
        """Take where the pointer is, in window fractions: 0..1, y down."""
        self.state.set(_POINTER, (x, y))

    def touch(self, finger: int, x: float, y: float, down: bool = True) -> None:
        """Take a finger, 0 to 9, that lands or moves, or is lifted: where it is, in window fractions, y down."""
        self.state.set(find_control(f"touch.{finger}"), (x, y, 1.0 if down else 0.0))

    def pose(self, control: str, position: Sequence[float], quaternion: Sequence[float]) -> None:
        """Take where a tracked thing is: "head.pose", "hand.left.pose", "hand.right.pose".

        Position in metres and quaternion x, y, z, w as WebXR has them: right-handed, y up, -z ahead.
        """
        self.state.set(find_kind(control, "pose"), (*position, *quaternion))

    def sensor(self, control: str, x: float, y: float, z: float) -> None:
        """Take a motion sensor: "pad.gyro" in rad/s, "pad.accel" in m/s²; x right, y up, z towards the player."""
        self.state.set(find_kind(control, "rates"), (x, y, z))

    def view(self, yaw_deg: float, pitch_deg: float = 0.0) -> None:
        """Take where the camera looks before this tick's look; it stands until given anew, or turned by `look`."""
        self.state.set(_VIEW, (yaw_deg, pitch_deg))

    def go_to(self, *place: float) -> None:
        """Take a place in the game's own axes (m) as the goal of the steer frame `goto`.

        It is walked to from the next tick on, unless a key or a stick steers, or the profile sticks to the last goal.
        In other frames it is kept and does nothing. Raises `WendonicError` if it has too few numbers or too many.

        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile("orchard"))
        >>> helm.go_to(3.0, -4.0)
        >>> intent = helm.tick(1 / 60)
        >>> intent.goal, round(intent.heading_deg, 1)
        (Plan(x=3.0, y=4.0), 36.9)
        """
        x, y, _ = self.axes.to_plan(*place)
        self.state.set(_GOAL, (x, y))

    def aim_at(self, *place: float) -> None:
        """Take a place in the game's own axes (m) as the point that a body with `face = "aim"` turns to, from now on.

        Until one is given, such a body stays as it faces. Raises `WendonicError` if it has too few numbers or too
        many.
        """
        x, y, _ = self.axes.to_plan(*place)
        self.state.set(_AIM, (x, y))

    def place(self, *place: float) -> None:
        """Take where the body really is, in the game's own axes (m): a game that moves it by itself says so before
        each tick, so that goals, points to aim at and slopes are seen from there. On squares it stands in the middle
        of the one it is in. Raises `WendonicError` for a place that is not finite.

        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> helm.place(1.0, 0.0, -2.0)
        >>> helm.tick(0.0).motion[:3]
        (1.0, 2.0, 0.0)
        """
        x, y, z = self.axes.to_plan(*place)
        if not all(map(math.isfinite, place)):
            raise WendonicError(f"place: found {place}; allowed: finite numbers of metres")
        states, outcome, rules = self._memory
        self._memory = (states, outcome._replace(pos_x=x, pos_y=y), rules)
        body = self._steering.body._replace(pos_x=x, pos_y=y, pos_z=z)
        tuning = self._mode.steering
        grid = self._steering.grid
        if tuning is not None and self._mode.squares:
            there = steering_entered(tuning, body, 0.0).grid
            # Within the step that is under way it is where it should be.
            if there.step[:2] not in (grid.step[:2], grid.step[2:4]):
                grid = there
        self._steering = self._steering._replace(body=body, grid=grid)

    def block(self, squares: Iterable[tuple[int, int]]) -> None:
        """Take the squares that nobody may step on, for the steer frame `grid`; they take the place of the last ones.

        A square is counted on the plan: (0, 0) lies about the origin, x to the right, y ahead. Raises `WendonicError`
        for one that is no pair of whole numbers.

        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile("crates"))
        >>> helm.block([(1, 0)])
        >>> helm.key("KeyD", down=True)
        >>> helm.tick(1 / 60).step.refused
        (1, 0)
        """
        start = int(self._course[2])
        named = list(squares)
        for square in named:
            if len(square) != 2 or any(number != round(number) for number in square):
                raise WendonicError(f"blocked square: found {square}; allowed: two whole numbers, right and ahead")
        blocked = [float(number) for square in named for number in square]
        self._course = (*self._course[:start], len(blocked) / 2.0, *blocked)

    def ground(self, there: bool, normal: Sequence[float] | None = None) -> None:
        """Take whether the body stands on the ground, and the ground's normal in the game's own axes, of any length.

        Until it is called the body stands on level ground, but in modes whose gait has weight: there it stands on the
        course, or at height 0. A normal that is not given is level, and so is the air. Presses with `buffer_s` or
        `grace_s`, modes with a `slope` and gaits with weight use it. Raises `WendonicError` for a normal that does
        not point up.
        """
        grounded = 1.0 if there else 0.0
        x, y, z = (0.0, 0.0, 1.0) if normal is None else self.axes.to_plan(*normal)
        length = math.sqrt(x * x + y * y + z * z)
        if not 0.0 < length < math.inf or z < 0.0:
            raise WendonicError(f"normal: found {normal}; allowed: a finite vector that points up")
        if grounded != self._ground[0]:
            self._presses_settled = False
        self._ground = (grounded, x / length, y / length, z / length)

    def lose(self, unit: str = "focus") -> None:
        """Let go what a device held: "focus" for all of them, or "keys", "pad1", "mouse", "touch", "hand.left", …"""
        self.state.set(find_kind(f"lost.{unit}", "loss"), 1.0)

    def enter(self, mode: str) -> None:
        """Go over to another mode of the profile.

        Where and how fast the body is stays, and so does the view. The wish to move does not: ramps and smoothing
        begin anew, so a key that is still held rises from zero. Presses that are held go on where the new mode has
        them, too, and says `held_presses = "carry"`; else they end, and count again once let go. Raises
        `WendonicError` for a mode that does not exist or that `leave_to` does not allow from here. Entering the mode
        it is in changes nothing.
        """
        new = self._modes.get(mode)
        if new is None:
            raise WendonicError(none_such("mode", mode, self._modes))
        if new is self._mode:
            return
        allowed = self.profile.mode[self._mode.name].leave_to
        if allowed is not None and mode not in allowed:
            ways = ", ".join(allowed) or "nowhere"
            raise WendonicError(f'mode "{self._mode.name}" leaves to {ways}, not to "{mode}"; see its leave_to')
        old = self._memory[1]
        states_at_rest, at_rest, rules_at_rest = MEMORY_AT_REST
        body = at_rest._replace(face=old.face, pos_x=old.pos_x, pos_y=old.pos_y, vel_x=old.vel_x, vel_y=old.vel_y)
        vel_z = self._steering.body.vel_z if self._mode.steering else 0.0
        whole = Body(old.face, old.pos_x, old.pos_y, self._steering.body.pos_z, old.vel_x, old.vel_y, vel_z)
        old_presses, old_gyros = self._mode.presses, self._mode.gyros
        self._mode = new
        self._memory = (states_at_rest, body, rules_at_rest)
        self._steering = (
            steering_entered(new.steering, whole, self._view_row[0])
            if new.steering
            else STEERING_AT_REST._replace(body=whole)
        )
        self._swing = SWING_AT_REST
        self._axis_states = list(_AXES_AT_REST)
        self._axis_amounts = self._axis_begins = NO_AXES
        self._look = NO_LOOK
        self._look_states = _look_states_of(new.gyros, old_gyros, self._look_states)
        self._look_settled = False
        self._form_states = [FORM_AT_REST] * len(new.forms)
        self._sector = -1.0
        self._row = [0.0] * SAMPLE_WIDTH
        self._changes_seen = -1
        # Under another style, on and down mean something else: such a press begins anew.
        carries = [
            new_mode_has.style == had.style and new.carries
            for had, new_mode_has in zip(old_presses, new.presses, strict=True)
        ]
        carried = [carry and state.down > 0.0 for carry, state in zip(carries, self._press_states, strict=True)]
        for place, state in enumerate(self._press_states):
            if not carried[place]:
                # What was held still ends; of the rest only what was switched on, and the time since, is left.
                self._press_states[place] = PRESS_AT_REST._replace(
                    on=state.on if carries[place] else 0.0, held=state.held, air_s=state.air_s, begun_s=state.begun_s
                )
        self._presses = Presses(self._press_places, tuple(self._press_states))
        self._presses_settled = False
        self._others = self._other_samplers()
        new.sampler.begin(self.state, carried)

    def tick(self, dt: float, view: View | None = None) -> Intent:
        """Return the intent after `dt` seconds (0 or more; 0 changes nothing), steered by `view` if it is given.

        `view` is where the game's camera looks before this tick's look is added; without it the helm goes on from
        where its own view stands. A hitch, a `dt` above the profile's `max_dt_s`, is cut into equal parts. A `dt`
        that is negative or not finite raises `WendonicError`.
        """
        state = self.state
        mode = self._mode
        if not 0.0 < dt < math.inf:
            return self._standing(dt, view)
        if view is not None:
            state.set(_VIEW, view)
        changed = state.changes != self._changes_seen
        if changed:
            self._take_changes()
        if mode.presses and not (self._presses_settled and not mode.sampler.has_edges):
            self._run_presses(dt)
        place = self._run_axes(dt) if mode.axes else -1.0
        if state.view_changes != self._view_changes_seen:
            self._view_changes_seen = state.view_changes
            self._view = View(state.values[_VIEW.slot], state.values[_VIEW.slot + 1])
            self._view_row = (math.radians(self._view.yaw_deg), math.radians(self._view.pitch_deg))
        if mode.looks and (changed or not self._look_settled):
            place = self._run_look(dt, place)
        if mode.beside:
            outcome = self._tick_beside(dt)
        else:
            self._memory, outcome = tick(mode.tuning, self._memory, self._row, self._view_row, dt)
        if mode.sectors and (outcome.face != self._faced or self._sector < 0.0):
            self._faced = outcome.face
            self._sector = sectored(outcome.face, self._sector, mode.sectors, mode.sector_margin)
        self._ticks += 1
        # Compensated summation (Kahan 1965): after a day of ticks the clock is still right to the microsecond.
        added = dt - self._t_rest
        total = self._t + added
        self._t_rest = (total - self._t) - added
        self._t = total
        if outcome.source >= 0.0:
            place = outcome.source
        if place >= 0.0:
            self._device = mode.devices[int(place)]
        elif mode.sampler.press_device >= 0:
            self._device = DEVICES[mode.sampler.press_device]
        return Intent(
            self._ticks,
            total,
            dt,
            mode.name,
            self._device,
            self._view,
            outcome,
            self.axes,
            self._presses,
            self._look,
            self._axis_amounts,
            int(self._sector) if mode.sectors else None,
            self._steering if mode.steering else None,
            mode.gaits[int(self._row[GAIT])] if mode.gaits else None,
            self._stands(),
        )

    def _take_changes(self) -> None:
        """Bring the row up to date with what came since the last tick."""
        state = self.state
        kept = state.kept
        self._changes_seen = -1 if self._mode.sampler.fill(state, self._row) else state.changes
        if kept:
            for other in self._others:
                other.note(kept)
        if self._mode.forms:
            self._run_forms()

    def _run_forms(self) -> None:
        """Shape what comes into the tick shaped."""
        row, states, tables = self._row, self._form_states, self._mode.tables
        for index, (start, tuning) in enumerate(self._mode.forms):
            raw = start + RAW
            formed = formed_source(tuning, tables, states[index], row[raw], row[raw + 1])
            states[index] = formed
            row[start : start + len(formed)] = formed

    def _tick_beside(self, dt: float) -> Outcome:
        """Tick, with what has kernels of its own: hands that swing come into it shaped, and the rarer steer frames go
        on from it.
        """
        mode = self._mode
        if mode.swing is not None:
            start, swing = mode.swing
            row = self._row
            self._swing = swung(swing, mode.tables, self._swing, row, SWING_START, dt)
            row[start + 1] = self._swing.amount
            row[start + RAW + 1] = self._swing.raw
        self._memory, shaped = tick(mode.tuning, self._memory, self._row, self._view_row, dt)
        if mode.gaits is None:
            return shaped
        tuning = mode.gaits[int(self._row[GAIT])]
        jump = self._press_states[mode.jump] if mode.jump >= 0 else PRESS_AT_REST
        wish = wished(
            tuning,
            self._row,
            shaped.local_x,
            shaped.local_y,
            self._axis_amounts,
            self._axis_begins,
            *self._view_row,
            self._ground,
            (jump.began, jump.held),
        )
        was_airborne = self._steering.fall.airborne
        self._steering = steering(tuning, self._course, self._steering, wish, dt)
        if self._steering.fall.airborne != was_airborne:
            self._presses_settled = False
        told = steered_outcome(self._steering)
        # Where the body came to stands in the memory, as it does for the usual frames.
        outcome = Outcome(
            *shaped[:5],
            told.move_x,
            told.move_y,
            told.amount,
            told.heading,
            told.face,
            told.pos_x,
            told.pos_y,
            told.vel_x,
            told.vel_y,
        )
        states, _, rules = self._memory
        self._memory = (states, outcome, rules)
        return outcome

    def _run_look(self, dt: float, place: float) -> float:
        """Turn the view; return the place of what turned it, or `place`."""
        was = self._look_states
        self._look_states, outcome = looked(self._mode.look, self._mode.tables, was, *self._view_row, self._row, dt)
        self._look_settled = False
        if outcome.look_yaw == 0.0 and outcome.look_pitch == 0.0:
            self._look = NO_LOOK
            # What stands as it stood goes on standing until something comes.
            self._look_settled = self._look_states == was
            return place
        self._look = Look(math.degrees(outcome.look_yaw), math.degrees(outcome.look_pitch))
        self._view_row = (outcome.view_yaw, outcome.view_pitch)
        self._view = View(math.degrees(outcome.view_yaw), math.degrees(outcome.view_pitch))
        return outcome.source if outcome.source >= 0.0 else place

    def _run_axes(self, dt: float) -> float:
        """Bring `rise`, `throttle` and `turn` to the end of the tick; return the place of one that moves, or -1."""
        moving = [-1.0, -1.0, -1.0]
        values = [0.0, 0.0, 0.0]
        begins = [0.0, 0.0, 0.0]
        for index, tuning in self._mode.axes:
            after = axis_amount(tuning, self._axis_states[index], self._row, dt)
            self._axis_states[index], moving[index], values[index], begins[index] = after
        self._axis_amounts, self._axis_begins = AxisAmounts(*values), AxisAmounts(*begins)
        rise, throttle, turn = moving
        return throttle if throttle >= 0.0 else turn if turn >= 0.0 else rise

    def _stands(self) -> bool:
        """Return whether the body stands on the ground: as the game tells, else as the gait's own weight has it."""
        told = self._ground[0]
        if told == NOBODY_TOLD and self._mode.falls:
            return self._steering.fall.airborne == 0.0
        return told > 0.0

    def _run_presses(self, dt: float) -> None:
        """Bring every press to the end of the tick; they have settled once none of them changes by itself."""
        states = self._press_states
        grounded = 1.0 if self._stands() else 0.0
        changed = False
        for place, (tuning, reader) in enumerate(zip(self._mode.presses, self._mode.sampler.presses, strict=True)):
            state = states[place]
            lost = 1.0 if reader.lost else 0.0
            after = pressed(tuning, state, 1.0 if reader.down else 0.0, reader.edges, lost, grounded, dt)
            if after is not state:
                states[place] = after
                changed = True
        row = self._row
        for flag in self._mode.flags:
            row[flag.place] = 0.0
        for flag in self._mode.flags:
            if states[flag.press].held:
                row[flag.place] = max(row[flag.place], flag.value)
        self._presses_settled = not changed
        if changed:
            self._presses = Presses(self._press_places, tuple(states))

    def _standing(self, dt: float, view: View | None) -> Intent:
        """Return the intent as it stands: nothing turned, nothing began or ended."""
        if dt != 0.0:
            raise WendonicError(f"dt: found {dt!r}; allowed: a finite number of seconds, 0 or more")
        if view is not None:
            self.state.set(_VIEW, view)
        gaits = self._mode.gaits
        states = [state._replace(began=0.0, ended=0.0) for state in self._press_states]
        self._ticks += 1
        presses = Presses(self._press_places, states)
        return Intent(
            self._ticks,
            self._t,
            0.0,
            self._mode.name,
            self._device,
            self._view,
            self._memory[1],
            self.axes,
            presses,
            NO_LOOK,
            self._axis_amounts,
            int(self._sector) if self._sector >= 0.0 else None,
            settled(self._steering) if self._mode.steering is not None else None,
            gaits[int(self._row[GAIT])] if gaits else None,
            self._stands(),
        )

    def fixed_ticks(self, frame_dt: float, step_s: float, view: View | None = None) -> Iterator[Intent]:
        """Give the intents of a fixed-step game: as many ticks of `step_s` as fit into the frames so far.

        What is left of a frame is kept for the next. Counts and edges belong to the first tick after them and to no
        other; a frame too short for a tick keeps them. Every frame's intents have to be taken. Raises `WendonicError`
        for a `frame_dt` that is negative or not finite, or a `step_s` that is not above 0.

        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> [len(list(helm.fixed_ticks(1 / 60, step_s=1 / 100))) for _ in range(6)]
        [1, 2, 2, 1, 2, 2]
        """
        if not 0.0 <= frame_dt < math.inf or not 0.0 < step_s < math.inf:
            raise WendonicError(f"frame_dt {frame_dt!r}, step_s {step_s!r}; allowed: finite, the step above 0")
        self._behind_s += frame_dt
        # A step that rounding alone keeps from fitting fits.
        while self._behind_s >= step_s * (1.0 - 1e-9):
            self._behind_s -= step_s
            yield self.tick(step_s, view)
            view = None
