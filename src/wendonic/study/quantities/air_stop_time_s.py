"""How quickly a body stops in the air."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.in_air import air_stop_s
from wendonic.study.quantity import quantity


@quantity(264, "s", "in the air, from releasing everything at top speed to rest (below {rests_m_s:g} m/s)")
def air_stop_time_s(bench: Bench) -> float | None:
    """Release at top speed, and keep falling."""
    return air_stop_s(bench)
