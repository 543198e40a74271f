"""The speed of a body in eight directions."""

import math

import numpy as np

from wendonic.batch import Engine
from wendonic.profile.schema.profile import Profile
from wendonic.study.measuring.step_response import hold_s, rate_hz, steady_speed
from wendonic.study.probes.walk import Walk
from wendonic.study.probes.walker import Steps, Walker
from wendonic.study.thresholds import THRESHOLDS
from wendonic.study.unmeasured import Unmeasured

EIGHT_DIRECTIONS = (
    ("forward",),
    ("forward", "right"),
    ("right",),
    ("back", "right"),
    ("back",),
    ("back", "left"),
    ("left",),
    ("forward", "left"),
)


def speeds_all_round(profile: Profile, walker: Walker, engine: Engine = "auto") -> list[float]:
    """Return the steady speed (m/s) in each of eight directions, clockwise from forward; raises `Unmeasured` if one
    of them does not become steady.
    """
    held_s = math.ceil(hold_s(profile))
    while True:
        whole_s = len(EIGHT_DIRECTIONS) * held_s
        steps: Steps = []
        before: tuple[str, ...] = ()
        for number, together in enumerate(EIGHT_DIRECTIONS):
            steps.append((number * held_s, walker.changes(before, together)))
            before = together
        walk = Walk(profile, walker, steps, whole_s, rate_hz(whole_s, 60.0), engine)
        speeds = [steady_speed(walk, k * held_s, (k + 1) * held_s) for k in range(len(EIGHT_DIRECTIONS))]
        steady = [speed for speed in speeds if speed is not None]
        if len(steady) == len(speeds):
            return steady
        if held_s >= THRESHOLDS.longest_s:
            raise Unmeasured(f"held for {THRESHOLDS.longest_s:g} s the speed is still changing")
        held_s = min(2 * held_s, round(THRESHOLDS.longest_s))


def spread(speeds: list[float]) -> float | None:
    """Return the largest deviation from the mean, as a share of it; None if nothing moves.

    >>> spread([2.0, 2.0, 2.0, 4.0])
    0.6
    """
    mean = float(np.mean(speeds))
    return float(np.max(np.abs(np.array(speeds) - mean)) / mean) if mean > 0.0 else None
