"""One square a step: what the steer frame `grid` carries, and when the next step begins."""

import math
from typing import NamedTuple

from wendonic.kernels.row import Row
from wendonic.kernels.source.opposites import OPPOSITES_LATEST
from wendonic.kernels.vector import Vec2

HELD = 0.5
"""An axis from here on holds a direction."""

HAIR_S = 1e-9
"""What is shorter by no more than this ends with the tick: ticks that add up to a step end on its square."""

MOST_STEPS = 1000
"""Steps that one tick takes at most, so that a machine back from a night's sleep does not stall."""


class GridTuning(NamedTuple):
    """Squares of `square_m`, the middle of (0, 0) at `middle` (m); a step takes `step_s`. While a direction is held
    the next step begins `delay_s` after it was pressed, and then every `repeat_s`, but never before the last one
    ended.

    `diagonals` is 1 where diagonal steps are allowed; else `choice` (a rule for opposite keys) says which of two held
    directions wins. `eased` is 1 where a step begins and ends slowly.
    """

    square_m: float
    step_s: float
    repeats: int
    delay_s: float
    repeat_s: float
    diagonals: int
    choice: int
    eased: int
    middle: Vec2


NO_GRID = GridTuning(1.0, 0.2, 1, 0.0, 0.0, 0, OPPOSITES_LATEST, 0, Vec2(0.0, 0.0))


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
    """Which directions are held (-1, 0, 1 an axis), and which axis was pressed later: 0 across, 1 along."""

    x: float
    y: float
    newer: float


