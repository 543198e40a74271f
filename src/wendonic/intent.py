"""The result of one tick, the view it was steered by, and the game's own axes it can be had in."""

import math
from collections.abc import Iterator, Mapping, Sequence
from typing import Any, NamedTuple, TypeAlias

from wendonic.errors import WendonicError, none_such
from wendonic.kernels.pipeline import Outcome
from wendonic.kernels.press import PressState

GameVector: TypeAlias = tuple[float, ...]
"""A vector in the game's own axes: (x, y, z), or (x, y) in a 2-D game."""


class View(NamedTuple):
    """Where the camera looks. `yaw_deg` 0 is the plan's +y, right positive; `pitch_deg` up positive."""

    yaw_deg: float = 0.0
    pitch_deg: float = 0.0


class Look(NamedTuple):
    """How far the player turned the view this tick, in degrees; right and up positive."""

    yaw_deg: float = 0.0
    pitch_deg: float = 0.0


class Press(NamedTuple):
    """A named on/off thing the player does: it is `held`, it `began`, it `ended` this tick."""

    held: bool = False
    began: bool = False
    ended: bool = False


class Plan(NamedTuple):
    """A vector in the plan frame: `x` right (east), `y` ahead (north)."""

    x: float
    y: float


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


class WorldAxes:
    """Turns vectors between the plan frame and a game's own axes.

    `right`, `ahead` and `up` each name a signed axis of the game, such as "+x" or "-z"; the letters differ.
    Without `up` the game is 2-D, has x and y only, and height is left out. A vector v of the plan is
    v.x right + v.y ahead + v.z up in the game.

    >>> WorldAxes("+x", "-z", "+y").from_plan(1.0, 2.0, 3.0)
    (1.0, 3.0, -2.0)
    >>> screen = WorldAxes("+x", "-y")
    >>> screen.from_plan(0.0, 1.0), screen.to_plan(0.0, -1.0)
    ((0.0, -1.0), (0.0, 1.0, 0.0))
    """

    __slots__ = ("_game", "_plan", "ahead", "right", "up")

    def __init__(self, right: str, ahead: str, up: str | None = None) -> None:
        """Resolve the names; raises `WendonicError` unless they are signed axes with different letters."""
        self.right, self.ahead, self.up = right, ahead, up
        names = [name for name in (right, ahead, up) if name is not None]
        letters = "xyz"[: len(names)]
        if sorted(name[1:] for name in names) != list(letters) or any(name[0] not in "+-" for name in names):
            raise WendonicError(f"axes {', '.join(names)}; allowed: signed axes such as +x, one of each of {letters}")
        signs = [1.0 if name[0] == "+" else -1.0 for name in names]
        # For each axis of the game, which axis of the plan it is and its sign; and the other way.
        order = {name[1]: index for index, name in enumerate(names)}
        self._game = tuple((order[letter], signs[order[letter]]) for letter in letters)
        self._plan = tuple((letters.index(name[1]), sign) for name, sign in zip(names, signs, strict=True))

    def __repr__(self) -> str:
        """Give the three names."""
        return f"WorldAxes(right={self.right!r}, ahead={self.ahead!r}, up={self.up!r})"

    @property
    def right_handed(self) -> bool | None:
        """Whether x, y, z of the game are right-handed, as the plan frame is; None in a 2-D game."""
        if self.up is None:
            return None
        # The plan is right-handed, so the game is if the signed permutation between them is even.
        swaps = sum(a > b for i, (a, _) in enumerate(self._game) for b, _ in self._game[i + 1 :])
        return math.prod(sign for _, sign in self._game) * (-1.0) ** swaps > 0.0

    def from_plan(self, x: float, y: float, z: float = 0.0) -> GameVector:
        """Return a vector of the plan in the game's own axes."""
        plan = (x, y, z)
        # Adding zero turns -0.0 into 0.0.
        return tuple([plan[index] * sign + 0.0 for index, sign in self._game])

    def to_plan(self, *vector: float) -> tuple[float, float, float]:
        """Return a vector of the game, given as two or three numbers, in the plan frame."""
        if len(vector) != len(self._game):
            raise WendonicError(f"{len(vector)} numbers; allowed: {len(self._game)}, as the world has so many axes")
        plan = [vector[index] * sign + 0.0 for index, sign in self._plan]
        return plan[0], plan[1], plan[2] if len(plan) == 3 else 0.0


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
    "tick t dt mode local move amount heading_deg rise turn throttle look view face_deg sector goal step presses "
    "device motion"
).split()
"""What an intent tells, in the order in which `Intent.as_dict` gives it."""


class Intent(NamedTuple):
    """What the player wants this tick. Immutable; everything is in the plan frame unless it says otherwise.

    `tick` counts from 1; `t` and `dt` are seconds; `mode` is the mode's name; `view` is the view it was steered
    by, this tick's look included; `device` is what the player used last: "keys", "pad", "mouse", "touch", "hands" or
    None. A stick that lies in its dead zone uses nothing; while several devices move, the one that steers counts,
    then the one that looks, then the other channels, then presses. `presses` has every press of the profile by name;
    `look` is how far the player turned the view this tick, within its pitch limits. The other fields are read off
    `outcome`, the bare numbers of the tick, when they are asked for: making an intent costs little, and most games
    ask for two or three of them. `sector` says which of the profile's facings the sprite has (None without
    `sectors`): 0 is ahead and they count clockwise; of two, 0 is right and 1 is left. Fields that a profile does
    not use stay neutral.
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
        return Motion(out.pos_x, out.pos_y, 0.0, out.vel_x, out.vel_y, 0.0, True)

    @property
    def goal(self) -> Plan | None:
        """The pointed place; None outside a `goto` frame."""
        return None

    @property
    def step(self) -> Plan | None:
        """The square being stepped to; None outside a `grid` frame."""
        return None

    def velocity(self, top_speed_m_s: float | None = None) -> GameVector:
        """Return a velocity (m/s) in the game's own axes: (x, y, z), or (x, y) in a 2-D game.

        Without `top_speed_m_s` it is the gait's, with its acceleration and braking; with it, it is the
        wanted one, `move` times that speed, at once.
        """
        out = self.outcome
        if top_speed_m_s is None:
            return self.axes.from_plan(out.vel_x, out.vel_y)
        return self.axes.from_plan(out.move_x * top_speed_m_s, out.move_y * top_speed_m_s)

    def direction(self) -> GameVector:
        """Return the wanted direction in the game's own axes, of length 1, or all zeros at rest."""
        out = self.outcome
        length = math.hypot(out.move_x, out.move_y)
        if length == 0.0:
            return self.axes.from_plan(0.0, 0.0)
        return self.axes.from_plan(out.move_x / length, out.move_y / length)

    def position(self) -> GameVector:
        """Return the gait's position (m) in the game's own axes, from where the helm began."""
        return self.axes.from_plan(self.outcome.pos_x, self.outcome.pos_y)

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
        speed = math.hypot(self.outcome.vel_x, self.outcome.vel_y)
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
