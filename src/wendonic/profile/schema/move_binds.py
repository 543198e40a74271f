"""The `bind` entries of `move`."""

import math
from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Discriminator, Field, Tag, field_validator

from wendonic.devices.push import Push, Pushes, axis_push, pressed
from wendonic.devices.sources.axes import AxesSource
from wendonic.devices.sources.base import Source
from wendonic.devices.sources.hands import HandsSource
from wendonic.devices.sources.keys import KeysSource
from wendonic.devices.sources.names import find_switch
from wendonic.devices.sources.pointer import PointerSource
from wendonic.devices.sources.stick import StickSource
from wendonic.devices.sources.touch import TouchStickSource, TouchZonesSource
from wendonic.kernels.source.source import PLAIN_SOURCE, SOURCE_AXES, SOURCE_SWING, SourceTuning
from wendonic.kernels.source.swing import SwingTuning
from wendonic.profile.schema.bind import NameLists, ZoneNames, by_key, listed, wanted_lists, zone_control
from wendonic.profile.schema.curve import LINEAR_CURVE, Curve
from wendonic.profile.schema.dead_zone import DeadZone
from wendonic.profile.schema.diagonals import Moving
from wendonic.profile.schema.keyed import Opposed, Ramped
from wendonic.profile.schema.names import AxisName, DpadName, KeyList, Seconds, StickName, SwitchName, ZoneName
from wendonic.profile.schema.number_rows import NumberRows
from wendonic.profile.schema.seat import Seat
from wendonic.profile.schema.table import Table, entry, own_fault
from wendonic.profile.schema.tilted import Centred, Tilted
from wendonic.profile.schema.window import Window
from wendonic.profile.schema.words import Word, Words


class MoveKeys(NameLists):
    """Keys for each direction, as W3C codes."""

    forward: KeyList = entry("Keys for forward.", (), example=["KeyW", "ArrowUp"])
    back: KeyList = entry("Keys for back.", (), example=["KeyS", "ArrowDown"])
    left: KeyList = entry("Keys for left.", (), example=["KeyA", "ArrowLeft"])
    right: KeyList = entry("Keys for right.", (), example=["KeyD", "ArrowRight"])


class MoveZones(NameLists):
    """Zones of the touch screen for each direction."""

    forward: ZoneNames = entry("Zones in which a finger moves forward.", (), example=["upper part"])
    back: ZoneNames = entry("Zones in which a finger moves back.", (), example=["lower part"])
    left: ZoneNames = entry("Zones in which a finger moves left.", (), example=["left edge"])
    right: ZoneNames = entry("Zones in which a finger moves right.", (), example=["right edge"])


class KeysBind(Moving, Opposed):
    """Keys as a source of `move`."""

    keys: MoveKeys = entry(
        "Keys for each direction.",
        example={"forward": ["KeyW"], "back": ["KeyS"], "left": ["KeyA"], "right": ["KeyD"]},
    )

    def controls(self) -> list[str]:
        """Return its controls."""
        return [f"key.{code}" for codes in self.keys.lists().values() for code in codes]

    def called(self) -> str:
        """Return its name when a mode is measured with it."""
        return "keys"

    def pushes(self, x: float, y: float, window: Window, amount: float = 1.0) -> Pushes | None:  # noqa: ARG002
        """Return the keys to hold: the first one of each direction."""
        firsts = [lists[:1] for lists in wanted_lists(self.keys.lists(), x, y)]
        return pressed(f"key.{codes[0]}" for codes in firsts) if all(firsts) else None

    def on_one_axis(self) -> bool:
        """Return whether its keys pull along one axis only."""
        return self.keys.on_one_axis()

    def what(self) -> str:
        """Return a text for its controls."""
        return f"keys: {self.keys.sentence()}"

    def source(self, window: Window, seat: Seat) -> Source:  # noqa: ARG002
        """Return the source that a sampler reads."""
        keys, own = self.keys, seat.all_own
        return KeysSource(own(keys.right), own(keys.left), own(keys.forward), own(keys.back), self.opposites)


class DpadBind(Moving, Opposed):
    """The four buttons of a pad's d-pad as a source of `move`."""

    dpad: DpadName = entry("D-pad that moves.", example="pad.dpad")

    def controls(self) -> list[str]:
        """Return its controls."""
        return [f"{self.dpad}_{button}" for button in ("up", "down", "left", "right")]

    def called(self) -> str:
        """Return its name when a mode is measured with it."""
        return self.dpad

    def pushes(self, x: float, y: float, window: Window, amount: float = 1.0) -> Pushes | None:  # noqa: ARG002
        """Return the buttons to hold."""
        buttons = {"right": ("right",), "left": ("left",), "forward": ("up",), "back": ("down",)}
        return pressed(f"{self.dpad}_{button}" for (button,) in wanted_lists(buttons, x, y))

    def what(self) -> str:
        """Return a text for its controls."""
        return self.dpad

    def source(self, window: Window, seat: Seat) -> Source:  # noqa: ARG002
        """Return the source that a sampler reads."""
        right, left, up, down = ((f"{seat.own(self.dpad)}_{button}",) for button in ("right", "left", "up", "down"))
        return KeysSource(right, left, up, down, self.opposites)


