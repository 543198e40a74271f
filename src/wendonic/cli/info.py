"""`wendonic info`: what a file holds, in words."""

from pathlib import Path
from typing import Annotated

import typer


def info(
    file: Annotated[Path, typer.Argument(help="A profile (.toml) or a recording (.jsonl, .csv, .parquet).")],
) -> None:
    """Say what a profile or a recording holds, in words."""
    if file.suffix.lower() == ".toml":
        from wendonic.profile.describe import describe_profile
        from wendonic.profile.load import load_profile

        lines = describe_profile(load_profile(file))
    else:
        from wendonic.recording.describe import describe_recording
        from wendonic.recording.recording import Recording

        lines = describe_recording(Recording.read(file))
    print("\n".join(lines))
