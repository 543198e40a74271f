"""Obstacles: walls, and steps that are too high."""

import math
from typing import NamedTuple

from wendonic.kernels.body.body import Body
from wendonic.kernels.body.ground import HEADER_NUMBERS, PIECE_NUMBERS, WALL_NUMBERS
from wendonic.kernels.body.steps import StepTuning, Walked, walked_over
from wendonic.kernels.row import Row
from wendonic.kernels.vector import Vec2, Vec3


def gap_to_wall(course: Row, k: int, x: float, y: float) -> float:
    """Return how far (m) a place is outside the wall whose numbers begin at `k`, along the axis on which it is
    further; below 0 inside.

    >>> gap_to_wall((0.0, 1.0, 8.0, 0.0, 0.0, 2.0, 1.0, 3.0, 0.0), 3, 2.5, 1.25)
    0.5
    """
    return max(course[k] - x, x - course[k + 2], course[k + 1] - y, y - course[k + 3])


def any_wall_within(course: Row, left: float, back: float, right: float, forward: float, z: float) -> bool:
    """Return whether a wall that reaches above a height z (m) overlaps a rectangle of the plan (m).

    A wall that only touches it does not.

    >>> wall = (0.0, 1.0, 8.0, -9.0, 2.0, 9.0, 3.0, 3.0, 0.0)
    >>> any_wall_within(wall, 0.0, 0.0, 1.0, 2.5, 0.0), any_wall_within(wall, 0.0, 0.0, 1.0, 2.0, 0.0)
    (True, False)
    """
    first = HEADER_NUMBERS + PIECE_NUMBERS * int(course[0])
    for wall in range(int(course[1])):
        k = first + WALL_NUMBERS * wall
        overlaps = course[k] < right and course[k + 2] > left and course[k + 1] < forward and course[k + 3] > back
        if overlaps and z < course[k + 4]:
            return True
    return False


def stopped_by_walls(course: Row, radius_m: float, x: float, y: float, z: float, to_x: float, to_y: float) -> Vec2:
    """Return how far a body of this radius gets from (x, y) to (to_x, to_y) with its feet at z.

    Walls are boxes, enlarged by the radius, or by the body's distance if it begins closer. It moves along x until a
    wall is in the way, and then along y: so it slides along walls, and does not catch on corners. However far it
    goes, it does not pass through a wall. A body that begins inside a wall may leave it.

    >>> wall = [0.0, 1.0, 8.0, -9.0, 2.0, 9.0, 3.0, 3.0, 0.0]
    >>> stopped_by_walls(wall, 0.5, 0.0, 0.0, 0.0, 1.0, 50.0), stopped_by_walls(wall, 0.5, 0.0, 0.0, 3.0, 1.0, 50.0)
    (Vec2(x=1.0, y=1.5), Vec2(x=1.0, y=50.0))
    """
    first = HEADER_NUMBERS + PIECE_NUMBERS * int(course[0])
    low_x, high_x = min(x, to_x) - radius_m, max(x, to_x) + radius_m
    low_y, high_y = min(y, to_y) - radius_m, max(y, to_y) + radius_m
    near = any_wall_within(course, low_x, low_y, high_x, high_y, z)
    if not near:
        return Vec2(to_x, to_y)
    for wall in range(int(course[1])):
        k = first + WALL_NUMBERS * wall
        if course[k] >= high_x or course[k + 2] <= low_x or z >= course[k + 4]:
            continue
        wider_m = min(radius_m, gap_to_wall(course, k, x, y))
        if wider_m < 0.0 or not (course[k + 1] - wider_m < y < course[k + 3] + wider_m):
            continue
        left, right = course[k] - wider_m, course[k + 2] + wider_m
        if x <= left < to_x:
            to_x = left
        elif to_x < right <= x:
            to_x = right
    for wall in range(int(course[1])):
        k = first + WALL_NUMBERS * wall
        if course[k + 1] >= high_y or course[k + 3] <= low_y or z >= course[k + 4]:
            continue
        wider_m = min(radius_m, gap_to_wall(course, k, x, y))
        if wider_m < 0.0 or not (course[k] - wider_m < to_x < course[k + 2] + wider_m):
            continue
        back, forward = course[k + 1] - wider_m, course[k + 3] + wider_m
        if y <= back < to_y:
            to_y = back
        elif to_y < forward <= y:
            to_y = forward
    return Vec2(to_x, to_y)


class Stopped(NamedTuple):
    """A body after walls and steps, the height under it (m), and 1 if it stands there."""

    body: Body
    floor: float
    stands: float


