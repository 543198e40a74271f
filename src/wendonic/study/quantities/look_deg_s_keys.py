"""Turn rate of keys that turn the view."""

from wendonic.profile.schema.look_binds import LookKeysBind
from wendonic.study.bench import Bench
from wendonic.study.measuring.look_response import press_deg
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere

HELD_S = 1.0


@quantity(215, "deg/s", "turn rate of a held key that turns the view, once it has eased in")
def look_deg_s_keys(bench: Bench) -> float | None:
    """Hold a key for right, or one for up if none turns the view sideways."""
    bind = bench.look_entry(LookKeysBind)
    if bind is None or not (bind.sideways or bind.keys.up or bind.keys.down):
        raise NotHere("no key turns the view at a rate")
    eased_deg, turned_deg = press_deg(bind, [bind.ease_s, bind.ease_s + HELD_S])
    return (turned_deg - eased_deg) / HELD_S * bench.zoom_scale
