"""Fingers on a touch screen: zones, a stick under the thumb, a drag."""

import math
from collections.abc import MutableSequence, Sequence
from dataclasses import dataclass
from typing import ClassVar

from wendonic.devices.controls import CONTROLS, TOUCHES, Device
from wendonic.devices.sources.base import Reader, Source
from wendonic.devices.sources.zone import Zone
from wendonic.devices.state import Change, DeviceState

FIRST_TOUCH = CONTROLS["touch.0"]
WINDOW_SLOT = CONTROLS["window"].slot
TOUCH_SLOTS = tuple(CONTROLS[f"touch.{finger}"].slot for finger in range(TOUCHES))


def landed_in(zone: Zone, values: Sequence[float], landings: Sequence[tuple[float, float]]) -> list[int]:
    """Return the slots of the touches that are down in the held state `values` and landed in the zone."""
    return [
        slot for finger, slot in enumerate(TOUCH_SLOTS) if values[slot + 2] > 0.0 and zone.holds(*landings[finger])
    ]


@dataclass(frozen=True, slots=True)
class TouchZonesSource(Source):
    """Zones of the touch screen for each direction; a finger anywhere inside is enough."""

    right: Sequence[Zone] = ()
    left: Sequence[Zone] = ()
    forward: Sequence[Zone] = ()
    back: Sequence[Zone] = ()

    width: ClassVar[int] = 4

    def device(self) -> Device:
        """Return the device that it stands for."""
        return "touch"

    def reader(self, start: int) -> Reader:
        """Return what reads it."""
        return ZoneLists(self, start)


@dataclass(frozen=True, slots=True)
class TouchStickSource(Source):
    """A stick under the thumb, around where it lands in the zone, or around a fixed `middle`.

    `radius` is a share of the window's height, `aspect_ratio` the window's width over its height until the game says
    what it is. Past the rim the middle stays (`drag` False) or is dragged along.
    """

    zone: Zone
    radius: float
    drag: bool
    aspect_ratio: float
    middle: tuple[float, float] | None = None

    def device(self) -> Device:
        """Return the device that it stands for."""
        return "touch"

    def reader(self, start: int) -> Reader:
        """Return what reads it."""
        return ThumbStick(self, start)


@dataclass(frozen=True, slots=True)
class TouchDragSource(Source):
    """How far a finger that landed in the zone moves, in window widths; `aspect_ratio` as of a `TouchStickSource`."""

    zone: Zone
    aspect_ratio: float

    def device(self) -> Device:
        """Return the device that it stands for."""
        return "touch"

    def reader(self, start: int) -> Reader:
        """Return what reads it."""
        return FingerDrag(self, start)


class ZoneLists:
    """The zones of `move`: the directions with a finger in them."""

    __slots__ = ("_changes_seen", "_lists", "_start")

    def __init__(self, source: TouchZonesSource, start: int) -> None:
        """Write into the row from `start` on."""
        self._lists: tuple[Sequence[Zone], ...] = (source.right, source.left, source.forward, source.back)
        self._start = start
        self._changes_seen = -1

    watched = ()

    def begin(self, values: Sequence[float], landings: Sequence[tuple[float, float]]) -> None:  # noqa: ARG002
        """Nothing is carried over."""
        self._changes_seen = -1

    def take(self, change: Change) -> None:
        """Do nothing: the positions of the fingers are enough."""

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        """Write 0 or 1 for each direction."""
        if state.touch_changes != self._changes_seen:
            self._changes_seen = state.touch_changes
            values = state.values
            fingers = [(values[slot], values[slot + 1]) for slot in TOUCH_SLOTS if values[slot + 2] > 0.0]
            for index, zones in enumerate(self._lists, self._start):
                row[index] = float(any(zone.holds(x, y) for zone in zones for x, y in fingers))
        return False


