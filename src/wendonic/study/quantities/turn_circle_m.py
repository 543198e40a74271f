"""Width of the smallest circle at top speed."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.circle import circle_m, circling
from wendonic.study.quantity import quantity


@quantity(120, "m", "width of the smallest circle at top speed")
def turn_circle_m(bench: Bench) -> float | None:
    """Go as fast and turn as much as can be, where a body turns by being steered."""
    return circle_m(bench.moving, circling(bench), bench.engine)
