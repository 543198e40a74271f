"""The channels `rise`, `throttle` and `turn`: one number each, -1..1."""

from typing import NamedTuple, TypeAlias

from wendonic.kernels.kernel import Row, called_kernel, kernel
from wendonic.kernels.merge import MERGE_SUM, strongest, summed
from wendonic.kernels.places import AXIS_SOURCES
from wendonic.kernels.source import (
    SOURCE_AT_REST,
    SOURCE_KEYS,
    SourceState,
    SourceTuning,
    shaped_source,
)


class AxisTuning(NamedTuple):
    """The numbers of one channel; a source's value is its x."""

    source_count: int
    sources: tuple[SourceTuning, SourceTuning, SourceTuning]
    merge: int


AxisStates: TypeAlias = tuple[SourceState, SourceState, SourceState]


def axis_states_at_rest(place: int) -> AxisStates:
    """Return the states of a channel whose first source has that place in the sample."""
    states = [SOURCE_AT_REST._replace(source=float(place + k)) for k in range(AXIS_SOURCES)]
    return states[0], states[1], states[2]


@called_kernel
def ramp_behind(tuning: SourceTuning, before: SourceState, after: SourceState) -> float:
    """Return how far from its end a key's ramp began in a tick; 0 for everything that has one value for all of it.

    >>> from wendonic.kernels.source import SILENT_SOURCE
    >>> keys = SILENT_SOURCE._replace(kind=SOURCE_KEYS, rise_s=0.5, fall_s=0.5)
    >>> ramp_behind(keys, SOURCE_AT_REST, SOURCE_AT_REST._replace(end_x=0.5, raw_x=1.0))
    -0.5
    """
    if tuning.kind != SOURCE_KEYS or before.end_x == after.end_x:
        return 0.0
    if tuning.rise_s == 0.0 and tuning.fall_s == 0.0:
        return 0.0
    begin = 0.0 if tuning.at_once > 0 and before.end_x * after.raw_x < 0.0 else before.end_x
    return begin - after.end_x


@called_kernel
def joined(
    merge: int, merged: SourceState, behind: float, source: SourceState, of_source: float
) -> tuple[SourceState, float]:
    """Return two sources as one, with how far from its end the ramp of it began.

    >>> up = SOURCE_AT_REST._replace(length=0.5, x=0.5)
    >>> down = SOURCE_AT_REST._replace(source=1.0, length=0.25, x=-0.25)
    >>> joined(MERGE_SUM, up, -0.25, down, 0.5)[1], joined(0, up, -0.25, down, 0.5)[1]
    (0.25, -0.25)
    """
    if merge == MERGE_SUM:
        return summed(merged, source), behind + of_source
    stronger = strongest(merged, source)
    return stronger, of_source if stronger.source == source.source else behind


@kernel
def axis_amount(
    tuning: AxisTuning, states: AxisStates, sample: Row, dt: float
) -> tuple[AxisStates, float, float, float]:
    """Return the sources' new states, which of them moves most (its place, -1 for none), the channel's value at the
    end of the tick, and where a ramp of it began in the tick (the value itself without one).

    The value is the x of the merged sources, kept to -1..1 under a sum. Every step of it is exact for any `dt`, so a
    hitch need not be cut.

    >>> from wendonic.kernels.source import SILENT_SOURCE, SOURCE_FORMED
    >>> lever = SILENT_SOURCE._replace(kind=SOURCE_FORMED)
    >>> rise = AxisTuning(1, (lever, SILENT_SOURCE, SILENT_SOURCE), 0)
    >>> axis_amount(rise, axis_states_at_rest(0), (0.5, 0.0, 0.0, 0.0), 0.1)[1:]
    (0.0, 0.5, 0.5)
    """
    count = tuning.source_count
    first, second, third = states
    first = merged = shaped_source(tuning.sources[0], first, sample, dt)
    behind = ramp_behind(tuning.sources[0], states[0], first)
    if count > 1:
        second = shaped_source(tuning.sources[1], second, sample, dt)
        of_second = ramp_behind(tuning.sources[1], states[1], second)
        merged, behind = joined(tuning.merge, merged, behind, second, of_second)
    if count > 2:
        third = shaped_source(tuning.sources[2], third, sample, dt)
        merged, behind = joined(tuning.merge, merged, behind, third, ramp_behind(tuning.sources[2], states[2], third))
    source = merged.source if merged.length > 0.0 else -1.0
    value = min(max(merged.x, -1.0), 1.0)
    return (first, second, third), source, value, min(max(merged.x + behind, -1.0), 1.0)
