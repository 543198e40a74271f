"""A recording in memory."""

import heapq
import math
import operator
from collections.abc import Iterable, Iterator, Sequence
from functools import cached_property
from pathlib import Path
from typing import TYPE_CHECKING, Any, overload

from wendonic.counted import counted
from wendonic.devices.controls import CONTROLS, RELEASES, Device
from wendonic.devices.event import Event, at_rest
from wendonic.errors import Fault, RecordingError, WendonicError
from wendonic.recording.columns import ColumnEvents, Parted, parted
from wendonic.recording.content import Content, Entry, numbers_of, ordered_events
from wendonic.recording.formats import read_content, write_content
from wendonic.recording.gamepad_snapshots import read_gamepad_snapshots
from wendonic.recording.linux_input import read_linux_input
from wendonic.significant import clock_s

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

HIGHEST_HZ = 10_000.0
"""Highest tick rate for a recording; more is a slip of the finger."""

MOST_TICKS = 10_000_000
"""Most ticks of one recording: 46 h at 60 Hz. More means a clock that jumped, and would only fill the memory."""


PASSING = frozenset({"mark", "counts", "wheel", "reported"})
"""Kinds of control that are momentary and cannot be held."""

LASTING = frozenset({"body.ground", "mode", "square"})
"""Reports of a game that hold until the next report."""


def _entries(events: Iterable[Event], faults: list[Fault]) -> Iterator[Entry]:
    """Yield events that are not checked yet; anything that is not an event is added to `faults`."""
    for number, event in enumerate(events):
        where = f"event {number}"
        if isinstance(event, tuple) and len(event) == len(Event._fields):
            yield Entry(None, where, *event)
        else:
            faults.append(Fault(None, where, f"found {event!r}; allowed: an Event(t, control, value)"))


Held = str | tuple[float, ...]
"""A thing that can be held: a control, or one of many blocked squares."""


def _key_of(event: Event) -> Held:
    return numbers_of(event.value)[:2] if event.control == "square" else event.control


def _has_slid(finger: Event, landing: Event | None) -> bool:
    return landing is not None and numbers_of(finger.value)[:2] != numbers_of(landing.value)[:2]


