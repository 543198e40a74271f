"""Turn by 10 cm of mouse."""

from wendonic.profile.schema.look_binds import MouseBind
from wendonic.study.bench import Bench
from wendonic.study.measuring.look_response import swipe_deg
from wendonic.study.probes.walker import known_as
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere


@quantity(190, "deg", "turn for 10 cm of mouse travel at {hand_cm_s:g} cm/s")
def mouse_deg_per_10cm(bench: Bench) -> float | None:
    """Swipe the first mouse."""
    for bind in bench.table.look.bind if bench.table.look else ():
        if isinstance(bind, MouseBind) and (not bench.by or bench.by in known_as(bind)):
            return swipe_deg(bind, [10.0], bench.thresholds.hand_cm_s)[0] * bench.zoom_scale
    raise NotHere("no mouse turns the view")
