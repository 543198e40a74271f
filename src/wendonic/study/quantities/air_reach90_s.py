"""How quickly a body gets going in the air."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.in_air import air_start_s
from wendonic.study.quantity import quantity


@quantity(262, "s", "in the air, from a full press at rest to {most:.0%} of top speed")
def air_reach90_s(bench: Bench) -> float | None:
    """Press in the direction that the mode is measured in, and keep falling."""
    return air_start_s(bench)
