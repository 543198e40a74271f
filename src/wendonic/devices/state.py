"""The state of all controls of every device."""

import logging
import math
from collections import Counter
from collections.abc import Sequence
from typing import Any, NamedTuple

from wendonic.devices.controls import BY_SLOT, CONTROLS, RELEASES, STATE_WIDTH, TOUCHES, Control, find_control
from wendonic.devices.event import COUNT_WORDS, Event, Value, control_and_value
from wendonic.errors import ControlError

RELEASED_BY: dict[str, tuple[Control, ...]] = {
    loss: tuple(control for control in BY_SLOT.values() if control.unit in units) for loss, units in RELEASES.items()
}
"""Controls that a loss sets back to rest."""

_AT_REST = [0.0] * STATE_WIDTH
for _control in BY_SLOT.values():
    _AT_REST[_control.slot : _control.slot + _control.width] = [_control.rest] * _control.width

_TOUCH_SLOT = CONTROLS["touch.0"].slot

HALF_WAY = 0.5
"""A key or button is down above this value."""

MOST_CHANGES_KEPT = 20_000
"""Most changes that are kept for one tick; a game that stops ticking for a day must not fill the memory."""


class Change(NamedTuple):
    """A new value of a watched control: its slot, its numbers, the numbers before, and whether a loss caused it."""

    slot: int
    value: tuple[float, ...]
    was: tuple[float, ...]
    lost: bool


