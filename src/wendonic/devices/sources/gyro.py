"""A pad's rate sensor."""

from collections.abc import MutableSequence
from dataclasses import dataclass
from typing import ClassVar

from wendonic.devices.controls import Control, Device, find_kind
from wendonic.devices.sources.base import Reader, Source
from wendonic.devices.state import DeviceState


@dataclass(frozen=True, slots=True)
class GyroSource(Source):
    """A pad's rate sensor."""

    control: str

    width: ClassVar[int] = 6

    def device(self) -> Device:
        """Return the device that it stands for."""
        return find_kind(self.control, "rates").device or "pad"

    def reader(self, start: int) -> Reader:
        """Return what reads it."""
        return GyroReader(find_kind(self.control, "rates"), start)


class GyroReader:
    """A pad's rates, and what its accelerometer feels: three numbers each, as they come."""

    __slots__ = ("_accel", "_gyro", "_start")

    def __init__(self, control: Control, start: int) -> None:
        """Write into the row from `start` on."""
        self._gyro = control.slot
        self._accel = find_kind(f"{control.unit}.accel", "rates").slot
        self._start = start

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        """Write rates and accelerations."""
        values, start, gyro, accel = state.values, self._start, self._gyro, self._accel
        row[start : start + 3] = values[gyro : gyro + 3]
        row[start + 3 : start + 6] = values[accel : accel + 3]
        return False
