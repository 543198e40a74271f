"""The result of one tick, the view it was steered by, and the game's own axes it can be had in."""

import math
from collections.abc import Mapping
from typing import Any, NamedTuple, TypeAlias

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
        """Resolve the names; raises `ValueError` unless they are signed axes with different letters."""
        self.right, self.ahead, self.up = right, ahead, up
        names = [name for name in (right, ahead, up) if name is not None]
        letters = "xyz"[: len(names)]
        if sorted(name[1:] for name in names) != list(letters) or any(name[0] not in "+-" for name in names):
            raise ValueError(f"axes {', '.join(names)}; allowed: signed axes such as +x, one of each of {letters}")
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
            raise ValueError(f"{len(vector)} numbers; allowed: {len(self._game)}, as the world has so many axes")
        plan = [vector[index] * sign + 0.0 for index, sign in self._plan]
        return plan[0], plan[1], plan[2] if len(plan) == 3 else 0.0


class Intent(NamedTuple):
    """What the player wants this tick. Immutable; every field is in the plan frame unless it says otherwise.

    `tick` counts from 1; `t` and `dt` are seconds. `local` is the wish before steering, `move` after it: its
    length is `amount`, 0..1. `heading_deg` is the compass heading of `move`, 0 up to 360, None at rest;
    `face_deg` is where the body faces. `device` is what steered last: "keys", "pad" or None. `motion` is what
    the profile's gait makes of it all. Fields that a profile does not use stay neutral: `rise`, `turn`,
    `throttle` 0, `look` (0, 0), `sector`, `goal` and `step` None, `presses` empty.
    """

    tick: int
    t: float
    dt: float
    mode: str
    local: Local
    move: Plan
    amount: float
    heading_deg: float | None
    rise: float
    turn: float
    throttle: float
    look: Look
    view: View
    face_deg: float
    sector: int | None
    goal: Plan | None
    step: Plan | None
    presses: Mapping[str, Press]
    device: str | None
    motion: Motion
    axes: WorldAxes

    def velocity(self, top_speed_m_s: float | None = None) -> GameVector:
        """Return a velocity (m/s) in the game's own axes: (x, y, z), or (x, y) in a 2-D game.

        Without `top_speed_m_s` it is the gait's, with its acceleration and braking; with it, it is the
        wanted one, `move` times that speed, at once.
        """
        if top_speed_m_s is None:
            return self.axes.from_plan(self.motion.vel_x, self.motion.vel_y, self.motion.vel_z)
        return self.axes.from_plan(self.move.x * top_speed_m_s, self.move.y * top_speed_m_s)

    def direction(self) -> GameVector:
        """Return the wanted direction in the game's own axes, of length 1, or all zeros at rest."""
        length = math.hypot(self.move.x, self.move.y)
        if length == 0.0:
            return self.axes.from_plan(0.0, 0.0)
        return self.axes.from_plan(self.move.x / length, self.move.y / length)

    def position(self) -> GameVector:
        """Return the gait's position (m) in the game's own axes, from where the helm began."""
        return self.axes.from_plan(self.motion.pos_x, self.motion.pos_y, self.motion.pos_z)

    def press(self, name: str) -> Press:
        """Return one press; an unknown name raises `KeyError` with the names there are."""
        try:
            return self.presses[name]
        except KeyError:
            raise KeyError(
                f'no press "{name}" in mode {self.mode}; there are: {", ".join(self.presses) or "none"}'
            ) from None

    def as_dict(self) -> dict[str, Any]:
        """Return everything but the axes as plain dicts, numbers and texts, ready for `json.dumps`."""
        content: dict[str, Any] = {}
        for name, value in zip(self._fields, self, strict=True):
            if name == "presses":
                content[name] = {press: state._asdict() for press, state in self.presses.items()}
            elif name != "axes":
                as_dict = getattr(value, "_asdict", None)
                content[name] = as_dict() if as_dict else value
        return content

    def __str__(self) -> str:
        """Give the tick on one line, as a person reads it."""
        heading = "at rest" if self.heading_deg is None else f"heading {self.heading_deg:5.1f} deg"
        speed = math.hypot(self.motion.vel_x, self.motion.vel_y)
        return (
            f"tick {self.tick}, {self.t:.3f} s, {self.mode}: amount {self.amount:.2f}, {heading}, "
            f"facing {self.face_deg:5.1f} deg, {speed:.2f} m/s"
        )
