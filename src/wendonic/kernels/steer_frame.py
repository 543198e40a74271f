"""Steer frames: what "ahead" means."""

import math

from wendonic.kernels.kernel import called_kernel, kernel

FRAME_MAP = 0
FRAME_CAMERA = 1
FRAME_BESIDE = 2
"""The others, which `steering` does beside the tick: the tick itself shapes, and goes nowhere."""

FRAME_FACING = 3
FRAME_DRIVE = 4
FRAME_FLY = 5
FRAME_GRID = 6
FRAME_GOTO = 7
FRAME_HANDS = 8

AHEAD_HEAD = 0
AHEAD_LEFT = 1
AHEAD_RIGHT = 2
AHEAD_BOTH = 3

OPPOSED = 0.1
"""Two hands whose directions add up to less than this point nowhere together."""


@kernel
def steered(right: float, ahead: float, frame: int, view_yaw: float) -> tuple[float, float]:
    """Return (right, ahead) of the player as (x, y) of the plan.

    `FRAME_MAP`: x = right, y = ahead, whatever the view. `FRAME_CAMERA`: ahead is where the view's yaw
    points, (sin yaw, cos yaw), and right is (cos yaw, -sin yaw); the pitch plays no part, so looking down
    does not slow the walk. The length is kept. `view_yaw` in radians, 0 = +y, clockwise positive.

    >>> x, y = steered(0.0, 1.0, FRAME_CAMERA, math.radians(90.0))
    >>> round(x, 12), round(y, 12)
    (1.0, 0.0)
    """
    if frame == FRAME_MAP:
        return right, ahead
    sine = math.sin(view_yaw)
    cosine = math.cos(view_yaw)
    return right * cosine + ahead * sine, ahead * cosine - right * sine


@called_kernel
def hands_yaw(ahead: int, head: tuple[float, float], left: tuple[float, float], right: tuple[float, float]) -> float:
    """Return the heading (rad, in the play space) that is ahead for somebody who walks by head or hands.

    Each thing has its level direction, right and ahead, of length 1, or zeros while it has never been seen. Under
    `AHEAD_BOTH` it is the mean of both hands; where they point apart, or a hand is unseen, the head's counts.

    >>> round(math.degrees(hands_yaw(AHEAD_BOTH, (0.0, 1.0), (1.0, 0.0), (0.0, 1.0))), 9)
    45.0
    >>> hands_yaw(AHEAD_BOTH, (0.0, 1.0), (1.0, 0.0), (-1.0, 0.0))
    0.0
    """
    x, y = head
    if ahead == AHEAD_LEFT and (left[0] != 0.0 or left[1] != 0.0):
        x, y = left
    elif ahead == AHEAD_RIGHT and (right[0] != 0.0 or right[1] != 0.0):
        x, y = right
    elif ahead == AHEAD_BOTH:
        both_x = left[0] + right[0]
        both_y = left[1] + right[1]
        seen = (left[0] != 0.0 or left[1] != 0.0) and (right[0] != 0.0 or right[1] != 0.0)
        if seen and both_x * both_x + both_y * both_y > OPPOSED * OPPOSED:
            x, y = both_x, both_y
    if x == 0.0 and y == 0.0:
        return 0.0
    return math.atan2(x, y)
