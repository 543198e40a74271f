"""From top speed forward, the other direction pressed, to 90 % of top speed back."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity


@quantity(50, "s", "from top speed forward, the other direction pressed, to 90 % of top speed back")
def reversal_s(bench: Bench) -> float | None:
    """Read it off the step response."""
    return bench.step_response.reversal_s if bench.step_response else None
