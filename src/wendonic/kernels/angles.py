"""Angles on the compass."""

import math


def wrapped_angle(angle: float) -> float:
    """Return the same direction as `angle` (rad), within -pi (left out) to pi (included).

    Formula: angle - 2 pi ceil((angle - pi) / (2 pi)). Angles already in range come back bit for bit.

    >>> round(wrapped_angle(math.radians(350.0)), 6) == round(math.radians(-10.0), 6)
    True
    >>> wrapped_angle(-math.pi) == math.pi
    True
    """
    if -math.pi < angle <= math.pi:
        return angle
    turned = angle - math.tau * math.ceil((angle - math.pi) / math.tau)
    # Rounding may end slightly outside.
    return min(max(turned, -math.pi), math.pi)
