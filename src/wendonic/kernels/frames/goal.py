"""Goals: which one counts, and how fast to go towards it."""

import math
from typing import NamedTuple

from wendonic.kernels.body.gait import GaitTuning
from wendonic.kernels.vector import Vec2


class GotoTuning(NamedTuple):
    """A goal is reached within `arrival_m`, and the body slows down from `slow_down_m` on. If `retarget` is 1, a new
    goal counts at once; otherwise it waits, at most `waiting` of them, and the newest replaces the last one.
    `by_view` is 1 if keys and sticks steer by the camera, `across` if the game is seen from the side: a goal then is
    at the depth of the body.
    """

    arrival_m: float
    slow_down_m: float
    retarget: int
    waiting: int
    by_view: int
    across: int


NO_GOTO = GotoTuning(0.1, 0.0, 1, 0, 0, 0)


STEERS = 1e-9
"""Amount from which input drops a goal: a stick that its release holds just outside its dead zone requests less."""


class Goal(NamedTuple):
    """A place of the plan (m); `there` is 1 while the body walks to it."""

    there: float
    x: float
    y: float


NO_GOAL = Goal(0.0, 0.0, 0.0)


class Goals(NamedTuple):
    """The current goal, those that wait, how many they are, and whether one was reached (1)."""

    goal: Goal
    waiting: tuple[Vec2, ...]
    many: float
    arrived: float


def stoppable_speed(gait: GaitTuning, distance_m: float, speed: float, dt: float) -> float:
    """Return the speed to request at a distance from the goal and a present speed towards it, so that the body can
    still stop there.

    With a brake it is the speed v from which the body stops in time at the end of the tick: v² = 2 brake (distance -
    v dt), which is sqrt(2 brake distance) for short ticks; if the body is faster already, the distance of the tick is
    taken from its present speed. A body that rolls out with a half-life or against a drag, decaying with exp(-k t),
    still covers v / k: the request is the speed with which it has v = k distance at the end of the tick, and nothing
    from there on.

    >>> from wendonic.kernels.body.gait import PLAIN_GAIT
    >>> braked = PLAIN_GAIT._replace(brake_m_s2=8.0)
    >>> stoppable_speed(braked, 1.0, 0.0, 0.5), stoppable_speed(braked, 1.0, 4.0, 0.125)
    (1.6568542494923806, 2.8284271247461903)
    >>> dragged = PLAIN_GAIT._replace(top_speed_m_s=4.0, drags=1, drag_per_s=2.0)
    >>> [stoppable_speed(dragged, distance_m, 3.0, 0.25) for distance_m in (9.0, 2.0, 1.5)]
    [4.0, 2.0, 0.0]
    """
    if gait.drags > 0:
        # With drag, the remaining distance after the tick is distance - v / drag less the request times dt.
        lacking = distance_m - speed / gait.drag_per_s
        if lacking >= gait.top_speed_m_s * dt:
            return gait.top_speed_m_s
        return max(lacking, 0.0) / dt
    if gait.coasts > 0:
        fade_per_s = math.log(2.0) / gait.coast_half_life_s
        within = fade_per_s * distance_m / (1.0 + fade_per_s * dt)
        return within if speed <= within else 0.0
    brake = gait.brake_m_s2
    lost = brake * dt
    stoppable = math.sqrt(lost * lost + 2.0 * brake * distance_m) - lost
    if speed > stoppable:
        stoppable = math.sqrt(2.0 * brake * max(distance_m - speed * dt, 0.0))
    return stoppable


def approach_speed(tuning: GotoTuning, gait: GaitTuning, distance_m: float, speed: float, dt: float) -> float:
    """Return the speed to request at a distance from the goal and a present speed towards it: top speed from
    `slow_down_m` on, top_speed distance / slow_down_m below, and never more than `stoppable_speed`.

    >>> from wendonic.kernels.body.gait import PLAIN_GAIT
    >>> near = GotoTuning(0.125, 2.0, 1, 0, 0, 0)
    >>> quick = PLAIN_GAIT._replace(top_speed_m_s=4.0, brake_m_s2=16.0)
    >>> [approach_speed(near, quick, distance_m, 0.0, 0.0) for distance_m in (9.0, 1.0, 0.125)]
    [4.0, 2.0, 0.25]
    """
    top_speed = gait.top_speed_m_s
    stoppable = stoppable_speed(gait, distance_m, speed, dt)
    if distance_m < tuning.slow_down_m:
        return min(top_speed * distance_m / tuning.slow_down_m, stoppable)
    return min(top_speed, stoppable)


class GoalInput(NamedTuple):
    """A goal set in a tick: `given` is 1 if there is one, then its place on the plan (m); -1 in a later part of a
    hitch, in which the place of a game's own body is unknown.
    """

    given: float
    x: float
    y: float


