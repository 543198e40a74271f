"""Turn up and down over turn to the side."""

from wendonic.profile.schema.look_binds import LookKeysBind, LookStickBind, MouseBind
from wendonic.profile.schema.number_rows import NumberRows
from wendonic.study.bench import Bench
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere


@quantity(222, "", "turn up over turn to the right, by the same swipe, else by the same tilt or press")
def look_pitch_ratio(bench: Bench) -> float | None:
    """Measured with the mouse, otherwise with the look stick, otherwise with keys."""
    for kind in (MouseBind, LookStickBind, LookKeysBind):
        bind = bench.look_entry(kind)
        if bind is not None and bind.turns == "both":
            tuning = bind.kind_tuning(NumberRows(), ())
            if tuning.yaw > 0.0:
                return tuning.pitch / tuning.yaw
    raise NotHere("nothing turns the view both ways")
