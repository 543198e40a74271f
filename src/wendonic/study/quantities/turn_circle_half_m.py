"""Width of the smallest circle at half of top speed."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.circle import HALF, circle_m, half_throttle
from wendonic.study.quantity import quantity


@quantity(122, "m", "width of the smallest circle at half of top speed")
def turn_circle_half_m(bench: Bench) -> float | None:
    """Drive at half throttle and full lock, with controls that have no ramp or dead zone."""
    profile, walker = half_throttle(bench)
    return circle_m(profile, walker, bench.engine, HALF)
