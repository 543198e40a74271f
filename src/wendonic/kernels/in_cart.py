"""The steer frame `drive` on whatever ground is there."""

import math

from wendonic.kernels.body import Body
from wendonic.kernels.drive import driven, throttle_speed
from wendonic.kernels.ground import ground_at
from wendonic.kernels.kernel import Row, called_kernel
from wendonic.kernels.on_foot import ground_under
from wendonic.kernels.slope import laid_on_slope, refused_uphill
from wendonic.kernels.steering_tuning import SteeringTuning
from wendonic.kernels.wish import Way, Wish


@called_kernel
def driven_on(tuning: SteeringTuning, course: Row, body: Body, wish: Wish, dt: float) -> tuple[Body, Way]:
    """Return the body and its way after `dt` seconds in the cart; where a mode binds `move`, that drives too.

    On a slope it keeps its speed along the ground. Ground that is too steep refuses the way up, and lets it roll down
    along its own heading.

    >>> from wendonic.kernels.body import BODY_AT_REST
    >>> from wendonic.kernels.slope import SlopeTuning
    >>> from wendonic.kernels.steer_frame import FRAME_DRIVE
    >>> from wendonic.kernels.steering_tuning import PLAIN_STEERING
    >>> from wendonic.kernels.wish import NO_WISH
    >>> cart = PLAIN_STEERING._replace(frame=FRAME_DRIVE, slope=SlopeTuning(1, 1.0, 2.0))
    >>> level = (0.0, 0.0, 3.0, 0.0)
    >>> driven_on(cart, level, BODY_AT_REST, NO_WISH._replace(ahead=0.5), 1.0)[1].move_y
    0.5
    >>> bank = NO_WISH._replace(ahead=0.5, normal_y=-0.8, normal_z=0.6)
    >>> body, way = driven_on(cart, level, BODY_AT_REST, bank, 1.0)
    >>> way.refused, way.move_y, round(body.vel_y, 9), round(body.vel_z, 9)
    (1.0, 0.0, -1.2, -1.6)
    """
    throttle = min(max(wish.throttle + wish.ahead, -1.0), 1.0)
    turn = min(max(wish.turn + wish.right, -1.0), 1.0)
    top_speed = tuning.top_speed_m_s
    # A turn at full lock costs the whole loss.
    wanted = throttle_speed(tuning.drive, top_speed, throttle) * (1.0 - tuning.forms.turn_loss * abs(turn))
    if tuning.slope.follows <= 0:
        body = driven(
            tuning.drive, top_speed, tuning.accel_m_s2, tuning.brake_m_s2, tuning.forms, body, wanted, turn, dt
        )
        x = math.sin(body.face) * wanted / top_speed
        y = math.cos(body.face) * wanted / top_speed
        return body, Way(x, y, x, y, 0.0, 0.0, 0.0, 0.0, 0.0)
    _, normal_x, normal_y, normal_z = ground_under(course, wish, body.pos_x, body.pos_y)
    sine, cosine = math.sin(body.face), math.cos(body.face)
    left = refused_uphill(tuning.slope, sine * wanted, cosine * wanted, normal_x, normal_y, normal_z)
    if left.refused > 0.0:
        wanted = 0.0
    rolls = left.slide_x * sine + left.slide_y * cosine
    # Along the ground it is as fast as on the level, so on the plan it is slower.
    ahead_x, ahead_y, ahead_z = laid_on_slope(sine, cosine, normal_x, normal_y, normal_z)
    shorter = math.hypot(ahead_x, ahead_y)
    body = driven(
        tuning.drive,
        top_speed,
        tuning.accel_m_s2,
        tuning.brake_m_s2,
        tuning.forms,
        body,
        (wanted + rolls) * shorter,
        turn,
        dt,
    )
    speed = body.vel_x * math.sin(body.face) + body.vel_y * math.cos(body.face)
    vel_z = speed / shorter * ahead_z if shorter > 0.0 else 0.0
    pos_z = body.pos_z + vel_z * dt
    if course[0] > 0.0 and wish.grounded > 0.0:
        pos_z = ground_at(course, body.pos_x, body.pos_y).height
    amount = wanted / top_speed
    body = Body(body.face, body.pos_x, body.pos_y, pos_z, body.vel_x, body.vel_y, vel_z)
    return body, Way(
        sine * amount,
        cosine * amount,
        ahead_x * amount,
        ahead_y * amount,
        ahead_z * amount,
        left.refused,
        ahead_x * rolls,
        ahead_y * rolls,
        ahead_z * rolls,
    )
