"""What a steer frame is asked for, and which way the body wants to go for it."""

from typing import NamedTuple


class Wish(NamedTuple):
    """What a tick is steered by: the shaped channels (`right` and `ahead` are those of `move`), the yaw and pitch
    (rad) of what is ahead and the yaw of the view itself, whether the body stands on the ground, and the ground's
    normal as the game tells it; then whether a goal was given this tick, and where, and whether there is a point to
    aim at, and where (m); then, in the play space, where the head is, and whether a hand points, where it is and
    which way (zeros: unseen).
    """

    right: float
    ahead: float
    rise: float
    turn: float
    throttle: float
    yaw: float
    pitch: float
    view_yaw: float
    grounded: float
    normal_x: float
    normal_y: float
    normal_z: float
    goal_given: float
    goal_x: float
    goal_y: float
    aim_given: float
    aim_x: float
    aim_y: float
    head: tuple[float, float]
    points: float
    hand: tuple[float, float, float]
    hand_way: tuple[float, float, float]


NO_WISH = Wish(
    *(0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0),
    *(1.0, 0.0, 0.0, 1.0),
    *(0.0, 0.0, 0.0, 0.0, 0.0, 0.0),
    *((0.0, 0.0), 0.0, (0.0, 0.0, 0.0), (0.0, 0.0, 0.0)),
)
"""Nothing asked for, on level ground."""


class Way(NamedTuple):
    """Which way the body wants to go and how much: `move` of the intent on the plan, then laid onto the ground or
    into the air. `refused` is 1 where ground that is too steep took some of it; there the body slides as well (m/s).
    """

    move_x: float
    move_y: float
    x: float
    y: float
    z: float
    refused: float
    slide_x: float
    slide_y: float
    slide_z: float


NO_WAY = Way(0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0)
