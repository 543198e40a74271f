"""Arguments and options that several commands share."""

from pathlib import Path
from typing import Annotated

import typer

from wendonic.cli.completion import devices, modes, presses
from wendonic.cli.named_help import PLAYED


def separated(values: list[str] | None) -> list[str] | None:
    """Return the parts of an option that is repeated or separated by commas.

    >>> separated(["reach90_s, stop_time_s", "tap_distance_m"])
    ['reach90_s', 'stop_time_s', 'tap_distance_m']
    """
    if not values:
        return values
    return [part.strip() for value in values for part in value.split(",") if part.strip()]


ProfileArgument = Annotated[Path, typer.Argument(metavar="PROFILE", help="A profile (.toml).")]
RecordingArgument = Annotated[
    Path, typer.Argument(metavar="RECORDING", help="A recording (.jsonl, .csv or .parquet).")
]
PlayedArgument = Annotated[
    Path,
    typer.Argument(
        metavar=PLAYED,
        help="A recording (.jsonl, .csv or .parquet), or a probe: each_direction. You may write --on before it.",
    ),
]
HzOption = Annotated[float, typer.Option("--hz", help="Ticks a second.")]
ModeOption = Annotated[
    str | None,
    typer.Option(
        "--mode", metavar="MODE", help="A mode of the profile; its first one by default.", autocompletion=modes
    ),
]
SeatOption = Annotated[
    str | None, typer.Option("--seat", metavar="SEAT", help="Player: a seat of the profile, or a pad, such as pad1.")
]
FromOption = Annotated[float | None, typer.Option("--from", help="Start here (s, in the recording's own time).")]
ToOption = Annotated[float | None, typer.Option("--to", help="End here (s).")]
ByOption = Annotated[
    str | None,
    typer.Option(
        "--by",
        metavar="DEVICE",
        help="Device to measure with: keys, pad, pad.left_stick, triggers, touch_stick …; by default the one with "
        "the most directions, keys first.",
        autocompletion=devices,
    ),
]
WhileOption = Annotated[
    str | None,
    typer.Option(
        "--while", metavar="PRESS", help="A press that is held all the time, such as sprint.", autocompletion=presses
    ),
]
CourseOption = Annotated[
    Path | None,
    typer.Option("--course", metavar="COURSE", help="Ground to walk on (.toml): heights, walls, blocked squares."),
]
