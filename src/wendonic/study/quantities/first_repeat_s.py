"""From a press to the second step."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.squares import steps_held
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere


@quantity(315, "s", "on squares: from a press that is held to its second step")
def first_repeat_s(bench: Bench) -> float | None:
    """Hold the direction that the mode is measured in."""
    began = steps_held(bench)
    if len(began) < 2:
        raise NotHere("a press is one step")
    return began[1]
