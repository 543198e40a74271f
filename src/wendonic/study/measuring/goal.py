"""Walking to a goal."""

from typing import NamedTuple

import numpy as np

from wendonic.batch.trace import shaped
from wendonic.devices.event import Event
from wendonic.recording.recording import Recording
from wendonic.study.bench import Bench
from wendonic.study.measuring.step_response import crossing, hold_s, rate_hz
from wendonic.study.probes.walker import AFTER_S
from wendonic.study.unmeasured import NotHere, Unmeasured, once_each

HZ = 240.0
POINTED_S = 0.1


class Arrival(NamedTuple):
    """When a body arrives (s after pointing), how far past the place it goes (m), and how far off it rests (m)."""

    time_s: float
    overshoot_m: float
    error_m: float


@once_each
def arrival(bench: Bench) -> Arrival:
    """Return how a body arrives; raises `NotHere` if the mode has no goals, `Unmeasured` if it never arrives."""
    bench.need_gait()
    if bench.table.steer.frame != "goto":
        raise NotHere("nothing walks to a place")
    far_m = bench.thresholds.goal_m
    place = (far_m, 0.0) if bench.from_side else (0.0, far_m)
    gait = bench.moving.gait_of(bench.mode)
    walk_s = hold_s(bench.moving) + 3.0 * far_m / gait.top_speed_m_s
    end_s = POINTED_S + min(walk_s, bench.thresholds.longest_s)
    events = [Event(0.0, "mark", "begin"), Event(POINTED_S + AFTER_S, "goal", place), Event(end_s, "mark", "end")]
    walked = shaped(Recording(events), bench.moving, hz=rate_hz(end_s, HZ), engine=bench.engine)
    arrived = np.asarray(walked["arrived"], dtype=bool)
    if not arrived.any():
        raise Unmeasured(f"after {end_s - POINTED_S:.3g} s it has not arrived")
    along = walked["pos_x"] if bench.from_side else walked["pos_y"]
    off = np.hypot(walked["pos_x"] - place[0], walked["pos_y"] - place[1])
    there = int(np.argmax(arrived)) + 1
    near_s = crossing(walked["t"][:there], np.asarray(off)[:there], bench.table.steer.arrival_m, rising=False)
    return Arrival(
        (float(walked["t"][there - 1]) if near_s is None else near_s) - POINTED_S,
        max(float(along.max()) - far_m, 0.0),
        float(off[-1]),
    )
