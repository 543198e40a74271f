"""How much a little more tilt changes, a tenth past the dead zone."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity

FROM, TO = 0.095, 0.105


@quantity(150, "", "how much a little more tilt changes, a tenth past the dead zone")
def small_tilt_slope(bench: Bench) -> float | None:
    """Take the slope straight ahead; None where paces leave none."""
    stick = bench.stick_response
    if stick is None or stick.paces:
        return None
    first = stick.tilt_for(1e-9) or 0.0
    low, high = first + FROM, first + TO
    return (stick.ahead(high) - stick.ahead(low)) / (high - low)
