"""`wendonic record`: records keyboard, mouse and pads."""

import os
from pathlib import Path
from typing import Annotated

import typer

from wendonic.cli.say import say
from wendonic.counted import counted
from wendonic.errors import WendonicError


def record(
    out: Annotated[Path, typer.Argument(metavar="OUT", help="The recording to write (.jsonl); it must not exist.")],
    seconds: Annotated[float | None, typer.Option(help="Stop after this many seconds.")] = None,
    title: Annotated[str, typer.Option(help="Title of the recording.")] = "",
    stop_key: Annotated[str, typer.Option(metavar="KEY", help="The key that stops, by its W3C code.")] = "F10",
    mark_key: Annotated[
        str, typer.Option(metavar="KEY", help="The key that sets a mark where something felt wrong.")
    ] = "F9",
    grab_mouse: Annotated[
        bool, typer.Option("--grab-mouse", help="Keep the mouse in the window, so that it never reaches an edge.")
    ] = False,
    profile: Annotated[
        Path | None, typer.Option(help="A profile whose [joystick] tables say what a joystick's numbers are.")
    ] = None,
) -> None:
    """Record keyboard, mouse and pads live, shown as they arrive; each event is on disk at once."""
    os.environ.setdefault("PYGAME_HIDE_SUPPORT_PROMPT", "1")
    try:
        from wendonic.live.record import RecordSession
    except ImportError:
        raise WendonicError("recording live needs pygame-ce: pip install 'wendonic[live]'") from None
    from wendonic.profile.load import load_profile

    joysticks = load_profile(profile).joysticks if profile else ()
    session = RecordSession(out, title, seconds, stop_key, mark_key, grab_mouse, joysticks)
    done = session.run()
    say(f"wrote {done.path}: {counted(done.events, 'event')} in {done.seconds:.2f} s")
    for name, count in done.controls.items():
        say(f"  {name}: {count}")
    for name, elements in done.unmapped.items():
        say(f'  not recorded: joystick "{name}" reports numbers only; moved: {", ".join(elements)}')
        say("  say in a profile which control each of them is ([joystick.…] controls = …), and record with --profile")
    say(f"next: wendonic info {done.path}, or wendonic draw devices {done.path}")
