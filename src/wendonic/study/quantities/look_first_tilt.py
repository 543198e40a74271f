"""Smallest tilt of the look stick that turns."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity
from wendonic.study.stick_response import StickResponse


@quantity(220, "", "smallest tilt of the look stick that turns the view")
def look_first_tilt(bench: Bench) -> float | None:
    """Tilt the look stick to the right, or up if it only turns up and down."""
    stick = bench.look_stick
    return StickResponse(stick).tilt_for(1e-9, 90.0 if stick.sideways else 0.0)
