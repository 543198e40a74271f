"""From a full press to 90 % of top speed."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity


@quantity(20, "s", "from a full press to {most:.0%} of top speed")
def reach90_s(bench: Bench) -> float | None:
    """Read it off the step response."""
    return bench.step_response.reach90_s