def queued(waiting: tuple[Vec2, ...], place: float, x: float, y: float) -> tuple[Vec2, ...]:
    """Return the waiting goals with another one at a given index.

    >>> queued((Vec2(1.0, 1.0), Vec2(2.0, 2.0)), 1.0, 3.0, 4.0)
    (Vec2(x=1.0, y=1.0), Vec2(x=3.0, y=4.0))
    """
    found: tuple[Vec2, ...] = ()
    for k in range(len(waiting)):
        found = (*found, Vec2(x, y) if len(waiting) == 1 or place == k else waiting[k])
    return found


def moved_up(waiting: tuple[Vec2, ...]) -> tuple[Vec2, ...]:
    """Return the waiting goals without the first one; the last entry stays, but no longer counts.

    >>> moved_up((Vec2(1.0, 1.0), Vec2(2.0, 2.0)))
    (Vec2(x=2.0, y=2.0), Vec2(x=2.0, y=2.0))
    """
    found: tuple[Vec2, ...] = ()
    for k in range(len(waiting)):
        if k > 0:
            found = (*found, waiting[k])
    return (*found, waiting[len(waiting) - 1])


def goals_after(
    tuning: GotoTuning,
    goal: Goal,
    waiting: tuple[Vec2, ...],
    count: float,
    given: GoalInput,
    steers: bool,
    pos_x: float,
    pos_y: float,
    reach_m: float,
) -> Goals:
    """Return the goals of this tick: a new one if one was set, the next one if the body has arrived, none while a key
    or a stick steers.

    The body has arrived if it begins the tick within `arrival_m`; if another goal follows, within the distance of a
    tick (`reach_m`) is enough.

    >>> given, nothing = GoalInput(1.0, 3.0, 0.0), GoalInput(0.0, 0.0, 0.0)
    >>> goals_after(NO_GOTO, NO_GOAL, (), 0.0, given, False, 0.0, 0.0, 0.1).goal
    Goal(there=1.0, x=3.0, y=0.0)
    >>> goals_after(NO_GOTO, NO_GOAL, (), 0.0, given, False, 3.0, 0.0, 0.1).arrived
    1.0
    >>> goals_after(NO_GOTO, Goal(1.0, 3.0, 0.0), (), 0.0, nothing, True, 0.0, 0.0, 0.1).goal.there
    0.0
    """
    there, x, y = goal
    # After a change of profile, more goals may wait than fit.
    count = min(count, tuning.waiting + 0.0)
    arrived = 0.0
    if steers:
        there = count = 0.0
    elif given.given > 0.0:
        if there == 0.0 or tuning.retarget > 0:
            there, x, y = 1.0, given.x, given.y
        elif tuning.waiting > 0:
            last = min(count, tuning.waiting - 1.0)
            waiting, count = queued(waiting, last, given.x, given.y), last + 1.0
    if tuning.across > 0 and not steers:
        y = pos_y
    if there > 0.0:
        limit_m = max(tuning.arrival_m, reach_m) if count > 0.0 else tuning.arrival_m
        if given.given >= 0.0 and math.hypot(x - pos_x, y - pos_y) <= limit_m:
            arrived = 1.0
            there = 0.0
            if tuning.waiting > 0 and count > 0.0:
                there, x, y = 1.0, waiting[0].x, waiting[0].y
                waiting, count = moved_up(waiting), count - 1.0
                if tuning.across > 0:
                    y = pos_y
    return Goals(Goal(there, x, y), waiting, count, arrived)


MOST_STUCK_S = 3600.0

NEARER_S = 0.02
"""The body has come nearer if it is nearer by what full speed covers in this time."""


def nearing(
    was: Goal, goal: Goal, nearest_m: float, stuck_s: float, far_m: float, top_speed_m_s: float, dt: float
) -> tuple[float, float]:
    """Return how near the body has come to the goal (m), and for how long it has come no nearer (s); a new goal
    starts anew.

    >>> there = Goal(1.0, 0.0, 9.0)
    >>> nearing(there, there, 5.0, 0.5, 4.9, 3.0, 0.25), nearing(there, there, 5.0, 0.5, 4.99, 3.0, 0.25)
    ((4.9, 0.0), (5.0, 0.75))
    """
    anew = goal.there <= 0.0 or was.there <= 0.0 or goal.x != was.x or goal.y != was.y
    if anew or far_m < nearest_m - NEARER_S * top_speed_m_s:
        nearest_m = far_m
        stuck_s = 0.0
    else:
        stuck_s = min(stuck_s + dt, MOST_STUCK_S)
    return nearest_m, stuck_s
