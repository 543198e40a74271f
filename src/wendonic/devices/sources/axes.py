"""Single axes, and pairs of triggers."""

from collections.abc import MutableSequence
from dataclasses import dataclass

from wendonic.devices.controls import Device
from wendonic.devices.sources.base import Reader, Source
from wendonic.devices.sources.names import find_axis
from wendonic.devices.state import DeviceState


@dataclass(frozen=True, slots=True)
class AxesSource(Source):
    """One or two axes, each of its own: `pad.left_stick.x`, `pad.right_stick.y`, or a trigger."""

    x: str = ""
    y: str = ""

    def device(self) -> Device:
        """Return the device that it stands for."""
        return find_axis(self.x or self.y)[0].device or "pad"

    def reader(self, start: int) -> Reader:
        """Return what reads it."""
        return AxesReader([(start + index, *_axis(name)) for index, name in enumerate((self.x, self.y)) if name])


@dataclass(frozen=True, slots=True)
class TriggersSource(Source):
    """Two triggers that pull opposite ways; one of them may be missing."""

    positive: str = ""
    negative: str = ""

    def device(self) -> Device:
        """Return the device that it stands for."""
        return find_axis(self.positive or self.negative)[0].device or "pad"

    def reader(self, start: int) -> Reader:
        """Return what reads it: each by itself."""
        pair = enumerate((self.positive, self.negative))
        return AxesReader([(start + index, *_axis(name)) for index, name in pair if name])


def _axis(name: str) -> tuple[int, float]:
    _, slot, sign = find_axis(name)
    return slot, sign


class AxesReader:
    """Reads axes into a row: (index in the row, slot, sign) each."""

    __slots__ = ("_pairs",)

    def __init__(self, pairs: list[tuple[int, int, float]]) -> None:
        """Take where to read and write."""
        self._pairs = pairs

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        """Write them."""
        for index, slot, sign in self._pairs:
            row[index] = state.values[slot] * sign
        return False
