"""The result of one tick."""

import math
from collections.abc import Iterator, Mapping, Sequence
from typing import Any, NamedTuple

from wendonic.errors import WendonicError, none_such
from wendonic.kernels.landing import arc_point
from wendonic.kernels.pipeline import Outcome
from wendonic.kernels.press import PressState
from wendonic.kernels.steer_frame import FRAME_GRID
from wendonic.kernels.steering import SteeringState
from wendonic.kernels.steering_tuning import SteeringTuning
from wendonic.view import View
from wendonic.world_axes import GameVector, WorldAxes


class Look(NamedTuple):
    """How far the player turned the view this tick, in degrees; right and up positive."""

    yaw_deg: float = 0.0
    pitch_deg: float = 0.0


class Press(NamedTuple):
    """A named on/off thing the player does: it is `held`, it `began`, it `ended` this tick."""

    held: bool = False
    began: bool = False
    ended: bool = False


class Step(NamedTuple):
    """One step on squares: the square that is stepped to (the one he stands on while idle), the one he comes from,
    the
    share of the step's time that is over, and the blocked square that refuses the step that is asked for (None: none
    does).
    """

    x: int
    y: int
    from_x: int
    from_y: int
    share: float
    refused: tuple[int, int] | None

    @property
    def stepping(self) -> bool:
        """Whether he is between two squares."""
        return self.x != self.from_x or self.y != self.from_y


class Footing(NamedTuple):
    """What the ground does to the wish: ground that is too steep refuses the way up, and lets him slide."""

    refused: bool = False
    slides: bool = False


class Place(NamedTuple):
    """A place in the plan frame (m): `x` right, `y` ahead, `z` up."""

    x: float
    y: float
    z: float


class Plan(NamedTuple):
    """A vector in the plan frame: `x` right (east), `y` ahead (north)."""

    x: float
    y: float


class Comfort(NamedTuple):
    """What a game in a headset draws: the vignette (0 open, 1 closed); the head's offset from the middle of the play
    space and its place on the plan (m); whether it is inside a wall, how long until it is brought back (s), whether
    it was brought back this tick, and the last safe place for the middle of the play space (m).
    """

    vignette: float
    offset: Plan
    head: Plan
    inside_wall: bool
    returns_in_s: float | None
    returned: bool
    safe: Plan


class Local(NamedTuple):
    """What the player asks for before steering: `right` and `ahead`, -1..1."""

    right: float
    ahead: float


class Motion(NamedTuple):
    """What the gait makes of the intent, in the plan frame: position (m), velocity (m/s), on the ground or not."""

    pos_x: float = 0.0
    pos_y: float = 0.0
    pos_z: float = 0.0
    vel_x: float = 0.0
    vel_y: float = 0.0
    vel_z: float = 0.0
    grounded: bool = True


class AxisAmounts(NamedTuple):
    """The channels of one number each, -1..1: up, ahead and right positive."""

    rise: float = 0.0
    throttle: float = 0.0
    turn: float = 0.0


class Presses(Mapping[str, Press]):
    """Every press of a profile by name; what the mode does not bind is at rest."""

    __slots__ = ("_names", "_states")

    def __init__(self, names: Mapping[str, int], states: Sequence[PressState]) -> None:
        """Keep the places of the names, and the states they point to."""
        self._names = names
        self._states = states

    def __getitem__(self, name: str) -> Press:
        """Return one press."""
        state = self._states[self._names[name]]
        return Press(state.held > 0.0, state.began > 0.0, state.ended > 0.0)

    def __iter__(self) -> Iterator[str]:
        """Go through the names."""
        return iter(self._names)

    def __len__(self) -> int:
        """Return how many there are."""
        return len(self._names)

    def __repr__(self) -> str:
        """Show them as a dict does."""
        return repr(dict(self))


NO_PRESSES = Presses({}, ())
NO_LOOK = Look()
NO_AXES = AxisAmounts()

