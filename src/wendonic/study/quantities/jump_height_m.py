"""Height of a jump whose press is held."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity


@quantity(250, "m", "height of a jump whose press is held")
def jump_height_m(bench: Bench) -> float | None:
    """Jump once."""
    return bench.flight.height_m
