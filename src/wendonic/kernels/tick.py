"""One tick of one mode: presses, axis channels, look, move, steer frame, gait and body, in that order."""

import math
from typing import NamedTuple

from wendonic.kernels.axis_channel import NO_AXIS, AxisOutput, AxisTuning, axis_output, mean_within
from wendonic.kernels.body.body import BODY_AT_REST, Body
from wendonic.kernels.body.comfort import (
    COMFORT_AT_REST,
    NO_COMFORT,
    ComfortState,
    ComfortTuning,
    comfort_output,
    is_inside,
)
from wendonic.kernels.body.facing import face_after, leaves_diagonal
from wendonic.kernels.body.fall import GROUND_UNKNOWN, STANDING, FallState, height_settled, taken_off
from wendonic.kernels.body.gait import PLAIN_GAIT, GaitTuning
from wendonic.kernels.body.ground import height_at
from wendonic.kernels.body.landing import NO_LANDING, NO_POINTING, Pointing, landing
from wendonic.kernels.body.lean import leaned
from wendonic.kernels.body.sector import NONE_REQUESTED, TIE_LATER, RequestedFacing, requested_facing, sectored
from wendonic.kernels.body.slope import WALL_TANGENT
from wendonic.kernels.body.steps import STEP_DOWN_M, StepTuning
from wendonic.kernels.body.walk import normal_under
from wendonic.kernels.body.walls import above_floor, contact_normal, stopped_body
from wendonic.kernels.frames.frame import FRAME_AT_REST, PLAIN_FRAME, FrameState, FrameTuning
from wendonic.kernels.frames.goal import STEERS, GoalInput, goals_after, nearing
from wendonic.kernels.frames.goto import INSIDE, arriving, motion_towards
from wendonic.kernels.frames.hands import FORWARD_HEAD, hands_yaw
from wendonic.kernels.frames.steer import (
    FRAME_CAMERA,
    FRAME_DRIVE,
    FRAME_FLY,
    FRAME_GOTO,
    FRAME_GRID,
    FRAME_HANDS,
    steer_by_frame,
    turns_itself,
)
from wendonic.kernels.look.look import (
    LOOK_DISPLACEMENT,
    LOOK_SOURCE_AT_REST,
    NO_LOOK,
    LookSourceState,
    LookTuning,
    look_output,
)
from wendonic.kernels.move.joined_keys import without_losers
from wendonic.kernels.move.move import (
    MOVE_AT_REST,
    NO_MOVE,
    NO_MOVE_OUTPUT,
    RAMP_PART_S,
    SMOOTHING_HALF_LIFE,
    MoveOutput,
    MoveState,
    MoveTuning,
    any_ramping,
    move_output,
    without_rounding,
)
from wendonic.kernels.move.off_wall import axis_off_wall, lagging, move_off_wall, remembers
from wendonic.kernels.press.press import PRESS_AT_REST, PressInput, PressState, PressTuning, press_output
from wendonic.kernels.request import NO_MOTION, Request, WantedMotion, part_of_request
from wendonic.kernels.row import Row
from wendonic.kernels.sample import Sample, ViewInput
from wendonic.kernels.source.source import SOURCE_AT_REST, SOURCE_SWING, SourceState
from wendonic.kernels.vector import UP, ZERO3, Vec2, Vec3, length3, turned

PART_S = 1.0 / 120.0
"""How long a part of a tick is at most where the direction turns within it: its middle then stands for it."""

MOST_PARTS = 1000
"""Parts that a tick is cut into at most, so that a machine back from a night's sleep does not stall."""

MOST_TANGENT = 2.0
"""Of ground that falls steeper than this, one falls, wherever the limit of slopes may lie."""


UPRIGHT = 1e-9
"""A flight of which no larger share is on the plan goes straight up or down: rounding has no heading."""


class Tuning(NamedTuple):
    """Every number of one mode. What is an `int`, and how many of each thing there are, is its structure.

    `gaits` has the mode's own first, then one for each press that switches gaits: of several that are held, the last
    counts. `jump_press` is the number of the press that jumps, -1 for none. `turning` is 1 where a tick is cut into
    parts because the direction turns within it; `walled` where walls and steps stop the body. `sectors` is 0 for
    none, its margin in rad. `point_press` is the press with which a hand points at a place to teleport to, -1 for
    none, and `arc_m_s` how fast the arc leaves the hand.
    """

    max_dt_s: float
    presses: tuple[PressTuning, ...]
    rise: AxisTuning
    throttle: AxisTuning
    turn: AxisTuning
    look: LookTuning
    move: MoveTuning
    frame: FrameTuning
    gaits: tuple[GaitTuning, ...]
    jump_press: int
    turning: int
    walled: int
    comfort: ComfortTuning
    point_press: int
    arc_m_s: float
    sectors: int
    sector_margin: float
    sector_tie: int
    sector_by_heading: int


