"""The steer frame `map`: forward is that of the plan, whatever the camera does."""

from wendonic.kernels.body.body import Body
from wendonic.kernels.body.gait import GaitTuning
from wendonic.kernels.body.walk import walk
from wendonic.kernels.frames.frame import FrameState, FrameTuning
from wendonic.kernels.request import Request, WantedMotion
from wendonic.kernels.row import Row


def steer_map(
    tuning: FrameTuning, gait: GaitTuning, course: Row, state: FrameState, body: Body, request: Request, dt: float
) -> tuple[FrameState, Body, WantedMotion]:
    """Return the frame's state, the body and its wanted motion after `dt` seconds: x = right, y = forward.

    >>> from wendonic.kernels.body.body import BODY_AT_REST
    >>> from wendonic.kernels.body.gait import PLAIN_GAIT
    >>> from wendonic.kernels.frames.frame import FRAME_AT_REST, PLAIN_FRAME
    >>> from wendonic.kernels.request import NO_REQUEST
    >>> forward = NO_REQUEST._replace(forward=1.0, yaw=1.0)
    >>> _, body, _ = steer_map(PLAIN_FRAME, PLAIN_GAIT, (), FRAME_AT_REST, BODY_AT_REST, forward, 0.01)
    >>> body.velocity.x, body.velocity.y
    (0.0, 0.22)
    """
    body, wanted = walk(gait, tuning.slope, course, body, request, dt)
    return state, body, wanted
