"""Test vectors: raw inputs tick by tick, with the results of the tick function."""

import copy
import itertools
import math
import operator
import random
import re
import types
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from wendonic.compiler.layout import Path
from wendonic.devices.event import Event
from wendonic.devices.sampler import Sampler
from wendonic.devices.state import DeviceState
from wendonic.export.build import Made
from wendonic.export.coverage import Branches
from wendonic.export.feeds import Door
from wendonic.export.languages.python import PythonPackage
from wendonic.export.made_ground import GROUND, LANDMARKS, at_a_run, at_an_edge, grounds_of
from wendonic.export.naming import identifiers
from wendonic.export.package import Package
from wendonic.export.play_events import Hands, controls_of, zones_of
from wendonic.kernels.body.gait import COAST_ENDS_M_S
from wendonic.kernels.row import Row
from wendonic.recording.recording import Recording
from wendonic.runtime.mode_run import ModeRun

LEAST_TICKS = 2_000
EPISODE_TICKS = 90
LENGTHS = (60, 90, 90, 180)
MOST_EPISODES = 150
"""Most stretches of play that are tried in order to reach new branches."""
ENOUGH = 0.98

Tick = tuple[float, list[float]]


@dataclass
class Vectors:
    """Columns by name, one row per tick; `inputs` begin with dt, `results` are checked."""

    inputs: list[str]
    results: list[str]
    rows: list[list[float]] = field(default_factory=list)
    branches: int = 0
    reached: int = 0
    one_way: list[str] = field(default_factory=list)
    """Branches of tests that always had the other outcome."""
    not_come_to: list[str] = field(default_factory=list)
    """Branches of tests that were never reached."""
    by_a_hair: list[str] = field(default_factory=list)
    """Branches that were reached only when the last digit decided, so that languages differ."""

    @property
    def share(self) -> float:
        """The share of branches taken, among those on which all languages agree."""
        return self.reached / max(1, self.branches - len(self.by_a_hair))

    def csv(self) -> str:
        """Return one header line, and numbers in the shortest form that reads back the same."""
        lines = [",".join([*self.inputs, *(f"want_{name}" for name in self.results)])]
        lines += [",".join(map(_shortest, row)) for row in self.rows]
        return "\n".join(lines) + "\n"


def vectors_name(package: Package, made: Made) -> str:
    """Return the name of a mode's file of vectors."""
    return f"{package.stem}_{package.prefix(made)}vectors.csv"


def _shortest(value: float) -> str:
    return (
        str(int(value))
        if value.is_integer() and abs(value) < 1e15 and math.copysign(1.0, value) > 0.0
        else repr(value)
    )


class _Reference:
    """The tick function that the helm runs, and the positions of the printed numbers in its record."""

    def __init__(self, made: Made, package: Package) -> None:
        self.runs = [
            ModeRun(made.profile, made.mode, made.seat, course, package.axes, bool(package.course))
            for course in grounds_of(package.course)
        ]
        self.run = self.runs[0]
        self.record = self.run.record_at_rest
        paths: list[Path] = [()] * made.layout.width
        for path, index in made.layout.indices.items():
            if index >= 0 and (not paths[index] or self.run.layout.index(*path) >= 0):
                paths[index] = path
        self.paths = [paths[index] for index in made.indices]
        self.axes = package.axes

    def tick(self, row: Sequence[float], dt: float) -> None:
        if dt <= 0.0:
            self.record = self.run.standing(self.record)
        elif dt <= self.run.max_dt_s:
            self.record = self.run.part(self.record, row, dt)
        else:
            self.record = self.run.tick(self.record, row, dt)

    def begin(self, names: Sequence[str], given: Mapping[str, float], ground: int) -> None:
        """Begin at rest, but for what is given by name, on one of the grounds."""
        self.run = self.runs[ground]
        record = list(self.run.record_at_rest)
        for path, name in zip(self.paths, names, strict=True):
            if name in given and self.run.layout.index(*path) >= 0:
                record[self.run.layout.index(*path)] = given[name]
        self.record = type(self.run.record_at_rest)(record)

    def results(self) -> list[float]:
        number = self.run.layout.number
        return [float(number(self.record, *path)) for path in self.paths]

    def in_game_axes(self) -> list[float]:
        """Return the values of `package.game_values`, by the axes' own arithmetic."""
        outcome = self.run.reader.outcome(self.record)
        found = [
            *self.axes.place_from_plan(*outcome.body.position),
            *self.axes.place_from_plan(*outcome.body.velocity),
            *self.axes.from_plan(*outcome.wanted.direction),
            *self.axes.from_plan(math.sin(outcome.body.face), math.cos(outcome.body.face)),
        ]
        angles = (outcome.body.face, outcome.heading, *outcome.view, *outcome.look)
        return [*found, *map(math.degrees, angles)]


