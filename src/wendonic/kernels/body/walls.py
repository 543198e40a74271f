"""What the body bumps into: walls, and steps that are too high."""

import math

from wendonic.kernels.body.body import Body
from wendonic.kernels.body.ground import HEADER_NUMBERS, PIECE_NUMBERS, WALL_NUMBERS, height_at
from wendonic.kernels.row import Row
from wendonic.kernels.vector import Vec2, Vec3

SAMPLE_M = 0.04
"""Ground is looked at so often along the way: what is narrower nobody would call ground."""

MOST_SAMPLES = 4096


def floor_at(course: Row, x: float, y: float, feet_z: float) -> float:
    """Return the height (m) of what a body would stand on whose feet are at a height: the ground, or a wall below it.

    >>> low_wall = [0.0, 1.0, 8.0, 0.0, 0.0, 2.0, 1.0, 0.5, 0.0]
    >>> floor_at(low_wall, 1.0, 0.5, 0.6), floor_at(low_wall, 1.0, 0.5, 0.1)
    (0.5, 0.0)
    """
    floor = height_at(course, x, y)
    first = HEADER_NUMBERS + PIECE_NUMBERS * int(course[0])
    for wall in range(int(course[1])):
        k = first + WALL_NUMBERS * wall
        if course[k] < x < course[k + 2] and course[k + 1] < y < course[k + 3] and course[k + 4] <= feet_z:
            floor = max(floor, course[k + 4])
    return floor


def gap_to_wall(course: Row, k: int, x: float, y: float) -> float:
    """Return how far (m) a place is outside of the wall whose numbers begin at `k`, along the axis on which it is
    further; below 0 inside.

    >>> gap_to_wall((0.0, 1.0, 8.0, 0.0, 0.0, 2.0, 1.0, 3.0, 0.0), 3, 2.5, 1.25)
    0.5
    """
    return max(course[k] - x, x - course[k + 2], course[k + 1] - y, y - course[k + 3])


def stopped_by_walls(course: Row, radius_m: float, x: float, y: float, z: float, to_x: float, to_y: float) -> Vec2:
    """Return where a body of that radius gets to that goes from (x, y) to (to_x, to_y) with its feet at z.

    Walls are boxes, wider by the radius all round, or by as little as the body is away from them at first. It goes
    along x, as far as no wall is in the way, and then along y: so it slides along walls, and round a corner nothing
    holds it. However far it goes, it does not come out on the other side. Who is inside one already may leave it.

    >>> wall = [0.0, 1.0, 8.0, -9.0, 2.0, 9.0, 3.0, 3.0, 0.0]
    >>> stopped_by_walls(wall, 0.5, 0.0, 0.0, 0.0, 1.0, 50.0), stopped_by_walls(wall, 0.5, 0.0, 0.0, 3.0, 1.0, 50.0)
    (Vec2(x=1.0, y=1.5), Vec2(x=1.0, y=50.0))
    """
    first = HEADER_NUMBERS + PIECE_NUMBERS * int(course[0])
    low, high = min(x, to_x) - radius_m, max(x, to_x) + radius_m
    for wall in range(int(course[1])):
        k = first + WALL_NUMBERS * wall
        if course[k] >= high or course[k + 2] <= low or z >= course[k + 4]:
            continue
        wider_m = min(radius_m, gap_to_wall(course, k, x, y))
        if wider_m < 0.0 or not (course[k + 1] - wider_m < y < course[k + 3] + wider_m):
            continue
        left, right = course[k] - wider_m, course[k + 2] + wider_m
        if x <= left < to_x:
            to_x = left
        elif to_x < right <= x:
            to_x = right
    low, high = min(y, to_y) - radius_m, max(y, to_y) + radius_m
    for wall in range(int(course[1])):
        k = first + WALL_NUMBERS * wall
        if course[k + 1] >= high or course[k + 3] <= low or z >= course[k + 4]:
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


def before_step(course: Row, step_m: float, x: float, y: float, z: float, to_x: float, to_y: float) -> Vec2:
    """Return where a body gets to that goes straight from one place to another with its feet at a height, before
    ground that is higher than a step of `step_m`; ground that climbs by 45 degrees is not a step.

    >>> from wendonic.kernels.body.ground import PIECE_PLANE
    >>> kerb = (1.0, 0.0, 11.0, PIECE_PLANE, -9.0, 1.0, 9.0, 1.05, 2.0, 0.0, 0.0, 0.0)
    >>> before_step(kerb, 0.35, 0.0, 0.0, 0.0, 0.0, 5.0).y < 1.0
    True
    """
    far = math.hypot(to_x - x, to_y - y)
    samples = min(math.ceil(far / SAMPLE_M), MOST_SAMPLES)
    reached = Vec2(x, y)
    for k in range(samples):
        share = (k + 1.0) / samples
        at_x = x + (to_x - x) * share
        at_y = y + (to_y - y) * share
        if height_at(course, at_x, at_y) > z + step_m + far * share:
            break
        reached = Vec2(at_x, at_y)
    return reached


def stopped_body(course: Row, radius_m: float, step_m: float, has_feet: bool, was: Body, body: Body) -> Body:
    """Return the body as walls and high steps let it come from `was`; against them it has no speed.

    `has_feet` says whether its height is that of its feet, so that a step up above `step_m` stops it; it slides along
    it.

    >>> from wendonic.kernels.body.body import BODY_AT_REST
    >>> there = Body(0.0, Vec3(1.0, 2.0, 0.0), Vec3(1.0, 2.0, 0.0))
    >>> wall = [0.0, 1.0, 8.0, -9.0, 2.0, 9.0, 3.0, 3.0, 0.0]
    >>> stopped = stopped_body(wall, 0.5, 0.35, False, BODY_AT_REST, there)
    >>> stopped.position, stopped.velocity
    (Vec3(x=1.0, y=1.5, z=0.0), Vec3(x=1.0, y=0.0, z=0.0))
    """
    to, was_at = body.position, was.position
    x, y = stopped_by_walls(course, radius_m, was_at.x, was_at.y, was_at.z, to.x, to.y)
    if has_feet and course[0] > 0.0:
        at = before_step(course, step_m, was_at.x, was_at.y, was_at.z, x, y)
        if at.x != x or at.y != y:
            beside = before_step(course, step_m, at.x, at.y, was_at.z, x, at.y)
            if beside.x == x:
                y = at.y
            else:
                ahead = before_step(course, step_m, at.x, at.y, was_at.z, at.x, y)
                x, y = (at.x, y) if ahead.y == y else (at.x, at.y)
    vel_x = body.velocity.x if x == to.x else 0.0
    vel_y = body.velocity.y if y == to.y else 0.0
    return Body(body.face, Vec3(x, y, to.z), Vec3(vel_x, vel_y, body.velocity.z))


def contact_normal(at: Vec3, free: Vec3) -> Vec2:
    """Return which way what stopped a body at one place faces that would have come to another one; of length 1.

    >>> contact_normal(Vec3(1.0, 1.5, 0.0), Vec3(1.0, 2.0, 0.0))
    Vec2(x=0.0, y=-1.0)
    """
    x = at.x - free.x
    y = at.y - free.y
    x = 0.0 if x == 0.0 else math.copysign(1.0, x)
    y = 0.0 if y == 0.0 else math.copysign(1.0, y)
    length = math.sqrt(x * x + y * y)
    return Vec2(x / length, y / length)
