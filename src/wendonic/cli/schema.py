"""`wendonic schema`: the JSON Schema of a file format."""

from pathlib import Path
from typing import Annotated

import typer

from wendonic.cli.say import say


def schema(
    out: Annotated[
        Path | None, typer.Option("--out", "-o", help="The file to write (.json); printed by default.")
    ] = None,
    of: Annotated[
        str, typer.Option("--of", metavar="KIND", help="profile, course, or recording (of one line).")
    ] = "profile",
) -> None:
    """Write the JSON Schema of profiles, courses or recordings, for editors and other tools."""
    from wendonic.cli.outputs import check_output
    from wendonic.reference.json_schema import schema_line, schema_text, write_schema

    if out is None:
        say(schema_text(of, ascii_only=True))
        return
    check_output(out, "JSON Schema", endings=(".json",))
    write_schema(out, of)
    say(f"wrote {out}")
    if of != "recording":
        line = schema_line(of).rpartition("/")[0]
        say(f"an editor finds it by the first line of a {of} beside it: {line}/{out.name}")
