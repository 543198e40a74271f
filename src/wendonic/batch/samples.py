"""From a recording to the raw numbers of each tick: once a recording and binding, whatever the profile's numbers."""

import math
from collections import OrderedDict
from typing import TYPE_CHECKING, NamedTuple
from weakref import WeakKeyDictionary

from wendonic.devices.controls import CONTROLS
from wendonic.devices.sampler import Sampler
from wendonic.devices.sources import ModeSources
from wendonic.devices.state import DeviceState
from wendonic.recording.recording import Recording

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

KEPT = 16
"""Bindings of a recording whose numbers are kept."""


class Samples(NamedTuple):
    """What a recording gives a mode before any shaping: one row a tick.

    `t` is the recording's own time at the end of each tick; `press_devices` which of `DEVICES` made a press go down,
    -1 for none; `devices` which each source belongs to, by its number.
    """

    t: "NDArray[np.float64]"
    rows: "NDArray[np.float64]"
    press_devices: "NDArray[np.intp]"
    devices: tuple[int, ...]


_KEPT: "WeakKeyDictionary[Recording, OrderedDict[tuple[float, str], Samples]]" = WeakKeyDictionary()


def samples_of(recording: Recording, hz: float, sources: ModeSources) -> Samples:
    """Return the raw numbers of every tick; those of a recording's last few bindings are kept."""
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
    """Feed a recording to a `DeviceState`, and give what the sampler sees at the end of each tick."""
    import numpy as np

    state = DeviceState()
    sampler = Sampler(sources)
    sampler.begin(state)
    view_slot, view_place = CONTROLS["view"].slot, sampler.places.view
    row = sampler.row()
    # In most ticks nothing is new: what they have in common is kept once.
    rows: list[list[float]] = [row.copy()]
    seen, views_seen = -1, 0
    times: list[float] = []
    which: list[int] = []
    devices: list[int] = []
    for t, events in recording.ticks(hz):
        for event in events:
            state.apply(event)
        changed = state.changes != seen
        if changed:
            seen = -1 if sampler.fill(state, row) else state.changes
        if row[view_place] > 0.0:
            row[view_place] = 0.0
            changed = True
        if state.view_changes != views_seen:
            views_seen = state.view_changes
            yaw_deg, pitch_deg = state.values[view_slot], state.values[view_slot + 1]
            row[view_place : view_place + 3] = 1.0, yaw_deg * (math.pi / 180.0), pitch_deg * (math.pi / 180.0)
            changed = True
        if changed:
            rows.append(row.copy())
        times.append(t)
        which.append(len(rows) - 1)
        devices.append(sampler.press_device)
    return Samples(
        np.array(times),
        np.array(rows)[which].reshape(len(times), len(row)),
        np.array(devices, dtype=np.intp),
        tuple(sampler.devices),
    )
