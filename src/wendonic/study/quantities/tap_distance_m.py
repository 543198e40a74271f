"""Distance of a short tap."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.step_response import rate_hz
from wendonic.study.measuring.tap import tap_distance, tap_end_s
from wendonic.study.quantity import quantity


@quantity(57, "m", "distance covered after a tap of {tap_s:g} s")
def tap_distance_m(bench: Bench) -> float | None:
    """Press for a moment, and wait for rest."""
    return tap_distance(bench, rate_hz(tap_end_s(bench)))
