"""The result of one tick."""

import math
from collections.abc import Iterator, Mapping
from typing import Any, NamedTuple

from wendonic.errors import WendonicError, none_such
from wendonic.kernels.body.landing import arc_point
from wendonic.kernels.frames.steer import FRAME_GRID
from wendonic.kernels.tick_record import Outcome
from wendonic.runtime.reader import Reader
from wendonic.runtime.view import View
from wendonic.world_axes import GameVector, WorldAxes


class Look(NamedTuple):
    """How far the player turned the view this tick, in degrees; right and up positive."""

    yaw_deg: float = 0.0
    pitch_deg: float = 0.0


class Press(NamedTuple):
    """A named on/off thing the player does: it is `held`, it `began`, it `ended` this tick.

    `held_s` is how long it has been held at the end of the tick: `dt` in the tick in which it began; in the tick in
    which it ends, how long it was held. `began_count` is how often it began: three notches of the wheel may come in
    one tick.

    >>> from wendonic import Helm
    >>> from wendonic.demo import demo_profile
    >>> helm = Helm(demo_profile())
    >>> helm.key("Space", down=True)
    >>> helm.tick(0.02).press("jump")
    Press(held=True, began=True, ended=False, held_s=0.02, began_count=1)
    """

    held: bool = False
    began: bool = False
    ended: bool = False
    held_s: float = 0.0
    began_count: int = 0


def _press_of(numbers: tuple[float, ...]) -> Press:
    held, began, ended, held_s, count = numbers
    return Press(held > 0.0, began > 0.0, ended > 0.0, held_s, int(count))


class Step(NamedTuple):
    """One step on squares, counted along the game's own horizontal axes, in their order: the square that is stepped
    to (the one that the body stands on while idle), the one that it comes from, the share of the step's time that is
    over, the blocked square that refuses the step that is requested (None: none does), and whether a step began or
    ended this tick.
    """

    x: int
    y: int
    from_x: int
    from_y: int
    share: float
    refused: tuple[int, int] | None
    began: bool = False
    ended: bool = False

    @property
    def stepping(self) -> bool:
        """Whether the body is between two squares."""
        return self.x != self.from_x or self.y != self.from_y


class Footing(NamedTuple):
    """The effect of the ground on the request: ground too steep refuses the way up, and lets the body slide."""

    refused: bool = False
    slides: bool = False


class Plan(NamedTuple):
    """A vector in the plan frame: `x` right (east), `y` forward (north)."""

    x: float
    y: float


class Comfort(NamedTuple):
    """What a game for a headset draws: the vignette (0 open, 1 closed); the head's offset from the middle of the play
    space and the place under the head; whether the head is inside a wall, how long until it is brought back (s),
    whether it was brought back this tick, and the last safe place for the middle of the play space. Places and the
    offset are in the game's own axes and unit, places at the body's height.
    """

    vignette: float
    offset: GameVector
    head: GameVector
    inside_wall: bool
    returns_in_s: float | None
    returned: bool
    safe: GameVector


class Local(NamedTuple):
    """What the player requests before steering: `right` and `forward`, -1..1."""

    right: float
    forward: float


class Motion(NamedTuple):
    """Motion by the gait, in the plan frame: position (m), velocity (m/s), and whether the body is on the ground."""

    pos_x: float = 0.0
    pos_y: float = 0.0
    pos_z: float = 0.0
    vel_x: float = 0.0
    vel_y: float = 0.0
    vel_z: float = 0.0
    grounded: bool = True


class AxisAmounts(NamedTuple):
    """The channels of one number each, -1..1: up, forward and right positive."""

    rise: float = 0.0
    throttle: float = 0.0
    turn: float = 0.0


class Presses(Mapping[str, Press]):
    """Every press of a profile by name; one that the mode does not bind is at rest."""

    __slots__ = ("_reader", "_record")

    def __init__(self, reader: Reader, record: tuple[float, ...]) -> None:
        """Keep the record that has them."""
        self._reader = reader
        self._record = record

    def __getitem__(self, name: str) -> Press:
        """Return one press."""
        return _press_of(self._reader.presses[name](self._record))

    def __iter__(self) -> Iterator[str]:
        """Iterate over the names."""
        return iter(self._reader.presses)

    def __len__(self) -> int:
        """Return how many there are."""
        return len(self._reader.presses)

    def __repr__(self) -> str:
        """Return them as a dict is shown."""
        return repr(dict(self))


