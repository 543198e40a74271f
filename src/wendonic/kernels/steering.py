"""Every steer frame but the two usual ones of the tick: the shaped wish in, a body that moves out."""

import math
from typing import NamedTuple

from wendonic.kernels.angles import wrapped_angle
from wendonic.kernels.body import BODY_AT_REST, Body
from wendonic.kernels.comfort import COMFORT_AT_REST, ComfortState, comforted
from wendonic.kernels.contact import bumped
from wendonic.kernels.facing import FACE_TRAVEL, faced
from wendonic.kernels.fall import STANDING, FallState, come_down, taken_off
from wendonic.kernels.fly import flown_on
from wendonic.kernels.goto import NO_GOAL, Goal
from wendonic.kernels.grid import GRID_AT_REST, GridHeld, GridState, GridStep
from wendonic.kernels.ground import ground_at
from wendonic.kernels.in_cart import driven_on
from wendonic.kernels.kernel import Row, called_kernel, kernel
from wendonic.kernels.landing import NO_LANDING, NO_POINTING, Pointing, landing
from wendonic.kernels.lean import leaned
from wendonic.kernels.on_foot import ground_under, walked_on
from wendonic.kernels.on_grid import gridded
from wendonic.kernels.smoothing import smoothed_mean
from wendonic.kernels.steer_frame import (
    FRAME_CAMERA,
    FRAME_DRIVE,
    FRAME_FACING,
    FRAME_FLY,
    FRAME_GOTO,
    FRAME_GRID,
    FRAME_MAP,
    steered,
)
from wendonic.kernels.steering_tuning import SteeringTuning
from wendonic.kernels.to_goal import gone_to, on_the_way, told_way
from wendonic.kernels.wish import NO_WAY, Way, Wish, wish_at, wish_with

PART_S = 1.0 / 120.0
"""How long a part of a tick is at most: within one, the way turns so little that its middle stands for it."""

MOST_TANGENT = 2.0
"""Of ground that falls steeper than this, one falls, wherever the limit of slopes may lie."""

MOST_PARTS = 1000
"""Parts of one tick at most; beyond that they grow."""


class SteeringState(NamedTuple):
    """What is carried from tick to tick, and at once what came out: the body, its way, its own up (x, y, z, for
    leaning), the squares of a grid, the goal, whether the goal was reached in this tick, comfort, pointing,
    whether it is off the ground, and what `move` asked for (right, ahead).
    """

    body: Body
    way: Way
    up: tuple[float, float, float]
    grid: GridState
    goal: Goal
    arrived: float
    comfort: ComfortState
    pointing: Pointing
    fall: FallState
    asked_right: float
    asked_ahead: float


STEERING_AT_REST = SteeringState(
    BODY_AT_REST,
    NO_WAY,
    (0.0, 0.0, 1.0),
    GRID_AT_REST,
    NO_GOAL,
    0.0,
    COMFORT_AT_REST,
    NO_POINTING,
    STANDING,
    0.0,
    0.0,
)


@called_kernel
def steering_entered(tuning: SteeringTuning, body: Body, yaw: float) -> SteeringState:
    """Return the state in which a mode is entered by a body: at rest but for it; on a grid, in the square it is in.
    `yaw` (rad) is the view's.

    >>> from wendonic.kernels.grid import NO_GRID
    >>> from wendonic.kernels.steering_tuning import PLAIN_STEERING
    >>> grid = PLAIN_STEERING._replace(frame=FRAME_GRID, grid=NO_GRID._replace(square_m=2.0))
    >>> steering_entered(grid, BODY_AT_REST._replace(pos_x=3.2), 0.0).grid.step.x
    2.0
    """
    grid = GRID_AT_REST
    if tuning.frame == FRAME_GRID:
        x = math.floor(body.pos_x / tuning.grid.square_m + 0.5) + 0.0
        y = math.floor(body.pos_y / tuning.grid.square_m + 0.5) + 0.0
        grid = GridState(GridStep(x, y, x, y, 0.0), GridHeld(0.0, 0.0, 0.0), 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0)
    comfort = COMFORT_AT_REST
    if tuning.comfort.on > 0:
        _, x, y, _, vel_x, vel_y, vel_z = body
        comfort = ComfortState(0.0, 0.0, vel_x, vel_y, vel_z, yaw, 0.0, x, y, 0.0, 0.0, x, y, 0.0)
    fall = FallState(1.0, 0.0) if body.vel_z != 0.0 and tuning.fall.on > 0 else STANDING
    return SteeringState(body, NO_WAY, (0.0, 0.0, 1.0), grid, NO_GOAL, 0.0, comfort, NO_POINTING, fall, 0.0, 0.0)


