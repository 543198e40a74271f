"""Walking on whatever ground is there."""

import math

from wendonic.kernels.body import Body
from wendonic.kernels.gait_forms import strode
from wendonic.kernels.ground import Ground, ground_at
from wendonic.kernels.kernel import Row, called_kernel
from wendonic.kernels.slope import OnSlope, laid_on_slope, refused_uphill
from wendonic.kernels.steering_tuning import SteeringTuning
from wendonic.kernels.wish import Way, Wish

FOOT_M = 0.2
"""How far ahead of the body a bank is felt."""


@called_kernel
def ground_under(course: Row, wish: Wish, x: float, y: float) -> Ground:
    """Return the ground under the body: the course's where it has any, else as the game tells it; in the air, level.

    >>> from wendonic.kernels.wish import NO_WISH
    >>> ground_under((0.0, 0.0, 3.0, 0.0), NO_WISH._replace(normal_x=0.6, normal_z=0.8), 0.0, 0.0).normal_x
    0.6
    >>> ground_under((0.0, 0.0, 3.0, 0.0), NO_WISH._replace(normal_x=0.6, grounded=0.0), 0.0, 0.0).normal_x
    0.0
    """
    if wish.grounded <= 0.0:
        return Ground(0.0, 0.0, 0.0, 1.0)
    if course[0] > 0.0:
        return ground_at(course, x, y)
    return Ground(0.0, wish.normal_x, wish.normal_y, wish.normal_z)


@called_kernel
def refused_before(tuning: SteeringTuning, course: Row, left: OnSlope, x: float, y: float) -> OnSlope:
    """Return what a bank that lies just ahead, by FOOT_M, leaves of a wish: nobody steps onto it only to slide back.

    >>> from wendonic.kernels.ground import PIECE_PLANE
    >>> from wendonic.kernels.slope import SlopeTuning
    >>> from wendonic.kernels.steering_tuning import PLAIN_STEERING
    >>> bank = (1.0, 0.0, 11.0, PIECE_PLANE, -9.0, 0.1, 9.0, 9.0, 0.0, 0.0, 2.0, 0.0)
    >>> walking = PLAIN_STEERING._replace(slope=SlopeTuning(1, 1.0, 2.0))
    >>> refused_before(walking, bank, OnSlope(0.6, 0.8, 0.0, 0.0, 0.0), 0.0, 0.0)
    OnSlope(x=0.6, y=0.0, slide_x=0.0, slide_y=0.0, refused=1.0)
    """
    length = math.hypot(left.x, left.y)
    if length == 0.0:
        return left
    step = FOOT_M / length
    _, normal_x, normal_y, normal_z = ground_at(course, x + left.x * step, y + left.y * step)
    there = refused_uphill(tuning.slope, left.x, left.y, normal_x, normal_y, normal_z)
    return OnSlope(there.x, there.y, left.slide_x, left.slide_y, max(left.refused, there.refused))


@called_kernel
def meant(wish: Wish, move_x: float, move_y: float) -> tuple[float, float]:
    """Return on the plan what was asked for in the mean of the tick: `move` is what is asked for at its end, turned,
    and the mean is turned by as much.

    >>> from wendonic.kernels.wish import NO_WISH
    >>> meant(NO_WISH._replace(ahead=1.0, mean_ahead=0.5, mean_right=0.25), 1.0, 0.0)
    (0.5, -0.25)
    """
    right, ahead, mean_right, mean_ahead = wish.right, wish.ahead, wish.mean_right, wish.mean_ahead
    square = right * right + ahead * ahead
    if square == 0.0:
        return move_x, move_y
    along = (right * mean_right + ahead * mean_ahead) / square
    across = (right * mean_ahead - ahead * mean_right) / square
    return move_x * along - move_y * across, move_y * along + move_x * across