def made_ticks(made: Made, rng: random.Random) -> Iterator[list[Tick]]:
    """Yield stretches of play, each starting with nothing held: the time of each tick, and its sample."""
    controls = controls_of(made.sources)
    names = [control.name for control in controls]
    marks, zones = _marks(made), zones_of(made.sources)
    episode = 0
    while True:
        episode += 1
        sampler = Sampler(made.sources)
        state = DeviceState()
        row = sampler.row()
        sampler.begin(state)
        hands = Hands(controls, marks, zones, rng)
        # First each control alone, then several, then all.
        if episode <= len(names):
            active = [names[episode - 1]]
        else:
            active = [name for name in names if rng.random() < rng.choice((0.3, 0.7, 1.0))]
        usual = rng.choice((1 / 60, 1 / 60, 1 / 144, 1 / 30))
        yield _episode(made, sampler, state, row, hands, active, usual, rng)


def _shortest_s(made: Made) -> float:
    """Return the length (s) of the shortest tick: for paces even the smallest value of a ramp is a direction."""
    return 1e-35 if made.tuning.move.paces else 1e-12


def _marks(made: Made) -> list[float]:
    """Return tilts between the numbers of the profile."""
    numbers = {number.value for number in made.program.numbers if not number.unit and 0.0 < number.value < 1.0}
    edges = [0.0, *sorted(numbers), 1.0]
    return [(low + high) / 2 for low, high in itertools.pairwise(edges)]


def _episode(
    made: Made,
    sampler: Sampler,
    state: DeviceState,
    row: list[float],
    hands: Hands,
    active: Sequence[str],
    usual: float,
    rng: random.Random,
) -> list[Tick]:
    layout = sampler.layout
    ticks: list[Tick] = []
    t = 0.0
    reports = rng.random() < 0.4
    pause = rng.randrange(20, 2 * EPISODE_TICKS)
    shortest = _shortest_s(made)
    strange = 0.3 if rng.random() < 0.25 else 0.02
    # Ticks that end together with a ramp.
    times = [number.value for number in made.program.numbers if number.unit == "s" and 0.0 < number.value < 1.0]
    for number in range(rng.choice(LENGTHS)):
        dt = usual
        if rng.random() < strange:
            dt = rng.choice((0.0, shortest, 1e-9, 0.12, 0.35, 2.0, *times))
        used = [] if number >= pause else active
        for event in hands.events(used, t, dt):
            state.apply(event)
        if rng.random() < 0.006:
            state.apply(Event(t, "lost.focus", 1))
        often = 0.5 if number == 0 else 0.06
        if (made.sources.goal is not None and rng.random() < often) or rng.random() < 0.002:
            near = rng.choice((4.0, 0.4, 0.1, 0.0))
            state.apply(Event(t, "goal", (rng.uniform(-near, near), rng.uniform(-near, near))))
        if made.sources.aims and rng.random() < 0.05:
            state.apply(Event(t, "aim", (rng.uniform(-4, 4), rng.uniform(-4, 4))))
        sampler.fill(state, row)
        now = list(row)
        if reports and rng.random() < 0.1:
            pitch = rng.choice((rng.uniform(-1.5, 1.5), math.pi / 2))
            # Some games count it from 0 to 360 degrees.
            pitch += math.tau if -1.0 < pitch < -0.5 else 0.0
            now[layout.view : layout.view + 3] = 1.0, rng.uniform(-4, 4), pitch
        if reports and rng.random() < 0.1:
            angle, steep = rng.uniform(-3, 3), rng.choice((0.0, 0.3, 0.9, 1.3, 1.55))
            normal = math.sin(angle) * math.sin(steep), math.cos(angle) * math.sin(steep), math.cos(steep)
            row[layout.ground : layout.ground + 4] = rng.choice((0.0, 1.0, 1.0, 2.0)), *normal
            now[layout.ground : layout.ground + 4] = row[layout.ground : layout.ground + 4]
        if reports and rng.random() < 0.1:
            angle = rng.choice((rng.uniform(-3, 3), rng.randrange(4) * math.pi / 2))
            now[layout.wall : layout.wall + 3] = math.sin(angle), math.cos(angle), 0.0
        # Only what the printed inputs can express is played.
        ticks.append((dt, made.row_from(made.inputs_from(now))))
        t += dt
    return ticks


