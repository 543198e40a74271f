"""`wendonic convert`: a recording in another format."""

import sys
from enum import StrEnum
from pathlib import Path
from typing import Annotated

import typer

from wendonic.cli.outputs import check_output
from wendonic.cli.say import say
from wendonic.counted import counted


class Source(StrEnum):
    """Formats that can be read besides Wendonic's own recordings."""

    LINUX_INPUT = "linux-input"
    GAMEPAD_API = "gamepad-api"


class Layout(StrEnum):
    """Word length of the machine that made the capture."""

    BITS_64 = "64"
    BITS_32 = "32"


RangeOption = tuple[int, int] | None


def convert(
    source: Annotated[
        Path, typer.Argument(metavar="IN", help="A recording (.jsonl, .csv, .parquet), or see --format.")
    ],
    target: Annotated[Path, typer.Argument(metavar="OUT", help="The file to write; its ending says which format.")],
    source_format: Annotated[
        Source | None, typer.Option("--format", help="What IN is, if its ending does not say.")
    ] = None,
    layout: Annotated[
        Layout, typer.Option(help="linux-input: word length of the machine that captured it.")
    ] = Layout.BITS_64,
    stick_range: Annotated[
        RangeOption,
        typer.Option(metavar="LOW HIGH", help="linux-input: raw range of the sticks; guessed by default."),
    ] = None,
    trigger_range: Annotated[
        RangeOption,
        typer.Option(metavar="LOW HIGH", help="linux-input: raw range of the triggers; guessed by default."),
    ] = None,
) -> None:
    """Convert a recording, a Linux input capture or a web page's pad log to another format."""
    from wendonic.recording.recording import Recording

    check_output(target, "recording", (source,))
    if source_format is Source.LINUX_INPUT:
        recording = Recording.read_linux_input(source, int(layout), stick_range, trigger_range)
    elif source_format is Source.GAMEPAD_API:
        recording = Recording.read_gamepad_snapshots(source)
    else:
        recording = Recording.read(source)
    recording.write(target)
    if source_format is not None:
        for warning in recording.warnings:
            say(f"wendonic: {warning}", file=sys.stderr)
    say(f"wrote {target}: {counted(len(recording), 'event')}, {recording.duration_s:.2f} s")
