"""Reads the downs and ups of a press from its bindings: each once, in order, however short."""

from collections.abc import Sequence

from wendonic.devices.controls import CONTROLS, Device, find_kind
from wendonic.devices.sources.names import find_switch
from wendonic.devices.sources.presses import (
    TOWARDS,
    PressBind,
    StickBind,
    SwitchBind,
    UnlessBind,
    WheelBind,
    ZoneBind,
)
from wendonic.devices.sources.touch import TOUCH_SLOTS, landed_in
from wendonic.devices.state import Change

MOST_EDGES = 10_000
"""Most downs and ups of one press per tick; a game that stops ticking for a day has more of them."""

WHEEL_SLOT = CONTROLS["mouse.wheel"].slot


class _Switches:
    """A key or button, or several that are down together."""

    __slots__ = ("_above", "_held", "_release", "device", "is_down", "watched")

    def __init__(self, bind: SwitchBind) -> None:
        controls = [find_switch(name) for name in bind.controls]
        self.watched = tuple(control.slot for control in controls)
        self.device: Device = controls[-1].device or "keys"
        self._held = dict.fromkeys(self.watched, False)
        self._above = bind.above
        self._release = bind.release
        self.is_down = False

    def begin(self, values: Sequence[float], landings: Sequence[tuple[float, float]]) -> None:  # noqa: ARG002
        for slot in self.watched:
            # Between the two limits it keeps its state, which `take` has followed.
            self._held[slot] = values[slot] >= self._above or (self._held[slot] and values[slot] > self._release)
        self.is_down = all(self._held.values())

    def take(self, change: Change) -> int:
        level = change.value[0]
        # Between the two limits a trigger keeps its state.
        held = self._held[change.slot] = level > self._release if self._held[change.slot] else level >= self._above
        self.is_down = held and all(self._held.values())
        return 0


class _ZonePress:
    """A finger that landed in a zone, until it is lifted."""

    __slots__ = ("_inside", "_known", "_zone", "is_down")

    watched = TOUCH_SLOTS
    device: Device = "touch"

    def __init__(self, bind: ZoneBind) -> None:
        self._zone = bind.zone
        self._known: set[int] = set()
        self._inside: set[int] = set()
        self.is_down = False

    def begin(self, values: Sequence[float], landings: Sequence[tuple[float, float]]) -> None:
        self._known = {slot for slot in TOUCH_SLOTS if values[slot + 2] > 0.0}
        self._inside = set(landed_in(self._zone, values, landings))
        self.is_down = bool(self._inside)

    def take(self, change: Change) -> int:
        slot, (x, y, pressure), _, _ = change
        if pressure == 0.0:
            self._known.discard(slot)
            self._inside.discard(slot)
        elif slot not in self._known:
            self._known.add(slot)
            if self._zone.holds(x, y):
                self._inside.add(slot)
        self.is_down = bool(self._inside)
        return 0


class _TiltedStick:
    """A stick tilted one way."""

    __slots__ = ("_above", "_axis", "_release", "_sign", "device", "is_down", "watched")

    def __init__(self, bind: StickBind) -> None:
        control = find_kind(bind.stick, "stick")
        self.watched = (control.slot,)
        self.device: Device = control.device or "pad"
        self._axis, self._sign = TOWARDS[bind.towards]
        self._above = bind.above
        self._release = bind.release
        self.is_down = False

    def begin(self, values: Sequence[float], landings: Sequence[tuple[float, float]]) -> None:  # noqa: ARG002
        self._tilt(values[self.watched[0] + self._axis])

    def take(self, change: Change) -> int:
        self._tilt(change.value[self._axis])
        return 0

    def _tilt(self, level: float) -> None:
        tilt = level * self._sign
        # Between the two limits it keeps its state.
        self.is_down = tilt > self._release if self.is_down else tilt >= self._above


class _WheelNotches:
    """Whole notches of the wheel in one direction; finer steps add up to notches."""

    __slots__ = ("_rest", "_sign", "is_down")

    watched = (WHEEL_SLOT,)
    device: Device = "mouse"

    def __init__(self, bind: WheelBind) -> None:
        self._sign = 1.0 if bind.towards else -1.0
        self._rest = 0.0
        self.is_down = False

    def begin(self, values: Sequence[float], landings: Sequence[tuple[float, float]]) -> None:  # noqa: ARG002
        self._rest = 0.0

    def take(self, change: Change) -> int:
        turned = change.value[0] * self._sign
        # Turning back begins a new notch.
        self._rest = self._rest + turned if turned > 0.0 else 0.0
        notches = int(self._rest)
        self._rest -= notches
        return notches