class DeviceState:
    """The held state of every device and of the view: events in, levels and displacements out.

    Levels stay until changed: each key is released only by its own `up`. A loss (`lost.focus`, `lost.pad`, …)
    releases exactly what that device held; the view stays. Displacements (`mouse.move`, `mouse.wheel`) add up until a
    tick takes them. A value outside its control's range is clamped and counted in `clamped`, and the first value of a
    control that is far outside is logged; a value that is not finite is refused and counted in `refused`, and the
    last good one stays.

    >>> state = DeviceState()
    >>> state.apply(Event(0.0, "key.KeyW", 1))
    >>> state.apply(Event(0.1, "pad.left_stick", (0.25, -3.0)))
    >>> state.value("key.KeyW"), state.value("pad.left_stick"), dict(state.clamped)
    (1.0, (0.25, -1.0), {'pad.left_stick': 1})
    >>> state.apply(Event(0.2, "lost.focus", 1))
    >>> state.held()
    ()
    """

    __slots__ = (
        "_far_beyond",
        "changes",
        "clamped",
        "counts_end",
        "kept",
        "landings",
        "order",
        "overrun",
        "placed",
        "refused",
        "touch_changes",
        "values",
        "view_changes",
        "watched",
    )

    def __init__(self) -> None:
        """Begin with everything released and the view at 0, 0."""
        self.values: list[float] = _AT_REST.copy()
        self.changes = 0
        """Grows with every event that changes something; a sample is stale once this has changed."""
        self.touch_changes = 0
        """The same for touches only."""
        self.view_changes = 0
        """Grows whenever a view is set, even to the same value."""
        self.placed: set[int] = set()
        """Slots of the places that have been set."""
        self.landings: list[tuple[float, float]] = [(0.0, 0.0)] * TOUCHES
        """Where each touch landed last, in window fractions."""
        self.order: dict[int, int] = {}
        """Numbers of keys and buttons in the order in which they went down, by slot."""
        self.watched: frozenset[int] = frozenset()
        """Slots of the controls whose every change is kept, in order, until `take_kept`."""
        self.kept: list[Change] = []
        self.overrun = False
        """Whether more changes came than can be kept."""
        self.counts_end = 0
        """How many of the kept changes, those before `discard_counts`, no longer count as displacements."""
        self.clamped: Counter[str] = Counter()
        self.refused: Counter[str] = Counter()
        self._far_beyond: set[str] = set()

    def apply(self, event: Event) -> None:
        """Take one event; its time is ignored. Raises `ControlError` for an unknown control, a value that does not
        fit, and anything that is not an event.
        """
        control, value = control_and_value(event)
        self.set(control, value)

    def set(self, control: Control, value: Value | bool) -> None:
        """Give `control` the `value`, as `apply` does."""
        raw: Any = value
        try:
            if control.width == 1:
                self._set_number(control, raw)
            elif control.width == 2:
                self._set_pair(control, *raw)
            elif control.width:
                self._set_numbers(control, *raw)
            elif control.kind == "loss":
                for held in RELEASED_BY[control.name]:
                    self._release(held)
                self.changes += 1
        except (OverflowError, TypeError, ValueError):
            numbers = "a number" if control.width == 1 else f"{COUNT_WORDS[control.width]} numbers"
            raise ControlError(f"{control.name}: found {value!r}; allowed: {numbers}") from None

    def report(self, control: Control, value: Value) -> None:
        """Take a report of the game about the body: ignored here, but kept by a state that is recorded."""

    def _set_number(self, control: Control, level: float) -> None:
        # A number that is not finite is in no range.
        if not control.low <= level <= control.high:
            if not math.isfinite(level):
                self.refused[control.name] += 1
                return
            self._note_clamped(control, level)
            level = min(max(level, control.low), control.high)
        if control.kind == "wheel":
            self._displace(control, (float(level),))
            return
        slot = control.slot
        was = self.values[slot]
        if was != level:
            self.values[slot] = float(level)
            self.changes += 1
            if level > HALF_WAY >= was:
                self.order[slot] = self.changes
            if slot in self.watched:
                self._keep(Change(slot, (float(level),), (was,), False))

    def _set_pair(self, control: Control, first: float, second: float) -> None:
        """Do what `_set_numbers` does, for two numbers within their range: most events are of these."""
        _, kind, device, _, slot, _, low, high = control
        if slot in self.watched or not (low <= first <= high and low <= second <= high):
            self._set_numbers(control, first, second)
            return
        values = self.values
        if kind == "counts":
            values[slot] += float(first)
            values[slot + 1] += float(second)
            self.changes += 1
            return
        if device is None:
            if kind == "view":
                self.view_changes += 1
            else:
                self.placed.add(slot)
        if values[slot] != first or values[slot + 1] != second:
            values[slot] = float(first)
            values[slot + 1] = float(second)
            self.changes += 1

    def _set_numbers(self, control: Control, *levels: float) -> None:
        if len(levels) != control.width:
            raise ValueError
        # All or none: half a stick position would be a direction that was never reported.
        if not all(map(math.isfinite, levels)):
            self.refused[control.name] += 1
            return
        kind, slot = control.kind, control.slot
        low, high = control.low, control.high
        fitting = [float(min(max(level, low), high)) for level in levels]
        if fitting != list(levels):
            self._note_clamped(control, *levels)
        if kind == "counts":
            self._displace(control, fitting)
            return
        if kind == "view":
            self.view_changes += 1
        elif kind == "place":
            self.placed.add(slot)
        values = self.values
        was = values[slot : slot + control.width]
        # Pointing at the same place again sets a new goal.
        if (fitting == was and kind != "place") or (kind == "touch" and fitting[2] == was[2] == 0.0):
            return
        values[slot : slot + control.width] = fitting
        self.changes += 1
        if kind == "touch":
            self.touch_changes += 1
            if was[2] == 0.0:
                self.landings[(slot - _TOUCH_SLOT) // control.width] = (fitting[0], fitting[1])
        if slot in self.watched:
            self._keep(Change(slot, tuple(fitting), tuple(was), False))

    def _note_clamped(self, control: Control, *levels: float) -> None:
        """Count a value outside its range; one further outside than the range is wide may be in another unit."""
        self.clamped[control.name] += 1
        span = control.high - control.low
        far = any(level > control.high + span or level < control.low - span for level in levels)
        if far and control.name not in self._far_beyond:
            self._far_beyond.add(control.name)
            found = ", ".join(f"{level:g}" for level in levels)
            hint = "; were these pixels?" if control.kind in ("pointer", "touch") else ""
            words = "%s: found %s, cut to its range of %g to %g%s"
            logging.getLogger("wendonic").warning(words, control.name, found, control.low, control.high, hint)

    def _displace(self, control: Control, counts: Sequence[float]) -> None:
        slot = control.slot
        for place, count in enumerate(counts, slot):
            self.values[place] += count
        self.changes += 1
        if slot in self.watched:
            self._keep(Change(slot, tuple(counts), (0.0,) * control.width, False))

    def _release(self, control: Control) -> None:
        start, end = control.slot, control.slot + control.width
        rest = _AT_REST[start:end]
        if control.kind in ("counts", "wheel"):
            # Motion before the loss still counts; presses that wait for the ground are informed.
            if start in self.watched:
                self._keep(Change(start, tuple(rest), tuple(rest), True))
            return
        was = self.values[start:end]
        if control.kind == "touch":
            # A lost finger stays where it was.
            rest[:2] = was[:2]
        if was == rest:
            # Presses that wait for the ground are informed as well.
            if start in self.watched and control.kind in ("button", "key", "stick", "touch"):
                self._keep(Change(start, tuple(was), tuple(was), True))
            return
        if control.kind == "touch":
            self.touch_changes += 1
        self.values[start:end] = rest
        if start in self.watched:
            self._keep(Change(start, tuple(rest), tuple(was), True))

    def _keep(self, change: Change) -> None:
        if len(self.kept) < MOST_CHANGES_KEPT:
            self.kept.append(change)
        else:
            self.overrun = True

    def take_kept(self) -> list[Change]:
        """Return the changes of the watched controls since the last call, in order.

        If there were more than can be kept, the last ones give the present value of every watched control.
        """
        kept = self.kept
        if not kept:
            return kept
        self.kept = []
        self.counts_end = 0
        if self.overrun:
            self.overrun = False
            for slot in self.watched:
                control = BY_SLOT[slot]
                if control.kind != "wheel":
                    now = tuple(self.values[slot : slot + control.width])
                    kept.append(Change(slot, now, now, False))
        return kept

    def discard_counts(self) -> None:
        """Forget displacements that no tick has taken yet: counts, and the motion of fingers and hands."""
        for control in BY_SLOT.values():
            if control.kind in ("counts", "wheel"):
                self.values[control.slot : control.slot + control.width] = [0.0] * control.width
        self.counts_end = len(self.kept)
        self.changes += 1

    def values_before_kept(self) -> list[float]:
        """Return the held state as it was when `take_kept` was called last, for the watched controls."""
        values = self.values.copy()
        for slot, _, was, _ in reversed(self.kept):
            values[slot : slot + len(was)] = was
        return values

    def value(self, name: str) -> float | tuple[float, ...]:
        """Return what the control of that name holds, in the device's own standard: a number, or several.

        For a displacement it is the sum since a tick last took it.
        """
        control = find_control(name)
        if control.width == 0:
            raise ControlError(f"{control.name} has no value")
        if control.width == 1:
            return self.values[control.slot]
        return tuple(self.values[control.slot : control.slot + control.width])

    def held(self) -> tuple[str, ...]:
        """Return the names of all keys, buttons and touches that are down, in the order of the tables."""
        down = {"key": 0, "button": 0, "touch": 2}
        return tuple(
            control.name
            for control in BY_SLOT.values()
            if control.kind in down and self.values[control.slot + down[control.kind]] > 0.0
        )
