"""Smallest tilt ahead that has an effect."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity


@quantity(140, "", "smallest tilt straight ahead that has an effect")
def first_tilt(bench: Bench) -> float | None:
    """Find the edge straight ahead."""
    return bench.stick_response.tilt_for(1e-9)
