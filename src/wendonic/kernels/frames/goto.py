"""The steer frame `goto`: walking to a goal."""

import math

from wendonic.kernels.body.body import Body
from wendonic.kernels.body.gait import GaitTuning
from wendonic.kernels.body.walk import walk
from wendonic.kernels.frames.camera import steer_camera
from wendonic.kernels.frames.frame import FrameState, FrameTuning
from wendonic.kernels.frames.goal import GotoTuning, approach_speed
from wendonic.kernels.frames.map import steer_map
from wendonic.kernels.request import Request, WantedMotion
from wendonic.kernels.row import Row
from wendonic.kernels.vector import ZERO3, Vec3

INSIDE = 0.999
"""Share of the arrival radius that a game's own body is brought within, so that rounding cannot keep it out."""


def steer_goto(
    tuning: FrameTuning, gait: GaitTuning, course: Row, state: FrameState, body: Body, request: Request, dt: float
) -> tuple[FrameState, Body, WantedMotion]:
    """Return the frame's state, the body and its wanted motion after `dt` seconds of walking to the goal; without
    one, as in `map` or `camera`.

    The speed is that of `approach_speed`, and full if another goal follows, both scaled by presses. The body never
    walks past the last goal: it ends on it, at rest.

    >>> from wendonic.kernels.body.body import BODY_AT_REST
    >>> from wendonic.kernels.body.gait import PLAIN_GAIT
    >>> from wendonic.kernels.frames.frame import FRAME_AT_REST, PLAIN_FRAME
    >>> from wendonic.kernels.frames.goal import Goal
    >>> from wendonic.kernels.request import NO_REQUEST
    >>> near = FRAME_AT_REST._replace(goal=Goal(1.0, 0.0, 0.125))
    >>> quick = BODY_AT_REST._replace(velocity=Vec3(0.0, 3.0, 0.0))
    >>> _, body, _ = steer_goto(PLAIN_FRAME, PLAIN_GAIT, (), near, quick, NO_REQUEST, 0.1)
    >>> body.position.y, body.velocity.y
    (0.125, 0.0)
    """
    goal = state.goal
    if goal.there <= 0.0:
        if tuning.goto.by_view > 0:
            return steer_camera(tuning, gait, course, state, body, request, dt)
        return steer_map(tuning, gait, course, state, body, request, dt)
    to_x = goal.x - body.position.x
    to_y = goal.y - body.position.y
    far = math.sqrt(to_x * to_x + to_y * to_y)
    move_x = move_y = 0.0
    goes_on = state.waiting_count > 0.0
    if far > tuning.goto.arrival_m or (goes_on and far > 0.0):
        share = 1.0
        if not goes_on:
            speed = max((body.velocity.x * to_x + body.velocity.y * to_y) / far, 0.0)
            share = approach_speed(tuning.goto, gait, far, speed, dt) / gait.top_speed_m_s
        # A press that scales the amount also counts on the way to a goal.
        share = min(share, request.scale)
        move_x = to_x / far * share
        move_y = to_y / far * share
    # Input that is fading out does not affect the way to the goal.
    to_goal = request._replace(right=move_x, forward=move_y, corner_s=0.0)
    after, wanted = walk(gait, tuning.slope, course, body, to_goal, dt)
    if not goes_on:
        along = (after.position.x - body.position.x) * to_x + (after.position.y - body.position.y) * to_y
        if along >= far * far:
            after = Body(body.face, Vec3(goal.x, goal.y, after.position.z), ZERO3)
    return state, after, wanted


def motion_towards(wanted: WantedMotion, within_m: float, to_x: float, to_y: float, full_m: float) -> WantedMotion:
    """Return the motion that a tick reports to a game that moves the body by itself: not past the goal, and as near
    to it (`within_m`) as the tick brings the helm's own body.

    At the tick's start the goal was (to_x, to_y) away; `full_m` is what full speed covers in the tick.

    >>> from wendonic.kernels.request import NO_MOTION, level_motion
    >>> motion_towards(level_motion(0.0, 1.0), 0.25, 0.0, 0.25, 0.5).move_y
    0.5
    >>> motion_towards(NO_MOTION, 0.0, 0.0, 0.25, 0.5).move_y, motion_towards(NO_MOTION, 0.125, 0.0, 0.25, 0.5).move_y
    (0.5, 0.25)
    """
    far = math.hypot(to_x, to_y)
    most = far / full_m
    least = min(1.0, (far - within_m) / full_m)
    amount = math.hypot(wanted.move_x, wanted.move_y)
    x, y = wanted.move_x, wanted.move_y
    direction = wanted.direction
    if amount < least:
        x = to_x / far * least
        y = to_y / far * least
        direction = Vec3(x, y, 0.0)
    elif amount > most:
        less = most / amount
        x *= less
        y *= less
        direction = Vec3(direction.x * less, direction.y * less, direction.z * less)
    return WantedMotion(x, y, direction, wanted.refused, wanted.slide)


def arriving(tuning: GotoTuning, top_speed_m_s: float, start: Vec3, body: Body, state: FrameState, dt: float) -> Body:
    """Return the body that a tick reports: one that went from `start` to its last goal, and may already be at rest
    there, with the velocity that brings a game's own body as near within `dt` seconds, at most top speed.

    >>> from wendonic.kernels.body.body import BODY_AT_REST
    >>> from wendonic.kernels.frames.frame import FRAME_AT_REST
    >>> from wendonic.kernels.frames.goal import NO_GOTO, Goal
    >>> came = FRAME_AT_REST._replace(goal=Goal(1.0, 0.0, 0.5))
    >>> rests = BODY_AT_REST._replace(position=Vec3(0.0, 0.5, 0.0))
    >>> arriving(NO_GOTO._replace(arrival_m=0.0), 3.0, ZERO3, rests, came, 0.25).velocity.y
    2.0
    """
    if state.goal.there <= 0.0 or state.waiting_count > 0.0:
        return body
    left_m = math.hypot(state.goal.x - body.position.x, state.goal.y - body.position.y)
    if left_m > tuning.arrival_m:
        return body
    to_x = state.goal.x - start.x
    to_y = state.goal.y - start.y
    far_m = math.hypot(to_x, to_y)
    needed = min((far_m - min(left_m, INSIDE * tuning.arrival_m)) / dt, top_speed_m_s)
    if far_m == 0.0 or (body.velocity.x * to_x + body.velocity.y * to_y) / far_m >= needed:
        return body
    return body._replace(velocity=Vec3(to_x / far_m * needed, to_y / far_m * needed, body.velocity.z))
