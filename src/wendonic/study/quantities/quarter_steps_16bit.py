"""Steps of a 16-bit stick or trigger within the first quarter of speed."""

from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere


@quantity(170, "steps", "steps of a 16-bit stick or trigger in the first quarter of speed")
def quarter_steps_16bit(bench: Bench) -> int:
    """Count them straight ahead."""
    stick = bench.stick_response
    if stick.paces:
        raise NotHere("paces: there is no quarter of speed")
    if not stick.steps_to_rim():
        raise NotHere("no stick or trigger of a pad")
    return stick.steps_in_first_quarter(bits=16)
