"""`wendonic info`: what a file holds, in words."""

from pathlib import Path
from typing import Annotated

import typer

from wendonic.cli.say import say, say_lines


def info(
    file: Annotated[
        Path, typer.Argument(help="A profile or a course (.toml), or a recording (.jsonl, .csv, .parquet).")
    ],
    tick_function: Annotated[
        bool, typer.Option("--tick-function", help="Print the tick function of a profile's mode: the code that runs.")
    ] = False,
    mode: Annotated[str | None, typer.Option(help="With --tick-function: which mode; the first by default.")] = None,
) -> None:
    """Say what a profile, a course or a recording holds, in words."""
    if tick_function:
        from wendonic.profile.load import load_profile
        from wendonic.runtime.helm import Helm

        say(Helm(load_profile(file), prepare="first").tick_function(mode).rstrip())
        return
    if mode is not None:
        raise typer.BadParameter("--mode goes with --tick-function")
    if file.suffix.lower() == ".toml":
        from wendonic.course import load_course
        from wendonic.course.describe import describe_course, holds_course
        from wendonic.profile.load import load_profile

        lines = describe_course(load_course(file)) if holds_course(file) else load_profile(file).sentences()
    else:
        from wendonic.recording.describe import describe_recording
        from wendonic.recording.recording import Recording

        lines = describe_recording(Recording.read(file))
    say_lines(lines)
