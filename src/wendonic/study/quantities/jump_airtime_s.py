"""Airtime of a jump whose press is held."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity


@quantity(260, "s", "airtime of a jump whose press is held")
def jump_airtime_s(bench: Bench) -> float | None:
    """Jump once."""
    return bench.flight.airtime_s
