"""How long that jump is off the ground."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity


@quantity(260, "s", "how long that jump is off the ground")
def jump_airtime_s(bench: Bench) -> float | None:
    """Jump once."""
    return bench.flight.airtime_s
