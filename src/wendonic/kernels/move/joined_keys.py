"""Steps 5 and 6 of shaping: entries of keys, d-pads and zones of one channel are one keyboard."""

import math

from wendonic.kernels.row import Row
from wendonic.kernels.source.opposites import OPPOSITES_EARLIEST, opposed
from wendonic.kernels.source.source import SOURCE_KEYS, SourceOutput, SourceTuning
from wendonic.kernels.vector import Vec2


def first_to_count(one: float, other: float, rule: int) -> float:
    """Return which of two keys of one side counts under a rule, by their numbers in the order of pressing; 0 for
    none.

    >>> first_to_count(2.0, 3.0, OPPOSITES_EARLIEST), first_to_count(2.0, 3.0, 0), first_to_count(0.0, 3.0, 2)
    (2.0, 3.0, 3.0)
    """
    if rule == OPPOSITES_EARLIEST and one > 0.0 and other > 0.0:
        return min(one, other)
    return max(one, other)


def without_losers(sources: tuple[SourceTuning, ...], between: int, raw: tuple[Row, ...]) -> tuple[Row, ...]:
    """Return the raw numbers of a channel's sources without the keys that lose against keys of another entry.

    Within an entry its own rule for opposites counts, among entries the rule `between`: of two opposite sides, the
    later or the earlier one wins, or neither does.

    >>> from wendonic.kernels.source.source import PLAIN_SOURCE
    >>> keys = PLAIN_SOURCE._replace(kind=SOURCE_KEYS)
    >>> without_losers((keys, keys), 0, ((0.0, 0.0, 1.0, 0.0), (1.0, 0.0, 0.0, 1.0)))
    ((0.0, 0.0, 0.0, 0.0), (1.0, 0.0, 0.0, 0.0))
    """
    right = left = forward = back = 0.0
    for k in range(len(sources)):
        if sources[k].kind == SOURCE_KEYS:
            rule, numbers = sources[k].keys.opposites, raw[k]
            x = opposed(numbers[0], numbers[1], rule)
            y = opposed(numbers[2], numbers[3], rule)
            # Under the same rule all of its keys count; otherwise only those that its own rule leaves.
            same = rule == between
            if same or x > 0.0:
                right = first_to_count(right, numbers[0], between)
            if same or x < 0.0:
                left = first_to_count(left, numbers[1], between)
            if same or y > 0.0:
                forward = first_to_count(forward, numbers[2], between)
            if same or y < 0.0:
                back = first_to_count(back, numbers[3], between)
    across = opposed(right, left, between)
    along = opposed(forward, back, between)
    kept: tuple[Row, ...] = ()
    for k in range(len(sources)):
        numbers = raw[k]
        if sources[k].kind == SOURCE_KEYS:
            rule = sources[k].keys.opposites
            x = opposed(numbers[0], numbers[1], rule)
            y = opposed(numbers[2], numbers[3], rule)
            numbers = (
                1.0 if x > 0.0 and across > 0.0 else 0.0,
                1.0 if x < 0.0 and across < 0.0 else 0.0,
                1.0 if y > 0.0 and along > 0.0 else 0.0,
                1.0 if y < 0.0 and along < 0.0 else 0.0,
            )
        kept = (*kept, numbers)
    return kept


def both_keys(first: SourceOutput, second: SourceOutput, means: int) -> SourceOutput:
    """Return the request of two entries of keys together: the sum on each axis, at most 1, with the number of the
    stronger one. `means` is 1 if `ran_x` and `ran_y` are the means of a tick, see `SourceOutput`; if it is 0, the two
    runs become one as long as the longer one, with the same mean.

    >>> from wendonic.kernels.source.source import NO_OUTPUT
    >>> ahead = NO_OUTPUT._replace(length=1.0, y=1.0, raw_y=1.0)
    >>> right = NO_OUTPUT._replace(source=1.0, length=1.0, x=1.0)
    >>> both = both_keys(both_keys(ahead, right, 0), ahead, 0)
    >>> both.x, both.y, both.raw_y
    (1.0, 1.0, 1.0)
    >>> goes, comes = NO_OUTPUT._replace(ran_x=1.0, run_s=0.05), NO_OUTPUT._replace(x=1.0, run_s=0.1)
    >>> both_keys(goes, comes, 0).ran_x, both_keys(goes, comes, 0).run_s
    (0.5, 0.1)
    """
    x = bounded(first.x + second.x)
    y = bounded(first.y + second.y)
    source = second.source if second.longest > first.longest else first.source
    longest = max(first.longest, second.longest)
    ran_x = first.ran_x + second.ran_x
    ran_y = first.ran_y + second.ran_y
    run_s = max(first.run_s, second.run_s)
    if means <= 0 and first.run_s != second.run_s:
        one, other = first.run_s / run_s, second.run_s / run_s
        ran_x = x + (first.ran_x - first.x) * one + (second.ran_x - second.x) * other
        ran_y = y + (first.ran_y - first.y) * one + (second.ran_y - second.y) * other
    raw_x = bounded(first.raw_x + second.raw_x)
    raw_y = bounded(first.raw_y + second.raw_y)
    return SourceOutput(source, math.hypot(x, y), x, y, raw_x, raw_y, bounded(ran_x), bounded(ran_y), run_s, longest)


def earlier_together(first: Vec2, second: Vec2) -> Vec2:
    """Return the earlier request of two entries of keys together.

    >>> earlier_together(Vec2(0.0, 1.0), Vec2(0.25, 0.5))
    Vec2(x=0.25, y=1.0)
    """
    return Vec2(bounded(first.x + second.x), bounded(first.y + second.y))


def bounded(value: float) -> float:
    """Return a value clamped to -1..1.

    >>> bounded(1.5), bounded(-0.5)
    (1.0, -0.5)
    """
    return min(max(value, -1.0), 1.0)
