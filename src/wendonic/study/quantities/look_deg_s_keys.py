"""Turn rate of keys that turn the view."""

from wendonic.profile.schema.look_binds import LookKeysBind
from wendonic.study.bench import Bench
from wendonic.study.probes.walker import known_as
from wendonic.study.quantity import quantity
from wendonic.study.settled import SETTLE_S, settled_request
from wendonic.study.unmeasured import NotHere


@quantity(215, "deg/s", "turn rate of a held key that turns the view, once it has eased in")
def look_deg_s_keys(bench: Bench) -> float | None:
    """Hold the first key for right or left."""
    for bind in bench.table.look.bind if bench.table.look else ():
        if isinstance(bind, LookKeysBind) and bind.snap_deg is None and (not bench.by or bench.by in known_as(bind)):
            for code in (*bind.keys.right, *bind.keys.left):
                turned_deg, _ = settled_request(bench.looking, "look", f"key.{code}", 1.0)
                return abs(turned_deg) / (SETTLE_S - 0.5 * bind.ease_s) * bench.zoom_scale
    raise NotHere("no key turns the view at a rate")
