"""Selects the format of a recording file by its ending."""

from pathlib import Path

from wendonic.atomic_file import check_ending
from wendonic.recording.content import Content
from wendonic.recording.csv_rows import read_csv, write_csv
from wendonic.recording.json_lines import read_json_lines, write_json_lines
from wendonic.recording.parquet import read_parquet, write_parquet


def read_content(path: str | Path) -> Content:
    """Read `.csv` and `.parquet` as such, and anything else as JSON Lines."""
    ending = Path(path).suffix.lower()
    if ending == ".csv":
        return read_csv(path)
    return read_parquet(path) if ending == ".parquet" else read_json_lines(path)


ENDINGS = (".jsonl", ".csv", ".parquet")


def write_content(content: Content, devices: tuple[str, ...], path: str | Path) -> None:
    """Write `.jsonl`, `.csv` or `.parquet`; raises `WendonicError` for another ending."""
    ending = check_ending(path, ENDINGS)
    if ending == ".csv":
        write_csv(content, path)
    elif ending == ".parquet":
        write_parquet(content, devices, path)
    else:
        write_json_lines(content, devices, path)
