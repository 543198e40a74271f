"""How much the amount changes with a little more tilt."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere

BESIDE = 0.005


@quantity(150, "", "slope of the amount over the tilt, {past:g} past the dead zone")
def small_tilt_slope(bench: Bench) -> float | None:
    """Take the slope straight ahead, without paces, which would make it zero."""
    stick = bench.stick_response
    if stick.paces:
        raise NotHere("paces: a tilt has no slope")
    first = (stick.tilt_for(1e-9) or 0.0) + bench.thresholds.past
    low, high = first - BESIDE, first + BESIDE
    return (stick.ahead(high) - stick.ahead(low)) / (high - low)
