"""How fast a flying body dives."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.flight import dive_speed_m_s
from wendonic.study.quantity import quantity


@quantity(830, "m/s", "flying: speed downwards while forward is held and the view looks down as far as it goes")
def dive_m_s(bench: Bench) -> float | None:
    """Look down and hold forward until the speed is steady."""
    return dive_speed_m_s(bench)
