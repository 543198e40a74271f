"""`wendonic convert`: a recording in another format."""

from pathlib import Path
from typing import Annotated

import typer


def convert(
    source: Annotated[Path, typer.Argument(metavar="IN", help="A recording: .jsonl, .csv or .parquet.")],
    target: Annotated[Path, typer.Argument(metavar="OUT", help="Where it goes; the ending tells the format.")],
) -> None:
    """Write a recording in another format, with the same events."""
    from wendonic.recording.recording import Recording

    recording = Recording.read(source)
    recording.write(target)
    print(f"wrote {target}: {len(recording)} events, {recording.duration_s:.2f} s")
