"""One tick of one mode: presses, axis channels, look, move, steer frame, gait and body, in that order."""

import math
from typing import NamedTuple

from wendonic.kernels.axis_channel import AxisOutput, axis_output
from wendonic.kernels.body.body import Body
from wendonic.kernels.body.comfort import comfort_output
from wendonic.kernels.body.fall import GROUND_UNKNOWN, FallState
from wendonic.kernels.body.gait import GaitTuning
from wendonic.kernels.body.sector import TIE_LATER, RequestedFacing, requested_facing, sectored
from wendonic.kernels.frames.frame import FrameState
from wendonic.kernels.frames.goto import arriving
from wendonic.kernels.frames.hands import FORWARD_HEAD, hands_yaw
from wendonic.kernels.frames.steer import FRAME_DRIVE, FRAME_FLY, FRAME_GOTO, FRAME_GRID, FRAME_HANDS, away_from
from wendonic.kernels.head import has_head, moved_by, out_of_wall, pointed
from wendonic.kernels.hitch import joined, later_sample, sample_share
from wendonic.kernels.look.look import LookSourceState, look_output
from wendonic.kernels.move.joined_keys import without_losers
from wendonic.kernels.move.move import MoveOutput, without_rounding
from wendonic.kernels.move.off_wall import axis_off_wall, lagging, move_off_wall, remembers
from wendonic.kernels.press.press import PressState, press_output
from wendonic.kernels.request import Request, WantedMotion
from wendonic.kernels.row import Row
from wendonic.kernels.sample import Sample
from wendonic.kernels.steer_in_parts import steer
from wendonic.kernels.tick_record import Axes, AxisStates, Memory, Outcome, Tick, View
from wendonic.kernels.tuning import Tuning
from wendonic.kernels.vector import ZERO2, ZERO3, Vec2, Vec3, length3, turned

MOST_PARTS = 1000
"""Most parts that a hitch is cut into, so that a machine that wakes up after a night does not stall."""

UPRIGHT = 1e-9
"""A flight with no larger share on the plan counts as straight up or down, since rounding has no heading."""


class AxisOutputs(NamedTuple):
    """The states of the axis channels, and the output of each."""

    states: AxisStates
    rise: AxisOutput
    throttle: AxisOutput
    turn: AxisOutput


class ViewAfter(NamedTuple):
    """The states of the sources of `look`, the number of the one in use (-1 for none), how far the view turned and
    where it looks afterwards.
    """

    states: tuple[LookSourceState, ...]
    source: float
    turn: View
    view: View


class BodyRequest(NamedTuple):
    """The request to the body: its direction on the plan, its amount (rising included), and its heading (rad), 0 at
    rest.
    """

    move: Vec2
    amount: float
    heading: float


