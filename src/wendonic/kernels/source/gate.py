"""Step 1 of shaping: the stick's physical rim onto the unit disc."""

import math

from wendonic.kernels.row import Row
from wendonic.kernels.vector import Vec2

GATE_CIRCLE = 0
GATE_SQUARE = 1
GATE_MEASURED = 2


def rim_length(x: float, y: float, tables: Row, rim: int) -> float:
    """Return how far a stick's measured rim is from the middle, in the direction of (x, y).

    At index `rim` of `tables` is the number of lengths, then the lengths themselves, at equal steps of heading,
    clockwise from forward, with linear interpolation between them.

    >>> rim_length(1.0, 1.0, (4.0, 1.0, 0.5, 1.0, 1.0), 0)
    0.75
    """
    count = int(tables[rim])
    place = math.atan2(x, y) / math.tau * count
    if place < 0.0:
        place += count
    first = int(place)
    share = place - first
    # Rounding may turn a heading just left of forward into a full turn.
    before = tables[rim + 1 + first % count]
    after = tables[rim + 1 + (first + 1) % count]
    return before + (after - before) * share


def gated(x: float, y: float, gate: int, tables: Row, rim: int) -> Vec2:
    """Return a stick's position with its rim mapped to a circle of radius 1; the direction is kept.

    `GATE_CIRCLE` changes nothing. `GATE_SQUARE`, for a stick whose rim is a square: the length is multiplied by
    max(|x|, |y|) / hypot(x, y), which maps a corner at (1, 1) to length 1 and leaves the middle of a side as it is.
    `GATE_MEASURED` divides by the rim's own length in that direction, see `rim_length`.

    >>> gated(1.0, 0.0, GATE_SQUARE, (), 0)
    Vec2(x=1.0, y=0.0)
    >>> x, y = gated(1.0, 1.0, GATE_SQUARE, (), 0)
    >>> round(math.hypot(x, y), 12)
    1.0
    """
    if gate == GATE_CIRCLE:
        return Vec2(x, y)
    length = math.hypot(x, y)
    scale = 1.0
    if length != 0.0:
        measured = gate == GATE_MEASURED
        scale = 1.0 / rim_length(x, y, tables, rim) if measured else max(abs(x), abs(y)) / length
    return Vec2(x * scale, y * scale)
