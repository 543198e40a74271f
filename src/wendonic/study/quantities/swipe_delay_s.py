"""Delay of the turn of a swipe."""

from wendonic.profile.schema.look_binds import MouseBind, TouchDragBind
from wendonic.study.bench import Bench
from wendonic.study.measuring.look_response import swipe_delay_s as delay_s
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere


@quantity(192, "s", "from a swipe of the mouse, else of a finger, to {half:.0%} of its turn")
def swipe_delay_s(bench: Bench) -> float | None:
    """Swipe in an instant, and follow how smoothing hands the turn out."""
    bind = bench.look_entry(MouseBind) or bench.look_entry(TouchDragBind)
    if bind is None:
        raise NotHere("no mouse and no finger turns the view")
    return delay_s(bind, bench.thresholds.half)
