"""Synthetic play for a mode: every control that it binds is used, slowly and quickly, alone and together."""

import math
import random
from collections.abc import Iterator, Sequence
from dataclasses import fields, is_dataclass
from typing import Any

from wendonic.devices.controls import CONTROLS, Control
from wendonic.devices.event import Event
from wendonic.devices.keys import KEY_CODES
from wendonic.devices.sources.base import Follower, Source
from wendonic.devices.sources.gyro import GyroSource
from wendonic.devices.sources.mode import ModeSources
from wendonic.devices.sources.zone import Zone

HOLDS = (1, 1, 2, 4, 9, 20, 45, 90)
LONG_HOLDS = (60, 90, 180)
"""Numbers of ticks for which something is held, and for which it is held during long pauses."""


def controls_of(sources: ModeSources) -> list[Control]:
    """Return every control that a mode listens to."""
    found: dict[str, None] = {}

    def take(value: Any, found: dict[str, None]) -> None:
        if isinstance(value, Zone):
            found.update(dict.fromkeys(("touch.0", "touch.1")))
        elif isinstance(value, str):
            stem = value.rpartition(".")[0]
            for name in (value, f"key.{value}" if value in KEY_CODES else "", stem):
                if name in CONTROLS:
                    found[name] = None
            if value in ("hand.left", "hand.right"):
                found.update(dict.fromkeys((f"{value}.pose", f"{value}.squeeze", "head.pose")))
        elif is_dataclass(value):
            if "Pointer" in type(value).__name__:
                found["pointer.at"] = None
            if isinstance(value, GyroSource):
                found[f"{value.control.rpartition('.')[0]}.accel"] = None
            own: dict[str, None] = {}
            for one in fields(value):
                take(getattr(value, one.name), own)
            if isinstance(value, Source) and not own:
                own = watched_by(value)
            found.update(own)
        elif isinstance(value, tuple | list):
            name = type(value).__name__
            if name == "PointedGoal":
                found["pointer.at"] = None
            if name == "WheelBind":
                found["mouse.wheel"] = None
            if name == "UnlessBind" or not isinstance(value, str):
                for part in value:
                    take(part, found)

    take(sources, found)
    if sources.tracks or sources.points:
        found.update(dict.fromkeys(("head.pose", "hand.left.pose", "hand.right.pose")))
    return [CONTROLS[name] for name in found]


def watched_by(source: Source) -> dict[str, None]:
    """Return the names of the controls whose changes a source follows, if its own fields name none."""
    reader = source.reader(0)
    slots = reader.watched if isinstance(reader, Follower) else ()
    return {control.name: None for control in CONTROLS.values() if control.slot in slots}


def zones_of(sources: Any) -> list[tuple[float, float]]:
    """Return the middle of every zone of the window that a mode listens to."""
    if isinstance(sources, Zone):
        return [sources.middle]
    if is_dataclass(sources):
        return [place for one in fields(sources) for place in zones_of(getattr(sources, one.name))]
    return [place for part in sources for place in zones_of(part)] if isinstance(sources, tuple | list) else []


class Hands:
    """Uses controls tick by tick, each in the same manner for a while."""

    def __init__(
        self,
        controls: Sequence[Control],
        marks: Sequence[float],
        zones: Sequence[tuple[float, float]],
        rng: random.Random,
    ) -> None:
        """Begin with nothing held; `marks` are tilts that matter, `zones` places to touch. Now and then all switches
        are pressed and released together, and now and then everything stays as it is for a long time.
        """
        self.rng = rng
        self.together = rng.random() < 0.3
        slow = rng.random() < 0.25
        self.ways = {control.name: _Way(control, marks, zones, slow, rng) for control in controls}

    def events(self, active: Sequence[str], t: float, dt: float) -> Iterator[Event]:
        """Yield the events of the active controls in one tick; the others are released."""
        first = next((way for name, way in self.ways.items() if name in active), None)
        for name, way in self.ways.items():
            if self.together and first is not None and way is not first and way.control.kind in ("key", "button"):
                way.left, way.now = first.left + 1, first.now
            yield from way.events(name in active, t, dt)


