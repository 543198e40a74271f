"""Steps of one square: the state of the steer frame `grid`, and when the next step begins."""

import math
from typing import NamedTuple

from wendonic.kernels.body.ground import HEADER_NUMBERS, PIECE_NUMBERS, WALL_NUMBERS
from wendonic.kernels.frames.blocked import is_blocked
from wendonic.kernels.row import Row
from wendonic.kernels.source.opposites import OPPOSITES_LATEST
from wendonic.kernels.vector import Vec2

TIE = 1e-9
"""Two axes that differ by no more than this share of their length count as equal, like two keys."""

HAIR_S = 1e-9
"""A step that would end within this time after the tick ends with it, so that ticks that add up to a step end on its
square.
"""

MOST_STEPS = 1000
"""Most steps in one tick, so that a machine that wakes up after a night does not stall."""


class GridTuning(NamedTuple):
    """Squares of `square_m`, the middle of (0, 0) at `middle` (m); a step takes `step_s`. While a direction is held,
    the next step begins `delay_s` after the press, and then every `repeat_s`, but never before the last one has
    ended.

    A direction is held from an amount of `above` on, until it is below `release`. It is the nearest of four, or of
    eight if `diagonals` is 1, and changes to its neighbour only `margin` (rad) beyond the border between them. With
    two keys and no diagonals, `choice` (a rule for opposite keys) says which wins. If `turns_first` is 1, the body
    first turns to a direction that it does not face, and steps once that has been held for `turn_first_s`. `eased` is
    1 if a step begins and ends slowly.
    """

    square_m: float
    step_s: float
    repeats: int
    delay_s: float
    repeat_s: float
    above: float
    release: float
    margin: float
    diagonals: int
    choice: int
    turns_first: int
    turn_first_s: float
    eased: int
    middle: Vec2


NO_GRID = GridTuning(1.0, 0.2, 1, 0.0, 0.0, 0.5, 0.4, 0.1, 0, OPPOSITES_LATEST, 0, 0.0, 0, Vec2(0.0, 0.0))


class GridStep(NamedTuple):
    """The square the body stands on, the one it steps to (the same while idle), and the share of the step's time
    (0..1).
    """

    x: float
    y: float
    to_x: float
    to_y: float
    share: float


class GridHeld(NamedTuple):
    """The held directions (-1, 0 or 1 per axis; both for two keys, or a diagonal), and the axis that was pressed
    later: 0 across, 1 along.
    """

    x: float
    y: float
    newer: float


class GridState(NamedTuple):
    """What steps carry from tick to tick.

    `requested` is 1 while a press waits for the end of a step, with its direction in `requested_x` and `requested_y`;
    `wait_s` is the time until a held direction counts again; `refused` is 1 while a blocked square, `refused_x` and
    `refused_y` away, is requested. `face_x` and `face_y` are the direction that the body last turned to, 0 for none;
    `turning` is 1 while it turns there without a step. `began` and `ended` are 1 in the tick in which a step begins
    or ends.
    """

    step: GridStep
    held: GridHeld
    requested: float
    requested_x: float
    requested_y: float
    wait_s: float
    refused: float
    refused_x: float
    refused_y: float
    face_x: float
    face_y: float
    turning: float
    began: float
    ended: float


GRID_AT_REST = GridState(
    GridStep(0.0, 0.0, 0.0, 0.0, 0.0),
    GridHeld(0.0, 0.0, 0.0),
    0.0,
    0.0,
    0.0,
    0.0,
    0.0,
    0.0,
    0.0,
    0.0,
    0.0,
    0.0,
    0.0,
    0.0,
)


def held_directions(tuning: GridTuning, was: GridHeld, right: float, forward: float) -> Vec2:
    """Return the held directions: -1, 0 or 1 per axis.

    The larger axis wins. Two equal axes mean two keys, and both are held; with `diagonals` both are held within 22.5
    degrees of a diagonal. A direction that is held already stays up to `margin` beyond its border.

    >>> none = GRID_AT_REST.held
    >>> held_directions(NO_GRID, none, 0.77, -0.64), held_directions(NO_GRID, none, 0.7, 0.7)
    (Vec2(x=1.0, y=0.0), Vec2(x=1.0, y=1.0))
    >>> held_directions(NO_GRID, GridHeld(0.0, 1.0, 1.0), 0.71, 0.70)
    Vec2(x=0.0, y=1.0)
    """
    length = math.hypot(right, forward)
    limit = tuning.above if was.x == 0.0 and was.y == 0.0 else tuning.release
    if length < limit or length == 0.0:
        return Vec2(0.0, 0.0)
    x = math.copysign(1.0, right)
    y = math.copysign(1.0, forward)
    if math.fabs(math.fabs(right) - math.fabs(forward)) <= TIE * length:
        return Vec2(x, y)
    # Angle beyond the diagonal, towards the axis across.
    off = math.atan2(math.fabs(right), math.fabs(forward)) - math.pi / 4.0
    if tuning.diagonals > 0:
        border = math.pi / 8.0
        if was.x == x and was.y == y:
            border += tuning.margin
        elif (was.x == x and was.y == 0.0 and off > 0.0) or (was.y == y and was.x == 0.0 and off < 0.0):
            border -= tuning.margin
        if math.fabs(off) <= border:
            return Vec2(x, y)
        return Vec2(x, 0.0) if off > 0.0 else Vec2(0.0, y)
    if was.x == x and was.y == 0.0:
        off += tuning.margin
    elif was.y == y and was.x == 0.0:
        off -= tuning.margin
    return Vec2(x, 0.0) if off > 0.0 else Vec2(0.0, y)


