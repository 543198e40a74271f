"""The numbers of a steer frame."""

from typing import NamedTuple

from wendonic.kernels.comfort import NO_COMFORT, ComfortTuning
from wendonic.kernels.drive import NO_DRIVE, DriveTuning
from wendonic.kernels.facing import FACE_TRAVEL
from wendonic.kernels.fall import NO_FALL, FallTuning
from wendonic.kernels.gait_forms import PLAIN_GAIT, GaitForms
from wendonic.kernels.goto import NO_GOTO, GotoTuning
from wendonic.kernels.grid import NO_GRID, GridTuning
from wendonic.kernels.slope import LEVEL_ONLY, SlopeTuning
from wendonic.kernels.steer_frame import FRAME_MAP


class SteeringTuning(NamedTuple):
    """The numbers of a steer frame, its facing and its gait; those of the other frames stand at their neutral value.

    `turn_rate` in rad/s. `level` is 1 where flying stays level whatever the view's pitch, `rise_m_s` the speed of
    rising, `capped` 1 where rising and flying ahead together are no faster than one of them; `ahead` says what is
    ahead for the hands, `arc_m_s` how fast the arc leaves a hand that points at a place to be at (0: none does);
    `lean_half_life_s` is how fast the body leans with the ground. `forms` and `fall` are the rest of the gait; walls
    stop a body of `radius_m`, where that is above 0. `wish_half_life_s` is that of `move`, for a gait that follows
    the mean of a tick.
    """

    frame: int
    face: int
    turn_rate: float
    top_speed_m_s: float
    accel_m_s2: float
    brake_m_s2: float
    drive: DriveTuning
    level: int
    rise_m_s: float
    capped: int
    grid: GridTuning
    goto: GotoTuning
    ahead: int
    slope: SlopeTuning
    comfort: ComfortTuning
    arc_m_s: float
    lean_half_life_s: float
    forms: GaitForms
    fall: FallTuning
    radius_m: float
    wish_half_life_s: float


PLAIN_STEERING = SteeringTuning(
    FRAME_MAP,
    FACE_TRAVEL,
    9.0,
    3.2,
    22.0,
    30.0,
    NO_DRIVE,
    1,
    2.0,
    1,
    NO_GRID,
    NO_GOTO,
    0,
    LEVEL_ONLY,
    NO_COMFORT,
    0.0,
    0.0,
    PLAIN_GAIT,
    NO_FALL,
    0.0,
    0.0,
)
