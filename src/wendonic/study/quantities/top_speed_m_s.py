"""Steady speed while everything is held."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity


@quantity(22, "m/s", "speed that everything held comes to")
def top_speed_m_s(bench: Bench) -> float | None:
    """Read it off the step response."""
    return bench.step_response.top_speed_m_s