def settled(state: SteeringState) -> SteeringState:
    """Return the state without what belongs to its tick alone: nothing arrived, nobody was brought anywhere.

    >>> settled(STEERING_AT_REST._replace(arrived=1.0)) == STEERING_AT_REST
    True
    """
    shown, pointing = state.comfort._replace(returned=0.0), state.pointing._replace(landed=0.0)
    return state._replace(arrived=0.0, comfort=shown, pointing=pointing)


@called_kernel
def strafed(tuning: SteeringTuning, course: Row, body: Body, wish: Wish, dt: float) -> tuple[Body, Way]:
    """Return the body and its way after `dt` seconds along its own heading, which turns meanwhile.

    What is asked for sideways turns a body that faces its travel: a way that followed the face that follows the way
    would run ahead of itself for ever.

    >>> from wendonic.kernels.steering_tuning import PLAIN_STEERING
    >>> from wendonic.kernels.wish import NO_WISH
    >>> east = BODY_AT_REST._replace(face=math.pi / 2)
    >>> body, way = strafed(PLAIN_STEERING, (0.0, 0.0, 3.0, 0.0), east, NO_WISH._replace(ahead=0.5), 0.1)
    >>> body.face == math.pi / 2, way.move_x
    (True, 0.5)
    """
    if tuning.face == FACE_TRAVEL:
        face = wrapped_angle(body.face + tuning.turn_rate * wish.right * dt)
    else:
        aim = (wish.aim_given, wish.aim_x - body.pos_x, wish.aim_y - body.pos_y)
        face = faced(tuning.face, tuning.turn_rate, body.face, 0.0, False, wish.look_yaw, aim, wish.turn, dt)
    # The middle of the turn stands for the whole of it.
    yaw = body.face + 0.5 * wrapped_angle(face - body.face)
    x, y = steered(wish.right, wish.ahead, FRAME_CAMERA, yaw)
    return walked_on(tuning, course, body, wish, x, y, face, dt)


@called_kernel
def pointed(
    tuning: SteeringTuning, course: Row, was: Pointing, body: Body, wish: Wish, offset_x: float, offset_y: float
) -> tuple[Pointing, Body]:
    """Return where a hand that points would land, and the body: once it lets go, the head is there, at rest.

    A hand that is lost while it points lands nowhere.

    >>> from wendonic.kernels.steering_tuning import PLAIN_STEERING
    >>> from wendonic.kernels.wish import NO_WISH
    >>> arc, level = PLAIN_STEERING._replace(arc_m_s=3.0), (0.0, 0.0, 3.0, 0.0)
    >>> wish = NO_WISH._replace(points=1.0, hand=(0.0, 0.0, 4.905), hand_way=(0.0, 1.0, 0.0))
    >>> held, _ = pointed(arc, level, NO_POINTING, BODY_AT_REST, wish, 0.0, 0.5)
    >>> let_go, body = pointed(arc, level, held, BODY_AT_REST, wish._replace(points=0.0), 0.0, 0.5)
    >>> held.landing.there, let_go.landed, round(body.pos_y, 9)
    (1.0, 1.0, 2.5)
    """
    way_x, way_y, way_z = wish.hand_way
    seen = way_x != 0.0 or way_y != 0.0 or way_z != 0.0
    if wish.points > 0.0:
        if not seen:
            return NO_POINTING, body
        right, ahead, up = wish.hand
        at_x, at_y = steered(right, ahead, FRAME_CAMERA, wish.view_yaw)
        way_x, way_y = steered(way_x, way_y, FRAME_CAMERA, wish.view_yaw)
        place = (body.pos_x + at_x, body.pos_y + at_y, body.pos_z + up)
        way = (way_x, way_y, way_z)
        found = landing(course, place, way, tuning.arc_m_s, tuning.slope.limit_tangent)
        return Pointing(1.0, place, way, found, 0.0), body
    there, x, y, z, _ = was.landing
    if was.held > 0.0 and seen and there > 0.0:
        landed = Body(body.face, x - offset_x, y - offset_y, z, 0.0, 0.0, 0.0)
        return Pointing(0.0, was.place, was.way, NO_LANDING, 1.0), landed
    return NO_POINTING, body


