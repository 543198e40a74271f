"""How long after leaving the ground a press still counts."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity


@quantity(280, "s", "how long after leaving the ground a press still counts, air jumps excluded")
def jump_grace_s(bench: Bench) -> float | None:
    """Press later and later after leaving the ground."""
    return bench.jump.longest_late_s()
