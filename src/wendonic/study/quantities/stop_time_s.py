"""From releasing everything at top speed to rest."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity


@quantity(30, "s", "from releasing everything at top speed to rest")
def stop_time_s(bench: Bench) -> float | None:
    """Read it off the step response."""
    return bench.step_response.stop_time_s if bench.step_response else None
