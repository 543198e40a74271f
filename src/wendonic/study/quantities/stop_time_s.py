"""From releasing everything at top speed to rest."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import Unmeasured


@quantity(30, "s", "from releasing everything at top speed to rest (below {rests_m_s:g} m/s)")
def stop_time_s(bench: Bench) -> float | None:
    """Read it off the step response."""
    stop_s = bench.step_response.stop_time_s
    if stop_s is None:
        raise Unmeasured("released at top speed, it never stops")
    return stop_s