def tick_part(tuning: Tuning, tables: Row, course: Row, last: Tick, sample: Sample, dt: float) -> Tick:
    """Return the tick that comes `dt` seconds after the last one, for a `dt` that is not a hitch."""
    memory = last.memory
    sample = without_lost_keys(tuning, sample)
    grounded = stands_on(tuning.gaits[0], memory.fall, sample.ground.grounded)
    presses: tuple[PressState, ...] = ()
    for k in range(len(tuning.presses)):
        after = press_output(tuning.presses[k], memory.presses[k], sample.presses[k], grounded, dt)
        presses = (*presses, after)
    gait, gait_number = gait_in_use(tuning.gaits, presses)

    wall = sample.wall
    if tuning.walled > 0:
        wall = Vec3(wall.x + memory.wall.x, wall.y + memory.wall.y, wall.z)
    axis_states, rise, throttle, turn = axes_output(tuning, tables, memory, sample, wall, dt)
    look_states, look_source, look, view = view_after(tuning, tables, memory, sample, presses, dt)

    forward_yaw = look_yaw = view.yaw
    if tuning.frame.frame == FRAME_HANDS:
        look_yaw += hands_yaw(FORWARD_HEAD, sample.pointers)
        forward_yaw += hands_yaw(tuning.frame.hands_forward, sample.pointers)
    request = Request(
        0.0,
        0.0,
        ZERO2,
        ZERO2,
        0.0,
        1.0,
        0.0,
        rise.value,
        turn.value,
        throttle.value,
        forward_yaw,
        view.pitch,
        look_yaw,
        sample.ground.grounded,
        sample.ground.normal,
        sample.aim,
        ZERO3,
    )
    if remembers(tuning.move) and tuning.frame.frame != FRAME_GRID and is_wall(wall):
        away = away_from(tuning.frame, wall, forward_yaw, view.pitch, memory.body.face)
        memory = memory._replace(move=move_off_wall(tuning.move, memory.move, sample.move, away))
    off = ZERO2
    if has_head(tuning):
        off = turned(sample.head.x, sample.head.y, memory.view.yaw)
        memory = memory._replace(body=moved_by(memory.body, off.x, off.y))
    move_state, move, after_steering = steer(
        tuning, gait, tables, course, memory, sample, request, (rise, throttle, turn), presses, dt
    )
    body, fall, up, frame, wanted, heading, contact = after_steering
    if has_head(tuning):
        if tuning.walled > 0:
            body, fall = out_of_wall(tuning, course, memory, body, fall)
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

    requested = body_request(tuning, move, wanted, heading)
    sector, facing = memory.sector, memory.requested_facing
    if tuning.sectors > 0:
        sector, facing = sprite_facing(tuning, memory, requested, frame, body)
    after_all = Memory(
        presses,
        axis_states,
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
        source_in_use(tuning, move.source, rise.source, throttle.source, turn.source, look_source),
        Vec2(move.raw_x, move.raw_y),
        Vec2(move.right, move.forward),
        requested.move,
        requested.amount,
        requested.heading,
        Axes(rise.value, throttle.value, turn.value),
        look,
        view,
        presses,
        gait_number,
        stands_on(gait, fall, sample.ground.grounded),
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


def without_lost_keys(tuning: Tuning, sample: Sample) -> Sample:
    """Return the sample without the keys that lose to their opposites in another entry of their channel."""
    if tuning.move.joined > 0:
        sample = sample._replace(move=without_losers(tuning.move.sources, tuning.move.between, sample.move))
    if tuning.rise.joined > 0:
        sample = sample._replace(rise=without_losers(tuning.rise.sources, tuning.rise.between, sample.rise))
    if tuning.throttle.joined > 0:
        raw = without_losers(tuning.throttle.sources, tuning.throttle.between, sample.throttle)
        sample = sample._replace(throttle=raw)
    if tuning.turn.joined > 0:
        sample = sample._replace(turn=without_losers(tuning.turn.sources, tuning.turn.between, sample.turn))
    return sample


def stands_on(gait: GaitTuning, fall: FallState, reported: float) -> float:
    """Return whether the body stands on the ground: as the game reports it, otherwise whether it is not in the air.

    >>> from wendonic.kernels.body.fall import STANDING
    >>> from wendonic.kernels.body.gait import PLAIN_GAIT
    >>> stands_on(PLAIN_GAIT, STANDING, GROUND_UNKNOWN), stands_on(PLAIN_GAIT, STANDING, 0.0)
    (1.0, 0.0)
    """
    stands = 1.0
    if gait.fall.falls > 0:
        stands = 1.0 - fall.airborne
    if reported < GROUND_UNKNOWN:
        stands = reported
    return stands


def gait_in_use(gaits: tuple[GaitTuning, ...], presses: tuple[PressState, ...]) -> tuple[GaitTuning, float]:
    """Return the gait in use, and its number: if several presses switch gaits, the last one counts.

    >>> from wendonic.kernels.body.gait import PLAIN_GAIT
    >>> from wendonic.kernels.press.press import PRESS_AT_REST
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


def is_wall(normal: Vec3) -> bool:
    """Return whether there is a wall: its normal is not (0, 0, 0).

    >>> is_wall(ZERO3), is_wall(Vec3(0.0, -1.0, 0.0))
    (False, True)
    """
    return normal.x != 0.0 or normal.y != 0.0 or normal.z != 0.0


def axes_output(tuning: Tuning, tables: Row, memory: Memory, sample: Sample, wall: Vec3, dt: float) -> AxisOutputs:
    """Return the outputs of the axis channels; a ramp that continues into a wall without being held is dropped."""
    rise_states, throttle_states = memory.axes.rise, memory.axes.throttle
    if lagging(tuning.rise.sources) and is_wall(wall):
        rise_states = axis_off_wall(tuning.rise.sources, rise_states, sample.rise, wall.z)
    if lagging(tuning.throttle.sources) and is_wall(wall):
        ahead = wall.x * math.sin(memory.body.face) + wall.y * math.cos(memory.body.face)
        throttle_states = axis_off_wall(tuning.throttle.sources, throttle_states, sample.throttle, ahead)
    rise_states, rise = axis_output(tuning.rise, tables, rise_states, sample.rise, dt)
    throttle_states, throttle = axis_output(tuning.throttle, tables, throttle_states, sample.throttle, dt)
    turn_states, turn = axis_output(tuning.turn, tables, memory.axes.turn, sample.turn, dt)
    return AxisOutputs(AxisStates(rise_states, throttle_states, turn_states), rise, throttle, turn)


def view_after(
    tuning: Tuning, tables: Row, memory: Memory, sample: Sample, presses: tuple[PressState, ...], dt: float
) -> ViewAfter:
    """Return the result of looking; if nothing looks, the view is that of the game.

    >>> from wendonic.kernels.sample import EMPTY_SAMPLE
    >>> from wendonic.kernels.tick_record import tick_at_rest
    >>> from wendonic.kernels.tuning import PLAIN_TUNING
    >>> given = EMPTY_SAMPLE._replace(view=EMPTY_SAMPLE.view._replace(given=1.0, yaw=0.5))
    >>> view_after(PLAIN_TUNING, (), tick_at_rest(PLAIN_TUNING).memory, given, (), 0.01).view
    View(yaw=0.5, pitch=0.0)
    """
    if len(tuning.look.sources) == 0:
        return ViewAfter(memory.look, -1.0, View(0.0, 0.0), View(sample.view.yaw, sample.view.pitch))
    view = View(sample.view.yaw, sample.view.pitch)
    if sample.view.given <= 0.0:
        view = memory.view
    states, output = look_output(tuning.look, tables, memory.look, view.yaw, view.pitch, sample.look, presses, dt)
    turn = View(output.look_yaw, output.look_pitch)
    return ViewAfter(states, output.source, turn, View(output.view_yaw, output.view_pitch))


def body_request(tuning: Tuning, move: MoveOutput, wanted: WantedMotion, heading: float) -> BodyRequest:
    """Return the player's whole request: by `move` alone, or by all channels if the frame combines them.

    >>> from wendonic.kernels.move.move import NO_MOVE_OUTPUT
    >>> from wendonic.kernels.request import level_motion
    >>> from wendonic.kernels.tuning import PLAIN_TUNING
    >>> body_request(PLAIN_TUNING, NO_MOVE_OUTPUT._replace(amount=0.5), level_motion(0.5, 0.0), math.pi / 2.0)
    BodyRequest(move=Vec2(x=0.5, y=0.0), amount=0.5, heading=1.5707963267948966)
    """
    move_x, move_y = wanted.move_x, wanted.move_y
    amount = move.amount
    if tuning.turning > 0 or tuning.frame.frame == FRAME_GRID:
        amount = math.sqrt(move_x * move_x + move_y * move_y)
        # In a frame that caps, only rounding can lead here.
        if tuning.frame.frame in (FRAME_DRIVE, FRAME_GRID):
            amount = min(amount, 1.0)
        else:
            amount = without_rounding(tuning.move, amount)
        heading = math.atan2(move_x, move_y) if amount > 0.0 else 0.0
    if tuning.frame.frame == FRAME_FLY:
        # Straight up or down there is an amount but no heading.
        amount = length3(wanted.direction)
        if math.sqrt(move_x * move_x + move_y * move_y) < UPRIGHT * amount:
            move_x = move_y = heading = 0.0
        amount = 1.0 if 1.0 < amount < 1.0 + 1e-9 else amount
    return BodyRequest(Vec2(move_x, move_y), amount, heading)


def sprite_facing(
    tuning: Tuning, memory: Memory, requested: BodyRequest, frame: FrameState, body: Body
) -> tuple[float, RequestedFacing]:
    """Return the facing of a sprite, and what settles a tie between two facings.

    >>> from wendonic.kernels.body.body import BODY_AT_REST
    >>> from wendonic.kernels.frames.frame import FRAME_AT_REST
    >>> from wendonic.kernels.tick_record import tick_at_rest
    >>> from wendonic.kernels.tuning import PLAIN_TUNING
    >>> memory, still = tick_at_rest(PLAIN_TUNING).memory, BodyRequest(ZERO2, 0.0, 0.0)
    >>> right = BODY_AT_REST._replace(face=math.radians(80.0))
    >>> sprite_facing(PLAIN_TUNING._replace(sectors=4), memory, still, FRAME_AT_REST, right)[0]
    1.0
    """
    facing = memory.requested_facing
    # On squares without diagonals, no heading is between two facings.
    ties = tuning.frame.frame != FRAME_GRID or tuning.frame.grid.diagonals > 0
    if tuning.sectors == 4 and tuning.sector_tie == TIE_LATER and ties:
        facing = requested_facing(facing, requested.heading, requested.amount)
    face = frame.towards if tuning.sector_by_heading > 0 else body.face
    margin, tie = tuning.sector_margin, tuning.sector_tie
    return sectored(face, facing.later, memory.sector, tuning.sectors, margin, tie), facing


def source_in_use(tuning: Tuning, move: float, rise: float, throttle: float, turn: float, look: float) -> float:
    """Return the number of the source in use, see `Outcome`, from those that the channels use (-1 for none).

    If several are in use, the one that steers counts, then the one that looks, then the other channels.

    >>> from wendonic.kernels.tuning import PLAIN_TUNING
    >>> source_in_use(PLAIN_TUNING, -1.0, -1.0, -1.0, -1.0, -1.0)
    -1.0
    """
    rise_base = len(tuning.move.sources)
    throttle_base = rise_base + len(tuning.rise.sources)
    turn_base = throttle_base + len(tuning.throttle.sources)
    look_base = turn_base + len(tuning.turn.sources)
    source = move
    if source < 0.0 and look >= 0.0:
        source = look + look_base
    if source < 0.0 and throttle >= 0.0:
        source = throttle + throttle_base
    if source < 0.0 and turn >= 0.0:
        source = turn + turn_base
    if source < 0.0 and rise >= 0.0:
        source = rise + rise_base
    return source


def tick(tuning: Tuning, tables: Row, course: Row, last: Tick, sample: Sample, dt: float) -> Tick:
    """Return the tick that comes `dt` seconds (above 0) after the last one.

    `tables` holds measured rims and curves through points, `course` the ground; `sample` holds for the whole tick. A
    hitch (`dt` above `max_dt_s`) is cut into equal parts, MOST_PARTS at most: presses, ramps, turning and falling are
    cut alike. Each part has its share of displacements; edges, goals and given views belong to the first.

    >>> from wendonic.kernels.sample import EMPTY_SAMPLE
    >>> from wendonic.kernels.tick_record import tick_at_rest
    >>> from wendonic.kernels.tuning import PLAIN_TUNING
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
    """Return a tick of no length after the last one, in which nothing turned, began, ended or arrived."""
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
