"""Step 5 of shaping, second half: how fast a key's value rises and falls."""

import math

from wendonic.kernels.kernel import kernel


@kernel
def ramp(value: float, target: float, rise_s: float, fall_s: float, dt: float) -> float:
    """Return `value` after moving towards `target` for `dt` seconds in a straight line over time.

    Away from zero the rate is 1 / rise_s, towards zero 1 / fall_s; a change of side falls to zero first and
    rises with what is left of `dt`. 0 s means at once. `value` and `target` lie in -1..1. Exact for any
    `dt`: two halves of a tick give what the whole gives. `dt` = 0 changes nothing.

    >>> ramp(0.0, 1.0, rise_s=0.06, fall_s=0.04, dt=0.03)
    0.5
    >>> ramp(1.0, -1.0, rise_s=0.5, fall_s=0.25, dt=0.5)
    -0.5
    >>> ramp(0.0, 1.0, rise_s=0.0, fall_s=0.0, dt=0.001)
    1.0
    """
    if value == target or dt <= 0.0:
        return value
    if value * target < 0.0 or abs(target) < abs(value):
        # The side changes, or the target is nearer to zero: fall as far as that goes.
        stop = target if value * target > 0.0 else 0.0
        needed_s = abs(value - stop) * fall_s
        if needed_s > dt:
            return value + math.copysign(dt / fall_s, stop - value)
        dt -= needed_s
        value = stop
    if abs(target - value) * rise_s > dt:
        return value + math.copysign(dt / rise_s, target - value)
    return target
