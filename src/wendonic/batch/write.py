"""Traces on disk."""

import json
from pathlib import Path
from typing import TYPE_CHECKING

from wendonic.atomic_file import atomic_file, check_ending
from wendonic.errors import WendonicError

if TYPE_CHECKING:
    import pandas as pd

TRACE_ENDINGS = (".csv", ".parquet", ".jsonl")


def write_trace(trace: "pd.DataFrame", path: str | Path) -> None:
    """Write a trace by file ending: `.csv`, `.parquet` (extra `parquet`) or `.jsonl`; whole or not at all.

    Every float is read back bit for bit; missing values are empty in CSV and null in JSON Lines.
    """
    ending = check_ending(path, TRACE_ENDINGS)
    with atomic_file(path) as beside:
        if ending == ".csv":
            trace.to_csv(beside, index=False)
        elif ending == ".jsonl":
            # pandas' own writer stops at 15 decimals; json writes every digit that counts.
            records = trace.astype(object).where(trace.notna(), None).to_dict("records")
            with beside.open("w", encoding="utf-8", newline="\n") as file:
                file.writelines(json.dumps(record) + "\n" for record in records)
        else:
            try:
                trace.to_parquet(beside, index=False)
            except ImportError:
                raise WendonicError("Parquet needs PyArrow: pip install 'wendonic[parquet]'") from None
