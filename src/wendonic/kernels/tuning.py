"""Every number of one mode, and its structure."""

from typing import NamedTuple

from wendonic.kernels.axis_channel import NO_AXIS, AxisTuning
from wendonic.kernels.body.comfort import NO_COMFORT, ComfortTuning
from wendonic.kernels.body.gait import PLAIN_GAIT, GaitTuning
from wendonic.kernels.frames.frame import PLAIN_FRAME, FrameTuning
from wendonic.kernels.look.look import NO_LOOK, LookTuning
from wendonic.kernels.move.move import NO_MOVE, MoveTuning
from wendonic.kernels.press.press import PressTuning


class Tuning(NamedTuple):
    """Every number of one mode. Its structure is every `int`, and how many of each thing there are.

    `gaits` has the mode's own first, then one for each press that switches gaits: if several are held, the last one
    counts. `jump_press` is the number of the press that jumps, -1 for none. `turning` is 1 if a tick is cut into
    parts because the direction turns within it, `walled` if walls and steps stop the body. `sectors` is 0 for none;
    the margin is in rad. `point_press` is the press with which a hand points at a place to teleport to, -1 for none,
    and `arc_m_s` the speed at which the arc leaves the hand.
    """

    max_dt_s: float
    presses: tuple[PressTuning, ...]
    rise: AxisTuning
    throttle: AxisTuning
    turn: AxisTuning
    look: LookTuning
    move: MoveTuning
    frame: FrameTuning
    gaits: tuple[GaitTuning, ...]
    jump_press: int
    turning: int
    walled: int
    comfort: ComfortTuning
    point_press: int
    arc_m_s: float
    sectors: int
    sector_margin: float
    sector_tie: int
    sector_by_heading: int


PLAIN_TUNING = Tuning(
    0.1,
    (),
    NO_AXIS,
    NO_AXIS,
    NO_AXIS,
    NO_LOOK,
    NO_MOVE,
    PLAIN_FRAME,
    (PLAIN_GAIT,),
    -1,
    0,
    0,
    NO_COMFORT,
    -1,
    0.0,
    0,
    0.0,
    0,
    0,
)
"""A mode that binds nothing, with the frame `map` on level ground."""
