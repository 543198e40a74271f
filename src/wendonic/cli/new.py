"""`wendonic new`: a profile to begin with."""

from pathlib import Path
from typing import Annotated

import typer

from wendonic.cli.say import say


def new(
    path: Annotated[Path, typer.Argument(help="Where the profile goes, such as beekeeper.toml.")],
    force: Annotated[bool, typer.Option("--force", help="Overwrite a file that is already there.")] = False,
) -> None:
    """Write a commented starter profile."""
    from wendonic.demo.starter import write_starter

    write_starter(path, force)
    say(f"wrote {path}; change a number, then see it: wendonic draw stick {path}")