FIELDS = (
    "tick t dt mode local move amount heading_deg rise turn throttle look view face_deg sector goal arrived step "
    "footing comfort landing landed presses device motion"
).split()
"""What an intent tells, in the order in which `Intent.as_dict` gives it."""


class Intent(NamedTuple):
    """What the player wants this tick. Immutable; everything is in the plan frame unless it says otherwise.

    `tick` counts from 1; `t` and `dt` are seconds; `mode` is the mode's name; `view` is the view it was steered by,
    this tick's look included; `device` is what the player used last: "keys", "pad", "mouse", "touch", "hands" or
    None. A stick that lies in its dead zone uses nothing; while several devices move, the one that steers counts,
    then the one that looks, then the other channels, then presses. `presses` has every press of the profile by name;
    `look` is how far the player turned the view this tick, within its pitch limits. The other fields are read off
    `outcome`, the bare numbers of the tick, when they are asked for: making an intent costs little, and most games
    ask for two or three of them. `sector` says which of the profile's facings the sprite has (None without
    `sectors`): 0 is ahead and they count clockwise; of two, 0 is right and 1 is left. `grounded` is what the game
    said last, or what a gait with weight found; `steering` has the bare numbers of the rarer steer frames, and
    `steer` their tuning. Fields that a profile does not use stay neutral.
    """

    tick: int
    t: float
    dt: float
    mode: str
    device: str | None
    view: View
    outcome: Outcome
    axes: WorldAxes
    presses: Presses = NO_PRESSES
    look: Look = NO_LOOK
    axis_amounts: AxisAmounts = NO_AXES
    sector: int | None = None
    steering: SteeringState | None = None
    steer: SteeringTuning | None = None
    grounded: bool = True

    @property
    def rise(self) -> float:
        """Up or down, -1..1, up positive."""
        return self.axis_amounts.rise

    @property
    def throttle(self) -> float:
        """Throttle, -1..1, ahead positive."""
        return self.axis_amounts.throttle

    @property
    def turn(self) -> float:
        """Turning by keys or stick, -1..1, right positive."""
        return self.axis_amounts.turn

    @property
    def local(self) -> Local:
        """What the player asks for, shaped but not steered yet: `right` and `ahead`, -1..1."""
        return Local(self.outcome.local_x, self.outcome.local_y)

    @property
    def move(self) -> Plan:
        """Which way to go and how much: a vector of the plan whose length is `amount`."""
        return Plan(self.outcome.move_x, self.outcome.move_y)

    @property
    def amount(self) -> float:
        """How much of full speed is wanted, 0..1 (more only under `diagonal = "free"`, or a `diagonal_factor` above
        0.71).
        """
        return self.outcome.amount

    @property
    def heading_deg(self) -> float | None:
        """Compass heading of `move`, 0 up to 360; None at rest."""
        return compass_deg(self.outcome.heading) if self.outcome.amount > 0.0 else None

    @property
    def face_deg(self) -> float:
        """Compass heading that the body faces, 0 up to 360; at rest the last one stays."""
        return compass_deg(self.outcome.face)

    @property
    def motion(self) -> Motion:
        """What the profile's gait makes of it all: position and velocity."""
        out = self.outcome
        pos_z, vel_z = (self.steering.body.pos_z, self.steering.body.vel_z) if self.steering else (0.0, 0.0)
        return Motion(out.pos_x, out.pos_y, pos_z, out.vel_x, out.vel_y, vel_z, self.grounded)

    @property
    def goal(self) -> Plan | None:
        """The place of the plan (m) that is walked to; None while there is none, and outside a `goto` frame."""
        if self.steering is None or self.steering.goal.there == 0.0:
            return None
        return Plan(self.steering.goal.x, self.steering.goal.y)

    @property
    def distance_m(self) -> float | None:
        """How far the goal is; None while there is none."""
        goal = self.goal
        return None if goal is None else math.hypot(goal.x - self.outcome.pos_x, goal.y - self.outcome.pos_y)

    @property
    def arrived(self) -> bool:
        """Whether the goal was reached this tick."""
        return self.steering is not None and self.steering.arrived > 0.0

    @property
    def step(self) -> Step | None:
        """The step on squares; None outside a `grid` frame."""
        if self.steering is None or self.steer is None or self.steer.frame != FRAME_GRID:
            return None
        x, y, to_x, to_y, share = self.steering.grid.step
        grid = self.steering.grid
        refused = (int(x + grid.refused_x), int(y + grid.refused_y)) if grid.refused > 0.0 else None
        return Step(int(to_x), int(to_y), int(x), int(y), share, refused)

    @property
    def comfort(self) -> Comfort | None:
        """Vignette, play space and safe place; None where the mode has no `comfort`."""
        if self.steering is None or self.steer is None or self.steer.comfort.on == 0:
            return None
        state = self.steering.comfort
        return Comfort(
            state.shown,
            Plan(state.offset_x, state.offset_y),
            Plan(state.head_x, state.head_y),
            state.inside_s > 0.0,
            self.steer.comfort.return_s - state.inside_s if state.inside_s > 0.0 else None,
            state.returned > 0.0,
            Plan(state.safe_x, state.safe_y),
        )

    @property
    def landing(self) -> Place | None:
        """Where the arc of the hand that points lands, in the plan frame; None without one."""
        if self.steering is None or self.steering.pointing.landing.there == 0.0:
            return None
        return Place(*self.steering.pointing.landing[1:4])

    def arc(self, points: int = 24) -> list[GameVector]:
        """Return the arc of the hand that points, to be drawn: places in the game's own axes (m), evenly spaced in
        time, from the hand to where it lands, or its first second where it lands nowhere; none while nobody points.
        Raises `WendonicError` for fewer than two points.
        """
        if points < 2:
            raise WendonicError(f"points: found {points}; allowed: 2 or more")
        if self.steering is None or self.steer is None or self.steering.pointing.held == 0.0:
            return []
        _, place, way, landing, _ = self.steering.pointing
        whole_s = landing.after_s if landing.there > 0.0 else 1.0
        times = [whole_s * number / (points - 1) for number in range(points)]
        return [self.axes.from_plan(*arc_point(place, way, self.steer.arc_m_s, t)) for t in times]

    @property
    def landed(self) -> bool:
        """Whether the body was brought this tick to where the hand pointed."""
        return self.steering is not None and self.steering.pointing.landed > 0.0

    @property
    def footing(self) -> Footing:
        """What ground that is too steep does to the wish."""
        if self.steering is None:
            return Footing()
        way = self.steering.way
        return Footing(way.refused > 0.0, way.slide_x != 0.0 or way.slide_y != 0.0)

    def velocity(self, top_speed_m_s: float | None = None) -> GameVector:
        """Return a velocity (m/s) in the game's own axes: (x, y, z), or (x, y) in a 2-D game.

        Without `top_speed_m_s` it is the gait's, with its acceleration and braking; with it, it is the
        wanted one, `move` times that speed, at once: laid onto the ground where the mode walks on slopes, with the
        slide down a bank that is too steep; along the view and with `rise` where it flies.
        """
        if top_speed_m_s is None:
            motion = self.motion
            return self.axes.from_plan(motion.vel_x, motion.vel_y, motion.vel_z)
        x, y, z = (part * top_speed_m_s for part in self._way())
        if self.steering is not None:
            way = self.steering.way
            x, y, z = x + way.slide_x, y + way.slide_y, z + way.slide_z
        return self.axes.from_plan(x, y, z)

    def _way(self) -> tuple[float, float, float]:
        """Return `move` as it lies on the ground or points into the air."""
        if self.steering is None:
            return self.outcome.move_x, self.outcome.move_y, 0.0
        way = self.steering.way
        return way.x, way.y, way.z

    def direction(self) -> GameVector:
        """Return the wanted direction in the game's own axes, of length 1, or all zeros at rest."""
        x, y, z = self._way()
        length = math.hypot(x, y, z)
        if length == 0.0:
            return self.axes.from_plan(0.0, 0.0)
        return self.axes.from_plan(x / length, y / length, z / length)

    def position(self) -> GameVector:
        """Return the gait's position (m) in the game's own axes, from where the helm began."""
        motion = self.motion
        return self.axes.from_plan(motion.pos_x, motion.pos_y, motion.pos_z)

    def orientation(self) -> tuple[float, float, float, float]:
        """Return how the body stands, as the quaternion (x, y, z, w) in the game's own axes.

        It turns a body that looks along the game's `ahead`, with the game's `up` above it, to where the face is, and
        then leans it with the ground by the shortest turn. In a left-handed game it is a quaternion of that game:
        v + 2 w (q x v) + 2 q x (q x v) with the game's own numbers. Raises `WendonicError` in a 2-D game.

        >>> from wendonic import Helm
        >>> from wendonic.demo import demo_profile
        >>> Helm(demo_profile()).tick(1 / 60).orientation()
        (0.0, 0.0, 0.0, 1.0)
        """
        if self.axes.up is None or self.axes.ahead is None:
            raise WendonicError("a 2-D game has no quaternions; allowed: face_deg")
        half = 0.5 * self.outcome.face
        # Clockwise from above is negative about the plan's up.
        yaw_z, yaw_w = -math.sin(half), math.cos(half)
        up_x, up_y, up_z = self.steering.up if self.steering else (0.0, 0.0, 1.0)
        length = math.sqrt(2.0 * (1.0 + up_z))
        lean_x, lean_y, lean_w = -up_y / length, up_x / length, length / 2.0
        x = lean_x * yaw_w + lean_y * yaw_z
        y = lean_y * yaw_w - lean_x * yaw_z
        handed = 1.0 if self.axes.right_handed else -1.0
        turned = self.axes.from_plan(x * handed, y * handed, lean_w * yaw_z * handed)
        return turned[0], turned[1], turned[2], lean_w * yaw_w

    def press(self, name: str) -> Press:
        """Return one press; a name that no mode of the profile knows raises `WendonicError` with those there are."""
        if name not in self.presses:
            raise WendonicError(none_such("press", name, self.presses))
        return self.presses[name]

    def as_dict(self) -> dict[str, Any]:
        """Return everything but the axes as plain dicts, numbers and texts, ready for `json.dumps`."""
        content: dict[str, Any] = {}
        for name in FIELDS:
            value = getattr(self, name)
            as_dict = getattr(value, "_asdict", None)
            content[name] = as_dict() if as_dict else value
        content["presses"] = {name: press._asdict() for name, press in self.presses.items()}
        return content

    def __str__(self) -> str:
        """Give the tick on one line, as a person reads it."""
        heading = "at rest" if self.heading_deg is None else f"heading {self.heading_deg:5.1f} deg"
        speed = math.hypot(*self.motion[3:6])
        return (
            f"tick {self.tick}, {self.t:.3f} s, {self.mode}: amount {self.amount:.2f}, {heading}, "
            f"facing {self.face_deg:5.1f} deg, {speed:.2f} m/s"
        )


def compass_deg(angle: float) -> float:
    """Return an angle (rad, -pi..pi) as a compass heading: degrees from 0 up to, not including, 360.

    >>> compass_deg(-math.pi / 2), compass_deg(0.0), compass_deg(-1e-300)
    (270.0, 0.0, 0.0)
    """
    degrees = math.degrees(angle)
    if degrees < 0.0:
        degrees += 360.0
    return degrees if degrees < 360.0 else 0.0
