"""The steer frame `camera`: forward is where the view's yaw points."""

from wendonic.kernels.body.body import Body
from wendonic.kernels.body.gait import GaitTuning
from wendonic.kernels.body.walk import walk
from wendonic.kernels.frames.frame import FrameState, FrameTuning
from wendonic.kernels.request import Request, WantedMotion, on_plan
from wendonic.kernels.row import Row


def steer_camera(
    tuning: FrameTuning, gait: GaitTuning, course: Row, state: FrameState, body: Body, request: Request, dt: float
) -> tuple[FrameState, Body, WantedMotion]:
    """Return the frame's state, the body and its wanted motion after `dt` seconds, see `turned`.

    The pitch is ignored, so looking down does not slow the walk.

    >>> import math
    >>> from wendonic.kernels.body.body import BODY_AT_REST
    >>> from wendonic.kernels.body.gait import PLAIN_GAIT
    >>> from wendonic.kernels.frames.frame import FRAME_AT_REST, PLAIN_FRAME
    >>> from wendonic.kernels.request import NO_REQUEST
    >>> east = NO_REQUEST._replace(forward=1.0, yaw=math.pi / 2, pitch=-1.5)
    >>> _, body, _ = steer_camera(PLAIN_FRAME, PLAIN_GAIT, (), FRAME_AT_REST, BODY_AT_REST, east, 0.01)
    >>> round(body.velocity.x, 12), round(body.velocity.y, 12)
    (0.22, 0.0)
    """
    body, wanted = walk(gait, tuning.slope, course, body, on_plan(request, request.yaw), dt)
    return state, body, wanted
