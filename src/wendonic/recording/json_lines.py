"""Recordings on disk as JSON Lines: a header, then one event a line."""

import gc
import json
import logging
import math
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import Any

from wendonic.atomic_file import atomic_file, file_content
from wendonic.devices.event import Event
from wendonic.errors import Fault, RecordingError, did_you_mean
from wendonic.recording.columns import ColumnEvents, columns_of
from wendonic.recording.content import (
    FORMAT,
    VERSION,
    Content,
    Entry,
    content_under,
    full_header,
    ordered_events,
    plain_events,
)

MANY = 100
"""Number of events from which columns are faster."""

_log = logging.getLogger(__name__)


def read_json_lines(path: str | Path) -> Content:
    """Return the content of the recording file at `path`.

    An incomplete last line without a line end was cut off by a crash: it is left out, with a warning in the log and
    in `warnings`. Every other fault is an error; all of them are reported at once.
    """
    content = file_content(path, "recording", RecordingError)
    if not content.strip():
        raise RecordingError(path, [Fault(None, "", "is empty; a recording begins with a header line")])
    lines = content.split(b"\n")
    last_line = lines.pop()
    faults: list[Fault] = []
    warnings: tuple[str, ...] = ()
    if last_line.strip():
        if _is_whole(last_line) or not lines:
            lines.append(last_line)
        else:
            warnings = (f"{path}: line {len(lines) + 1}: cut off, and ignored",)
    header = _header(path, lines[0])
    for words in warnings:
        _log.warning(words)
    if b"\0" in lines[0]:
        # PowerShell redirects output as UTF-16, and the parser accepts its first line.
        raise RecordingError(path, [Fault(1, "", "is not UTF-8 text; save the recording as UTF-8")])
    events = _plain_events(lines[1:])
    if events is None:
        events = ordered_events(_entries(lines, faults), faults)
    if faults:
        raise RecordingError(path, sorted(faults, key=lambda fault: fault.line or 0))
    return content_under(header, events, warnings)


def _plain_events(lines: list[bytes]) -> Sequence[Event] | None:
    """Return the events if every line is one valid entry; one call of the parser for all lines is far faster."""
    collects = gc.isenabled()
    # Parsed JSON has no reference cycles, and the garbage collector's search for them takes half of the time.
    gc.disable()
    try:
        entries = json.loads(b"[" + b",".join(lines) + b"]")
    except (ValueError, RecursionError):
        return None
    finally:
        if collects:
            gc.enable()
    if len(entries) != len(lines):
        return None
    columns = columns_of(entries) if len(entries) >= MANY else None
    return plain_events(entries) if columns is None else ColumnEvents(columns)


def _is_whole(line: bytes) -> bool:
    try:
        return isinstance(json.loads(line), dict)
    except (ValueError, RecursionError):
        return False


def _header(path: str | Path, line: bytes) -> dict[str, Any]:
    try:
        header = json.loads(line)
    except (ValueError, RecursionError):
        header = None
    if not isinstance(header, dict) or "format" not in header:
        what = f'no header; allowed: {{"format": "{FORMAT}", "version": {VERSION}, ...}}; is it a recording at all?'
        if b"\0" in line:
            what = "is not text; a Linux input capture is read by: wendonic convert IN OUT --format linux-input"
        raise RecordingError(path, [Fault(1, "", what)])
    found = header["format"]
    if found != FORMAT:
        guess = did_you_mean(str(found), [FORMAT])
        raise RecordingError(path, [Fault(1, "format", f'found {found!r}; allowed: "{FORMAT}"{guess}')])
    if header.get("version") != VERSION:
        what = f"found {header.get('version')!r}; this Wendonic reads version {VERSION}"
        raise RecordingError(path, [Fault(1, "version", what)])
    return header


def _entries(lines: list[bytes], faults: list[Fault]) -> Iterator[Entry]:
    for number, line in enumerate(lines[1:], start=2):
        if not line.strip():
            continue
        try:
            entry = json.loads(line)
            yield Entry(number, "", entry["t"], entry["c"], entry["v"])
        except (ValueError, RecursionError):
            faults.append(Fault(number, "", f"found {_shown(line)}; allowed: one JSON object"))
        except (KeyError, TypeError):
            faults.append(Fault(number, "", f'found {_shown(line)}; allowed: an object with "t", "c" and "v"'))


def _shown(line: bytes) -> str:
    text = line.decode("utf-8", "backslashreplace").strip()
    return repr(text if len(text) <= 40 else text[:37] + "...")


def event_line(event: Event) -> str:
    """Return one event as a line; every float is read back bit for bit.

    >>> event_line(Event(0.016667, "key.KeyW", 1.0))
    '{"t": 0.016667, "c": "key.KeyW", "v": 1}'
    """
    value: object = event.value
    if isinstance(value, float) and value in (0.0, 1.0) and math.copysign(1.0, value) > 0.0:
        value = int(value)
    return json.dumps({"t": event.t, "c": event.control, "v": value})


def write_json_lines(content: Content, devices: tuple[str, ...], path: str | Path) -> None:
    """Write a header line and the events to `path`, whole or not at all."""
    with atomic_file(path) as beside, beside.open("w", encoding="utf-8", newline="\n") as file:
        file.write(json.dumps(full_header(content.title, devices, content.header)) + "\n")
        file.writelines(event_line(event) + "\n" for event in content.events)
