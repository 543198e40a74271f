"""Step 6 of shaping: several sources, one value."""

import math

from wendonic.kernels.source.source import SourceOutput

MERGE_STRONGEST = 0
MERGE_SUM = 1
MERGE_LATEST = 2

EVEN = 1.0 + 1e-9
"""Two sources that differ by a smaller factor, such as full inputs with different rounding, request the same."""


def strongest(first: SourceOutput, second: SourceOutput) -> SourceOutput:
    """Return the source that requests more, or the first one if they are equal up to rounding.

    While neither requests anything, the one with the longer raw value is returned, so that a stick in its dead zone
    can still be seen.

    >>> from wendonic.kernels.source.source import NO_OUTPUT
    >>> keys = NO_OUTPUT._replace(source=0.0, length=1.0, x=1.0)
    >>> stick = NO_OUTPUT._replace(source=1.0, length=0.4, y=0.4)
    >>> strongest(stick, keys) is keys
    True
    """
    raw_x, raw_y = second.raw_x, second.raw_y
    if second.length > first.length * EVEN or (
        first.length == 0.0
        and second.length == 0.0
        and raw_x * raw_x + raw_y * raw_y > (first.raw_x * first.raw_x + first.raw_y * first.raw_y) * EVEN
    ):
        return second
    return first


def summed(first: SourceOutput, second: SourceOutput) -> SourceOutput:
    """Return the sum of both values, shaped and raw, with the number of the stronger one.

    The sum may be longer than 1: the diagonal rule that follows limits it.

    >>> from wendonic.kernels.source.source import NO_OUTPUT
    >>> forward = NO_OUTPUT._replace(length=0.75, y=0.75)
    >>> back = NO_OUTPUT._replace(source=1.0, length=0.25, y=-0.25)
    >>> summed(forward, back).y
    0.5
    """
    x = first.x + second.x
    y = first.y + second.y
    source = second.source if second.longest > first.longest * EVEN else first.source
    return SourceOutput(
        source,
        math.hypot(x, y),
        x,
        y,
        first.raw_x + second.raw_x,
        first.raw_y + second.raw_y,
        first.ran_x + second.ran_x,
        first.ran_y + second.ran_y,
        max(first.run_s, second.run_s),
        max(first.longest, second.longest),
    )


def latest(
    first: SourceOutput, second: SourceOutput, first_was: float, second_was: float, last_source: float
) -> SourceOutput:
    """Return the source that began to move last, for as long as it moves; then the strongest of the others.

    `first_was` and `second_was` are their lengths a tick ago, `last_source` is the number of the source that steered
    a tick ago. If both begin in the same tick, the longer one counts.

    >>> from wendonic.kernels.source.source import NO_OUTPUT
    >>> keys = NO_OUTPUT._replace(source=0.0, length=1.0, x=1.0)
    >>> stick = NO_OUTPUT._replace(source=1.0, length=0.4, y=0.4)
    >>> latest(keys, stick, 1.0, 0.0, 0.0) is stick, latest(keys, stick, 1.0, 0.3, 1.0) is stick
    (True, True)
    """
    first_began = first.length > 0.0 and first_was == 0.0
    second_began = second.length > 0.0 and second_was == 0.0
    if first_began != second_began:
        return first if first_began else second
    if not first_began:
        if first.source == last_source and first.length > 0.0:
            return first
        if second.source == last_source and second.length > 0.0:
            return second
    return strongest(first, second)


def merged(
    first: SourceOutput, second: SourceOutput, first_was: float, second_was: float, last_source: float, rule: int
) -> SourceOutput:
    """Return what two sources request together under a merge rule.

    >>> from wendonic.kernels.source.source import NO_OUTPUT
    >>> keys = NO_OUTPUT._replace(source=0.0, length=1.0, x=1.0)
    >>> stick = NO_OUTPUT._replace(source=1.0, length=0.5, x=-0.5)
    >>> [merged(keys, stick, 1.0, 0.0, 0.0, rule).x for rule in (MERGE_STRONGEST, MERGE_SUM, MERGE_LATEST)]
    [1.0, 0.5, -0.5]
    """
    if rule == MERGE_SUM:
        return summed(first, second)
    if rule == MERGE_LATEST:
        return latest(first, second, first_was, second_was, last_source)
    return strongest(first, second)
