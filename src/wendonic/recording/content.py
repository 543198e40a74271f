"""What stands in a recording file, whatever its format, and what every format has to check."""

import math
from collections.abc import Iterable
from typing import Any, NamedTuple

from wendonic.devices.event import Event, checked_event
from wendonic.errors import ControlError, Fault

FORMAT = "wendonic-recording"
VERSION = 1


class Content(NamedTuple):
    """What stands in a recording file: `header` holds what the format does not name, `warnings` what was left out."""

    events: list[Event]
    title: str
    header: dict[str, Any]
    warnings: tuple[str, ...]


class Entry(NamedTuple):
    """An event that nobody has looked at yet, and where it stands: on a line, or in words."""

    line: int | None
    where: str
    t: object
    control: object
    value: object


def ordered_events(entries: Iterable[Entry], faults: list[Fault]) -> list[Event]:
    """Return the good events; a misfit, or a time that falls, is added to `faults`."""
    events: list[Event] = []
    last_t = -math.inf
    for line, where, t, control, value in entries:
        try:
            event = checked_event(t, control, value)
        except ControlError as error:
            faults.append(Fault(line, where, str(error)))
            continue
        if event.t < last_t:
            faults.append(Fault(line, where, falling_time(last_t, event.t)))
        last_t = event.t
        events.append(event)
    return events


def falling_time(last_t: float, t: float) -> str:
    """Return what is wrong with an event at `t` after one at `last_t`."""
    return f"t falls from {last_t!r} to {t!r}; allowed: t never falls"


def full_header(title: str, devices: tuple[str, ...], header: dict[str, Any]) -> dict[str, Any]:
    """Return a header with everything that the format names, in its order."""
    named = {"format": FORMAT, "version": VERSION, "title": title, "devices": list(devices)}
    return named | {key: entry for key, entry in header.items() if key not in named}


def content_under(header: dict[str, Any], events: list[Event], warnings: tuple[str, ...] = ()) -> Content:
    """Return the events under a full header, taken apart again."""
    rest = {key: entry for key, entry in header.items() if key not in ("format", "version", "title", "devices")}
    return Content(events, str(header.get("title", "")), rest, warnings)
