"""Step 5 of shaping, second half: how fast a key's value rises and falls."""

import math

from wendonic.kernels.half_life import share_left
from wendonic.kernels.vector import Vec2

CORNER_PARTS = 8
"""Parts into which a tick is cut while a ramp goes through the cap."""


def ramp(value: float, target: float, rise_s: float, fall_s: float, dt: float) -> float:
    """Return `value` after moving towards `target` for `dt` seconds in a straight line over time.

    Away from zero the rate is 1 / rise_s, towards zero 1 / fall_s; a change of side falls to zero first and rises in
    the rest of `dt`. 0 s means at once. `value` lies in -1..1, `target` is what keys request: -1, 0 or 1. Exact for
    any `dt` above 0: two halves of a tick give the same as the whole.

    >>> ramp(0.0, 1.0, rise_s=0.06, fall_s=0.04, dt=0.03)
    0.5
    >>> ramp(1.0, -1.0, rise_s=0.5, fall_s=0.25, dt=0.5)
    -0.5
    >>> ramp(0.0, 1.0, rise_s=0.0, fall_s=0.0, dt=0.001)
    1.0
    """
    if value * target < 0.0 or target == 0.0:
        needed_s = abs(value) * fall_s
        if needed_s > dt:
            # Towards zero at 1 / fall_s, away from it at 1 / rise_s.
            return value - math.copysign(dt / fall_s, value)
        dt -= needed_s
        value = 0.0
    if abs(target - value) * rise_s > dt:
        return value + math.copysign(dt / rise_s, target - value)
    return target


def ramp_begin(value: float, target: float, rise_s: float, fall_s: float) -> float:
    """Return where `ramp` begins: at `value`, except for changes that take no time.

    >>> ramp_begin(1.0, -1.0, rise_s=0.06, fall_s=0.0), ramp_begin(0.0, 1.0, rise_s=0.06, fall_s=0.0)
    (0.0, 0.0)
    """
    if value * target < 0.0 or target == 0.0:
        if fall_s > 0.0:
            return value
        value = 0.0
    return value if rise_s > 0.0 else target


def ramp_run(value: float, target: float, end: float, rise_s: float, fall_s: float, dt: float) -> float:
    """Return the duration (s) of a linear run from the beginning of `ramp` (see `ramp_begin`) to its `end` that has
    the same mean over the tick and stays at the end afterwards.

    It is the ramp's own time, unless it changes sides: then it falls and rises at two rates, and with m its mean the
    run takes 2 (m - end) dt / (begin - end), which may be longer than the tick.

    >>> ramp_run(0.0, 1.0, 1.0, rise_s=0.06, fall_s=0.04, dt=0.1), ramp_run(0.5, 0.0, 0.0, 0.06, 0.04, 0.1)
    (0.06, 0.02)
    >>> round(ramp_run(1.0, -1.0, -1.0, rise_s=0.0, fall_s=0.04, dt=0.1), 12)
    0.06
    """
    if value * target < 0.0 or target == 0.0:
        fall = abs(value) * fall_s
        if fall >= dt:
            return dt
        begin = value if fall_s > 0.0 else 0.0
        if begin == end:
            return 0.0
        rise = min(abs(end) * rise_s, dt - fall)
        return (begin * fall - 2.0 * end * fall - end * rise) / (begin - end)
    return min(abs(target - value) * rise_s, dt)


def followed(smooth: float, begin: float, end: float, duration_s: float, half_life_s: float) -> float:
    """Return the smoothed value after `smooth` while its input changes linearly from `begin` to `end`.

    Formula: the solution of y' = (x - y) ln 2 / half_life for x linear in time. With m = (end - begin) / duration *
    half_life / ln 2 it is (end - m) + (y - (begin - m)) 2 ** (-duration / half_life). `half_life_s` above 0.

    >>> followed(0.5, 1.0, 1.0, duration_s=0.25, half_life_s=0.25)
    0.75
    """
    return following(smooth, begin, end, duration_s, half_life_s) if duration_s > 0.0 else smooth


