"""Steps of a 16-bit stick within the first quarter of speed."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity


@quantity(170, "steps", "steps of a 16-bit stick within the first quarter of speed")
def quarter_steps_16bit(bench: Bench) -> int | None:
    """Count them straight ahead."""
    stick = bench.stick_response
    return stick.steps_in_first_quarter(32767) if stick and not stick.paces else None
