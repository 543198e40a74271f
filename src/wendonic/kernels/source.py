"""One source: the controls of one `bind` entry, shaped into one value of the channel."""

import math
from typing import NamedTuple

from wendonic.kernels.curve import response_curve
from wendonic.kernels.dead_zone import round_dead_zone
from wendonic.kernels.kernel import Row, kernel
from wendonic.kernels.opposites import opposed
from wendonic.kernels.places import SOURCE_WIDTH
from wendonic.kernels.ramp import ramp
from wendonic.kernels.stick import USUAL_FORM, StickForm, formed

SOURCE_SILENT = 0
SOURCE_KEYS = 1
SOURCE_STICK = 2
SOURCE_AXES = 3
SOURCE_SWING = 4
SOURCE_FORMED = 5


class SourceTuning(NamedTuple):
    """The numbers of one source; those of the other kinds stand at their neutral value.

    `full_m_s` is the hands' speed that asks for everything.
    """

    kind: int
    inner: float
    outer: float
    curve_form: int
    curve_exponent: float
    rise_s: float
    fall_s: float
    opposites: int
    full_m_s: float
    form: StickForm


class SourceState(NamedTuple):
    """What a source gave this tick; for keys also what is carried to the next. x right, y ahead.

    `source` is its place in the sample.
    """

    source: float
    length: float
    x: float
    y: float
    raw_x: float
    raw_y: float


SILENT_SOURCE = SourceTuning(SOURCE_SILENT, 0.0, 1.0, 0, 1.0, 0.0, 0.0, 0, 1.0, USUAL_FORM)
SOURCE_AT_REST = SourceState(0.0, 0.0, 0.0, 0.0, 0.0, 0.0)


@kernel
def shaped_rare_source(tuning: SourceTuning, state: SourceState, sample: Row, tick_s: float) -> SourceState:
    """Return the new state of a stick in any form, of axes, each by itself, or of a swing; see `shaped_source`.

    >>> swing = SILENT_SOURCE._replace(kind=SOURCE_SWING, full_m_s=2.0)
    >>> shaped_rare_source(swing, SOURCE_AT_REST, (0.01, 0.0, 0.0, 0.0), 0.01).y
    0.5
    """
    kind, inner, outer, curve_form, exponent, _, _, _, full_m_s, form = tuning
    source, length, was_x, was_y, was_raw_x, was_raw_y = state
    start = int(source) * SOURCE_WIDTH
    if kind == SOURCE_SWING:
        if tick_s <= 0.0:
            return state
        way_m = sample[start]
        full_m = tick_s * full_m_s
        # Nobody swings faster than all there is, however short the tick.
        raw_y = 1.0 if way_m >= full_m else way_m / full_m
        _, y = formed(0.0, raw_y, inner, outer, curve_form, exponent, form, 1 if length > 0.0 else 0)
        return SourceState(source, y, 0.0, y, 0.0, raw_y)
    raw_x = sample[start]
    raw_y = sample[start + 1]
    if raw_x == was_raw_x and raw_y == was_raw_y:
        return state
    if kind == SOURCE_FORMED:
        x, y = formed(raw_x, raw_y, inner, outer, curve_form, exponent, form, 1 if length > 0.0 else 0)
    else:
        x, _ = formed(raw_x, 0.0, inner, outer, curve_form, exponent, form, 1 if was_x != 0.0 else 0)
        _, y = formed(0.0, raw_y, inner, outer, curve_form, exponent, form, 1 if was_y != 0.0 else 0)
    return SourceState(source, math.hypot(x, y), x, y, raw_x, raw_y)


@kernel
def shaped_source(tuning: SourceTuning, state: SourceState, sample: Row, dt: float, tick_s: float) -> SourceState:
    """Return the source's new state from its numbers of the sample, steps 1 to 5 of shaping.

    The source's numbers begin at state.source * SOURCE_WIDTH of the sample. `tick_s` is the whole tick's length,
    over which a swing was covered; `dt` is less when a hitch is cut into parts. A silent source, and one whose
    value cannot change this tick, gives back the very state it had; so a state goes with one tuning.

    >>> keys = SILENT_SOURCE._replace(kind=SOURCE_KEYS, rise_s=0.06)
    >>> shaped_source(keys, SOURCE_AT_REST, (1.0, 0.0, 0.0, 0.0), 0.03, 0.03).x
    0.5
    """
    kind, inner, outer, curve_form, curve_exponent, rise_s, fall_s, opposites, _, _ = tuning
    if kind == SOURCE_SILENT:
        return state
    if kind > SOURCE_STICK:
        return shaped_rare_source(tuning, state, sample, tick_s)
    source, _, x, y, was_raw_x, was_raw_y = state
    start = int(source) * SOURCE_WIDTH
    if kind == SOURCE_STICK:
        raw_x = sample[start]
        raw_y = sample[start + 1]
        if raw_x == was_raw_x and raw_y == was_raw_y:
            return state
        tilt = math.hypot(raw_x, raw_y)
        length = round_dead_zone(tilt, inner, outer)
        if length == 0.0:
            return SourceState(source, 0.0, 0.0, 0.0, raw_x, raw_y)
        length = response_curve(length, curve_form, curve_exponent)
        scale = length / tilt
        return SourceState(source, length, raw_x * scale, raw_y * scale, raw_x, raw_y)
    raw_x = opposed(sample[start], sample[start + 1], opposites)
    raw_y = opposed(sample[start + 2], sample[start + 3], opposites)
    if raw_x == x == was_raw_x and raw_y == y == was_raw_y:
        return state
    x = ramp(x, raw_x, rise_s, fall_s, dt)
    y = ramp(y, raw_y, rise_s, fall_s, dt)
    return SourceState(source, math.hypot(x, y), x, y, raw_x, raw_y)
