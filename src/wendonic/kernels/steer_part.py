"""Steering over a time so short that its middle represents it: frame, facing, walls, ground and weight."""

import math
from typing import NamedTuple

from wendonic.kernels.body.body import Body
from wendonic.kernels.body.facing import face_after, leaves_diagonal
from wendonic.kernels.body.fall import FallState, FallTuning, height_settled
from wendonic.kernels.body.gait import GaitTuning
from wendonic.kernels.body.lean import leaned
from wendonic.kernels.body.slope import WALL_TANGENT, SlopeTuning
from wendonic.kernels.body.steps import STEP_DOWN_M, StepTuning
from wendonic.kernels.body.walk import normal_under
from wendonic.kernels.body.walls import above_floor, contact_normal, stopped_body
from wendonic.kernels.frames.frame import FrameState, FrameTuning
from wendonic.kernels.frames.steer import (
    FRAME_CAMERA,
    FRAME_DRIVE,
    FRAME_FLY,
    FRAME_GOTO,
    FRAME_GRID,
    steer_by_frame,
    turns_itself,
)
from wendonic.kernels.request import Request, WantedMotion
from wendonic.kernels.row import Row
from wendonic.kernels.tuning import Tuning
from wendonic.kernels.vector import Vec2, Vec3, length3

MOST_TANGENT = 2.0
"""A body falls off ground that drops more steeply than this, whatever the limit of slopes."""


class Steered(NamedTuple):
    """What steering changes within a tick, the heading (rad) that the body turned to, 0 at rest, and the normal of
    the obstacle that stopped it, (0, 0) for none.
    """

    body: Body
    fall: FallState
    up: Vec3
    frame: FrameState
    wanted: WantedMotion
    heading: float
    contact: Vec2


class FacingAfter(NamedTuple):
    """The body's facing and the heading that it turns to (rad), 0 at rest; and the heading that is held, and for how
    long it has been held against another one (s), see `FrameState`.
    """

    face: float
    heading: float
    towards: float
    against_s: float


class OnCourse(NamedTuple):
    """The body after walls and steps, the floor under it (m), whether it stands there, and the normal of the obstacle
    that stopped it, (0, 0) for none.
    """

    body: Body
    floor: float
    stands: float
    contact: Vec2


def steer_part(tuning: Tuning, gait: GaitTuning, course: Row, was: Steered, request: Request, dt: float) -> Steered:
    """Return the result of a mode's steer frame for `dt` seconds, in which the direction turns so little that the
    middle represents it, with walls, steps and the gait's weight.
    """
    frame = tuning.frame.frame
    reported = request.grounded
    if gait.fall.falls > 0 and reported > 0.0 and was.fall.airborne > 0.0:
        request = request._replace(grounded=0.0)
    before = was.body
    if gait.loses > 0:
        request = request._replace(last_direction=was.frame.last_direction)
    state, body, wanted = steer_by_frame(tuning.frame, gait, course, was.frame, before, request, dt)
    if gait.loses > 0 and frame != FRAME_DRIVE and length3(wanted.direction) > 0.0:
        state = state._replace(last_direction=wanted.direction)
    heading = 0.0
    if not turns_itself(frame):
        face, heading, towards, against_s = facing_after(tuning, state, body, wanted, request, dt)
        body = body._replace(face=face)
        state = state._replace(towards=towards, against_s=against_s)
    up = was.up
    if tuning.frame.slope.follows > 0:
        normal = normal_under(course, request, body.position.x, body.position.y)
        up = leaned(up, normal, tuning.frame.slope.lean_half_life_s, dt)
    contact = was.contact
    floor = 0.0
    stands = 0.0 if before.position.z > STEP_DOWN_M else 1.0
    if tuning.walled > 0:
        body, floor, stands, contact = on_course(tuning.frame, gait, course, was, body, request.grounded)
    fall = was.fall
    if gait.fall.falls > 0:
        fall, body = height_settled(gait.fall, tuning.walled, course, fall, reported, before, body, floor, stands, dt)
    return Steered(body, fall, up, state, wanted, heading, contact)


