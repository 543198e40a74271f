"""`wendonic info`: what a file holds, in words."""

import json
from pathlib import Path
from typing import Annotated

import typer

from wendonic.cli.say import say, say_lines


def info(
    file: Annotated[
        Path,
        typer.Argument(
            metavar="FILE", help="A profile or a course (.toml), or a recording (.jsonl, .csv, .parquet)."
        ),
    ],
    tick_function: Annotated[
        bool, typer.Option("--tick-function", help="Print the tick function of a profile's mode: the code that runs.")
    ] = False,
    mode: Annotated[
        str | None, typer.Option(metavar="MODE", help="With --tick-function: which mode; the first by default.")
    ] = None,
    as_json: Annotated[bool, typer.Option("--json", help="Print it as JSON.")] = False,
) -> None:
    """Say what a profile, a course or a recording holds, in words."""
    if tick_function:
        from wendonic.profile.load import load_profile
        from wendonic.runtime.helm import Helm

        say(Helm(load_profile(file), prepare="first").tick_function(mode).rstrip())
        return
    if mode is not None:
        raise typer.BadParameter("--mode goes with --tick-function")
    from wendonic.study.as_json import document

    if file.suffix.lower() == ".toml":
        from wendonic.course import load_course
        from wendonic.course.describe import describe_course, holds_course
        from wendonic.profile.load import load_profile

        is_course = holds_course(file)
        kind = "course" if is_course else "profile"
        lines = describe_course(load_course(file)) if is_course else load_profile(file).sentences()
        values = {}
    else:
        from wendonic.recording.describe import describe_recording
        from wendonic.recording.recording import Recording
        from wendonic.study.as_json import recording_values

        recording = Recording.read(file)
        kind, lines, values = "recording", describe_recording(recording), recording_values(recording)
    if as_json:
        say(json.dumps(document("info", file=str(file), kind=kind, sentences=lines, values=values), indent=2))
    else:
        say_lines(lines)
