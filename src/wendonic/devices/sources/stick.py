"""Sticks."""

from collections.abc import MutableSequence
from dataclasses import dataclass

from wendonic.devices.controls import Device, find_kind
from wendonic.devices.sources.base import Reader, Source
from wendonic.devices.state import DeviceState


@dataclass(frozen=True, slots=True)
class StickSource(Source):
    """One stick."""

    control: str

    def slot(self) -> int:
        """Return where its numbers are in the held state."""
        return find_kind(self.control, "stick").slot

    def plain_control(self) -> str:
        """Return its control."""
        return self.control

    def device(self) -> Device:
        """Return the device that it stands for.

        >>> StickSource("hand.left.stick").device()
        'hands'
        """
        return find_kind(self.control, "stick").device or "pad"

    def reader(self, start: int) -> Reader:
        """Return what reads it."""
        return StickReader(self.slot(), start)


class StickReader:
    """A stick's position, right and forward."""

    __slots__ = ("_slot", "_start")

    def __init__(self, slot: int, start: int) -> None:
        """Write into the row from `start` on."""
        self._slot, self._start = slot, start

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        """Write both numbers; y, positive towards the player in its own standard, becomes positive forward."""
        row[self._start] = state.values[self._slot]
        # Not a bare minus: that would make a resting stick read -0.0.
        row[self._start + 1] = 0.0 - state.values[self._slot + 1]
        return False