def fits(made: Made, recording: Recording) -> bool:
    """Return whether a recording has any control that a mode binds."""
    return bool({control.name for control in controls_of(made.sources)} & set(recording.controls))


def recorded_ticks(made: Made, recording: Recording, hz: float) -> list[Tick]:
    """Return the ticks of a recording, with the mode's controls only."""
    sampler = Sampler(made.sources)
    state = DeviceState()
    row = sampler.row()
    sampler.begin(state)
    ticks: list[Tick] = []
    for _, events in recording.ticks(hz):
        for event in events:
            if event.control not in ("mode", "mark", "discard", "square") and not event.control.startswith("body."):
                state.apply(event)
        sampler.fill(state, row)
        ticks.append((1.0 / hz, made.row_from(made.inputs_from(list(row)))))
    return ticks


def _values_of(struct: type) -> Callable[[Any], Sequence[float]]:
    """Return a function that reads the numbers of a struct, in order."""
    names: Sequence[str] = struct.__slots__  # type: ignore[attr-defined]
    getter: Callable[[Any], Any] = operator.attrgetter(*names)
    return getter if len(names) > 1 else lambda one: (getter(one),)


def _filler(struct: type) -> Callable[..., None]:
    """Return a function that sets the numbers of a struct, in order."""
    names: Sequence[str] = struct.__slots__  # type: ignore[attr-defined]
    space: dict[str, Any] = {}
    lines = [f"    struct.{name} = {name}_" for name in names] or ["    pass"]
    exec("\n".join([f"def fill(struct, {', '.join(f'{name}_' for name in names)}):", *lines]), space)
    filler: Callable[..., None] = space["fill"]
    return filler


def _made_state(made: Made, rng: random.Random) -> dict[str, float]:
    """Return a state that a game or another mode may have left: held presses that are not bound here, ramps under way
    if movement is carried over, and, on synthetic ground, a body somewhere else.
    """
    fields = {one.name for one in made.program.state}
    bound = {one.name for one in made.program.inputs}
    presses = set(identifiers(made.profile.press_names, "press"))
    unbound = {name for name in sorted(presses) if f"{name}_edges" not in bound or rng.random() < 0.15}
    found = {f"{name}_{part}": 1.0 for name in unbound for part in ("on", "held") if f"{name}_{part}" in fields}
    if rng.random() < 0.5:
        angle = rng.choice((rng.uniform(-math.pi, math.pi), rng.randrange(32) * math.pi / 16))
        ramps = [name for name in sorted(fields) if re.fullmatch(r"move_.*keys_[xy]", name)]
        found |= {name: math.sin(angle) if name.endswith("x") else math.cos(angle) for name in ramps}
    for name in sorted(name for name in fields if name.endswith("bias_still_s")):
        # A pad that has lain on the table.
        sensor = name.removesuffix("still_s")
        lies = {name: rng.choice((14.99, 15.0)), f"{sensor}begun": 1.0, f"{sensor}felt_mean_y": 9.8}
        found |= lies if rng.random() < 0.5 else {}
    face = rng.choice((rng.uniform(-math.pi, math.pi), rng.randrange(8) * math.pi / 4))
    if any("grid" in name for name in fields):
        found |= {"face": math.remainder(face, math.tau), "frame_grid_step_share": rng.random()}
        found |= {f"frame_grid_step_to_{axis}": rng.choice((0.0, 0.0, 1.0)) for axis in "xy"}
        return {name: value for name, value in found.items() if name in fields}
    if "course" in made.program.tick.context:
        x, y = rng.choice((LANDMARKS[0], (rng.uniform(-3, 3), rng.uniform(-3, 3)), rng.choice(LANDMARKS)))
        found |= {"position_x": x, "position_y": y}
    if rng.random() < 0.5:
        found |= {f"velocity_{axis}": rng.uniform(-4, 4) for axis in "xy"} | {"face": math.remainder(face, math.tau)}
    if rng.random() < 0.5:
        # Slightly more than full, as rounding in sums and turns leaves it.
        heading, length = rng.randrange(16) * math.pi / 8, rng.choice((1.0 + 9e-10, rng.random()))
        found |= {"move_right": length * math.sin(heading), "move_forward": length * math.cos(heading)}
    return {name: value for name, value in found.items() if name in fields}


