"""The input of a tick: the raw numbers of one mode's bindings, and the reports of the game."""

from typing import NamedTuple

from wendonic.kernels.body.facing import Aim
from wendonic.kernels.body.fall import GROUND_UNKNOWN
from wendonic.kernels.frames.goal import GoalInput
from wendonic.kernels.frames.hands import NO_POINTERS, Pointers
from wendonic.kernels.press.press import PressInput
from wendonic.kernels.row import Row
from wendonic.kernels.vector import UP, ZERO2, ZERO3, Vec2, Vec3


class ViewInput(NamedTuple):
    """Where the camera looks (rad); `given` is 1 in a tick in which the game has set it."""

    given: float
    yaw: float
    pitch: float


class GroundInput(NamedTuple):
    """Whether the body stands on the ground, as the game reports it (GROUND_UNKNOWN until it does), and the ground's
    normal.
    """

    grounded: float
    normal: Vec3


class PointingInput(NamedTuple):
    """The position and direction of a hand in the play space: right, forward and up; zeros while it is lost."""

    place: Vec3
    direction: Vec3


class Sample(NamedTuple):
    """The raw numbers of one tick; the number per source depends on its kind. `wall` is the normal of a wall that
    took the body's speed, as the game reports it, zeros for none.

    Levels stay until they change; counts, edges, goals, walls and given views hold for one tick only.
    """

    move: tuple[Row, ...]
    rise: tuple[Row, ...]
    throttle: tuple[Row, ...]
    turn: tuple[Row, ...]
    look: tuple[Row, ...]
    presses: tuple[PressInput, ...]
    view: ViewInput
    ground: GroundInput
    goal: GoalInput
    aim: Aim
    pointers: Pointers
    head: Vec2
    pointing: PointingInput
    wall: Vec3


NO_PRESS = PressInput(0.0, 0.0, 0.0)
EMPTY_SAMPLE = Sample(
    (),
    (),
    (),
    (),
    (),
    (),
    ViewInput(0.0, 0.0, 0.0),
    GroundInput(GROUND_UNKNOWN, UP),
    GoalInput(0.0, 0.0, 0.0),
    Aim(0.0, 0.0, 0.0),
    NO_POINTERS,
    ZERO2,
    PointingInput(ZERO3, ZERO3),
    ZERO3,
)
