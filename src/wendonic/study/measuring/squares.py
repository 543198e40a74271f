"""Steps on squares, of a direction that stays held."""

import numpy as np

from wendonic.study.bench import Bench
from wendonic.study.probes.walk import Walk
from wendonic.study.unmeasured import NotHere, once_each

HZ = 1000.0
PRESSED_S = 0.1
STEPS = 8
"""So many steps are waited for."""


@once_each
def steps_held(bench: Bench) -> list[float]:
    """Return when each step begins (s after the press); raises `NotHere` where nothing steps."""
    steer = bench.table.steer
    if steer.frame != "grid":
        raise NotHere("nothing steps on squares")
    walker = bench.any_walker
    every_s = max(steer.step_s, steer.repeat_s)
    # A press that slows down makes steps longer.
    every_s /= max(bench.move_scale, 0.05)
    held_s = PRESSED_S + steer.turn_first_s + steer.delay_s + STEPS * every_s
    walk = Walk(bench.moving, walker, [(PRESSED_S, walker.full(walker.ahead))], held_s, HZ, bench.engine)
    began = walk["t"][np.asarray(walk["step_began"], dtype=bool)] - PRESSED_S
    if len(began) == 0:
        raise NotHere(f"{walker.name}: held {walker.ahead}, nothing steps")
    return [float(t) for t in began]
