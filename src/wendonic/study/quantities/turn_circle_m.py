"""Width of the smallest circle at top speed."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.circle import circle_m, circling
from wendonic.study.quantity import quantity


@quantity(120, "m", "width of the smallest circle at top speed")
def turn_circle_m(bench: Bench) -> float | None:
    """Go at full speed and full lock, if steering turns the body."""
    return circle_m(bench.moving, circling(bench), bench.engine)