def facing_after(
    tuning: Tuning, state: FrameState, body: Body, wanted: WantedMotion, request: Request, dt: float
) -> FacingAfter:
    """Return the body's facing after `dt` seconds in a frame that does not turn it by itself."""
    frame = tuning.frame.frame
    to_x, to_y = wanted.move_x, wanted.move_y
    if frame == FRAME_GRID and state.grid.refused > 0.0:
        # The body turns to the obstacle.
        to_x, to_y = state.grid.refused_x, state.grid.refused_y
    elif frame == FRAME_GRID and state.grid.turning > 0.0:
        to_x, to_y = state.grid.face_x, state.grid.face_y
    moving = to_x != 0.0 or to_y != 0.0
    heading = math.atan2(to_x, to_y) if moving else 0.0
    turns = moving
    if tuning.frame.face_limited > 0:
        turns = math.sqrt(to_x * to_x + to_y * to_y) >= tuning.frame.face_above
    towards = heading
    held, against_s = state.towards, state.against_s
    if turns and tuning.frame.holds > 0:
        ahead = request.look_yaw if frame == FRAME_CAMERA else 0.0
        # While the request of released keys fades out, the facing stays.
        if request.fades <= 0.0 or (frame == FRAME_GOTO and state.goal.there > 0.0):
            against_s += dt
            if against_s > tuning.frame.hold_s or not leaves_diagonal(held - ahead, heading - ahead):
                held, against_s = heading, 0.0
        towards = held
    elif tuning.frame.holds <= 0 and turns and tuning.sector_by_heading > 0:
        held = heading
    face = face_after(
        tuning.frame.face,
        tuning.frame.turn_rate,
        body.face,
        towards,
        turns,
        request.look_yaw,
        request.aim,
        body.position.x,
        body.position.y,
        request.turn,
        dt,
    )
    return FacingAfter(face, heading, held, against_s)


def steps_for(slope: SlopeTuning, fall: FallTuning, frame: int, in_air: bool, rises: bool) -> StepTuning:
    """Return which steps and slopes can be walked over: in the air, a side that is too high is a wall except for its
    lip, and a body that `rises` in a jump has to clear the lip as well.

    >>> from wendonic.kernels.body.fall import NO_FALL
    >>> from wendonic.kernels.body.slope import LEVEL_ONLY
    >>> steps_for(LEVEL_ONLY._replace(step_m=0.3), NO_FALL._replace(falls=1), 0, True, True).lip_m
    0.0
    """
    steps = StepTuning(
        1 if fall.falls > 0 or frame == FRAME_FLY else 0,
        slope.step_m,
        slope.step_m,
        slope.steepest_tangent if slope.follows > 0 else WALL_TANGENT,
        min(slope.steepest_tangent, MOST_TANGENT),
    )
    if in_air:
        steps = steps._replace(lip_m=0.0 if rises else STEP_DOWN_M)
        if frame == FRAME_FLY:
            steps = steps._replace(step_m=STEP_DOWN_M)
    return steps


def on_course(
    tuning: FrameTuning, gait: GaitTuning, course: Row, was: Steered, free: Body, grounded: float
) -> OnCourse:
    """Return how far a body gets from where it was; `free` is where it would be if nothing stopped it."""
    frame = tuning.frame
    on_ground = grounded > 0.0 and (gait.fall.falls > 0 or tuning.slope.follows > 0)
    in_air = frame == FRAME_FLY or (gait.fall.falls > 0 and not on_ground)
    rises = was.fall.airborne > 0.0 and was.body.velocity.z > 0.0
    steps = steps_for(tuning.slope, gait.fall, frame, in_air, rises)
    has_feet = on_ground or in_air
    body, floor, stands = stopped_body(course, gait.radius_m, steps, has_feet, 0.0 if in_air else 1.0, was.body, free)
    contact = was.contact
    if body.position.x != free.position.x or body.position.y != free.position.y:
        contact = contact_normal(body.position, free.position)
    if frame == FRAME_FLY:
        body = above_floor(floor, body)
    if course[0] > 0.0 and on_ground:
        body = body._replace(position=Vec3(body.position.x, body.position.y, floor))
    return OnCourse(body, floor, stands, contact)
