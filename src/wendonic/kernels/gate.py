"""Step 1 of shaping: the stick's physical rim onto the unit disc."""

import math

from wendonic.kernels.kernel import Row, called_kernel, kernel

GATE_CIRCLE = 0
GATE_SQUARE = 1
GATE_MEASURED = 2


@called_kernel
def rim_length(x: float, y: float, tables: Row, rim: int) -> float:
    """Return how far a stick's measured rim is from the middle, in the direction of (x, y).

    At place `rim` of `tables` stands how many lengths there are, then the lengths themselves, at equal steps of
    heading, clockwise from ahead; between two of them the length runs straight.

    >>> rim_length(1.0, 1.0, (4.0, 1.0, 0.5, 1.0, 1.0), 0)
    0.75
    """
    count = int(tables[rim])
    place = math.atan2(x, y) / math.tau * count
    if place < 0.0:
        place += count
    first = int(place)
    share = place - first
    # Rounding may bring a heading a hair left of ahead all the way round.
    before = tables[rim + 1 + first % count]
    after = tables[rim + 1 + (first + 1) % count]
    return before + (after - before) * share


@kernel
def gated(x: float, y: float, gate: int, tables: Row, rim: int) -> tuple[float, float]:
    """Return a stick's position with its rim made a circle of radius 1; the direction is kept.

    `GATE_CIRCLE` leaves it alone. `GATE_SQUARE`, for a stick whose rim is a square: the length is multiplied by
    max(|x|, |y|) / hypot(x, y), which takes a corner at (1, 1) to length 1 and a side to itself. `GATE_MEASURED`
    divides by the rim's own length in that direction, see `rim_length`.

    >>> gated(1.0, 0.0, GATE_SQUARE, (), 0)
    (1.0, 0.0)
    >>> x, y = gated(1.0, 1.0, GATE_SQUARE, (), 0)
    >>> round(math.hypot(x, y), 12)
    1.0
    """
    length = math.hypot(x, y)
    if gate == GATE_CIRCLE or length == 0.0:
        return x, y
    scale = 1.0 / rim_length(x, y, tables, rim) if gate == GATE_MEASURED else max(abs(x), abs(y)) / length
    return x * scale, y * scale
