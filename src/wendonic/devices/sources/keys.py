"""Keys: four lists of them, and in which order they went down, which decides between opposite ones."""

from collections.abc import MutableSequence, Sequence
from dataclasses import dataclass
from typing import ClassVar

from wendonic.devices.controls import Device
from wendonic.devices.sources.base import Reader, Source
from wendonic.devices.sources.names import find_switch
from wendonic.devices.state import Change, DeviceState


@dataclass(frozen=True, slots=True)
class KeysSource(Source):
    """Four lists of keys (W3C codes or control names) or buttons; one of a list is enough."""

    right: Sequence[str] = ()
    left: Sequence[str] = ()
    forward: Sequence[str] = ()
    back: Sequence[str] = ()
    opposites: str = "cancel"

    width: ClassVar[int] = 4

    def slots(self) -> list[tuple[int, ...]]:
        """Return the slots of each list: right, left, forward, back."""
        lists = (self.right, self.left, self.forward, self.back)
        return [tuple(find_switch(name).slot for name in names) for names in lists]

    @property
    def in_order(self) -> bool:
        """Whether it counts in which order keys went down."""
        return self.opposites != "cancel"

    def device(self) -> Device:
        """Return the device that it stands for."""
        return find_switch([*self.right, *self.left, *self.forward, *self.back][0]).device or "keys"

    def reader(self, start: int, taps: bool) -> Reader:
        """Return what reads it."""
        if taps:
            return KeyTaps(self, start)
        return PressOrder(self, start) if self.in_order else PlainKeys(self, start)


class PlainKeys:
    """Which of four lists have a key that is held."""

    __slots__ = ("_lists", "_start")

    def __init__(self, source: KeysSource, start: int) -> None:
        """Write into the places of the row from `start` on."""
        self._lists = source.slots()
        self._start = start

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        """Write 0 or 1 for each direction."""
        values = state.values
        for place, slots in enumerate(self._lists, self._start):
            row[place] = 1.0 if any(values[slot] > 0.5 for slot in slots) else 0.0
        return False


class PressOrder:
    """For each direction the number, in the order of pressing, of its latest (or earliest) held key; 0 for none."""

    __slots__ = ("_latest", "_lists", "_numbers", "_start", "watched")

    def __init__(self, source: KeysSource, start: int) -> None:
        """Write into the places of the row from `start` on."""
        self._lists = source.slots()
        self._latest = source.opposites == "latest"
        self._start = start
        self._numbers: dict[int, int] = {}
        self.watched = tuple(slot for slots in self._lists for slot in slots)

    def begin(self, values: Sequence[float], landings: Sequence[tuple[float, float]]) -> None:  # noqa: ARG002
        """Number what is held already; its order is not known any more."""
        self._numbers = {}
        for slot in self.watched:
            if values[slot] > 0.5:
                self._numbers[slot] = len(self._numbers) + 1

    def take(self, change: Change) -> None:
        """Number a key that went down after all that are held."""
        numbers = self._numbers
        if change.value[0] <= 0.5:
            numbers.pop(change.slot, None)
        elif change.slot not in numbers:
            numbers[change.slot] = max(numbers.values(), default=0) + 1

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:  # noqa: ARG002
        """Write the four numbers."""
        choose = max if self._latest else min
        numbers = self._numbers
        for place, slots in enumerate(self._lists, self._start):
            row[place] = float(choose([numbers[slot] for slot in slots if slot in numbers], default=0))
        return False


class KeyTaps(PressOrder):
    """What `PressOrder` has, of keys too that went down and up again since the last tick: for one tick they are held.

    Under `cancel` a direction has 1 for any of its keys.
    """

    __slots__ = ("_any", "_fresh", "_gone")

    def __init__(self, source: KeysSource, start: int) -> None:
        """Write into the places of the row from `start` on."""
        super().__init__(source, start)
        self._any = not source.in_order
        self._fresh: set[int] = set()
        self._gone: list[Change] = []

    def begin(self, values: Sequence[float], landings: Sequence[tuple[float, float]]) -> None:
        """Number what is held already."""
        super().begin(values, landings)
        self._fresh, self._gone = set(), []

    def take(self, change: Change) -> None:
        """Number a key that went down; release one that came up, after the next tick if that has not seen it yet."""
        if change.value[0] > 0.5:
            self._fresh.add(change.slot)
        elif change.slot in self._fresh and not change.lost:
            self._gone.append(change)
            return
        super().take(change)

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        """Write the four numbers; return whether some were only tapped."""
        super().read(state, row)
        if self._any:
            for place in range(self._start, self._start + 4):
                row[place] = 1.0 if row[place] > 0.0 else 0.0
        tapped = False
        for change in self._gone:
            # Down once more since then, it is held.
            if state.values[change.slot] <= 0.5:
                super().take(change)
                tapped = True
        self._fresh, self._gone = set(), []
        return tapped
