"""Steering through a tick, in parts if its middle does not represent it: ramps, turning, and goals on the way."""

import math

from wendonic.kernels.axis_channel import AxisOutput, mean_within
from wendonic.kernels.body.body import Body
from wendonic.kernels.body.fall import taken_off
from wendonic.kernels.body.gait import GaitTuning
from wendonic.kernels.frames.frame import FrameState, FrameTuning
from wendonic.kernels.frames.goal import STEERS, GoalInput, goals_after, nearing
from wendonic.kernels.frames.goto import INSIDE, motion_towards
from wendonic.kernels.frames.steer import (
    FRAME_GOTO,
)
from wendonic.kernels.move.move import (
    NO_MOVE_OUTPUT,
    RAMP_PART_S,
    SMOOTHING_HALF_LIFE,
    MoveOutput,
    MoveState,
    MoveTuning,
    any_ramping,
    move_output,
)
from wendonic.kernels.press.press import PressState
from wendonic.kernels.request import NO_MOTION, Request, part_of_request
from wendonic.kernels.row import Row
from wendonic.kernels.sample import Sample
from wendonic.kernels.steer_part import Steered, steer_part
from wendonic.kernels.tick_record import Memory
from wendonic.kernels.tuning import Tuning
from wendonic.kernels.vector import ZERO2, Vec3

LANDING_PARTS = 8
"""Number of parts into which the part of a tick is cut in which a body lands."""

PART_S = 1.0 / 120.0
"""Longest part (s) of a tick in which the direction turns, so that its middle represents it."""


def parts_of(tuning: Tuning, memory: Memory, sample: Sample, ramps: float, dt: float) -> int:
    """Return the number of equal parts into which a tick is cut: of at most RAMP_PART_S during a ramp without a
    closed form, such as that of `rise` or `throttle`, for a share `ramps` of the tick; of at most PART_S if the
    direction turns; and never more than the longest tick has. Squares keep their own time.

    >>> from wendonic.kernels.sample import EMPTY_SAMPLE
    >>> from wendonic.kernels.tick_record import tick_at_rest
    >>> from wendonic.kernels.tuning import PLAIN_TUNING
    >>> parts_of(PLAIN_TUNING, tick_at_rest(PLAIN_TUNING).memory, EMPTY_SAMPLE, 0.0, 0.1)
    1
    >>> parts_of(PLAIN_TUNING._replace(turning=1), tick_at_rest(PLAIN_TUNING).memory, EMPTY_SAMPLE, 0.5, 0.01)
    20
    """
    parts = 1
    if tuning.turning > 0 and dt > PART_S:
        # Rounding must not add a part.
        parts = math.ceil(min(dt, tuning.max_dt_s) / PART_S - 1e-6)
    if tuning.turning > 0 and ramps > 0.0:
        parts = math.ceil(min(dt, tuning.max_dt_s) / RAMP_PART_S)
    if tuning.move.cuts_ramps > 0 and any_ramping(tuning.move, memory.move, sample.move):
        parts = math.ceil(min(dt, tuning.max_dt_s) / RAMP_PART_S)
    return parts


def requested(
    tuning: MoveTuning,
    tables: Row,
    state: MoveState,
    raw: tuple[Row, ...],
    request: Request,
    presses: tuple[PressState, ...],
    dt: float,
) -> tuple[MoveState, MoveOutput, Request]:
    """Return the output of the channel `move` for `dt` seconds, and the request with it."""
    after, move = move_output(tuning, tables, state, raw, presses, dt)
    released = move.source < 0.0 or (move.raw_x == 0.0 and move.raw_y == 0.0)
    request = request._replace(
        right=move.right,
        forward=move.forward,
        begin=move.begin,
        corner=move.corner,
        corner_s=move.corner_s,
        scale=move.scale,
        fades=1.0 if released else 0.0,
    )
    return after, move, request


def request_within(
    request: Request,
    axes: tuple[AxisOutput, AxisOutput, AxisOutput],
    bends: int,
    first: float,
    last: float,
    dt: float,
) -> Request:
    """Return the request from one share of a tick of `dt` seconds to a later one."""
    rise, throttle, turn = axes
    return part_of_request(request, bends, first * dt, last * dt, dt)._replace(
        rise=mean_within(rise, first, last),
        throttle=mean_within(throttle, first, last),
        turn=mean_within(turn, first, last),
    )


def steer_within(
    tuning: Tuning,
    gait: GaitTuning,
    course: Row,
    state: Steered,
    request: Request,
    axes: tuple[AxisOutput, AxisOutput, AxisOutput],
    bends: int,
    part: int,
    parts: int,
    part_s: float,
    dt: float,
) -> Steered:
    """Return the result of steering for one of the equal parts of a tick, of `part_s` seconds. The part in which a
    body lands is repeated in LANDING_PARTS, because other rates apply on the ground than in the air.
    """
    if gait.fall.falls <= 0:
        now = request
        if tuning.turning > 0:
            now = request_within(request, axes, bends, part / parts, (part + 1.0) / parts, dt)
        return steer_part(tuning, gait, course, state, now, part_s)
    small = 1
    done = 0
    while done < small:
        now = request
        if tuning.turning > 0:
            first, last = (part + done / small) / parts, (part + (done + 1.0) / small) / parts
            now = request_within(request, axes, bends, first, last, dt)
        after = steer_part(tuning, gait, course, state, now, part_s / small)
        lands = state.fall.airborne > 0.0 and after.fall.airborne <= 0.0
        if lands and small == 1 and part_s > RAMP_PART_S:
            small = LANDING_PARTS
        else:
            state = after
            done += 1
    return state


