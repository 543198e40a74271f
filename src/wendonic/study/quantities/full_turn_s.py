"""Time for a full turn at top speed."""

import math

import numpy as np

from wendonic.study.bench import Bench
from wendonic.study.measuring.circle import LONGEST_TURN_S, full_lock, turning
from wendonic.study.measuring.step_response import crossing, hold_s
from wendonic.study.probes.walk import Walk
from wendonic.study.probes.walker import Steps
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import Unmeasured


@quantity(124, "s", "at top speed: from pressing turn to a full turn")
def full_turn_s(bench: Bench) -> float:
    """Drive ahead until the speed is steady, then turn."""
    walker = turning(bench)
    held_s = math.ceil(hold_s(bench.moving))
    locked = full_lock(bench.moving, walker)
    steps: Steps = [(0.0, walker.full("forward")), (held_s, walker.changes(("forward",), locked))]
    walk = Walk(bench.moving, walker, steps, 2.0 * held_s + LONGEST_TURN_S, 240.0, bench.engine)
    later = walk["t"] >= held_s
    faces = np.unwrap(np.radians(walk["face_deg"][later]))
    turned_s = crossing(walk["t"][later] - held_s, np.abs(faces - faces[0]), math.tau)
    if turned_s is None:
        raise Unmeasured(f"after {held_s + LONGEST_TURN_S:g} s at full lock it has not come round")
    return turned_s
