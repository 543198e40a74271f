"""Distance from releasing everything at top speed to rest."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import Unmeasured


@quantity(40, "m", "distance from releasing everything at top speed to rest")
def stop_distance_m(bench: Bench) -> float | None:
    """Read it off the step response."""
    stop_m = bench.step_response.stop_distance_m
    if stop_m is None:
        raise Unmeasured("released at top speed, it never stops")
    return stop_m
