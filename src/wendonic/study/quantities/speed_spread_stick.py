"""Stick at its rim: largest deviation from the mean speed of eight directions."""

from wendonic.study.bench import Bench
from wendonic.study.directions import speeds_all_round, spread
from wendonic.study.quantity import quantity


@quantity(80, "", "stick at its rim: largest deviation from the mean speed of eight directions")
def speed_spread_stick(bench: Bench) -> float | None:
    """Tilt the stick all the way in each of eight directions."""
    stick = None if bench.from_side else bench.stick
    return spread(speeds_all_round(bench.moving, stick, bench.engine)) if stick else None
