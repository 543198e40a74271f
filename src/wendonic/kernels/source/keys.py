"""Keys, a d-pad, zones of a touch screen: opposites and ramps, step 5 of shaping."""

from typing import NamedTuple

from wendonic.kernels.row import Row
from wendonic.kernels.source.opposites import opposed
from wendonic.kernels.source.ramp import corner_felt, ramp, ramp_begin, ramp_felt, ramp_run

NO_TIME_S = 1e-12
"""A ramp shorter than this is immediate."""


class KeysTuning(NamedTuple):
    """The numbers of keys: the rule for opposite ones; `ramps` is 1 if a key has a ramp, `rise_s` and `fall_s`, and
    `at_once` if the old side is dropped at once when the opposite one is pressed; `one_axis` is 1 if they act only
    sideways, or only forward and back.
    """

    opposites: int
    ramps: int
    at_once: int
    one_axis: int
    rise_s: float
    fall_s: float


class KeysState(NamedTuple):
    """The values that the ramps have reached: right and forward."""

    x: float
    y: float


class KeysOutput(NamedTuple):
    """The request of keys, and what is held: right and forward each; and for ramps in the first `run_s` seconds of
    the tick, their starting values, or, if smoothing with a half-life follows, their mean.
    """

    x: float
    y: float
    raw_x: float
    raw_y: float
    ran_x: float
    ran_y: float
    run_s: float


NO_KEYS = KeysTuning(0, 0, 0, 0, 0.0, 0.0)
KEYS_AT_REST = KeysState(0.0, 0.0)


def keys_output(
    tuning: KeysTuning, state: KeysState, raw: Row, half_life_s: float, capped: int, dt: float
) -> tuple[KeysState, KeysOutput]:
    """Return the values that the ramps reach in `dt` seconds, and the request of the keys.

    `raw` has right, left, forward and back, see `opposed`. If smoothing with `half_life_s` (0: none) follows, the
    request during a ramp is the constant that smoothing turns into the same result, see `ramp_felt`; `capped` is 1 if
    the cap comes in between.

    >>> keys = NO_KEYS._replace(ramps=1, rise_s=0.06, fall_s=0.04)
    >>> keys_output(keys, KEYS_AT_REST, (1.0, 0.0, 0.0, 0.0), 0.0, 0, 0.03)[1].x
    0.5
    """
    raw_x = opposed(raw[0], raw[1], tuning.opposites)
    raw_y = opposed(raw[2], raw[3], tuning.opposites)
    x = end_x = ran_x = raw_x
    y = end_y = ran_y = raw_y
    run_s = 0.0
    if tuning.ramps > 0 and (state.x != raw_x or state.y != raw_y):
        was_x, was_y = state
        rise_s, fall_s = tuning.rise_s, tuning.fall_s
        if tuning.at_once > 0:
            # A reversal begins at zero.
            was_x = 0.0 if was_x * raw_x < 0.0 else was_x
            was_y = 0.0 if was_y * raw_y < 0.0 else was_y
        begin_x, begin_y, run_x, run_y = was_x, was_y, 0.0, 0.0
        if was_x != raw_x:
            end_x = ramp(was_x, raw_x, rise_s, fall_s, dt)
            begin_x = ramp_begin(was_x, raw_x, rise_s, fall_s)
            run_x = ramp_run(was_x, raw_x, end_x, rise_s, fall_s, dt)
        if was_y != raw_y:
            end_y = ramp(was_y, raw_y, rise_s, fall_s, dt)
            begin_y = ramp_begin(was_y, raw_y, rise_s, fall_s)
            run_y = ramp_run(was_y, raw_y, end_y, rise_s, fall_s, dt)
        x, y = end_x, end_y
        run_s = min(max(run_x, run_y), dt)
        # The mean of each axis counts, however long the ramp of the other one takes.
        long_s = max(2.0 * dt if half_life_s > 0.0 else run_s, NO_TIME_S)
        ran_x = end_x + (begin_x - end_x) * min(run_x / long_s, 1.0)
        ran_y = end_y + (begin_y - end_y) * min(run_y / long_s, 1.0)
        if half_life_s > 0.0:
            both = (was_x != 0.0 or raw_x != 0.0) and (was_y != 0.0 or raw_y != 0.0)
            if capped > 0 and both:
                x, y = corner_felt(was_x, was_y, raw_x, raw_y, rise_s, fall_s, dt, half_life_s)
            else:
                if was_x != raw_x:
                    x = ramp_felt(was_x, raw_x, rise_s, fall_s, dt, half_life_s)
                if was_y != raw_y:
                    y = ramp_felt(was_y, raw_y, rise_s, fall_s, dt, half_life_s)
    return KeysState(end_x, end_y), KeysOutput(x, y, raw_x, raw_y, ran_x, ran_y, run_s)


def is_ramping(tuning: KeysTuning, state: KeysState, raw: Row) -> bool:
    """Return whether ramps have not reached the held keys yet.

    >>> is_ramping(NO_KEYS._replace(ramps=1), KeysState(0.5, 0.0), (1.0, 0.0, 0.0, 0.0))
    True
    """
    if tuning.ramps <= 0:
        return False
    return (
        opposed(raw[0], raw[1], tuning.opposites) != state.x or opposed(raw[2], raw[3], tuning.opposites) != state.y
    )