PLAIN_TUNING = Tuning(
    0.1,
    (),
    NO_AXIS,
    NO_AXIS,
    NO_AXIS,
    NO_LOOK,
    NO_MOVE,
    PLAIN_FRAME,
    (PLAIN_GAIT,),
    -1,
    0,
    0,
    NO_COMFORT,
    -1,
    0.0,
    0,
    0.0,
    0,
    0,
)
"""A mode that binds nothing, and would walk by the map on level ground."""


class AxisStates(NamedTuple):
    """The states of the sources of each axis channel."""

    rise: tuple[SourceState, ...]
    throttle: tuple[SourceState, ...]
    turn: tuple[SourceState, ...]


class View(NamedTuple):
    """Where the player looks (rad)."""

    yaw: float
    pitch: float


class Memory(NamedTuple):
    """What is carried from tick to tick: the channels' states, the view, the body and what belongs to it, the facing
    of its sprite (-1 for none yet), what settles a tie between two facings, and the normal of the course's wall that
    stopped it, (0, 0) for none.
    """

    presses: tuple[PressState, ...]
    axes: AxisStates
    look: tuple[LookSourceState, ...]
    view: View
    move: MoveState
    body: Body
    fall: FallState
    up: Vec3
    frame: FrameState
    comfort: ComfortState
    pointing: Pointing
    sector: float
    requested_facing: RequestedFacing
    wall: Vec2


class Axes(NamedTuple):
    """The values of the channels of one number each, -1..1."""

    rise: float
    throttle: float
    turn: float


class Outcome(NamedTuple):
    """What a tick reports; every field a float, in the plan frame, angles in radians.

    `source` is the number of the source that is used, counted through `move`, `rise`, `throttle`, `turn` and `look`,
    -1 for none. `heading` is 0 at rest, when `amount` is 0. `look` is how far the view turned. `gait` is the number
    of the gait, `grounded` whether the body stands, `contact` the normal of what stopped it, (0, 0) for nothing. Of
    `memory` is reported what the tick left there, but see `arriving`.
    """

    source: float
    raw: Vec2
    local: Vec2
    move: Vec2
    amount: float
    heading: float
    axes: Axes
    look: View
    view: View
    presses: tuple[PressState, ...]
    gait: float
    grounded: float
    wanted: WantedMotion
    body: Body
    up: Vec3
    frame: FrameState
    comfort: ComfortState
    pointing: Pointing
    sector: float
    contact: Vec2


NOTHING = Vec2(0.0, 0.0)


def tick_at_rest(tuning: Tuning) -> "Tick":
    """Return the tick before the first one: at rest, at the origin, facing and looking along +y."""
    move = MOVE_AT_REST._replace(sources=(SOURCE_AT_REST,) * len(tuning.move.sources))
    axes = [(SOURCE_AT_REST,) * len(channel.sources) for channel in (tuning.rise, tuning.throttle, tuning.turn)]
    memory = Memory(
        (PRESS_AT_REST,) * len(tuning.presses),
        AxisStates(*axes),
        (LOOK_SOURCE_AT_REST,) * len(tuning.look.sources),
        View(0.0, 0.0),
        move,
        BODY_AT_REST,
        STANDING,
        UP,
        FRAME_AT_REST._replace(waiting=(Vec2(0.0, 0.0),) * tuning.frame.goto.waiting),
        COMFORT_AT_REST,
        NO_POINTING,
        -1.0,
        NONE_REQUESTED,
        NOTHING,
    )
    nothing, level = View(0.0, 0.0), Vec2(0.0, 0.0)
    outcome = Outcome(
        -1.0,
        level,
        level,
        level,
        0.0,
        0.0,
        Axes(0.0, 0.0, 0.0),
        nothing,
        nothing,
        memory.presses,
        0.0,
        1.0,
        NO_MOTION,
        memory.body,
        memory.up,
        memory.frame,
        memory.comfort,
        memory.pointing,
        memory.sector,
        NOTHING,
    )
    return Tick(memory, outcome)


class Tick(NamedTuple):
    """One tick: what is carried on from it, and what it reports."""

    memory: Memory
    outcome: Outcome