@called_kernel
def walked_on(
    tuning: SteeringTuning, course: Row, body: Body, wish: Wish, move_x: float, move_y: float, face: float, dt: float
) -> tuple[Body, Way]:
    """Return the body and its way after `dt` seconds of walking by `move`, on whatever ground is there.

    On a slope the wish keeps its speed along the ground, see `laid_on_slope`; the velocity is changed on the plan, as
    in `walked`, and stays in the ground.

    >>> from wendonic.kernels.body import BODY_AT_REST
    >>> from wendonic.kernels.slope import SlopeTuning
    >>> from wendonic.kernels.steering_tuning import PLAIN_STEERING
    >>> from wendonic.kernels.wish import NO_WISH
    >>> uphill = PLAIN_STEERING._replace(slope=SlopeTuning(1, 9.0, 0.0), top_speed_m_s=5.0, accel_m_s2=1e6)
    >>> body, way = walked_on(uphill, (0.0, 0.0, 3.0, 0.0), BODY_AT_REST,
    ...                       NO_WISH._replace(normal_y=-0.6, normal_z=0.8), 0.0, 1.0, 0.0, 0.1)
    >>> way.y, way.z, body.vel_y, round(body.vel_z, 12)
    (0.8, 0.6, 4.0, 3.0)
    """
    _, pos_x, pos_y, pos_z, vel_x, vel_y, _ = body
    top_speed = tuning.top_speed_m_s
    mean_x, mean_y = move_x, move_y
    if tuning.forms.any > 0:
        mean_x, mean_y = meant(wish, move_x, move_y)
    if tuning.slope.follows <= 0:
        vel_x, vel_y, moved_x, moved_y = strode(
            tuning.forms,
            tuning.accel_m_s2,
            tuning.brake_m_s2,
            wish.grounded <= 0.0,
            vel_x,
            vel_y,
            mean_x * top_speed,
            mean_y * top_speed,
            dt,
        )
        level = Body(face, pos_x + moved_x, pos_y + moved_y, pos_z, vel_x, vel_y, 0.0)
        return level, Way(move_x, move_y, move_x, move_y, 0.0, 0.0, 0.0, 0.0, 0.0)
    _, normal_x, normal_y, normal_z = ground_under(course, wish, pos_x, pos_y)
    left = refused_uphill(tuning.slope, move_x, move_y, normal_x, normal_y, normal_z)
    if course[0] > 0.0 and wish.grounded > 0.0:
        left = refused_before(tuning, course, left, pos_x, pos_y)
    way_x, way_y, way_z = laid_on_slope(left.x, left.y, normal_x, normal_y, normal_z)
    plan_x, plan_y = way_x, way_y
    if tuning.forms.any > 0 and left.refused <= 0.0:
        plan_x, plan_y, _ = laid_on_slope(mean_x, mean_y, normal_x, normal_y, normal_z)
    slide_x, slide_y, slide_z = laid_on_slope(left.slide_x, left.slide_y, normal_x, normal_y, normal_z)
    vel_x, vel_y, moved_x, moved_y = strode(
        tuning.forms,
        tuning.accel_m_s2,
        tuning.brake_m_s2,
        wish.grounded <= 0.0,
        vel_x,
        vel_y,
        plan_x * top_speed + slide_x,
        plan_y * top_speed + slide_y,
        dt,
    )
    pos_x += moved_x
    pos_y += moved_y
    vel_z = 0.0
    if normal_z > 0.0:
        vel_z = 0.0 - (normal_x * vel_x + normal_y * vel_y) / normal_z
        pos_z -= (normal_x * moved_x + normal_y * moved_y) / normal_z
    if course[0] > 0.0 and wish.grounded > 0.0:
        pos_z = ground_at(course, pos_x, pos_y).height
    after = Body(face, pos_x, pos_y, pos_z, vel_x, vel_y, vel_z)
    return after, Way(left.x, left.y, way_x, way_y, way_z, left.refused, slide_x, slide_y, slide_z)
