"""The steer frame `drive`: throttle and turn steer a heading."""

import math

from wendonic.kernels.angles import wrapped_angle
from wendonic.kernels.body.body import Body
from wendonic.kernels.body.gait import GaitTuning, line_stride
from wendonic.kernels.body.slope import NOTHING_LEFT, bounded_share, laid_on_slope, uphill_share
from wendonic.kernels.body.walk import footing_on, normal_under
from wendonic.kernels.frames.drive_tuning import DriveTuning
from wendonic.kernels.frames.frame import FrameState, FrameTuning
from wendonic.kernels.half_life import half_life_factor
from wendonic.kernels.request import Request, WantedMotion, level_motion
from wendonic.kernels.row import Row
from wendonic.kernels.vector import Vec3


def driven_turn_rate(tuning: DriveTuning, turn: float, speed: float, top_speed: float) -> float:
    """Return the rate (rad/s, right positive) at which a cart turns at a speed (m/s, backwards negative).

    With s = |speed| / top_speed, at most 1, the limit is turn_rate + (fast_turn_rate - turn_rate) s, and at most
    |speed| / turn_radius_m; `turn` (-1..1) is a share of it.

    >>> cart = DriveTuning(2.0, 1.0, 1, 2.0, 0.5, 1, 0, 0.0)
    >>> [driven_turn_rate(cart, 1.0, speed, 4.0) for speed in (0.0, 2.0, 4.0, -1.0)]
    [0.0, 1.0, 1.0, -0.5]
    """
    pace = abs(speed)
    share = min(pace / top_speed, 1.0)
    rate = tuning.turn_rate + (tuning.fast_turn_rate - tuning.turn_rate) * share
    if tuning.circles > 0:
        rate = min(rate, pace / tuning.turn_radius_m)
    if tuning.reverse_flips > 0 and speed < 0.0:
        turn = -turn
    return rate * turn


def throttle_speed(tuning: DriveTuning, top_speed: float, throttle: float) -> float:
    """Return the speed (m/s, backwards negative) that a throttle of -1..1 requests.

    >>> from wendonic.kernels.frames.drive_tuning import NO_DRIVE
    >>> throttle_speed(NO_DRIVE._replace(reverse_ratio=0.5), 4.0, -1.0), throttle_speed(NO_DRIVE, 4.0, 0.5)
    (-2.0, 2.0)
    """
    return throttle * top_speed * (tuning.reverse_ratio if throttle < 0.0 else 1.0)


def driven(
    tuning: DriveTuning, gait: GaitTuning, in_air: bool, body: Body, wanted: float, turn: float, dt: float
) -> Body:
    """Return the body after `dt` seconds of driving: it moves along its facing, forward or back, and sideways only if
    it slips, see `slid`.

    The speed approaches `wanted` (m/s) as in `walked`. The heading turns at the rate for the mean speed of the tick,
    see `driven_turn_rate`; with a total turn of a, the path s is an arc, whose chord is s sin(a / 2) / (a / 2) long
    and points half-way between both headings. So a circle stays a circle at every tick rate.

    >>> from wendonic.kernels.body.gait import PLAIN_GAIT
    >>> cart = DriveTuning(math.pi, math.pi, 0, 1.0, 1.0, 0, 0, 0.0)
    >>> slow = PLAIN_GAIT._replace(top_speed_m_s=9.0, accel_m_s2=9.0, brake_m_s2=9.0)
    >>> rolling = Body(0.0, Vec3(0.0, 0.0, 0.0), Vec3(0.0, math.pi, 0.0))
    >>> after = driven(cart, slow, False, rolling, math.pi, 1.0, 0.5)
    >>> round(math.degrees(after.face)), round(after.position.x, 12), round(after.position.y, 12)
    (90, 1.0, 1.0)
    """
    if tuning.slips > 0:
        return slid(tuning, gait, in_air, body, wanted, turn, dt)
    face = body.face
    sine = math.sin(face)
    cosine = math.cos(face)
    speed, moved = line_stride(gait, in_air, body.velocity.x * sine + body.velocity.y * cosine, wanted, dt)
    x, y, z = body.position
    if turn == 0.0:
        x += sine * moved
        y += cosine * moved
    else:
        # An arc: its chord is s sin(a / 2) / (a / 2) long, half-way between both headings.
        half = 0.5 * driven_turn_rate(tuning, turn, moved / dt, gait.top_speed_m_s) * dt
        chord = moved * math.sin(half) / half if half != 0.0 else moved
        x += math.sin(face + half) * chord
        y += math.cos(face + half) * chord
        face = wrapped_angle(face + 2.0 * half)
        sine = math.sin(face)
        cosine = math.cos(face)
    return Body(face, Vec3(x, y, z), Vec3(sine * speed, cosine * speed, 0.0))