class StickBind(Moving, Tilted, Centred):
    """A stick as a source of `move`."""

    stick: StickName = entry("Stick that moves.", example="pad.left_stick")

    def controls(self) -> list[str]:
        """Return its controls."""
        return [f"{self.stick}.x", f"{self.stick}.y"]

    def called(self) -> str:
        """Return its name when a mode is measured with it."""
        return self.stick

    def pushes(self, x: float, y: float, window: Window, amount: float = 1.0) -> Pushes | None:  # noqa: ARG002
        """Return the position of the stick: that share of the distance from its rest point to its rim."""
        return [Push(self.stick, self.tilted(math.atan2(x, y), amount), self.centre)]

    def what(self) -> str:
        """Return a text for its controls."""
        return self.stick

    def source(self, window: Window, seat: Seat) -> Source:  # noqa: ARG002
        """Return the source that a sampler reads."""
        return StickSource(seat.own(self.stick))


class MoveAxes(Table):
    """An axis for `x` (right) and one for `y` (forward)."""

    x: AxisName = entry("Axis whose positive side is right.", example="pad.left_stick.x")
    y: AxisName = entry("Axis whose positive side is forward.", example="pad.left_stick.y")


class AxesBind(Moving, Tilted):
    """Two axes as a source of `move`, each with dead zone and curve to itself."""

    axes: MoveAxes = entry(
        "Axes that move, each with a dead zone and curve of its own.",
        example={"x": "pad.left_stick.x", "y": "pad.left_stick.y"},
    )

    def controls(self) -> list[str]:
        """Return its controls."""
        return [self.axes.x, self.axes.y]

    def called(self) -> str:
        """Return its name when a mode is measured with it."""
        return "axes"

    def pushes(self, x: float, y: float, window: Window, amount: float = 1.0) -> Pushes | None:  # noqa: ARG002
        """Return the pushes of the axes."""
        found = [axis_push(name, side * amount) for name, side in ((self.axes.x, x), (self.axes.y, y)) if side]
        pushes = [push for push in found if push]
        return pushes if len(pushes) == len(found) else None

    def what(self) -> str:
        """Return a text for its controls."""
        return f"axes: right {self.axes.x}, forward {self.axes.y}"

    def source(self, window: Window, seat: Seat) -> Source:  # noqa: ARG002
        """Return the source that a sampler reads."""
        return AxesSource(seat.own(self.axes.x), seat.own(self.axes.y))

    def tuning(self, rows: NumberRows) -> SourceTuning:
        """Return the kernels' numbers for it."""
        return super().tuning(rows)._replace(kind=SOURCE_AXES)


class TouchZonesBind(Moving, Ramped):
    """Zones of the touch screen as a source of `move`: a finger anywhere inside is enough."""

    touch_zones: MoveZones = entry("Zones of the touch screen for each direction.", example={"left": ["left edge"]})

    def controls(self) -> list[str]:
        """Return its controls."""
        return [zone_control(name) for names in self.touch_zones.lists().values() for name in names]

    def called(self) -> str:
        """Return its name when a mode is measured with it."""
        return "touch_zones"

    def pushes(self, x: float, y: float, window: Window, amount: float = 1.0) -> Pushes | None:  # noqa: ARG002
        """Return the touch for each direction: the middle of its first zone."""
        firsts = [names[:1] for names in wanted_lists(self.touch_zones.lists(), x, y)]
        if not all(firsts):
            return None
        places = [window.zone_of(names[0]).middle for names in firsts]
        return [Push(f"touch.{finger}", (*at, 1.0), (*at, 0.0)) for finger, at in enumerate(places)]

    def on_one_axis(self) -> bool:
        """Return whether its zones pull along one axis only."""
        return self.touch_zones.on_one_axis()

    def what(self) -> str:
        """Return a text for its controls."""
        # Names of zones are chosen by users, and may be names of directions.
        quoted = {side: tuple(f'"{name}"' for name in names) for side, names in self.touch_zones.lists().items()}
        return f"touch zones: {listed(quoted)}"

    def source(self, window: Window, seat: Seat) -> Source:  # noqa: ARG002
        """Return the source that a sampler reads."""
        zones = self.touch_zones
        lists = (zones.right, zones.left, zones.forward, zones.back)
        return TouchZonesSource(*(tuple(map(window.zone_of, names)) for names in lists))


