"""Which controls feed which channel: what a profile's bindings come down to, names and places only."""

from collections.abc import Sequence
from typing import Literal, NamedTuple

from wendonic.devices.controls import CONTROLS, Control, Device, find_control, find_key, find_kind
from wendonic.errors import ControlError, did_you_mean

Opposites = Literal["cancel", "latest", "earliest"]


class Zone(NamedTuple):
    """A rectangle of the window, in fractions of its width and height; y grows downwards."""

    left: float
    top: float
    right: float
    bottom: float

    def holds(self, x: float, y: float) -> bool:
        """Return whether a point lies in it, edges included.

        >>> Zone(0.0, 0.0, 0.3, 1.0).holds(0.3, 0.5)
        True
        """
        return self.left <= x <= self.right and self.top <= y <= self.bottom


class KeysSource(NamedTuple):
    """Four lists of keys (W3C codes or control names) or buttons; one of a list is enough."""

    right: Sequence[str] = ()
    left: Sequence[str] = ()
    ahead: Sequence[str] = ()
    back: Sequence[str] = ()
    opposites: Opposites = "cancel"


class StickSource(NamedTuple):
    """One stick."""

    control: str


class AxesSource(NamedTuple):
    """One or two axes, each of its own: `pad.left_stick.x`, `pad.right_stick.y`, or a trigger."""

    x: str = ""
    y: str = ""


class TriggersSource(NamedTuple):
    """Two triggers that pull opposite ways; one of them may be missing."""

    positive: str = ""
    negative: str = ""


class TouchZonesSource(NamedTuple):
    """Zones of the touch screen for each way; a finger anywhere inside is enough."""

    right: Sequence[Zone] = ()
    left: Sequence[Zone] = ()
    ahead: Sequence[Zone] = ()
    back: Sequence[Zone] = ()


class TouchStickSource(NamedTuple):
    """A stick under the thumb, wherever in the zone it lands.

    `radius` is a share of the window's height, `aspect_ratio` the window's width over its height. Past the rim the
    middle stays (`drag` False) or is dragged along.
    """

    zone: Zone
    radius: float
    drag: bool
    aspect_ratio: float


class PointerSource(NamedTuple):
    """The pointer's place seen from the window's middle, while one of `while_held` is down, or always if empty.

    `reach` is the share of the window's height at which everything is asked for.
    """

    while_held: Sequence[str]
    reach: float
    aspect_ratio: float


class HandsSource(NamedTuple):
    """The way that the hands swing while they squeeze."""

    hands: Sequence[str]


class ShownPlan(NamedTuple):
    """What a window shows of the plan: where its edges lie (m)."""

    left_m: float
    back_m: float
    right_m: float
    ahead_m: float

    def place(self, x: float, y: float) -> tuple[float, float]:
        """Return the place of the plan (m) at a point of the window, in its fractions, y down.

        >>> ShownPlan(-10.0, 0.0, 10.0, 8.0).place(0.5, 0.25)
        (0.0, 6.0)
        """
        across, up = self.right_m - self.left_m, self.ahead_m - self.back_m
        return self.left_m + x * across, self.ahead_m - y * up


class PointedGoal(NamedTuple):
    """The place under the pointer while one of `while_held` is down, or always if empty."""

    while_held: Sequence[str]
    plan: ShownPlan


class TouchedGoal(NamedTuple):
    """The place under a finger that landed in the zone."""

    zone: Zone
    plan: ShownPlan


class MouseSource(NamedTuple):
    """Counts of the mouse."""

    control: str = "mouse.move"


class TouchDragSource(NamedTuple):
    """The way of a finger that landed in the zone, in window widths."""

    zone: Zone
    aspect_ratio: float


class GyroSource(NamedTuple):
    """A pad's rate sensor."""

    control: str


class SwitchBind(NamedTuple):
    """Keys or buttons that are down together; a trigger is down from `above` on until it is back at `release`."""

    controls: Sequence[str]
    above: float = 0.5
    release: float = 0.4


