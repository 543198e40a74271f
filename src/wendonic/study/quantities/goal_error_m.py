"""How far from its goal a body ends."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.goal import arrival
from wendonic.study.quantity import quantity


@quantity(430, "m", "how far from a goal {goal_m:g} m away the body comes to rest")
def goal_error_m(bench: Bench) -> float | None:
    """Walk there."""
    return arrival(bench).error_m
