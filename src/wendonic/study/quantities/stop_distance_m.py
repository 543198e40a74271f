"""Distance from releasing everything at top speed to rest."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity


@quantity(40, "m", "distance from releasing everything at top speed to rest")
def stop_distance_m(bench: Bench) -> float | None:
    """Read it off the step response."""
    return bench.step_response.stop_distance_m if bench.step_response else None
