"""How far a thumb slides to full."""

from wendonic.study.bench import Bench
from wendonic.study.measuring.thumb import slide
from wendonic.study.quantity import quantity


@quantity(510, "window heights", "touch: how far a thumb slides to full amount")
def thumb_travel(bench: Bench) -> float | None:
    """Slide a thumb ahead until input is full."""
    return slide(bench).travel
