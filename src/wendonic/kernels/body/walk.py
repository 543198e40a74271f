"""Walking on any ground."""

import math

from wendonic.kernels.body.body import Body
from wendonic.kernels.body.gait import GaitTuning, Run, plan_stride, slowed_by_turn
from wendonic.kernels.body.ground import ground_at
from wendonic.kernels.body.slope import (
    Footing,
    SlopeTuning,
    against_wall,
    bounded_share,
    footing,
    is_wall,
    laid_on_slope,
    uphill_share,
)
from wendonic.kernels.request import Request, WantedMotion, level_motion
from wendonic.kernels.row import Row
from wendonic.kernels.vector import UP, Vec2, Vec3, times3


def normal_under(course: Row, request: Request, x: float, y: float) -> Vec3:
    """Return the normal of the ground under the body: that of the course if there is one, otherwise as the game
    reports it; in the air, level.

    >>> from wendonic.kernels.request import NO_REQUEST
    >>> sloped = NO_REQUEST._replace(normal=Vec3(0.6, 0.0, 0.8))
    >>> normal_under((0.0, 0.0, 3.0, 0.0), sloped, 0.0, 0.0).x
    0.6
    >>> normal_under((0.0, 0.0, 3.0, 0.0), sloped._replace(grounded=0.0), 0.0, 0.0).x
    0.0
    """
    if request.grounded <= 0.0:
        return UP
    if course[0] > 0.0:
        return ground_at(course, x, y).normal
    return request.normal


def footing_in_front(slope: SlopeTuning, course: Row, left: Footing, x: float, y: float) -> Footing:
    """Return the part of a request that a bank `ahead_m` in front leaves, so that no body steps onto it only to slide
    back.

    >>> from wendonic.kernels.body.ground import PIECE_PLANE
    >>> bank = (1.0, 0.0, 11.0, PIECE_PLANE, -9.0, 0.1, 9.0, 9.0, 0.0, 0.0, 2.0, 0.0)
    >>> from wendonic.kernels.body.slope import LEVEL_ONLY
    >>> steep = LEVEL_ONLY._replace(follows=1, steepest_tangent=1.0, slide_m_s=2.0)
    >>> footing_in_front(steep, bank, Footing(0.6, 0.8, 0.0, 0.0, 0.0), 0.0, 0.0)
    Footing(x=0.6, y=0.0, slide_x=0.0, slide_y=0.0, refused=1.0)
    """
    length = math.hypot(left.x, left.y)
    if length == 0.0:
        return left
    step = slope.ahead_m / length
    normal = ground_at(course, x + left.x * step, y + left.y * step).normal
    there = footing(slope, left.x, left.y, normal)
    return Footing(there.x, there.y, left.slide_x, left.slide_y, max(left.refused, there.refused))


def footing_on(
    slope: SlopeTuning, course: Row, stands: bool, normal: Vec3, move_x: float, move_y: float, x: float, y: float
) -> Footing:
    """Return the part of a request that the ground at (x, y), with this `normal`, and the ground in front leave. No
    body slides on ground as steep as a wall.

    >>> from wendonic.kernels.body.slope import LEVEL_ONLY
    >>> slope = LEVEL_ONLY._replace(follows=1, steepest_tangent=1.0)
    >>> footing_on(slope, (0.0, 0.0, 3.0, 0.0), True, Vec3(0.0, 0.0, 1.0), 0.5, 0.25, 0.0, 0.0).x
    0.5
    """
    left = footing(slope, move_x, move_y, normal)
    if is_wall(normal):
        left = left._replace(slide_x=0.0, slide_y=0.0)
    if course[0] > 0.0 and stands:
        left = footing_in_front(slope, course, left, x, y)
    return left


def slowed_on_plan(gait: GaitTuning, velocity: Vec3, last_direction: Vec3, direction: Vec3) -> Vec3:
    """Return the velocity on the plan that a turn of the request leaves, see `slowed_by_turn`, with the vertical
    speed unchanged.

    >>> from wendonic.kernels.body.gait import PLAIN_GAIT
    >>> gait = PLAIN_GAIT._replace(loses=1, turn_loss=0.5)
    >>> slowed_on_plan(gait, Vec3(0.0, 4.0, 3.0), Vec3(0.0, 1.0, 0.0), Vec3(0.0, -1.0, 0.0))
    Vec3(x=0.0, y=2.0, z=3.0)
    """
    slower = slowed_by_turn(gait, velocity, last_direction, direction)
    return Vec3(slower.x, slower.y, velocity.z)


def on_slope(direction: Vec3, slide: Vec3, top_speed: float) -> Vec3:
    """Return the wanted velocity (m/s) on the plan for a direction along the ground, with the sliding that the ground
    adds.

    >>> on_slope(Vec3(0.0, 0.8, 0.6), Vec3(1.0, 0.0, 0.0), 2.0)
    Vec3(x=1.0, y=1.6, z=0.0)
    """
    return Vec3(direction.x * top_speed + slide.x, direction.y * top_speed + slide.y, 0.0)


