"""Step 9 of shaping: the direction pulled to a few compass points."""

import math

from wendonic.kernels.angles import wrapped_angle
from wendonic.kernels.vector import Vec2

ON_BORDER = 1e-6
"""Within this angle (rad) of a border a heading counts as on it, as with two keys."""

STRAIGHT = 1e-12
"""A smaller component of a direction counts as 0."""


def nearest_notch(heading: float, notches: int) -> float:
    """Return the nearest of `notches` compass points to a heading (rad), counted clockwise from forward, 0.

    On a border between two points, mirrored headings get mirrored points: the one further to the side, of two that
    are equally far to the side the one further forward, and straight behind the one on the right.

    >>> [nearest_notch(math.radians(deg), 4) for deg in (44.0, 45.0, -45.0, 135.0, -135.0)]
    [0.0, 1.0, 3.0, 1.0, 3.0]
    >>> nearest_notch(math.pi / 2.0, 2), nearest_notch(-math.pi / 2.0, 2), nearest_notch(math.pi, 3)
    (0.0, 0.0, 1.0)
    """
    width = math.tau / notches
    share = heading / width
    border = math.floor(share) + 0.5
    if abs(share - border) * width >= ON_BORDER:
        return math.floor(share + 0.5) % notches + 0.0
    clockwise, other = border + 0.5, border - 0.5
    to_side = abs(math.sin(clockwise * width)) - abs(math.sin(other * width))
    if notches % 4 == 0:
        # Neighbours are never equally far to the side.
        return (clockwise if to_side > 0.0 else other) % notches
    ahead = math.cos(clockwise * width) - math.cos(other * width)
    if abs(to_side) > ON_BORDER:
        point = clockwise if to_side > 0.0 else other
    elif abs(ahead) > ON_BORDER:
        point = clockwise if ahead > 0.0 else other
    else:
        point = clockwise if math.sin(clockwise * width) > 0.0 else other
    return point % notches


def notch_of(x: float, y: float, notches: int, margin: float, was: float) -> float:
    """Return the one of `notches` compass points that (x, y) is pulled to; `was` is the previous one, -1 for none, as
    at rest.

    A point is left only `margin` (rad) beyond its border, so that a hand on the border does not flicker.

    >>> headings = [math.radians(deg) for deg in (22.0, 23.0, 28.0, 29.0, 23.0, 16.0)]
    >>> notch, seen = -1.0, []
    >>> for heading in headings:
    ...     notch = notch_of(math.sin(heading), math.cos(heading), 8, math.radians(6.0), notch)
    ...     seen.append(notch)
    >>> seen
    [0.0, 0.0, 0.0, 1.0, 1.0, 0.0]
    >>> notch_of(0.0, 0.0, 8, 0.1, 3.0)
    -1.0
    """
    if x == 0.0 and y == 0.0:
        return -1.0
    heading = math.atan2(x, y)
    nearest = nearest_notch(heading, notches)
    half = math.pi / notches
    off = abs(wrapped_angle(heading - was * 2.0 * half))
    if was >= 0.0 and half + ON_BORDER < off <= half + margin:
        return was
    return nearest


def notched(x: float, y: float, notches: int, pull: float, notch: float) -> Vec2:
    """Return (x, y) turned towards `notch`, one of `notches` compass points, the first one forward; the length is
    kept.

    Each point has its share of the circle, w = pi / notches to either side. Up to pull * w from the point the
    direction becomes that of the point; beyond, an offset d becomes (d - pull * w) / (1 - pull), so the border
    between two points stays in place and, for a pull below 1, nothing jumps. A pull of 0 changes nothing; with 1 only
    the points remain.

    >>> x, y = notched(0.05, 1.0, notches=8, pull=0.5, notch=0.0)
    >>> x, y == math.hypot(0.05, 1.0), notched(0.5, 0.0, notches=4, pull=1.0, notch=1.0)
    (0.0, True, Vec2(x=0.5, y=0.0))
    """
    length = math.hypot(x, y)
    if length == 0.0:
        return Vec2(x, y)
    half = math.pi / notches
    point = notch * 2.0 * half
    offset = wrapped_angle(math.atan2(x, y) - point)
    # On the point up to pull * w beside it; beyond, an offset d becomes (d - pull * w) / (1 - pull).
    beyond = abs(offset) - pull * half
    heading = point
    if beyond > 0.0 and pull < 1.0:
        heading += math.copysign(min(beyond / (1.0 - pull), half), offset)
    right, forward = math.sin(heading), math.cos(heading)
    # Straight to the side must have exactly no forward component: with rounding, a vehicle would creep or brake.
    right = right if math.fabs(right) > STRAIGHT else 0.0
    forward = forward if math.fabs(forward) > STRAIGHT else 0.0
    return Vec2(length * right, length * forward)