class Steered(NamedTuple):
    """What steering changes within a tick, the heading (rad) that the body turned to, 0 at rest, and the normal of
    what stopped it, (0, 0) for nothing.
    """

    body: Body
    fall: FallState
    up: Vec3
    frame: FrameState
    wanted: WantedMotion
    heading: float
    contact: Vec2


def has_head(tuning: Tuning) -> bool:
    """Return whether it is a head that is moved, which walls stop and which the ground lies under, and not the middle
    of the play space.

    >>> has_head(PLAIN_TUNING), has_head(PLAIN_TUNING._replace(frame=PLAIN_FRAME._replace(frame=FRAME_HANDS)))
    (False, True)
    """
    frame = tuning.frame.frame
    return (tuning.comfort.used > 0 or frame == FRAME_HANDS) and frame != FRAME_GRID


def steer_part(tuning: Tuning, gait: GaitTuning, course: Row, was: Steered, request: Request, dt: float) -> Steered:
    """Return what a mode's steer frame makes of `dt` seconds, for a `dt` in which the direction turns so little that
    its middle stands for it; stopped by walls and steps, and with the gait's weight.
    """
    frame = tuning.frame.frame
    reported = request.grounded
    if gait.fall.falls > 0 and reported > 0.0 and was.fall.airborne > 0.0:
        request = request._replace(grounded=0.0)
    before = was.body
    heading = 0.0
    if gait.loses > 0:
        request = request._replace(asked=was.frame.asked)
    state, body, wanted = steer_by_frame(tuning.frame, gait, course, was.frame, before, request, dt)
    if gait.loses > 0 and frame != FRAME_DRIVE and length3(wanted.direction) > 0.0:
        state = state._replace(asked=wanted.direction)
    if not turns_itself(frame):
        to_x, to_y = wanted.move_x, wanted.move_y
        if frame == FRAME_GRID and state.grid.refused > 0.0:
            # The body turns to what is in its way.
            to_x, to_y = state.grid.refused_x, state.grid.refused_y
        elif frame == FRAME_GRID and state.grid.turning > 0.0:
            to_x, to_y = state.grid.face_x, state.grid.face_y
        moving = to_x != 0.0 or to_y != 0.0
        heading = math.atan2(to_x, to_y) if moving else 0.0
        turns = moving
        if tuning.frame.face_limited > 0:
            turns = math.sqrt(to_x * to_x + to_y * to_y) >= tuning.frame.face_above
        towards = heading
        if turns and tuning.frame.holds > 0:
            ahead = request.look_yaw if frame == FRAME_CAMERA else 0.0
            towards, against_s = was.frame.towards, was.frame.against_s
            # What fades after the last key keeps the facing that the keys gave.
            if request.fades <= 0.0 or (frame == FRAME_GOTO and state.goal.there > 0.0):
                against_s += dt
                if against_s > tuning.frame.hold_s or not leaves_diagonal(towards - ahead, heading - ahead):
                    towards, against_s = heading, 0.0
            state = state._replace(towards=towards, against_s=against_s)
        elif tuning.frame.holds <= 0 and turns and tuning.sector_by_heading > 0:
            state = state._replace(towards=heading)
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
        body = body._replace(face=face)
    up = was.up
    if tuning.frame.slope.follows > 0:
        normal = normal_under(course, request, body.position.x, body.position.y)
        up = leaned(up, normal, tuning.frame.slope.lean_half_life_s, dt)
    contact = was.contact
    floor = 0.0
    stands = 0.0 if before.position.z > STEP_DOWN_M else 1.0
    if tuning.walled > 0:
        stands = 1.0
        on_ground = request.grounded > 0.0 and (gait.fall.falls > 0 or tuning.frame.slope.follows > 0)
        slope = tuning.frame.slope
        steps = StepTuning(
            1 if gait.fall.falls > 0 or frame == FRAME_FLY else 0,
            slope.step_m,
            slope.step_m,
            slope.steepest_tangent if slope.follows > 0 else WALL_TANGENT,
            min(slope.steepest_tangent, MOST_TANGENT),
        )
        in_air = frame == FRAME_FLY or (gait.fall.falls > 0 and not on_ground)
        if in_air:
            # A side that is too high is a wall there, but for its lip; a jump that still rises has to clear that too.
            rises = was.fall.airborne > 0.0 and before.velocity.z > 0.0
            steps = steps._replace(lip_m=0.0 if rises else STEP_DOWN_M)
            if frame == FRAME_FLY:
                steps = steps._replace(step_m=STEP_DOWN_M)
            stands = 0.0
        free = body
        has_feet = on_ground or in_air
        body, floor, stands = stopped_body(course, gait.radius_m, steps, has_feet, stands, before, free)
        stopped = body.position.x != free.position.x or body.position.y != free.position.y
        if stopped:
            contact = contact_normal(body.position, free.position)
        if frame == FRAME_FLY:
            body = above_floor(floor, body)
        if course[0] > 0.0 and on_ground:
            body = body._replace(position=Vec3(body.position.x, body.position.y, floor))
    fall = was.fall
    if gait.fall.falls > 0:
        fall, body = height_settled(gait.fall, tuning.walled, course, fall, reported, before, body, floor, stands, dt)
    return Steered(body, fall, up, state, wanted, heading, contact)


