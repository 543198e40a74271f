"""Fields and tables of files, as `fields` and `explain` show them."""

from typing import TYPE_CHECKING

from wendonic.cli.definitions import say_definitions, say_paragraph
from wendonic.cli.say import say
from wendonic.errors import first_of

if TYPE_CHECKING:
    from wendonic.profile.schema.field_words import FieldWords
    from wendonic.reference.find_fields import FoundFields
    from wendonic.reference.tables import ReferenceTable, TableGroup

TOP = "top of the file"
MOST_PLACES = 3
"""If more tables than this have a field, only the first ones are named."""


def show_found(found: "FoundFields") -> None:
    """Print whole tables, then single fields with their places."""
    blank = False
    for group in found.groups:
        _blank(blank)
        show_group(group)
        blank = True
    for one in found.fields:
        _blank(blank)
        places = [place or f"the {TOP}" for place in one.places]
        say(f"{one.field.name}, in {first_of(places, MOST_PLACES)}")
        show_fields((one.field,), with_name=False)
        blank = True


def _blank(wanted: bool) -> None:
    if wanted:
        say()


def show_group(group: "TableGroup") -> None:
    """Print the tables at one path."""
    if group.common:
        say(f"{group.place or TOP}, every {_alternative(group)}")
        show_fields(group.common)
    for number, table in enumerate(group.tables):
        _blank(number > 0 or bool(group.common))
        _show_table(group.place, table, group.own(table) if group.common else table.fields)


def _alternative(group: "TableGroup") -> str:
    first = group.tables[0].choice
    return first.partition(" =")[0] if " =" in first else "entry"


def _show_table(place: str, table: "ReferenceTable", fields: "tuple[FieldWords, ...]") -> None:
    say(f"{place}: {table.choice}" if table.choice else place or TOP)
    others = [other for other in table.places if other != place]
    if others:
        say_paragraph(f"also at {', '.join(others)}", 2)
    say_paragraph(table.about, 2)
    show_fields(fields)


def show_fields(fields: "tuple[FieldWords, ...]", with_name: bool = True) -> None:
    """Print fields: the value of each, what it does, and its allowed words."""
    rows = []
    for field in fields:
        name = field.name if with_name else ""
        rows.append((name, f"{field.facts}. {field.description}"))
        rows += [(f"  {word}", meaning) for word, meaning in field.words]
    say_definitions(rows)
