"""From the first swing to half of the request."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.swing import swing
from wendonic.study.quantity import quantity


@quantity(620, "s", "hands: from the start of the first swing to {half:.0%} of the request")
def swing_delay_s(bench: Bench) -> float | None:
    """Swing both hands."""
    return swing(bench).delay_s
