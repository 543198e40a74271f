"""Recordings on disk as CSV: one event a row, for spreadsheets and other tools."""

import csv
import io
from collections.abc import Iterable, Iterator
from pathlib import Path

from wendonic.atomic_file import atomic_file, file_content
from wendonic.devices.controls import CONTROLS, TEXTS
from wendonic.errors import Fault, RecordingError
from wendonic.recording.content import (
    COLUMNS,
    NUMBER_COLUMNS,
    Content,
    Entry,
    numbers_of,
    ordered_events,
    other_columns,
)

"""Time (s), control, its numbers (a pose has seven), or its text; what a control does not have is empty."""


def write_csv(content: Content, path: str | Path) -> None:
    """Write the events to `path`, whole or not at all. Floats are read back bit for bit; CSV cannot hold a title."""
    with atomic_file(path) as beside, beside.open("w", encoding="utf-8", newline="") as file:
        writer = csv.writer(file)
        writer.writerow(COLUMNS)
        for t, control, value in content.events:
            text = value if isinstance(value, str) else ""
            numbers = list(map(repr, numbers_of(value)))
            writer.writerow((repr(t), control, *numbers, *[""] * (len(NUMBER_COLUMNS) - len(numbers)), text))


def read_csv(path: str | Path) -> Content:
    """Return the events in the file at `path`; raises `RecordingError` with every fault's line at once."""
    try:
        text = file_content(path, "recording", RecordingError).decode("utf-8-sig")
    except UnicodeDecodeError:
        raise RecordingError(path, [Fault(None, "", "is not UTF-8 text")]) from None
    faults: list[Fault] = []
    # Line ends inside quotes belong to a note, so they stay as they are.
    events = ordered_events(_entries(io.StringIO(text, newline=""), faults), faults)
    if faults:
        raise RecordingError(path, sorted(faults, key=lambda fault: fault.line or 0))
    return Content(events, "", {}, ())


def _entries(lines: Iterable[str], faults: list[Fault]) -> Iterator[Entry]:
    reader = csv.DictReader(lines, strict=True)
    try:
        found = reader.fieldnames or ()
        if not {"t", "c", "v0", "text"} <= set(found):
            faults.append(Fault(1, "", other_columns(found)))
            return
        for row in reader:
            yield Entry(reader.line_num, "", _number(row["t"]), row["c"], _value(row))
    except csv.Error as error:
        faults.append(Fault(reader.line_num, "", f"is not valid CSV: {error}"))


def _value(row: dict[str, str]) -> object:
    control = CONTROLS.get(row["c"])
    if control is None or control.kind in TEXTS:
        return row["text"]
    numbers = tuple(_number(row.get(column, "")) for column in NUMBER_COLUMNS[: max(control.width, 1)])
    return numbers if len(numbers) > 1 else numbers[0]


def _number(text: str) -> float | str:
    """Return `text` as a number, or `text` itself, which the check of the event will report."""
    try:
        return float(text)
    except (ValueError, TypeError):
        return text
