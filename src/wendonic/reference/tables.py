"""Every table of a profile or a course, with its path and its fields, in the order of shaping."""

import inspect
from collections.abc import Iterable
from functools import cache
from typing import NamedTuple

from pydantic import BaseModel

from wendonic.course.course import Course
from wendonic.profile.schema.field_words import FieldWords, field_words
from wendonic.profile.schema.inner_tables import Place, inner_tables
from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.table import Table

ORDER = ("world", "window", "seat", "joystick", "move", "rise", "throttle", "turn", "look", "press", "goal", "steer")
"""Tables in the order of the data: input, channels, presses, steering; the rest follow in the order of the file."""

AFTER = ("bind",)
"""Fields whose tables come before the table that contains them, because they are applied earlier."""


class ReferenceTable(NamedTuple):
    """One table: its class, its field paths, which of several alternatives it is ("" if there are none), and
    descriptions of its fields.
    """

    kind: type[Table]
    places: tuple[str, ...]
    choice: str
    fields: tuple[FieldWords, ...]

    @property
    def title(self) -> str:
        """Its first path, and which alternative it is.

        >>> [table.title for table in profile_tables()][:2]
        ['top of the file', 'world']
        """
        place = self.places[0] or "top of the file"
        return f"{place}: {self.choice}" if self.choice else place

    @property
    def chosen(self) -> str:
        """The word that selects an alternative: `stick`, `power`, `drive`."""
        return self.choice.split('"')[1] if '"' in self.choice else self.choice

    @property
    def path(self) -> str:
        """A path that finds only this table.

        >>> [table.path for table in profile_tables() if table.choice == "stick"][0]
        'mode.NAME.move.bind.stick'
        """
        place = self.places[0].replace("[]", "")
        return f"{place}.{self.chosen}" if self.choice else place

    @property
    def about(self) -> str:
        """Its description, in a few paragraphs."""
        return about(self.kind)

    @property
    def summary(self) -> str:
        """The first sentence of its description."""
        first = " ".join(self.about.split("\n\n")[0].split())
        end = first.find(". ")
        return first if end < 0 else first[: end + 1]


def about(kind: type[BaseModel]) -> str:
    """Return the description of a kind of table for authors of files, without its Python examples.

    >>> from wendonic.profile.schema.profile import Profile
    >>> ">>>" in about(Profile)
    False
    """
    return (inspect.getdoc(kind) or "").split("\n\n>>>")[0]


@cache
def tables_of(root: type[Table]) -> tuple[ReferenceTable, ...]:
    """Return every table of a kind of file, in the order of shaping.

    >>> [table.title for table in tables_of(Course)][:3]
    ['top of the file', 'piece[]: form = "flat"', 'piece[]: form = "ramp"']
    """
    places: dict[type[Table], dict[str, None]] = {}
    choices: dict[type[Table], str] = {}

    def walk(place: Place) -> None:
        known = place.kind in places
        if not known:
            choices[place.kind] = place.choice
        fields = list(place.kind.model_fields.items())
        rank = {name: number for number, name in enumerate(ORDER)}
        fields.sort(key=lambda pair: rank.get(pair[0], len(rank)))
        before = [pair for pair in fields if pair[0] in AFTER]
        after = [pair for pair in fields if pair not in before]
        for part in (before, None, after):
            if part is None:
                places.setdefault(place.kind, {})[place.path] = None
                continue
            for name, field in part:
                for inner in inner_tables(field.annotation, f"{place.path}.{name}".lstrip(".")):
                    walk(inner)

    walk(Place(root, "", ""))
    return tuple(
        ReferenceTable(kind, tuple(found), choices[kind], _in_order(field_words(kind)))
        for kind, found in places.items()
    )


LAST = ("shared", "seat")
"""Fields that every entry has but few files need."""


def _in_order(fields: Iterable[FieldWords]) -> tuple[FieldWords, ...]:
    """Return fields with the required ones first, which say what the table is."""
    return tuple(sorted(fields, key=lambda field: (field.name in LAST, not field.required)))


def profile_tables() -> tuple[ReferenceTable, ...]:
    """Return every table of a profile, in the order of shaping."""
    return tables_of(Profile)


def course_tables() -> tuple[ReferenceTable, ...]:
    """Return every table of a course."""
    return tables_of(Course)


class TableGroup(NamedTuple):
    """The tables at one path: one, or several alternatives, and the fields that all of them have."""

    place: str
    tables: tuple[ReferenceTable, ...]
    common: tuple[FieldWords, ...]

    @property
    def summary(self) -> str:
        """Its description in one sentence, or the list of alternatives."""
        if len(self.tables) == 1:
            return self.tables[0].summary
        word = self.tables[0].choice.partition(" =")[0] if "=" in self.tables[0].choice else "one of"
        return f"{word}: {', '.join(table.chosen for table in self.tables)}"

    def own(self, table: ReferenceTable) -> tuple[FieldWords, ...]:
        """Return the fields of one of the tables that not all of them have."""
        return tuple(field for field in table.fields if field not in self.common)


@cache
def groups_of(root: type[Table]) -> tuple[TableGroup, ...]:
    """Return the tables of a kind of file, alternatives together.

    >>> frames = next(group for group in groups_of(Profile) if group.place == "mode.NAME.steer")
    >>> len(frames.tables), [field.name for field in frames.common]
    (8, ['sectors', 'sector_margin_deg', 'sector_tie', 'sector_by'])
    """
    groups = []
    for place in dict.fromkeys(table.places[0] for table in tables_of(root)):
        tables = [table for table in tables_of(root) if place in table.places]
        first, *others = tables
        common = tuple(field for field in first.fields if others and all(field in other.fields for other in others))
        groups.append(TableGroup(place, tuple(tables), common))
    return tuple(groups)
