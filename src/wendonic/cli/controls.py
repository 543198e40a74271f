"""`wendonic controls`: every control by its name."""

from typing import Annotated

import typer

from wendonic.cli.say import say


def controls(
    device: Annotated[
        str | None,
        typer.Argument(
            metavar="DEVICE",
            help="keys, pad, mouse, touch, hands or context, or how names begin: hand.left; else all.",
        ),
    ] = None,
) -> None:
    """List the controls of a device: their names, what they are, and what they report."""
    from wendonic.cli.definitions import say_definitions, say_paragraph
    from wendonic.reference.controls import control_groups

    for number, group in enumerate(control_groups(device)):
        if number:
            say()
        say(f"{group.device}")
        say_paragraph(group.about, 2)
        say_definitions(
            (line.names[0], f"{line.what}; {line.values}")
            if len(line.names) == 1
            else ("", f"{line.what} ({line.values}): {', '.join(line.names)}")
            for line in group.lines
        )
