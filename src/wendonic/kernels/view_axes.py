"""The heading of a view on the plan, from the directions of its own axes."""

import math

STEEP = 0.985
"""Sine of the pitch (80 deg) from which the view's up begins to determine forward."""


def level_forward(
    forward_x: float, forward_y: float, forward_z: float, up_x: float, up_y: float, up_z: float
) -> tuple[float, float]:
    """Return the direction on the plan, of length 1, that is forward for a view; (0, 0) if its axes do not determine
    it.

    `forward` and `up` are the view's own, in the plan frame, of any length. Projected onto the plan, forward is (a_x,
    a_y). Straight down that is zero, and the upper edge of the screen is forward; straight up, the lower edge:
    -sign(a_z) u. Between a pitch of 80 deg and the pole one blends into the other, by 3 s² - 2 s³; without roll they
    are the same direction, so nothing turns and nothing jumps.

    >>> level_forward(0.0, 3.0, -4.0, 0.0, 4.0, 3.0)
    (0.0, 1.0)
    >>> level_forward(0.0, 0.0, -1.0, 2.0, 0.0, 0.0), level_forward(0.0, 0.0, 0.0, 0.0, 0.0, 0.0)
    ((1.0, 0.0), (0.0, 0.0))
    """
    forward_length = math.hypot(math.hypot(forward_x, forward_y), forward_z)
    if not 0.0 < forward_length < math.inf:
        return 0.0, 0.0
    up_length = math.hypot(math.hypot(up_x, up_y), up_z)
    if not 0.0 < up_length < math.inf:
        up_x = 0.0
        up_y = 0.0
        up_length = 1.0
    x, y, z = forward_x / forward_length, forward_y / forward_length, forward_z / forward_length
    return unit_level_forward(x, y, z, up_x / up_length, up_y / up_length)


def unit_level_forward(
    forward_x: float, forward_y: float, forward_z: float, up_x: float, up_y: float
) -> tuple[float, float]:
    """Return the direction on the plan, of length 1, that is forward; (0, 0) if there is none.

    It is `level_forward` for directions of length 1. Looking straight down, it is where the view's upper edge points;
    straight up, the lower one.

    >>> unit_level_forward(0.6, 0.0, -0.8, 0.8, 0.0)
    (1.0, 0.0)
    """
    x = forward_x
    y = forward_y
    steep = abs(forward_z)
    if steep > STEEP:
        s = min((steep - STEEP) / (1.0 - STEEP), 1.0)
        s = s * s * (3.0 - 2.0 * s)
        sign = -s if forward_z > 0.0 else s
        x = x + up_x * sign - x * s
        y = y + up_y * sign - y * s
    length = math.sqrt(x * x + y * y)
    if length == 0.0:
        return 0.0, 0.0
    return x / length, y / length


def pose_forward(x: float, y: float, z: float, w: float) -> tuple[float, float]:
    """Return where a pose's quaternion points on the plan, right and forward, of length 1, by `level_forward`.

    A pose is WebXR's: x right, y up, -z ahead.

    >>> pose_forward(0.0, 0.0, 0.0, 1.0)
    (0.0, 1.0)
    """
    across, up, back = turned_ahead(x, y, z, w)
    edge_x = 0.0
    edge_z = 0.0
    # Only a steep view needs its upper edge.
    if abs(up) > STEEP:
        edge_x, edge_z = upper_edge(x, y, z, w)
    right, forward = unit_level_forward(across, 0.0 - back, up, edge_x, 0.0 - edge_z)
    return right, forward


def turned_ahead(x: float, y: float, z: float, w: float) -> tuple[float, float, float]:
    """Return where a pose points, right, up and back: (0, 0, -1) turned by `turned_by`.

    >>> turned_ahead(0.5, -0.1, 0.3, 0.8) == turned_by(0.5, -0.1, 0.3, 0.8, 0.0, 0.0, -1.0)
    True
    """
    square = x * x + y * y + z * z + w * w
    if square == 0.0:
        return 0.0, 0.0, -1.0
    twice = 2.0 / square
    return 0.0 - twice * (w * y + z * x), twice * (w * x - z * y), twice * (x * x + y * y) - 1.0


def upper_edge(x: float, y: float, z: float, w: float) -> tuple[float, float]:
    """Return where the upper edge of a pose points, right and back: (0, 1, 0) turned by `turned_by`, without its
    upward component.

    >>> right, _, back = turned_by(0.5, -0.1, 0.3, 0.8, 0.0, 1.0, 0.0)
    >>> upper_edge(0.5, -0.1, 0.3, 0.8) == (right, back)
    True
    """
    square = x * x + y * y + z * z + w * w
    if square == 0.0:
        return 0.0, 0.0
    twice = 2.0 / square
    return twice * (x * y - w * z), twice * (w * x + y * z)


def turned_by(
    x: float, y: float, z: float, w: float, across: float, up: float, back: float
) -> tuple[float, float, float]:
    """Return the vector (across, up, back) turned by the quaternion x, y, z, w of any length: v + 2 w (q x v) + 2 q x
    (q x v) over the square of the quaternion's length (Shoemake, SIGGRAPH 1985), in the axes of the four numbers.

    >>> half = math.sqrt(0.5)
    >>> [round(value, 12) for value in turned_by(0.0, 2.0 * half, 0.0, 2.0 * half, 0.0, 0.0, -1.0)]
    [-1.0, 0.0, 0.0]
    """
    square = x * x + y * y + z * z + w * w
    if square == 0.0:
        return across, up, back
    cross_x = y * back - z * up
    cross_y = z * across - x * back
    cross_z = x * up - y * across
    twice = 2.0 / square
    return (
        across + twice * (w * cross_x + y * cross_z - z * cross_y),
        up + twice * (w * cross_y + z * cross_x - x * cross_z),
        back + twice * (w * cross_z + x * cross_y - y * cross_x),
    )
