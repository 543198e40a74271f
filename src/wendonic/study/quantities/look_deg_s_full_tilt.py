"""Turn rate of the look stick at full tilt."""

from wendonic.study.bench import Bench
from wendonic.study.look_response import yaw_rate_deg_s
from wendonic.study.quantity import quantity


@quantity(210, "deg/s", "turn rate of the look stick at full tilt")
def look_deg_s_full_tilt(bench: Bench) -> float | None:
    """Tilt the look stick to the right."""
    bind = bench.look_stick
    return None if bind is None else yaw_rate_deg_s(bind, [1.0])[0]
