"""Recordings on disk as Parquet (extra `parquet`): columns, for long recordings and quick reading."""

import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from wendonic.atomic_file import atomic_file, file_content
from wendonic.devices.controls import CONTROLS, TEXTS
from wendonic.errors import Fault, RecordingError, WendonicError
from wendonic.recording.columns import ColumnEvents, Columns, is_sound
from wendonic.recording.content import (
    COLUMNS,
    FORMAT,
    NUMBER_COLUMNS,
    Content,
    Entry,
    content_under,
    full_header,
    numbers_of,
    ordered_events,
    other_columns,
)

RECORDING = "recording"
"""Column with the name of a row's recording, in a file of many."""


def _pyarrow() -> Any:
    try:
        import pyarrow
        import pyarrow.parquet
    except ImportError:
        raise WendonicError("Parquet needs PyArrow: pip install 'wendonic[parquet]'") from None
    return pyarrow


def write_parquet(content: Content, devices: tuple[str, ...], path: str | Path) -> None:
    """Write the events to `path`, whole or not at all: columns t, c, v0 to v6 and text, the header as metadata."""
    pyarrow = _pyarrow()
    values = [event.value for event in content.events]
    numbers = [numbers_of(value) for value in values]
    header = json.dumps(full_header(content.title, devices, content.header))
    columns = {
        "t": pyarrow.array([event.t for event in content.events], pyarrow.float64()),
        "c": pyarrow.array([event.control for event in content.events], pyarrow.string()).dictionary_encode(),
    }
    for index, name in enumerate(NUMBER_COLUMNS):
        column = [of_event[index] if index < len(of_event) else None for of_event in numbers]
        columns[name] = pyarrow.array(column, pyarrow.float64())
    texts = [value if isinstance(value, str) else None for value in values]
    columns["text"] = pyarrow.array(texts, pyarrow.string())
    table = pyarrow.table(columns).replace_schema_metadata({FORMAT: header})
    with atomic_file(path) as beside:
        pyarrow.parquet.write_table(table, beside)


def recordings_in(path: str | Path) -> tuple[str, ...] | None:
    """Return the names of the recordings in a file with a column `recording`, in their order; None for a file with a
    single recording.
    """
    pyarrow = _pyarrow()
    raw = file_content(path, "recording", RecordingError)
    try:
        file = pyarrow.parquet.ParquetFile(pyarrow.BufferReader(raw))
        if RECORDING not in file.schema_arrow.names:
            return None
        names = file.read(columns=[RECORDING]).column(0).unique().to_pylist()
    except (pyarrow.ArrowException, OSError, ValueError) as error:
        raise RecordingError(path, [Fault(None, "", f"is not a sound Parquet file: {error}")]) from None
    return tuple(str(name) for name in names)


def read_parquet(path: str | Path, recording: str | None = None) -> Content:
    """Return the recording in the file at `path`, or the one with a name in a file of several (column `recording`);
    raises `RecordingError` with every faulty row (from 0) at once.

    Number columns beyond the first may be missing where no event needs them.
    """
    pyarrow = _pyarrow()
    raw = file_content(path, "recording", RecordingError)
    wanted = None if recording is None else [(RECORDING, "==", recording)]
    try:
        table = pyarrow.parquet.read_table(pyarrow.BufferReader(raw), filters=wanted)
        table.validate(full=True)
        header = json.loads((table.schema.metadata or {}).get(FORMAT.encode(), b"{}"))
        header = header if isinstance(header, dict) else {}
        found = table.column_names
        if not {"t", "c", "v0", "text"} <= set(found):
            raise RecordingError(path, [Fault(None, "", other_columns(found))])
        by_name = {name: table.column(name) for name in COLUMNS if name in found}
        columns = _columns(by_name, table.num_rows)
        if columns is not None and is_sound(columns):
            return content_under(header, ColumnEvents(columns))
        lists = {name: column.to_pylist() for name, column in by_name.items()}
    except (pyarrow.ArrowException, OSError, ValueError) as error:
        raise RecordingError(path, [Fault(None, "", f"is not a sound Parquet file: {error}")]) from None
    faults: list[Fault] = []
    events = ordered_events(_entries(lists), faults)
    if faults:
        raise RecordingError(path, faults)
    return content_under(header, events)


def _columns(by_name: dict[str, Any], count: int) -> Columns | None:
    """Return the columns as arrays; None if one of them does not have the type that Wendonic writes."""
    import numpy as np

    kinds = {name: str(column.type) for name, column in by_name.items()}
    kinds["c"] = str(getattr(by_name["c"].type, "value_type", kinds["c"]))
    wanted = {name: "string" if name in ("c", "text") else "double" for name in kinds}
    if kinds != wanted or by_name["c"].null_count or by_name["t"].null_count:
        return None
    controls = by_name["c"].combine_chunks()
    if not hasattr(controls, "indices"):
        controls = controls.dictionary_encode()
    # A missing number is NaN, and so not finite.
    numbers = [by_name[name].to_numpy() if name in by_name else np.full(count, np.nan) for name in NUMBER_COLUMNS]
    return Columns(
        by_name["t"].to_numpy(),
        controls.indices.to_numpy().astype(np.intp),
        tuple(controls.dictionary.to_pylist()),
        tuple(numbers),
        by_name["text"].to_pylist() if by_name["text"].null_count < count else [None] * count,
    )


def _entries(columns: dict[str, list[Any]]) -> Iterator[Entry]:
    for number, (t, name) in enumerate(zip(columns["t"], columns["c"], strict=True)):
        control = CONTROLS.get(name)
        width, kind = (control.width, control.kind) if control else (1, None)
        values = [columns[column][number] for column in NUMBER_COLUMNS[: max(width, 1)] if column in columns]
        value = columns["text"][number] if kind in TEXTS else tuple(values) if width > 1 else values[0]
        yield Entry(None, f"row {number}", t, name, value)
