"""How far each hand swung: motion controllers' poses become displacements."""

from collections.abc import MutableSequence, Sequence
from dataclasses import dataclass
from typing import ClassVar

from wendonic.devices.controls import CONTROLS, Device
from wendonic.devices.sources.base import Reader, Source
from wendonic.devices.state import Change, DeviceState

SQUEEZED = 0.5
"""A squeeze from here on counts."""

_HEAD = CONTROLS["head.pose"].slot
_NOWHERE = (0.0, 0.0, 0.0)
HAND_OFFSETS = {"hand.left": 0, "hand.right": 4}


@dataclass(frozen=True, slots=True)
class HandsSource(Source):
    """How far the hands swing, while they squeeze or always."""

    hands: Sequence[str]
    squeezed: bool = True

    width: ClassVar[int] = 8

    def device(self) -> Device:
        """Return the device that it stands for."""
        return "hands"

    def reader(self, start: int) -> Reader:
        """Return what reads it."""
        return HandSwing(self, start)


def _position(values: Sequence[float], slot: int) -> tuple[float, float, float] | None:
    """Return the position of a pose, None if it is not tracked: its quaternion is zeros."""
    x, y, z, *quaternion = values[slot : slot + 7]
    return (x, y, z) if any(quaternion) else None


class _Hand:
    __slots__ = ("at", "fresh", "index", "moved", "posed", "squeeze")

    def __init__(self, index: int) -> None:
        self.index = index
        self.at: tuple[float, float, float] | None = None
        self.moved = [0.0, 0.0, 0.0]
        self.posed = False
        self.fresh = False
        """Whether a pose came since the last tick, counted or not."""
        self.squeeze = 0.0


class HandSwing:
    """How far (m) each hand has moved since the last tick, relative to the head if that is tracked, so that a step of
    the whole body is not a swing; and whether the hand counts: 2 with a new pose, 1 without.
    """

    __slots__ = ("_by_pose", "_by_squeeze", "_head", "_least", "watched")

    def __init__(self, source: HandsSource, start: int) -> None:
        """Write into the row from `start` on: the left hand's, then the right one's."""
        hands = {name: _Hand(start + HAND_OFFSETS[name]) for name in source.hands}
        self._by_pose = {CONTROLS[f"{name}.pose"].slot: hand for name, hand in hands.items()}
        self._by_squeeze = {CONTROLS[f"{name}.squeeze"].slot: hand for name, hand in hands.items()}
        self._least = SQUEEZED if source.squeezed else 0.0
        self._head: tuple[float, float, float] | None = None
        self.watched = (*self._by_pose, *self._by_squeeze, _HEAD)

    def begin(self, values: Sequence[float], landings: Sequence[tuple[float, float]]) -> None:  # noqa: ARG002
        """Continue from the present poses and squeezes; an untracked hand from its next pose."""
        self._head = _position(values, _HEAD)
        for slot, hand in self._by_squeeze.items():
            hand.squeeze = values[slot]
        for slot, hand in self._by_pose.items():
            hand.moved, hand.posed = [0.0, 0.0, 0.0], False
            at, (head_x, head_y, head_z) = _position(values, slot), self._head or _NOWHERE
            hand.at = (at[0] - head_x, at[1] - head_y, at[2] - head_z) if at else None

    def take(self, change: Change) -> None:
        """Add the motion from pose to pose; a hand that was lost starts anew."""
        slot, value, _, lost = change
        hand = self._by_pose.get(slot)
        if hand is None:
            self._take_other(slot, value, lost)
            return
        if lost:
            hand.at = None
            return
        head_x, head_y, head_z = self._head or _NOWHERE
        x, y, z = value[0] - head_x, value[1] - head_y, value[2] - head_z
        hand.fresh = True
        if hand.squeeze >= self._least:
            if hand.at is not None:
                was_x, was_y, was_z = hand.at
                moved_x, moved_y, moved_z = hand.moved
                hand.moved = [moved_x + x - was_x, moved_y + y - was_y, moved_z + z - was_z]
            hand.posed = True
        hand.at = (x, y, z)

    def _take_other(self, slot: int, value: tuple[float, ...], lost: bool) -> None:
        """Follow the head, or how a hand squeezes."""
        if slot != _HEAD:
            hand = self._by_squeeze[slot]
            if hand.squeeze < self._least <= value[0]:
                # A pose just before it is the first that counts.
                hand.posed = hand.fresh
            hand.squeeze = value[0]
            return
        if lost or self._head is None:
            # If the head's tracking changes, the motion since the last pose is unknown.
            for hand in self._by_pose.values():
                hand.at = None
        self._head = None if lost else (value[0], value[1], value[2])

    def discard(self) -> None:
        """Forget the motion that no tick has taken yet."""
        for hand in self._by_pose.values():
            hand.moved, hand.posed = [0.0, 0.0, 0.0], False

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:  # noqa: ARG002
        """Write the motion, once."""
        posed = False
        for hand in self._by_pose.values():
            row[hand.index : hand.index + 3] = hand.moved
            counts = hand.squeeze >= self._least and hand.at is not None
            row[hand.index + 3] = (2.0 if hand.posed else 1.0) if counts else 0.0
            hand.fresh = False
            if hand.posed:
                posed, hand.posed = True, False
                hand.moved = [0.0, 0.0, 0.0]
        return posed
