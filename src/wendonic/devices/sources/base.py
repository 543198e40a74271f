"""The interface of all sources: number of raw numbers, device, and reader."""

from collections.abc import MutableSequence, Sequence
from typing import ClassVar, Protocol, runtime_checkable

from wendonic.devices.controls import Device
from wendonic.devices.state import Change, DeviceState


class Reader(Protocol):
    """Reads what a source has at the end of a tick."""

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        """Write a source's numbers into its part of the row; return whether they hold for this tick only."""


@runtime_checkable
class Follower(Protocol):
    """A reader that needs every change of some controls."""

    @property
    def watched(self) -> tuple[int, ...]:
        """Slots of which it needs every change."""

    def begin(self, values: Sequence[float], landings: Sequence[tuple[float, float]]) -> None:
        """Begin with what is held, and where touches landed."""

    def take(self, change: Change) -> None:
        """Follow one change."""


@runtime_checkable
class Displaced(Protocol):
    """A follower that adds up how far something moved."""

    def discard(self) -> None:
        """Forget the displacement that no tick has taken yet."""


class Source:
    """One `bind` entry as a sampler reads it: names of controls, and places of zones."""

    __slots__ = ()

    width: ClassVar[int] = 2
    """How many raw numbers it writes: two for a direction, four for keys."""

    def device(self) -> Device:
        """Return the device that it stands for."""
        raise NotImplementedError

    def reader(self, start: int) -> Reader:
        """Return what reads it into a row from `start` on."""
        raise NotImplementedError

    def plain_control(self) -> str:
        """Return the control whose two numbers go into a row unchanged except for the sign of y; "" if it is not that
        simple. A batch reads such a control of a recording as a whole column.
        """
        return ""
