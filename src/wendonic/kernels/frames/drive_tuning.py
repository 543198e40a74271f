"""The numbers of the steer frame `drive`."""

from typing import NamedTuple


class DriveTuning(NamedTuple):
    """How a cart turns: at most `turn_rate` at rest and `fast_turn_rate` at top speed (rad/s), and never in a circle
    of a radius below `turn_radius_m` if `circles` is 1.

    `reverse_ratio` is the top speed backwards as a share of that forward; `reverse_flips` is 1 if turning right
    swings the heading to the left while it rolls backwards, as with a steered axle. `slips` is 1 if it keeps some of
    its direction when it turns: its sideways speed then halves every `slip_half_life_s`.
    """

    turn_rate: float
    fast_turn_rate: float
    circles: int
    turn_radius_m: float
    reverse_ratio: float
    reverse_flips: int
    slips: int
    slip_half_life_s: float


NO_DRIVE = DriveTuning(1.0, 1.0, 0, 1.0, 1.0, 0, 0, 0.0)
