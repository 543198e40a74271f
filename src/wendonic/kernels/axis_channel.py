"""The channels `rise`, `throttle` and `turn`: one number each, -1..1."""

from typing import NamedTuple, TypeAlias

from wendonic.kernels.kernel import Row, kernel
from wendonic.kernels.merge import MERGE_SUM, strongest, summed
from wendonic.kernels.places import AXIS_SOURCES
from wendonic.kernels.source import (
    SOURCE_AT_REST,
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


@kernel
def axis_amount(tuning: AxisTuning, states: AxisStates, sample: Row, dt: float) -> tuple[AxisStates, float, float]:
    """Return the sources' new states, which of them moves most (its place, -1 for none), and the channel's value.

    The value is the x of the merged sources, kept to -1..1 under a sum. Every step of it is exact for any `dt`, so a
    hitch need not be cut.

    >>> from wendonic.kernels.source import SILENT_SOURCE, SOURCE_FORMED
    >>> lever = SILENT_SOURCE._replace(kind=SOURCE_FORMED)
    >>> rise = AxisTuning(1, (lever, SILENT_SOURCE, SILENT_SOURCE), 0)
    >>> axis_amount(rise, axis_states_at_rest(0), (0.5, 0.0, 0.0, 0.0), 0.1)[1:]
    (0.0, 0.5)
    """
    count = tuning.source_count
    first, second, third = states
    first = merged = shaped_source(tuning.sources[0], first, sample, dt)
    if count > 1:
        second = shaped_source(tuning.sources[1], second, sample, dt)
        merged = summed(merged, second) if tuning.merge == MERGE_SUM else strongest(merged, second)
    if count > 2:
        third = shaped_source(tuning.sources[2], third, sample, dt)
        merged = summed(merged, third) if tuning.merge == MERGE_SUM else strongest(merged, third)
    source = merged.source if merged.length > 0.0 else -1.0
    return (first, second, third), source, min(max(merged.x, -1.0), 1.0)