def along_step(
    course: Row, radius_m: float, steps: StepTuning, stands: float, was: Vec3, at: Walked, x: float, y: float
) -> Walked:
    """Return where a body gets to that meets a step at the place `at` on its way from `was` to (x, y): along the
    step, or no further if a wall is in the way.

    >>> from wendonic.kernels.body.ground import PIECE_PLANE
    >>> terrace = (1.0, 0.0, 11.0, PIECE_PLANE, -9.0, 1.0, 9.0, 9.0, 2.0, 0.0, 0.0, 0.0)
    >>> steps = StepTuning(0, 0.35, 0.35, 1.0, 1.0)
    >>> met = walked_over(terrace, steps, 1.0, 0.0, 0.9, 0.0, 1.0, 1.1)
    >>> along_step(terrace, 0.5, steps, 1.0, Vec3(0.0, 0.9, 0.0), met, 1.0, 1.1).x
    1.0
    """
    beside = walked_over(course, steps, at.stands, at.x, at.y, at.feet_z, x, at.y)
    if beside.x == x:
        at = beside
    else:
        ahead = walked_over(course, steps, at.stands, at.x, at.y, at.feet_z, at.x, y)
        at = ahead if ahead.y == y else at
    clear = stopped_by_walls(course, radius_m, was.x, was.y, was.z, at.x, at.y)
    if clear.x != at.x or clear.y != at.y:
        at = walked_over(course, steps, stands, was.x, was.y, was.z, was.x, was.y)
    return at


def stopped_body(
    course: Row, radius_m: float, steps: StepTuning, has_feet: bool, stands: float, was: Body, body: Body
) -> Stopped:
    """Return the body on its way from `was`, stopped by walls and high steps, without speed against them.

    `has_feet` says whether its height is that of its feet, so that steps up stop it, and `stands` whether it is on
    the ground; it slides along a step, see `walked_over`.

    >>> from wendonic.kernels.body.body import BODY_AT_REST
    >>> there = Body(0.0, Vec3(1.0, 2.0, 0.0), Vec3(1.0, 2.0, 0.0))
    >>> wall = [0.0, 1.0, 8.0, -9.0, 2.0, 9.0, 3.0, 3.0, 0.0]
    >>> stopped = stopped_body(wall, 0.5, StepTuning(0, 0.35, 0.35, 1.0, 1.0), False, 1.0, BODY_AT_REST, there)
    >>> stopped.body.position, stopped.body.velocity
    (Vec3(x=1.0, y=1.5, z=0.0), Vec3(x=1.0, y=0.0, z=0.0))
    """
    to, was_at = body.position, was.position
    x, y = stopped_by_walls(course, radius_m, was_at.x, was_at.y, was_at.z, to.x, to.y)
    floor = 0.0
    if has_feet and (course[0] > 0.0 or was_at.z > 0.0):
        at = walked_over(course, steps, stands, was_at.x, was_at.y, was_at.z, x, y)
        if at.x != x or at.y != y:
            at = along_step(course, radius_m, steps, stands, was_at, at, x, y)
        x, y, floor, stands = at.x, at.y, at.floor, at.stands
    vel_x = body.velocity.x if x == to.x else 0.0
    vel_y = body.velocity.y if y == to.y else 0.0
    return Stopped(Body(body.face, Vec3(x, y, to.z), Vec3(vel_x, vel_y, body.velocity.z)), floor, stands)


def above_floor(floor: float, body: Body) -> Body:
    """Return a flying body, not below the height (m) of what is under it.

    >>> above_floor(0.0, Body(0.0, Vec3(0.0, 0.0, -0.5), Vec3(1.0, 0.0, -3.0)))[1:]
    (Vec3(x=0.0, y=0.0, z=0.0), Vec3(x=1.0, y=0.0, z=0.0))
    """
    if body.position.z >= floor:
        return body
    at = Vec3(body.position.x, body.position.y, floor)
    return Body(body.face, at, Vec3(body.velocity.x, body.velocity.y, max(body.velocity.z, 0.0)))


def contact_normal(at: Vec3, free: Vec3) -> Vec2:
    """Return the normal, of length 1, of the wall that stopped a body at one place on its way to another.

    >>> contact_normal(Vec3(1.0, 1.5, 0.0), Vec3(1.0, 2.0, 0.0))
    Vec2(x=0.0, y=-1.0)
    >>> [round(part, 3) for part in contact_normal(Vec3(1.0, 1.5, 0.0), Vec3(4.0, 2.0, 0.0))]  # in a corner
    [-0.707, -0.707]
    """
    x = at.x - free.x
    y = at.y - free.y
    x = 0.0 if x == 0.0 else math.copysign(1.0, x)
    y = 0.0 if y == 0.0 else math.copysign(1.0, y)
    length = math.sqrt(x * x + y * y)
    return Vec2(x / length, y / length)
