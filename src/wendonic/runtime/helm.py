"""The runtime: events in, one intent out per tick."""

import copy
import importlib
import logging
import math
from collections.abc import Iterable, Iterator, Sequence
from pathlib import Path
from types import ModuleType
from typing import Any, Literal, NamedTuple

from wendonic.compiler.ready import Record, exported_functions
from wendonic.devices.controls import CONTROLS, DEVICES, Device
from wendonic.devices.event import Value
from wendonic.devices.sampler import Sampler
from wendonic.errors import WendonicError, none_such
from wendonic.kernels.body.fall import GROUND_UNKNOWN
from wendonic.kernels.body.ground import HasNumbers
from wendonic.kernels.frames.blocked import squares_in
from wendonic.profile.schema.profile import Profile, known_profile
from wendonic.profile.schema.seat import Seat
from wendonic.runtime.body_door import BodyDoor
from wendonic.runtime.corrections import plan_vector
from wendonic.runtime.course_numbers import course_numbers
from wendonic.runtime.crossing import Crossing
from wendonic.runtime.door import VIEW, WINDOW
from wendonic.runtime.fixed_step import FixedStep
from wendonic.runtime.intent import Intent
from wendonic.runtime.kept_numbers import same_sources
from wendonic.runtime.lone_control import lone_control
from wendonic.runtime.mode_run import ModeRun
from wendonic.runtime.play_recorder import PlayRecorder, RecordedState
from wendonic.runtime.retuning import retuned_record
from wendonic.runtime.seconds import seconds_of
from wendonic.runtime.snapshot import Snapshot, restore_controls, saved_controls
from wendonic.runtime.view import View
from wendonic.world_axes import WorldAxes

_GOAL = CONTROLS["goal"]
_AIM = CONTROLS["aim"]
_MODE = CONTROLS["mode"]
_PLAN = CONTROLS["plan"]
_NO_WALL = (0.0, 0.0, 0.0)
_ON_GROUND = (GROUND_UNKNOWN, 0.0, 0.0, 1.0)
_DEG = math.pi / 180.0
_YAW, _PITCH = VIEW.slot, VIEW.slot + 1
_new = tuple.__new__

DEVICE_NAMES: dict[str, Device] = {device: device for device in DEVICES}

MAX_CATCH_UP_S = 0.25
"""The most time (s) that fixed ticks catch up after a long frame."""


class _Ground(NamedTuple):
    """The numbers of a course, including blocked squares."""

    numbers: tuple[float, ...]


