"""Steer frames: what "ahead" means."""

import math

from wendonic.kernels.kernel import kernel

FRAME_MAP = 0
FRAME_CAMERA = 1


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
