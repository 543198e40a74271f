"""Tilted in any direction: the largest angle between where a stick points and what it requests."""

import math

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity
from wendonic.study.stick_response import StickResponse
from wendonic.study.unmeasured import NotHere

TILTS, COARSE_DEG, FINE_DEG = 20, 2, 0.05
"""Tilts in each direction, steps of direction, and the finer steps around the worst place."""


@quantity(
    90,
    "deg",
    "stick: largest angle between a tilt and the request it makes, in any direction, from {aims:.0%} of full speed",
)
def direction_error_deg(bench: Bench) -> float | None:
    """Search the whole disc, and more finely where the error is largest. At a tilt in the direction h the request has
    the heading atan2(right, forward), and the error is its angle to h.
    """
    if bench.from_side:
        raise NotHere("seen from the side there are two directions")
    stick, aims = bench.stick_response, bench.thresholds.aims
    if bench.tilt_entry[0] != "move":
        raise NotHere("nothing tilts in two directions")
    # If nothing bends directions, all of them are the same.
    headings = (0,) if stick.usual else range(0, 360, COARSE_DEG)
    coarse = (
        (_error_deg(stick, tilt / TILTS, heading, aims), tilt / TILTS, heading)
        for tilt in range(1, TILTS + 1)
        for heading in headings
    )
    worst, tilt, heading = max(coarse)
    if worst < 0.0:
        raise NotHere("the stick never requests anything")
    # A border between two directions may lie between two of these steps.
    steps = 0 if stick.usual else round(COARSE_DEG / FINE_DEG)
    fine = (heading + step * FINE_DEG for step in range(-steps, steps + 1))
    return max(worst, *(_error_deg(stick, tilt, one, aims) for one in fine))


def _error_deg(stick: StickResponse, tilt: float, heading_deg: float, aims: float) -> float:
    """Return the error (deg) of a tilt, -1 where almost nothing is requested."""
    right, forward = stick.at(*stick.held(tilt, heading_deg))
    if math.hypot(right, forward) < aims:
        return -1.0
    off = math.degrees(math.atan2(right, forward)) - heading_deg
    return abs((off + 180.0) % 360.0 - 180.0)
