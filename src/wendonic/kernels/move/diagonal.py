"""Step 7 of shaping: the limit for two axes together."""

DIAGONAL_CAP = 0
DIAGONAL_UNIT = 1
DIAGONAL_FREE = 2
DIAGONAL_FACTOR = 3

LEAST_LENGTH = 1e-9
"""A length below this is rounding, not a request; scaling it up could overflow."""


def diagonal_scale(length: float, rule: int) -> float:
    """Return the factor by which a value of that `length` (0 or more) is multiplied under a diagonal rule.

    `DIAGONAL_CAP` gives 1 / length above length 1 and 1 below, so a partial tilt is kept; `DIAGONAL_UNIT` gives 1 /
    length for anything above LEAST_LENGTH, so every input is full speed; `DIAGONAL_FREE` gives 1, so two keys
    together are 41 % too fast; it exists to show the fault.

    >>> diagonal_scale(1.25, DIAGONAL_CAP), diagonal_scale(0.5, DIAGONAL_CAP)
    (0.8, 1.0)
    >>> diagonal_scale(0.5, DIAGONAL_UNIT), diagonal_scale(1.25, DIAGONAL_FREE)
    (2.0, 1.0)
    """
    # A length above 1 is cut to 1.
    if length > 1.0:
        return 1.0 if rule == DIAGONAL_FREE else 1.0 / length
    if rule == DIAGONAL_UNIT and length > LEAST_LENGTH:
        return 1.0 / length
    return 1.0


def factor_scale(x: float, y: float, factor: float) -> float:
    """Return the factor by which both axes are multiplied under `DIAGONAL_FACTOR`: `factor` (0..1) where both are
    alike.

    Formula: 1 - (1 - factor) * min(|x|, |y|) / max(|x|, |y|). Along an axis it is 1, and from there to the diagonal
    it changes linearly, so that a stick turned off an axis does not jump. With keys and a factor of 0.7071 a diagonal
    has length 1; with a larger one it is longer.

    >>> factor_scale(1.0, -1.0, 0.75), factor_scale(0.0, 0.4, 0.75), factor_scale(0.5, 1.0, 0.75)
    (0.75, 1.0, 0.875)
    """
    most = max(abs(x), abs(y))
    if most == 0.0:
        return 1.0
    # 1 - (1 - factor) min(|x|, |y|) / max(|x|, |y|)
    return 1.0 - (1.0 - factor) * (min(abs(x), abs(y)) / most)


def scale_under(rule: int, factor: float, length: float, x: float, y: float) -> float:
    """Return the factor by which both axes of (x, y), of that `length`, are multiplied under any rule.

    >>> scale_under(DIAGONAL_FACTOR, 0.75, 1.25, 1.0, 0.75), scale_under(DIAGONAL_CAP, 0.75, 1.25, 1.0, 0.75)
    (0.8125, 0.8)
    """
    if rule == DIAGONAL_FACTOR:
        return factor_scale(x, y, factor)
    return diagonal_scale(length, rule)
