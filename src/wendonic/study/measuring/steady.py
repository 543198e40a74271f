"""Holding something until the speed of the body no longer changes."""

import math

from wendonic.batch import Engine
from wendonic.devices.push import Changes
from wendonic.profile.schema.profile import Profile
from wendonic.study.measuring.step_response import hold_s, rate_hz, steady_speed
from wendonic.study.probes.walk import Walk
from wendonic.study.probes.walker import Walker
from wendonic.study.thresholds import THRESHOLDS
from wendonic.study.unmeasured import Unmeasured


def held_steady(
    profile: Profile, walker: Walker, changes: Changes, engine: Engine = "auto", hz: float = 240.0
) -> tuple[Walk, float]:
    """Return the walk while something is held from the beginning, and its steady speed (m/s) over the ground; raises
    `Unmeasured` if it does not become steady.
    """
    held_s = math.ceil(hold_s(profile))
    while True:
        walk = Walk(profile, walker, [(0.0, changes)], held_s, rate_hz(held_s, hz), engine)
        speed = steady_speed(walk, 0.0, held_s)
        if speed is not None:
            return walk, speed
        if held_s >= THRESHOLDS.longest_s:
            raise Unmeasured(f"held for {THRESHOLDS.longest_s:g} s the speed is still changing")
        held_s = min(2 * held_s, round(THRESHOLDS.longest_s))
