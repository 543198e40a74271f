"""What is held right now, on every device."""

import math
from collections import Counter
from typing import Any

from wendonic.devices.controls import CONTROLS, LETS_GO, STATE_WIDTH, Control, find_control
from wendonic.devices.event import Event, Value
from wendonic.errors import ControlError

_SLOTS_LET_GO: dict[str, tuple[int, ...]] = {
    loss: tuple(
        sorted(
            {
                slot
                for held in CONTROLS.values()
                if held.device in devices
                for slot in range(held.slot, held.slot + held.width)
            }
        )
    )
    for loss, devices in LETS_GO.items()
}
"""Places in the held state that a loss sets back to rest."""


class DeviceState:
    """The held state of keyboard, pad and view: events in, levels out.

    Levels stand until changed: two keys are two keys, and only its own `up` lifts a key. `lost.focus` lets
    everything go, `lost.pad` what the pad held; the view stays. A value outside its control's range is cut
    to the range and counted in `clamped`; a value that is not finite is refused and counted in `refused`,
    and the last good one stands.

    >>> state = DeviceState()
    >>> state.apply(Event(0.0, "key.KeyW", 1))
    >>> state.apply(Event(0.1, "pad.left_stick", (0.25, -3.0)))
    >>> state.value("key.KeyW"), state.value("pad.left_stick"), dict(state.clamped)
    (1.0, (0.25, -1.0), {'pad.left_stick': 1})
    >>> state.apply(Event(0.2, "lost.focus", 1))
    >>> state.held()
    ()
    """

    __slots__ = ("changes", "clamped", "key_changes", "refused", "values")

    def __init__(self) -> None:
        """Begin with everything let go and the view at 0, 0."""
        self.values: list[float] = [0.0] * STATE_WIDTH
        self.changes = 0
        """Grows with every event that changed something; a sample is stale once this has moved on."""
        self.key_changes = 0
        """The same, for keys alone."""
        self.clamped: Counter[str] = Counter()
        self.refused: Counter[str] = Counter()

    def apply(self, event: Event) -> None:
        """Take one event; its time plays no part. Raises `ControlError` for an unknown control or a misfit value."""
        self.set(find_control(event.control), event.value)

    def set(self, control: Control, value: Value | bool) -> None:
        """Give `control` the `value`, as `apply` does."""
        raw: Any = value
        try:
            if control.width == 1:
                self._set_levels(control, raw)
            elif control.width == 2:
                self._set_levels(control, *raw)
            elif control.kind == "loss":
                self._let_go(_SLOTS_LET_GO[control.name])
        except (TypeError, ValueError):
            shape = "a number" if control.width == 1 else "two numbers"
            raise ControlError(f"{control.name}: found {value!r}; allowed: {shape}") from None

    def _set_levels(self, control: Control, *levels: float) -> None:
        if len(levels) != control.width:
            raise ValueError
        # Both or neither: half a stick position would be a direction that nobody gave.
        if not all(map(math.isfinite, levels)):
            self.refused[control.name] += 1
            return
        values = self.values
        slot = control.slot
        for level in levels:
            if not control.low <= level <= control.high:
                self.clamped[control.name] += 1
            fitting = float(min(max(level, control.low), control.high))
            if values[slot] != fitting:
                values[slot] = fitting
                self.changes += 1
                if control.kind == "key":
                    self.key_changes += 1
            slot += 1

    def _let_go(self, slots: tuple[int, ...]) -> None:
        for slot in slots:
            self.values[slot] = 0.0
        self.changes += 1
        self.key_changes += 1

    def value(self, name: str) -> float | tuple[float, float]:
        """Return what the control of that name holds, in the device's own standard: a number, or two."""
        control = find_control(name)
        if control.width == 2:
            return self.values[control.slot], self.values[control.slot + 1]
        if control.width == 1:
            return self.values[control.slot]
        raise ControlError(f"{control.name} holds no value")

    def held(self) -> tuple[str, ...]:
        """Return the names of all keys and buttons that are down, in the order of the tables."""
        return tuple(
            name
            for name, control in CONTROLS.items()
            if name == control.name and control.kind in ("key", "button") and self.values[control.slot] > 0.0
        )
