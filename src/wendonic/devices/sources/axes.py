"""Axes of their own, and pairs of triggers."""

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
        """Return what reads it: the difference of both."""
        pair = ((self.positive, 1.0), (self.negative, -1.0))
        signed = [(*_axis(name), direction) for name, direction in pair if name]
        return AxesReader([(start, slot, sign * direction) for slot, sign, direction in signed])


def _axis(name: str) -> tuple[int, float]:
    _, slot, sign = find_axis(name)
    return slot, sign


class AxesReader:
    """Adds axes up in places of a row: (place, slot, sign) each."""

    __slots__ = ("_places",)

    def __init__(self, places: list[tuple[int, int, float]]) -> None:
        """Take the places."""
        self._places = places

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        """Write the sums."""
        for place, _, _ in self._places:
            row[place] = 0.0
        for place, slot, sign in self._places:
            row[place] += state.values[slot] * sign
        return False
