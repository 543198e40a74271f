"""How far each hand swung: motion controllers' poses become displacements."""

from collections.abc import MutableSequence, Sequence

from wendonic.devices.controls import CONTROLS
from wendonic.devices.sources import HandsSource
from wendonic.devices.state import Change, DeviceState

SQUEEZED = 0.5
"""A squeeze from here on counts."""

_PLACES = {"hand.left": 0, "hand.right": 4}


class _Hand:
    __slots__ = ("at", "place", "posed", "squeeze", "way")

    def __init__(self, place: int) -> None:
        self.place = place
        self.at: tuple[float, ...] | None = None
        self.way = [0.0, 0.0, 0.0]
        self.posed = False
        self.squeeze = 0.0


class HandSwing:
    """The way (m) of each hand that squeezes since the last tick, and whether it counts: 2 with a new pose, 1
    without.
    """

    __slots__ = ("_by_pose", "_by_squeeze", "watched")

    def __init__(self, source: HandsSource, start: int) -> None:
        """Write into the places of the row from `start` on: the left hand's, then the right one's."""
        hands = {name: _Hand(start + _PLACES[name]) for name in source.hands}
        self._by_pose = {CONTROLS[f"{name}.pose"].slot: hand for name, hand in hands.items()}
        self._by_squeeze = {CONTROLS[f"{name}.squeeze"].slot: hand for name, hand in hands.items()}
        self.watched = (*self._by_pose, *self._by_squeeze)

    def begin(self, values: Sequence[float], landings: Sequence[tuple[float, float]]) -> None:  # noqa: ARG002
        """Go on from how the hands squeeze; where they are is taken from their next pose."""
        for slot, hand in self._by_squeeze.items():
            hand.squeeze = values[slot]
            hand.way, hand.posed = [0.0, 0.0, 0.0], False
            hand.at = None

    def take(self, change: Change) -> None:
        """Add the way from pose to pose; a hand that was lost begins anew."""
        slot, value, _, lost = change
        if slot in self._by_squeeze:
            self._by_squeeze[slot].squeeze = value[0]
            return
        hand = self._by_pose[slot]
        if lost:
            hand.at = None
            return
        at = value[:3]
        if hand.at is not None and hand.squeeze >= SQUEEZED:
            hand.way = [way + now - was for way, now, was in zip(hand.way, at, hand.at, strict=True)]
            hand.posed = True
        hand.at = at

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:  # noqa: ARG002
        """Write the ways, once."""
        posed = False
        for hand in self._by_pose.values():
            row[hand.place : hand.place + 3] = hand.way
            counts = hand.squeeze >= SQUEEZED and hand.at is not None
            row[hand.place + 3] = (2.0 if hand.posed else 1.0) if counts else 0.0
            if hand.posed:
                posed, hand.posed = True, False
                hand.way = [0.0, 0.0, 0.0]
        return posed
