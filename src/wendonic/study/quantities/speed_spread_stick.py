"""Stick at its rim: largest deviation from the mean speed of eight directions."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.directions import speeds_all_round, spread
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere


@quantity(80, "", "stick at its rim: largest deviation from the mean speed of eight directions")
def speed_spread_stick(bench: Bench) -> float | None:
    """Tilt the stick all the way in each of eight directions."""
    if bench.table.steer.frame == "drive":
        raise NotHere("a vehicle goes where it points")
    if bench.from_side:
        raise NotHere("seen from the side there are two directions")
    return spread(speeds_all_round(bench.moving, bench.stick, bench.engine))
