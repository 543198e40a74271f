"""From held state to the raw numbers of a sample."""

from collections.abc import MutableSequence, Sequence
from typing import Protocol

from wendonic.devices.controls import CONTROLS, DEVICES, Control, find_kind
from wendonic.devices.hand_swing import HandSwing
from wendonic.devices.pointing import AheadReader, AimReader, GoalReader, PointReader
from wendonic.devices.press_order import KeyTaps, PressOrder
from wendonic.devices.press_reader import PressReader
from wendonic.devices.sample_places import SamplePlaces, sample_places
from wendonic.devices.sources import (
    AxesSource,
    GoalSource,
    GyroSource,
    HandsSource,
    KeysSource,
    ModeSources,
    MouseSource,
    PointerSource,
    Source,
    StickSource,
    TouchDragSource,
    TouchStickSource,
    TouchZonesSource,
    TriggersSource,
    find_axis,
    find_switch,
    source_device,
)
from wendonic.devices.state import Change, DeviceState
from wendonic.devices.touches import FingerDrag, ThumbStick, ZoneLists

_MOUSE = CONTROLS["mouse.move"].slot
_WHEEL = CONTROLS["mouse.wheel"].slot
_POINTER = CONTROLS["pointer.at"].slot


CHANNELS = ("move", "rise", "throttle", "turn", "look")


class _Reader(Protocol):
    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        """Write what a source has into its places of the row; return whether it is gone with this tick."""


class _Follower(Protocol):
    @property
    def watched(self) -> tuple[int, ...]:
        """Slots whose every change it wants."""

    def begin(self, values: Sequence[float], landings: Sequence[tuple[float, float]]) -> None:
        """Begin with what is held, and where touches landed."""

    def take(self, change: Change) -> None:
        """Follow one change."""


class _Axes:
    """Axes of their own, or the difference of two."""

    __slots__ = ("_places",)

    def __init__(self, source: AxesSource | TriggersSource, start: int) -> None:
        self._places: list[tuple[int, int, float]] = []
        names = (source.x, source.y) if isinstance(source, AxesSource) else (source.positive, source.negative)
        for index, name in enumerate(names):
            if name:
                _, slot, sign = find_axis(name)
                if isinstance(source, TriggersSource) and index == 1:
                    self._places.append((start, slot, -sign))
                else:
                    self._places.append((start + index, slot, sign))

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        for place, _, _ in self._places:
            row[place] = 0.0
        for place, slot, sign in self._places:
            row[place] += state.values[slot] * sign
        return False


class _Pointer:
    """The pointer seen from the window's middle."""

    __slots__ = ("_held", "_source", "_start")

    def __init__(self, source: PointerSource, start: int) -> None:
        self._source = source
        self._start = start
        self._held = [find_switch(name).slot for name in source.while_held]

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        values = state.values
        right = ahead = 0.0
        if not self._held or any(values[slot] > 0.5 for slot in self._held):
            right = (values[_POINTER] - 0.5) * self._source.aspect_ratio / self._source.reach
            ahead = (0.5 - values[_POINTER + 1]) / self._source.reach
        row[self._start], row[self._start + 1] = right, ahead
        return False


class _Mouse:
    """Counts since the last tick, right and up."""

    __slots__ = ("_start",)

    def __init__(self, start: int) -> None:
        self._start = start

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        right, down = state.values[_MOUSE], state.values[_MOUSE + 1]
        row[self._start], row[self._start + 1] = right, 0.0 - down
        return right != 0.0 or down != 0.0


class _Gyro:
    """A pad's rates, and what its accelerometer feels: three numbers each, as they come."""

    __slots__ = ("_accel", "_gyro", "_start")

    def __init__(self, control: Control, start: int) -> None:
        self._gyro = control.slot
        self._accel = find_kind(f"{control.unit}.accel", "rates").slot
        self._start = start

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        values, start, gyro, accel = state.values, self._start, self._gyro, self._accel
        row[start : start + 3] = values[gyro : gyro + 3]
        row[start + 3 : start + 6] = values[accel : accel + 3]
        return False


class _Across:
    """What a game seen from the side leaves of `move`: nothing ahead or back."""

    __slots__ = ("_places",)

    def __init__(self, places: Sequence[int]) -> None:
        self._places = places

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:  # noqa: ARG002
        for place in self._places:
            row[place] = 0.0
        return False