class Helm(BodyDoor):
    """Takes raw input as it arrives and returns one `Intent` per tick.

    Raw values are in their device's own standard: W3C key codes, stick y positive towards the player, mouse y
    positive towards the user. A helm starts in the profile's first mode, at rest, at the origin, facing and looking
    along +y. With a `seat` (one of the profile's, or a pad such as "pad1"), the profile's `pad` is that player's pad,
    and keys of other players do not count: several helms can receive the same events, each for its own player. On a
    `course` (see `wendonic.course`) the body follows the ground and stops at walls and blocked squares, if the mode's
    steering uses them.

    >>> from wendonic.profile.load import profile_from_text
    >>> helm = Helm(profile_from_text('''
    ... format = "wendonic-profile"
    ... version = 1
    ... [[mode.foot.move.bind]]
    ... keys = { forward = ["KeyW"], right = ["KeyD"] }
    ... '''))
    >>> helm.key("KeyW", down=True)
    >>> for _ in range(30):
    ...     intent = helm.tick(1 / 60)
    >>> print(intent)
    tick 30, 0.500 s, foot: amount 1.00, heading   0.0 deg, facing   0.0 deg, 3.20 m/s
    """

    __slots__ = (
        "_crossings",
        "_device",
        "_exported",
        "_frozen_in",
        "_hitches",
        "_long_hitches",
        "_others",
        "_step",
        "_t",
        "_t_rest",
        "_ticks",
        "_view",
        "_view_changes_seen",
        "_view_given",
        "next_profile",
        "profile",
        "seat",
    )

    def __init__(
        self,
        profile: Profile,
        seat: str | None = None,
        course: HasNumbers | None = None,
        prepare: Literal["all", "first"] = "all",
        mode: str | None = None,
        tick_functions: ModuleType | None = None,
    ) -> None:
        """Prepare every mode, so that entering another one in the middle of play costs no more than a tick; with
        `prepare = "first"`, which is for tools, the others wait until they are entered. The helm begins in the
        profile's first mode, unless `mode` names another. Where a game is frozen, `tick_functions` is a module that
        `wendonic export --as python` wrote beforehand. Raises `WendonicError` for a mode that does not exist, and for
        a module of another structure or version.
        """
        super().__init__()
        world = known_profile(profile).world
        self.profile = profile
        self.next_profile: Profile | None = None
        """A profile to retune to when the next tick begins; another thread may set it."""
        self.seat = seat or "pad"
        self.axes = world.axes
        self._course_before = course_numbers(course)
        self._squares = self._blocked_by_game = None
        self._runs = {}
        self._exported = None if tick_functions is None else exported_functions(tick_functions)
        self._frozen_in = None if tick_functions is None else tick_functions.__name__
        self._crossings: dict[tuple[str, str], Crossing] = {}
        if prepare not in ("all", "first"):
            raise WendonicError(none_such("way to prepare", prepare, ("all", "first")))
        first = profile.mode_name(mode)
        for name in list(profile.mode) if prepare == "all" else [first]:
            self._prepare(name)
        self._run = self._runs[first]
        self._record = self._run.record_at_rest
        self._row = self._run.sampler.row()
        self._changes_seen = -1
        self._view_changes_seen = 0
        self._view_given = False
        self._view = (0.0, 0.0)
        self._device: Device | None = None
        self._ground = _ON_GROUND
        self._wall = self._contact = None
        self._low_place = None
        self._low_place_noted = False
        self._ticks = 0
        self._hitches = 0
        self._long_hitches = 0
        self._t = 0.0
        self._t_rest = 0.0
        self._step = FixedStep()
        self._others = self._other_samplers()
        self._run.sampler.begin(self.state)

    def _prepare(self, name: str) -> ModeRun:
        """Prepare a mode, and the crossings between it and the modes that are ready already."""
        run = self._made(self.profile, name, self.axes, None)
        self._crossings |= crossings_of(self.profile, run, self._runs.values())
        self._runs[name] = run
        self.state.watched |= run.sampler.watched
        return run

    def _made(self, profile: Profile, name: str, axes: WorldAxes, last: ModeRun | None) -> ModeRun:
        on_course = self._course[0] + self._course[1] > 0.0
        seat = None if self.seat == "pad" else self.seat
        return ModeRun(profile, name, seat, self._course, axes, on_course, last, self._exported)

    def _other_samplers(self) -> list[Sampler]:
        return [run.sampler for run in self._runs.values() if run is not self._run and run.sampler.binds_presses]

    def __copy__(self) -> "Helm":
        """Return an independent helm that continues from here; with shared state both would move one body."""
        return copy.deepcopy(self)

    def __deepcopy__(self, memo: dict[int, Any]) -> "Helm":
        """Return an independent helm; what never changes, such as tick functions, is shared."""
        made = memo[id(self)] = object.__new__(type(self))
        names = [name for kind in type(self).__mro__ for name in getattr(kind, "__slots__", ())]
        for name in [*names, *getattr(self, "__dict__", ())]:
            value = getattr(self, name)
            # Only the original is recorded.
            plain = value.plain() if isinstance(value, RecordedState) else value
            setattr(made, name, copy.deepcopy(plain, memo))
        return made

    def __reduce__(self) -> tuple[Any, ...]:
        """Pickle it as its profile and a snapshot, so that a saved game or another process continues from here."""
        seat = None if self.seat == "pad" else self.seat
        made = (type(self), self.profile, seat, self._course, self._frozen_in)
        return _unpickled, (
            made,
            tuple(self._runs),
            self.snapshot(),
            self.next_profile,
            (self._hitches, self._long_hitches),
        )

    def __repr__(self) -> str:
        """Return the profile's title, the mode, the tick and the time."""
        return f'<Helm "{self.profile.title}": mode {self.mode}, tick {self._ticks}, {self._t:.3f} s>'

    @property
    def mode(self) -> str:
        """Name of the mode it is in."""
        return self._run.name

    def tick_function(self, mode: str | None = None) -> str:
        """Return the source of the tick function of a mode, by default of the current one.

        >>> from wendonic.demo import demo_profile
        >>> "def tick_part(last, sample, dt):" in Helm(demo_profile()).tick_function()
        True
        """
        name = self.profile.mode_name(mode or self.mode)
        run = self._runs.get(name) or self._prepare(name)
        return run.ready.text

    def go_to(self, *place: float | Sequence[float]) -> None:
        """Set the goal (in the game's own axes and unit) of the steer frame `goto`.

        The body walks to it from the next tick on, unless a key or a stick steers, or the profile keeps the last
        goal. In other frames it is kept without effect. Raises `WendonicError` for too few or too many numbers.

        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile("orchard"))
        >>> helm.go_to(3.0, -4.0)
        >>> intent = helm.tick(1 / 60)
        >>> intent.goal, round(intent.heading_deg, 1)
        ((3.0, -4.0), 36.9)
        """
        x, y, _ = self._on_plan("go_to", place)
        self.state.set(_GOAL, (x, y))

    def scroll_plan(self, *distance: float | Sequence[float]) -> None:
        """Set how far the window has scrolled over the plan, in the game's own axes and unit, from its position in
        `[window.plan]`: whatever is pointed at moves by that distance. Raises `WendonicError` for too few or too many
        numbers.

        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile("orchard"))
        >>> helm.scroll_plan(100.0, 0.0)
        >>> helm.pointer(0.5, 0.5)
        >>> helm.button("mouse.left", True)
        >>> helm.tick(1 / 60).goal
        (100.0, 0.0)
        """
        x, y, _ = self._on_plan("scroll_plan", distance)
        self.state.set(_PLAN, (x, y))

    def aim_at(self, *place: float | Sequence[float]) -> None:
        """Set the point (in the game's own axes and unit) that a body with `face = "aim"` faces from now on.

        Until one is set, such a body keeps its facing. Raises `WendonicError` for too few or too many numbers.

        >>> from wendonic.demo import demo_profile
        >>> profile = demo_profile().changed({"mode.foot.steer": {"frame": "map", "face": "aim"}})
        >>> helm = Helm(profile)
        >>> helm.aim_at(5.0, 0.0, 0.0)
        >>> helm.tick(1.0).face_deg
        90.0
        """
        x, y, _ = self._on_plan("aim_at", place)
        self.state.set(_AIM, (x, y))

    def _on_plan(self, what: str, place: Sequence[float | Sequence[float]]) -> tuple[float, float, float]:
        return plan_vector(self.axes, what, place, (0.0, 0.0, 0.0), self.axes.units_per_m)

    def _begin_anew(self) -> None:
        run = self._run
        anew = self._crossings.get((run.name, run.name)) or Crossing(run, run)
        self._crossings[run.name, run.name] = anew
        self.state.placed.discard(_GOAL.slot)
        self._wall = self._contact = None
        body = [*run.body.read(self._record)[:4], 0.0, 0.0, 0.0]
        self._begin(run, run.with_body(anew.record(self._record, ()), body, safe=True), ())

    def retune(self, profile: Profile) -> None:
        """Continue with another profile from the next tick on: other numbers, forms or bindings.

        What both profiles have continues as it was: body, view, clock, presses by name, sources by their controls.
        With the same bindings, held controls stay held; otherwise they still count for presses that both profiles
        have. Raises `WendonicError` for a profile without the current mode, and continues as before.

        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> helm.retune(helm.profile.changed({"mode.foot.look.bind[0].cm_per_turn": 17}))
        >>> helm.mouse(100.0, 0.0)
        >>> round(helm.tick(1 / 60).look.yaw_deg, 3)
        6.724
        """
        old, before = self._run, self.profile
        self._check_mode(profile)
        axes = profile.world.axes
        names = [name for name in profile.mode if name in self._runs or len(self._runs) == len(before.mode)]
        runs = {name: self._made(profile, name, axes, self._runs.get(name)) for name in names}
        crossings: dict[tuple[str, str], Crossing] = {}
        for number, run in enumerate(runs.values()):
            crossings |= crossings_of(profile, run, list(runs.values())[:number])
        new = runs[old.name]
        record = retuned_record(old, new, before, profile, self._record, self._row)
        down = dict(zip(before.press_names, old.presses_down(self._record), strict=True))
        self.profile, self.axes, self._runs, self._crossings = profile, axes, runs, crossings
        for run in runs.values():
            self.state.watched |= run.sampler.watched
        if new.sampler is old.sampler:
            self._run, self._record, self._others = new, record, self._other_samplers()
        else:
            styles = dict(zip(before.press_names, old.press_styles, strict=True))
            carried = [
                down.get(name, False) and styles.get(name) == style
                for name, style in zip(profile.press_names, new.press_styles, strict=True)
            ]
            self._begin(new, record, carried)

    def make_ready(self, profile: Profile) -> None:
        """Prepare what a `retune` to another profile needs, such as tick functions of other forms, and change
        nothing. A game may call it in a separate thread, so that no tick has to wait. Raises as `retune` does.

        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> softer = helm.profile.changed({"mode.foot.move.half_life_s": 0.1})
        >>> helm.make_ready(softer)
        >>> helm.profile == softer
        False
        """
        self._check_mode(profile)
        for name in profile.mode:
            self._made(profile, name, profile.world.axes, None)

    def _check_mode(self, profile: Profile) -> None:
        if self.mode not in known_profile(profile).mode:
            raise WendonicError(f'the helm is in mode "{self.mode}"; the profile has {", ".join(profile.mode)}')

    def take_seat(self, seat: str) -> None:
        """Continue in another seat, one of the profile's or a pad, from the next tick on; body and view stay.

        Presses that are already held there count after they have been released. Raises `ControlError` for a seat that
        does not exist, and continues as before.

        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> helm.take_seat("pad1")
        >>> helm.stick("pad1.left_stick", 0.0, -1.0)
        >>> helm.tick(1 / 60).local.forward > 0.0
        True
        """
        Seat(seat, self.profile.seat)
        self.seat = seat or "pad"
        self.retune(self.profile)

    def snapshot(self) -> Snapshot:
        """Return this moment as a value: the body and everything that is carried from tick to tick, view, mode,
        clock, and held controls. After `restore` the same input gives the same ticks, bit for bit.

        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> helm.key("KeyW", down=True)
        >>> before = helm.snapshot()
        >>> first = [helm.tick(1 / 60).motion for _ in range(10)]
        >>> helm.restore(before)
        >>> [helm.tick(1 / 60).motion for _ in range(10)] == first
        True
        """
        step = self._step
        return Snapshot(
            self._structure(),
            self._run.name,
            self._record,
            tuple(self._row),
            (self._t, self._t_rest, float(self._ticks), step.left_s, step.dropped_s, step.step_s),
            self._view,
            self._ground,
            self._device,
            (self._changes_seen, self._view_changes_seen, self._view_given),
            tuple(self.state.values),
            saved_controls(self.state, [run.sampler for run in self._runs.values()]),
            self._contact,
        )

    def restore(self, snapshot: Snapshot, keep_controls: bool = False) -> None:
        """Go back to a snapshot. With `keep_controls`, controls that are held now stay held, as prediction over a
        network needs it; if the mode is the same, held presses continue.

        Raises `WendonicError` for a snapshot of another structure: other modes, forms or bindings. Numbers may
        differ.

        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> start = helm.snapshot()
        >>> helm.key("KeyW", down=True)
        >>> went = helm.tick(0.5).position()
        >>> helm.restore(start, keep_controls=True)
        >>> helm.tick(0.5).position() == went
        True
        """
        if not isinstance(snapshot, Snapshot):
            raise WendonicError(f"found {snapshot!r}; allowed: what snapshot() returned")
        if snapshot.structure != self._structure():
            raise WendonicError(
                "the snapshot has another structure; allowed: one with the same modes, forms and bindings"
            )
        # Reported squares are not part of a snapshot: they stay.
        self._block_reported()
        recorder = self.state.recorder if isinstance(self.state, RecordedState) else None
        recorded_s = recorder.elapsed_s if recorder else 0.0
        window = self.state.values[WINDOW.slot]
        run = self._runs[snapshot.mode]
        same_mode = run is self._run
        self._run, self._record, self._contact = run, snapshot.record, snapshot.contact
        self._t, self._t_rest, ticks, self._step.left_s, self._step.dropped_s, self._step.step_s = snapshot.clock
        self._ticks, self._view, self._ground = int(ticks), snapshot.view, snapshot.ground
        wall_start = run.sampler.layout.wall
        wall = snapshot.row[wall_start : wall_start + 3]
        self._wall = wall if any(wall) else None
        if keep_controls and same_mode:
            self._row[wall_start : wall_start + 3] = wall
        if keep_controls and not same_mode:
            self._begin(run, snapshot.record, ())
        elif not keep_controls:
            self._row, self._device = list(snapshot.row), DEVICE_NAMES.get(snapshot.device or "")
            self._changes_seen, self._view_changes_seen, self._view_given = snapshot.seen
            self._others = self._other_samplers()
            self.state.values = list(snapshot.held)
            restore_controls(self.state, [run.sampler for run in self._runs.values()], snapshot.controls)
        if recorder:
            recorder.jumped(recorded_s)
        # The window keeps its present shape.
        self.state.set(WINDOW, window)

    def record(self, path: str | Path, title: str = "") -> PlayRecorder:
        """Record everything that the helm receives into a file, from now until `close`: events, views, and what the
        game reports of body, ground, squares and mode. `wendonic shape` plays such a file through all its modes.

        An event gets the time of the tick before it plus a microsecond, so that a bench at the same tick rate gives
        the same ticks if the recording began at rest. Otherwise it lacks the state of ramps and smoothing, and
        controls that are held count as pressed at its beginning. A toggle that is on begins with a tap of its key.
        Every event is on disk at once. A copy of the helm is not recorded. Raises `WendonicError` for a file that
        already exists, and while another recording goes on.

        >>> import tempfile
        >>> from wendonic import Recording
        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> with tempfile.TemporaryDirectory() as folder:
        ...     with helm.record(f"{folder}/session.jsonl", title="Two steps") as recorder:
        ...         helm.key("KeyW", down=True)
        ...         for _ in range(30):
        ...             intent = helm.tick(1 / 60)
        ...     Recording.read(recorder.path)
        <Recording "Two steps": 6 events in 0.500 s, keys>
        """
        return PlayRecorder(self, path, title)

    @property
    def clock_s(self) -> float:
        """Time (s) that all ticks so far have covered."""
        return self._t

    def reported_so_far(self, again: bool = False) -> Iterator[tuple[str, Value]]:
        """Yield what a recording must begin with: place, velocity and facing of the body, the view, the ground if the
        game has reported it, the blocked squares, and the goals that are not reached yet, all in the plan frame. With
        `again`, view and ground are included even with their initial values, because they had others until now.

        >>> from wendonic.demo import demo_profile
        >>> [name for name, _ in Helm(demo_profile()).reported_so_far()]
        ['body.place', 'body.velocity', 'body.facing']
        """
        face, x, y, z, *velocity = self._run.body.read(self._record)
        yield "body.place", (x, y, z)
        yield "body.velocity", tuple(velocity)
        yield "body.facing", math.degrees(face)
        yaw, pitch = self._run.view.read(self._record)
        if again or yaw != 0.0 or pitch != 0.0:
            yield "view", (math.degrees(yaw), math.degrees(pitch))
        if again or self._ground != _ON_GROUND:
            yield "body.ground", self._ground
        for square in squares_in(self._course):
            yield "square", (*square, 1.0)
        for place in self._goals():
            yield "goal", place

    def toggled(self) -> Iterator[tuple[str, str | None]]:
        """Yield the toggles whose state differs from the one that pressing the controls held now would leave, each
        with a control that does nothing else, or None.

        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> for down in (True, False):
        ...     helm.key("ShiftLeft", down)
        ...     intent = helm.tick(1 / 60)
        >>> intent.press("sprint").held, list(helm.toggled())
        (True, [('sprint', 'key.ShiftLeft')])
        """
        run = self._run
        for number in run.toggled(self._record):
            name = self.profile.press_names[number]
            yield name, lone_control(self.profile.mode[run.name], name, run.sampler.sources.presses[number])

    def _goals(self) -> list[tuple[float, float]]:
        """Return the goal that is walked to, those that wait, and those that were given since the last tick (m)."""
        reader, waits = self._run.reader, self._run.sampler.sources.goals_wait
        there, x, y = reader.goal(self._record)
        goals = [(x, y)] if there > 0.0 else []
        if waits:
            count = int(reader.waiting_count(self._record))
            goals += [(place.x, place.y) for place in reader.part(self._record, "frame", "waiting")[:count]]
        goals += [(change.value[0], change.value[1]) for change in self.state.kept if change.slot == _GOAL.slot]
        return goals if waits else goals[-1:]

    def _structure(self) -> str:
        return " ".join([run.structure for run in self._runs.values()])

    def enter(self, mode: str) -> None:
        """Enter another mode of the profile.

        The body keeps its place and velocity, and the view stays. The request to move continues if the new mode says
        `movement = "carry"`; otherwise ramps and smoothing start from rest, so a key that is still held rises from
        zero. Held presses continue if the new mode has them and says `held_presses = "carry"`; otherwise they end,
        and count again after they have been released. Raises `WendonicError` for a mode that does not exist or that
        `leave_to` does not allow from here. Entering the current mode changes nothing.

        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile("harvest"))
        >>> helm.enter("barrow")
        >>> helm.tick(1 / 60).mode
        'barrow'
        """
        self._go_over(mode)
        self.state.report(_MODE, mode)

    def _go_over(self, mode: str) -> None:
        new = self._runs.get(mode)
        if new is None and mode in self.profile.mode:
            new = self._prepare(mode)
        if new is None:
            raise WendonicError(none_such("mode", mode, self.profile.mode))
        if new is self._run:
            return
        crossing = self._crossings.get((self._run.name, mode))
        if crossing is None:
            exits = ", ".join(self.profile.mode[self._run.name].leave_to or ())
            words = f'can be left for {exits}, not for "{mode}"' if exits else "cannot be left"
            raise WendonicError(f'mode "{self._run.name}" {words}; see its leave_to')
        old, record = self._run, self._record
        # Under another style, on and down mean something else, so such a press starts anew.
        carried = [
            down and new.carries and style == had
            for down, style, had in zip(old.presses_down(record), new.press_styles, old.press_styles, strict=True)
        ]
        self._begin(new, crossing.record(record, carried, self._row), carried)

    def _begin(self, run: ModeRun, record: Record, carried: Sequence[bool]) -> None:
        """Continue in a mode with a record, and with the presses that are carried on."""
        self._run, self._record = run, record
        self._row = row = run.sampler.row()
        layout = run.sampler.layout
        row[layout.ground : layout.ground + 4] = self._ground
        row[layout.wall : layout.wall + 3] = self._wall or _NO_WALL
        row[layout.view + 1 : layout.view + 3] = run.view.read(record)
        self._view_given = False
        self._changes_seen = -1
        self._others = self._other_samplers()
        run.sampler.begin(self.state, carried)

    def tick(self, dt: float, view: View | None = None) -> Intent:
        """Return the intent after `dt` seconds (0 or more; 0 changes nothing), steered by `view` if it is given.

        `view` is where the game's camera looks before this tick's look is added; without it the helm continues from
        its own view. A hitch, a `dt` above the profile's `max_dt_s`, is cut into equal parts. A `dt` that is negative
        or not finite raises `WendonicError`.

        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> helm.key("KeyW", down=True)
        >>> helm.tick(0.5, view=View(yaw_deg=90.0))
        <Intent tick 1, 0.500 s, foot: amount 1.00, heading  90.0 deg, facing  90.0 deg, 3.20 m/s>
        """
        if self.next_profile is not None:
            self._take_next_profile()
        # Another number type would stay in the clock, and might be less precise.
        dt = dt if type(dt) is float else seconds_of("dt", dt)
        run, row = self._run, self._row
        if 0.0 < dt <= run.max_dt_s:
            is_hitch = False
        elif 0.0 < dt < math.inf:
            self._note_hitch(dt)
            is_hitch = True
        else:
            return self._standing(dt, view)
        state = self.state
        if view is not None:
            state.set(VIEW, view)
        if state.changes != self._changes_seen:
            followed = state.kept or self._low_place is not None or self._squares is not None
            gone = self._take_changes(run) if followed else run.sampler.fill(state, row)
            self._changes_seen = -1 if gone else state.changes
        if state.view_changes != self._view_changes_seen:
            self._view_changes_seen = state.view_changes
            view_start, values = run.view_index, state.values
            yaw_deg, pitch_deg = self._view = values[_YAW], values[_PITCH]
            row[view_start] = 1.0
            row[view_start + 1] = yaw_deg * _DEG
            row[view_start + 2] = pitch_deg * _DEG
            self._view_given = True
        record = self._record = (run.tick if is_hitch else run.part)(self._record, row, dt)
        if self._view_given:
            row[run.view_index] = 0.0
            self._view_given = False
        ticks = self._ticks = self._ticks + 1
        # Compensated summation (Kahan 1965): after a day of ticks the clock is still right to the microsecond.
        added = dt - self._t_rest
        total = self._t + added
        self._t_rest = (total - self._t) - added
        self._t = total
        source = record[run.source_index] if run.source_index >= 0 else -1.0
        if source >= 0.0:
            self._device = run.devices[int(source)]
        elif run.sampler.press_device >= 0:
            self._device = DEVICES[run.sampler.press_device]
        contact = None
        if self._wall is not None:
            contact = self._contact
            self._forget_wall(run)
        # This is what the constructor does, without the cost of its keywords.
        intent = _new(Intent, (ticks, total, dt, self._device, record, run.reader, self._view, contact))
        if run.enters:
            self._enter_by_press(run, record)
        return intent

    def _forget_wall(self, run: ModeRun) -> None:
        """Forget the wall that the game reported before this tick."""
        start = run.sampler.layout.wall
        self._row[start : start + 3] = _NO_WALL
        self._wall = self._contact = None

    def _enter_by_press(self, run: ModeRun, record: Record) -> None:
        """Enter the mode of a press that began or ended; for several, see `ModeRun.enters`."""
        for index, mode in run.enters:
            if record[index] > 0.0:
                self._go_over(mode)
                return

    @property
    def health(self) -> dict[str, dict[str, int]]:
        """Count, by control, how often a raw value was clamped to its range (`clamped`) or was not finite
        (`refused`), and how many ticks were longer than `max_dt_s` (`hitches`) or than a second.
        """
        return {**super().health, "hitches": {"ticks": self._hitches, "beyond a second": self._long_hitches}}

    def _note_hitch(self, dt: float) -> None:
        self._hitches += 1
        if dt > 1.0:
            self._long_hitches += 1
            if self._long_hitches == 1:
                logging.getLogger("wendonic").warning(
                    "a tick of %g s: dt is in seconds; were these milliseconds? helm.health counts them", dt
                )

    def _take_next_profile(self) -> None:
        """Continue with the profile left for this tick, unless it lacks the current mode."""
        profile, self.next_profile = self.next_profile, None
        try:
            self.retune(profile)  # type: ignore[arg-type]
        except WendonicError as fault:
            logging.getLogger("wendonic").warning("%s; the last good profile stays in use", fault)

    def _take_changes(self, run: ModeRun) -> bool:
        """Update the row with the changes since the last tick; return whether some hold for this tick only."""
        state = self.state
        if self._low_place is not None:
            self._note_low_place(*self._low_place)
        self._block_reported()
        kept = state.kept
        gone = run.sampler.fill(state, self._row)
        if kept:
            for other in self._others:
                other.note(kept)
        return gone

    def _standing(self, dt: float, view: View | None) -> Intent:
        """Return the intent of a tick of no length: nothing turned, nothing began or ended."""
        if dt != 0.0:
            raise WendonicError(f"dt: found {dt!r}; allowed: a finite number of seconds, 0 or more")
        if view is not None:
            self.state.set(VIEW, view)
        self._ticks += 1
        record = self._run.standing(self._record)
        return Intent(self._ticks, self._t, 0.0, self._device, record, self._run.reader, self._view, self._contact)

    def fixed_ticks(
        self, frame_dt: float, step_s: float, view: View | None = None, max_catch_up_s: float = MAX_CATCH_UP_S
    ) -> Iterator[Intent]:
        """Yield the intents of a fixed-step game: as many ticks of `step_s` as fit into the frames so far.

        What is left of a frame is kept for the next one, and `leftover_ratio` is its share of a step, for drawing in
        between. Counts and edges belong to the first tick after them and to no other; a frame too short for a tick
        keeps them. If you break out of the loop, the remaining ticks come with the next frame. After a long frame at
        most `max_catch_up_s` is caught up; what is dropped is added to `dropped_s`. Raises `WendonicError` for a
        `frame_dt` that is negative or not finite, and a `step_s` or `max_catch_up_s` that is not above 0.

        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> [len(list(helm.fixed_ticks(1 / 60, step_s=1 / 100))) for _ in range(6)]
        [1, 2, 2, 1, 2, 2]
        >>> len(list(helm.fixed_ticks(3.0, step_s=1 / 100))), helm.dropped_s
        (25, 2.75)
        """
        self._step.bring(frame_dt, step_s, max_catch_up_s)
        while self._step.take():
            yield self.tick(step_s, view)
            view = None

    @property
    def leftover_ratio(self) -> float:
        """The share of a fixed step that is left over, 0..1: draw this far between the last tick and the next one."""
        return self._step.leftover_ratio

    @property
    def dropped_s(self) -> float:
        """Time (s) that fixed ticks have dropped because a frame took longer than `max_catch_up_s`."""
        return self._step.dropped_s