def walk_level(gait: GaitTuning, body: Body, request: Request, dt: float) -> tuple[Body, WantedMotion]:
    """Return the body and its wanted motion after `dt` seconds of walking by a request, regardless of the ground.

    >>> from wendonic.kernels.body.body import BODY_AT_REST
    >>> from wendonic.kernels.body.gait import PLAIN_GAIT
    >>> from wendonic.kernels.request import NO_REQUEST
    >>> walk_level(PLAIN_GAIT, BODY_AT_REST, NO_REQUEST._replace(forward=1.0), 0.1)[0].velocity
    Vec3(x=0.0, y=2.2, z=0.0)
    """
    top_speed = gait.top_speed_m_s
    motion = level_motion(request.right, request.forward)
    begin = times3(Vec3(request.begin.x, request.begin.y, 0.0), top_speed)
    corner = times3(Vec3(request.corner.x, request.corner.y, 0.0), top_speed)
    wanted = times3(motion.direction, top_speed)
    slower = slowed_on_plan(gait, body.velocity, request.last_direction, motion.direction)
    after = plan_stride(gait, request.grounded <= 0.0, slower, Run(begin, corner, request.corner_s, wanted), dt)
    x, y, z = body.position
    at = Vec3(x + after.displacement.x, y + after.displacement.y, z)
    return Body(body.face, at, after.velocity), motion


def walk(
    gait: GaitTuning,
    slope: SlopeTuning,
    course: Row,
    body: Body,
    request: Request,
    dt: float,
) -> tuple[Body, WantedMotion]:
    """Return the body and its wanted motion after `dt` seconds of walking by a request, see `on_plan`, on any ground.

    On a slope the request keeps its speed along the ground, see `laid_on_slope`; the velocity is changed on the plan,
    as in `walked`, and stays parallel to the ground. Ground makes no body faster, see `bounded_share`, and ground as
    steep as a wall is one. The height follows the slope; on a course, `stopped_body` looks up the ground where the
    body stops.

    >>> from wendonic.kernels.body.body import BODY_AT_REST
    >>> from wendonic.kernels.body.gait import PLAIN_GAIT
    >>> from wendonic.kernels.request import NO_REQUEST
    >>> quick = PLAIN_GAIT._replace(top_speed_m_s=5.0, accel_m_s2=1e6)
    >>> uphill = NO_REQUEST._replace(forward=1.0, normal=Vec3(0.0, -0.6, 0.8))
    >>> from wendonic.kernels.body.slope import LEVEL_ONLY
    >>> slope = LEVEL_ONLY._replace(follows=1, steepest_tangent=9.0)
    >>> body, wanted = walk(quick, slope, (0.0, 0.0, 3.0, 0.0), BODY_AT_REST, uphill, 0.1)
    >>> wanted.direction, body.velocity.y, round(body.velocity.z, 12)
    (Vec3(x=0.0, y=0.8, z=0.6), 4.0, 3.0)
    """
    if slope.follows <= 0:
        return walk_level(gait, body, request, dt)
    top_speed = gait.top_speed_m_s
    in_air = request.grounded <= 0.0
    begin, corner, corner_s = request.begin, request.corner, request.corner_s
    x, y, z = body.position
    normal = normal_under(course, request, x, y)
    left = footing_on(slope, course, request.grounded > 0.0, normal, request.right, request.forward, x, y)
    if slope.tires > 0:
        share = uphill_share(slope, left.x, left.y, normal)
        left = Footing(left.x * share, left.y * share, left.slide_x, left.slide_y, left.refused)
        begin = Vec2(begin.x * share, begin.y * share)
        corner = Vec2(corner.x * share, corner.y * share)
    direction = laid_on_slope(left.x, left.y, normal)
    slide = laid_on_slope(left.slide_x, left.slide_y, normal)
    wanted = on_slope(direction, slide, top_speed)
    if left.refused > 0.0:
        corner_s = 0.0
    first = second = wanted
    if corner_s > 0.0:
        first = on_slope(laid_on_slope(begin.x, begin.y, normal), slide, top_speed)
        second = on_slope(laid_on_slope(corner.x, corner.y, normal), slide, top_speed)
    slower = slowed_on_plan(gait, body.velocity, request.last_direction, direction)
    after = plan_stride(gait, in_air, slower, Run(first, second, corner_s, wanted), dt)
    moved = after.displacement
    velocity = Vec3(after.velocity.x, after.velocity.y, 0.0)
    if is_wall(normal):
        velocity = against_wall(velocity, normal)
        moved = against_wall(moved, normal)
    else:
        climb = 0.0 - (normal.x * velocity.x + normal.y * velocity.y) / normal.z
        velocity = Vec3(velocity.x, velocity.y, climb)
        if climb != 0.0:
            share = bounded_share(body.velocity, velocity, max(top_speed, slope.slide_m_s), normal.z)
            if share < 1.0:
                velocity = Vec3(velocity.x * share, velocity.y * share, velocity.z * share)
                moved = Vec3(moved.x * share, moved.y * share, 0.0)
        z -= (normal.x * moved.x + normal.y * moved.y) / normal.z
    x += moved.x
    y += moved.y
    walked_body = Body(body.face, Vec3(x, y, z), velocity)
    return walked_body, WantedMotion(left.x, left.y, direction, left.refused, slide)
