"""Distance of a short tap."""

import math

from wendonic.study.bench import Bench
from wendonic.study.measuring.step_response import hold_s, rate_hz
from wendonic.study.probes.walk import Walk
from wendonic.study.probes.walker import Steps
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import Unmeasured


@quantity(57, "m", "distance covered after a tap of {tap_s:g} s")
def tap_distance_m(bench: Bench) -> float | None:
    """Press for a moment, and wait for rest."""
    walker, tap_s = bench.walker, bench.thresholds.tap_s
    still_s = math.ceil(hold_s(bench.moving))
    steps: Steps = [(0.0, walker.full(walker.ahead)), (tap_s, walker.rest(walker.ahead))]
    walk = Walk(bench.moving, walker, steps, tap_s + still_s, rate_hz(tap_s + still_s, 1000.0), bench.engine)
    if math.hypot(walk["vel_x"][-1], walk["vel_y"][-1]) > bench.thresholds.rests_m_s:
        raise Unmeasured("after a tap it never stops")
    x, y = walk["pos_x"], walk["pos_y"]
    return math.hypot(float(x[-1]), float(y[-1]))
