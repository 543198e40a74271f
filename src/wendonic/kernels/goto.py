"""The steer frame `goto`: walking to a place that was pointed at."""

import math
from typing import NamedTuple

from wendonic.kernels.kernel import called_kernel


class GotoTuning(NamedTuple):
    """He is there within `arrival_m`, is slower from `slow_down_m` on, and takes a new goal on the way or not."""

    arrival_m: float
    slow_down_m: float
    retarget: int


NO_GOTO = GotoTuning(0.1, 0.0, 1)


class Goal(NamedTuple):
    """A place of the plan (m); `there` is 1 while he walks to it."""

    there: float
    x: float
    y: float


NO_GOAL = Goal(0.0, 0.0, 0.0)


@called_kernel
def approach_share(tuning: GotoTuning, distance_m: float, top_speed: float, brake: float) -> float:
    """Return the share of top speed to go at with so far to the goal.

    It is 1 from `slow_down_m` on, distance / slow_down_m below, and never more than what the brake can take away
    before the goal: sqrt(2 brake distance) / top_speed.

    >>> near = GotoTuning(0.125, 2.0, 1)
    >>> [approach_share(near, distance_m, 4.0, 16.0) for distance_m in (9.0, 1.0, 0.125)]
    [1.0, 0.5, 0.0625]
    """
    stoppable = math.sqrt(2.0 * brake * distance_m) / top_speed
    if distance_m < tuning.slow_down_m:
        return min(distance_m / tuning.slow_down_m, stoppable)
    return min(1.0, stoppable)
