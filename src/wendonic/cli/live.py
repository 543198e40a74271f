"""`wendonic live`: a page to play on and turn numbers."""

from pathlib import Path
from typing import Annotated

import typer

from wendonic.cli.options import SeatOption
from wendonic.cli.say import say
from wendonic.errors import WendonicError


def live(
    profile: Annotated[Path, typer.Argument(metavar="PROFILE", help="The profile to play and tune (.toml).")],
    course: Annotated[Path | None, typer.Option(help="A course to walk on (.toml); level ground by default.")] = None,
    mode: Annotated[
        str | None, typer.Option(metavar="MODE", help="The mode to begin in; the first one by default.")
    ] = None,
    seat: SeatOption = None,
    port: Annotated[int, typer.Option(min=0, max=65535, help="The port on 127.0.0.1; 0 takes a free one.")] = 0,
    no_open: Annotated[bool, typer.Option("--no-open", help="Do not open the browser.")] = False,
) -> None:
    """Play a profile in the browser, change its numbers while you walk, and save what feels right."""
    try:
        import starlette  # noqa: F401

        from wendonic.live.desk import Desk
        from wendonic.live.serve import serve
        from wendonic.live.server import PageServer
    except ImportError:
        raise WendonicError("the live page needs Starlette and uvicorn: pip install 'wendonic[live]'") from None
    server = PageServer(Desk(profile, course, seat), mode)

    def ready(address: str) -> None:
        say(f"playing {profile}{f', seat {seat},' if seat else ''} at {address}")
        say("changes you save in an editor take effect at once; press Ctrl+C to stop")

    serve(server, port, not no_open, ready)