def parts_of(tuning: Tuning, memory: Memory, sample: Sample, dt: float) -> int:
    """Return into how many equal parts a tick is cut: of at most RAMP_PART_S while a key's ramp has no closed form,
    of at most PART_S where the direction turns, and never more than the longest tick has. Squares keep their own
    time.

    >>> from wendonic.kernels.sample import EMPTY_SAMPLE
    >>> parts_of(PLAIN_TUNING, tick_at_rest(PLAIN_TUNING).memory, EMPTY_SAMPLE, 0.1)
    1
    """
    parts = 1
    if tuning.turning > 0 and dt > PART_S:
        # A hair more than a whole number of parts is that number.
        parts = math.ceil(min(dt, tuning.max_dt_s) / PART_S - 1e-6)
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
    """Return what the channel `move` makes of `dt` seconds, and the request with it."""
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
    """Return what the channel `move` requests, and what steering, gait and body make of it.

    `request` has what stands for all of the tick; ramps of `axes` (rise, throttle, turn) run straight from where they
    began. See `parts_of` for how a tick is cut.
    """
    goal = memory.frame.goal
    body, fall = memory.body, memory.fall
    if gait.fall.falls > 0:
        began = held = 0.0
        if tuning.jump_press >= 0:
            began = presses[tuning.jump_press].began
            held = presses[tuning.jump_press].held
        fall, vel_z = taken_off(gait.fall, fall, body.velocity.z, began, held)
        body = body._replace(velocity=Vec3(body.velocity.x, body.velocity.y, vel_z))
    state = Steered(body, fall, memory.up, memory.frame._replace(arrived=0.0), NO_MOTION, 0.0, NOTHING)
    parts = parts_of(tuning, memory, sample, dt)
    part_s = dt
    if tuning.turning > 0 or tuning.move.cuts_ramps > 0:
        part_s = dt / parts
    channel = tuning.move
    move_state, move = memory.move, NO_MOVE_OUTPUT
    if tuning.move.cuts_ramps <= 0:
        move_state, move, request = requested(channel, tables, move_state, sample.move, request, presses, dt)
    rise, throttle, turn = axes
    bends = 1 if channel.smoothing == SMOOTHING_HALF_LIFE else 0
    for part in range(parts):
        if tuning.move.cuts_ramps > 0:
            move_state, move, request = requested(channel, tables, move_state, sample.move, request, presses, part_s)
        if tuning.frame.frame == FRAME_GOTO and part == 0:
            # What only fades, after a key or a stick was released, does not steer.
            steers = request.fades <= 0.0 and math.hypot(request.right, request.forward) > STEERS
            place = memory.body.position
            was = memory.frame
            reach_m = gait.top_speed_m_s * dt
            goals = goals_after(
                tuning.frame.goto,
                was.goal,
                was.waiting,
                was.waiting_count,
                sample.goal,
                steers,
                place.x,
                place.y,
                reach_m,
            )
            goal = goals.goal
            far_m = math.hypot(goal.x - place.x, goal.y - place.y)
            nearest_m, stuck_s = nearing(was.goal, goal, was.nearest_m, was.stuck_s, far_m, gait.top_speed_m_s, dt)
            frame = state.frame._replace(
                goal=goal,
                waiting=goals.waiting,
                waiting_count=goals.many,
                arrived=goals.arrived,
                nearest_m=nearest_m,
                stuck_s=stuck_s,
            )
            state = state._replace(frame=frame)
        now = request
        if tuning.turning > 0:
            first, last = part / parts, (part + 1.0) / parts
            now = part_of_request(request, bends, first * dt, last * dt, dt)._replace(
                rise=mean_within(rise, first, last),
                throttle=mean_within(throttle, first, last),
                turn=mean_within(turn, first, last),
            )
        state = steer_part(tuning, gait, course, state, now, part_s)
    full_m = gait.top_speed_m_s * dt
    # The shortest of all ticks cover no distance at all.
    if tuning.frame.frame == FRAME_GOTO and goal.there > 0.0 and state.frame.waiting_count <= 0.0 and full_m > 0.0:
        to_x = goal.x - memory.body.position.x
        to_y = goal.y - memory.body.position.y
        left_m = math.hypot(goal.x - state.body.position.x, goal.y - state.body.position.y)
        within_m = math.hypot(to_x, to_y)
        if gait.drags > 0 or gait.coasts > 0:
            # What rolls out requests nothing: a game that moves its body by the request is given how fast it rolls.
            within_m = min(within_m, left_m)
        if left_m <= tuning.frame.goto.arrival_m:
            # Of a hitch the last part is reported, and a game moves its body by that for all of it.
            all_the_way = left_m <= 0.0 or sample.goal.given < 0.0
            within_m = 0.0 if all_the_way else min(within_m, INSIDE * tuning.frame.goto.arrival_m)
        state = state._replace(wanted=motion_towards(state.wanted, within_m, to_x, to_y, full_m))
    return move_state, move, state


