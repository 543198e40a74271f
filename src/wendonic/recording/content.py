"""The content of a recording file in any format, and the checks that all formats share."""

import math
from collections.abc import Iterable, Sequence
from typing import Any, NamedTuple

from wendonic.devices.controls import CONTROLS
from wendonic.devices.event import Event, Value, checked_event, fitting_value
from wendonic.errors import ControlError, Fault, first_of

FORMAT = "wendonic-recording"
VERSION = 1


NUMBER_COLUMNS = tuple(f"v{index}" for index in range(max(control.width for control in CONTROLS.values())))
"""Columns for an event's numbers in formats with columns: a pose has the most."""
COLUMNS = ("t", "c", *NUMBER_COLUMNS, "text")
TRACE_BEGINS = ("tick", "t", "dt", "mode", "device")
SHOWN_COLUMNS = 8
"""Number of columns of a foreign table that a message names."""


class Content(NamedTuple):
    """The content of a recording file: `header` has entries that the format does not define, `warnings` says what was
    left out.
    """

    events: Sequence[Event]
    title: str
    header: dict[str, Any]
    warnings: tuple[str, ...]


class Entry(NamedTuple):
    """An event that has not been checked yet, and its place: a line number, or in words."""

    line: int | None
    where: str
    t: object
    control: object
    value: object


def ordered_events(entries: Iterable[Entry], faults: list[Fault]) -> list[Event]:
    """Return the valid events; every other event, and every falling time, is added to `faults`."""
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


_WIDTHS = {name: control.width for name, control in CONTROLS.items() if name == control.name and control.width}
_NUMBERS: Any = frozenset({int, float})


def plain_events(entries: list[dict[str, Any]]) -> list[Event] | None:
    """Return the events of entries that are all valid and in their usual spelling; None if one is not.

    Nearly every file is, and this is several times as fast as looking for faults.

    >>> plain_events([{"t": 0.5, "c": "key.KeyW", "v": 1}]), plain_events([{"t": 0.5, "c": "key.KeyW", "v": [1]}])
    ([Event(t=0.5, control='key.KeyW', value=1.0)], None)
    """
    events: list[Event] = []
    append, make, width_of = events.append, tuple.__new__, _WIDTHS.get
    last_t = -math.inf
    for entry in entries:
        try:
            t: Any = entry["t"]
            control: Any = entry["c"]
            value: Any = entry["v"]
            width = width_of(control)
            # Zero times a number that is not finite is not zero.
            if width == 1 and value.__class__ in _NUMBERS and value * 0 == 0:
                value = float(value)
            elif width and width > 1 and value.__class__ is list and len(value) == width:
                value = tuple([float(number) for number in value if number.__class__ in _NUMBERS and number * 0 == 0])
                if len(value) != width:
                    return None
            else:
                value = fitting_value(CONTROLS[control], value)
                control = CONTROLS[control].name
            if t.__class__ not in _NUMBERS:
                return None
            t = float(t)
        except (KeyError, TypeError, ControlError, OverflowError):
            return None
        if not last_t <= t < math.inf:
            return None
        last_t = t
        append(make(Event, (t, control, value)))
    return events


def falling_time(last_t: float, t: float) -> str:
    """Return the fault of an event at `t` after one at `last_t`."""
    return f"t falls from {last_t!r} to {t!r}; allowed: t never falls"


def full_header(title: str, devices: tuple[str, ...], header: dict[str, Any]) -> dict[str, Any]:
    """Return a header with everything that the format defines, in its order."""
    first = {"format": FORMAT, "version": VERSION, "title": title, "devices": list(devices)}
    return first | {key: entry for key, entry in header.items() if key not in first}


def content_under(header: dict[str, Any], events: Sequence[Event], warnings: tuple[str, ...] = ()) -> Content:
    """Return the content of a recording with a full header, split into its parts."""
    rest = {key: entry for key, entry in header.items() if key not in ("format", "version", "title", "devices")}
    return Content(events, str(header.get("title", "")), rest, warnings)


def numbers_of(value: Value) -> tuple[float, ...]:
    """Return the numbers of an event's value, none for a text."""
    if isinstance(value, tuple):
        return value
    return () if isinstance(value, str) else (value,)


def other_columns(found: Sequence[str]) -> str:
    """Return the fault of a table whose columns are not those of a recording.

    >>> other_columns(["time", "x"])
    'found columns time, x; allowed: t, c, v0, v1, v2, v3, v4, v5, v6, text'
    >>> other_columns(["tick", "t", "dt", "mode", "device", "raw_x"]).partition(", with")[0]
    'is a trace, which `wendonic shape` wrote; allowed: a recording'
    """
    allowed = ", ".join(COLUMNS)
    if tuple(found[: len(TRACE_BEGINS)]) == TRACE_BEGINS:
        return f"is a trace, which `wendonic shape` wrote; allowed: a recording, with columns {allowed}"
    return f"found columns {first_of(found, SHOWN_COLUMNS) or 'none'}; allowed: {allowed}"