def slid(
    tuning: DriveTuning, gait: GaitTuning, in_air: bool, body: Body, wanted: float, turn: float, dt: float
) -> Body:
    """Return the body after `dt` seconds of driving with slip: it tends to keep its direction.

    Its velocity has a component u along the facing, which the gait brings to `wanted`, and a component w across it,
    which halves every `slip_half_life_s`. While the facing turns at a rate r they mix: u' = r w, w' = -r u - k w with
    k = ln 2 / half-life. A tick is half of the gait, the whole turn at the rate for the speed in its middle, and the
    other half of the gait (Strang 1968, doi:10.1137/0705041), so that paths hardly depend on its length.

    >>> from wendonic.kernels.body.gait import PLAIN_GAIT
    >>> cart = DriveTuning(math.pi, math.pi, 0, 1.0, 1.0, 0, 1, 0.25)
    >>> rolling = Body(0.0, Vec3(0.0, 0.0, 0.0), Vec3(4.0, 0.0, 0.0))
    >>> after = slid(cart, PLAIN_GAIT, False, rolling, 0.0, 0.0, 0.5)
    >>> after.face, after.velocity.x
    (0.0, 1.0)
    """
    face = body.face
    sine = math.sin(face)
    cosine = math.cos(face)
    along, _ = line_stride(gait, in_air, body.velocity.x * sine + body.velocity.y * cosine, wanted, 0.5 * dt)
    across = body.velocity.x * cosine - body.velocity.y * sine
    half = half_life_factor(tuning.slip_half_life_s, 0.5 * dt)
    if turn != 0.0:
        rate = driven_turn_rate(tuning, turn, along, gait.top_speed_m_s)
        rate = driven_turn_rate(tuning, turn, along + 0.5 * dt * rate * across, gait.top_speed_m_s)
        sine = math.sin(rate * dt)
        cosine = math.cos(rate * dt)
        # u' = r w, w' = -r u - k w
        turned = along * cosine + across * half * sine
        across = across * cosine * half * half - along * half * sine
        along = turned
        face = wrapped_angle(face + rate * dt)
        sine = math.sin(face)
        cosine = math.cos(face)
    else:
        across = across * half * half
    along, _ = line_stride(gait, in_air, along, wanted, 0.5 * dt)
    vel_x = sine * along + cosine * across
    vel_y = cosine * along - sine * across
    x = body.position.x + 0.5 * (body.velocity.x + vel_x) * dt
    y = body.position.y + 0.5 * (body.velocity.y + vel_y) * dt
    return Body(face, Vec3(x, y, body.position.z), Vec3(vel_x, vel_y, 0.0))


