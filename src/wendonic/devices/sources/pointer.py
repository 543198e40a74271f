"""The pointer as a stick about the window's middle."""

from collections.abc import MutableSequence, Sequence
from dataclasses import dataclass

from wendonic.devices.controls import CONTROLS, Device
from wendonic.devices.sources.base import Reader, Source
from wendonic.devices.sources.names import find_switch
from wendonic.devices.state import DeviceState

_POINTER = CONTROLS["pointer.at"].slot
_WINDOW = CONTROLS["window"].slot


@dataclass(frozen=True, slots=True)
class PointerSource(Source):
    """The pointer's place seen from the window's middle, while one of `while_held` is down, or always if empty.

    `reach` is the share of the window's height at which input is full, `aspect_ratio` the window's width over its
    height until the game says what it is.
    """

    while_held: Sequence[str]
    reach: float
    aspect_ratio: float

    def device(self) -> Device:
        """Return the device that it stands for."""
        return "mouse"

    def reader(self, start: int) -> Reader:
        """Return what reads it."""
        return PointerReader(self, start)


class PointerReader:
    """The pointer seen from the window's middle."""

    __slots__ = ("_held", "_source", "_start")

    def __init__(self, source: PointerSource, start: int) -> None:
        """Write into the row from `start` on."""
        self._source = source
        self._start = start
        self._held = [find_switch(name).slot for name in source.while_held]

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        """Write where it is, right and forward."""
        values = state.values
        right = forward = 0.0
        if not self._held or any(values[slot] > 0.5 for slot in self._held):
            aspect_ratio = values[_WINDOW] or self._source.aspect_ratio
            right = (values[_POINTER] - 0.5) * aspect_ratio / self._source.reach
            forward = (0.5 - values[_POINTER + 1]) / self._source.reach
        row[self._start], row[self._start + 1] = right, forward
        return False