class GridState(NamedTuple):
    """What steps carry from tick to tick.

    `requested` is 1 while a press waits for the end of a step, `requested_x` and `requested_y` what it asks for;
    `wait_s` is how long until a direction that stays held counts again; `refused` is 1 while a blocked
    square is requested, which is `refused_x` and `refused_y` away.
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


GRID_AT_REST = GridState(
    GridStep(0.0, 0.0, 0.0, 0.0, 0.0), GridHeld(0.0, 0.0, 0.0), 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0
)


def held_direction(amount: float) -> float:
    """Return the direction in which an axis is held: -1, 0 or 1.

    >>> held_direction(0.71), held_direction(-0.4)
    (1.0, 0.0)
    """
    if amount >= HELD:
        return 1.0
    return -1.0 if amount <= -HELD else 0.0


def is_blocked(course: Row, x: float, y: float) -> bool:
    """Return whether a square is among the blocked ones of a course: a count, then x and y of each.

    >>> course = (0.0, 0.0, 3.0, 1.0, 5.0, -2.0)
    >>> is_blocked(course, 5.0, -2.0), is_blocked(course, 0.0, 0.0)
    (True, False)
    """
    start = int(course[2])
    found = False
    for k in range(start + 1, start + 1 + 2 * int(course[start]), 2):
        found = found or (course[k] == x and course[k + 1] == y)
    return found


def may_step(course: Row, x: float, y: float, step_x: float, step_y: float) -> bool:
    """Return whether the step is free: its square is, and of a diagonal one both squares that it squeezes between.

    >>> course = (0.0, 0.0, 3.0, 1.0, 0.0, 1.0)
    >>> [may_step(course, 0.0, 0.0, *step) for step in ((1.0, 0.0), (0.0, 1.0), (1.0, 1.0), (1.0, -1.0))]
    [True, False, False, True]
    """
    if is_blocked(course, x + step_x, y + step_y):
        return False
    if step_x == 0.0 or step_y == 0.0:
        return True
    return not (is_blocked(course, x + step_x, y) or is_blocked(course, x, y + step_y))


def grid_direction(tuning: GridTuning, held: GridHeld) -> Vec2:
    """Return the one direction that is requested: of two held ones without diagonals, the later or the earlier one.

    >>> corner = GridHeld(1.0, -1.0, newer=1.0)
    >>> grid_direction(NO_GRID, corner), grid_direction(NO_GRID._replace(diagonals=1), corner)
    (Vec2(x=0.0, y=-1.0), Vec2(x=1.0, y=-1.0))
    """
    if held.x == 0.0 or held.y == 0.0 or tuning.diagonals > 0:
        return Vec2(held.x, held.y)
    across = held.newer == 0.0 if tuning.choice == OPPOSITES_LATEST else held.newer > 0.0
    return Vec2(held.x, 0.0) if across else Vec2(0.0, held.y)


def grid_held(tuning: GridTuning, state: GridState, right: float, forward: float) -> GridState:
    """Return the state with what is held now; a direction that is newly requested is pressed, and asks for a step.

    >>> pressed = grid_held(NO_GRID, GRID_AT_REST, 1.0, 0.0)
    >>> pressed.requested, pressed.requested_x, pressed.held.x
    (1.0, 1.0, 1.0)
    """
    step, was, requested, requested_x, requested_y, wait_s, refused, refused_x, refused_y = state
    x = held_direction(right)
    y = held_direction(forward)
    if x == was.x and y == was.y:
        return state
    new_x = x not in (0.0, was.x)
    new_y = y not in (0.0, was.y)
    newer = was.newer
    if new_x and new_y:
        newer = 0.0 if abs(right) > abs(forward) else 1.0
    elif new_x or new_y:
        newer = 0.0 if new_x else 1.0
    held = GridHeld(x, y, newer)
    before = grid_direction(tuning, was)
    want_x, want_y = grid_direction(tuning, held)
    if want_x != before.x or want_y != before.y:
        refused = 0.0
        if new_x or new_y:
            requested, requested_x, requested_y = 1.0, want_x, want_y
    return GridState(step, held, requested, requested_x, requested_y, wait_s, refused, refused_x, refused_y)


def grid_stepped(tuning: GridTuning, course: Row, state: GridState, dt: float) -> GridState:
    """Return the state after `dt` seconds of what is held.

    Steps and waits end and begin within the tick, at their own times: twenty squares take as long at every tick rate.
    A diagonal step takes sqrt(2) times as long, so it is no faster. A blocked square refuses the step; a direction
    that stays held asks again after `repeat_s`, or a step's time.

    >>> walking = grid_held(NO_GRID, GRID_AT_REST, 0.0, 1.0)
    >>> step = grid_stepped(NO_GRID, (0.0, 0.0, 3.0, 0.0), walking, 0.5).step
    >>> step.y, step.to_y, round(step.share, 9)
    (2.0, 3.0, 0.5)
    """
    (x, y, to_x, to_y, share), held, requested, requested_x, requested_y, wait_s, refused, refused_x, refused_y = (
        state
    )
    want_x, want_y = grid_direction(tuning, held)
    held_on = tuning.repeats > 0 and (want_x != 0.0 or want_y != 0.0)
    left_s = dt
    for _ in range(2 * MOST_STEPS):
        if x != to_x or y != to_y:
            step_s = tuning.step_s * (math.sqrt(2.0) if x != to_x and y != to_y else 1.0)
            rest_s = (1.0 - share) * step_s
            if rest_s > left_s + HAIR_S:
                share += left_s / step_s
                wait_s = max(wait_s - left_s, 0.0)
                break
            left_s = max(left_s - rest_s, 0.0)
            wait_s = max(wait_s - rest_s, 0.0)
            x, y, share = to_x, to_y, 0.0
        step_x, step_y = want_x, want_y
        next_wait_s = tuning.repeat_s
        if requested > 0.0:
            step_x, step_y = requested_x, requested_y
            next_wait_s = tuning.delay_s
        elif not held_on or wait_s > left_s + HAIR_S:
            wait_s = max(wait_s - left_s, 0.0)
            break
        else:
            left_s = max(left_s - wait_s, 0.0)
        requested = 0.0
        if may_step(course, x, y, step_x, step_y):
            to_x, to_y = x + step_x, y + step_y
            wait_s, refused = next_wait_s, 0.0
        else:
            wait_s = max(tuning.repeat_s, tuning.step_s)
            refused, refused_x, refused_y = 1.0, step_x, step_y
        if left_s <= 0.0:
            break
    step = GridStep(x, y, to_x, to_y, share)
    return GridState(step, held, requested, requested_x, requested_y, wait_s, refused, refused_x, refused_y)


class StepProgress(NamedTuple):
    """How much of a step is done (0..1), and how fast it goes there (1: evenly)."""

    done: float
    rate: float


def step_progress(share: float, eased: int) -> StepProgress:
    """Return how much of a step is done at a share (0..1) of its time.

    Eased is 3 u² - 2 u³, which begins and ends at rest; its rate is 6 u (1 - u).

    >>> step_progress(0.25, 0), step_progress(0.25, 1)
    (StepProgress(done=0.25, rate=1.0), StepProgress(done=0.15625, rate=1.125))
    """
    if eased > 0:
        return StepProgress(share * share * (3.0 - 2.0 * share), 6.0 * share * (1.0 - share))
    return StepProgress(share, 1.0)