def _state_on(course: Row, made: Made, rng: random.Random) -> dict[str, float]:
    """Return the values of a state that begins at some edge of a course, or with the return out of a wall."""
    fields = {one.name for one in made.program.state}
    found: dict[str, float] = {}
    if course[0] + course[1] > 0.0 and rng.random() < 0.5:
        found = at_a_run(rng) if course == GROUND.numbers and rng.random() < 0.4 else at_an_edge(course, rng)
    if rng.random() < 0.3:
        found |= {f"comfort_safe_{axis}": rng.uniform(-3, 3) for axis in "xy"}
        found["comfort_inside_s"] = rng.choice((rng.random(), 9.0))
    if rng.random() < 0.3:
        # Thrown up by the game, even if nothing jumps.
        found |= {"fall_airborne": 1.0, "velocity_z": rng.uniform(-2, 5)}
    return {name: value for name, value in found.items() if name in fields}


def _near_goal(rng: random.Random) -> dict[str, float]:
    """Return the state of a body that runs to a goal within a tick's reach, or stands on it."""
    near, heading, speed = rng.choice((0.0, 0.11, 0.2, 0.3)), rng.uniform(-math.pi, math.pi), rng.uniform(0.0, 9.0)
    x, y = math.sin(heading), math.cos(heading)
    goal = {"frame_goal_there": 1.0, "frame_goal_x": near * x, "frame_goal_y": near * y}
    return goal | {"velocity_x": speed * x, "velocity_y": speed * y}


def _nearly_at_rest(rng: random.Random) -> dict[str, float]:
    """Return the state of a body that has almost rolled out, and comes to rest within a tick."""
    heading = rng.uniform(-math.pi, math.pi)
    speed = COAST_ENDS_M_S * (1.0 + 1e-4)
    return {"velocity_x": speed * math.sin(heading), "velocity_y": speed * math.cos(heading)}


FULL = 0.999
"""Amount from which a mode counts as in full motion."""


def _nudged(marked: "_Marked", aims: bool) -> dict[str, float]:
    """Return the state of a mode in full motion with its request slightly too long, and its facing slightly off
    straight back; or of a mode at rest that faces away from what it aims at.
    """
    amount = float(getattr(marked.result, "amount", 0.0))
    if amount < FULL and not (amount == 0.0 and aims):
        return {}
    moved = {"move_right", "move_forward"}
    state = {name: float(getattr(marked.state, name)) for name in marked.state.__slots__}
    state = {name: value * (1.0 + 9e-10) if name in moved else value for name, value in state.items()}
    if "face" in state:
        faced = float(getattr(marked.result, "heading", 0.0)) if amount > 0.0 else state["face"]
        state["face"] = math.remainder(faced + math.pi - 5e-10, math.tau)
    return state


class _Marked:
    """The printed Python of one mode, with every test marked."""

    number: Callable[[float], Any] = float

    def __init__(self, made: Made, package: Package) -> None:
        twin = copy.copy(made)
        twin.program = copy.copy(made.program)
        twin.program.functions = copy.deepcopy(made.program.functions)
        twin.door = Door()
        self.branches = Branches(made, twin.program.functions)
        only = copy.copy(package)
        only.modes, only.crossings, only.float32 = [twin], [], False
        text = PythonPackage(only).text()
        self.space: dict[str, Any] = {"noted": self.branches.note, "__name__": "marked"}
        exec(compile(text, "<marked>", "exec"), self.space)
        self.state, self.given, self.result = (self.space[name]() for name in ("State", "Input", "Result"))
        self.of_state, self.of_result = (_values_of(type(struct)) for struct in (self.state, self.result))
        self.fill = _filler(type(self.given))
        self.more = [self.space["Settings"]()] if any(number.adjustable for number in made.program.numbers) else []
        self.grounds: tuple[Row, ...] = ()
        if "course" in made.program.tick.context:
            self.grounds = grounds_of(package.course)
            self.more.append(self.grounds[0])

    def tick(self, values: Sequence[float], dt: float) -> list[float]:
        """Return state and results after a tick."""
        self.fill(self.given, *values)
        self.space["step"](self.state, self.given, *self.more, dt, self.result)
        return [*self.of_state(self.state), *self.of_result(self.result)]

    def begin(self, given: Mapping[str, float], ground: int) -> None:
        """Begin at rest, but for what is given by name, on one of the grounds."""
        if self.grounds:
            self.more[-1] = self.grounds[ground]
        self.state, self.result = self.space["State"](), self.space["Result"]()
        for name, value in given.items():
            setattr(self.state, name, self.number(value))

    def keep(self) -> Any:
        """Return the state for `back`."""
        return copy.copy(self.state), copy.copy(self.result), list(self.more)

    def back(self, kept: Any) -> None:
        """Return to a kept state."""
        self.state, self.result, self.more = copy.copy(kept[0]), copy.copy(kept[1]), list(kept[2])


