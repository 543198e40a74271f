"""Keys: largest deviation from the mean speed of eight directions."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.directions import spread
from wendonic.study.quantity import quantity


@quantity(70, "", "keys: largest deviation from the mean speed of eight directions")
def speed_spread_keys(bench: Bench) -> float | None:
    """Press each of eight directions."""
    return spread(bench.key_speeds)
