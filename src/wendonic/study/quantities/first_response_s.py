"""From a full press to the first request."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.request import request_response
from wendonic.study.quantity import quantity


@quantity(10, "s", "from a full press to the first request ({responds:.1%} of top speed)")
def first_response_s(bench: Bench) -> float | None:
    """Read it off the request after a full press."""
    return request_response(bench).reached_s(bench.thresholds.responds)
