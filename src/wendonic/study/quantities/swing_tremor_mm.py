"""Smallest tremor of resting hands that moves the body."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.swing import tremor_that_walks_mm
from wendonic.study.quantity import quantity


@quantity(640, "mm", "hands: smallest tremor of still hands that walks, as a standard deviation")
def swing_tremor_mm(bench: Bench) -> float | None:
    """Hold both hands still, and let them tremble more and more."""
    return tremor_that_walks_mm(bench)
