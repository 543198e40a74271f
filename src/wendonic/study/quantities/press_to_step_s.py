"""From a press to the beginning of the step."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.squares import steps_held
from wendonic.study.quantity import quantity


@quantity(310, "s", "on squares: from a press to the beginning of its step")
def press_to_step_s(bench: Bench) -> float | None:
    """Press and hold the direction that the mode is measured in."""
    return steps_held(bench)[0]
