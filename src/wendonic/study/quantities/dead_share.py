"""Share of the stick's disc that has no effect."""

import math

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere

HEADINGS = 72


@quantity(130, "", "share of the stick's disc that does nothing")
def dead_share(bench: Bench) -> float | None:
    """Find the edge in each of 72 directions, or in one if it is the same all round."""
    if bench.tilt_entry[0] != "move":
        raise NotHere("nothing tilts in two directions")
    stick = bench.stick_response
    # The area without effect reaches from the middle to an edge in every direction, so its share is the mean of r².
    headings = 1 if stick.usual else HEADINGS
    edges = [stick.tilt_for(1e-9, 360.0 * step / headings) for step in range(headings)]
    return math.fsum(1.0 if edge is None else edge * edge for edge in edges) / headings