MIDDLE = Words(
    Word("landing", "where it landed", meaning="The middle is where the thumb lands."),
    Word("zone", "the middle of that zone", meaning="The middle is that of the zone, where a game draws the stick."),
)
PAST_RIM = Words(
    Word("stay", "stays", meaning="The middle stays where it is."),
    Word("drag", "is dragged along", meaning="The middle is dragged along behind the thumb."),
)


class TouchStickBind(Moving, Tilted):
    """A stick under the thumb: about where it lands in the zone, or about the middle of the zone.

    `radius` is a share of the window's height; past it the middle stays where it is, or is dragged along.
    """

    touch_stick: ZoneName = entry("Zone in which a thumb acts as a stick.", example="left half")
    radius: Annotated[float, Field(gt=0.0, le=1.0)] = entry(
        "How far the thumb slides to full tilt: raise it for finer control, lower it for shorter travel.",
        0.12,
        unit="window heights",
    )
    middle: Annotated[str, MIDDLE] = entry(
        "Where the middle of the stick is: where the thumb lands, or in the middle of the zone, so that landing "
        "beside it counts at once.",
        "landing",
    )
    past_rim: Annotated[str, PAST_RIM] = entry(
        "Whether the middle stays where it is as the thumb slides past the rim, or is dragged along.", "stay"
    )
    dead_zone: DeadZone = entry(
        "How much of the slide is ignored near the middle and at the rim.", DeadZone(inner=0.1, outer=1.0)
    )

    def controls(self) -> list[str]:
        """Return its controls."""
        return [zone_control(self.touch_stick)]

    def called(self) -> str:
        """Return its name when a mode is measured with it."""
        return "touch_stick"

    def pushes(self, x: float, y: float, window: Window, amount: float = 1.0) -> Pushes | None:
        """Return where a thumb lands and slides to: from the zone's middle to the stick's rim, within the window."""
        left, top = window.zone_of(self.touch_stick).middle
        away = self.radius * amount / math.hypot(x, y)
        at = min(max(left + x * away / window.aspect_ratio, 0.0), 1.0), min(max(top - y * away, 0.0), 1.0)
        return [Push("touch.0", (left, top, 1.0)), Push("touch.0", (*at, 1.0), (*at, 0.0))]

    def what(self) -> str:
        """Return a text for its controls."""
        away = f"full at {self.radius:g} of the window's height from {MIDDLE.sentence(self.middle)}"
        rim = f"past that the middle {PAST_RIM.sentence(self.past_rim)}"
        return f'thumb landing in "{self.touch_stick}": {away}; {rim}'

    def source(self, window: Window, seat: Seat) -> Source:  # noqa: ARG002
        """Return the source that a sampler reads."""
        zone = window.zone_of(self.touch_stick)
        drag, fixed = self.past_rim == "drag", self.middle == "zone"
        return TouchStickSource(zone, self.radius, drag, window.aspect_ratio, zone.middle if fixed else None)


class PointerBind(Moving, Tilted):
    """The pointer, measured from the middle of the window, while one of `while_held` is held, or always if that is
    empty.

    `reach` is the share of the window's height that gives full speed.
    """

    pointer: Literal["pointer.at"] = entry(
        "The pointer, measured from the middle of the window.", example="pointer.at"
    )
    while_held: Annotated[tuple[SwitchName, ...], Field(strict=False)] = entry(
        "Controls of which one must be held for the pointer to move the body; empty if it always does.",
        ("mouse.left",),
    )
    reach: Annotated[float, Field(gt=0.0, le=1.0)] = entry(
        "Distance from the middle of the window that gives full speed: raise it for finer control, "
        "lower it for shorter travel.",
        0.4,
        unit="window heights",
    )
    dead_zone: DeadZone = entry(
        "How much of the distance is ignored near the middle and at full reach.", DeadZone(inner=0.1, outer=1.0)
    )
    curve: Curve = entry("Response curve: how the distance past the dead zone becomes an amount.", LINEAR_CURVE)

    def controls(self) -> list[str]:
        """Return its controls."""
        return [self.pointer, *self.while_held]

    def called(self) -> str:
        """Return its name when a mode is measured with it."""
        return "pointer"

    def pushes(self, x: float, y: float, window: Window, amount: float = 1.0) -> Pushes | None:
        """Return where to point, and what to hold at the same time."""
        away = self.reach * amount / math.hypot(x, y)
        at = min(max(0.5 + x * away / window.aspect_ratio, 0.0), 1.0), min(max(0.5 - y * away, 0.0), 1.0)
        held = [find_switch(name).name for name in self.while_held[:1]]
        return [Push("pointer.at", at, at if held else (0.5, 0.5)), *pressed(held)]

    def what(self) -> str:
        """Return a text for its controls."""
        when = f" while {' or '.join(self.while_held)} is held" if self.while_held else ""
        return f"pointer from the window's middle{when}, full at {self.reach:g} of its height"

    def source(self, window: Window, seat: Seat) -> Source:
        """Return the source that a sampler reads."""
        return PointerSource(seat.all_own(self.while_held), self.reach, window.aspect_ratio)


