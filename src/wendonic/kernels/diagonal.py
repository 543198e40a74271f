"""Step 7 of shaping: what two axes together may add up to."""

import math

from wendonic.kernels.kernel import kernel

DIAGONAL_CAP = 0
DIAGONAL_UNIT = 1
DIAGONAL_FREE = 2


@kernel
def diagonal_scale(x: float, y: float, rule: int) -> float:
    """Return the factor by which (x, y) is multiplied under a diagonal rule.

    With length = hypot(x, y): `DIAGONAL_CAP` gives 1 / length above length 1 and 1 below, so a partial
    tilt is kept; `DIAGONAL_UNIT` gives 1 / length for anything but (0, 0), so every input is full speed;
    `DIAGONAL_FREE` gives 1, so two keys together are 41 % too fast: it is there to see the fault.

    >>> round(diagonal_scale(1.0, 1.0, DIAGONAL_CAP), 9), diagonal_scale(0.3, 0.4, DIAGONAL_CAP)
    (0.707106781, 1.0)
    >>> diagonal_scale(0.3, 0.4, DIAGONAL_UNIT), diagonal_scale(1.0, 1.0, DIAGONAL_FREE)
    (2.0, 1.0)
    """
    if rule == DIAGONAL_FREE:
        return 1.0
    length = math.hypot(x, y)
    if length > 1.0 or (rule == DIAGONAL_UNIT and length > 0.0):
        return 1.0 / length
    return 1.0
