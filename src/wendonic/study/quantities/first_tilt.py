"""Smallest tilt forward that moves."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity


@quantity(140, "", "smallest tilt forward that moves")
def first_tilt(bench: Bench) -> float | None:
    """Find the edge straight ahead."""
    return bench.stick_response.tilt_for(1e-9) if bench.stick_response else None
