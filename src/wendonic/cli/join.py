"""`wendonic join`: recordings one after the other."""

from pathlib import Path
from typing import Annotated

import typer

from wendonic.cli.outputs import check_output
from wendonic.cli.say import say
from wendonic.counted import counted


def join(
    recordings: Annotated[list[Path], typer.Argument(metavar="RECORDING", help="Two recordings or more, in order.")],
    out: Annotated[Path, typer.Option("-o", "--out", help="The file to write; its ending says which format.")],
    pause_s: Annotated[
        float, typer.Option("--pause", help="Pause between them, with everything released (s).")
    ] = 0.5,
) -> None:
    """Write recordings one after the other, with a note where each begins."""
    from wendonic.errors import WendonicError
    from wendonic.recording.recording import Recording
    from wendonic.recording.stretches import join as join_recordings

    if len(recordings) < 2:
        raise WendonicError(f"found {len(recordings)} recording; allowed: two or more to join")
    check_output(out, "recording", recordings)
    joined = join_recordings(list(map(Recording.read, recordings)), pause_s)
    joined.write(out)
    what = f"{counted(len(recordings), 'recording')}, {counted(len(joined), 'event')}"
    say(f"wrote {out}: {what}, {joined.duration_s:.2f} s")
