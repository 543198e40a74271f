"""Step 6 of shaping: several sources, one value."""

from wendonic.kernels.kernel import kernel
from wendonic.kernels.source import SourceState


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
