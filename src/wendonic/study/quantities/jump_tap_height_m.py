"""Height of a jump that is only tapped."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity


@quantity(252, "m", "height of a jump whose press is released after {tap_s:g} s")
def jump_tap_height_m(bench: Bench) -> float | None:
    """Jump once, and release early."""
    return bench.jump.tapped(bench.thresholds.tap_s).flight(bench.engine).height_m
