"""What the player asks of the body in one tick, after shaping; and what of it the body wants to do."""

from typing import NamedTuple

from wendonic.kernels.body.facing import Aim
from wendonic.kernels.vector import UP, ZERO3, Vec3


class Request(NamedTuple):
    """What a tick is steered by: the shaped channels (`right` and `forward` are those of `move`, at the end of the
    tick and in its mean, `scale` what presses multiply them by, `fades` 1 while ramps and smoothing are all that is
    left of them), the yaw and pitch (rad) of what is forward, and the yaw (rad) where the player looks; whether the
    body stands on the ground (GROUND_UNKNOWN while the game has said nothing), and the ground's normal as the game
    reports it; the point that is aimed at; and the direction requested before, which a turn is measured from.
    """

    right: float
    forward: float
    mean_right: float
    mean_forward: float
    scale: float
    fades: float
    rise: float
    turn: float
    throttle: float
    yaw: float
    pitch: float
    look_yaw: float
    grounded: float
    normal: Vec3
    aim: Aim
    asked: Vec3


NO_REQUEST = Request(0.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 1.0, UP, Aim(0.0, 0.0, 0.0), ZERO3)
"""Nothing requested, on level ground."""


class WantedMotion(NamedTuple):
    """What the body wants to do: `move` of the intent on the plan, and the same laid onto the ground or into the air.
    `refused` is 1 where ground that is too steep took some of it; there the body slides as well (m/s).
    """

    move_x: float
    move_y: float
    direction: Vec3
    refused: float
    slide: Vec3


NO_MOTION = WantedMotion(0.0, 0.0, ZERO3, 0.0, ZERO3)


def level_motion(x: float, y: float) -> WantedMotion:
    """Return what a body wants that moves by (x, y) on level ground.

    >>> level_motion(0.6, 0.8).direction
    Vec3(x=0.6, y=0.8, z=0.0)
    """
    return WantedMotion(x, y, Vec3(x, y, 0.0), 0.0, ZERO3)