@called_kernel
def steering_part(tuning: SteeringTuning, course: Row, state: SteeringState, wish: Wish, dt: float) -> SteeringState:
    """Return the state after `dt` seconds, for a `dt` in which the way turns so little that its middle stands for it.

    >>> from wendonic.kernels.steering_tuning import PLAIN_STEERING
    >>> from wendonic.kernels.wish import NO_WISH
    >>> level = (0.0, 0.0, 3.0, 0.0)
    >>> walking = steering_part(PLAIN_STEERING, level, STEERING_AT_REST, NO_WISH._replace(ahead=1.0), 0.01)
    >>> walking.way.move_y, walking.body.vel_y
    (1.0, 0.22)
    """
    body, _, up, grid, goal, arrived, comfort, pointing, fall, asked_right, asked_ahead = state
    frame = tuning.frame
    was = body.face
    if frame == FRAME_DRIVE:
        body, way = driven_on(tuning, course, body, wish, dt)
    elif frame == FRAME_FACING:
        body, way = strafed(tuning, course, body, wish, dt)
    else:
        if frame == FRAME_GRID:
            body, way, grid = gridded(tuning, course, body, grid, wish, dt)
        elif frame == FRAME_FLY:
            body, way = flown_on(tuning, body, wish, was, dt)
        elif goal.there > 0.0:
            body, way, goal, arrived = gone_to(tuning, course, body, wish, goal, dt)
        else:
            plan = FRAME_MAP if frame in (FRAME_MAP, FRAME_GOTO) else FRAME_CAMERA
            x, y = steered(wish.right, wish.ahead, plan, wish.yaw)
            body, way = walked_on(tuning, course, body, wish, x, y, was, dt)
        to_x, to_y = way.move_x, way.move_y
        if frame == FRAME_GRID and grid.refused > 0.0:
            # He turns to what is in his way.
            to_x, to_y = grid.refused_x, grid.refused_y
        moving = to_x != 0.0 or to_y != 0.0
        aim = (wish.aim_given, wish.aim_x - body.pos_x, wish.aim_y - body.pos_y)
        heading = math.atan2(to_x, to_y) if moving else was
        face = faced(tuning.face, tuning.turn_rate, was, heading, moving, wish.look_yaw, aim, wish.turn, dt)
        body = Body(face, body.pos_x, body.pos_y, body.pos_z, body.vel_x, body.vel_y, body.vel_z)
    if tuning.slope.follows > 0:
        _, normal_x, normal_y, normal_z = ground_under(course, wish, body.pos_x, body.pos_y)
        up = leaned(up, (normal_x, normal_y, normal_z), tuning.lean_half_life_s, dt)
    return SteeringState(body, way, up, grid, goal, arrived, comfort, pointing, fall, asked_right, asked_ahead)


@called_kernel
def weighed_part(tuning: SteeringTuning, course: Row, state: SteeringState, wish: Wish, dt: float) -> SteeringState:
    """Return the state after `dt` seconds of `steering_part`, stopped by walls and steps, and with the gait's weight.

    >>> from wendonic.kernels.fall import NO_FALL, NOBODY_TOLD
    >>> from wendonic.kernels.steering_tuning import PLAIN_STEERING
    >>> from wendonic.kernels.wish import NO_WISH
    >>> heavy = PLAIN_STEERING._replace(fall=NO_FALL._replace(on=1, falling_m_s2=8.0, terminal_m_s=99.0))
    >>> above = STEERING_AT_REST._replace(body=BODY_AT_REST._replace(pos_z=5.0), fall=FallState(1.0, 0.0))
    >>> weighed_part(heavy, (0.0, 0.0, 3.0, 0.0), above, NO_WISH._replace(grounded=NOBODY_TOLD), 1.0).body.pos_z
    1.0
    """
    was = state.body
    told = wish.grounded
    weighs = tuning.fall.on > 0
    fall = state.fall
    if weighs and told > 0.0 and fall.airborne > 0.0:
        wish = wish_with(wish, 0.0, wish.mean_right, wish.mean_ahead)
    state = steering_part(tuning, course, state, wish, dt)
    body = state.body
    on_ground = wish.grounded > 0.0 and (weighs or tuning.slope.follows > 0)
    if tuning.radius_m > 0.0:
        bumps = bumped(course, tuning.radius_m, on_ground, was, body)
        if course[0] > 0.0 and on_ground and not weighs and bumps != body:
            height = ground_at(course, bumps.pos_x, bumps.pos_y).height
            bumps = Body(bumps.face, bumps.pos_x, bumps.pos_y, height, bumps.vel_x, bumps.vel_y, bumps.vel_z)
        body = bumps
    if weighs:
        steepest = min(tuning.slope.limit_tangent, MOST_TANGENT)
        fall, body = come_down(tuning.fall, course, fall, told, was, body, steepest, dt)
    return SteeringState(
        body,
        state.way,
        state.up,
        state.grid,
        state.goal,
        state.arrived,
        state.comfort,
        state.pointing,
        fall,
        state.asked_right,
        state.asked_ahead,
    )


