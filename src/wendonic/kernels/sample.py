"""What comes into a tick: the raw numbers of one mode's bindings, and what the game reports."""

from typing import NamedTuple

from wendonic.kernels.body.facing import Aim
from wendonic.kernels.body.fall import GROUND_UNKNOWN
from wendonic.kernels.frames.goal import GoalInput
from wendonic.kernels.frames.hands import NO_POINTERS, Pointers
from wendonic.kernels.press.press import PressInput
from wendonic.kernels.row import Row
from wendonic.kernels.vector import UP, ZERO2, ZERO3, Vec2, Vec3


class ViewInput(NamedTuple):
    """Where the camera looks (rad); `given` is 1 in a tick in which the game said so."""

    given: float
    yaw: float
    pitch: float


class GroundInput(NamedTuple):
    """Whether the body stands on the ground, as the game says (GROUND_UNKNOWN while it has not), and its normal."""

    grounded: float
    normal: Vec3


class PointingInput(NamedTuple):
    """Where a hand is in the play space and its direction: right, forward and up each; zeros while it is lost."""

    place: Vec3
    direction: Vec3


class Sample(NamedTuple):
    """The raw numbers of one tick; each source of a channel has as many as its kind takes. `wall` is the normal of
    what the game says has taken the body's speed, zeros for nothing.

    Levels stay until they change; counts, edges, goals, walls and given views belong to one tick alone.
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
