"""From a full press to the first intent."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity


@quantity(10, "s", "from a full press to the first intent")
def first_response_s(bench: Bench) -> float | None:
    """Read it off the step response."""
    return bench.step_response.first_response_s if bench.step_response else None
