"""Turn by a dragged finger."""

from wendonic.profile.schema.look_binds import TouchDragBind
from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere


@quantity(194, "deg", "turn for a finger dragged across the whole window")
def finger_deg_per_width(bench: Bench) -> float | None:
    """Drag to the right, or up if it only turns the view up and down."""
    bind = bench.look_entry(TouchDragBind)
    if bind is None:
        raise NotHere("no dragged finger turns the view")
    return bind.deg_per_width * bench.zoom_scale
