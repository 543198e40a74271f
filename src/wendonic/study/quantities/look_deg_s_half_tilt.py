"""Turn rate of the look stick at half tilt."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.look_response import turn_rate_deg_s
from wendonic.study.quantity import quantity


@quantity(200, "deg/s", "turn rate of the look stick at half tilt")
def look_deg_s_half_tilt(bench: Bench) -> float | None:
    """Tilt the look stick to the right, or up if it only turns up and down."""
    return turn_rate_deg_s(bench.look_stick, [0.5])[0] * bench.zoom_scale
