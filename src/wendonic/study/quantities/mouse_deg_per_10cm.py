"""Turn by 10 cm of mouse, at 20 cm/s."""

from wendonic.profile.schema.look_binds import MouseBind
from wendonic.study.bench import Bench
from wendonic.study.look_response import USUAL_HAND_CM_S, swipe_deg
from wendonic.study.quantity import quantity


@quantity(190, "deg", "turn by 10 cm of mouse, at 20 cm/s")
def mouse_deg_per_10cm(bench: Bench) -> float | None:
    """Swipe the first mouse."""
    for bind in bench.table.look.bind if bench.table.look else ():
        if isinstance(bind, MouseBind):
            return swipe_deg(bind, [10.0], USUAL_HAND_CM_S)[0]
    return None