def following(smooth: float, begin: float, end: float, duration_s: float, half_life_s: float) -> float:
    """Return the result of `followed` for a duration above 0.

    >>> following(0.5, 1.0, 1.0, duration_s=0.25, half_life_s=0.25)
    0.75
    """
    lag = (end - begin) / duration_s * half_life_s / math.log(2.0)
    return end - lag + (smooth - begin + lag) * float(0.5 ** (duration_s / half_life_s))


def ramp_felt(value: float, target: float, rise_s: float, fall_s: float, dt: float, half_life_s: float) -> float:
    """Return the constant input with which smoothing ends a tick of `dt` seconds at the same value as with the ramp.

    It is the mean of the ramp, see `ramp`, with the weights of smoothing, in which later values count more. So a
    smoothed ramp is the same curve at every tick rate. Values lie in -1..1, times are in seconds. A tick far shorter
    than the half-life gives the ramp's end.

    >>> felt = ramp_felt(0.0, 1.0, rise_s=0.06, fall_s=0.04, dt=0.06, half_life_s=0.02)
    >>> half = ramp_felt(0.0, 1.0, 0.06, 0.04, 0.03, 0.02)
    >>> late = ramp_felt(0.5, 1.0, 0.06, 0.04, 0.03, 0.02)
    >>> left = 0.5 ** 1.5
    >>> abs(felt * (1 - left * left) - (half * (1 - left) * left + late * (1 - left))) < 1e-12
    True
    """
    share = 0.0 - math.expm1(-math.log(2.0) * dt / half_life_s)
    if share < 1e-6:
        return ramp(value, target, rise_s, fall_s, dt)
    smooth = 0.0
    left_s = dt
    if value * target < 0.0 or target == 0.0:
        part_s = abs(value) * fall_s
        if part_s > left_s:
            end = value - math.copysign(left_s / fall_s, value)
            return following(smooth, value, end, left_s, half_life_s) / share
        smooth = followed(smooth, value, 0.0, part_s, half_life_s)
        value = 0.0
        left_s -= part_s
    part_s = abs(target - value) * rise_s
    if part_s > left_s:
        end = value + math.copysign(left_s / rise_s, target - value)
        return followed(smooth, value, end, left_s, half_life_s) / share
    smooth = followed(smooth, value, target, part_s, half_life_s)
    return followed(smooth, target, target, left_s - part_s, half_life_s) / share


def corner_felt(
    x: float, y: float, target_x: float, target_y: float, rise_s: float, fall_s: float, dt: float, half_life_s: float
) -> Vec2:
    """Return the same as `ramp_felt` for two axes, at least one with a ramp, whose length is capped at 1 throughout.

    Under the cap a linear ramp becomes a curve, so the tick is cut into CORNER_PARTS.

    >>> x, y = corner_felt(0.9, 0.9, 1.0, 1.0, rise_s=0.06, fall_s=0.04, dt=0.033, half_life_s=0.02)
    >>> round(x, 12) == round(y, 12) == round(math.sqrt(0.5), 12)
    True
    """
    share = 0.0 - math.expm1(-math.log(2.0) * dt / half_life_s)
    part_s = dt / CORNER_PARTS
    if share < 1e-6:
        return Vec2(ramp(x, target_x, rise_s, fall_s, dt), ramp(y, target_y, rise_s, fall_s, dt))
    left = share_left(half_life_s, part_s)
    smooth_x = 0.0
    smooth_y = 0.0
    for _ in range(CORNER_PARTS):
        felt_x = ramp_felt(x, target_x, rise_s, fall_s, part_s, half_life_s)
        felt_y = ramp_felt(y, target_y, rise_s, fall_s, part_s, half_life_s)
        x = ramp(x, target_x, rise_s, fall_s, part_s)
        y = ramp(y, target_y, rise_s, fall_s, part_s)
        length = max(math.hypot(felt_x, felt_y), 1.0)
        smooth_x = felt_x / length + (smooth_x - felt_x / length) * left
        smooth_y = felt_y / length + (smooth_y - felt_y / length) * left
    return Vec2(smooth_x / share, smooth_y / share)
