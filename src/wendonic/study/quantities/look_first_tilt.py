"""Smallest tilt of the look stick that turns."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity
from wendonic.study.stick_response import StickResponse


@quantity(220, "", "smallest tilt of the look stick that turns the view")
def look_first_tilt(bench: Bench) -> float | None:
    """Tilt the look stick to the right."""
    return StickResponse(bench.look_stick).tilt_for(1e-9, 90.0)