class _Way:
    """How one control is used for a while."""

    def __init__(
        self,
        control: Control,
        marks: Sequence[float],
        zones: Sequence[tuple[float, float]],
        slow: bool,
        rng: random.Random,
    ) -> None:
        self.control, self.marks, self.zones, self.slow, self.rng = control, marks, zones, slow, rng
        self.left = 0
        self.now = 0.0
        self.held = False
        self.angle = self.speed = self.size = 0.0
        self.phase = rng.uniform(0.0, 6.0)
        self.place = [rng.uniform(0.2, 0.8), rng.uniform(0.2, 0.8)]

    def events(self, active: bool, t: float, dt: float) -> Iterator[Event]:
        name, rng = self.control.name, self.rng
        if not active:
            if self.held:
                self.held = False
                yield from self.release(t)
            return
        self.held = True
        self.left -= 1
        if self.left <= 0:
            self.change()
        self.angle += self.speed * dt
        self.phase += rng.uniform(3.0, 14.0) * dt
        match self.control.kind:
            case "key":
                yield Event(t, name, float(self.now >= 0.5))
                if rng.random() < 0.08:
                    yield Event(t, name, float(self.now < 0.5))
            case "button":
                yield Event(t, name, self.now if "trigger" in name or "squeeze" in name else float(self.now >= 0.5))
            case "stick":
                # A stick that is held straight is at exactly 0 across, unlike sin(pi).
                x, y = (
                    self.size * share if abs(share) > 1e-12 else 0.0
                    for share in (math.sin(self.angle), -math.cos(self.angle))
                )
                yield Event(t, name, (x, y))
            case "counts":
                if self.size:
                    step = self.size**3 * 4000.0 * dt
                    yield Event(t, name, (round(step * math.sin(self.angle)), round(step * math.cos(self.angle))))
            case "wheel":
                if rng.random() < 0.2:
                    yield Event(t, name, rng.choice((-1.0, 1.0, 2.0, 0.5)))
            case "rates" if self.size == 0.0 and self.now > 0.5:
                yield Event(t, name, (0.0, 0.0, 0.0))
            case "rates":
                still = 9.8 if name.endswith("accel") and self.size < 0.9 else 0.0
                big = self.size * (0.001 if self.now < 0.5 else 3.0)
                rates = [big * math.sin(self.phase + axis) for axis in range(3)]
                yield Event(t, name, (rates[0], rates[1] + still, rates[2]))
            case "pointer":
                self.wander(dt)
                yield Event(t, name, tuple(self.place))
            case "touch":
                self.wander(dt)
                if self.zones and self.left in (1, 3) and self.now > 0.5:
                    # Lifted, and put into a zone twice in a row, like a double tap.
                    self.place = list(rng.choice(self.zones))
                    yield Event(t, name, (*self.place, 0.0))
                yield Event(t, name, (*self.place, float(self.now > 0.0)))
            case "pose":
                yield Event(t, name, self.pose())

    def change(self) -> None:
        """Begin to use it in another manner."""
        rng = self.rng
        self.left = rng.choice(LONG_HOLDS if self.slow else HOLDS)
        turned = self.angle + math.pi
        self.angle = rng.choice((rng.uniform(-math.pi, math.pi), rng.randrange(32) * math.pi / 16, turned))
        self.speed = 0.0 if self.slow else rng.choice((0.0, 0.0, rng.uniform(-9.0, 9.0)))
        mark = rng.choice(self.marks)
        self.size = rng.choice((0.0, rng.uniform(0.0, 0.3), rng.uniform(0.3, 1.0), mark, 1.0, 1.0, 1.0))
        self.now = rng.choice((0.0, 1.0, 1.0, rng.random()))

    def wander(self, dt: float) -> None:
        """Move a place around the window; now and then it jumps."""
        if self.rng.random() < 0.03:
            self.place = [self.rng.random(), self.rng.random()]
        for axis, share in enumerate((math.sin(self.angle), math.cos(self.angle))):
            self.place[axis] = min(max(self.place[axis] + self.size * share * dt, 0.0), 1.0)

    def pose(self) -> tuple[float, ...]:
        """Return the pose of a head that looks around, or of a hand that swings."""
        head = self.control.name.startswith("head")
        reach = 0.15 if head else 0.35 * self.size
        swing = reach * math.sin(self.phase)
        yaw = 0.5 * self.angle
        pitch = 0.6 * math.sin(0.3 * self.phase)
        quaternion = (
            math.cos(yaw / 2) * math.sin(pitch / 2),
            math.sin(yaw / 2) * math.cos(pitch / 2),
            -math.sin(yaw / 2) * math.sin(pitch / 2),
            math.cos(yaw / 2) * math.cos(pitch / 2),
        )
        place = (
            (0.2 * math.sin(0.1 * self.phase), 1.7 + 0.1 * swing, swing)
            if head
            else (0.2, 1.0 + 0.5 * swing, -0.3 + swing)
        )
        return (*place, *quaternion)

    def release(self, t: float) -> Iterator[Event]:
        """Yield the events that return it to rest."""
        name = self.control.name
        match self.control.kind:
            case "key" | "button":
                yield Event(t, name, 0.0)
            case "stick":
                yield Event(t, name, (0.0, 0.0))
            case "rates":
                yield Event(t, name, (0.0, 9.8 if name.endswith("accel") else 0.0, 0.0))
            case "touch":
                yield Event(t, name, (*self.place, 0.0))