def steer(
    tuning: Tuning,
    gait: GaitTuning,
    tables: Row,
    course: Row,
    memory: Memory,
    sample: Sample,
    request: Request,
    axes: tuple[AxisOutput, AxisOutput, AxisOutput],
    presses: tuple[PressState, ...],
    dt: float,
) -> tuple[MoveState, MoveOutput, Steered]:
    """Return the request of the channel `move`, and the result of steering, gait and body.

    `request` has what is constant in the tick; ramps of `axes` (rise, throttle, turn) are linear. See `parts_of` for
    how a tick is cut.
    """
    body, fall = memory.body, memory.fall
    if gait.fall.falls > 0:
        began = held = 0.0
        if tuning.jump_press >= 0:
            began = presses[tuning.jump_press].began
            held = presses[tuning.jump_press].held
        fall, vel_z = taken_off(gait.fall, fall, body.velocity.z, began, held)
        body = body._replace(velocity=Vec3(body.velocity.x, body.velocity.y, vel_z))
    state = Steered(body, fall, memory.up, memory.frame._replace(arrived=0.0), NO_MOTION, 0.0, ZERO2)
    rise, throttle, _ = axes
    parts = parts_of(tuning, memory, sample, max(rise.ramps, throttle.ramps), dt)
    part_s = dt
    if tuning.turning > 0 or tuning.move.cuts_ramps > 0:
        part_s = dt / parts
    channel = tuning.move
    move_state, move = memory.move, NO_MOVE_OUTPUT
    if tuning.move.cuts_ramps <= 0:
        move_state, move, request = requested(channel, tables, move_state, sample.move, request, presses, dt)
    bends = 1 if channel.smoothing == SMOOTHING_HALF_LIFE else 0
    for part in range(parts):
        if tuning.move.cuts_ramps > 0:
            move_state, move, request = requested(channel, tables, move_state, sample.move, request, presses, part_s)
        if tuning.frame.frame == FRAME_GOTO and part == 0:
            frame = goals_now(tuning.frame, gait, memory, state.frame, sample.goal, request, dt)
            state = state._replace(frame=frame)
        state = steer_within(tuning, gait, course, state, request, axes, bends, part, parts, part_s, dt)
    if tuning.frame.frame == FRAME_GOTO:
        state = slowed_near_goal(tuning.frame, gait, memory.body, state, sample.goal, dt)
    return move_state, move, state


def goals_now(
    tuning: FrameTuning,
    gait: GaitTuning,
    memory: Memory,
    state: FrameState,
    given: GoalInput,
    request: Request,
    dt: float,
) -> FrameState:
    """Return the frame's state with the goal of this tick, if there is one."""
    # A request that is fading out, after a key or a stick was released, does not steer.
    steers = request.fades <= 0.0 and math.hypot(request.right, request.forward) > STEERS
    place, was = memory.body.position, memory.frame
    reach_m = gait.top_speed_m_s * dt
    goals = goals_after(
        tuning.goto, was.goal, was.waiting, was.waiting_count, given, steers, place.x, place.y, reach_m
    )
    far_m = math.hypot(goals.goal.x - place.x, goals.goal.y - place.y)
    nearest_m, stuck_s = nearing(was.goal, goals.goal, was.nearest_m, was.stuck_s, far_m, gait.top_speed_m_s, dt)
    return state._replace(
        goal=goals.goal,
        waiting=goals.waiting,
        waiting_count=goals.many,
        arrived=goals.arrived,
        nearest_m=nearest_m,
        stuck_s=stuck_s,
    )


def slowed_near_goal(
    tuning: FrameTuning, gait: GaitTuning, was: Body, state: Steered, given: GoalInput, dt: float
) -> Steered:
    """Return the result of steering with a request limited to the distance that is left to the last goal."""
    goal = state.frame.goal
    full_m = gait.top_speed_m_s * dt
    # The shortest ticks cover no distance at all.
    if goal.there <= 0.0 or state.frame.waiting_count > 0.0 or full_m <= 0.0:
        return state
    to_x = goal.x - was.position.x
    to_y = goal.y - was.position.y
    left_m = math.hypot(goal.x - state.body.position.x, goal.y - state.body.position.y)
    within_m = math.hypot(to_x, to_y)
    if gait.drags > 0 or gait.coasts > 0:
        # A body that rolls out has no request; a game that moves its body by the request gets the speed of rolling.
        within_m = min(within_m, left_m)
    if left_m <= tuning.goto.arrival_m:
        # A hitch reports its last part, by which a game moves its body for the whole hitch.
        all_the_way = left_m <= 0.0 or given.given < 0.0
        within_m = 0.0 if all_the_way else min(within_m, INSIDE * tuning.goto.arrival_m)
    return state._replace(wanted=motion_towards(state.wanted, within_m, to_x, to_y, full_m))
