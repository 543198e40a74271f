"""How far the hands swung: motion controllers' poses become a displacement."""

import math
from collections.abc import MutableSequence, Sequence

from wendonic.devices.controls import CONTROLS
from wendonic.devices.sources import HandsSource
from wendonic.devices.state import Change, DeviceState

SQUEEZED = 0.5
"""A squeeze from here on counts."""


class _Hand:
    __slots__ = ("at", "squeeze")

    def __init__(self) -> None:
        self.at: tuple[float, float, float] | None = None
        self.squeeze = 0.0


class HandSwing:
    """The way (m) that all hands which squeeze went since the last tick."""

    __slots__ = ("_by_pose", "_by_squeeze", "_start", "_way_m", "watched")

    def __init__(self, source: HandsSource, start: int) -> None:
        """Write into the places of the row from `start` on."""
        hands = {name: _Hand() for name in source.hands}
        self._by_pose = {CONTROLS[f"{name}.pose"].slot: hand for name, hand in hands.items()}
        self._by_squeeze = {CONTROLS[f"{name}.squeeze"].slot: hand for name, hand in hands.items()}
        self._start = start
        self._way_m = 0.0
        self.watched = (*self._by_pose, *self._by_squeeze)

    def begin(self, values: Sequence[float], landings: Sequence[tuple[float, float]]) -> None:  # noqa: ARG002
        """Go on from how the hands squeeze; where they are is taken from their next pose."""
        self._way_m = 0.0
        for slot, hand in self._by_squeeze.items():
            hand.squeeze = values[slot]
        for hand in self._by_pose.values():
            hand.at = None

    def take(self, change: Change) -> None:
        """Add the way from pose to pose; a hand that was lost begins anew."""
        slot, value, _, lost = change
        if slot in self._by_squeeze:
            self._by_squeeze[slot].squeeze = value[0]
            return
        hand = self._by_pose[slot]
        at = (value[0], value[1], value[2])
        if lost:
            hand.at = None
            return
        if hand.at is not None and hand.squeeze >= SQUEEZED:
            self._way_m += math.dist(hand.at, at)
        hand.at = at

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:  # noqa: ARG002
        """Write the way, once."""
        row[self._start] = self._way_m
        moved = self._way_m > 0.0
        self._way_m = 0.0
        return moved
