"""The raw numbers of each tick of a recording, computed once, whatever the profile's numbers."""

import math
from collections import OrderedDict
from typing import TYPE_CHECKING, NamedTuple
from weakref import WeakKeyDictionary

from wendonic.devices.controls import CONTROLS, find_control
from wendonic.devices.event import Event
from wendonic.devices.sampler import CHANNELS, Sampler
from wendonic.devices.sources.axes import AxesSource
from wendonic.devices.sources.mode import ModeSources
from wendonic.devices.state import RELEASED_BY, DeviceState
from wendonic.recording.recording import Recording

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

KEPT = 16
"""Number of bindings per recording whose samples are kept."""


class Samples(NamedTuple):
    """The raw numbers of a recording for a mode, before any shaping: one row per tick.

    `t` is the recording's own time at the end of each tick, `press_devices` the device (an index in `DEVICES`) on
    which a press went down, -1 for none, and `devices` that of each source.
    """

    t: "NDArray[np.float64]"
    rows: "NDArray[np.float64]"
    press_devices: "NDArray[np.intp]"
    devices: tuple[int, ...]


_KEPT: "WeakKeyDictionary[Recording, OrderedDict[tuple[float, str], Samples]]" = WeakKeyDictionary()


def samples_of(recording: Recording, hz: float, sources: ModeSources) -> Samples:
    """Return the raw numbers of every tick; the results for a recording's last few bindings are kept."""
    kept = _KEPT.setdefault(recording, OrderedDict())
    key = (float(hz), repr(sources))
    found = kept.get(key)
    if found is None:
        found = kept[key] = sampled(recording, hz, sources)
        if len(kept) > KEPT:
            kept.popitem(last=False)
    kept.move_to_end(key)
    return found


def sampled(recording: Recording, hz: float, sources: ModeSources) -> Samples:
    """Return the sampler's row at the end of each tick of a recording.

    Sticks, mouse and view, which have many events that are nothing but numbers, are processed as whole columns;
    everything else goes event by event through a `DeviceState`, which visits only ticks with events.
    """
    import numpy as np

    times = recording.tick_times(hz)
    state = DeviceState()
    sampler = Sampler(sources)
    sampler.begin(state)
    whole = _whole_columns(sampler, sources)
    _, apart, others, other_indices = found = recording.parted(frozenset(whole) | {"view"})
    tick_of = np.searchsorted(times, found.t)
    rows, marks, devices = _by_events(state, sampler, others, tick_of[other_indices].tolist(), len(times))
    which = np.zeros(len(times), dtype=np.intp)
    which[marks] = np.arange(1, len(marks) + 1)
    np.maximum.accumulate(which, out=which)
    filled = np.array(rows).reshape(len(rows), len(sampler.layout.at_rest)).take(which, axis=0)
    lost = [
        (index, event.control)
        for index, event in zip(other_indices.tolist(), others, strict=True)
        if event.control in RELEASED_BY
    ]
    for name, starts in whole.items():
        control = CONTROLS[name]
        numbers = np.clip(apart[name].numbers, control.low, control.high)
        indices = apart[name].indices
        if control.kind == "counts":
            ticks = tick_of[indices]
            right = np.bincount(ticks, numbers[:, 0], len(times)).astype(np.float64)
            down = np.bincount(ticks, numbers[:, 1], len(times)).astype(np.float64)
        else:
            released = [index for index, loss in lost if control in RELEASED_BY[loss]]
            order = np.argsort(np.concatenate([indices, released]), kind="stable")
            ticks = tick_of[np.concatenate([indices, released]).astype(np.intp)[order]]
            right, down = _standing(ticks, np.concatenate([numbers, np.zeros((len(released), 2))])[order], len(times))
        for start in starts:
            filled[:, start], filled[:, start + 1] = right, 0.0 - down
    if len(apart["view"].indices):
        view, control = sampler.layout.view, CONTROLS["view"]
        ticks = tick_of[apart["view"].indices]
        filled[ticks, view] = 1.0
        angles = np.clip(apart["view"].numbers, control.low, control.high) * (math.pi / 180.0)
        filled[:, view + 1], filled[:, view + 2] = _standing(ticks, angles, len(times))
    return Samples(times, filled, np.array(devices, dtype=np.intp)[which], tuple(sampler.devices))


def _whole_columns(sampler: Sampler, sources: ModeSources) -> dict[str, list[int]]:
    """Return the controls whose numbers go into a row unchanged, each with the indices at which they begin."""
    found: dict[str, list[int]] = {}
    if any(isinstance(source, AxesSource) for channel in sources.channels for source in channel):
        return found
    for channel, of_channel in zip(CHANNELS, sources.channels, strict=True):
        for source, start in zip(of_channel, sampler.layout.channels[channel], strict=True):
            if source.plain_control():
                control = find_control(source.plain_control())
                if control.slot not in sampler.watched:
                    found.setdefault(control.name, []).append(start)
    return found


def _by_events(
    state: DeviceState, sampler: Sampler, events: list[Event], ticks: list[int], count: int
) -> tuple[list[list[float]], list[int], list[int]]:
    """Return the rows that differ from the one before, beginning at rest, their ticks, and the devices whose presses
    went down.
    """
    row = sampler.row()
    rows: list[list[float]] = [row.copy()]
    marks: list[int] = []
    devices = [-1]
    seen, index, tick = -1, 0, 0
    while tick < count:
        while index < len(events) and ticks[index] == tick:
            state.apply(events[index])
            index += 1
        if state.changes != seen:
            seen = -1 if sampler.fill(state, row) else state.changes
            rows.append(row.copy())
            marks.append(tick)
            devices.append(sampler.press_device)
        # Values that hold for one tick must be reset in the next.
        tick = tick + 1 if seen < 0 else ticks[index] if index < len(events) else count
    return rows, marks, devices


def _standing(
    ticks: "NDArray[np.intp]", numbers: "NDArray[np.float64]", count: int
) -> "tuple[NDArray[np.float64], NDArray[np.float64]]":
    """Return the latest pair of numbers at the end of each tick, 0 before the first."""
    import numpy as np

    last = np.bincount(ticks, minlength=count).cumsum()
    known = np.concatenate([np.zeros((1, 2)), numbers])
    return known[last, 0], known[last, 1]
