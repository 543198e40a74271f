"""Ground that is not level: directions laid onto it, and ground that is too steep."""

import math
from typing import NamedTuple

from wendonic.kernels.kernel import called_kernel, kernel


@kernel
def laid_on_slope(
    x: float, y: float, normal_x: float, normal_y: float, normal_z: float
) -> tuple[float, float, float]:
    """Return the level direction (x, y) laid onto ground of that normal: same length, same heading on the plan.

    With d the direction and n the normal, t = (n_z d_x, n_z d_y, -(n . d)) lies in the ground whatever n is, and
    above d; it is brought to the length of d. On level ground this is d itself, bit for bit. The normal points up
    (n_z 0 or more) and need not be of length 1; along a wall (n_z and n . d both 0) the direction stays as it is.

    >>> laid_on_slope(0.0, 5.0, 0.0, -0.6, 0.8)
    (0.0, 4.0, 3.0)
    >>> laid_on_slope(0.3, 0.4, 0.0, 0.0, 1.0)
    (0.3, 0.4, 0.0)
    """
    drop = normal_x * x + normal_y * y
    if drop == 0.0:
        return x, y, 0.0
    length = math.hypot(x, y)
    level = normal_z * length
    steep = math.hypot(level, drop)
    # Two shares of 1, so that no normal is too small for it.
    return x * (level / steep), y * (level / steep), -length * (drop / steep)


NOTHING_LEFT = 1e-12


class SlopeTuning(NamedTuple):
    """`follows` is 1 where a mode walks on slopes; ground steeper than an angle, by the `limit_tangent` of it, lets
    nobody up, and he slides down it at `slide_m_s`."""

    follows: int
    limit_tangent: float
    slide_m_s: float


LEVEL_ONLY = SlopeTuning(0, math.inf, 0.0)


class OnSlope(NamedTuple):
    """What is left of a wish on some ground (x, y), how fast he slides down (m/s), and whether some was refused."""

    x: float
    y: float
    slide_x: float
    slide_y: float
    refused: float


@called_kernel
def refused_uphill(
    tuning: SlopeTuning, x: float, y: float, normal_x: float, normal_y: float, normal_z: float
) -> OnSlope:
    """Return what ground of that normal leaves of the level wish (x, y).

    Ground is too steep where the tangent of its slope, hypot(n_x, n_y) / n_z, is above the limit. There the part of
    the wish that goes straight uphill is taken off, the part across and down stays, and he slides straight downhill.

    >>> refused_uphill(SlopeTuning(1, 1.0, 2.0), 0.5, 0.5, 0.0, -0.8, 0.6)
    OnSlope(x=0.5, y=0.0, slide_x=0.0, slide_y=-2.0, refused=1.0)
    >>> refused_uphill(SlopeTuning(1, 1.0, 2.0), 0.5, 0.5, 0.0, -0.6, 0.8)
    OnSlope(x=0.5, y=0.5, slide_x=0.0, slide_y=0.0, refused=0.0)
    """
    side = math.sqrt(normal_x * normal_x + normal_y * normal_y)
    if side <= tuning.limit_tangent * normal_z:
        return OnSlope(x, y, 0.0, 0.0, 0.0)
    down_x = normal_x / side
    down_y = normal_y / side
    up = -(x * down_x + y * down_y)
    refused = 0.0
    if up > 0.0:
        x += down_x * up
        y += down_y * up
        refused = 1.0
        # Straight up, nothing is left but rounding.
        if math.hypot(x, y) < NOTHING_LEFT:
            x = y = 0.0
    return OnSlope(x, y, down_x * tuning.slide_m_s, down_y * tuning.slide_m_s, refused)