class ZoneBind(NamedTuple):
    """A finger that landed in the zone."""

    zone: Zone


class WheelBind(NamedTuple):
    """Notches of the wheel, away from the user or towards the user."""

    towards: bool


MoveSource = KeysSource | StickSource | AxesSource | TouchZonesSource | TouchStickSource | PointerSource | HandsSource
AxisSource = KeysSource | AxesSource | TriggersSource
LookSource = MouseSource | StickSource | TouchDragSource | GyroSource
Source = MoveSource | AxisSource | LookSource
PressBind = SwitchBind | ZoneBind | WheelBind
GoalSource = PointedGoal | TouchedGoal


class ModeSources(NamedTuple):
    """Every binding of a mode. `presses` has a place for each press of the profile; one not bound here is empty.

    `goal` is None where nothing is walked to; `aims` and `tracks` say whether a point to aim at, and where head and
    hands are and point, are of use, and `points` which hand points at places to be at; `across` that only right and
    left are, as in a game seen from the side; `taps` that a key which went down and up between two ticks is still
    seen.
    """

    move: Sequence[MoveSource] = ()
    rise: Sequence[AxisSource] = ()
    throttle: Sequence[AxisSource] = ()
    turn: Sequence[AxisSource] = ()
    look: Sequence[LookSource] = ()
    presses: Sequence[Sequence[PressBind]] = ()
    goal: Sequence[GoalSource] | None = None
    aims: bool = False
    tracks: bool = False
    points: str = ""
    across: bool = False
    taps: bool = False

    @property
    def channels(self) -> "tuple[Sequence[Source], ...]":
        """The sources of `move`, `rise`, `throttle`, `turn` and `look`."""
        return self.move, self.rise, self.throttle, self.turn, self.look


def find_switch(name: str) -> Control:
    """Return the key or button of that name; a key's W3C code alone will do.

    >>> find_switch("KeyW").name, find_switch("pad.south").name
    ('key.KeyW', 'pad.south')
    """
    if "." not in name:
        return find_key(name)
    return find_kind(name, "button", "key")


def find_axis(name: str) -> tuple[Control, int, float]:
    """Return an axis by its name: its control, its place in the held state, and the sign that turns it.

    `pad.left_stick.x` is to the right, `pad.left_stick.y` ahead, however the device itself counts; a trigger is 0
    to 1.

    >>> control, slot, sign = find_axis("pad.left_stick.y")
    >>> control.name, slot - control.slot, sign
    ('pad.left_stick', 1, -1.0)
    """
    stem, _, axis = name.rpartition(".")
    stick = CONTROLS.get(stem)
    if stick is not None and stick.kind == "stick" and axis in ("x", "y"):
        return (stick, stick.slot, 1.0) if axis == "x" else (stick, stick.slot + 1, -1.0)
    control = CONTROLS.get(name)
    if control is not None and control.kind == "button":
        return control, control.slot, 1.0
    axes = [f"{other}.{letter}" for other, known in CONTROLS.items() if known.kind == "stick" for letter in "xy"]
    guess = did_you_mean(name, axes) or "; axes are such as pad.left_stick.x, pad.right_stick.y, pad.left_trigger"
    raise ControlError(f'unknown axis "{name}"{guess}')


def source_device(source: Source) -> Device:
    """Return the device that a source stands for.

    >>> source_device(StickSource("hand.left.stick"))
    'hands'
    """
    match source:
        case KeysSource(right, left, ahead, back):
            return find_switch([*right, *left, *ahead, *back][0]).device or "keys"
        case StickSource(control) | MouseSource(control) | GyroSource(control):
            return find_control(control).device or "pad"
        case AxesSource(first, second) | TriggersSource(first, second):
            return find_axis(first or second)[0].device or "pad"
        case TouchZonesSource() | TouchStickSource() | TouchDragSource():
            return "touch"
        case PointerSource():
            return "mouse"
        case HandsSource():
            return "hands"
