"""How fast a flying body climbs."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.flight import vertical_m_s
from wendonic.study.quantity import quantity


@quantity(810, "m/s", "flying: speed upwards while up is held")
def climb_m_s(bench: Bench) -> float | None:
    """Hold up until the speed is steady."""
    return vertical_m_s(bench, "up")