@kernel
def steering(tuning: SteeringTuning, course: Row, state: SteeringState, wish: Wish, dt: float) -> SteeringState:
    """Return the state after `dt` seconds of a wish that stands for the whole tick.

    Squares keep their own time; in every other frame a tick is cut into equal parts of at most PART_S, MOST_PARTS of
    them at most. A `dt` of 0 leaves the state as it was.

    >>> from wendonic.kernels.drive import DriveTuning
    >>> from wendonic.kernels.steering_tuning import PLAIN_STEERING
    >>> from wendonic.kernels.wish import NO_WISH
    >>> level = (0.0, 0.0, 3.0, 0.0)
    >>> cart = PLAIN_STEERING._replace(frame=FRAME_DRIVE, drive=DriveTuning(1.0, 1.0, 0.0, 1.0, 0))
    >>> held = NO_WISH._replace(throttle=1.0, turn=0.5, throttle_from=1.0, turn_from=0.5)
    >>> after = steering(cart, level, STEERING_AT_REST, held, 1.0)
    >>> round(after.body.face, 9), round(math.hypot(after.body.vel_x, after.body.vel_y), 9)
    (0.5, 3.2)
    """
    if dt <= 0.0:
        return state
    goal = state.goal
    if tuning.frame == FRAME_GOTO:
        goal = on_the_way(tuning.goto, goal, wish, state.body.pos_x, state.body.pos_y)
    tick_s = dt
    goal_was = goal
    from_x, from_y = state.body.pos_x, state.body.pos_y
    if tuning.forms.any > 0:
        # What follows a wish in proportion has to follow all of the tick, not its end.
        mean_right = smoothed_mean(state.asked_right, wish.right, tuning.wish_half_life_s, dt)
        mean_ahead = smoothed_mean(state.asked_ahead, wish.ahead, tuning.wish_half_life_s, dt)
        wish = wish_with(wish, wish.grounded, mean_right, mean_ahead)
    body, fall = state.body, state.fall
    if tuning.fall.on > 0:
        fall, vel_z = taken_off(tuning.fall, fall, body.vel_z, wish.jump_began, wish.jump_held)
        body = Body(body.face, body.pos_x, body.pos_y, body.pos_z, body.vel_x, body.vel_y, vel_z)
    state = SteeringState(
        body, state.way, state.up, state.grid, goal, 0.0, state.comfort, state.pointing, fall, 0.0, 0.0
    )
    weighs = tuning.fall.on > 0 or (tuning.radius_m > 0.0 and course[0] + course[1] > 0.0)
    parts = 1
    if tuning.frame != FRAME_GRID and dt > PART_S:
        # A hair more than a whole number of parts is that number.
        parts = min(math.ceil(dt / PART_S - 1e-6), MOST_PARTS)
        dt /= parts
    ramps = wish.turn_from != wish.turn or wish.throttle_from != wish.throttle or wish.rise_from != wish.rise
    for part in range(parts):
        now = wish_at(wish, (part + 0.5) / parts) if ramps else wish
        if weighs:
            state = weighed_part(tuning, course, state, now, dt)
        else:
            state = steering_part(tuning, course, state, now, dt)
    body, way, up, grid, goal, arrived, comfort, pointing, fall, _, _ = state
    if goal_was.there > 0.0:
        full_m = tuning.top_speed_m_s * tick_s
        way = told_way(way, arrived, goal_was.x - from_x, goal_was.y - from_y, tuning.goto.arrival_m, full_m)
    if tuning.comfort.on > 0:
        comfort, body = comforted(tuning.comfort, course, comfort, body, wish.view_yaw, wish.head, tick_s)
    if tuning.arc_m_s > 0.0:
        pointing, body = pointed(tuning, course, pointing, body, wish, comfort.offset_x, comfort.offset_y)
    return SteeringState(body, way, up, grid, goal, arrived, comfort, pointing, fall, wish.right, wish.ahead)