def wall_between(course: Row, from_x: float, from_y: float, to_x: float, to_y: float, z: float) -> bool:
    """Return whether a wall of a course blocks the straight path between two places along an axis (m), for feet at a
    height.

    >>> course = (0.0, 1.0, 8.0, -1.0, 0.9, 1.0, 1.1, 2.0, 0.0)
    >>> wall_between(course, 0.0, 0.0, 0.0, 2.0, 0.0), wall_between(course, 0.0, 0.0, 0.0, 2.0, 3.0)
    (True, False)
    """
    first = HEADER_NUMBERS + PIECE_NUMBERS * int(course[0])
    found = False
    for wall in range(int(course[1])):
        k = first + WALL_NUMBERS * wall
        across = min(from_x, to_x) < course[k + 2] and max(from_x, to_x) > course[k]
        along = min(from_y, to_y) < course[k + 3] and max(from_y, to_y) > course[k + 1]
        found = found or (across and along and z < course[k + 4])
    return found


def is_free(tuning: GridTuning, course: Row, x: float, y: float, to_x: float, to_y: float, z: float) -> bool:
    """Return whether a square beside another one may be entered: it is not blocked, and no wall is between.

    >>> is_free(NO_GRID, (0.0, 1.0, 8.0, -1.0, 0.4, 1.0, 0.6, 2.0, 0.0), 0.0, 0.0, 0.0, 1.0, 0.0)
    False
    """
    if is_blocked(course, to_x, to_y):
        return False
    middle, wide = tuning.middle, tuning.square_m
    from_x, from_y = middle.x + wide * x, middle.y + wide * y
    return not wall_between(course, from_x, from_y, middle.x + wide * to_x, middle.y + wide * to_y, z)


def may_step(tuning: GridTuning, course: Row, x: float, y: float, step_x: float, step_y: float, z: float) -> bool:
    """Return whether a step is free: its square is, and for a diagonal step the two squares beside it as well.

    >>> from wendonic.kernels.frames.blocked import blocked_table
    >>> course = (0.0, 0.0, 3.0, *blocked_table([(0.0, 1.0)]))
    >>> steps = ((1.0, 0.0), (0.0, 1.0), (1.0, 1.0), (1.0, -1.0))
    >>> [may_step(NO_GRID._replace(diagonals=1), course, 0.0, 0.0, *step, 0.0) for step in steps]
    [True, False, False, True]
    """
    to_x = x + step_x
    to_y = y + step_y
    if tuning.diagonals <= 0 or step_x == 0.0 or step_y == 0.0:
        return is_free(tuning, course, x, y, to_x, to_y, z)
    around = is_free(tuning, course, x, y, to_x, y, z) and is_free(tuning, course, x, y, x, to_y, z)
    return (
        around and is_free(tuning, course, to_x, y, to_x, to_y, z) and is_free(tuning, course, x, to_y, to_x, to_y, z)
    )


def grid_direction(tuning: GridTuning, held: GridHeld) -> Vec2:
    """Return the requested direction: of two held ones without diagonals, the later or the earlier one.

    >>> corner = GridHeld(1.0, -1.0, newer=1.0)
    >>> grid_direction(NO_GRID, corner), grid_direction(NO_GRID._replace(diagonals=1), corner)
    (Vec2(x=0.0, y=-1.0), Vec2(x=1.0, y=-1.0))
    """
    if held.x == 0.0 or held.y == 0.0 or tuning.diagonals > 0:
        return Vec2(held.x, held.y)
    across = held.newer == 0.0 if tuning.choice == OPPOSITES_LATEST else held.newer > 0.0
    return Vec2(held.x, 0.0) if across else Vec2(0.0, held.y)


def faces(state: GridState, face: float, x: float, y: float) -> bool:
    """Return whether a body faces a direction: the one that it last turned to, otherwise its heading (rad).

    >>> faces(GRID_AT_REST, 0.0, 0.0, 1.0), faces(GRID_AT_REST._replace(face_x=1.0), 0.0, 0.0, 1.0)
    (True, False)
    """
    if state.face_x != 0.0 or state.face_y != 0.0:
        return state.face_x == x and state.face_y == y
    return math.cos(face - math.atan2(x, y)) > math.cos(math.pi / 8.0)


