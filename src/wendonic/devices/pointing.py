"""Readers for places that are pointed at, and for the positions and directions of head and hands."""

from collections.abc import MutableSequence, Sequence

from wendonic.devices.controls import CONTROLS, DEVICES
from wendonic.devices.sources.goal import GoalSource, PointedGoal, TouchedGoal
from wendonic.devices.sources.names import find_switch
from wendonic.devices.sources.touch import TOUCH_SLOTS
from wendonic.devices.state import Change, DeviceState
from wendonic.kernels.view_axes import pose_forward, turned_ahead

_GOAL = CONTROLS["goal"].slot
_AIM = CONTROLS["aim"].slot
_PLAN = CONTROLS["plan"].slot
_POINTER = CONTROLS["pointer.at"].slot
_HEAD = CONTROLS["head.pose"].slot
_POSES = [CONTROLS[f"{thing}.pose"].slot for thing in ("head", "hand.left", "hand.right")]


class GoalReader:
    """The last goal set since the last tick: by the game, by the pointer, or by a finger. If goals `wait`, all of
    them count, one per tick.
    """

    __slots__ = (
        "_held",
        "_pointed",
        "_pointer",
        "_scrolled",
        "_start",
        "_touched",
        "_touches",
        "_wait",
        "device",
        "given",
        "watched",
    )

    def __init__(self, sources: Sequence[GoalSource], start: int, wait: bool = False) -> None:
        """Follow the sources; write into the row from `start` on."""
        self._start = start
        self._wait = wait
        self._pointed = [
            ({find_switch(name).slot for name in source.while_held}, source.plan)
            for source in sources
            if isinstance(source, PointedGoal)
        ]
        self._touched = [(source.zone, source.plan) for source in sources if isinstance(source, TouchedGoal)]
        buttons = {slot for slots, _ in self._pointed for slot in slots}
        slots = [
            _GOAL,
            *([_PLAN] if sources else []),
            *buttons,
            *([_POINTER] if self._pointed else []),
            *(TOUCH_SLOTS if self._touched else []),
        ]
        self.watched = tuple(slots)
        self._held: set[int] = set()
        self._pointer = (0.5, 0.5)
        self._scrolled = (0.0, 0.0)
        self._touches: dict[int, int] = {}
        self.given: list[tuple[float, float]] = []
        self.device = -1
        """Index in `DEVICES` of the device that set it."""

    def begin(self, values: Sequence[float], landings: Sequence[tuple[float, float]]) -> None:  # noqa: ARG002
        """Continue from the position of the pointer; controls that are held already do not point again."""
        self._held = set()
        self._pointer = (values[_POINTER], values[_POINTER + 1])
        self._scrolled = (values[_PLAN], values[_PLAN + 1])
        self._touches = {slot: -1 for slot in TOUCH_SLOTS if values[slot + 2] > 0.0}
        self.given = []

    def take(self, change: Change) -> None:
        """Follow one change."""
        slot, value, _, lost = change
        if slot == _GOAL:
            self._give((value[0], value[1]), -1)
        elif slot == _PLAN:
            self._scrolled = (value[0], value[1])
        elif slot == _POINTER:
            self._pointer = (value[0], value[1])
            if not lost:
                self._point(self._held)
        elif slot in TOUCH_SLOTS:
            self._touch(slot, value)
        elif value[0] <= 0.5:
            self._held.discard(slot)
        elif slot not in self._held:
            self._held.add(slot)
            self._point({slot})

    def _give(self, place: tuple[float, float], device: int) -> None:
        self.given = [*self.given, place] if self._wait else [place]
        self.device = device

    def _give_shown(self, place: tuple[float, float], device: int) -> None:
        right, forward = self._scrolled
        self._give((place[0] + right, place[1] + forward), device)

    def _point(self, held: set[int]) -> None:
        for slots, plan in self._pointed:
            if not slots or slots & held:
                self._give_shown(plan.place(*self._pointer), DEVICES.index("mouse"))
                return

    def _touch(self, slot: int, value: tuple[float, ...]) -> None:
        x, y, pressure = value
        if pressure == 0.0:
            self._touches.pop(slot, None)
            return
        if slot not in self._touches:
            zones = [index for index, (zone, _) in enumerate(self._touched) if zone.holds(x, y)]
            self._touches[slot] = zones[0] if zones else -1
        index = self._touches[slot]
        if index >= 0:
            self._give_shown(self._touched[index][1].place(x, y), DEVICES.index("touch"))

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:  # noqa: ARG002
        """Write the goal, once."""
        if not self.given:
            row[self._start] = 0.0
            self.device = -1
            return False
        row[self._start : self._start + 3] = 1.0, *self.given.pop(0)
        return True


class AimReader:
    """The point to aim at, once there is one."""

    __slots__ = ("_start",)

    def __init__(self, start: int) -> None:
        """Write into the row from `start` on."""
        self._start = start

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        """Write the point."""
        known = 1.0 if _AIM in state.placed else 0.0
        row[self._start : self._start + 3] = known, *state.values[_AIM : _AIM + 2]
        return False


class ForwardReader:
    """The horizontal directions in which the head and each hand point; a lost device keeps its last direction."""

    __slots__ = ("_head", "_pairs")

    def __init__(self, start: int, head: int) -> None:
        """Write directions into the row from `start` on, and where the head is from `head` on."""
        self._pairs = list(zip(range(start, start + 6, 2), _POSES, strict=True))
        self._head = head

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        """Write the directions and where the head is, right and forward; a pose is WebXR's: y up, -z forward."""
        values = state.values
        for index, slot in self._pairs:
            x, y, z, w = values[slot + 3 : slot + 7]
            if x == y == z == w == 0.0:
                continue
            row[index], row[index + 1] = pose_forward(x, y, z, w)
            if slot == _HEAD:
                row[self._head], row[self._head + 1] = values[slot], 0.0 - values[slot + 2]
        return False


class PointReader:
    """Where a hand is in the play space, and its direction; zeros while it is lost."""

    __slots__ = ("_slot", "_start")

    def __init__(self, hand: str, start: int) -> None:
        """Follow that hand; write into the row from `start` on."""
        self._start = start
        self._slot = CONTROLS[f"{hand}.pose"].slot

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        """Write both: right, forward and up each."""
        right, up, back, x, y, z, w = state.values[self._slot : self._slot + 7]
        row[self._start : self._start + 3] = right, 0.0 - back, up
        direction = (0.0, 0.0, 0.0)
        if not x == y == z == w == 0.0:
            across, rising, behind = turned_ahead(x, y, z, w)
            direction = (across, 0.0 - behind, rising)
        row[self._start + 3 : self._start + 6] = direction
        return False
