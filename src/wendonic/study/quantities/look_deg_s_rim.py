"""Turn rate of the look stick with its boost at the rim."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.look_response import turn_rate_deg_s
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere


@quantity(212, "deg/s", "turn rate of the look stick once it has been held at its rim")
def look_deg_s_rim(bench: Bench) -> float | None:
    """Hold the look stick at its rim, to the right, or up if it only turns up and down."""
    stick = bench.look_stick
    if not stick.rim_boost:
        raise NotHere("no look stick is faster at its rim")
    return turn_rate_deg_s(stick, [1.0], boosted=True)[0] * bench.zoom_scale
