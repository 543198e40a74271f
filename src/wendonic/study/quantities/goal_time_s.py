"""Time to a goal."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.goal import arrival
from wendonic.study.quantity import quantity


@quantity(410, "s", "from pointing at a goal {goal_m:g} m away to arriving there")
def goal_time_s(bench: Bench) -> float | None:
    """Walk there."""
    return arrival(bench).time_s
