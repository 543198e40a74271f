"""The channels `rise`, `throttle` and `turn`: one number each, -1..1."""

from typing import NamedTuple

from wendonic.kernels.move.joined_keys import both_keys
from wendonic.kernels.move.merge import MERGE_SUM, strongest, summed
from wendonic.kernels.row import Row
from wendonic.kernels.source.ramp import ramp_begin, ramp_run
from wendonic.kernels.source.source import (
    NO_OUTPUT,
    SOURCE_KEYS,
    SourceOutput,
    SourceState,
    SourceTuning,
    source_output,
)


class AxisTuning(NamedTuple):
    """The numbers of one channel; a source's value is its x. `joined` and `between` are those of `MoveTuning`."""

    sources: tuple[SourceTuning, ...]
    merge: int
    joined: int
    between: int


class AxisOutput(NamedTuple):
    """The output: the number of the source that requests most (-1 for none), the value at the end of the tick, the
    value at which its ramp began in the tick (the value itself without a ramp), and the share of the tick that the
    ramp takes.
    """

    source: float
    value: float
    begin: float
    ramps: float


class Behind(NamedTuple):
    """How far from its end a ramp began in a tick, and how long it takes to get there (s)."""

    value: float
    takes_s: float


NOT_BEHIND = Behind(0.0, 0.0)


NO_AXIS = AxisTuning((), 0, 0, 0)
AXIS_SILENT = AxisOutput(-1.0, 0.0, 0.0, 0.0)


def ramp_behind(
    tuning: SourceTuning, before: SourceState, after: SourceState, output: SourceOutput, dt: float
) -> Behind:
    """Return how far from its end a key's ramp began in a tick, and how long it takes; 0 for a source whose value is
    constant in the tick.

    >>> from wendonic.kernels.source.keys import NO_KEYS, KeysState
    >>> from wendonic.kernels.source.source import PLAIN_SOURCE, SOURCE_AT_REST
    >>> keys = PLAIN_SOURCE._replace(kind=SOURCE_KEYS, keys=NO_KEYS._replace(ramps=1, rise_s=0.5, fall_s=0.5))
    >>> ramped = SOURCE_AT_REST._replace(keys=KeysState(0.5, 0.0))
    >>> ramp_behind(keys, SOURCE_AT_REST, ramped, NO_OUTPUT._replace(raw_x=1.0), 0.25)
    Behind(value=-0.5, takes_s=0.25)
    """
    behind = takes_s = 0.0
    if tuning.kind == SOURCE_KEYS and tuning.keys.ramps > 0 and before.keys.x != after.keys.x:
        begin, end = before.keys.x, after.keys.x
        rise_s, fall_s = tuning.keys.rise_s, tuning.keys.fall_s
        if tuning.keys.at_once > 0 and begin * output.raw_x < 0.0:
            begin = 0.0
        behind = ramp_begin(begin, output.raw_x, rise_s, fall_s) - end
        takes_s = ramp_run(begin, output.raw_x, end, rise_s, fall_s, dt)
    return Behind(behind, takes_s)


def both_behind(one: Behind, other: Behind) -> Behind:
    """Return one ramp for two that add up: as long as the longer one, with the same mean.

    >>> both_behind(Behind(-0.5, 0.125), Behind(0.25, 0.25)), both_behind(Behind(-0.5, 0.25), NOT_BEHIND).value
    (Behind(value=0.0, takes_s=0.25), -0.5)
    """
    takes_s = max(one.takes_s, other.takes_s)
    if takes_s == 0.0:
        return NOT_BEHIND
    return Behind((one.value * one.takes_s + other.value * other.takes_s) / takes_s, takes_s)


def axis_output(
    tuning: AxisTuning, tables: Row, states: tuple[SourceState, ...], raw: tuple[Row, ...], dt: float
) -> tuple[tuple[SourceState, ...], AxisOutput]:
    """Return the sources' new states and the output after `dt` seconds.

    The value is the x of the merged sources, clamped to -1..1 under a sum.

    >>> from wendonic.kernels.source.source import PLAIN_SOURCE, SOURCE_AT_REST
    >>> axis_output(NO_AXIS._replace(sources=(PLAIN_SOURCE,)), (), (SOURCE_AT_REST,), ((0.5, 0.0),), 0.1)[1]
    AxisOutput(source=0.0, value=0.5, begin=0.5, ramps=0.0)
    """
    if len(tuning.sources) == 0:
        return states, AXIS_SILENT
    after: tuple[SourceState, ...] = ()
    output = keys = NO_OUTPUT
    behind = keys_behind = NOT_BEHIND
    joined = 0
    for k in range(len(tuning.sources)):
        state, shaped = source_output(tuning.sources[k], tables, states[k], raw[k], k + 0.0, 0.0, 0, dt)
        after = (*after, state)
        of_source = ramp_behind(tuning.sources[k], states[k], state, shaped, dt)
        if tuning.joined > 0 and tuning.sources[k].kind == SOURCE_KEYS:
            keys = shaped if joined == 0 else both_keys(keys, shaped, 0)
            keys_behind = both_behind(keys_behind, of_source)
            joined += 1
        elif k - joined == 0:
            output = shaped
            behind = of_source
        elif tuning.merge == MERGE_SUM:
            output = summed(output, shaped)
            behind = both_behind(behind, of_source)
        else:
            output = strongest(output, shaped)
            if output.source == shaped.source:
                behind = of_source
    if joined > 0:
        behind_both = keys_behind
        if joined == len(tuning.sources):
            output = keys
        elif tuning.merge == MERGE_SUM:
            output = summed(keys, output)
            behind_both = both_behind(keys_behind, behind)
        else:
            output = strongest(keys, output)
            behind_both = keys_behind if output.source == keys.source else behind
        behind = behind_both
    source = output.source if output.length > 0.0 else -1.0
    value = min(max(output.x, -1.0), 1.0)
    if behind.takes_s == 0.0:
        return after, AxisOutput(source, value, value, 0.0)
    begin = min(max(output.x + behind.value, -1.0), 1.0)
    return after, AxisOutput(source, value, begin, min(behind.takes_s / dt, 1.0))


def mean_within(output: AxisOutput, first: float, last: float) -> float:
    """Return the mean value from one share of the tick to a later one.

    >>> half = AxisOutput(0.0, 1.0, 0.0, 0.5)
    >>> mean_within(half, 0.0, 0.5), mean_within(half, 0.0, 1.0), mean_within(half, 0.5, 1.0)
    (0.5, 0.75, 1.0)
    """
    if output.ramps == 0.0 or first >= output.ramps:
        return output.value
    until = min(last, output.ramps)
    halfway = 0.5 * (first + until) / output.ramps
    ramping = output.begin + (output.value - output.begin) * halfway
    return output.value + (ramping - output.value) * (until - first) / (last - first)
