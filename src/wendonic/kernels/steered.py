"""From a sample to the wish that steers, and from the state of steering to what a tick tells."""

import math
from typing import NamedTuple

from wendonic.kernels.fall import NOBODY_TOLD
from wendonic.kernels.kernel import Row, called_kernel
from wendonic.kernels.places import AHEAD_START, AIM_START, GOAL_START, HEAD_START, POINT_START
from wendonic.kernels.steer_frame import AHEAD_HEAD, FRAME_HANDS, hands_yaw
from wendonic.kernels.steering import SteeringState
from wendonic.kernels.steering_tuning import SteeringTuning
from wendonic.kernels.wish import Wish

ON_GROUND = (NOBODY_TOLD, 0.0, 0.0, 1.0)
"""Standing on level ground, as far as anybody told: 1 for standing, 0 for the air; then the ground's normal."""


@called_kernel
def wished(
    tuning: SteeringTuning,
    sample: Row,
    right: float,
    ahead: float,
    axes: tuple[float, float, float],
    begin: tuple[float, float, float],
    yaw: float,
    pitch: float,
    ground: tuple[float, float, float, float],
    jump: tuple[float, float] = (0.0, 0.0),
) -> Wish:
    """Return what steers a tick: the shaped channels, the view, the ground, and the places that a sample has.

    `axes` are rise, throttle and turn, `begin` where their ramps began in the tick, `jump` whether a jump began in it
    and is held. In the frame of the hands, head or hands point from where the view looks.

    >>> from wendonic.kernels.places import SAMPLE_WIDTH
    >>> from wendonic.kernels.steering_tuning import PLAIN_STEERING
    >>> sample = [0.0] * SAMPLE_WIDTH
    >>> sample[AHEAD_START] = 1.0
    >>> walking = PLAIN_STEERING._replace(frame=FRAME_HANDS)
    >>> wished(walking, sample, 0.0, 1.0, (0.0,) * 3, (0.0,) * 3, 0.25, 0.0, ON_GROUND).yaw == 0.25 + math.pi / 2
    True
    """
    view_yaw = look_yaw = yaw
    if tuning.frame == FRAME_HANDS:
        k = AHEAD_START
        head, left = (sample[k], sample[k + 1]), (sample[k + 2], sample[k + 3])
        right_hand = (sample[k + 4], sample[k + 5])
        look_yaw += hands_yaw(AHEAD_HEAD, head, left, right_hand)
        yaw += hands_yaw(tuning.ahead, head, left, right_hand)
    p = POINT_START
    grounded, normal_x, normal_y, normal_z = ground
    return Wish(
        right,
        ahead,
        axes[0],
        axes[2],
        axes[1],
        begin[0],
        begin[2],
        begin[1],
        yaw,
        pitch,
        view_yaw,
        look_yaw,
        grounded,
        normal_x,
        normal_y,
        normal_z,
        sample[GOAL_START],
        sample[GOAL_START + 1],
        sample[GOAL_START + 2],
        sample[AIM_START],
        sample[AIM_START + 1],
        sample[AIM_START + 2],
        (sample[HEAD_START], sample[HEAD_START + 1]),
        sample[p],
        (sample[p + 1], sample[p + 2], sample[p + 3]),
        (sample[p + 4], sample[p + 5], sample[p + 6]),
        jump[0],
        jump[1],
        right,
        ahead,
    )


class Steered(NamedTuple):
    """What a tick of steering tells, every field a float: the wish on the plan, the body, the square that is stepped
    to, whether something was refused, and the square that refuses a step, the goal and whether it is walked to or was
    reached, the vignette, whether the body was brought back out of a wall, or to where a hand pointed, and whether it
    stands on the ground.
    """

    move_x: float
    move_y: float
    amount: float
    heading: float
    face: float
    pos_x: float
    pos_y: float
    pos_z: float
    vel_x: float
    vel_y: float
    vel_z: float
    step_x: float
    step_y: float
    refused: float
    refused_x: float
    refused_y: float
    going: float
    goal_x: float
    goal_y: float
    arrived: float
    vignette: float
    returned: float
    landed: float
    grounded: float


@called_kernel
def steered_outcome(state: SteeringState) -> Steered:
    """Return what a state tells; the heading is 0 at rest.

    >>> from wendonic.kernels.steering import STEERING_AT_REST
    >>> steered_outcome(STEERING_AT_REST).amount
    0.0
    """
    body, way, _, grid, goal, arrived, comfort, pointing, fall, _, _ = state
    amount = math.sqrt(way.move_x * way.move_x + way.move_y * way.move_y)
    # Only rounding can bring it here, in every frame that caps.
    amount = 1.0 if 1.0 < amount < 1.0 + 1e-9 else amount
    heading = math.atan2(way.move_x, way.move_y) if amount > 0.0 else 0.0
    refused = max(grid.refused, way.refused)
    return Steered(
        way.move_x,
        way.move_y,
        amount,
        heading,
        body.face,
        body.pos_x,
        body.pos_y,
        body.pos_z,
        body.vel_x,
        body.vel_y,
        body.vel_z,
        grid.step.to_x,
        grid.step.to_y,
        refused,
        grid.step.x + grid.refused_x,
        grid.step.y + grid.refused_y,
        goal.there,
        goal.x,
        goal.y,
        arrived,
        comfort.shown,
        comfort.returned,
        pointing.landed,
        1.0 - fall.airborne,
    )