_DEG = math.pi / 180.0

FIELDS = (
    "tick t dt mode local move amount heading_deg rise turn throttle look view face_deg sector goal waiting_goals "
    "arrived stuck_s step contact footing comfort landing teleported presses device motion"
).split()
"""What an intent reports, in the order in which `Intent.as_dict` gives it."""


class Intent(NamedTuple):
    """What the player wants in one tick. Immutable; everything is in the plan frame unless it says otherwise.

    `tick` counts from 1; `t` and `dt` are seconds; `mode` is the mode's name; `view` is the view that steered it,
    this tick's look included; `device` is the device used last: "keys", "pad", "mouse", "touch", "hands" or None. A
    stick in its dead zone does not count as used; if several devices are in use, the one that steers takes
    precedence, then the one that looks, then other channels, then presses. `presses` has every press of the profile
    by name; `look` is how far the player turned the view in this tick, within its pitch limits. `sector` says which
    of the profile's facings the sprite shows (None without `sectors`): 0 is forward and they count clockwise; of two,
    0 is right and 1 is left. Fields that a profile does not use stay neutral.

    All of it is read from `record`, the bare numbers of the tick, on access: making an intent is cheap,
    and most games need two or three of its fields. `outcome` has those numbers by name.

    >>> from wendonic import Helm
    >>> from wendonic.demo import demo_profile
    >>> helm = Helm(demo_profile())
    >>> helm.key("KeyD", down=True)
    >>> intent = helm.tick(0.5)
    >>> intent.amount, intent.heading_deg, intent.local
    (1.0, 90.0, Local(right=1.0, forward=0.0))
    >>> intent.velocity(), intent.direction(), intent.face_deg
    ((3.2, 0.0, 0.0), (1.0, 0.0, 0.0), 90.0)
    """

    tick: int
    t: float
    dt: float
    device: str | None
    record: tuple[float, ...]
    reader: Reader
    last_view: tuple[float, float]
    reported_contact: GameVector | None = None

    @property
    def mode(self) -> str:
        """Name of the mode."""
        return self.reader.mode

    @property
    def axes(self) -> WorldAxes:
        """The game's own axes."""
        return self.reader.axes

    @property
    def outcome(self) -> Outcome:
        """Everything that the tick reports as bare numbers, angles in radians."""
        return self.reader.outcome(self.record)

    @property
    def view(self) -> View:
        """Where the camera looks, this tick's look included."""
        yaw, pitch = self.reader.view(self.record)
        # If the game gave a view, exactly its numbers.
        yaw_deg, pitch_deg = self.last_view
        if (yaw, pitch) == (yaw_deg * _DEG, pitch_deg * _DEG):
            return View(yaw_deg, pitch_deg)
        return View(math.degrees(yaw), math.degrees(pitch))

    @property
    def look(self) -> Look:
        """How far the player turned the view this tick, in degrees."""
        yaw, pitch = self.reader.look(self.record)
        return Look(math.degrees(yaw), math.degrees(pitch))

    @property
    def presses(self) -> Presses:
        """Every press of the profile by name."""
        return Presses(self.reader, self.record)

    @property
    def sector(self) -> int | None:
        """The profile's facing that the sprite shows; None without `sectors`."""
        sector = self.reader.sector(self.record)
        return int(sector) if self.reader.tuning.sectors > 0 and sector >= 0.0 else None

    @property
    def rise(self) -> float:
        """Up or down, -1..1, up positive."""
        return self.reader.axis_amounts(self.record)[0]

    @property
    def throttle(self) -> float:
        """Throttle, -1..1, forward positive."""
        return self.reader.axis_amounts(self.record)[1]

    @property
    def turn(self) -> float:
        """Turning by keys or stick, -1..1, right positive."""
        return self.reader.axis_amounts(self.record)[2]

    @property
    def local(self) -> Local:
        """The request of the player, shaped but not steered: `right` and `forward`, -1..1."""
        return Local(*self.reader.local(self.record))

    @property
    def move(self) -> Plan:
        """The direction and amount of the request: a vector of the plan whose length is `amount`, without the
        vertical part in flight.
        """
        return Plan(*self.reader.move(self.record))

    @property
    def amount(self) -> float:
        """How much of full speed is wanted, 0..1 (more only under `diagonal = "free"`, or a `diagonal_factor` above
        0.71).
        """
        return self.reader.amount(self.record)

    @property
    def heading_deg(self) -> float | None:
        """Compass heading of `move`, 0 up to 360; None at rest, and straight up or down."""
        x, y = self.reader.move(self.record)
        return None if x == y == 0.0 else compass_deg(self.reader.heading(self.record))

    @property
    def face_deg(self) -> float:
        """Compass heading that the body faces, 0 up to 360; at rest the last one is kept."""
        return compass_deg(self.reader.face(self.record))

    @property
    def motion(self) -> Motion:
        """Position and velocity by the profile's gait."""
        reader, record = self.reader, self.record
        x, y, z = reader.position(record)
        vel_x, vel_y, vel_z = reader.velocity(record)
        return Motion(x, y, z, vel_x, vel_y, vel_z, reader.grounded(record) > 0.0)

    @property
    def goal(self) -> GameVector | None:
        """The goal, in the game's own axes and unit, at the body's height; None without one, and outside a `goto`
        frame.
        """
        there, x, y = self.reader.goal(self.record)
        return None if there == 0.0 else self.axes.place_from_plan(x, y, self._height_m())

    @property
    def waiting_goals(self) -> tuple[GameVector, ...]:
        """The goals that follow the current one, in the game's own axes and unit, at the body's height."""
        height = self._height_m()
        waiting = self.reader.part(self.record, "frame", "waiting")
        count = int(self.reader.waiting_count(self.record))
        return tuple(self.axes.place_from_plan(x, y, height) for x, y in waiting[:count])

    @property
    def distance_m(self) -> float | None:
        """Distance of the goal in metres, whatever the game's own unit is; None without one."""
        goal = self.goal
        return None if goal is None else math.dist(goal, self.position()) / self.axes.units_per_m

    @property
    def stuck_s(self) -> float:
        """Time (s) for which the body has come no nearer to the goal, so that the game can react to an obstacle; 0
        without a goal.
        """
        return self.reader.stuck_s(self.record)

    @property
    def contact(self) -> GameVector | None:
        """The normal, of length 1 in the game's own axes, of a wall that stopped the body: of the course, or one that
        the game reported by `Helm.contact`; None if nothing stopped it.
        """
        if self.reported_contact is not None:
            return self.reported_contact
        x, y = self.reader.contact(self.record)
        return None if x == y == 0.0 else self.axes.from_plan(x, y, 0.0)

    @property
    def arrived(self) -> bool:
        """Whether the goal was reached this tick."""
        return self.reader.arrived(self.record) > 0.0

    @property
    def step(self) -> Step | None:
        """The step on squares; None outside a `grid` frame."""
        if self.reader.tuning.frame.frame != FRAME_GRID:
            return None
        x, y, to_x, to_y, share, refuses, away_x, away_y, began, ended = self.reader.step(self.record)
        square = self.axes.square_from_plan
        refused = square(x + away_x, y + away_y) if refuses > 0.0 else None
        return Step(*square(to_x, to_y), *square(x, y), share, refused, began > 0.0, ended > 0.0)

    @property
    def comfort(self) -> Comfort | None:
        """Vignette, play space and safe place; None where the mode has no `comfort`."""
        tuning = self.reader.tuning.comfort
        if tuning.used == 0:
            return None
        shown, inside_s, returned, x, y, head_x, head_y, safe_x, safe_y = self.reader.comfort(self.record)
        place, height = self.axes.place_from_plan, self._height_m()
        return Comfort(
            shown,
            place(x, y),
            place(head_x, head_y, height),
            inside_s > 0.0,
            tuning.return_s - inside_s if inside_s > 0.0 else None,
            returned > 0.0,
            place(safe_x, safe_y, height),
        )

    @property
    def landing(self) -> GameVector | None:
        """Where the arc of the pointing hand lands, in the game's own axes and unit; None without one."""
        landing = self.reader.part(self.record, "pointing", "landing")
        return None if landing.there == 0.0 else self.axes.place_from_plan(*landing.place)

    def arc(self, points: int = 24) -> list[GameVector]:
        """Return the arc of the pointing hand for drawing: places in the game's own axes and unit, evenly spaced in
        time, from the hand to where it lands, or its first second if it lands nowhere; empty while no hand points.
        Raises `WendonicError` for fewer than two points.

        >>> from wendonic import Helm
        >>> from wendonic.demo import demo_profile
        >>> Helm(demo_profile("headset")).tick(0.01).arc(points=8)
        []
        """
        if points < 2:
            raise WendonicError(f"points: found {points}; allowed: 2 or more")
        pointing = self.reader.part(self.record, "pointing")
        if pointing.held == 0.0:
            return []
        whole_s = pointing.landing.after_s if pointing.landing.there > 0.0 else 1.0
        times = [whole_s * number / (points - 1) for number in range(points)]
        speed_m_s = self.reader.tuning.arc_m_s
        return [
            self.axes.place_from_plan(*arc_point(pointing.place, pointing.direction, speed_m_s, t)) for t in times
        ]

    @property
    def teleported(self) -> bool:
        """Whether the body was teleported in this tick."""
        return self.reader.teleported(self.record) > 0.0

    @property
    def footing(self) -> Footing:
        """The effect of ground that is too steep on the request."""
        x, y, _ = self.reader.slide(self.record)
        return Footing(self.reader.refused(self.record) > 0.0, x != 0.0 or y != 0.0)

    def velocity(self, top_speed_m_s: float | None = None, top_speed_u_s: float | None = None) -> GameVector:
        """Return a velocity in the game's own axes and unit (m/s without one): (x, y, z), or (x, y) in a 2-D game.

        Without a top speed it is the gait's, with its acceleration and braking (those of `walk` under the gait
        "none"); with one, in metres or in the game's own unit, it is the wanted velocity, `move` times that speed, at
        once: along the ground if the mode walks on slopes, with the slide down a bank that is too steep; along the
        view and with `rise` if it flies. Raises `WendonicError` for both at once.

        >>> from wendonic import Helm
        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> helm.key("KeyW", down=True)
        >>> intent = helm.tick(0.1)
        >>> intent.velocity(), intent.velocity(top_speed_m_s=5.0)
        ((0.0, 0.0, -2.2), (0.0, 0.0, -5.0))
        """
        if top_speed_u_s is not None:
            if top_speed_m_s is not None:
                raise WendonicError("velocity: found top_speed_m_s and top_speed_u_s; allowed: one of them")
            top_speed_m_s = top_speed_u_s / self.axes.units_per_m
        if top_speed_m_s is None:
            return self.axes.place_from_plan(*self.reader.velocity(self.record))
        x, y, z = self.reader.direction(self.record)
        slide_x, slide_y, slide_z = self.reader.slide(self.record)
        return self.axes.place_from_plan(
            x * top_speed_m_s + slide_x, y * top_speed_m_s + slide_y, z * top_speed_m_s + slide_z
        )

    def _height_m(self) -> float:
        return self.reader.position(self.record)[2]

    def direction(self) -> GameVector:
        """Return the wanted direction in the game's own axes, of length 1, or all zeros at rest."""
        x, y, z = self.reader.direction(self.record)
        length = math.hypot(x, y, z)
        if length == 0.0:
            return self.axes.from_plan(0.0, 0.0)
        return self.axes.from_plan(x / length, y / length, z / length)

    def facing(self) -> GameVector:
        """Return the direction that the body faces, level, of length 1, in the game's own axes.

        >>> from wendonic import Helm
        >>> from wendonic.demo import demo_profile
        >>> Helm(demo_profile()).tick(0.0).facing()
        (0.0, 0.0, -1.0)
        """
        face = self.reader.face(self.record)
        return self.axes.from_plan(math.sin(face), math.cos(face))

    def position(self) -> GameVector:
        """Return the gait's position in the game's own axes and unit (m without one), from where the helm began.

        >>> from wendonic import Helm
        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> helm.place(3.0, 0.0, -1.0)
        >>> helm.tick(0.0).position()
        (3.0, 0.0, -1.0)
        """
        return self.axes.place_from_plan(*self.reader.position(self.record))

    def orientation(self) -> tuple[float, float, float, float]:
        """Return the orientation of the body as the quaternion (x, y, z, w) in the game's own axes.

        It turns a body that looks along the game's `forward`, with its head towards `up`, to its facing, and then
        tilts it with the ground by the shortest turn. In a left-handed game it is a quaternion of that game: v + 2 w
        (q x v) + 2 q x (q x v) with the game's own numbers. Raises `WendonicError` in a 2-D game.

        >>> from wendonic import Helm
        >>> from wendonic.demo import demo_profile
        >>> Helm(demo_profile()).tick(1 / 60).orientation()
        (0.0, 0.0, 0.0, 1.0)
        """
        if self.axes.up is None or self.axes.forward is None:
            raise WendonicError("a 2-D game has no quaternions; allowed: face_deg")
        half = 0.5 * self.reader.face(self.record)
        # Clockwise from above is negative about the plan's up.
        yaw_z, yaw_w = -math.sin(half), math.cos(half)
        up_x, up_y, up_z = self.reader.up(self.record)
        length = math.sqrt(2.0 * (1.0 + up_z))
        lean_x, lean_y, lean_w = -up_y / length, up_x / length, length / 2.0
        x = lean_x * yaw_w + lean_y * yaw_z
        y = lean_y * yaw_w - lean_x * yaw_z
        handed = 1.0 if self.axes.right_handed else -1.0
        turned = self.axes.from_plan(x * handed, y * handed, lean_w * yaw_z * handed)
        return turned[0], turned[1], turned[2], lean_w * yaw_w

    def press(self, name: str) -> Press:
        """Return one press; a name that no mode of the profile knows raises `WendonicError` with those there are.

        >>> from wendonic import Helm
        >>> from wendonic.demo import demo_profile
        >>> helm = Helm(demo_profile())
        >>> helm.key("ShiftLeft", down=True)
        >>> helm.tick(1 / 60).press("sprint").began
        True
        """
        numbers = self.reader.presses.get(name)
        if numbers is None:
            raise WendonicError(none_such("press", name, self.presses))
        return _press_of(numbers(self.record))

    def as_dict(self) -> dict[str, Any]:
        """Return everything but the axes as plain dicts, numbers and texts, ready for `json.dumps`.

        >>> from wendonic import Helm
        >>> from wendonic.demo import demo_profile
        >>> content = Helm(demo_profile()).tick(0.02).as_dict()
        >>> content["tick"], content["mode"], content["view"]
        (1, 'foot', {'yaw_deg': 0.0, 'pitch_deg': 0.0})
        """
        content: dict[str, Any] = {}
        for name in FIELDS:
            value = getattr(self, name)
            as_dict = getattr(value, "_asdict", None)
            content[name] = as_dict() if as_dict else value
        content["presses"] = {name: press._asdict() for name, press in self.presses.items()}
        return content

    def __repr__(self) -> str:
        """Return the same line as `print`; the bare numbers are in `record`, and everything by name in `as_dict`."""
        return f"<Intent {self}>"

    def __str__(self) -> str:
        """Return the tick as one line of text, speeds in the game's own unit."""
        heading = "no heading" if self.amount > 0.0 else "at rest"
        if self.heading_deg is not None:
            heading = f"heading {_compass_words(self.heading_deg)} deg"
        vel_x, vel_y, rise = (speed * self.axes.units_per_m for speed in self.motion[3:6])
        unit = self.axes.unit
        upwards = f", {rise:+.2f} {unit}/s up" if abs(rise) >= 0.005 else ""
        return (
            f"tick {self.tick}, {self.t:.3f} s, {self.mode}: amount {self.amount:.2f}, {heading}, "
            f"facing {_compass_words(self.face_deg)} deg, {math.hypot(vel_x, vel_y):.2f} {unit}/s{upwards}"
        )


def _compass_words(heading_deg: float) -> str:
    # Just short of a full turn is north, not 360.
    return f"{round(heading_deg, 1) % 360.0:5.1f}"


def compass_deg(angle: float) -> float:
    """Return an angle (rad, -pi..pi) as a compass heading: degrees from 0 up to, not including, 360.

    >>> compass_deg(-math.pi / 2), compass_deg(0.0), compass_deg(-1e-300)
    (270.0, 0.0, 0.0)
    """
    degrees = math.degrees(angle)
    if degrees < 0.0:
        degrees += 360.0
    return degrees if degrees < 360.0 else 0.0
