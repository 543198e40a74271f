"""How much the request dips when a swing reverses."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.swing import swing
from wendonic.study.quantity import quantity


@quantity(630, "", "hands: share of the request that is lost when a swing turns")
def swing_dip(bench: Bench) -> float | None:
    """Swing both hands."""
    return swing(bench).dip
