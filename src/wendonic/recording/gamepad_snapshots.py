"""Snapshots of a pad as a web page sees them (W3C Gamepad, "standard" layout), one JSON object a line."""

import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from wendonic.atomic_file import file_content
from wendonic.devices.controls import PAD_BUTTONS
from wendonic.errors import Fault, RecordingError
from wendonic.recording.content import Content, Entry, ordered_events


def read_gamepad_snapshots(path: str | Path) -> Content:
    """Return the changes from snapshot to snapshot as events; times begin at 0.

    A line holds `timestamp` (ms), `axes` (two for each stick) and `buttons`, each a number 0..1 or an object with
    `value` or `pressed`, in the order of the "standard" layout; anything beyond its 4 axes and 17 buttons is ignored.
    Raises `RecordingError` with every faulty line at once.
    """
    content = file_content(path, "recording", RecordingError)
    faults: list[Fault] = []
    events = ordered_events(_entries(content.split(b"\n"), faults), faults)
    if not events and not faults:
        faults.append(Fault(None, "", "has no snapshots"))
    if faults:
        raise RecordingError(path, sorted(faults, key=lambda fault: fault.line or 0))
    return Content(events, "", {}, ())


def _entries(lines: list[bytes], faults: list[Fault]) -> Iterator[Entry]:
    last: dict[str, object] = {}
    first_ms: float | None = None
    for number, line in enumerate(lines, start=1):
        if not line.strip():
            continue
        try:
            snapshot = json.loads(line)
            time_ms = float(snapshot["timestamp"])
            values = dict(_values(snapshot["axes"], snapshot["buttons"]))
        except (ValueError, TypeError, KeyError, AttributeError, RecursionError):
            what = 'is not a snapshot; allowed: {"timestamp": ..., "axes": [...], "buttons": [...]}'
            faults.append(Fault(number, "", what))
            continue
        first_ms = time_ms if first_ms is None else first_ms
        for control, value in values.items():
            # The first snapshot gives what is not at rest, and where the sticks are.
            if last.get(control, 0.0) != value:
                yield Entry(number, "", (time_ms - first_ms) / 1000.0, control, value)
        last |= values


def _values(axes: list[float], buttons: list[Any]) -> Iterator[tuple[str, object]]:
    for stick, start in (("pad.left_stick", 0), ("pad.right_stick", 2)):
        if len(axes) >= start + 2:
            yield stick, (axes[start], axes[start + 1])
    for name, button in zip(PAD_BUTTONS, buttons, strict=False):
        if isinstance(button, dict):
            pressed = float(bool(button.get("pressed")))
            yield f"pad.{name}", button.get("value", pressed)
        else:
            yield f"pad.{name}", float(button)
