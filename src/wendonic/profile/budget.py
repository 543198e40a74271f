"""A budget: limits for what the feel sheet measures, kept with the profile."""

from typing import Annotated, Self

from pydantic import AfterValidator, model_validator

from wendonic.errors import none_such
from wendonic.profile.table import Table, own_fault

QUANTITIES = (
    "first_response_s reach90_s stop_time_s stop_distance_m reversal_s diagonal_ratio speed_spread_keys "
    "speed_spread_stick direction_error_deg facing_lag_deg sector_flicker_per_min turn_circle_m dead_share "
    "first_tilt small_tilt_slope quarter_steps_8bit quarter_steps_16bit rest_drift_m_per_min mouse_deg_per_10cm "
    "look_deg_s_half_tilt look_deg_s_full_tilt look_first_tilt tick_dependence smoothing_delay_s jump_height_m "
    "jump_aloft_s jump_buffer_s jump_grace_s"
).split()
"""What the feel sheet has, in its order."""


class Limits(Table):
    """What a quantity of the feel sheet may be, in its own unit."""

    min: float | None = None
    max: float | None = None

    @model_validator(mode="after")
    def _says_something(self) -> Self:
        if self.min is None and self.max is None:
            raise own_fault("says neither min nor max")
        if self.min is not None and self.max is not None and self.min > self.max:
            raise own_fault(f"min {self.min:g} is above max {self.max:g}")
        return self


def _quantity(name: str) -> str:
    if name not in QUANTITIES:
        raise own_fault(none_such("quantity of the feel sheet", name, QUANTITIES))
    return name


Budget = dict[Annotated[str, AfterValidator(_quantity)], Limits]
