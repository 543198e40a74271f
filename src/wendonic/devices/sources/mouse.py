"""The mouse's motion."""

from collections.abc import MutableSequence
from dataclasses import dataclass

from wendonic.devices.controls import CONTROLS, Device
from wendonic.devices.sources.base import Reader, Source
from wendonic.devices.state import DeviceState

_MOUSE = CONTROLS["mouse.move"].slot


@dataclass(frozen=True, slots=True)
class MouseSource(Source):
    """Counts of the mouse."""

    control: str = "mouse.move"

    def plain_control(self) -> str:
        """Return its control."""
        return self.control

    def device(self) -> Device:
        """Return the device that it stands for."""
        return "mouse"

    def reader(self, start: int) -> Reader:
        """Return what reads it."""
        return MouseReader(start)


class MouseReader:
    """Counts since the last tick, right and up."""

    __slots__ = ("_start",)

    def __init__(self, start: int) -> None:
        """Write into the row from `start` on."""
        self._start = start

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        """Write the counts, once."""
        right, down = state.values[_MOUSE], state.values[_MOUSE + 1]
        row[self._start], row[self._start + 1] = right, 0.0 - down
        return right != 0.0 or down != 0.0
