"""How far the view turns for a turn of the pad."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.gyro import turned_share
from wendonic.study.quantity import quantity


@quantity(710, "", "degrees of view for each degree of the pad, turned at {gyro_turn_deg_s:g} deg/s")
def gyro_ratio(bench: Bench) -> float | None:
    """Turn the pad a quarter to the right."""
    return turned_share(bench, bench.thresholds.gyro_turn_deg_s)
