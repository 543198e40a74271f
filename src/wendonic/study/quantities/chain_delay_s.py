"""From a full press at any moment of a tick to the end of the tick that requests half of it."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.request import chain_delay
from wendonic.study.quantity import quantity


@quantity(
    242,
    "s",
    "mean time from a full press to the end of the tick that requests {half:.0%} of it, at {hz:g} ticks a second",
)
def chain_delay_s(bench: Bench) -> float | None:
    """Press at each part of a tick in turn."""
    return chain_delay(bench)
