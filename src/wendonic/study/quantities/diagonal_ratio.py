"""Keys: diagonal speed over straight speed."""

import math

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere


@quantity(60, "", "keys: diagonal speed over straight speed")
def diagonal_ratio(bench: Bench) -> float | None:
    """Compare the means of the four straight and the four diagonal directions."""
    speeds = bench.key_speeds
    straight = math.fsum(speeds[::2])
    if straight <= 0.0:
        raise NotHere("keys: nothing moves")
    return math.fsum(speeds[1::2]) / straight
