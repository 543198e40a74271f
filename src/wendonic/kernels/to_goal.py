"""The steer frame `goto`, step by step: which goal counts, and the walk to it."""

import math

from wendonic.kernels.body import Body
from wendonic.kernels.goto import Goal, GotoTuning, approach_speed
from wendonic.kernels.kernel import Row, called_kernel
from wendonic.kernels.on_foot import walked_on
from wendonic.kernels.steering_tuning import SteeringTuning
from wendonic.kernels.wish import Way, Wish


@called_kernel
def on_the_way(goto: GotoTuning, goal: Goal, wish: Wish, pos_x: float, pos_y: float) -> Goal:
    """Return the goal of this tick: a new one if one was given and is taken, none once a key or a stick steers.

    What only fades, after a key was let go, does not steer. A goal where he stands already is none.

    >>> from wendonic.kernels.goto import NO_GOAL, NO_GOTO
    >>> from wendonic.kernels.wish import NO_WISH
    >>> given = NO_WISH._replace(goal_given=1.0, goal_x=3.0)
    >>> on_the_way(NO_GOTO, NO_GOAL, given, 0.0, 0.0)
    Goal(there=1.0, x=3.0, y=0.0, asked=0.0)
    >>> on_the_way(NO_GOTO, Goal(1.0, 3.0, 0.0, 0.0), NO_WISH._replace(ahead=0.1), 0.0, 0.0).there
    0.0
    >>> on_the_way(NO_GOTO, Goal(0.0, 0.0, 0.0, 0.5), given._replace(ahead=0.1), 0.0, 0.0).there
    1.0
    """
    asked = math.hypot(wish.right, wish.ahead)
    there, x, y, asked_before = goal
    if asked > 0.0 and asked >= asked_before:
        there = 0.0
    elif wish.goal_given > 0.0 and (there == 0.0 or goto.retarget > 0):
        x, y = wish.goal_x, wish.goal_y
        there = 1.0 if math.hypot(x - pos_x, y - pos_y) > goto.arrival_m else 0.0
    return Goal(there, x, y, asked)


@called_kernel
def gone_to(
    tuning: SteeringTuning, course: Row, body: Body, wish: Wish, goal: Goal, dt: float
) -> tuple[Body, Way, Goal, float]:
    """Return the body and its way after `dt` seconds of walking to a goal, what is left of the goal, and 1 if it is
    reached, else 0.

    The speed is that of `approach_speed`. He never walks past the goal: what would go further ends
    on it, at rest.

    >>> from wendonic.kernels.body import BODY_AT_REST
    >>> from wendonic.kernels.steering_tuning import PLAIN_STEERING
    >>> from wendonic.kernels.wish import NO_WISH
    >>> body, _, _, arrived = gone_to(PLAIN_STEERING, (0.0, 0.0, 3.0, 0.0), BODY_AT_REST._replace(vel_y=3.0), NO_WISH,
    ...                               Goal(1.0, 0.0, 0.125, 0.0), 0.1)
    >>> body.pos_y, body.vel_y, arrived
    (0.125, 0.0, 1.0)
    """
    face = body.face
    reached = Goal(0.0, goal.x, goal.y, goal.asked)
    to_x = goal.x - body.pos_x
    to_y = goal.y - body.pos_y
    far = math.sqrt(to_x * to_x + to_y * to_y)
    if far <= tuning.goto.arrival_m:
        after, way = walked_on(tuning, course, body, wish, 0.0, 0.0, face, dt)
        return after, way, reached, 1.0
    top_speed = tuning.top_speed_m_s
    speed = max((body.vel_x * to_x + body.vel_y * to_y) / far, 0.0)
    share = approach_speed(tuning.goto, far, speed, top_speed, tuning.brake_m_s2, dt) / top_speed
    after, way = walked_on(tuning, course, body, wish, to_x / far * share, to_y / far * share, face, dt)
    along = ((after.pos_x - body.pos_x) * to_x + (after.pos_y - body.pos_y) * to_y) / far
    if along >= far:
        return Body(face, goal.x, goal.y, after.pos_z, 0.0, 0.0, 0.0), way, reached, 1.0
    return after, way, goal, 0.0


@called_kernel
def told_way(way: Way, arrived: float, to_x: float, to_y: float, arrival_m: float, full_m: float) -> Way:
    """Return the way that a tick tells, for a game that moves the body by itself: no further than the goal.

    At the tick's start the goal was (to_x, to_y) away; `full_m` is what full speed covers in the tick. In the tick of
    the arrival it is all that was left.

    >>> from wendonic.kernels.wish import NO_WAY
    >>> told_way(NO_WAY._replace(move_y=1.0, y=1.0), 0.0, 0.0, 0.25, 0.1, 0.5).move_y
    0.5
    >>> told_way(NO_WAY, 1.0, 0.0, 0.25, 0.1, 0.5).move_y, told_way(NO_WAY, 1.0, 0.0, 0.05, 0.1, 0.5).move_y
    (0.5, 0.0)
    """
    if full_m <= 0.0:
        return way
    far = math.hypot(to_x, to_y)
    most = far / full_m
    amount = math.hypot(way.move_x, way.move_y)
    if arrived > 0.0 and far > arrival_m:
        amount = min(1.0, most)
        x, y = to_x / far * amount, to_y / far * amount
        return Way(x, y, x, y, 0.0, way.refused, way.slide_x, way.slide_y, way.slide_z)
    if amount <= most:
        return way
    less = most / amount
    return Way(
        way.move_x * less,
        way.move_y * less,
        way.x * less,
        way.y * less,
        way.z * less,
        way.refused,
        way.slide_x,
        way.slide_y,
        way.slide_z,
    )
