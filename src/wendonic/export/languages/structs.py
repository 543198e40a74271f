"""The structs of a mode in every language: raw inputs, state, results, and others that it may need."""

from typing import NamedTuple

from wendonic.export.build import Made
from wendonic.export.languages.words import adjustable, number_words
from wendonic.export.naming import in_comment
from wendonic.export.package import game_values
from wendonic.export.program import Field, ModeProgram
from wendonic.world_axes import WorldAxes


class Struct(NamedTuple):
    """One struct: `input`, `state`, `result`, `finger` or `settings`, with its numbers and a description."""

    kind: str
    fields: list[Field]
    about: str


def results_of(made: Made, axes: WorldAxes) -> list[Field]:
    """Return what a tick reports: in the plan frame, then in the game's own axes."""
    return [*made.program.results, *(one for one, _ in game_values(made, axes))]


def settings_of(program: ModeProgram) -> list[Field]:
    """Return the adjustable numbers as fields."""
    return [Field(number.name.lower(), number.value, number_words(number)) for number in adjustable(program)]


def structs_of(made: Made, axes: WorldAxes) -> list[Struct]:
    """Return the structs of a mode; `finger` only if fingers do something, `settings` only for adjustable numbers."""
    program = made.program
    inputs = f'Raw inputs of mode "{in_comment(made.mode)}", each in its device\'s own standard.'
    found = [
        Struct("input", [*program.inputs, *made.door.inputs], inputs),
        Struct("state", program.state, "What is carried from tick to tick."),
        Struct(
            "result",
            results_of(made, axes),
            "What a tick reports, beside the state: in the plan, then in the game's own axes.",
        ),
    ]
    if made.door.finger:
        found.append(Struct("finger", made.door.finger, "A finger on the glass."))
    settings = settings_of(program)
    if settings:
        found.append(Struct("settings", settings, "Numbers that stay adjustable."))
    return found
