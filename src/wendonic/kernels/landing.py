"""Pointing at a place to be at: an arc from the hand to the ground of a course."""

import math
from typing import NamedTuple

from wendonic.kernels.ground import ground_at, in_wall
from wendonic.kernels.kernel import Row, called_kernel

GRAVITY_M_S2 = 9.81
STEP_S = 0.02
LONGEST_S = 4.0
HALVINGS = 40
STEP_UP_M = 0.01
"""An arc that ends further below the ground there has run into the side of a terrace."""


class Landing(NamedTuple):
    """Whether there is a place to land, where (m), and how long the arc takes to get there."""

    there: float
    x: float
    y: float
    z: float
    after_s: float


class Pointing(NamedTuple):
    """What is carried from tick to tick: whether somebody points, from where (m) and which way, the landing place,
    and whether he was brought there in this tick.
    """

    held: float
    place: tuple[float, float, float]
    way: tuple[float, float, float]
    landing: Landing
    landed: float


NO_LANDING = Landing(0.0, 0.0, 0.0, 0.0, 0.0)
NO_POINTING = Pointing(0.0, (0.0, 0.0, 0.0), (0.0, 0.0, 0.0), NO_LANDING, 0.0)


@called_kernel
def arc_point(
    place: tuple[float, float, float], way: tuple[float, float, float], speed_m_s: float, t: float
) -> tuple[float, float, float]:
    """Return where the arc is after `t` seconds: p + way speed t - g t² / 2 up.

    >>> arc_point((0.0, 0.0, 4.905), (0.0, 1.0, 0.0), 3.0, 1.0)
    (0.0, 3.0, 0.0)
    """
    return (
        place[0] + way[0] * speed_m_s * t,
        place[1] + way[1] * speed_m_s * t,
        place[2] + way[2] * speed_m_s * t - 0.5 * GRAVITY_M_S2 * t * t,
    )


@called_kernel
def landing(
    course: Row,
    place: tuple[float, float, float],
    way: tuple[float, float, float],
    speed_m_s: float,
    limit_tangent: float,
) -> Landing:
    """Return where the arc from `place` along `way` (length 1) first meets the ground, or none.

    There is none if it runs into a wall or the side of a terrace, takes longer than LONGEST_S, or lands where the
    slope's tangent is above the limit. The first part below ground is found in steps of STEP_S, the place in it by
    halving.

    >>> level = (0.0, 0.0, 3.0, 0.0)
    >>> found = landing(level, (0.0, 0.0, 4.905), (0.0, 1.0, 0.0), 3.0, 1.0)
    >>> found.there, round(found.y, 9), round(found.z, 9)
    (1.0, 3.0, 0.0)
    >>> landing((0.0, 1.0, 7.0, -9.0, 1.0, 9.0, 2.0, 0.0), (0.0, 0.0, 4.905), (0.0, 1.0, 0.0), 3.0, 1.0).there
    0.0
    """
    over_s = 0.0
    for k in range(1, int(LONGEST_S / STEP_S) + 1):
        under_s = k * STEP_S
        x, y, z = arc_point(place, way, speed_m_s, under_s)
        if in_wall(course, x, y):
            return NO_LANDING
        if z <= ground_at(course, x, y).height:
            for _ in range(HALVINGS):
                middle_s = 0.5 * (over_s + under_s)
                x, y, z = arc_point(place, way, speed_m_s, middle_s)
                if z <= ground_at(course, x, y).height:
                    under_s = middle_s
                else:
                    over_s = middle_s
            x, y, z = arc_point(place, way, speed_m_s, under_s)
            height, normal_x, normal_y, normal_z = ground_at(course, x, y)
            if height - z > STEP_UP_M:
                return NO_LANDING
            if math.sqrt(normal_x * normal_x + normal_y * normal_y) > limit_tangent * normal_z or in_wall(
                course, x, y
            ):
                return NO_LANDING
            return Landing(1.0, x, y, height, under_s)
        over_s = under_s
    return NO_LANDING
