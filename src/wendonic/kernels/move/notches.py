"""Step 9 of shaping: the direction drawn to a few compass points."""

import math

from wendonic.kernels.vector import Vec2


def notched(x: float, y: float, notches: int, pull: float) -> Vec2:
    """Return (x, y) turned towards the nearest of `notches` compass points, the first one forward; the length is
    kept.

    Around each point lies its share of the circle, w = pi / notches to either side. Up to pull * w away from it the
    direction is put on the point; beyond, an offset d becomes (d - pull * w) / (1 - pull), so the border between two
    points stays where it was and, for a pull below 1, nothing jumps. A pull of 0 turns nothing; one of 1 leaves
    nothing but the points.

    >>> x, y = notched(0.05, 1.0, notches=8, pull=0.5)
    >>> x, y == math.hypot(0.05, 1.0)
    (0.0, True)
    """
    length = math.hypot(x, y)
    if length == 0.0:
        return Vec2(x, y)
    half = math.pi / notches
    heading = math.atan2(x, y)
    point = math.floor(heading / (2.0 * half) + 0.5) * 2.0 * half
    offset = heading - point
    beyond = abs(offset) - pull * half
    heading = point
    if beyond > 0.0 and pull < 1.0:
        heading += math.copysign(min(beyond / (1.0 - pull), half), offset)
    return Vec2(length * math.sin(heading), length * math.cos(heading))
