"""The request at a tilt."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity


@quantity(142, "", "amount that a tilt of {tilt:g} straight ahead requests, as a share of the gait's own top speed")
def amount_at_tilt(bench: Bench) -> float | None:
    """Read it straight ahead, after all rules."""
    return bench.stick_response.ahead(bench.thresholds.tilt)
