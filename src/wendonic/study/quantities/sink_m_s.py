"""How fast a flying body sinks."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.flight import vertical_m_s
from wendonic.study.quantity import quantity


@quantity(820, "m/s", "flying: speed downwards while down is held")
def sink_m_s(bench: Bench) -> float | None:
    """Hold down until the speed is steady."""
    return vertical_m_s(bench, "down")
