"""The steer frame `facing`: forward is where the body faces."""

from wendonic.kernels.angles import wrapped_angle
from wendonic.kernels.body.body import Body
from wendonic.kernels.body.facing import FACE_TRAVEL, face_after
from wendonic.kernels.body.gait import GaitTuning
from wendonic.kernels.body.walk import walk
from wendonic.kernels.frames.frame import FrameState, FrameTuning
from wendonic.kernels.request import Request, WantedMotion, on_plan
from wendonic.kernels.row import Row


def steer_facing(
    tuning: FrameTuning, gait: GaitTuning, course: Row, state: FrameState, body: Body, request: Request, dt: float
) -> tuple[FrameState, Body, WantedMotion]:
    """Return the frame's state, the body and its wanted motion after `dt` seconds along its own heading, which turns
    at the same time.

    For a body that faces its travel, a sideways request turns it: if the direction followed the facing while the
    facing follows the direction, it would never settle.

    >>> import math
    >>> from wendonic.kernels.body.body import BODY_AT_REST
    >>> from wendonic.kernels.body.gait import PLAIN_GAIT
    >>> from wendonic.kernels.frames.frame import FRAME_AT_REST, PLAIN_FRAME
    >>> from wendonic.kernels.request import NO_REQUEST
    >>> east, forward = BODY_AT_REST._replace(face=math.pi / 2), NO_REQUEST._replace(forward=0.5)
    >>> _, body, wanted = steer_facing(PLAIN_FRAME, PLAIN_GAIT, (), FRAME_AT_REST, east, forward, 0.1)
    >>> body.face == math.pi / 2, wanted.move_x
    (True, 0.5)
    """
    if tuning.face == FACE_TRAVEL:
        face = wrapped_angle(body.face + tuning.turn_rate * request.right * dt)
    else:
        face = face_after(
            tuning.face,
            tuning.turn_rate,
            body.face,
            0.0,
            False,
            request.look_yaw,
            request.aim,
            body.position.x,
            body.position.y,
            request.turn,
            dt,
        )
    # The middle of the turn represents all of it.
    yaw = body.face + 0.5 * wrapped_angle(face - body.face)
    body, wanted = walk(gait, tuning.slope, course, body, on_plan(request, yaw), dt)
    return state, body._replace(face=face), wanted
