"""The steer frame `hands`: forward is where the head or the hands point, on top of the view's yaw."""

import math
from typing import NamedTuple

from wendonic.kernels.vector import ZERO2, Vec2

FORWARD_HEAD = 0
FORWARD_LEFT = 1
FORWARD_RIGHT = 2
FORWARD_BOTH = 3

OPPOSED = 0.1
"""Two hands whose directions add up to less than this have no common direction."""


class Pointers(NamedTuple):
    """The horizontal directions in which the head and both hands point in the play space, right and forward, of
    length 1; zeros for a device that has never been seen.
    """

    head: Vec2
    left: Vec2
    right: Vec2


NO_POINTERS = Pointers(ZERO2, ZERO2, ZERO2)


def hands_yaw(forward: int, pointers: Pointers) -> float:
    """Return the heading (rad, in the play space) that is forward for a player who walks by head or hands.

    Under `FORWARD_BOTH` it is the mean of both hands; if they point apart, or a hand is unseen, the head's counts.

    >>> both = Pointers(Vec2(0.0, 1.0), Vec2(1.0, 0.0), Vec2(0.0, 1.0))
    >>> round(math.degrees(hands_yaw(FORWARD_BOTH, both)), 9)
    45.0
    >>> hands_yaw(FORWARD_BOTH, both._replace(right=Vec2(-1.0, 0.0)))
    0.0
    """
    x, y = pointers.head
    left, right = pointers.left, pointers.right
    left_seen = left.x != 0.0 or left.y != 0.0
    right_seen = right.x != 0.0 or right.y != 0.0
    if forward == FORWARD_LEFT and left_seen:
        x, y = left
    elif forward == FORWARD_RIGHT and right_seen:
        x, y = right
    elif forward == FORWARD_BOTH and left_seen and right_seen:
        both_x = left.x + right.x
        both_y = left.y + right.y
        if both_x * both_x + both_y * both_y > OPPOSED * OPPOSED:
            x, y = both_x, both_y
    if x == 0.0 and y == 0.0:
        return 0.0
    return math.atan2(x, y)
