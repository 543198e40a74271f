"""A source of another player: it keeps its place in the row, and is always at rest."""

from collections.abc import MutableSequence
from dataclasses import dataclass

from wendonic.devices.controls import Device
from wendonic.devices.sources.base import Reader, Source
from wendonic.devices.state import DeviceState


class SilentSource(Source):
    """Occupies the place of another source."""

    __slots__ = ("_source",)

    def __init__(self, source: Source) -> None:
        """Take the source that is silent."""
        self._source = source

    @property
    def width(self) -> int:  # type: ignore[override]
        """As many raw numbers as the other one has."""
        return self._source.width

    def device(self) -> Device:
        """Return the device of the other one."""
        return self._source.device()

    def reader(self, start: int) -> Reader:  # noqa: ARG002
        """Return a reader that reads nothing."""
        return Silence()

    def __repr__(self) -> str:
        """Name the source whose place it takes."""
        return f"SilentSource({self._source!r})"


@dataclass(frozen=True, slots=True)
class Silence:
    """Leaves its part of a row at rest."""

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:  # noqa: ARG002
        """Write nothing."""
        return False
