"""Pointing at a place to teleport to: an arc from the hand to the ground of a course."""

import math
from typing import NamedTuple

from wendonic.kernels.body.ground import HEADER_NUMBERS, PIECE_NUMBERS, WALL_NUMBERS, ground_at, height_at, in_wall
from wendonic.kernels.body.steps import SAMPLE_M
from wendonic.kernels.row import Row
from wendonic.kernels.vector import ZERO3, Vec3

GRAVITY_M_S2 = 9.81
STEP_S = 0.02
LONGEST_S = 4.0
MOST_STEPS = 1000
HALVINGS = 40
SLOWEST_M_S = 1e-9
STEP_UP_M = 0.01
"""An arc that ends further below the ground there has run into the side of a terrace."""


class Landing(NamedTuple):
    """Whether the arc lands, where (m), and how long it takes to get there."""

    there: float
    place: Vec3
    after_s: float


class Pointing(NamedTuple):
    """What is carried from tick to tick: whether a hand points, from where (m) and in which direction, the landing
    place, and whether the body was teleported there in this tick.
    """

    held: float
    place: Vec3
    direction: Vec3
    landing: Landing
    teleported: float


NO_LANDING = Landing(0.0, ZERO3, 0.0)
NO_POINTING = Pointing(0.0, ZERO3, ZERO3, NO_LANDING, 0.0)


def arc_point(place: Vec3, direction: Vec3, speed_m_s: float, t: float) -> Vec3:
    """Return where the arc is after `t` seconds: p + direction speed t - g t² / 2 up.

    >>> arc_point(Vec3(0.0, 0.0, 4.905), Vec3(0.0, 1.0, 0.0), 3.0, 1.0)
    Vec3(x=0.0, y=3.0, z=0.0)
    """
    return Vec3(
        place.x + direction.x * speed_m_s * t,
        place.y + direction.y * speed_m_s * t,
        place.z + direction.z * speed_m_s * t - 0.5 * GRAVITY_M_S2 * t * t,
    )


def wall_met_s(course: Row, place: Vec3, direction: Vec3, speed_m_s: float) -> float:
    """Return when the arc first enters a wall (s), LONGEST_S if it never does.

    Walls are boxes, and on the plan the arc is straight: it is over a wall from t1 to t2. It is inside from t1 on if
    it is below the top there, otherwise from the moment it sinks below the top, if that is before t2.

    >>> thin = (0.0, 1.0, 8.0, -9.0, 1.0, 9.0, 1.05, 3.0, 0.0)
    >>> wall_met_s(thin, Vec3(0.0, 0.0, 1.0), Vec3(0.0, 1.0, 0.0), 4.0)
    0.25
    """
    met_s = LONGEST_S
    # Straight up this would divide by zero; an arc that hardly leans stays over the wall.
    plan_x = math.copysign(max(math.fabs(direction.x * speed_m_s), SLOWEST_M_S), direction.x)
    plan_y = math.copysign(max(math.fabs(direction.y * speed_m_s), SLOWEST_M_S), direction.y)
    first = HEADER_NUMBERS + PIECE_NUMBERS * int(course[0])
    for wall in range(int(course[1])):
        k = first + WALL_NUMBERS * wall
        left_s, right_s = (course[k] - place.x) / plan_x, (course[k + 2] - place.x) / plan_x
        back_s, forward_s = (course[k + 1] - place.y) / plan_y, (course[k + 3] - place.y) / plan_y
        from_s = max(0.0, min(left_s, right_s), min(back_s, forward_s))
        to_s = min(met_s, max(left_s, right_s), max(back_s, forward_s))
        if from_s < to_s:
            above = arc_point(place, direction, speed_m_s, from_s).z - course[k + 4]
            if above >= 0.0:
                rise = direction.z * speed_m_s - GRAVITY_M_S2 * from_s
                from_s += (rise + math.sqrt(rise * rise + 2.0 * GRAVITY_M_S2 * above)) / GRAVITY_M_S2
            if from_s < to_s:
                met_s = from_s
    return met_s


def landing(course: Row, place: Vec3, direction: Vec3, speed_m_s: float, limit_tangent: float) -> Landing:
    """Return where the arc from `place` along `direction` (length 1) first meets the ground, or no landing if it runs
    into a wall or the side of a terrace, takes longer than LONGEST_S, or meets a slope whose tangent is above the
    limit.

    The first point below ground is searched in steps of STEP_S, or of SAMPLE_M on the plan if that is less, at most
    MOST_STEPS of them, and then by bisection.

    >>> level = (0.0, 0.0, 3.0, 0.0)
    >>> found = landing(level, Vec3(0.0, 0.0, 4.905), Vec3(0.0, 1.0, 0.0), 3.0, 1.0)
    >>> found.there, round(found.place.y, 9), round(found.place.z, 9)
    (1.0, 3.0, 0.0)
    >>> wall = (0.0, 1.0, 8.0, -9.0, 1.0, 9.0, 2.0, 3.0, 0.0)
    >>> landing(wall, Vec3(0.0, 0.0, 4.905), Vec3(0.0, 1.0, 0.0), 3.0, 1.0).there
    0.0
    """
    over_s = 0.0
    met_s = wall_met_s(course, place, direction, speed_m_s)
    plan_m_s = speed_m_s * math.hypot(direction.x, direction.y)
    step_s = STEP_S
    if course[0] > 0.0 and plan_m_s * STEP_S > SAMPLE_M:
        step_s = max(SAMPLE_M / plan_m_s, LONGEST_S / MOST_STEPS)
    for k in range(int(LONGEST_S / step_s)):
        if over_s >= met_s:
            return NO_LANDING
        under_s = (k + 1) * step_s
        at = arc_point(place, direction, speed_m_s, under_s)
        if at.z <= height_at(course, at.x, at.y):
            for _ in range(HALVINGS):
                middle_s = 0.5 * (over_s + under_s)
                at = arc_point(place, direction, speed_m_s, middle_s)
                if at.z <= height_at(course, at.x, at.y):
                    under_s = middle_s
                else:
                    over_s = middle_s
            at = arc_point(place, direction, speed_m_s, under_s)
            ground = ground_at(course, at.x, at.y)
            normal = ground.normal
            steep = math.sqrt(normal.x * normal.x + normal.y * normal.y) > limit_tangent * normal.z
            if (
                ground.height - at.z > STEP_UP_M
                or steep
                or under_s > met_s
                or in_wall(course, at.x, at.y, ground.height)
            ):
                return NO_LANDING
            return Landing(1.0, Vec3(at.x, at.y, ground.height), under_s)
        over_s = under_s
    return NO_LANDING
