"""Sloping ground: directions along it, and ground that is too steep."""

import math
from typing import NamedTuple

from wendonic.kernels.vector import Vec3, length3


def laid_on_slope(x: float, y: float, normal: Vec3) -> Vec3:
    """Return the level direction (x, y) laid onto ground with this normal: same length, same heading on the plan.

    With d the direction and n the normal, t = (n_z d_x, n_z d_y, -(n . d)) lies in the ground whatever n is, and
    above d; it is brought to the length of d. On level ground this is d itself, bit for bit. The normal points up
    (n_z 0 or more) and need not be of length 1; along a wall (n_z and n . d both 0) the direction stays as it is.

    >>> laid_on_slope(0.0, 5.0, Vec3(0.0, -0.6, 0.8))
    Vec3(x=0.0, y=4.0, z=3.0)
    >>> laid_on_slope(0.3, 0.4, Vec3(0.0, 0.0, 1.0))
    Vec3(x=0.3, y=0.4, z=0.0)
    """
    drop = normal.x * x + normal.y * y
    if drop == 0.0:
        return Vec3(x, y, 0.0)
    length = math.hypot(x, y)
    level = normal.z * length
    steep = math.hypot(level, drop)
    # Scaled to length 1, so that no normal is too small.
    return Vec3(x * (level / steep), y * (level / steep), -length * (drop / steep))


NOTHING_LEFT = 1e-12


class SlopeTuning(NamedTuple):
    """`follows` is 1 if a mode walks on slopes; ground steeper than `steepest_tangent` cannot be climbed, and the
    body slides down it at `slide_m_s`. The body tilts with the ground with `lean_half_life_s`, detects a bank
    `ahead_m` in front, and takes steps of `step_m`. If `tires` is 1, going straight up the steepest ground leaves
    `uphill_ratio` of the speed.
    """

    follows: int
    steepest_tangent: float
    slide_m_s: float
    lean_half_life_s: float
    ahead_m: float
    step_m: float
    tires: int
    uphill_ratio: float


LEVEL_ONLY = SlopeTuning(0, math.inf, 0.0, 0.0, 0.2, 0.35, 0, 1.0)

WALL_TANGENT = 20.0
"""Tangent of 87 degrees: steeper ground is a wall, on which nothing stands or slides."""


def uphill_share(tuning: SlopeTuning, x: float, y: float, normal: Vec3) -> float:
    """Return the share of speed that a level direction (x, y) has on ground of that normal: 1 across and downhill,
    `uphill_ratio` straight up the steepest ground, and between them by the tangent of the climb.

    >>> hill = LEVEL_ONLY._replace(follows=1, steepest_tangent=1.0, tires=1, uphill_ratio=0.5)
    >>> uphill_share(hill, 0.0, 1.0, Vec3(0.0, -0.6, 0.8)), uphill_share(hill, 0.0, -1.0, Vec3(0.0, -0.6, 0.8))
    (0.625, 1.0)
    """
    length = math.hypot(x, y)
    if length == 0.0 or normal.z <= 0.0:
        return 1.0
    climb = -(normal.x * x + normal.y * y) / (normal.z * length)
    return 1.0 - (1.0 - tuning.uphill_ratio) * min(max(climb / tuning.steepest_tangent, 0.0), 1.0)


def bounded_share(before: Vec3, after: Vec3, most: float, upright: float) -> float:
    """Return the share of a velocity that a body keeps on the ground, which makes no body faster than it was, or than
    `most` (m/s). From level ground onto a bank, a body keeps its speed along the ground rather than on the plan; what
    it gained on the plan counts along ground whose normal has the vertical component `upright`.

    >>> bounded_share(Vec3(0.0, 3.0, 0.0), Vec3(0.0, 3.0, 4.0), 9.0, 0.6)
    0.6
    >>> bounded_share(Vec3(0.0, 3.0, 4.0), Vec3(0.0, 6.0, 8.0), 8.0, 0.6)
    0.8
    """
    was = length3(before)
    was_plan = math.sqrt(before.x * before.x + before.y * before.y)
    plan = math.sqrt(after.x * after.x + after.y * after.y)
    most = min(max(most, was), was + max(plan - was_plan, 0.0) / max(upright, NOTHING_LEFT))
    speed = length3(after)
    return most / speed if speed > most * (1.0 + 1e-9) else 1.0


def is_wall(normal: Vec3) -> bool:
    """Return whether ground of that normal is a wall.

    >>> is_wall(Vec3(1.0, 0.0, 0.0)), is_wall(Vec3(0.0, -0.6, 0.8))
    (True, False)
    """
    return math.sqrt(normal.x * normal.x + normal.y * normal.y) > WALL_TANGENT * normal.z


def against_wall(velocity: Vec3, normal: Vec3) -> Vec3:
    """Return the part of a velocity that a wall with this normal leaves: along it, and away from it.

    >>> against_wall(Vec3(3.0, 2.0, 0.0), Vec3(-1.0, 0.0, 0.0))
    Vec3(x=0.0, y=2.0, z=0.0)
    """
    side = math.sqrt(normal.x * normal.x + normal.y * normal.y)
    away_x = normal.x / side
    away_y = normal.y / side
    into = min(velocity.x * away_x + velocity.y * away_y, 0.0)
    return Vec3(velocity.x - into * away_x, velocity.y - into * away_y, 0.0)


class Footing(NamedTuple):
    """The part of a request that the ground leaves (x, y), the velocity of sliding down (m/s), and whether a part was
    refused.
    """

    x: float
    y: float
    slide_x: float
    slide_y: float
    refused: float


def footing(tuning: SlopeTuning, x: float, y: float, normal: Vec3) -> Footing:
    """Return the part of the level request (x, y) that ground with this normal leaves.

    Ground is too steep if the tangent of its slope, hypot(n_x, n_y) / n_z, is above the limit. There the uphill
    component of the request is removed, the components across and downhill stay, and the body slides straight
    downhill.

    >>> steep = LEVEL_ONLY._replace(follows=1, steepest_tangent=1.0, slide_m_s=2.0)
    >>> footing(steep, 0.5, 0.5, Vec3(0.0, -0.8, 0.6))
    Footing(x=0.5, y=0.0, slide_x=0.0, slide_y=-2.0, refused=1.0)
    >>> footing(steep, 0.5, 0.5, Vec3(0.0, -0.6, 0.8))
    Footing(x=0.5, y=0.5, slide_x=0.0, slide_y=0.0, refused=0.0)
    """
    side = math.sqrt(normal.x * normal.x + normal.y * normal.y)
    if side <= tuning.steepest_tangent * normal.z:
        return Footing(x, y, 0.0, 0.0, 0.0)
    down_x = normal.x / side
    down_y = normal.y / side
    up = -(x * down_x + y * down_y)
    refused = 0.0
    if up > 0.0:
        x += down_x * up
        y += down_y * up
        refused = 1.0
        # Straight up, only rounding would be left.
        if math.hypot(x, y) < NOTHING_LEFT:
            x = y = 0.0
    return Footing(x, y, down_x * tuning.slide_m_s, down_y * tuning.slide_m_s, refused)
