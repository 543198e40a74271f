"""The pages of fields: of a profile and of a course."""

from pages.markdown import anchor, flat, table, written_by
from wendonic.course.course import Course
from wendonic.profile.schema.field_words import FieldWords
from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.table import Table
from wendonic.reference.tables import ReferenceTable, groups_of

PROFILE_HEAD = """# Fields of a profile

A profile is a TOML file. Every field has a default that feels right, so a profile can be five lines long; unknown keys
are errors. `NAME` is a name of your own, `[]` an entry of a list, such as `[[mode.foot.move.bind]]`. Tables are listed
in the order of the data: where input comes from, what becomes of it, how it steers, how the body moves.

In the terminal: `wendonic fields dead_zone`. In your editor: [completion and checks](../editor.md). What the settings
compute: [formulas](formulas.md).

"""
COURSE_HEAD = """# Fields of a course

A course is ground to try a profile on, as a TOML file: `wendonic draw path PROFILE RECORDING --course FILE`,
`wendonic live PROFILE --course FILE`. It is in metres on the plan: right is x, forward is y.

"""


def field_rows(fields: tuple[FieldWords, ...]) -> list[tuple[str, str, str]]:
    """Return the rows of some fields; words that a field may hold follow in its own cell."""
    rows = []
    for field in fields:
        says = field.description
        if field.words:
            says += "<br>" + "<br>".join(f"`{word}`: {meaning}" for word, meaning in field.words)
        rows.append((f"`{field.name}`", field.facts, says))
    return rows


def _section(place: str, one: ReferenceTable, fields: tuple[FieldWords, ...], shown: dict[type[Table], str]) -> str:
    title = f"{place}: {one.choice}" if one.choice else place or "top of the file"
    level = "###" if one.choice else "##"
    head = f"{level} `{title}` {{#{anchor(title)}}}\n\n"
    if one.kind in shown:
        return f"{head}As [`{shown[one.kind]}`](#{anchor(shown[one.kind])}).\n"
    shown[one.kind] = title
    others = [other for other in one.places if other != place]
    also = f"Also at {', '.join(f'`{other}`' for other in others)}.\n\n" if others else ""
    rows = table(("field", "holds", "what it does"), field_rows(fields)) if fields else ""
    return f"{head}{flat(one.about)}\n\n{also}{rows}"


def fields_page(root: type[Table], head: str) -> str:
    """Return the page of one kind of file."""
    parts = []
    shown: dict[type[Table], str] = {}
    for group in groups_of(root):
        if len(group.tables) > 1:
            parts.append(
                f"## `{group.place}` {{#{anchor(group.place)}}}\n\n{group.summary[0].upper()}{group.summary[1:]}.\n"
            )
            if group.common:
                parts.append(table(("field of all of them", "holds", "what it does"), field_rows(group.common)))
        for one in group.tables:
            parts.append(_section(group.place, one, group.own(one) if group.common else one.fields, shown))
    return written_by() + head + "\n".join(parts)


def profile_page() -> str:
    """Return the page of a profile's fields."""
    return fields_page(Profile, PROFILE_HEAD)


def course_page() -> str:
    """Return the page of a course's fields."""
    return fields_page(Course, COURSE_HEAD)