ON_ANOTHER = 2
"""Added to the first number of a row for each ground before its own, see `grounds_of`."""

SHARE_ELSEWHERE = 0.25
"""Share of the stretches that are played on grounds other than the first."""

HAIR = 2e-16
"""Relative difference between the mathematical functions of two languages."""

TURNED = ("sin", "cos", "atan2", "exp", "expm1")


class _Rough(_Marked):
    """The same in a language whose mathematical functions differ slightly, or with single precision."""

    def __init__(self, made: Made, package: Package) -> None:
        super().__init__(made, package)
        self.space["noted"] = lambda _, value: value
        turned: dict[str, Any] = {name: _off(getattr(math, name)) for name in TURNED}
        turned["hypot"] = lambda x, y: math.sqrt(x * x + y * y) * (1.0 - HAIR)
        if package.float32:
            self.number = _single()
            names = ("sqrt", "pow", "copysign", *TURNED)
            turned = {name: _rounded(getattr(math, name), self.number) for name in names}
            turned["hypot"] = lambda x, y: turned["sqrt"](
                self.number(x) * self.number(x) + self.number(y) * self.number(y)
            )
            constants = {name: value for name, value in self.space.items() if isinstance(value, float)}
            self.space |= {name: self.number(value) for name, value in constants.items()}
        self.space["math"] = types.SimpleNamespace(**vars(math) | turned)

    def tick(self, values: Sequence[float], dt: float) -> list[float]:
        """Return state and results after a tick."""
        return [float(one) for one in super().tick([self.number(value) for value in values], self.number(dt))]


def _off(function: Callable[..., float]) -> Callable[..., float]:
    return lambda *numbers: function(*numbers) * (1.0 + HAIR)


def _rounded(function: Callable[..., float], number: Callable[[float], Any]) -> Callable[..., Any]:
    return lambda *numbers: number(function(*numbers))


def _single() -> Callable[[float], Any]:
    """Return a function that rounds to single precision, with sums rounded as in C."""
    import numpy as np

    return np.float32


