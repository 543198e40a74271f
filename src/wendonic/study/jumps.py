"""Jumps as they are measured: how high, how long, and how early and late a press still counts."""

from typing import Any

import numpy as np

from wendonic.batch import Engine, shape
from wendonic.devices.event import Event
from wendonic.profile.schema import Profile
from wendonic.recording.recording import Recording
from wendonic.runtime.helm import Helm
from wendonic.study.press_entry import entry_changes

HZ = 1000.0
LONGEST_ALOFT_S = 10.0
FINEST_S = 1e-3
LONGEST_WAIT_S = 10.0


def jump_press(profile: Profile, mode: str) -> str | None:
    """Return the press that jumps in a mode: that of its gait, else one called so, else the first that waits for the
    ground; None without.
    """
    presses = profile.mode[mode].press
    gait = profile.gait_of(mode)
    if gait.jump:
        return gait.jump.press
    waiting = [name for name, press in presses.items() if press.waits_for_ground]
    return "jump" if "jump" in waiting else waiting[0] if waiting else None


def jump_rows(profile: Profile, mode: str, engine: Engine = "auto") -> dict[str, float | None]:
    """Return `jump_height_m`, `jump_aloft_s`, `jump_buffer_s` and `jump_grace_s`, so far as there are any."""
    name = jump_press(profile, mode)
    press = profile.mode[mode].press.get(name) if name else None
    if name is None or press is None or press.style not in ("hold", "toggle"):
        return {}
    down, _ = entry_changes(profile, press.bind[0])
    rows: dict[str, float | None] = {}
    if profile.gait_of(mode).jump:
        trace = shape(
            Recording([*down, Event(LONGEST_ALOFT_S, "mark", "end")]), profile, hz=HZ, mode=mode, engine=engine
        )
        rows |= _flight(trace)
    rows["jump_buffer_s"] = _longest(lambda wait_s: _given(profile, mode, name, down, wait_s, early=True))
    rows["jump_grace_s"] = _longest(lambda wait_s: _given(profile, mode, name, down, wait_s, early=False))
    return rows


def _flight(trace: Any) -> dict[str, float | None]:
    """Read height and time aloft off a jump that is held from the trace's first moment."""
    t, height, rise = (trace[name].to_numpy() for name in ("t", "pos_z", "vel_z"))
    aloft = ~trace["grounded"].to_numpy()
    if not aloft.any() or aloft[-1]:
        return {"jump_height_m": None, "jump_aloft_s": None}
    last = int(np.flatnonzero(aloft)[-1])
    # Its speed at the last tick in the air carries it to the ground.
    to_ground_s = height[last] / -rise[last] if rise[last] < 0.0 else 0.0
    return {"jump_height_m": float(height.max()), "jump_aloft_s": float(t[last] + to_ground_s - t[0] + 1.0 / HZ)}


def _given(profile: Profile, mode: str, name: str, down: list[Event], wait_s: float, early: bool) -> bool:
    """Return whether a press counts that comes so long before the ground is there, or after it is gone."""
    helm = Helm(profile)
    if mode != helm.mode:
        helm.enter(mode)
    helm.ground(not early)
    helm.tick(1.0)
    helm.ground(False)
    if not early and wait_s > 0.0:
        helm.tick(wait_s)
    for event in down:
        helm.apply(event)
    if not early:
        return helm.tick(FINEST_S / 10.0).press(name).began
    helm.tick(FINEST_S / 10.0)
    if wait_s > 0.0:
        helm.tick(wait_s)
    helm.ground(True)
    return helm.tick(FINEST_S / 10.0).press(name).began


def _longest(given: Any) -> float:
    """Return the longest wait that is still given, to FINEST_S; 0 where none is."""
    if not given(FINEST_S):
        return 0.0
    low, high = FINEST_S, LONGEST_WAIT_S
    if given(high):
        return high
    while high - low > FINEST_S / 20.0:
        middle = (low + high) / 2.0
        low, high = (middle, high) if given(middle) else (low, middle)
    return low
