"""The steer frame `fly`: as `camera`, with a vertical request of its own."""

import math

from wendonic.kernels.body.body import Body
from wendonic.kernels.body.gait import GaitTuning, Run, slowed_by_turn, stride, stride_behind
from wendonic.kernels.frames.frame import FrameState, FrameTuning
from wendonic.kernels.request import Request, WantedMotion
from wendonic.kernels.row import Row
from wendonic.kernels.vector import ZERO3, Vec3, times3, turned


def flight_direction(tuning: FrameTuning, gait: GaitTuning, request: Request, right: float, forward: float) -> Vec3:
    """Return the direction of a flight with the request `right` and `forward`: on the plan, and up, as shares of top
    speed; see `steer_fly`.

    >>> from wendonic.kernels.body.gait import PLAIN_GAIT
    >>> from wendonic.kernels.frames.frame import PLAIN_FRAME
    >>> from wendonic.kernels.request import NO_REQUEST
    >>> flight_direction(PLAIN_FRAME, PLAIN_GAIT, NO_REQUEST, 0.0, 0.5)
    Vec3(x=0.0, y=0.5, z=0.0)
    """
    rise = request.rise * request.scale
    # A request scaled by a press is full at that scale; smoothing may still be on its way there.
    full = 1.0
    if request.scale != 1.0:
        full = max(request.scale, math.sqrt(right * right + forward * forward))
    if tuning.capped > 0:
        beyond = math.sqrt(right * right + forward * forward + rise * rise)
        if request.scale != 1.0 and full > 0.0:
            beyond /= full
        if beyond > 1.0:
            right /= beyond
            forward /= beyond
            rise /= beyond
    climb = rise * gait.rise_m_s / gait.top_speed_m_s
    if tuning.level <= 0:
        climb += forward * math.sin(request.pitch)
        forward *= math.cos(request.pitch)
        length = math.sqrt(right * right + forward * forward + climb * climb)
        fastest = max(1.0, gait.rise_m_s / gait.top_speed_m_s) * full
        if tuning.capped > 0 and rise != 0.0 and length > fastest:
            # Forward and up are no longer at right angles: together they may be no faster than the faster of them.
            right *= fastest / length
            forward *= fastest / length
            climb *= fastest / length
    move = turned(right, forward, request.yaw)
    return Vec3(move.x, move.y, climb)


def steer_fly(
    tuning: FrameTuning,
    gait: GaitTuning,
    course: Row,  # noqa: ARG001
    state: FrameState,
    body: Body,
    request: Request,
    dt: float,
) -> tuple[FrameState, Body, WantedMotion]:
    """Return the frame's state, the body and its wanted motion after `dt` seconds of flying: as `camera`, and up and
    down by `rise`.

    Unless it stays level, forward points where the view does, including its pitch. With h the request and r the rise,
    0..1 each, both are divided by hypot(h, r) if that is above 1, so that climbing forward is not faster, as uncapped
    diagonals are. If forward climbs as well, both together are no faster than the faster of them.

    >>> from wendonic.kernels.body.body import BODY_AT_REST
    >>> from wendonic.kernels.body.gait import PLAIN_GAIT
    >>> from wendonic.kernels.frames.frame import FRAME_AT_REST, PLAIN_FRAME
    >>> from wendonic.kernels.request import NO_REQUEST
    >>> bee = PLAIN_GAIT._replace(top_speed_m_s=2.0, rise_m_s=1.0, accel_m_s2=1e6)
    >>> up = NO_REQUEST._replace(forward=1.0, pitch=math.pi / 2)
    >>> _, body, _ = steer_fly(PLAIN_FRAME._replace(level=0), bee, (), FRAME_AT_REST, BODY_AT_REST, up, 0.1)
    >>> round(body.velocity.y, 12), round(body.velocity.z, 12)
    (0.0, 2.0)
    """
    top_speed = gait.top_speed_m_s
    direction = flight_direction(tuning, gait, request, request.right, request.forward)
    slower = slowed_by_turn(gait, body.velocity, request.last_direction, direction)
    wanted = times3(direction, top_speed)
    if request.corner_s > 0.0:
        begin = flight_direction(tuning, gait, request, request.begin.x, request.begin.y)
        corner = flight_direction(tuning, gait, request, request.corner.x, request.corner.y)
        run = Run(times3(begin, top_speed), times3(corner, top_speed), request.corner_s, wanted)
        after = stride_behind(gait, False, slower, run, dt)
    else:
        after = stride(gait, False, slower, wanted, dt)
    x, y, z = body.position
    moved = after.displacement
    body_after = Body(body.face, Vec3(x + moved.x, y + moved.y, z + moved.z), after.velocity)
    return state, body_after, WantedMotion(direction.x, direction.y, direction, 0.0, ZERO3)
