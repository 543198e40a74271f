"""Recordings on disk as Parquet (extra `parquet`): columns, for long recordings and quick reading."""

import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from wendonic.devices.controls import CONTROLS
from wendonic.devices.event import Value
from wendonic.errors import Fault, RecordingError, WendonicError
from wendonic.recording.content import FORMAT, Content, Entry, content_under, full_header, ordered_events
from wendonic.whole_file import file_content, whole_file


def _pyarrow() -> Any:
    try:
        import pyarrow
        import pyarrow.parquet
    except ImportError:
        raise WendonicError("Parquet needs PyArrow: pip install 'wendonic[parquet]'") from None
    return pyarrow


def write_parquet(content: Content, devices: tuple[str, ...], path: str | Path) -> None:
    """Write the events to `path`, whole or not at all: columns t, c, v0, v1 and text, the header as metadata."""
    pyarrow = _pyarrow()
    values = [event.value for event in content.events]
    pairs = [_numbers(value) for value in values]
    header = json.dumps(full_header(content.title, devices, content.header))
    table = pyarrow.table(
        {
            "t": pyarrow.array([event.t for event in content.events], pyarrow.float64()),
            "c": pyarrow.array([event.control for event in content.events], pyarrow.string()).dictionary_encode(),
            "v0": pyarrow.array([pair[0] for pair in pairs], pyarrow.float64()),
            "v1": pyarrow.array([pair[1] for pair in pairs], pyarrow.float64()),
            "text": pyarrow.array([value if isinstance(value, str) else None for value in values], pyarrow.string()),
        }
    ).replace_schema_metadata({FORMAT: header})
    with whole_file(path) as beside:
        pyarrow.parquet.write_table(table, beside)


def read_parquet(path: str | Path) -> Content:
    """Return the recording in the file at `path`; raises `RecordingError` with every faulty row (from 0) at once."""
    pyarrow = _pyarrow()
    raw = file_content(path, "recording", RecordingError)
    try:
        table = pyarrow.parquet.read_table(pyarrow.BufferReader(raw))
        header = json.loads((table.schema.metadata or {}).get(FORMAT.encode(), b"{}"))
        columns = [table.column(name).to_pylist() for name in ("t", "c", "v0", "v1", "text")]
    except (pyarrow.ArrowException, OSError, ValueError) as error:
        raise RecordingError(path, [Fault(None, "", f"is no Parquet file: {error}")]) from None
    except KeyError:
        found = ", ".join(table.column_names)
        raise RecordingError(path, [Fault(None, "", f"found columns {found}; allowed: t, c, v0, v1, text")]) from None
    faults: list[Fault] = []
    events = ordered_events(_entries(columns), faults)
    if faults:
        raise RecordingError(path, faults)
    return content_under(header if isinstance(header, dict) else {}, events)


def _entries(columns: list[list[Any]]) -> Iterator[Entry]:
    for number, (t, name, first, second, text) in enumerate(zip(*columns, strict=True)):
        control = CONTROLS.get(name)
        width, kind = (control.width, control.kind) if control else (1, None)
        value = (first, second) if width == 2 else text if kind == "mark" else first
        yield Entry(None, f"row {number}", t, name, value)


def _numbers(value: Value) -> tuple[float | None, float | None]:
    if isinstance(value, str):
        return None, None
    return (value[0], value[1]) if isinstance(value, tuple) else (value, None)
