"""How far a body goes past its goal."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.goal import arrival
from wendonic.study.quantity import quantity


@quantity(420, "m", "how far past a goal {goal_m:g} m away the body goes")
def goal_overshoot_m(bench: Bench) -> float | None:
    """Walk there."""
    return arrival(bench).overshoot_m
