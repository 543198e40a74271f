"""How to press and release a control of any kind."""

from typing import Any

from wendonic.devices.event import Event
from wendonic.devices.sources.presses import TOWARDS
from wendonic.profile.schema.press import StickEntry, TriggerEntry, ZoneEntry
from wendonic.profile.schema.profile import Profile


def entry_changes(profile: Profile, entry: Any) -> tuple[list[Event], list[Event]]:
    """Return the changes that press a control, and those that release it."""
    if isinstance(entry, str):
        names = entry.split("+")
        return [Event(0.0, name, 1.0) for name in names], [Event(0.0, name, 0.0) for name in names]
    if isinstance(entry, TriggerEntry):
        return [Event(0.0, entry.control, 1.0)], [Event(0.0, entry.control, 0.0)]
    if isinstance(entry, ZoneEntry):
        x, y = profile.window.zone_of(entry.zone).middle
        return [Event(0.0, "touch.0", (x, y, 1.0))], [Event(0.0, "touch.0", (x, y, 0.0))]
    if isinstance(entry, StickEntry):
        place, sign = TOWARDS[entry.towards]
        tilted = (0.0, sign) if place else (sign, 0.0)
        return [Event(0.0, entry.stick, tilted)], [Event(0.0, entry.stick, (0.0, 0.0))]
    notches = 1.0 if entry.wheel == "towards" else -1.0
    return [Event(0.0, "mouse.wheel", notches)], []
