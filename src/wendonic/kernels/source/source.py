"""One source of `move` or of an axis channel: the raw numbers of one `bind` entry, shaped into one value."""

import math
from typing import NamedTuple

from wendonic.kernels.row import Row
from wendonic.kernels.source.dead_zone import ZONE_AXES
from wendonic.kernels.source.keys import KEYS_AT_REST, NO_KEYS, KeysState, KeysTuning, keys_output
from wendonic.kernels.source.stick import PLAIN_STICK, StickTuning, axes_output, stick_output
from wendonic.kernels.source.swing import NO_SWING, SWING_AT_REST, SwingState, SwingTuning, swing_output
from wendonic.kernels.vector import ZERO2, Vec2

SOURCE_KEYS = 0
SOURCE_STICK = 1
SOURCE_AXES = 2
SOURCE_SWING = 3
SOURCE_TRIGGERS = 4
SOURCE_AXIS = 5

RAW_NUMBERS = (4, 2, 2, 8, 2, 1)
"""How many raw numbers a source of each kind has: right, left, forward and back; right and forward; see
`swing_output`; both triggers; one axis."""


class SourceTuning(NamedTuple):
    """The numbers of one source; those of the other kinds are at their neutral value."""

    kind: int
    keys: KeysTuning
    stick: StickTuning
    swing: SwingTuning


class SourceState(NamedTuple):
    """What a source carries from tick to tick: its ramps, its swing, its last request (for triggers, that of each)
    and its amount.
    """

    keys: KeysState
    swing: SwingState
    output: Vec2
    length: float


class SourceOutput(NamedTuple):
    """The request of a source in a tick, by its number in the channel: amount, x right and y forward, and raw; and
    its starting value for a ramp in the first `run_s` seconds of the tick, or, if smoothing with a half-life follows,
    its mean. For several sources together, the number is that of the one that requests most, and `longest` is its
    amount.
    """

    source: float
    length: float
    x: float
    y: float
    raw_x: float
    raw_y: float
    ran_x: float
    ran_y: float
    run_s: float
    longest: float


PLAIN_SOURCE = SourceTuning(SOURCE_STICK, NO_KEYS, PLAIN_STICK, NO_SWING)
SOURCE_AT_REST = SourceState(KEYS_AT_REST, SWING_AT_REST, ZERO2, 0.0)
NO_OUTPUT = SourceOutput(-1.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0)


def at_once(source: float, length: float, x: float, y: float, raw_x: float, raw_y: float) -> SourceOutput:
    """Return the output of a source whose request is constant in the tick.

    >>> at_once(0.0, 0.5, 0.5, 0.0, 0.5, 0.0).ran_x
    0.5
    """
    return SourceOutput(source, length, x, y, raw_x, raw_y, x, y, 0.0, length)


def within_circle(tuning: SourceTuning) -> bool:
    """Return whether a source never requests a length above 1: swinging hands, keys on one axis, and a stick whose
    dead zone and curve work on its length.

    >>> within_circle(PLAIN_SOURCE), within_circle(PLAIN_SOURCE._replace(kind=SOURCE_KEYS))
    (True, False)
    """
    stick = tuning.stick
    if tuning.kind == SOURCE_SWING:
        return True
    if tuning.kind == SOURCE_KEYS:
        return tuning.keys.one_axis > 0
    return tuning.kind == SOURCE_STICK and stick.dead_zone.form != ZONE_AXES and stick.curve.per_axis == 0


def source_output(
    tuning: SourceTuning,
    tables: Row,
    state: SourceState,
    raw: Row,
    source: float,
    half_life_s: float,
    capped: int,
    dt: float,
) -> tuple[SourceState, SourceOutput]:
    """Return a source's new state and its request after `dt` seconds, steps 1 to 5 of shaping.

    `raw` has RAW_NUMBERS; `half_life_s` and `capped` describe the steps that follow, see `keys_output`.

    >>> source_output(PLAIN_SOURCE, (), SOURCE_AT_REST, (0.6, 0.8), 1.0, 0.0, 0, 0.1)[1][:6]
    (1.0, 1.0, 0.6, 0.8, 0.6, 0.8)
    """
    keys, swing, was, _ = state
    if tuning.kind == SOURCE_KEYS:
        keys, output = keys_output(tuning.keys, keys, raw, half_life_s, capped, dt)
        length = math.hypot(output.x, output.y)
        x, y, raw_x, raw_y, ran_x, ran_y, run_s = output
        shaped = SourceOutput(source, length, x, y, raw_x, raw_y, ran_x, ran_y, run_s, length)
    elif tuning.kind == SOURCE_SWING:
        swing = swing_output(tuning.swing, tables, swing, raw, dt)
        shaped = at_once(source, swing.amount, 0.0, swing.amount, 0.0, swing.raw)
    elif tuning.kind == SOURCE_TRIGGERS:
        x = stick_output(tuning.stick, tables, Vec2(was.x, 0.0), raw[0], 0.0).x
        against = stick_output(tuning.stick, tables, Vec2(was.y, 0.0), raw[1], 0.0).x
        shaped = at_once(source, math.fabs(x - against), x - against, 0.0, raw[0] - raw[1], 0.0)
        return SourceState(keys, swing, Vec2(x, against), shaped.length), shaped
    elif tuning.kind == SOURCE_AXIS:
        x = stick_output(tuning.stick, tables, was, raw[0], 0.0).x
        shaped = at_once(source, math.fabs(x), x, 0.0, raw[0], 0.0)
    else:
        if tuning.kind == SOURCE_AXES:
            length, x, y = axes_output(tuning.stick, tables, was, raw[0], raw[1])
        else:
            length, x, y = stick_output(tuning.stick, tables, was, raw[0], raw[1])
        shaped = at_once(source, length, x, y, raw[0], raw[1])
    return SourceState(keys, swing, Vec2(shaped.x, shaped.y), shaped.length), shaped
