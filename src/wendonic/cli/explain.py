"""`wendonic explain`: one word looked up everywhere."""

from typing import Annotated

import typer

from wendonic.cli.say import say


def explain(
    word: Annotated[
        list[str],
        typer.Argument(
            metavar="WORD",
            help="A field, quantity, finding, steer frame, control, trace column, or a trade word: coyote time.",
        ),
    ],
) -> None:
    """Look a word up: fields, quantities, findings, frames, controls, and words of the trade."""
    from wendonic.cli.definitions import say_definitions
    from wendonic.cli.show_fields import show_found
    from wendonic.reference.explain import explain as look_up

    found = look_up(" ".join(word))
    for thing in found.things:
        say(f"{thing.name} ({thing.kind})")
        say_definitions([("", thing.says)], 0)
    if found.things and (found.fields.groups or found.fields.fields):
        say()
    if len(found.fields.groups) > 1:
        # In full they would fill several screens.
        tables = [table for group in found.fields.groups for table in group.tables]
        say_definitions((table.path, table.summary) for table in tables)
        say(f"In full, each of them: wendonic fields {tables[0].path}")
        show_found(found.fields._replace(groups=()))
        return
    show_found(found.fields)