def crossings_of(profile: Profile, run: ModeRun, others: Iterable[ModeRun]) -> dict[tuple[str, str], Crossing]:
    """Return the crossings between a mode and others that a profile allows, by the names of the modes."""
    pairs = [pair for other in others for pair in ((run, other), (other, run))]
    leave_to = {old.name: profile.mode[old.name].leave_to for old, _ in pairs}
    allowed = [(old, new) for old, new in pairs if (exits := leave_to[old.name]) is None or new.name in exits]
    carried = {new.name: profile.mode[new.name].movement == "carry" for _, new in allowed}
    return {
        (old.name, new.name): Crossing(
            old,
            new,
            same_sources(profile.mode[old.name], profile.mode[new.name]),
            carried[new.name],
        )
        for old, new in allowed
    }


def _unpickled(
    made: tuple[type[Helm], Profile, str | None, tuple[float, ...], str | None],
    ready: tuple[str, ...],
    snapshot: Snapshot,
    next_profile: Profile | None,
    hitches: tuple[int, int],
) -> Helm:
    kind, profile, seat, course, frozen_in = made
    module = None if frozen_in is None else importlib.import_module(frozen_in)
    helm = kind(profile, seat, _Ground(course), prepare="first", mode=ready[0], tick_functions=module)
    for name in ready[1:]:
        helm._prepare(name)
    helm.restore(snapshot)
    helm.next_profile = next_profile
    helm._hitches, helm._long_hitches = hitches
    return helm
