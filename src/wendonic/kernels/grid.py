"""The steer frame `grid`: one square a step."""

import math
from typing import NamedTuple

from wendonic.kernels.kernel import Row, called_kernel, kernel
from wendonic.kernels.opposites import OPPOSITES_LATEST

HELD = 0.5
"""An axis from here on holds a direction."""

HAIR_S = 1e-9
"""What is shorter by no more than this ends with the tick: ticks that add up to a step end on its square."""

MOST_STEPS = 1000
"""Steps that one tick takes at most, so that a machine back from a night's sleep does not stall."""


class GridTuning(NamedTuple):
    """Squares of `square_m`, a step of `step_s`; while a direction is held the next step begins `delay_s` after it
    was pressed, and then every `repeat_s`, but never before the last one ended.

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


NO_GRID = GridTuning(1.0, 0.2, 1, 0.0, 0.0, 0, OPPOSITES_LATEST, 0)


class GridStep(NamedTuple):
    """The square he stands on, the one he steps to (the same while idle), and the share of the step's time (0..1)."""

    x: float
    y: float
    to_x: float
    to_y: float
    share: float


class GridHeld(NamedTuple):
    """Which ways are held (-1, 0, 1 an axis), and which axis was pressed later: 0 across, 1 along."""

    x: float
    y: float
    newer: float


class GridState(NamedTuple):
    """What steps carry from tick to tick.

    `asked` is 1 while a press waits for the end of a step, `asked_x` and `asked_y` what it asks for; `wait_s` is how
    long until a way that stays held counts again; `refused` is 1 while a blocked square is wished for, which lies
    `refused_x` and `refused_y` away.
    """

    step: GridStep
    held: GridHeld
    asked: float
    asked_x: float
    asked_y: float
    wait_s: float
    refused: float
    refused_x: float
    refused_y: float


GRID_AT_REST = GridState(
    GridStep(0.0, 0.0, 0.0, 0.0, 0.0), GridHeld(0.0, 0.0, 0.0), 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0
)


@kernel
def held_way(amount: float) -> float:
    """Return which way an axis is held: -1, 0 or 1.

    >>> held_way(0.71), held_way(-0.4)
    (1.0, 0.0)
    """
    if amount >= HELD:
        return 1.0
    return -1.0 if amount <= -HELD else 0.0


@called_kernel
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


@called_kernel
def may_step(course: Row, x: float, y: float, way_x: float, way_y: float) -> bool:
    """Return whether the step is free: its square is, and of a diagonal one both squares that it squeezes between.

    >>> course = (0.0, 0.0, 3.0, 1.0, 0.0, 1.0)
    >>> [may_step(course, 0.0, 0.0, *way) for way in ((1.0, 0.0), (0.0, 1.0), (1.0, 1.0), (1.0, -1.0))]
    [True, False, False, True]
    """
    if is_blocked(course, x + way_x, y + way_y):
        return False
    if way_x == 0.0 or way_y == 0.0:
        return True
    return not (is_blocked(course, x + way_x, y) or is_blocked(course, x, y + way_y))


@called_kernel
def grid_wish(tuning: GridTuning, held: GridHeld) -> tuple[float, float]:
    """Return the one way that is wished for: of two held ways without diagonals, the later or the earlier one.

    >>> corner = GridHeld(1.0, -1.0, newer=1.0)
    >>> grid_wish(NO_GRID, corner), grid_wish(NO_GRID._replace(diagonals=1), corner)
    ((0.0, -1.0), (1.0, -1.0))
    """
    if held.x == 0.0 or held.y == 0.0 or tuning.diagonals > 0:
        return held.x, held.y
    across = held.newer == 0.0 if tuning.choice == OPPOSITES_LATEST else held.newer > 0.0
    return (held.x, 0.0) if across else (0.0, held.y)


@called_kernel
def grid_held(tuning: GridTuning, state: GridState, right: float, ahead: float) -> GridState:
    """Return the state with what is held now; a way that is newly wished for is pressed, and asks for a step.

    >>> pressed = grid_held(NO_GRID, GRID_AT_REST, 1.0, 0.0)
    >>> pressed.asked, pressed.asked_x, pressed.held.x
    (1.0, 1.0, 1.0)
    """
    step, was, asked, asked_x, asked_y, wait_s, refused, refused_x, refused_y = state
    x = held_way(right)
    y = held_way(ahead)
    if x == was.x and y == was.y:
        return state
    new_x = x not in (0.0, was.x)
    new_y = y not in (0.0, was.y)
    newer = was.newer
    if new_x and new_y:
        newer = 0.0 if abs(right) > abs(ahead) else 1.0
    elif new_x or new_y:
        newer = 0.0 if new_x else 1.0
    held = GridHeld(x, y, newer)
    before = grid_wish(tuning, was)
    wish_x, wish_y = grid_wish(tuning, held)
    if wish_x != before[0] or wish_y != before[1]:
        refused = 0.0
        if new_x or new_y:
            asked, asked_x, asked_y = 1.0, wish_x, wish_y
    return GridState(step, held, asked, asked_x, asked_y, wait_s, refused, refused_x, refused_y)


@called_kernel
def stepped(tuning: GridTuning, course: Row, state: GridState, dt: float) -> GridState:
    """Return the state after `dt` seconds of what is held.

    Steps and waits end and begin within the tick, at their own times: twenty squares take as long at every tick rate.
    A diagonal step takes sqrt(2) times as long, so it is no faster. A blocked square refuses the step; a way that
    stays held asks again after `repeat_s`, or a step's time.

    >>> walking = grid_held(NO_GRID, GRID_AT_REST, 0.0, 1.0)
    >>> step = stepped(NO_GRID, (0.0, 0.0, 3.0, 0.0), walking, 0.5).step
    >>> step.y, step.to_y, round(step.share, 9)
    (2.0, 3.0, 0.5)
    """
    (x, y, to_x, to_y, share), held, asked, asked_x, asked_y, wait_s, refused, refused_x, refused_y = state
    wish_x, wish_y = grid_wish(tuning, held)
    held_on = tuning.repeats > 0 and (wish_x != 0.0 or wish_y != 0.0)
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
        way_x, way_y = wish_x, wish_y
        next_wait_s = tuning.repeat_s
        if asked > 0.0:
            way_x, way_y = asked_x, asked_y
            next_wait_s = tuning.delay_s
        elif not held_on or wait_s > left_s + HAIR_S:
            wait_s = max(wait_s - left_s, 0.0)
            break
        else:
            left_s = max(left_s - wait_s, 0.0)
        asked = 0.0
        if may_step(course, x, y, way_x, way_y):
            to_x, to_y = x + way_x, y + way_y
            wait_s, refused = next_wait_s, 0.0
        else:
            wait_s = max(tuning.repeat_s, tuning.step_s)
            refused, refused_x, refused_y = 1.0, way_x, way_y
        if left_s <= 0.0:
            break
    step = GridStep(x, y, to_x, to_y, share)
    return GridState(step, held, asked, asked_x, asked_y, wait_s, refused, refused_x, refused_y)


@kernel
def step_share(share: float, eased: int) -> tuple[float, float]:
    """Return how much of the way is done at a share (0..1) of the time, and how fast it goes there (1: evenly).

    Eased is 3 u² - 2 u³, which begins and ends at rest; its rate is 6 u (1 - u).

    >>> step_share(0.25, 0), step_share(0.25, 1)
    ((0.25, 1.0), (0.15625, 1.125))
    """
    if eased > 0:
        return share * share * (3.0 - 2.0 * share), 6.0 * share * (1.0 - share)
    return share, 1.0