class HandsBind(Moving, Tilted):
    """Walking by swinging the hands, all the time or only those that squeeze; a hand's swing is full at
    `full_swing_m_s`.

    Both hands together give full speed, `both_boost` times as much as one. A hand's velocity is measured relative to
    the head and smoothed by `steady_half_life_s`, so that steps do not count as swings and trembling cancels out.
    The amount holds while a hand reverses, and halves every `release_half_life_s` once swings get slower or end.
    """

    hands: Annotated[
        tuple[Literal["hand.left", "hand.right"], ...], Field(strict=False, min_length=1, max_length=2)
    ] = entry("Hands that walk by swinging.", example=["hand.left", "hand.right"])
    squeezed: bool = entry("Whether a hand counts only while it squeezes.", True)
    full_swing_m_s: Annotated[float, Field(gt=0.0, le=100.0)] = entry(
        "Speed at which a hand's swing is full: raise it if players walk too fast, lower it if they tire.", 1.8
    )
    both_boost: Annotated[float, Field(ge=1.0, le=4.0)] = entry(
        "How many times as much two hands give as one: raise it to slow down a single hand, lower it to speed it up.",
        1.5,
        unit="times",
    )
    steady_half_life_s: Seconds = entry(
        "Half-life of the smoothing of a hand's velocity: raise it if a trembling hand walks, lower"
        " it for a quicker start.",
        0.06,
    )
    release_half_life_s: Seconds = entry(
        "Half-life in which the walk fades once swings get slower or end: raise it for an even pace, "
        "lower it for a quicker stop.",
        0.18,
    )
    dead_zone: DeadZone = entry(
        "How much of a slow swing is ignored, and what counts as a full one.", DeadZone(inner=0.2, outer=1.0)
    )
    curve: Curve = entry("Response curve: how the swing past the dead zone becomes an amount.", LINEAR_CURVE)

    @field_validator("hands")
    @classmethod
    def _each_once(cls, hands: tuple[str, ...]) -> tuple[str, ...]:
        if len({*hands}) < len(hands):
            raise own_fault(f'"{hands[0]}" is listed twice; a hand swings once')
        return hands

    def idle_fields(self) -> Iterator[tuple[str, str]]:
        """Yield the fields that are written but have no effect, and why."""
        yield from super().idle_fields()
        if len(self.hands) == 1 and "both_boost" in self.model_fields_set:
            yield "both_boost", "does nothing with one hand"

    def controls(self) -> list[str]:
        """Return its controls."""
        return [f"{hand}.{part}" for hand in self.hands for part in ("pose", "squeeze")]

    def called(self) -> str:
        """Return its name when a mode is measured with it."""
        return "hands"

    def pushes(self, x: float, y: float, window: Window, amount: float = 1.0) -> Pushes | None:  # noqa: ARG002
        """Return None: hands swing, and holding them anywhere has no effect."""
        return None

    def what(self) -> str:
        """Return a text for its controls."""
        words = f"{' and '.join(self.hands)} swung{' while squeezed' if self.squeezed else ''}"
        words += f", full at {self.full_swing_m_s:g} m/s"
        words += f", {self.both_boost:g} times as much with both" if len(self.hands) > 1 else ""
        return f"{words}, slowing with a half-life of {self.release_half_life_s:g} s"

    def source(self, window: Window, seat: Seat) -> Source:  # noqa: ARG002
        """Return the source that a sampler reads."""
        return HandsSource(self.hands, self.squeezed)

    def tuning(self, rows: NumberRows) -> SourceTuning:
        """Return the kernels' numbers for it."""
        swing = SwingTuning(
            self.full_swing_m_s,
            self.both_boost if len(self.hands) > 1 else 1.0,
            self.steady_half_life_s,
            self.release_half_life_s,
            self.stick_tuning(rows),
        )
        return PLAIN_SOURCE._replace(kind=SOURCE_SWING, swing=swing)


MoveBind = Annotated[
    Annotated[KeysBind, Tag("keys")]
    | Annotated[DpadBind, Tag("dpad")]
    | Annotated[StickBind, Tag("stick")]
    | Annotated[AxesBind, Tag("axes")]
    | Annotated[TouchZonesBind, Tag("touch_zones")]
    | Annotated[TouchStickBind, Tag("touch_stick")]
    | Annotated[PointerBind, Tag("pointer")]
    | Annotated[HandsBind, Tag("hands")],
    Discriminator(by_key("keys", "dpad", "stick", "axes", "touch_zones", "touch_stick", "pointer", "hands")),
]