def away_from(tuning: FrameTuning, wall: Vec3, forward_yaw: float, pitch: float, face: float) -> Vec2:
    """Return a wall's normal, right and forward, as the channel `move` of a steer frame requests them.

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


def moved_by(body: Body, x: float, y: float) -> Body:
    """Return the body further to the right and forward (m).

    >>> moved_by(BODY_AT_REST, 1.0, -2.0).position
    Vec3(x=1.0, y=-2.0, z=0.0)
    """
    place = body.position
    return body._replace(position=Vec3(place.x + x, place.y + y, place.z))


def pointed(
    tuning: Tuning,
    course: Row,
    was: Pointing,
    body: Body,
    sample: Sample,
    points: float,
    view_yaw: float,
    offset: Vec2,
) -> tuple[Pointing, Body]:
    """Return where a hand that points would land, and the body: once it is released, the head is there, at rest.

    A hand that is lost while it points lands nowhere.
    """
    place, direction = sample.pointing
    seen = direction.x != 0.0 or direction.y != 0.0 or direction.z != 0.0
    if points > 0.0 and seen:
        at = turned(place.x, place.y, view_yaw)
        to = turned(direction.x, direction.y, view_yaw)
        hand = Vec3(body.position.x + at.x, body.position.y + at.y, body.position.z + place.z)
        along = Vec3(to.x, to.y, direction.z)
        found = landing(course, hand, along, tuning.arc_m_s, tuning.frame.slope.steepest_tangent)
        return Pointing(1.0, hand, along, found, 0.0), body
    if points <= 0.0 and was.held > 0.0 and seen and was.landing.there > 0.0:
        there = was.landing.place
        landed = Body(body.face, Vec3(there.x - offset.x, there.y - offset.y, there.z), Vec3(0.0, 0.0, 0.0))
        return Pointing(0.0, was.place, was.direction, NO_LANDING, 1.0), landed
    return NO_POINTING, body


def gait_in_use(gaits: tuple[GaitTuning, ...], presses: tuple[PressState, ...]) -> tuple[GaitTuning, float]:
    """Return the gait that is in use, and its number: of several that presses switch to, the last one.

    >>> run = PLAIN_GAIT._replace(press=0)
    >>> gait_in_use((PLAIN_GAIT, run), (PRESS_AT_REST._replace(held=1.0),))[1]
    1.0
    """
    gait = gaits[0]
    number = 0.0
    for k in range(len(gaits)):
        if k > 0 and presses[gaits[k].press].held > 0.0:
            gait = gaits[k]
            number = k + 0.0
    return gait, number


def tick_part(tuning: Tuning, tables: Row, course: Row, last: Tick, sample: Sample, dt: float) -> Tick:
    """Return the tick that comes `dt` seconds after the last one, for a `dt` that is not a hitch."""
    memory = last.memory
    gait = tuning.gaits[0]
    reported = sample.ground.grounded
    grounded = 1.0
    if gait.fall.falls > 0:
        grounded = 1.0 - memory.fall.airborne
    if reported < GROUND_UNKNOWN:
        grounded = reported

    if tuning.move.joined > 0:
        sample = sample._replace(move=without_losers(tuning.move.sources, tuning.move.between, sample.move))
    if tuning.rise.joined > 0:
        sample = sample._replace(rise=without_losers(tuning.rise.sources, tuning.rise.between, sample.rise))
    if tuning.throttle.joined > 0:
        raw = without_losers(tuning.throttle.sources, tuning.throttle.between, sample.throttle)
        sample = sample._replace(throttle=raw)
    if tuning.turn.joined > 0:
        sample = sample._replace(turn=without_losers(tuning.turn.sources, tuning.turn.between, sample.turn))
    presses: tuple[PressState, ...] = ()
    for k in range(len(tuning.presses)):
        after = press_output(tuning.presses[k], memory.presses[k], sample.presses[k], grounded, dt)
        presses = (*presses, after)
    gait, gait_number = gait_in_use(tuning.gaits, presses)

    wall = sample.wall
    if tuning.walled > 0:
        wall = Vec3(wall.x + memory.wall.x, wall.y + memory.wall.y, wall.z)
    walled = wall.x != 0.0 or wall.y != 0.0 or wall.z != 0.0
    rise_states, throttle_states = memory.axes.rise, memory.axes.throttle
    if lagging(tuning.rise.sources) and walled:
        rise_states = axis_off_wall(tuning.rise.sources, rise_states, sample.rise, wall.z)
    if lagging(tuning.throttle.sources) and walled:
        ahead = wall.x * math.sin(memory.body.face) + wall.y * math.cos(memory.body.face)
        throttle_states = axis_off_wall(tuning.throttle.sources, throttle_states, sample.throttle, ahead)
    rise_states, rise = axis_output(tuning.rise, tables, rise_states, sample.rise, dt)
    throttle_states, throttle = axis_output(tuning.throttle, tables, throttle_states, sample.throttle, dt)
    turn_states, turn = axis_output(tuning.turn, tables, memory.axes.turn, sample.turn, dt)

    look_states = memory.look
    look_source = -1.0
    look = View(0.0, 0.0)
    view = View(sample.view.yaw, sample.view.pitch)
    if len(tuning.look.sources) > 0:
        if sample.view.given <= 0.0:
            view = memory.view
        look_states, looked = look_output(
            tuning.look, tables, look_states, view.yaw, view.pitch, sample.look, presses, dt
        )
        look_source = looked.source
        look = View(looked.look_yaw, looked.look_pitch)
        view = View(looked.view_yaw, looked.view_pitch)

    forward_yaw = look_yaw = view.yaw
    if tuning.frame.frame == FRAME_HANDS:
        look_yaw += hands_yaw(FORWARD_HEAD, sample.pointers)
        forward_yaw += hands_yaw(tuning.frame.hands_forward, sample.pointers)
    request = Request(
        0.0,
        0.0,
        NOTHING,
        NOTHING,
        0.0,
        1.0,
        0.0,
        rise.value,
        turn.value,
        throttle.value,
        forward_yaw,
        view.pitch,
        look_yaw,
        reported,
        sample.ground.normal,
        sample.aim,
        ZERO3,
    )
    if remembers(tuning.move) and tuning.frame.frame != FRAME_GRID and walled:
        away = away_from(tuning.frame, wall, forward_yaw, view.pitch, memory.body.face)
        memory = memory._replace(move=move_off_wall(tuning.move, memory.move, sample.move, away))
    off = NOTHING
    if has_head(tuning):
        off = turned(sample.head.x, sample.head.y, memory.view.yaw)
        memory = memory._replace(body=moved_by(memory.body, off.x, off.y))
    move_state, move, after_steering = steer(
        tuning, gait, tables, course, memory, sample, request, (rise, throttle, turn), presses, dt
    )
    body, fall, up, frame, wanted, heading, contact = after_steering
    if has_head(tuning):
        if tuning.walled > 0:
            was = memory.body.position
            under = height_at(course, was.x, was.y)
            if is_inside(course, tuning.frame.slope.step_m, memory.comfort, was, under):
                # Out of a wall one steps, or is brought.
                body = Body(body.face, was, ZERO3)
                fall = memory.fall
        body = moved_by(body, -off.x, -off.y)

    comfort = memory.comfort
    if tuning.comfort.used > 0:
        comfort, body = comfort_output(
            tuning.comfort, course, tuning.frame.slope.step_m, comfort, body, view.yaw, sample.head, dt
        )
    pointing = memory.pointing
    if tuning.point_press >= 0:
        points = presses[tuning.point_press].held
        offset = turned(sample.head.x, sample.head.y, view.yaw)
        pointing, body = pointed(tuning, course, pointing, body, sample, points, view.yaw, offset)

    move_x, move_y = wanted.move_x, wanted.move_y
    amount = move.amount
    if tuning.turning > 0 or tuning.frame.frame == FRAME_GRID:
        amount = math.sqrt(move_x * move_x + move_y * move_y)
        # Only rounding can bring it here, in every frame that caps.
        if tuning.frame.frame in (FRAME_DRIVE, FRAME_GRID):
            amount = min(amount, 1.0)
        else:
            amount = without_rounding(tuning.move, amount)
        heading = math.atan2(move_x, move_y) if amount > 0.0 else 0.0
    if tuning.frame.frame == FRAME_FLY:
        # Straight up or down there is no heading, but an amount.
        amount = length3(wanted.direction)
        if math.sqrt(move_x * move_x + move_y * move_y) < UPRIGHT * amount:
            move_x = move_y = heading = 0.0
        amount = 1.0 if 1.0 < amount < 1.0 + 1e-9 else amount
    sector, facing = memory.sector, memory.requested_facing
    if tuning.sectors > 0:
        # On squares without diagonals no heading is between two facings.
        ties = tuning.frame.frame != FRAME_GRID or tuning.frame.grid.diagonals > 0
        if tuning.sectors == 4 and tuning.sector_tie == TIE_LATER and ties:
            facing = requested_facing(facing, heading, amount)
        face = frame.towards if tuning.sector_by_heading > 0 else body.face
        sector = sectored(face, facing.later, sector, tuning.sectors, tuning.sector_margin, tuning.sector_tie)
    stands = 1.0
    if gait.fall.falls > 0:
        stands = 1.0 - fall.airborne
    if reported < GROUND_UNKNOWN:
        stands = reported

    rise_base = len(tuning.move.sources)
    throttle_base = rise_base + len(tuning.rise.sources)
    turn_base = throttle_base + len(tuning.throttle.sources)
    look_base = turn_base + len(tuning.turn.sources)
    # While several move, the one that steers counts, then the one that looks, then the other channels.
    source = move.source
    if source < 0.0 and look_source >= 0.0:
        source = look_source + look_base
    if source < 0.0 and throttle.source >= 0.0:
        source = throttle.source + throttle_base
    if source < 0.0 and turn.source >= 0.0:
        source = turn.source + turn_base
    if source < 0.0 and rise.source >= 0.0:
        source = rise.source + rise_base

    states = AxisStates(rise_states, throttle_states, turn_states)
    after_all = Memory(
        presses,
        states,
        look_states,
        view,
        move_state,
        body,
        fall,
        up,
        frame,
        comfort,
        pointing,
        sector,
        facing,
        contact,
    )
    shown = body
    if tuning.frame.frame == FRAME_GOTO:
        shown = arriving(tuning.frame.goto, gait.top_speed_m_s, memory.body.position, body, frame, dt)
    outcome = Outcome(
        source,
        Vec2(move.raw_x, move.raw_y),
        Vec2(move.right, move.forward),
        Vec2(move_x, move_y),
        amount,
        heading,
        Axes(rise.value, throttle.value, turn.value),
        look,
        view,
        presses,
        gait_number,
        stands,
        wanted,
        shown,
        up,
        frame,
        comfort,
        pointing,
        sector,
        contact,
    )
    return Tick(after_all, outcome)


def raw_share(numbers: Row, count: int, share: float) -> Row:
    """Return the first raw numbers of a source, each multiplied by a share.

    >>> raw_share((4.0, -2.0, 8.0), 2, 0.5)
    (2.0, -1.0)
    """
    shared: tuple[float, ...] = ()
    for k in range(len(numbers)):
        if k < count:
            shared = (*shared, numbers[k] * share)
    return shared


def sample_share(tuning: Tuning, sample: Sample, share: float) -> Sample:
    """Return the sample of the first part of a hitch: it has its share of every displacement."""
    look: tuple[Row, ...] = ()
    for k in range(len(tuning.look.sources)):
        numbers = sample.look[k]
        if tuning.look.sources[k].kind == LOOK_DISPLACEMENT:
            numbers = raw_share(numbers, 2, share)
        look = (*look, numbers)
    move: tuple[Row, ...] = ()
    for k in range(len(tuning.move.sources)):
        numbers = sample.move[k]
        if tuning.move.sources[k].kind == SOURCE_SWING:
            left = Vec3(numbers[0] * share, numbers[1] * share, numbers[2] * share)
            right = Vec3(numbers[4] * share, numbers[5] * share, numbers[6] * share)
            numbers = (left.x, left.y, left.z, numbers[3], right.x, right.y, right.z, numbers[7])
        move = (*move, numbers)
    return sample._replace(look=look, move=move)


def later_sample(sample: Sample) -> Sample:
    """Return the sample of a later part of a hitch: what came once has come."""
    presses: tuple[PressInput, ...] = ()
    for k in range(len(sample.presses)):
        presses = (*presses, PressInput(sample.presses[k].down, 0.0, 0.0))
    view = ViewInput(0.0, sample.view.yaw, sample.view.pitch)
    return sample._replace(presses=presses, view=view, goal=GoalInput(-1.0, 0.0, 0.0), wall=ZERO3)


def joined(first: Tick, second: Tick) -> Tick:
    """Return two ticks as one: what happened in the first happened, and the view turned by both."""
    before, after = first.outcome, second.outcome
    presses: tuple[PressState, ...] = ()
    kept: tuple[PressState, ...] = ()
    for k in range(len(after.presses)):
        began = max(before.presses[k].began, after.presses[k].began)
        ended = max(before.presses[k].ended, after.presses[k].ended)
        began_count = before.presses[k].began_count + after.presses[k].began_count
        goes_on = after.presses[k].held > 0.0 or after.presses[k].ended > 0.0
        held_s = after.presses[k].held_s if goes_on else before.presses[k].held_s
        press = after.presses[k]._replace(began=began, ended=ended, held_s=held_s, began_count=began_count)
        presses = (*presses, press)
        kept = (*kept, second.memory.presses[k]._replace(held_s=held_s))
    frame, comfort, pointing = after.frame, after.comfort, after.pointing
    contact = after.contact
    if contact.x == 0.0 and contact.y == 0.0:
        contact = before.contact
    outcome = after._replace(
        contact=contact,
        look=View(before.look.yaw + after.look.yaw, before.look.pitch + after.look.pitch),
        presses=presses,
        frame=frame._replace(
            arrived=max(before.frame.arrived, frame.arrived),
            grid=frame.grid._replace(
                began=max(before.frame.grid.began, frame.grid.began),
                ended=max(before.frame.grid.ended, frame.grid.ended),
            ),
        ),
        comfort=comfort._replace(returned=max(before.comfort.returned, comfort.returned)),
        pointing=pointing._replace(teleported=max(before.pointing.teleported, pointing.teleported)),
    )
    return Tick(second.memory._replace(presses=kept, wall=contact), outcome)


def tick(tuning: Tuning, tables: Row, course: Row, last: Tick, sample: Sample, dt: float) -> Tick:
    """Return the tick that comes `dt` seconds (above 0) after the last one.

    `tables` holds measured rims and curves through points, `course` the ground; `sample` stands for the whole tick. A
    hitch (`dt` above `max_dt_s`) is cut into equal parts, MOST_PARTS at most: presses, ramps, turning and falling are
    cut alike. Each part has its share of displacements; edges, goals and given views come with the first.

    >>> from wendonic.kernels.sample import EMPTY_SAMPLE
    >>> at_rest = tick_at_rest(PLAIN_TUNING)
    >>> tick(PLAIN_TUNING, (), (), at_rest, EMPTY_SAMPLE, 0.5).outcome.amount
    0.0
    """
    parts = 1
    if dt > tuning.max_dt_s:
        parts = min(math.ceil(dt / tuning.max_dt_s), MOST_PARTS)
        dt /= parts
        sample = sample_share(tuning, sample, 1.0 / parts)
    now = tick_part(tuning, tables, course, last, sample, dt)
    if parts > 1:
        sample = later_sample(sample)
        for _ in range(parts - 1):
            now = joined(now, tick_part(tuning, tables, course, now, sample, dt))
    return now


def standing(last: Tick) -> Tick:
    """Return a tick of no length after the last one: nothing turned, nothing began, ended or arrived."""
    outcome = last.outcome
    presses: tuple[PressState, ...] = ()
    for k in range(len(outcome.presses)):
        presses = (*presses, outcome.presses[k]._replace(began=0.0, ended=0.0, began_count=0.0))
    reported = outcome._replace(
        look=View(0.0, 0.0),
        presses=presses,
        frame=outcome.frame._replace(arrived=0.0, grid=outcome.frame.grid._replace(began=0.0, ended=0.0)),
        comfort=outcome.comfort._replace(returned=0.0),
        pointing=outcome.pointing._replace(teleported=0.0),
    )
    return Tick(last.memory, reported)
