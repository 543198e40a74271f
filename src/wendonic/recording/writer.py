"""Writes a recording event by event."""

import json
import math
from pathlib import Path
from typing import IO

from wendonic.atomic_file import file_content
from wendonic.devices.controls import DEVICES, find_control
from wendonic.devices.event import Event, checked_event
from wendonic.errors import Fault, RecordingError
from wendonic.recording.content import falling_time, full_header
from wendonic.recording.json_lines import event_line, read_json_lines


class RecordingWriter:
    """Appends events to a recording file one by one, each flushed: a crash loses at most the last line.

    An existing file is continued: its header stays, a cut-off last line is removed, and times may not fall below its
    last event. `devices` go into a new file's header; without them it gets those of its events when it is closed.

    >>> import tempfile
    >>> from wendonic import Recording
    >>> with tempfile.TemporaryDirectory() as folder:
    ...     with RecordingWriter(f"{folder}/walk.jsonl", title="Three steps", devices=("keys",)) as writer:
    ...         writer.append(Event(0.0, "key.KeyW", 1))
    ...     with RecordingWriter(f"{folder}/walk.jsonl") as writer:
    ...         writer.append(Event(1.5, "key.KeyW", 0))
    ...     Recording.read(f"{folder}/walk.jsonl")
    <Recording "Three steps": 2 events in 1.500 s, keys>
    """

    def __init__(self, path: str | Path, title: str = "", devices: tuple[str, ...] = ()) -> None:
        """Open `path` to append; raises `RecordingError` if the file exists and is not a valid recording."""
        self.path = Path(path)
        if self.path.suffix.lower() != ".jsonl":
            what = "cannot be recorded to event by event; name a .jsonl file, and convert it afterwards"
            raise RecordingError(path, [Fault(None, "", what)])
        self._last_t = -math.inf
        content = file_content(path, "recording", RecordingError) if self.path.exists() else b""
        if content:
            earlier = read_json_lines(path)
            self._last_t = earlier.events[-1].t if earlier.events else -math.inf
            if earlier.warnings:
                content = content[: content.rindex(b"\n") + 1]
        try:
            self._file: IO[bytes] = self.path.open("r+b" if content else "wb")
            self._file.truncate(len(content))
            self._file.seek(0, 2)
            self._title, self._seen = title, set[str]()
            self._names_devices = not content and not devices
            if not content:
                # Space for every device, since a header cannot grow once events follow it.
                room = len(json.dumps(full_header(title, tuple(DEVICES), {})).encode())
                self._write(json.dumps(full_header(title, devices, {})).ljust(0 if devices else room))
            elif not content.endswith(b"\n"):
                self._file.write(b"\n")
        except OSError as error:
            raise RecordingError(path, [Fault(None, "", f"cannot be written: {error.strerror or error}")]) from error

    def append(self, event: Event) -> None:
        """Check the event, write it and flush.

        Raises `ControlError` for a control or value that a recording may not hold, `RecordingError` for a time
        that falls; nothing is written then.
        """
        checked = checked_event(*event)
        if checked.t < self._last_t:
            raise RecordingError(self.path, [Fault(None, "", falling_time(self._last_t, checked.t))])
        self._last_t = checked.t
        if self._names_devices and (device := find_control(checked.control).device):
            self._seen.add(device)
        self._write(event_line(checked))

    def _write(self, line: str) -> None:
        self._file.write(line.encode() + b"\n")
        self._file.flush()

    def close(self) -> None:
        """Write the devices into the header, and close the file; no event is pending."""
        if self._names_devices and not self._file.closed:
            devices = tuple(device for device in DEVICES if device in self._seen)
            self._file.seek(0)
            self._file.write(json.dumps(full_header(self._title, devices, {})).encode())
        self._file.close()

    def __enter__(self) -> "RecordingWriter":
        """Return the writer."""
        return self

    def __exit__(self, *_: object) -> None:
        """Close the file."""
        self.close()
