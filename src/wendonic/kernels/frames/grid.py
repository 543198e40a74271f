"""The steer frame `grid`: a body between two squares."""

import math

from wendonic.kernels.body.body import Body
from wendonic.kernels.body.gait import GaitTuning
from wendonic.kernels.frames.frame import FrameState, FrameTuning
from wendonic.kernels.frames.squares import grid_held, grid_stepped, step_progress
from wendonic.kernels.request import Request, WantedMotion, level_motion
from wendonic.kernels.row import Row
from wendonic.kernels.vector import Vec3


def steer_grid(
    tuning: FrameTuning,
    gait: GaitTuning,  # noqa: ARG001
    course: Row,
    state: FrameState,
    body: Body,
    request: Request,
    dt: float,
) -> tuple[FrameState, Body, WantedMotion]:
    """Return the frame's state, the body and its wanted motion after `dt` seconds on a grid.

    >>> from wendonic.kernels.body.body import BODY_AT_REST
    >>> from wendonic.kernels.body.gait import PLAIN_GAIT
    >>> from wendonic.kernels.frames.frame import FRAME_AT_REST, PLAIN_FRAME
    >>> from wendonic.kernels.request import NO_REQUEST
    >>> right, level = NO_REQUEST._replace(right=1.0), (0.0, 0.0, 3.0, 0.0)
    >>> _, body, wanted = steer_grid(PLAIN_FRAME, PLAIN_GAIT, level, FRAME_AT_REST, BODY_AT_REST, right, 0.05)
    >>> round(body.position.x, 9), wanted.move_x, round(body.velocity.x, 9)
    (0.25, 1.0, 5.0)
    """
    squares = tuning.grid
    right = request.right
    forward = request.forward
    step_s = squares.step_s
    if request.scale != 1.0 and request.scale > 0.0:
        # A press that scales makes steps slower, but does not hide a direction.
        right /= request.scale
        forward /= request.scale
        step_s /= request.scale
    held = grid_held(squares, state.grid, body.face, right, forward)
    grid = grid_stepped(squares, course, held, step_s, body.position.z, dt)
    step = grid.step
    step_x = step.to_x - step.x
    step_y = step.to_y - step.y
    length = math.sqrt(step_x * step_x + step_y * step_y)
    progress = step_progress(step.share, squares.eased)
    speed = squares.square_m / step_s * progress.rate
    move_x = move_y = 0.0
    if length > 0.0:
        move_x = step_x / length
        move_y = step_y / length
    x = (step.x + step_x * progress.done) * squares.square_m + squares.middle.x
    y = (step.y + step_y * progress.done) * squares.square_m + squares.middle.y
    after = Body(body.face, Vec3(x, y, body.position.z), Vec3(move_x * speed, move_y * speed, 0.0))
    return state._replace(grid=grid), after, level_motion(move_x, move_y)
