"""`wendonic cut`: a stretch of a recording."""

from pathlib import Path
from typing import Annotated

import typer

from wendonic.cli.options import FromOption, RecordingArgument, ToOption
from wendonic.cli.outputs import check_output
from wendonic.cli.say import say
from wendonic.counted import counted


def cut(
    recording: RecordingArgument,
    out: Annotated[Path, typer.Option("-o", "--out", help="The file to write; its ending says which format.")],
    start_s: FromOption = None,
    end_s: ToOption = None,
) -> None:
    """Write part of a recording, keeping its times; what is held at its start is pressed there."""
    from wendonic.recording.recording import Recording
    from wendonic.recording.stretches import cut as cut_recording

    if start_s is None and end_s is None:
        raise typer.BadParameter("give --from, or --to, or both")
    check_output(out, "recording", (recording,))
    stretch = cut_recording(Recording.read(recording), start_s, end_s)
    stretch.write(out)
    ends = f"{stretch.start_s:.2f} s to {stretch.start_s + stretch.duration_s:.2f} s"
    say(f"wrote {out}: {counted(len(stretch), 'event')} from {ends}")
