"""The steer frame `fly`: as `camera`, with a rise of its own."""

import math

from wendonic.kernels.body import Body
from wendonic.kernels.flown import flown
from wendonic.kernels.gait_forms import carried
from wendonic.kernels.kernel import called_kernel
from wendonic.kernels.steer_frame import FRAME_CAMERA, steered
from wendonic.kernels.steering_tuning import SteeringTuning
from wendonic.kernels.wish import Way, Wish


@called_kernel
def way_of_flight(tuning: SteeringTuning, wish: Wish, right: float, ahead: float) -> tuple[float, float, float]:
    """Return which way somebody flies who asks for `right` and `ahead`: on the plan, and up; see `flown_on`.

    >>> from wendonic.kernels.steering_tuning import PLAIN_STEERING
    >>> from wendonic.kernels.wish import NO_WISH
    >>> way_of_flight(PLAIN_STEERING, NO_WISH, 0.0, 0.5)
    (0.0, 0.5, 0.0)
    """
    rise = wish.rise
    if tuning.capped > 0:
        most = math.sqrt(right * right + ahead * ahead + rise * rise)
        if most > 1.0:
            right, ahead, rise = right / most, ahead / most, rise / most
    climb = 0.0
    if tuning.level <= 0:
        climb = ahead * math.sin(wish.pitch)
        ahead *= math.cos(wish.pitch)
    move_x, move_y = steered(right, ahead, FRAME_CAMERA, wish.yaw)
    return move_x, move_y, climb + rise * tuning.rise_m_s / tuning.top_speed_m_s


@called_kernel
def flown_on(tuning: SteeringTuning, body: Body, wish: Wish, face: float, dt: float) -> tuple[Body, Way]:
    """Return the body and its way after `dt` seconds of flying: as `camera`, and up and down by `rise`.

    Unless it stays level, ahead points where the view does, pitch included. With h the wish and r the rise, 0..1
    each, both are divided by hypot(h, r) where that is above 1, so that a climb ahead is not the fault of the
    diagonals in a new place.

    >>> from wendonic.kernels.body import BODY_AT_REST
    >>> from wendonic.kernels.steering_tuning import PLAIN_STEERING
    >>> from wendonic.kernels.wish import NO_WISH
    >>> flying = PLAIN_STEERING._replace(level=0, top_speed_m_s=2.0, rise_m_s=1.0, accel_m_s2=1e6)
    >>> body, _ = flown_on(flying, BODY_AT_REST, NO_WISH._replace(ahead=1.0, pitch=math.pi / 2), 0.0, 0.1)
    >>> round(body.vel_y, 12), round(body.vel_z, 12)
    (0.0, 2.0)
    """
    top_speed = tuning.top_speed_m_s
    move_x, move_y, way_z = way_of_flight(tuning, wish, wish.right, wish.ahead)
    was = (body.vel_x, body.vel_y, body.vel_z)
    if tuning.forms.any <= 0:
        wanted = (move_x * top_speed, move_y * top_speed, way_z * top_speed)
        vel = flown(was[0], was[1], was[2], wanted[0], wanted[1], wanted[2], tuning.accel_m_s2, tuning.brake_m_s2, dt)
    else:
        mean_x, mean_y, mean_z = way_of_flight(tuning, wish, wish.mean_right, wish.mean_ahead)
        wanted = (mean_x * top_speed, mean_y * top_speed, mean_z * top_speed)
        vel = carried(tuning.forms, tuning.accel_m_s2, tuning.brake_m_s2, False, was, wanted, dt)
    after = Body(
        face,
        body.pos_x + vel.moved_x,
        body.pos_y + vel.moved_y,
        body.pos_z + vel.moved_z,
        vel.vel_x,
        vel.vel_y,
        vel.vel_z,
    )
    return after, Way(move_x, move_y, move_x, move_y, way_z, 0.0, 0.0, 0.0, 0.0)
