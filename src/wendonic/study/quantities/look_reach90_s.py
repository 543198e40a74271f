"""How quickly a turn of the view reaches its full rate."""

from wendonic.profile.schema.look_binds import LookKeysBind, LookStickBind
from wendonic.study.bench import Bench
from wendonic.study.measuring.look_response import ease_reached_s
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere


@quantity(217, "s", "look stick, else a key: from a full tilt or press to {most:.0%} of its full turn rate")
def look_reach90_s(bench: Bench) -> float | None:
    """Tilt or press all at once; the boost at the rim is left out."""
    bind = bench.look_entry(LookStickBind) or bench.look_entry(LookKeysBind)
    if bind is None:
        raise NotHere("no stick and no key turns the view at a rate")
    return ease_reached_s(bind, bench.thresholds.most)
