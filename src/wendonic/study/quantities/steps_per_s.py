"""Steps a second while held."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.squares import steps_held
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere


@quantity(320, "/s", "on squares: steps a second while a direction is held, from the second step")
def steps_per_s(bench: Bench) -> float | None:
    """Hold the direction that the mode is measured in."""
    began = steps_held(bench)[1:]
    if len(began) < 2:
        raise NotHere("a press is one step")
    return (len(began) - 1) / (began[-1] - began[0])