def steer_drive(
    tuning: FrameTuning, gait: GaitTuning, course: Row, state: FrameState, body: Body, request: Request, dt: float
) -> tuple[FrameState, Body, WantedMotion]:
    """Return the frame's state, the body and its wanted motion after `dt` seconds in the cart; if a mode binds
    `move`, that drives as well.

    On a slope the cart keeps its speed along the ground, less the loss by climbing. Ground that is too steep, under
    it or just in front, refuses the way up, and lets it roll down along its own heading.

    >>> from wendonic.kernels.body.body import BODY_AT_REST
    >>> from wendonic.kernels.body.gait import PLAIN_GAIT
    >>> from wendonic.kernels.frames.frame import FRAME_AT_REST, PLAIN_FRAME
    >>> from wendonic.kernels.request import NO_REQUEST
    >>> from wendonic.kernels.body.slope import LEVEL_ONLY
    >>> steep = LEVEL_ONLY._replace(follows=1, steepest_tangent=1.0, slide_m_s=2.0)
    >>> cart, level = PLAIN_FRAME._replace(slope=steep), (0.0, 0.0, 3.0, 0.0)
    >>> bank = NO_REQUEST._replace(forward=0.5, normal=Vec3(0.0, -0.8, 0.6))
    >>> _, body, wanted = steer_drive(cart, PLAIN_GAIT, level, FRAME_AT_REST, BODY_AT_REST, bank, 1.0)
    >>> wanted.refused, wanted.move_y, round(body.velocity.y, 9), round(body.velocity.z, 9)
    (1.0, 0.0, -1.2, -1.6)
    """
    throttle = request.throttle + request.forward
    turn = request.turn + request.right
    full = 1.0
    if request.scale != 1.0:
        # A press that scales reduces the speed but not the lock; smoothing may still be on its way there.
        full = max(request.scale, abs(request.forward))
        throttle = request.throttle * request.scale + request.forward
        turn = request.turn + (request.right / request.scale if request.scale > 0.0 else 0.0)
    throttle = min(max(throttle, -full), full)
    if math.fabs(throttle) < NOTHING_LEFT:
        # The remainder of two opposing channels may be rounding, which is neither forward nor back.
        throttle = 0.0
    turn = min(max(turn, -1.0), 1.0)
    top_speed = gait.top_speed_m_s
    wanted = throttle_speed(tuning.drive, top_speed, throttle)
    if gait.loses > 0:
        # Turning at full lock causes the whole loss.
        wanted *= 1.0 - gait.turn_loss * abs(turn)
    in_air = request.grounded <= 0.0
    if tuning.slope.follows <= 0:
        body = driven(tuning.drive, gait, in_air, body, wanted, turn, dt)
        share = wanted / top_speed
        return state, body, level_motion(math.sin(body.face) * share, math.cos(body.face) * share)
    before = body
    normal = normal_under(course, request, body.position.x, body.position.y)
    sine = math.sin(body.face)
    cosine = math.cos(body.face)
    at_x, at_y, _ = body.position
    left = footing_on(tuning.slope, course, not in_air, normal, sine * wanted, cosine * wanted, at_x, at_y)
    if left.refused > 0.0:
        wanted = 0.0
    elif tuning.slope.tires > 0:
        wanted *= uphill_share(tuning.slope, left.x, left.y, normal)
    rolls = left.slide_x * sine + left.slide_y * cosine
    # It keeps its speed along the ground, so it is slower on the plan.
    forward = laid_on_slope(sine, cosine, normal)
    shorter = math.hypot(forward.x, forward.y)
    body = driven(tuning.drive, gait, in_air, body, (wanted + rolls) * shorter, turn, dt)
    speed = body.velocity.x * math.sin(body.face) + body.velocity.y * math.cos(body.face)
    vel_z = speed / shorter * forward.z if shorter > 0.0 else 0.0
    velocity = Vec3(body.velocity.x, body.velocity.y, vel_z)
    x, y, z = body.position
    share = bounded_share(before.velocity, velocity, max(top_speed, tuning.slope.slide_m_s), normal.z)
    if share < 1.0:
        velocity = Vec3(velocity.x * share, velocity.y * share, velocity.z * share)
        x = before.position.x + (x - before.position.x) * share
        y = before.position.y + (y - before.position.y) * share
    z += velocity.z * dt
    body = Body(body.face, Vec3(x, y, z), velocity)
    amount = wanted / top_speed
    return (
        state,
        body,
        WantedMotion(
            sine * amount,
            cosine * amount,
            Vec3(forward.x * amount, forward.y * amount, forward.z * amount),
            left.refused,
            Vec3(forward.x * rolls, forward.y * rolls, forward.z * rolls),
        ),
    )
