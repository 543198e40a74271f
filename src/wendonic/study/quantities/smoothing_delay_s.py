"""From a full press or tilt to half of what is finally requested."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.request import request_response
from wendonic.study.quantity import quantity


@quantity(240, "s", "from a full press or tilt to {half:.0%} of its final request")
def smoothing_delay_s(bench: Bench) -> float | None:
    """Press or tilt all at once, in the direction that the mode is measured in."""
    response = request_response(bench)
    return response.reached_s(bench.thresholds.half * response.final)
