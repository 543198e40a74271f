"""How the body leans with the ground: its own up, which follows the ground's normal."""

import math

from wendonic.kernels.kernel import called_kernel
from wendonic.kernels.smoothing import half_life_factor


@called_kernel
def leaned(
    up: tuple[float, float, float], normal: tuple[float, float, float], half_life_s: float, dt: float
) -> tuple[float, float, float]:
    """Return the direction `up` after following `normal` for `dt` seconds; both of length 1.

    The angle between them falls by half every `half_life_s` (0: at once), along the shortest arc (Shoemake, SIGGRAPH
    1985), so the way does not depend on how `dt` is cut. Exactly opposite ones have no shortest arc: it is at once.

    >>> x, _, z = leaned((0.0, 0.0, 1.0), (0.6, 0.0, 0.8), half_life_s=0.25, dt=0.25)
    >>> round(math.degrees(math.atan2(x, z) * 2.0), 9) == round(math.degrees(math.asin(0.6)), 9)
    True
    """
    left = half_life_factor(half_life_s, dt)
    if left == 0.0 or up == normal:
        return normal
    across_x = up[1] * normal[2] - up[2] * normal[1]
    across_y = up[2] * normal[0] - up[0] * normal[2]
    across_z = up[0] * normal[1] - up[1] * normal[0]
    sine = math.sqrt(across_x * across_x + across_y * across_y + across_z * across_z)
    cosine = up[0] * normal[0] + up[1] * normal[1] + up[2] * normal[2]
    angle = math.atan2(sine, cosine)
    # Below this the arc is a point, to the last bit.
    if sine < 1e-12:
        return normal
    old = math.sin(left * angle) / sine
    new = math.sin((1.0 - left) * angle) / sine
    x = up[0] * old + normal[0] * new
    y = up[1] * old + normal[1] * new
    z = up[2] * old + normal[2] * new
    length = math.sqrt(x * x + y * y + z * z)
    return x / length, y / length, z / length