def grid_held(tuning: GridTuning, state: GridState, face: float, right: float, forward: float) -> GridState:
    """Return the state with the directions that are held now; a newly requested direction counts as a press, which
    requests a step, or a turn if the body faces (rad) another way.

    >>> pressed = grid_held(NO_GRID, GRID_AT_REST, 0.0, 1.0, 0.0)
    >>> pressed.requested, pressed.requested_x, pressed.held.x
    (1.0, 1.0, 1.0)
    """
    was = state.held
    x, y = held_directions(tuning, was, right, forward)
    if x == was.x and y == was.y:
        return state
    new_x = x not in (0.0, was.x)
    new_y = y not in (0.0, was.y)
    newer = was.newer
    if new_x and new_y:
        newer = 0.0 if math.fabs(right) > math.fabs(forward) * (1.0 + TIE) else 1.0
    elif new_x or new_y:
        newer = 0.0 if new_x else 1.0
    held = GridHeld(x, y, newer)
    before = grid_direction(tuning, was)
    want_x, want_y = grid_direction(tuning, held)
    after = state._replace(held=held)
    if tuning.diagonals > 0 or want_x != before.x or want_y != before.y:
        after = after._replace(refused=0.0, turning=0.0)
        if new_x or new_y:
            if tuning.turns_first > 0 and not faces(state, face, want_x, want_y):
                after = after._replace(turning=1.0, wait_s=tuning.turn_first_s, requested=0.0)
            else:
                after = after._replace(requested=1.0, requested_x=want_x, requested_y=want_y)
        if tuning.turns_first > 0 and (want_x != 0.0 or want_y != 0.0):
            after = after._replace(face_x=want_x, face_y=want_y)
    return after


def grid_stepped(tuning: GridTuning, course: Row, state: GridState, step_s: float, z: float, dt: float) -> GridState:
    """Return the state after `dt` seconds with the held directions, for steps that take `step_s` and feet at a
    height.

    Steps and waits end and begin within the tick, at their own times, so that twenty squares take the same time at
    every tick rate. A diagonal step takes sqrt(2) times as long, so it is not faster. A blocked square or a wall
    refuses the step; a held direction requests it again after `repeat_s`, or the time of a step.

    >>> walking = grid_held(NO_GRID, GRID_AT_REST, 0.0, 0.0, 1.0)
    >>> step = grid_stepped(NO_GRID, (0.0, 0.0, 3.0, 0.0), walking, 0.2, 0.0, 0.5).step
    >>> step.y, step.to_y, round(step.share, 9)
    (2.0, 3.0, 0.5)
    """
    x, y, to_x, to_y, share = state.step
    requested, wait_s, refused, turning = state.requested, state.wait_s, state.refused, state.turning
    refused_x, refused_y = state.refused_x, state.refused_y
    began = ended = 0.0
    want_x, want_y = grid_direction(tuning, state.held)
    held_on = tuning.repeats > 0 and (want_x != 0.0 or want_y != 0.0)
    left_s = dt
    for _ in range(2 * MOST_STEPS):
        if x != to_x or y != to_y:
            takes_s = step_s * (math.sqrt(2.0) if x != to_x and y != to_y else 1.0)
            rest_s = (1.0 - share) * takes_s
            if rest_s > left_s + HAIR_S:
                share += left_s / takes_s
                wait_s = max(wait_s - left_s, 0.0)
                break
            left_s = max(left_s - rest_s, 0.0)
            wait_s = max(wait_s - rest_s, 0.0)
            x, y, share = to_x, to_y, 0.0
            ended = 1.0
        step_x, step_y = want_x, want_y
        next_wait_s = tuning.delay_s if turning > 0.0 else tuning.repeat_s
        if requested > 0.0:
            step_x, step_y = state.requested_x, state.requested_y
            next_wait_s = tuning.delay_s
        elif not held_on or wait_s > left_s + HAIR_S:
            wait_s = max(wait_s - left_s, 0.0)
            break
        else:
            left_s = max(left_s - wait_s, 0.0)
        requested = turning = 0.0
        if may_step(tuning, course, x, y, step_x, step_y, z):
            to_x, to_y = x + step_x, y + step_y
            wait_s, refused = next_wait_s, 0.0
            began = 1.0
        else:
            wait_s = max(tuning.repeat_s, step_s)
            refused, refused_x, refused_y = 1.0, step_x, step_y
        if left_s <= 0.0:
            break
    return state._replace(
        step=GridStep(x, y, to_x, to_y, share),
        requested=requested,
        wait_s=wait_s,
        refused=refused,
        refused_x=refused_x,
        refused_y=refused_y,
        turning=turning,
        began=began,
        ended=ended,
    )


class StepProgress(NamedTuple):
    """The progress of a step (0..1), and its rate (1: even)."""

    done: float
    rate: float


def step_progress(share: float, eased: int) -> StepProgress:
    """Return the progress of a step at a share (0..1) of its time.

    Eased is 3 u² - 2 u³, which begins and ends at rest; its rate is 6 u (1 - u).

    >>> step_progress(0.25, 0), step_progress(0.25, 1)
    (StepProgress(done=0.25, rate=1.0), StepProgress(done=0.15625, rate=1.125))
    """
    if eased > 0:
        return StepProgress(share * share * (3.0 - 2.0 * share), 6.0 * share * (1.0 - share))
    return StepProgress(share, 1.0)
