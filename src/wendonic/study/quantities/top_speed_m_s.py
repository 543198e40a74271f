"""Steady speed while everything is held."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity


@quantity(22, "m/s", "steady speed at full input")
def top_speed_m_s(bench: Bench) -> float | None:
    """Read it off the step response."""
    return bench.step_response.top_speed_m_s
