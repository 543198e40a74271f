"""How much the distance of a short tap depends on the tick rate."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.tap import tap_distance
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere

TICKS = (3, 7, 16)
"""Numbers of ticks in a tap. They are whole, or the press would begin or end within a tick, and no rate is a multiple
of another.
"""


@quantity(
    232,
    "",
    "how much the distance of a tap of {tap_s:g} s differs in 3, 7 and 16 ticks, as a share of the longest",
)
def tap_dependence(bench: Bench) -> float | None:
    """Tap at each rate, and wait for rest."""
    distances_m = [tap_distance(bench, ticks / bench.thresholds.tap_s) for ticks in TICKS]
    if max(distances_m) == 0.0:
        raise NotHere("a tap does not move the body")
    return (max(distances_m) - min(distances_m)) / max(distances_m)
