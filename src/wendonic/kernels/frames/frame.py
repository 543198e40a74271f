"""The numbers and the state that all steer frames share."""

from typing import NamedTuple

from wendonic.kernels.body.slope import LEVEL_ONLY, SlopeTuning
from wendonic.kernels.frames.drive_tuning import NO_DRIVE, DriveTuning
from wendonic.kernels.frames.goal import NO_GOAL, NO_GOTO, Goal, GotoTuning
from wendonic.kernels.frames.squares import GRID_AT_REST, NO_GRID, GridState, GridTuning
from wendonic.kernels.vector import ZERO3, Vec2, Vec3


class FrameTuning(NamedTuple):
    """The numbers of a steer frame and its facing; those of the other frames are at their neutral value.

    `frame` is its integer, see `kernels.frames.steer`; 0 is the map. `turn_rate` is in rad/s; if `face_limited` is 1,
    a body that faces its travel turns only for amounts from `face_above` on; if `holds` is 1, a diagonal facing is
    held for `hold_s` once the request leaves the diagonal. `hands_forward` selects what is forward for the hands;
    `level` is 1 if flying stays level whatever the view's pitch, `capped` if rising and flying forward together are
    no faster than one of them.
    """

    frame: int
    face: int
    turn_rate: float
    face_limited: int
    face_above: float
    holds: int
    hold_s: float
    slope: SlopeTuning
    drive: DriveTuning
    level: int
    capped: int
    grid: GridTuning
    goto: GotoTuning
    hands_forward: int


class FrameState(NamedTuple):
    """What frames carry from tick to tick: the squares of a grid; the goal, those that wait and their number, whether
    one was reached this tick, how near the body has come to it (m), and for how long it has come no nearer (s); the
    last requested direction, (0, 0, 0) for none; the heading that the body turns to, and for how long it has been
    held against another one (s).
    """

    grid: GridState
    goal: Goal
    waiting: tuple[Vec2, ...]
    waiting_count: float
    arrived: float
    nearest_m: float
    stuck_s: float
    last_direction: Vec3
    towards: float
    against_s: float


PLAIN_FRAME = FrameTuning(0, 0, 9.0, 0, 0.0, 0, 0.0, LEVEL_ONLY, NO_DRIVE, 1, 1, NO_GRID, NO_GOTO, 0)
FRAME_AT_REST = FrameState(GRID_AT_REST, NO_GOAL, (), 0.0, 0.0, 0.0, 0.0, ZERO3, 0.0, 0.0)
