"""From held state to the raw numbers of a sample."""

from collections.abc import MutableSequence, Sequence
from typing import NamedTuple

from wendonic.devices.controls import Device, find_control, find_key
from wendonic.devices.state import DeviceState
from wendonic.errors import ControlError
from wendonic.kernels.pipeline import SOURCES
from wendonic.kernels.source import SOURCE_WIDTH


class KeysSource(NamedTuple):
    """Four lists of W3C key codes; one key of a list is enough."""

    right: Sequence[str] = ()
    left: Sequence[str] = ()
    ahead: Sequence[str] = ()
    back: Sequence[str] = ()

    @property
    def device(self) -> Device:
        """The device that has it."""
        return "keys"


class StickSource(NamedTuple):
    """One stick."""

    control: str

    @property
    def device(self) -> Device:
        """The device that has it."""
        return "pad"


Source = KeysSource | StickSource


class Sampler:
    """Writes the raw numbers of a channel's sources into a row, names resolved once.

    A sampler goes with one state and one row: keys that have not changed are not looked at again.
    Here, at the door, signs are turned for good: a stick's y, positive towards the player in its own
    standard, becomes positive ahead.

    >>> from wendonic.devices.event import Event
    >>> state, row = DeviceState(), [0.0] * 16
    >>> state.apply(Event(0.0, "key.ArrowUp", 1))
    >>> state.apply(Event(0.0, "pad.left_stick", (0.5, -0.8)))
    >>> Sampler([KeysSource(ahead=["KeyW", "ArrowUp"]), StickSource("pad.left_stick")]).fill(state, row)
    >>> row[:6]
    [0.0, 0.0, 1.0, 0.0, 0.5, 0.8]
    """

    __slots__ = ("_key_changes_seen", "_keys", "_sticks")

    def __init__(self, sources: Sequence[Source]) -> None:
        """Resolve every control; raises `ControlError` for an unknown one, or for more than `SOURCES` sources."""
        if len(sources) > SOURCES:
            raise ControlError(f"{len(sources)} sources for one channel; allowed: at most {SOURCES}")
        self._key_changes_seen = -1
        self._keys: list[tuple[int, tuple[int, ...]]] = []
        self._sticks: list[tuple[int, int]] = []
        for index, source in enumerate(sources):
            start = index * SOURCE_WIDTH
            if isinstance(source, KeysSource):
                for place, codes in enumerate(source):
                    self._keys.append((start + place, tuple(find_key(code).slot for code in codes)))
            else:
                stick = find_control(source.control)
                if stick.kind != "stick":
                    raise ControlError(f"{stick.name} is no stick")
                self._sticks.append((start, stick.slot))

    def forget(self) -> None:
        """Look at everything anew on the next `fill`, for a row that is new."""
        self._key_changes_seen = -1

    def fill(self, state: DeviceState, row: MutableSequence[float]) -> None:
        """Write what `state` holds into the first places of `row`; places of silent sources are left alone."""
        values = state.values
        if state.key_changes != self._key_changes_seen:
            self._key_changes_seen = state.key_changes
            for place, slots in self._keys:
                down = 0.0
                for slot in slots:
                    if values[slot]:
                        down = 1.0
                row[place] = down
        for place, slot in self._sticks:
            row[place] = values[slot]
            # Not a bare minus: that would make a resting stick read -0.0.
            row[place + 1] = 0.0 - values[slot + 1]
