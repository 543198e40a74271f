"""From top speed to 90 % of top speed in the opposite direction."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere, Unmeasured


@quantity(50, "s", "from pressing the opposite direction at top speed to {most:.0%} of top speed that way")
def reversal_s(bench: Bench) -> float | None:
    """Read it off the step response."""
    walker, answer = bench.walker, bench.step_response
    if walker.opposite is None:
        raise NotHere(f"{walker.name}: nothing goes straight back from {walker.ahead}")
    if answer.reversal_s is None:
        raise Unmeasured("it never goes back when the opposite direction is pressed")
    return answer.reversal_s
