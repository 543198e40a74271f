"""Turn by 10 cm of mouse."""

from wendonic.profile.schema.look_binds import MouseBind
from wendonic.study.bench import Bench
from wendonic.study.measuring.look_response import swipe_deg
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere


@quantity(190, "deg", "turn for 10 cm of mouse travel at {hand_cm_s:g} cm/s")
def mouse_deg_per_10cm(bench: Bench) -> float | None:
    """Swipe the mouse to the right, or up if it only turns the view up and down."""
    bind = bench.look_entry(MouseBind)
    if bind is None:
        raise NotHere("no mouse turns the view")
    return swipe_deg(bind, [10.0], bench.thresholds.hand_cm_s)[0] * bench.zoom_scale