class ThumbStick:
    """A stick whose middle is where the thumb landed, or always the same; one thumb at a time."""

    __slots__ = ("_aspect_ratio", "_known", "_middle", "_source", "_start", "_thumb", "_tilt")

    watched = (*TOUCH_SLOTS, WINDOW_SLOT)

    def __init__(self, source: TouchStickSource, start: int) -> None:
        """Write into the row from `start` on."""
        self._source = source
        self._start = start
        self._known: set[int] = set()
        self._aspect_ratio = source.aspect_ratio
        self._release()

    def _release(self) -> None:
        self._thumb = -1
        self._middle = (0.0, 0.0)
        self._tilt = (0.0, 0.0)

    def begin(self, values: Sequence[float], landings: Sequence[tuple[float, float]]) -> None:
        """Continue with a thumb that is on the screen already."""
        self._release()
        self._aspect_ratio = values[WINDOW_SLOT] or self._source.aspect_ratio
        self._known = {slot for slot in TOUCH_SLOTS if values[slot + 2] > 0.0}
        for slot in landed_in(self._source.zone, values, landings)[:1]:
            self._thumb = slot
            self._middle = self._source.middle or landings[TOUCH_SLOTS.index(slot)]
            self._point(values[slot], values[slot + 1])

    def take(self, change: Change) -> None:
        """Follow the thumb."""
        if change.slot == WINDOW_SLOT:
            self._aspect_ratio = change.value[0] or self._source.aspect_ratio
            return
        slot, (x, y, pressure), _, _ = change
        landing = slot not in self._known
        if pressure == 0.0:
            self._known.discard(slot)
            if slot == self._thumb:
                self._release()
            return
        self._known.add(slot)
        if landing and self._thumb < 0 and self._source.zone.holds(x, y):
            self._thumb = slot
            self._middle = self._source.middle or (x, y)
        if slot == self._thumb:
            self._point(x, y)

    def _point(self, x: float, y: float) -> None:
        radius, aspect_ratio = self._source.radius, self._aspect_ratio
        middle_x, middle_y = self._middle
        right = (x - middle_x) * aspect_ratio / radius
        forward = (middle_y - y) / radius
        length = math.hypot(right, forward)
        if length > 1.0:
            right /= length
            forward /= length
            if self._source.drag:
                self._middle = (x - right * radius / aspect_ratio, y + forward * radius)
        self._tilt = (right, forward)

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:  # noqa: ARG002
        """Write how far the stick is tilted, right and forward."""
        row[self._start], row[self._start + 1] = self._tilt
        return False


class FingerDrag:
    """How far the fingers that landed in the zone went since the last tick, in window widths, right and up."""

    __slots__ = ("_aspect_ratio", "_at", "_known", "_right", "_source", "_start", "_up")

    watched = (*TOUCH_SLOTS, WINDOW_SLOT)

    def __init__(self, source: TouchDragSource, start: int) -> None:
        """Write into the row from `start` on."""
        self._source = source
        self._start = start
        self._at: dict[int, tuple[float, float]] = {}
        self._known: set[int] = set()
        self._aspect_ratio = source.aspect_ratio
        self._right = self._up = 0.0

    def begin(self, values: Sequence[float], landings: Sequence[tuple[float, float]]) -> None:
        """Continue from the positions of the fingers."""
        self._aspect_ratio = values[WINDOW_SLOT] or self._source.aspect_ratio
        self._known = {slot for slot in TOUCH_SLOTS if values[slot + 2] > 0.0}
        self._at = {slot: (values[slot], values[slot + 1]) for slot in landed_in(self._source.zone, values, landings)}
        self._right = self._up = 0.0

    def take(self, change: Change) -> None:
        """Add the motion of one finger, up to where it is lifted."""
        if change.slot == WINDOW_SLOT:
            self._aspect_ratio = change.value[0] or self._source.aspect_ratio
            return
        slot, (x, y, pressure), _, _ = change
        # A lost finger stays where it was, which adds nothing.
        if slot in self._at:
            was_x, was_y = self._at[slot]
            self._right += x - was_x
            self._up += (was_y - y) / self._aspect_ratio
            self._at[slot] = (x, y)
        if pressure == 0.0:
            self._at.pop(slot, None)
            self._known.discard(slot)
        elif slot not in self._known:
            self._known.add(slot)
            if self._source.zone.holds(x, y):
                self._at[slot] = (x, y)

    def discard(self) -> None:
        """Forget the motion that no tick has taken yet."""
        self._right = self._up = 0.0

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:  # noqa: ARG002
        """Write the motion, once."""
        row[self._start], row[self._start + 1] = self._right, self._up
        moved = self._right != 0.0 or self._up != 0.0
        self._right = self._up = 0.0
        return moved
