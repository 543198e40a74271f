"""Keys: four lists, and the order of pressing, which decides between opposite directions."""

from collections.abc import Mapping, MutableSequence, Sequence
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
        """Whether the order of pressing counts."""
        return self.opposites != "cancel"

    def device(self) -> Device:
        """Return the device that it stands for."""
        names = [*self.right, *self.left, *self.forward, *self.back]
        return (find_switch(names[0]).device if names else None) or "keys"

    def reader(self, start: int) -> Reader:
        """Return what reads it."""
        return HeldKeys(self, start)


class HeldKeys:
    """Which of four lists have a key that is held, or was pressed since the last tick: a tap counts for one tick.

    Under `cancel` a direction has 1 for any of its keys; otherwise the number, in the order of pressing, of its
    latest (or earliest) key; 0 for none.
    """

    __slots__ = ("_choose", "_fresh", "_gone", "_is_new", "_lists", "_numbers", "_start", "watched")

    def __init__(self, source: KeysSource, start: int) -> None:
        """Write into the row from `start` on."""
        self._lists = source.slots()
        self._choose = {"cancel": None, "latest": max, "earliest": min}[source.opposites]
        self._start = start
        self._numbers: dict[int, int] = {}
        self._fresh: set[int] = set()
        self._gone: set[int] = set()
        self._is_new = True
        self.watched = tuple(slot for slots in self._lists for slot in slots)

    def begin(self, values: Sequence[float], landings: Sequence[tuple[float, float]]) -> None:  # noqa: ARG002
        """Number the keys that are held already, until `put_in_order`."""
        self._fresh, self._gone, self._is_new = set(), set(), True
        for slot in self.watched:
            self._numbers.pop(slot, None)
            if values[slot] > 0.5:
                self._numbers[slot] = max(self._numbers.values(), default=0) + 1

    def put_in_order(self, order: Mapping[int, int]) -> None:
        """Number the keys that are held already in the order in which they went down."""
        for number, slot in enumerate(sorted(self._numbers, key=lambda slot: order.get(slot, 0)), 1):
            self._numbers[slot] = number

    def count_with(self, other: "HeldKeys") -> None:
        """Share one order of pressing with another entry of the channel."""
        self._numbers = other._numbers

    def take(self, change: Change) -> None:
        """Number a key that went down after all held ones; release a key that went up, or after the next tick if that
        has not seen it yet.
        """
        slot, numbers = change.slot, self._numbers
        if change.value[0] > 0.5:
            self._fresh.add(slot)
            if slot not in numbers or slot in self._gone:
                self._gone.discard(slot)
                numbers[slot] = max(numbers.values(), default=0) + 1
        elif slot in self._fresh and not change.lost:
            self._gone.add(slot)
            return
        else:
            numbers.pop(slot, None)
        self._is_new = True

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:  # noqa: ARG002
        """Write the four numbers; return whether some keys were only tapped."""
        if not self._is_new:
            return False
        choose, numbers = self._choose, self._numbers
        for index, slots in enumerate(self._lists, self._start):
            held = [numbers[slot] for slot in slots if slot in numbers]
            row[index] = 0.0 if not held else 1.0 if choose is None else float(choose(held))
        for slot in self._gone:
            numbers.pop(slot, None)
        self._is_new = bool(self._gone)
        self._fresh, self._gone = set(), set()
        return self._is_new
