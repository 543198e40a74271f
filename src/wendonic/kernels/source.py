"""One source: the controls of one `bind` entry, shaped into one value of the channel."""

import math
from typing import NamedTuple

from wendonic.kernels.curve import response_curve
from wendonic.kernels.dead_zone import round_dead_zone
from wendonic.kernels.kernel import Row, kernel
from wendonic.kernels.opposites import opposed
from wendonic.kernels.places import RAW, SOURCE_WIDTH
from wendonic.kernels.ramp import corner_felt, ramp, ramp_felt

SOURCE_SILENT = 0
SOURCE_KEYS = 1
SOURCE_STICK = 2
SOURCE_FORMED = 3


class SourceTuning(NamedTuple):
    """The numbers of one source; those of the other kinds stand at their neutral value.

    `at_once` is 1 for keys whose old side is dropped at once when the other one is pressed; `half_life_s` is that
    of the smoothing which follows, 0 for none, and `capped` is 1 where the cap comes in between.
    """

    kind: int
    inner: float
    outer: float
    curve_form: int
    curve_exponent: float
    rise_s: float
    fall_s: float
    opposites: int
    at_once: int
    half_life_s: float
    capped: int


class SourceState(NamedTuple):
    """What a source gave this tick; for keys also where their ramps came to. x right, y ahead.

    `source` is its place in the sample.
    """

    source: float
    length: float
    x: float
    y: float
    raw_x: float
    raw_y: float
    end_x: float
    end_y: float


SILENT_SOURCE = SourceTuning(SOURCE_SILENT, 0.0, 1.0, 0, 1.0, 0.0, 0.0, 0, 0, 0.0, 0)
SOURCE_AT_REST = SourceState(0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0)


@kernel
def shaped_source(tuning: SourceTuning, state: SourceState, sample: Row, dt: float) -> SourceState:
    """Return the source's new state from its numbers of the sample, steps 1 to 5 of shaping.

    The source's numbers begin at state.source * SOURCE_WIDTH of the sample. `SOURCE_KEYS` have four of them and
    ramps, and give what smoothing makes of these, see `ramp_felt`. `SOURCE_STICK` has the usual form (a round dead
    zone; a linear or power curve) and takes the raw numbers. `SOURCE_FORMED` comes shaped already, see
    `formed_source`. A silent source, and one whose value cannot change this tick, gives back the very state it had;
    so a state goes with one tuning.

    >>> keys = SILENT_SOURCE._replace(kind=SOURCE_KEYS, rise_s=0.06)
    >>> shaped_source(keys, SOURCE_AT_REST, (1.0, 0.0, 0.0, 0.0), 0.03).x
    0.5
    """
    kind, inner, outer, curve_form, curve_exponent, rise_s, fall_s, opposites, at_once, half_life_s, capped = tuning
    if kind == SOURCE_SILENT:
        return state
    source, _, x, y, was_raw_x, was_raw_y, end_x, end_y = state
    start = int(source) * SOURCE_WIDTH
    if kind == SOURCE_KEYS:
        raw_x = opposed(sample[start], sample[start + 1], opposites)
        raw_y = opposed(sample[start + 2], sample[start + 3], opposites)
        if raw_x == x == end_x == was_raw_x and raw_y == y == end_y == was_raw_y:
            return state
        if at_once > 0:
            end_x = 0.0 if end_x * raw_x < 0.0 else end_x
            end_y = 0.0 if end_y * raw_y < 0.0 else end_y
        stop_x = x = ramp(end_x, raw_x, rise_s, fall_s, dt)
        stop_y = y = ramp(end_y, raw_y, rise_s, fall_s, dt)
        if half_life_s > 0.0 and (end_x != raw_x or end_y != raw_y):
            if capped > 0 and (end_x != 0.0 or raw_x != 0.0) and (end_y != 0.0 or raw_y != 0.0):
                x, y = corner_felt(end_x, end_y, raw_x, raw_y, rise_s, fall_s, dt, half_life_s)
            elif end_x != raw_x:
                x = ramp_felt(end_x, raw_x, rise_s, fall_s, dt, half_life_s)
                if end_y != raw_y:
                    y = ramp_felt(end_y, raw_y, rise_s, fall_s, dt, half_life_s)
            else:
                y = ramp_felt(end_y, raw_y, rise_s, fall_s, dt, half_life_s)
        return SourceState(source, math.hypot(x, y), x, y, raw_x, raw_y, stop_x, stop_y)
    raw_x = sample[start + RAW]
    raw_y = sample[start + RAW + 1]
    if raw_x == was_raw_x and raw_y == was_raw_y and kind == SOURCE_STICK:
        return state
    if kind == SOURCE_FORMED:
        x = sample[start]
        y = sample[start + 1]
        return SourceState(source, math.hypot(x, y), x, y, raw_x, raw_y, 0.0, 0.0)
    tilt = math.hypot(raw_x, raw_y)
    length = round_dead_zone(tilt, inner, outer)
    if length == 0.0:
        return SourceState(source, 0.0, 0.0, 0.0, raw_x, raw_y, 0.0, 0.0)
    length = response_curve(length, curve_form, curve_exponent)
    scale = length / tilt
    return SourceState(source, length, raw_x * scale, raw_y * scale, raw_x, raw_y, 0.0, 0.0)
