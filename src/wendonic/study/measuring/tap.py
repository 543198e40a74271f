"""The distance of a short tap."""

import math

from wendonic.study.bench import Bench
from wendonic.study.measuring.step_response import hold_s
from wendonic.study.probes.walk import Walk
from wendonic.study.probes.walker import Steps
from wendonic.study.unmeasured import Unmeasured


def tap_end_s(bench: Bench) -> float:
    """Return the longest time (s) from the press until the body is at rest again."""
    return bench.thresholds.tap_s + math.ceil(hold_s(bench.moving))


def tap_distance(bench: Bench, hz: float) -> float:
    """Return the distance (m) that a tap moves the body until it rests again, at `hz` ticks a second; raises
    `Unmeasured` if it never rests.
    """
    walker, tap_s, end_s = bench.walker, bench.thresholds.tap_s, tap_end_s(bench)
    steps: Steps = [(0.0, walker.full(walker.ahead)), (tap_s, walker.rest(walker.ahead))]
    walk = Walk(bench.moving, walker, steps, end_s, hz, bench.engine)
    if math.hypot(walk["vel_x"][-1], walk["vel_y"][-1]) > bench.thresholds.rests_m_s:
        raise Unmeasured("after a tap it never stops")
    return math.hypot(float(walk["pos_x"][-1]), float(walk["pos_y"][-1]))
