"""From held state to the raw numbers of a sample."""

from collections.abc import MutableSequence, Sequence

from wendonic.devices.controls import CONTROLS, DEVICES
from wendonic.devices.pointing import AimReader, ForwardReader, GoalReader, PointReader
from wendonic.devices.press_reader import PressReader
from wendonic.devices.sample_layout import SampleLayout, sample_layout
from wendonic.devices.sources.base import Displaced, Follower, Reader, Source
from wendonic.devices.sources.goal import GoalSource
from wendonic.devices.sources.keys import HeldKeys
from wendonic.devices.sources.mode import ModeSources
from wendonic.devices.sources.stick import StickSource
from wendonic.devices.state import Change, DeviceState

_MOUSE = CONTROLS["mouse.move"].slot
_MOUSE_Y = _MOUSE + 1
_WHEEL = CONTROLS["mouse.wheel"].slot


CHANNELS = ("move", "rise", "throttle", "turn", "look")


class _Goal(GoalReader):
    """The reader of goals, which also gives the device of a goal."""

    __slots__ = ("_sampler",)

    def __init__(self, sampler: "Sampler", sources: Sequence[GoalSource], start: int, wait: bool) -> None:
        super().__init__(sources, start, wait)
        self._sampler = sampler

    def read(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        given = super().read(state, row)
        if given or not self._sampler.presses:
            self._sampler.press_device = self.device if given else -1
        return given


class Sampler:
    """Writes the raw numbers of a mode's sources into a row, and counts the edges of its presses.

    Names are resolved once. A sampler belongs to one state and one row: what has not changed is not read again. Signs
    are turned here, once: a stick's y, positive towards the player in its own standard, becomes positive forward.

    >>> from wendonic.devices.event import Event
    >>> from wendonic.devices.sources.keys import KeysSource
    >>> sampler = Sampler(ModeSources(move=[KeysSource(forward=["KeyW", "ArrowUp"]), StickSource("pad.left_stick")]))
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
        "_sticks",
        "_watched",
        "binds_presses",
        "devices",
        "has_edges",
        "layout",
        "press_device",
        "presses",
        "readers",
        "sources",
        "watched",
    )

    def __init__(self, sources: ModeSources) -> None:
        """Resolve every control; raises `ControlError` for an unknown one."""
        self.sources = sources
        self.layout: SampleLayout = sample_layout(sources)
        """Where everything is in a row."""
        self._edges_are_new = True
        self._sticks: list[tuple[int, int]] = []
        self.readers: list[Reader] = []
        """Readers of all sources that are not plain sticks."""
        self._followers: list[Follower] = []
        self._keys: list[HeldKeys] = []
        self.devices: list[int] = []
        """The device (index in `DEVICES`) of each source, with a last entry for none."""
        self.has_edges = False
        """Whether a press went down or up since the last tick."""
        self.press_device = -1
        """The device (index in `DEVICES`) on which a press went down since the last tick, -1 for none."""
        for channel, of_channel in zip(CHANNELS, sources.channels, strict=True):
            first = len(self.readers)
            for source, start in zip(of_channel, self.layout.channels[channel], strict=True):
                self.devices.append(DEVICES.index(source.device()))
                self._add(source, start)
            keys = [reader for reader in self.readers[first:] if isinstance(reader, HeldKeys)]
            self._keys += keys[:1]
            for other in keys[1:]:
                other.count_with(keys[0])
        self.devices.append(-1)
        if sources.goal is not None:
            self._take_reader(_Goal(self, sources.goal, self.layout.goal, sources.goals_wait))
        if sources.aims:
            self.readers.append(AimReader(self.layout.aim))
        if sources.tracks:
            self.readers.append(ForwardReader(self.layout.pointers, self.layout.head))
        if sources.points:
            self.readers.append(PointReader(sources.points, self.layout.pointing))
        self.presses = [PressReader(binds) for binds in sources.presses]
        self.binds_presses = any(sources.presses)
        by_slot: dict[int, list[Follower | PressReader]] = {}
        followers: list[Follower | PressReader] = [*self._followers, *self.presses]
        for follower in followers:
            for slot in follower.watched:
                by_slot.setdefault(slot, []).append(follower)
        self._watched = by_slot
        self.watched = frozenset(by_slot)
        """Slots of the controls of which it needs every change."""

    def row(self) -> list[float]:
        """Return a row at rest, with no ground reported."""
        return list(self.layout.at_rest)

    def _add(self, source: Source, start: int) -> None:
        if isinstance(source, StickSource):
            self._sticks.append((start, source.slot()))
        else:
            self._take_reader(source.reader(start))

    def _take_reader(self, reader: Reader) -> None:
        self.readers.append(reader)
        if isinstance(reader, Follower):
            self._followers.append(reader)

    def begin(self, state: DeviceState, carried: Sequence[bool] = ()) -> None:
        """Begin a new row with what `state` held at the last tick; presses that are `carried` over continue.

        Changes that no tick has taken yet come with the next `fill`. From now on `state` keeps the changes that this
        sampler needs.
        """
        state.watched |= self.watched
        values, landings = state.values_before_kept(), state.landings
        self._edges_are_new = True
        for follower in self._followers:
            follower.begin(values, landings)
        for keys in self._keys:
            keys.put_in_order(state.order)
        for index, press in enumerate(self.presses):
            press.begin(values, landings, index < len(carried) and carried[index])

    def fill(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        """Write the levels and displacements of `state` into `row`; silent sources stay at rest.

        Return whether some of them hold for this tick only, so that the row has to be filled again for the next.
        """
        values = state.values
        gone = False
        if state.kept or self.has_edges or self._edges_are_new:
            if self.presses:
                gone = self._fill_presses(state, row)
            elif state.kept:
                self._follow_changes(state)
        elif self.presses:
            self.press_device = -1
        for start, slot in self._sticks:
            row[start] = values[slot]
            # No plain negation: a resting stick would read -0.0.
            row[start + 1] = 0.0 - values[slot + 1]
        for reader in self.readers:
            if reader.read(state, row):
                gone = True
        values[_MOUSE] = values[_MOUSE_Y] = values[_WHEEL] = 0.0
        return gone

    def _follow_changes(self, state: DeviceState) -> None:
        counts_end = state.counts_end
        for number, change in enumerate(state.take_kept(), 1):
            for follower in self._watched.get(change.slot, ()):
                follower.take(change)
            if number == counts_end:
                self._discard()

    def _discard(self) -> None:
        for reader in self._followers:
            if isinstance(reader, Displaced):
                reader.discard()

    def _fill_presses(self, state: DeviceState, row: MutableSequence[float]) -> bool:
        """Follow the changes, and write downs and edges if there are new ones, or were any in the last tick."""
        had_edges = self.has_edges or self._edges_are_new
        gone = self.has_edges = self._begin_presses()
        if state.kept:
            self._follow_changes(state)
            gone = self.has_edges = self._end_presses()
        if gone or had_edges:
            start = self.layout.presses
            for press in self.presses:
                row[start] = 1.0 if press.down else 0.0
                row[start + 1] = float(press.edges)
                row[start + 2] = float(press.lost)
                start += 3
        return gone

    def note(self, changes: Sequence[Change]) -> None:
        """Follow changes that another mode's sampler took, so that the state of a half-pressed trigger is known."""
        for change in changes:
            for follower in self._watched.get(change.slot, ()):
                if isinstance(follower, PressReader):
                    follower.note(change)

    def _begin_presses(self) -> bool:
        """Forget the edges that have been handed out; return whether there are others."""
        self.press_device = -1
        if self._edges_are_new:
            self._edges_are_new = False
            return any(press.edges for press in self.presses)
        if self.has_edges:
            for press in self.presses:
                press.clear()
        return False

    def _end_presses(self) -> bool:
        """Note the device of the last press that went down; return whether there are edges, or losses."""
        edges = False
        for press in self.presses:
            if press.edges or press.lost:
                edges = True
                if press.device:
                    self.press_device = DEVICES.index(press.device)
        return edges
