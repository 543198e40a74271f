"""How long before landing a press still counts."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity


@quantity(270, "s", "how long before landing a press still counts, air jumps excluded")
def jump_buffer_s(bench: Bench) -> float | None:
    """Press earlier and earlier before landing."""
    return bench.jump.longest_early_s()
