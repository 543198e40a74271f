"""The table of steer frames: the integer of each, and its kernel."""

import math

from wendonic.kernels.body.body import Body
from wendonic.kernels.body.gait import GaitTuning
from wendonic.kernels.frames.camera import steer_camera
from wendonic.kernels.frames.drive import steer_drive
from wendonic.kernels.frames.facing import steer_facing
from wendonic.kernels.frames.fly import steer_fly
from wendonic.kernels.frames.frame import FrameState, FrameTuning
from wendonic.kernels.frames.goto import steer_goto
from wendonic.kernels.frames.grid import steer_grid
from wendonic.kernels.frames.map import steer_map
from wendonic.kernels.request import Request, WantedMotion
from wendonic.kernels.row import Row
from wendonic.kernels.vector import Vec2, Vec3, turned

FRAME_MAP = 0
FRAME_CAMERA = 1
FRAME_FACING = 2
FRAME_DRIVE = 3
FRAME_FLY = 4
FRAME_GRID = 5
FRAME_GOTO = 6
FRAME_HANDS = 7


def steer_by_frame(
    tuning: FrameTuning, gait: GaitTuning, course: Row, state: FrameState, body: Body, request: Request, dt: float
) -> tuple[FrameState, Body, WantedMotion]:
    """Return the frame's state, the body and its wanted motion after `dt` seconds in the steer frame of a mode.

    >>> from wendonic.kernels.body.body import BODY_AT_REST
    >>> from wendonic.kernels.body.gait import PLAIN_GAIT
    >>> from wendonic.kernels.frames.frame import FRAME_AT_REST, PLAIN_FRAME
    >>> from wendonic.kernels.request import NO_REQUEST
    >>> right = NO_REQUEST._replace(right=1.0)
    >>> _, body, _ = steer_by_frame(PLAIN_FRAME, PLAIN_GAIT, (), FRAME_AT_REST, BODY_AT_REST, right, 0.01)
    >>> body.velocity.x, body.velocity.y
    (0.22, 0.0)
    """
    if tuning.frame == FRAME_DRIVE:
        return steer_drive(tuning, gait, course, state, body, request, dt)
    if tuning.frame == FRAME_FACING:
        return steer_facing(tuning, gait, course, state, body, request, dt)
    if tuning.frame == FRAME_GRID:
        return steer_grid(tuning, gait, course, state, body, request, dt)
    if tuning.frame == FRAME_FLY:
        return steer_fly(tuning, gait, course, state, body, request, dt)
    if tuning.frame == FRAME_GOTO:
        return steer_goto(tuning, gait, course, state, body, request, dt)
    if tuning.frame in (FRAME_CAMERA, FRAME_HANDS):
        return steer_camera(tuning, gait, course, state, body, request, dt)
    return steer_map(tuning, gait, course, state, body, request, dt)


def turns_itself(frame: int) -> bool:
    """Return whether a frame turns the body by itself, so that `face` does not apply.

    >>> turns_itself(FRAME_DRIVE), turns_itself(FRAME_CAMERA)
    (True, False)
    """
    return frame in (FRAME_DRIVE, FRAME_FACING)


def away_from(tuning: FrameTuning, wall: Vec3, forward_yaw: float, pitch: float, face: float) -> Vec2:
    """Return a wall's normal in the right and forward of a steer frame's channel `move`.

    Forward is at `forward_yaw` (rad) and `pitch` (rad), or where the body faces (`face`, rad).

    >>> from wendonic.kernels.frames.frame import PLAIN_FRAME
    >>> away_from(PLAIN_FRAME._replace(frame=FRAME_DRIVE), Vec3(0.0, -1.0, 0.0), 0.0, 0.0, math.pi)
    Vec2(x=0.0, y=1.0)
    """
    frame = tuning.frame
    yaw = 0.0
    if turns_itself(frame):
        yaw = face
    elif frame in (FRAME_CAMERA, FRAME_HANDS, FRAME_FLY) or (frame == FRAME_GOTO and tuning.goto.by_view > 0):
        yaw = forward_yaw
    away = turned(wall.x, wall.y, 0.0 - yaw)
    if frame == FRAME_DRIVE:
        away = away._replace(x=0.0)
    if frame == FRAME_FLY and tuning.level <= 0:
        away = away._replace(y=away.y * math.cos(pitch) + wall.z * math.sin(pitch))
    return away
