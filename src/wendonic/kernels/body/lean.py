"""How the body leans with the ground: its own up, which follows the ground's normal."""

import math

from wendonic.kernels.half_life import half_life_factor
from wendonic.kernels.vector import Vec3, length3


def leaned(up: Vec3, normal: Vec3, half_life_s: float, dt: float) -> Vec3:
    """Return the direction `up` after following `normal` for `dt` seconds; both of length 1.

    The angle between them falls by half every `half_life_s` (0: at once), along the shortest arc (Shoemake, SIGGRAPH
    1985), so the path does not depend on how `dt` is cut. Exactly opposite directions have no shortest arc and are
    reached at once.

    >>> x, _, z = leaned(Vec3(0.0, 0.0, 1.0), Vec3(0.6, 0.0, 0.8), half_life_s=0.25, dt=0.25)
    >>> round(math.degrees(math.atan2(x, z) * 2.0), 9) == round(math.degrees(math.asin(0.6)), 9)
    True
    """
    left = half_life_factor(half_life_s, dt)
    across = Vec3(
        up.y * normal.z - up.z * normal.y, up.z * normal.x - up.x * normal.z, up.x * normal.y - up.y * normal.x
    )
    sine = length3(across)
    # Below this the arc is a point in floating point.
    if left == 0.0 or sine < 1e-12:
        return normal
    angle = math.atan2(sine, up.x * normal.x + up.y * normal.y + up.z * normal.z)
    old = math.sin(left * angle) / sine
    new = math.sin((1.0 - left) * angle) / sine
    turned = Vec3(up.x * old + normal.x * new, up.y * old + normal.y * new, up.z * old + normal.z * new)
    length = length3(turned)
    return Vec3(turned.x / length, turned.y / length, turned.z / length)
