"""`wendonic new`: writes a profile to start from."""

from pathlib import Path
from typing import Annotated

import typer

from wendonic.cli.outputs import check_output
from wendonic.cli.say import say


def new(
    path: Annotated[Path, typer.Argument(metavar="PROFILE", help="The file to write, such as beekeeper.toml.")],
    like: Annotated[
        str, typer.Option("--like", metavar="NAME", help="The shipped profile to start from; see the list below.")
    ] = "beekeeper",
    force: Annotated[bool, typer.Option("--force", help="Overwrite a file that is already there.")] = False,
) -> None:
    """Write a commented profile to start from."""
    from wendonic.demo.starter import write_starter
    from wendonic.reference.json_schema import FILE_NAMES

    check_output(path, "profile", endings=(".toml",))
    write_starter(path, force, like)
    say(f"wrote {path}, and beside it {FILE_NAMES['profile']}, by which your editor knows every field")
    say(f"change a number, then see what it does: wendonic {_shown_by(like)} {path}")


def _shown_by(like: str) -> str:
    """Return the command that shows most about a shipped profile without a recording."""
    from wendonic.demo import demo_profile
    from wendonic.profile.schema.move_binds import DpadBind, KeysBind, StickBind

    profile = demo_profile(like)
    mode = profile.mode[profile.first_mode]
    binds = mode.move.bind if mode.move and mode.steer.frame != "grid" else ()
    if any(isinstance(bind, StickBind) for bind in binds):
        return "draw stick"
    return "draw diagonals" if any(isinstance(bind, KeysBind | DpadBind) for bind in binds) else "info"
