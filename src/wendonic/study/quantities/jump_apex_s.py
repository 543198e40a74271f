"""Time to the top of a jump whose press is held."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity


@quantity(255, "s", "from leaving the ground to the top of a jump whose press is held")
def jump_apex_s(bench: Bench) -> float | None:
    """Jump once."""
    return bench.flight.apex_s
