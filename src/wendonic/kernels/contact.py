"""What the body bumps into: walls, and steps that are too high."""

import math

from wendonic.kernels.body import Body
from wendonic.kernels.ground import HEADER_NUMBERS, PIECE_NUMBERS, WALL_NUMBERS, ground_at
from wendonic.kernels.kernel import Row, called_kernel

STEP_UP_M = 0.35
"""Ground that is higher than this, all at once, is a wall."""


@called_kernel
def floor_at(course: Row, x: float, y: float, feet_z: float) -> float:
    """Return the height (m) of what a body would stand on whose feet are at a height: the ground, or a wall below it.

    >>> low_wall = [0.0, 1.0, 8.0, 0.0, 0.0, 2.0, 1.0, 0.5, 0.0]
    >>> floor_at(low_wall, 1.0, 0.5, 0.6), floor_at(low_wall, 1.0, 0.5, 0.1)
    (0.5, 0.0)
    """
    floor = ground_at(course, x, y).height
    first = HEADER_NUMBERS + PIECE_NUMBERS * int(course[0])
    for wall in range(int(course[1])):
        k = first + WALL_NUMBERS * wall
        if course[k] < x < course[k + 2] and course[k + 1] < y < course[k + 3] and course[k + 4] <= feet_z:
            floor = max(floor, course[k + 4])
    return floor


@called_kernel
def stopped_by_walls(
    course: Row, radius_m: float, x: float, y: float, z: float, to_x: float, to_y: float
) -> tuple[float, float]:
    """Return where a body of that radius gets to that goes from (x, y) to (to_x, to_y) with its feet at z.

    Walls are boxes, wider by the radius all round. It goes along x, as far as no wall is in the way, and then along
    y: so it slides along walls, and round a corner nothing holds it. However far it goes, it does not come out on the
    other side. Who is inside one already may leave it.

    >>> wall = [0.0, 1.0, 8.0, -9.0, 2.0, 9.0, 3.0, 3.0, 0.0]
    >>> stopped_by_walls(wall, 0.5, 0.0, 0.0, 0.0, 1.0, 50.0), stopped_by_walls(wall, 0.5, 0.0, 0.0, 3.0, 1.0, 50.0)
    ((1.0, 1.5), (1.0, 50.0))
    """
    first = HEADER_NUMBERS + PIECE_NUMBERS * int(course[0])
    for wall in range(int(course[1])):
        k = first + WALL_NUMBERS * wall
        if z >= course[k + 4] or not (course[k + 1] - radius_m < y < course[k + 3] + radius_m):
            continue
        left, right = course[k] - radius_m, course[k + 2] + radius_m
        if x <= left < to_x:
            to_x = left
        elif to_x < right <= x:
            to_x = right
    for wall in range(int(course[1])):
        k = first + WALL_NUMBERS * wall
        if z >= course[k + 4] or not (course[k] - radius_m < to_x < course[k + 2] + radius_m):
            continue
        back, ahead = course[k + 1] - radius_m, course[k + 3] + radius_m
        if y <= back < to_y:
            to_y = back
        elif to_y < ahead <= y:
            to_y = ahead
    return to_x, to_y


@called_kernel
def bumped(course: Row, radius_m: float, on_ground: bool, was: Body, body: Body) -> Body:
    """Return the body as walls and high steps let it come from `was`; against them it has no speed.

    `on_ground` tells whether its feet follow the ground's height, so that a step up above STEP_UP_M stops it.

    >>> from wendonic.kernels.body import BODY_AT_REST
    >>> there = BODY_AT_REST._replace(pos_x=1.0, pos_y=2.0, vel_x=1.0, vel_y=2.0)
    >>> stopped = bumped([0.0, 1.0, 8.0, -9.0, 2.0, 9.0, 3.0, 3.0, 0.0], 0.5, False, BODY_AT_REST, there)
    >>> stopped.pos_x, stopped.pos_y, stopped.vel_x, stopped.vel_y
    (1.0, 1.5, 1.0, 0.0)
    """
    x, y = stopped_by_walls(course, radius_m, was.pos_x, was.pos_y, was.pos_z, body.pos_x, body.pos_y)
    if on_ground and course[0] > 0.0:
        top = was.pos_z + STEP_UP_M
        if ground_at(course, x, y).height > top + math.hypot(x - was.pos_x, y - was.pos_y):
            if ground_at(course, x, was.pos_y).height <= top:
                y = was.pos_y
            elif ground_at(course, was.pos_x, y).height <= top:
                x = was.pos_x
            else:
                x, y = was.pos_x, was.pos_y
    if x == body.pos_x and y == body.pos_y:
        return body
    vel_x = body.vel_x if x == body.pos_x else 0.0
    vel_y = body.vel_y if y == body.pos_y else 0.0
    return Body(body.face, x, y, body.pos_z, vel_x, vel_y, body.vel_z)