class _Goal(GoalReader):
    """A goal, which tells the sampler what device it came from."""

    __slots__ = ("_sampler",)

    def __init__(self, sampler: "Sampler", sources: Sequence[GoalSource], start: int) -> None:
        super().__init__(sources, start)
        self._sampler = sampler

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        given = super().read(state, row)
        if given or not self._sampler.presses:
            self._sampler.press_device = self.device if given else -1
        return given


class Sampler:
    """Writes the raw numbers of a mode's sources into a row, and counts the edges of its presses.

    Names are resolved once. A sampler goes with one state and one row: what has not changed is not looked at again.
    Here, at the door, signs are turned for good: a stick's y, positive towards the player in its own standard,
    becomes positive forward.

    >>> from wendonic.devices.event import Event
    >>> sampler = Sampler(ModeSources(move=[KeysSource(ahead=["KeyW", "ArrowUp"]), StickSource("pad.left_stick")]))
    >>> state, row = DeviceState(), sampler.row()
    >>> sampler.begin(state)
    >>> state.apply(Event(0.0, "key.ArrowUp", 1))
    >>> state.apply(Event(0.0, "pad.left_stick", (0.5, -0.8)))
    >>> sampler.fill(state, row)
    False
    >>> row[:6]
    [0.0, 0.0, 1.0, 0.0, 0.5, 0.8]
    """

    __slots__ = (
        "_edges_are_new",
        "_followers",
        "_keys",
        "_readers",
        "_sticks",
        "_switch_changes_seen",
        "_taps",
        "_watched",
        "devices",
        "has_edges",
        "places",
        "press_device",
        "presses",
        "sources",
    )

    def __init__(self, sources: ModeSources) -> None:
        """Resolve every control; raises `ControlError` for an unknown one."""
        self.sources = sources
        self.places: SamplePlaces = sample_places(sources)
        """Where everything stands in a row."""
        self._taps = sources.taps
        along: list[int] = []
        self._switch_changes_seen = -1
        self._edges_are_new = True
        self._keys: list[tuple[int, tuple[int, ...]]] = []
        self._sticks: list[tuple[int, int]] = []
        self._readers: list[_Reader] = []
        self._followers: list[_Follower] = []
        self.devices: list[int] = []
        """Which of `DEVICES` each source belongs to, by its number; a last one stands for none."""
        self.has_edges = False
        """Whether a press went down or up since the last tick."""
        self.press_device = -1
        """Which of `DEVICES` made a press go down since the last tick, -1 for none."""
        for channel, of_channel in zip(CHANNELS, sources.channels, strict=True):
            for source, start in zip(of_channel, self.places.channels[channel], strict=True):
                self.devices.append(DEVICES.index(source_device(source)))
                if channel == "move" and sources.across and not isinstance(source, HandsSource):
                    # Forward and back are of no use: keys have them in places three and four, all others in one.
                    keys = isinstance(source, KeysSource | TouchZonesSource)
                    along += [start + 2, start + 3] if keys else [start + 1]
                self._add(source, start)
        self.devices.append(-1)
        if along:
            self._readers.append(_Across(along))
        if sources.goal is not None:
            self._follow(_Goal(self, sources.goal, self.places.goal))
        if sources.aims:
            self._readers.append(AimReader(self.places.aim))
        if sources.tracks:
            self._readers.append(AheadReader(self.places.pointers, self.places.head))
        if sources.points:
            self._readers.append(PointReader(sources.points, self.places.pointing))
        self.presses = [PressReader(binds) for binds in sources.presses]
        by_slot: dict[int, list[_Follower | PressReader]] = {}
        followers: list[_Follower | PressReader] = [*self._followers, *self.presses]
        for follower in followers:
            for slot in follower.watched:
                by_slot.setdefault(slot, []).append(follower)
        self._watched = by_slot

    def row(self) -> list[float]:
        """Return a row at rest, on level ground of which nobody has told."""
        return list(self.places.at_rest)

    def _add(self, source: Source, start: int) -> None:
        match source:
            case KeysSource() if self._taps:
                self._follow(KeyTaps(source, start))
            case KeysSource(right, left, ahead, back, "cancel"):
                for place, names in enumerate((right, left, ahead, back), start):
                    self._keys.append((place, tuple(find_switch(name).slot for name in names)))
            case KeysSource():
                self._follow(PressOrder(source, start))
            case StickSource(control):
                self._sticks.append((start, find_kind(control, "stick").slot))
            case AxesSource() | TriggersSource():
                self._readers.append(_Axes(source, start))
            case TouchZonesSource():
                self._follow(ZoneLists(source, start))
            case TouchStickSource():
                self._follow(ThumbStick(source, start))
            case TouchDragSource():
                self._follow(FingerDrag(source, start))
            case PointerSource():
                self._readers.append(_Pointer(source, start))
            case HandsSource():
                self._follow(HandSwing(source, start))
            case MouseSource():
                self._readers.append(_Mouse(start))
            case GyroSource(control):
                self._readers.append(_Gyro(find_kind(control, "rates"), start))

    def _follow(
        self, reader: PressOrder | KeyTaps | ZoneLists | ThumbStick | FingerDrag | HandSwing | GoalReader
    ) -> None:
        self._readers.append(reader)
        self._followers.append(reader)

    def begin(self, state: DeviceState, carried: Sequence[bool] = ()) -> None:
        """Begin with what `state` held at the last tick, for a row that is new; presses that are `carried` over go
        on.

        Changes that no tick has taken yet come with the next `fill`. From here on `state` watches for this sampler.
        """
        state.watched |= self.watched
        values, landings = state.values_before_kept(), state.landings
        self._switch_changes_seen = -1
        self._edges_are_new = True
        for follower in self._followers:
            follower.begin(values, landings)
        for index, press in enumerate(self.presses):
            press.begin(values, landings, index < len(carried) and carried[index])

    @property
    def watched(self) -> frozenset[int]:
        """Slots of the controls whose every change it follows."""
        return frozenset(self._watched)

    def fill(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        """Write what `state` holds, and what came together in it, into `row`; places of silent sources stay.

        Returns whether some of it belongs to this tick alone, so that the row has to be filled anew for the next.
        """
        values = state.values
        gone = False
        if self.presses:
            gone = self._fill_presses(state, row)
        elif state.kept:
            self._follow_changes(state)
        if state.switch_changes != self._switch_changes_seen:
            self._switch_changes_seen = state.switch_changes
            for place, slots in self._keys:
                down = 0.0
                for slot in slots:
                    if values[slot] > 0.5:
                        down = 1.0
                row[place] = down
        for place, slot in self._sticks:
            row[place] = values[slot]
            # Not a bare minus: that would make a resting stick read -0.0.
            row[place + 1] = 0.0 - values[slot + 1]
        for reader in self._readers:
            if reader.read(state, row):
                gone = True
        values[_MOUSE] = values[_MOUSE + 1] = values[_WHEEL] = 0.0
        return gone

    def _follow_changes(self, state: DeviceState) -> None:
        for change in state.take_kept():
            for follower in self._watched.get(change.slot, ()):
                follower.take(change)

    def _fill_presses(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        """Follow what changed, and write downs and edges where there are any new ones, or were in the last tick."""
        had_edges = self.has_edges or self._edges_are_new
        gone = self.has_edges = self._begin_presses()
        if state.kept:
            self._follow_changes(state)
            gone = self.has_edges = self._end_presses()
        if gone or had_edges:
            place = self.places.presses
            for press in self.presses:
                row[place] = 1.0 if press.down else 0.0
                row[place + 1] = float(press.edges)
                row[place + 2] = 1.0 if press.lost else 0.0
                place += 3
        return gone

    def note(self, changes: Sequence[Change]) -> None:
        """Follow what another mode's sampler took, so that a trigger held half-way is known to be held or not."""
        for change in changes:
            for follower in self._watched.get(change.slot, ()):
                if isinstance(follower, PressReader):
                    follower.note(change)

    def _begin_presses(self) -> bool:
        """Forget the edges that have been handed out; return whether there are any that have not."""
        self.press_device = -1
        if self._edges_are_new:
            self._edges_are_new = False
            return any(press.edges for press in self.presses)
        for press in self.presses:
            press.clear()
        return False

    def _end_presses(self) -> bool:
        """Note the device of the last press that went down; return whether there are edges."""
        edges = False
        for press in self.presses:
            if press.edges:
                edges = True
                if press.device:
                    self.press_device = DEVICES.index(press.device)
        return edges
