"""`wendonic info`: describes a file in words."""

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
    from wendonic.file_kind import kind_of_file

    kind = kind_of_file(file) or ("profile" if file.suffix.lower() == ".toml" else "recording")
    values = {}
    if kind == "profile":
        from wendonic.profile.load import load_profile

        lines = load_profile(file).sentences()
    elif kind == "course":
        from wendonic.course import load_course
        from wendonic.course.describe import describe_course

        lines = describe_course(load_course(file))
    else:
        from wendonic.recording.describe import describe_recording
        from wendonic.recording.recording import Recording

        recording = Recording.read(file)
        lines = describe_recording(recording)
        if as_json:
            from wendonic.study.as_json import recording_values

            values = recording_values(recording)
    if as_json:
        from wendonic.study.as_json import document

        say(json.dumps(document("info", file=str(file), kind=kind, sentences=lines, values=values), indent=2))
    else:
        say_lines(lines)