class _Gathered:
    """Collects vectors: stretches of play that reach new branches."""

    def __init__(self, made: Made, package: Package, least_ticks: int) -> None:
        self.made, self.least_ticks = made, least_ticks
        self.names = [one.name for one in made.program.inputs]
        game = [one.name for one, _ in _game(made, package)]
        self.vectors = Vectors(["begin", "dt", *self.names], [*made.fields, *game])
        self.reference, self.marked = _Reference(made, package), _Marked(made, package)
        self.rough = _Rough(made, package)
        self.branches = self.marked.branches
        self.hair: set[tuple[int, bool]] = set()
        self.single = package.float32
        self.allowed = 2e-5 if self.single else 4e-13

    @property
    def enough(self) -> bool:
        """Whether there are enough ticks."""
        return len(self.vectors.rows) >= self.least_ticks

    @property
    def complete(self) -> bool:
        """Whether there is nothing left to reach."""
        return self.enough and len(self.branches.seen) >= self.branches.count

    def given_of(self, row: Sequence[float]) -> list[float]:
        """Return the raw inputs of a sample, in order."""
        values = self.made.inputs_from(row)
        return [values[name] for name in self.names]

    def play(self, ticks: Sequence[Tick], begin: float, state: Mapping[str, float]) -> None:
        """Take ticks with the results of the helm's tick function."""
        if begin > 0.0:
            self.reference.begin(self.made.fields, state, int(begin - 1) // ON_ANOTHER)
        for number, (dt, row) in enumerate(ticks):
            # The printed digits are what counts.
            values = self.made.inputs_from(row)
            self.reference.tick(self.made.row_from(values), dt)
            results = [*self.reference.results(), *self.reference.in_game_axes()]
            given = [values[name] for name in self.names]
            self.vectors.rows.append([begin if number == 0 else 0.0, dt, *given, *results])

    def recorded(self, ticks: Sequence[Tick]) -> None:
        """Take the ticks of a recording, whichever branches they reach."""
        for dt, row in ticks:
            self.marked.tick(self.given_of(row), dt)
        self.play(ticks, 1.0, {})

    def attempt(self, ticks: Sequence[Tick], anew: bool, start: Mapping[str, float], ground: int) -> dict[str, float]:
        """Play a stretch, and take it if it reaches something new and every language takes the same branches. Return
        a state slightly off its end, or nothing if it does not end in full motion.
        """
        seen, kept, rough_kept = set(self.branches.seen), self.marked.keep(), self.rough.keep()
        ticks = [(0.0, ticks[0][1]), (_shortest_s(self.made), ticks[0][1]), *ticks] if start else ticks
        if anew:
            self.marked.begin(start, ground)
            self.rough.begin(start, ground)
        given = [(self.given_of(row), dt) for dt, row in ticks]
        found = [self.marked.tick(values, dt) for values, dt in given]
        # Single precision cannot distinguish straight back from slightly off it.
        nudged = {} if self.single else _nudged(self.marked, self.made.sources.aims)
        # If the last digit decides, as at the corner of a wall, languages take different branches.
        steady = (not self.enough or len(self.branches.seen) > len(seen)) and all(
            abs(a - b) <= self.allowed * max(1.0, abs(a))
            for mine, (values, dt) in zip(found, given, strict=True)
            for a, b in zip(mine, self.rough.tick(values, dt), strict=True)
        )
        if steady:
            self.play(ticks, (2.0 if start else float(anew)) + ON_ANOTHER * ground, start)
        else:
            self.marked.back(kept)
            self.rough.back(rough_kept)
            self.hair |= self.branches.seen - seen
            self.branches.seen = seen
        return nudged


def vectors_of(
    made: Made,
    package: Package,
    recording: Recording | None = None,
    hz: float = 60.0,
    least_ticks: int = LEAST_TICKS,
    episodes: int = MOST_EPISODES,
    progress: Callable[[str, int, int], None] | None = None,
) -> Vectors:
    """Return vectors of at least 2,000 ticks, and more until nearly every branch has been taken; `progress` is called
    with the mode, the number of branches taken and the number in all.
    """
    rng = random.Random(15)
    gathered = _Gathered(made, package, least_ticks)
    nothing = made.row_from({name: one.rest for name, one in made.inputs.fields.items()})
    if recording is not None and fits(made, recording):
        gathered.recorded(recorded_ticks(made, recording, hz))
    coasts = any(gait.coast_half_life_s for gait in made.profile.gaits_of(made.mode).values())
    episodes *= 1 + bool(package.course)
    for number, ticks in enumerate(made_ticks(made, rng)):
        if progress is not None:
            progress(made.mode, len(gathered.branches.seen), gathered.branches.count)
        if number > episodes or gathered.complete:
            break
        anew = number == 0 or rng.random() < 0.5
        start = _made_state(made, rng) if anew and number > 0 and rng.random() < 0.6 else {}
        ground, grounds = 0, gathered.marked.grounds
        if grounds and anew and number > 0 and rng.random() < SHARE_ELSEWHERE:
            ground = rng.randrange(1, len(grounds)) if package.course else 1
        if grounds and start and (package.course or rng.random() < 0.5):
            start |= _state_on(grounds[ground], made, rng)
        nudged = gathered.attempt(ticks, anew, start, ground)
        if made.sources.goal is not None and number % 4 == 3:
            gathered.attempt([(rng.choice((1.0 / 60.0, 0.1)), nothing)] * 3, True, _near_goal(rng), ground)
        if coasts and number % 4 == 1:
            gathered.attempt([(0.1, nothing)] * 3, True, _nearly_at_rest(rng), ground)
        if nudged:
            # Held controls stay, so that guards against rounding decide.
            gathered.attempt([(1.0 / 60.0, ticks[-1][1])] * 6, True, nudged, ground)
    vectors, branches = gathered.vectors, gathered.branches
    vectors.branches, vectors.reached = branches.count, len(branches.seen)
    vectors.one_way, vectors.not_come_to, vectors.by_a_hair = branches.missing(gathered.hair)
    return vectors


def _game(made: Made, package: Package) -> Any:
    from wendonic.export.package import game_values

    return game_values(made, package.axes)
