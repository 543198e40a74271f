"""Records a game's session while it is played: the events of the devices and the reports of the game."""

import logging
from collections.abc import Iterator
from pathlib import Path
from typing import Protocol

from wendonic.devices.controls import BY_SLOT, TOUCHES, Control
from wendonic.devices.event import Event, Value, at_rest, fitting_value
from wendonic.devices.state import DeviceState
from wendonic.errors import ControlError, WendonicError
from wendonic.recording.writer import RecordingWriter

TOUCH_NAMES = tuple(f"touch.{finger}" for finger in range(TOUCHES))

AFTER_S = 1e-6
"""How long (s) after a tick its events are dated: they belong to the next tick, whenever that ends."""


class Recorded(Protocol):
    """Something that can be recorded: a helm."""

    state: DeviceState

    @property
    def mode(self) -> str:
        """Name of the current mode."""

    @property
    def clock_s(self) -> float:
        """Time (s) that all ticks so far have covered."""

    def reported_so_far(self, again: bool = False) -> Iterator[tuple[str, Value]]:
        """Yield what a recording must begin with, as control and value; with `again`, initial values as well."""

    def toggled(self) -> Iterator[tuple[str, str | None]]:
        """Yield the toggles whose state differs from the one that pressing the controls held now would leave, each
        with a control that does nothing else, or None.
        """


LOG = logging.getLogger("wendonic")


class PlayRecorder:
    """Records everything that a helm receives, see `Helm.record`."""

    def __init__(self, helm: Recorded, path: str | Path, title: str) -> None:
        """Begin with the current state; raises `WendonicError` for a file that exists already, and for a helm that is
        being recorded.
        """
        if isinstance(helm.state, RecordedState):
            raise WendonicError(f"the helm is already recorded into {helm.state.recorder.path}; close that first")
        if Path(path).exists():
            raise WendonicError(f"{path} already exists; give another name, or remove it")
        self._helm = helm
        self._writer = RecordingWriter(path, title)
        self._start_s = helm.clock_s
        self._last_s = 0.0
        for event in self._beginning():
            self._writer.append(event)
        helm.state = RecordedState(helm.state, self)

    @property
    def path(self) -> Path:
        """The file."""
        return self._writer.path

    def _beginning(self, again: bool = False) -> Iterator[Event]:
        """Yield the events that give the current state; with `again`, also what was different until now."""
        t, helm = self._last_s, self._helm
        yield Event(t, "mode", helm.mode)
        for name, value in helm.reported_so_far(again):
            yield Event(t, name, value)
        for name, switch in helm.toggled():
            if switch is None:
                LOG.warning(
                    '%s: press "%s" was toggled before, and no control toggles it alone, so the recording begins '
                    "with it in the opposite state",
                    self._writer.path,
                    name,
                )
            else:
                yield Event(t, switch, 1.0)
                yield Event(t, switch, 0.0)
        state = helm.state
        landings = dict(zip(TOUCH_NAMES, state.landings, strict=True))
        slid = False
        for control in BY_SLOT.values():
            numbers = tuple(state.values[control.slot : control.slot + control.width])
            event = Event(t, control.name, numbers if control.width > 1 else numbers[0])
            # A goal that was set may have been reached, or dropped for a key; the helm knows its present goals.
            placed = control.kind != "place" or (control.slot in state.placed and control.name != "goal")
            moved = not at_rest(event) or (again and control.kind in ("place", "pointer"))
            if control.kind not in ("reported", "view", "counts", "wheel") and placed and moved:
                landing = landings.get(control.name)
                if landing is not None and landing != numbers[:2]:
                    # The tilt of a thumb is its distance from there.
                    slid = True
                    yield event._replace(value=(*landing, numbers[2]))
                yield event
        if slid:
            # The motion from there to here belongs to the past.
            yield Event(t, "discard", 1.0)

    @property
    def elapsed_s(self) -> float:
        """How long it has recorded, by the helm's clock."""
        return self._helm.clock_s - self._start_s

    def take(self, control: Control, value: Value | bool) -> None:
        """Write an event that happens now; one whose value is refused is left out."""
        try:
            fitting = fitting_value(control, value)
        except ControlError:
            return
        self._last_s = max(self._last_s, self.elapsed_s + AFTER_S)
        self._writer.append(Event(self._last_s, control.name, fitting))

    def jumped(self, elapsed_s: float) -> None:
        """Continue after the helm went back to another moment, at a given time of the recording: everything is
        released and forgotten, goals too, and then the state of that moment is written.
        """
        self._start_s = self._helm.clock_s - elapsed_s
        self._last_s = max(self._last_s, elapsed_s + AFTER_S)
        for control in ("lost.focus", "body.restart"):
            self._writer.append(Event(self._last_s, control, 1.0))
        for event in self._beginning(again=True):
            self._writer.append(event)

    def close(self) -> None:
        """End the recording with the last tick, and close the file; later events are not recorded."""
        if not isinstance(self._helm.state, RecordedState):
            return
        end_s = max(self._last_s, self.elapsed_s - AFTER_S)
        self._writer.append(Event(end_s, "mark", "end"))
        self._writer.close()
        self._helm.state = self._helm.state.plain()

    def __enter__(self) -> "PlayRecorder":
        """Return the recorder."""
        return self

    def __exit__(self, *_: object) -> None:
        """Close the file."""
        self.close()


class RecordedState(DeviceState):
    """A held state that passes on every event."""

    __slots__ = ("recorder",)

    def __init__(self, state: DeviceState, recorder: PlayRecorder) -> None:
        """Continue from another state."""
        _take_over(self, state)
        self.recorder = recorder

    def set(self, control: Control, value: Value | bool) -> None:
        """Give `control` the `value`; a value that changes nothing is not passed on."""
        before = self.changes, self.view_changes
        super().set(control, value)
        if before != (self.changes, self.view_changes) or control.kind in ("mark", "loss"):
            self.recorder.take(control, value)

    def report(self, control: Control, value: Value) -> None:
        """Pass a report of the game on."""
        self.recorder.take(control, value)

    def plain(self) -> DeviceState:
        """Return a state that continues from here and passes nothing on."""
        return _take_over(DeviceState(), self)


def _take_over(state: DeviceState, other: DeviceState) -> DeviceState:
    for name in DeviceState.__slots__:
        setattr(state, name, getattr(other, name))
    return state
