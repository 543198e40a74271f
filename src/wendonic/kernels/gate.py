"""Step 1 of shaping: the stick's physical rim onto the unit disc."""

import math

from wendonic.kernels.kernel import kernel

GATE_CIRCLE = 0
GATE_SQUARE = 1


@kernel
def gated(x: float, y: float, gate: int) -> tuple[float, float]:
    """Return a stick's position with its rim made a circle of radius 1; the direction is kept.

    `GATE_CIRCLE` leaves it alone. `GATE_SQUARE`, for a stick whose rim is a square: the length is multiplied by
    max(|x|, |y|) / hypot(x, y), which takes a corner at (1, 1) to length 1 and a side to itself.

    >>> gated(1.0, 0.0, GATE_SQUARE)
    (1.0, 0.0)
    >>> x, y = gated(1.0, 1.0, GATE_SQUARE)
    >>> round(math.hypot(x, y), 12)
    1.0
    """
    length = math.hypot(x, y)
    if gate == GATE_CIRCLE or length == 0.0:
        return x, y
    scale = max(abs(x), abs(y)) / length
    return x * scale, y * scale