class PressReader:
    """Counts how often a press goes down and up, over all its bindings; a control that goes down while one of its
    `UnlessBind` is held counts once that is released.

    `down` says whether one of them is held, `edges` how often that has changed since `clear`, `device` which device
    pressed it last. `lost` is 1 if the last change to up was a loss, 2 if a loss came after it while nothing was
    held.
    """

    __slots__ = (
        "_asleep",
        "_binds",
        "_blocking",
        "_by_slot",
        "_down_count",
        "_unless",
        "device",
        "edges",
        "lost",
        "watched",
    )

    def __init__(self, binds: Sequence[PressBind]) -> None:
        """Resolve every control of the bindings."""
        self._binds: list[_Switches | _ZonePress | _WheelNotches | _TiltedStick] = []
        self._unless: tuple[int, ...] = ()
        self._blocking: set[int] = set()
        for bind in binds:
            match bind:
                case SwitchBind():
                    self._binds.append(_Switches(bind))
                case ZoneBind():
                    self._binds.append(_ZonePress(bind))
                case WheelBind():
                    self._binds.append(_WheelNotches(bind))
                case StickBind():
                    self._binds.append(_TiltedStick(bind))
                case UnlessBind(controls=controls):
                    self._unless = tuple(find_switch(name).slot for name in controls)
        self._by_slot: dict[int, list[int]] = {}
        for index, made in enumerate(self._binds):
            for slot in made.watched:
                self._by_slot.setdefault(slot, []).append(index)
        for slot in self._unless:
            self._by_slot.setdefault(slot, [])
        self.watched = tuple(self._by_slot)
        self._down_count = 0
        self._asleep: set[int] = set()
        self.edges = 0
        self.lost = 0
        self.device: Device | None = None

    @property
    def down(self) -> bool:
        """Whether one of its bindings is held."""
        return self._down_count > 0

    def clear(self) -> None:
        """Forget the edges once they have been handed out."""
        self.edges = 0
        self.lost = 0
        self.device = None

    def begin(self, values: Sequence[float], landings: Sequence[tuple[float, float]], carried: bool) -> None:
        """Begin with what is held: it continues if the press is `carried` over, otherwise it counts after it has been
        released.
        """
        self.clear()
        self._down_count = 0
        self._asleep = set()
        self._blocking = {slot for slot in self._unless if values[slot] > 0.5}
        for index, bind in enumerate(self._binds):
            bind.begin(values, landings)
            if bind.is_down:
                if carried:
                    self._down_count += 1
                else:
                    self._asleep.add(index)
        if carried and self._down_count == 0:
            self.edges = 1

    def note(self, change: Change) -> None:
        """Follow one change of a watched control while another mode is active; it does not count."""
        self._block(change)
        for index in self._by_slot[change.slot]:
            self._binds[index].take(change)

    def take(self, change: Change) -> None:
        """Follow one change of a watched control."""
        self._block(change)
        for index in self._by_slot[change.slot]:
            bind = self._binds[index]
            was_down = bind.is_down
            notches = bind.take(change)
            if notches and self._down_count == 0 and not self._blocking:
                self.edges = min(self.edges + 2 * notches, MOST_EDGES)
                self.lost = 0
                self.device = bind.device
            if bind.is_down == was_down:
                if change.lost and self._down_count == 0 and self.lost == 0:
                    self.lost = 2
                continue
            if index in self._asleep:
                # The last change was to up.
                self._asleep.discard(index)
            elif bind.is_down and self._blocking:
                self._asleep.add(index)
            elif bind.is_down:
                self._down_count += 1
                self.device = bind.device
                if self._down_count == 1:
                    self.edges += 1
            else:
                self._down_count -= 1
                if self._down_count == 0:
                    self.edges += 1
                    self.lost = int(change.lost)

    def _block(self, change: Change) -> None:
        if change.slot in self._unless:
            if change.value[0] > 0.5:
                self._blocking.add(change.slot)
            else:
                self._blocking.discard(change.slot)
