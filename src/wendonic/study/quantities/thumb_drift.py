"""How far a thumb's middle has moved after an overlong slide."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.thumb import slide
from wendonic.study.quantity import quantity


@quantity(520, "window heights", "touch: how far the middle has moved after a slide of twice the radius")
def thumb_drift(bench: Bench) -> float | None:
    """Slide twice as far as the stick reaches, and back to where the thumb landed."""
    return slide(bench).drift
