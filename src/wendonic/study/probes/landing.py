"""Places for a thumb to land where it does one thing only."""

from wendonic.devices.sources.zone import Zone
from wendonic.profile.schema.mode import Mode
from wendonic.profile.schema.move_binds import TouchStickBind, TouchZonesBind
from wendonic.profile.schema.press import ZoneEntry
from wendonic.profile.schema.window import Window, ZoneTable


def landing_window(mode: Mode, window: Window) -> Window:
    """Return the window with the zones of sticks under the thumb made smaller, so that no other zone of the mode
    overlaps them: a finger that lands in two zones does two things. A zone with a place of its own stays as it is.

    >>> from wendonic.demo import demo_profile
    >>> lands = {"mode.inspect.move.bind[0].touch_stick": "thumb", "mode.inspect.move.bind[0].middle": "landing"}
    >>> tablet = demo_profile("tablet").changed(lands)
    >>> landing_window(tablet.mode["inspect"], tablet.window).zone_of("thumb").left
    0.25
    """
    binds = mode.move.bind if mode.move else ()
    lists = [bind.touch_zones.lists() for bind in binds if isinstance(bind, TouchZonesBind)]
    others = [name for of_entry in lists for names in of_entry.values() for name in names]
    others += [one.zone for press in mode.press.values() for one in press.bind if isinstance(one, ZoneEntry)]
    zones = dict(window.zone)
    for bind in binds:
        if isinstance(bind, TouchStickBind) and bind.middle == "landing":
            free = window.zone_of(bind.touch_stick)
            for other in others:
                free = _beside(free, window.zone_of(other))
            zones[bind.touch_stick] = ZoneTable(left=free.left, top=free.top, right=free.right, bottom=free.bottom)
    return window.model_copy(update={"zone": zones})


def _beside(zone: Zone, other: Zone) -> Zone:
    """Return the largest part of a zone beside another one; all of it if nothing would be left."""
    if other.left >= zone.right or other.right <= zone.left or other.top >= zone.bottom or other.bottom <= zone.top:
        return zone
    strips = (
        zone._replace(right=other.left),
        zone._replace(left=other.right),
        zone._replace(bottom=other.top),
        zone._replace(top=other.bottom),
    )
    largest = max(strips, key=_area)
    return largest if _area(largest) > 0.0 else zone


def _area(zone: Zone) -> float:
    return max(zone.right - zone.left, 0.0) * max(zone.bottom - zone.top, 0.0)
