"""Step 6 of shaping: several sources, one value."""

from wendonic.kernels.kernel import kernel
from wendonic.kernels.source import SourceState


@kernel
def strongest(first: SourceState, second: SourceState) -> SourceState:
    """Return the source whose shaped value is longer; the first one where they are equal.

    >>> from wendonic.kernels.source import SOURCE_AT_REST
    >>> keys = SOURCE_AT_REST._replace(source=0.0, length=1.0, x=1.0)
    >>> stick = SOURCE_AT_REST._replace(source=1.0, length=0.4, y=0.4)
    >>> strongest(stick, keys) is keys
    True
    """
    if second.length > first.length:
        return second
    return first
