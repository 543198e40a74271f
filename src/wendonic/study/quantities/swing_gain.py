"""Walking speed per speed of the swinging hands."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.swing import swing
from wendonic.study.quantity import quantity


@quantity(610, "", "hands: walking speed for each m/s of the hands, swinging at {swing_m_s:g} m/s")
def swing_gain(bench: Bench) -> float | None:
    """Swing both hands."""
    return swing(bench).gain
