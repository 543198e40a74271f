"""Step 6 of shaping: several sources, one value."""

import math

from wendonic.kernels.kernel import kernel
from wendonic.kernels.source import SourceState

MERGE_STRONGEST = 0
MERGE_SUM = 1
MERGE_LATEST = 2


@kernel
def strongest(first: SourceState, second: SourceState) -> SourceState:
    """Return the source whose shaped value is longer; the first one where they are equal.

    While both give nothing, the one with the longer raw value stands for both, so that a stick lying in its
    dead zone can still be seen.

    >>> from wendonic.kernels.source import SOURCE_AT_REST
    >>> keys = SOURCE_AT_REST._replace(source=0.0, length=1.0, x=1.0)
    >>> stick = SOURCE_AT_REST._replace(source=1.0, length=0.4, y=0.4)
    >>> strongest(stick, keys) is keys
    True
    """
    if first.length > 0.0 or second.length > 0.0:
        return second if second.length > first.length else first
    first_raw = first.raw_x * first.raw_x + first.raw_y * first.raw_y
    second_raw = second.raw_x * second.raw_x + second.raw_y * second.raw_y
    return second if second_raw > first_raw else first


@kernel
def summed(first: SourceState, second: SourceState) -> SourceState:
    """Return both values added, shaped and raw; the stronger one gives its place.

    The sum may be longer than 1: the diagonal rule that follows limits it.

    >>> from wendonic.kernels.source import SOURCE_AT_REST
    >>> ahead = SOURCE_AT_REST._replace(length=0.75, y=0.75)
    >>> back = SOURCE_AT_REST._replace(source=1.0, length=0.25, y=-0.25)
    >>> summed(ahead, back).y
    0.5
    """
    x = first.x + second.x
    y = first.y + second.y
    source = second.source if second.length > first.length else first.source
    raw_x = first.raw_x + second.raw_x
    raw_y = first.raw_y + second.raw_y
    return SourceState(source, math.hypot(x, y), x, y, raw_x, raw_y, 0.0, 0.0)


@kernel
def latest(
    first: SourceState, second: SourceState, first_was: float, second_was: float, steering: float
) -> SourceState:
    """Return the source that began to move last, for as long as it moves; then the strongest of the others.

    `first_was` and `second_was` are their lengths a tick ago, `steering` is the place of the source that
    steered a tick ago. Where both begin in the same tick the longer one counts.

    >>> from wendonic.kernels.source import SOURCE_AT_REST
    >>> keys = SOURCE_AT_REST._replace(length=1.0, x=1.0)
    >>> stick = SOURCE_AT_REST._replace(source=1.0, length=0.4, y=0.4)
    >>> latest(keys, stick, 1.0, 0.0, 0.0) is stick, latest(keys, stick, 1.0, 0.3, 1.0) is stick
    (True, True)
    """
    first_began = first.length > 0.0 and first_was == 0.0
    second_began = second.length > 0.0 and second_was == 0.0
    if first_began != second_began:
        return first if first_began else second
    if not first_began:
        if first.source == steering and first.length > 0.0:
            return first
        if second.source == steering and second.length > 0.0:
            return second
    return strongest(first, second)
