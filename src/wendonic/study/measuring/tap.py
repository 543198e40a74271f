"""A short tap, and how far it goes."""

import math

from wendonic.study.bench import Bench
from wendonic.study.measuring.step_response import hold_s, rate_hz
from wendonic.study.probes.walk import Walk
from wendonic.study.probes.walker import Steps
from wendonic.study.unmeasured import Unmeasured


def tap_distance(bench: Bench, hz: float) -> float:
    """Return the distance (m) from a tap to where the body rests again, at `hz` ticks a second or somewhat fewer."""
    walker, tap_s = bench.walker, bench.thresholds.tap_s
    end_s = tap_s + math.ceil(hold_s(bench.moving))
    steps: Steps = [(0.0, walker.full(walker.ahead)), (tap_s, walker.rest(walker.ahead))]
    walk = Walk(bench.moving, walker, steps, end_s, rate_hz(end_s, hz), bench.engine)
    if math.hypot(walk["vel_x"][-1], walk["vel_y"][-1]) > bench.thresholds.rests_m_s:
        raise Unmeasured("after a tap it never stops")
    return math.hypot(float(walk["pos_x"][-1]), float(walk["pos_y"][-1]))