class Recording(Sequence[Event]):
    """Events in the order of time, with a title. It is an immutable sequence of events.

    `t` may begin anywhere and never falls. Every event is checked: an unknown control, a value that does not fit or
    is not finite, or a falling time raises `RecordingError` with the index of each such event.

    >>> walk = Recording([Event(0.0, "key.KeyW", 1), Event(1.5, "key.KeyW", 0)], title="Three steps")
    >>> walk
    <Recording "Three steps": 2 events in 1.500 s, keys>
    >>> len(walk), walk.duration_s, walk.devices
    (2, 1.5, ('keys',))
    """

    def __init__(self, events: Iterable[Event] = (), title: str = "", header: dict[str, Any] | None = None) -> None:
        """Check and keep the events. `header` holds further entries of the file's first line, kept as they are."""
        faults: list[Fault] = []
        checked = ordered_events(_entries(events, faults), faults)
        if faults:
            raise RecordingError("events", faults)
        self._keep(checked, title, header, ())

    def _keep(
        self, events: Sequence[Event], title: str, header: dict[str, Any] | None, warnings: tuple[str, ...]
    ) -> None:
        self._events = events
        self.title = title
        self.header = header or {}
        self.warnings = warnings
        """What was left out when the file was read, in words."""

    @classmethod
    def from_checked(
        cls,
        events: Sequence[Event],
        title: str = "",
        header: dict[str, Any] | None = None,
        warnings: tuple[str, ...] = (),
    ) -> "Recording":
        """Wrap events that are known to be valid and in order, without checking them again.

        >>> Recording.from_checked([Event(0.0, "key.KeyW", 1.0)]).duration_s
        0.0
        """
        recording = cls.__new__(cls)
        recording._keep(events, title, header, warnings)
        return recording

    @classmethod
    def read(cls, path: str | Path) -> "Recording":
        """Read a recording file: `.csv`, `.parquet`, or else JSON Lines.

        Raises `RecordingError` with every fault at once, and where each of them is.

        >>> from wendonic.demo import FOLDER
        >>> Recording.read(FOLDER / "cart_ride.jsonl").devices
        ('keys', 'pad')
        """
        return cls.from_checked(*read_content(path))

    @classmethod
    def read_linux_input(
        cls,
        path: str | Path,
        layout: int = 64,
        stick_range: tuple[int, int] | None = None,
        trigger_range: tuple[int, int] | None = None,
    ) -> "Recording":
        """Read a capture of a Linux input device; see `wendonic.recording.linux_input.read_linux_input`.

        >>> from wendonic.demo import FOLDER
        >>> Recording.read_linux_input(FOLDER / "beekeeper_capture.bin").devices
        ('keys', 'mouse', 'pad')
        """
        return cls.from_checked(*read_linux_input(path, layout, stick_range, trigger_range))

    @classmethod
    def read_gamepad_snapshots(cls, path: str | Path) -> "Recording":
        """Read a web page's log of a pad; see `wendonic.recording.gamepad_snapshots.read_gamepad_snapshots`.

        >>> Recording.read_gamepad_snapshots("no_such_log.jsonl")
        Traceback (most recent call last):
        wendonic.errors.RecordingError: no_such_log.jsonl: cannot be read: No such file or directory
        """
        return cls.from_checked(*read_gamepad_snapshots(path))

    def write(self, path: str | Path) -> None:
        """Write a recording file, whole or not at all: `.csv` (no title), `.parquet`, or `.jsonl`.

        >>> import tempfile
        >>> with tempfile.TemporaryDirectory() as folder:
        ...     Recording([Event(0.0, "key.KeyW", 1)]).write(f"{folder}/walk.csv")
        ...     Recording.read(f"{folder}/walk.csv")[0]
        Event(t=0.0, control='key.KeyW', value=1.0)
        """
        write_content(Content(self._events, self.title, self.header, ()), self.devices, path)

    @overload
    def __getitem__(self, index: int) -> Event: ...
    @overload
    def __getitem__(self, index: slice) -> list[Event]: ...
    def __getitem__(self, index: int | slice) -> Event | list[Event]:
        """Return one event, or a list of them."""
        return list(self._events[index]) if isinstance(index, slice) else self._events[index]

    def __len__(self) -> int:
        """Return how many events there are."""
        return len(self._events)

    def __iter__(self) -> Iterator[Event]:
        """Iterate over the events in the order of time."""
        return iter(self._events)

    def __eq__(self, other: object) -> bool:
        """Return whether title, header and events are equal.

        >>> Recording([Event(0.0, "key.KeyW", 1)], "A") == Recording([Event(0.0, "key.KeyW", 1.0)], "A")
        True
        """
        if not isinstance(other, Recording):
            return NotImplemented
        same = (self.title, self.header, len(self)) == (other.title, other.header, len(other))
        return same and self._ends() == other._ends() and all(map(operator.eq, self, other))

    def __hash__(self) -> int:
        """Return a hash of title, size and length."""
        return hash((self.title, len(self), self._ends()))

    def __repr__(self) -> str:
        """Return title, size, length and devices."""
        devices = ", ".join(self.devices) or "no device"
        return f'<Recording "{self.title}": {counted(len(self), "event")} in {self.duration_s:.3f} s, {devices}>'

    @property
    def start_s(self) -> float:
        """Time of the first event; 0 for an empty recording."""
        return self._ends()[0]

    @property
    def duration_s(self) -> float:
        """Time from the first event to the last."""
        start_s, end_s = self._ends()
        return end_s - start_s

    def _ends(self) -> tuple[float, float]:
        """Return the times of the first event and the last, without making events of columns."""
        events = self._events
        if not len(events):
            return 0.0, 0.0
        if isinstance(events, ColumnEvents):
            return float(events.times[0]), float(events.times[-1])
        return events[0].t, events[-1].t

    @cached_property
    def controls(self) -> frozenset[str]:
        """The names of all controls that have events."""
        if isinstance(self._events, ColumnEvents):
            return self._events.controls()
        return frozenset([event.control for event in self._events])

    @property
    def devices(self) -> tuple[Device, ...]:
        """The devices that have events, in the order of their first one."""
        names = dict.fromkeys(event.control for event in self._events)
        return tuple(dict.fromkeys(device for name in names if (device := CONTROLS[name].device)))

    def between(self, start_s: float, end_s: float) -> "Recording":
        """Return the stretch from `start_s` to `end_s`, both ends included, with its times unchanged.

        Everything that holds when it begins, the view too, is reported again at `start_s`, so that a key pressed
        before is still down; a finger lands where it had landed and is then where it was, which does not count as
        motion. Controls held at the end stay held. Raises `WendonicError` if the end is before the start.

        >>> walk = Recording([Event(0.0, "key.KeyW", 1), Event(3.0, "key.KeyW", 0)])
        >>> list(walk.between(1.0, 2.0))
        [Event(t=1.0, control='key.KeyW', value=1.0)]
        """
        if not start_s <= end_s or start_s == math.inf:
            raise WendonicError(
                f"from {clock_s(start_s)} s to {clock_s(end_s)} s; allowed: the end not before the start"
            )
        held: dict[Held, Event] = {}
        landed: dict[str, Event] = {}
        inside: list[Event] = []
        for event in self._events:
            if event.t >= start_s:
                if event.t <= end_s:
                    inside.append(event)
                continue
            kind = CONTROLS[event.control].kind
            if kind == "loss":
                released = RELEASES[event.control]
                held = {key: old for key, old in held.items() if CONTROLS[old.control].unit not in released}
            elif kind not in PASSING or event.control in LASTING:
                if kind == "touch" and (event.control not in held or at_rest(held[event.control])):
                    landed[event.control] = event
                held[_key_of(event)] = event
        # A key that is up again is at rest, like everything at the start of a recording.
        standing = [event._replace(t=float(start_s)) for event in held.values() if not at_rest(event)]
        # The window comes before everything that is measured by it.
        standing.sort(key=lambda event: event.control != "window")
        slid = [landed[event.control] for event in standing if _has_slid(event, landed.get(event.control))]
        if slid:
            # The motion from there to here belongs to the past.
            landings = [event._replace(t=float(start_s)) for event in slid]
            first = 1 if standing[0].control == "window" else 0
            standing = [*standing[:first], *landings, *standing[first:], Event(float(start_s), "discard", 1.0)]
        return Recording.from_checked(standing + inside, self.title, self.header)

    def shifted(self, start_s: float = 0.0) -> "Recording":
        """Return the same events, shifted in time so that the first is at `start_s`.

        >>> Recording([Event(7.5, "key.KeyW", 1)]).shifted()[0].t
        0.0
        """
        events = [event._replace(t=event.t - self.start_s + start_s) for event in self._events]
        return Recording.from_checked(events, self.title, self.header)

    def __add__(self, other: "Recording") -> "Recording":
        """Return the events of both in the order of time; at the same time those of the first come first.

        The title is the first one's, or the second's where the first has none.

        >>> keys, pad = Recording([Event(1.0, "key.KeyW", 1)]), Recording([Event(0.5, "pad.south", 1)])
        >>> [event.t for event in keys + pad]
        [0.5, 1.0]
        """
        events = list(heapq.merge(self._events, other._events, key=lambda event: event.t))
        return Recording.from_checked(events, self.title or other.title, other.header | self.header)

    def _check_rate(self, hz: float) -> None:
        if not 0.0 < hz <= HIGHEST_HZ:
            raise WendonicError(f"hz: found {hz:g}; allowed: above 0, up to {HIGHEST_HZ:g} ticks a second")
        if self.duration_s * hz > MOST_TICKS:
            raise WendonicError(
                f"{self.duration_s:g} s at {hz:g} ticks a second; allowed: up to {MOST_TICKS:,} ticks; cut the "
                "recording with between(), or take a lower hz"
            )

    def tick_times(self, hz: float) -> "NDArray[np.float64]":
        """Return the time at which each tick of `ticks` ends (s).

        >>> Recording([Event(0.0, "key.KeyW", 1), Event(0.3, "key.KeyW", 0)]).tick_times(hz=5).tolist()
        [0.2, 0.4]
        """
        import numpy as np

        self._check_rate(hz)
        if not len(self._events):
            return np.zeros(0)
        # One more than possible, then as many as it takes to reach the last event.
        times: NDArray[np.float64] = self.start_s + np.arange(1, math.ceil(self.duration_s * hz) + 3) / hz
        return times[: int(np.searchsorted(times, self._ends()[1])) + 1]

    def parted(self, controls: frozenset[str]) -> Parted:
        """Return the events of some controls as numbers, and all others as events; see `columns.Parted`.

        >>> walk = Recording([Event(0.0, "key.KeyW", 1), Event(0.1, "mouse.move", (3, 1))])
        >>> [event.control for event in walk.parted(frozenset(("mouse.move",))).others]
        ['key.KeyW']
        """
        return parted(self._events, controls)

    def ticks(self, hz: float) -> Iterator[tuple[float, list[Event]]]:
        """Yield the time and the events of each tick at `hz` ticks a second.

        Tick k (from 1) ends at start + k / hz and has the events after the end of the tick before, up to and
        including its own end. The last tick is the first one after which no event is left, so every event comes
        exactly once. Raises `WendonicError` for an impossible `hz`, and for more than MOST_TICKS ticks.

        >>> walk = Recording([Event(0.0, "key.KeyW", 1), Event(0.3, "key.KeyW", 0)])
        >>> [(t, len(events)) for t, events in walk.ticks(hz=5)]
        [(0.2, 1), (0.4, 1)]
        """
        self._check_rate(hz)
        events = list(self._events)
        index = 0
        number = 0
        while index < len(events):
            number += 1
            t = self.start_s + number / hz
            first = index
            while index < len(events) and events[index].t <= t:
                index += 1
            yield t, events[first:index]


def known_recording(given: object) -> Recording:
    """Return the argument if it is a recording; raises `WendonicError` for anything else, such as a path.

    >>> known_recording("walk.jsonl")
    Traceback (most recent call last):
    wendonic.errors.WendonicError: found 'walk.jsonl'; allowed: a Recording, as Recording.read returns it
    """
    if not isinstance(given, Recording):
        raise WendonicError(f"found {given!r}; allowed: a Recording, as Recording.read returns it")
    return given
