"""What a steer frame is asked for, and which way the body wants to go for it."""

from typing import NamedTuple

from wendonic.kernels.kernel import called_kernel


class Wish(NamedTuple):
    """What a tick is steered by: the shaped channels (`right` and `ahead` are those of `move`), where ramps of rise,
    turn and throttle began in the tick, the yaw and pitch (rad) of what is ahead, the yaw of the view, and that of
    where it looks (in a headset the head turns on top of it); whether the body stands on the ground, and the ground's
    normal as the game tells it; whether a goal was given this tick, and where, and whether there is a point to aim
    at, and where (m); then, in the play space, where the head is, and whether a hand points, where it is (m) and
    which way (zeros: unseen); whether a jump began in this tick, and is held; and
    what `right` and `ahead` were in the mean of the tick. `grounded` is NOBODY_TOLD while the
    game has said nothing.
    """

    right: float
    ahead: float
    rise: float
    turn: float
    throttle: float
    rise_from: float
    turn_from: float
    throttle_from: float
    yaw: float
    pitch: float
    view_yaw: float
    look_yaw: float
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
    jump_began: float
    jump_held: float
    mean_right: float
    mean_ahead: float


_NOTHING = (0.0, 0.0, 0.0)

NO_WISH = Wish(
    *(0.0, 0.0, 0.0, *_NOTHING, *_NOTHING, *_NOTHING),
    *(1.0, 0.0, 0.0, 1.0),
    *(*_NOTHING, *_NOTHING),
    head=(0.0, 0.0),
    points=0.0,
    hand=_NOTHING,
    hand_way=_NOTHING,
    jump_began=0.0,
    jump_held=0.0,
    mean_right=0.0,
    mean_ahead=0.0,
)
"""Nothing asked for, on level ground."""


@called_kernel
def wish_at(wish: Wish, share: float) -> Wish:
    """Return the wish at a share (0..1) of its tick: ramps of rise, turn and throttle are straight.

    >>> wish_at(NO_WISH._replace(turn=1.0, turn_from=0.5), 0.5).turn
    0.75
    """
    left = 1.0 - share
    return Wish(
        wish.right,
        wish.ahead,
        wish.rise * share + wish.rise_from * left,
        wish.turn * share + wish.turn_from * left,
        wish.throttle * share + wish.throttle_from * left,
        wish.rise_from,
        wish.turn_from,
        wish.throttle_from,
        wish.yaw,
        wish.pitch,
        wish.view_yaw,
        wish.look_yaw,
        wish.grounded,
        wish.normal_x,
        wish.normal_y,
        wish.normal_z,
        wish.goal_given,
        wish.goal_x,
        wish.goal_y,
        wish.aim_given,
        wish.aim_x,
        wish.aim_y,
        wish.head,
        wish.points,
        wish.hand,
        wish.hand_way,
        wish.jump_began,
        wish.jump_held,
        wish.mean_right,
        wish.mean_ahead,
    )


@called_kernel
def wish_with(wish: Wish, grounded: float, mean_right: float, mean_ahead: float) -> Wish:
    """Return the wish of a body that stands on the ground (1) or does not (0), with what it was in the mean of its
    tick.

    >>> wish_with(NO_WISH, 0.0, 0.5, 0.25)[-2:]
    (0.5, 0.25)
    """
    return Wish(
        wish.right,
        wish.ahead,
        wish.rise,
        wish.turn,
        wish.throttle,
        wish.rise_from,
        wish.turn_from,
        wish.throttle_from,
        wish.yaw,
        wish.pitch,
        wish.view_yaw,
        wish.look_yaw,
        grounded,
        wish.normal_x,
        wish.normal_y,
        wish.normal_z,
        wish.goal_given,
        wish.goal_x,
        wish.goal_y,
        wish.aim_given,
        wish.aim_x,
        wish.aim_y,
        wish.head,
        wish.points,
        wish.hand,
        wish.hand_way,
        wish.jump_began,
        wish.jump_held,
        mean_right,
        mean_ahead,
    )


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
