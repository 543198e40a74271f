"""Finds fields and tables by a path, or by the end of one."""

import re
from collections.abc import Iterator
from functools import cache
from typing import NamedTuple

from wendonic.course.course import Course
from wendonic.errors import WendonicError, did_you_mean
from wendonic.profile.schema.field_words import FieldWords
from wendonic.profile.schema.profile import Profile
from wendonic.reference.tables import ReferenceTable, TableGroup, groups_of

ANY_NAME = "NAME"


class FoundField(NamedTuple):
    """A field, and the tables that have it, each with its alternatives that do."""

    field: FieldWords
    places: tuple[str, ...]


class FoundFields(NamedTuple):
    """The result of a search: whole tables, alternatives together, and single fields."""

    groups: tuple[TableGroup, ...]
    fields: tuple[FoundField, ...]


@cache
def _segments(path: str) -> tuple[str, ...]:
    return tuple(part for part in re.sub(r"\[\w*\]", "", path).split(".") if part)


def _fits(searched: tuple[str, ...], path: tuple[str, ...], own_names: int) -> bool:
    """Return whether the search matches the end of a path, if a given number of its words are the user's own names
    and the other names are left out.
    """
    if not searched:
        return own_names == 0
    if not path:
        return False
    before, last = path[:-1], path[-1]
    if last != ANY_NAME:
        return last == searched[-1] and _fits(searched[:-1], before, own_names)
    # The search begins with a word of the file format.
    as_name = own_names > 0 and len(searched) > 1 and _fits(searched[:-1], before, own_names - 1)
    return as_name or _fits(searched, before, own_names)


def _matching(group: TableGroup, searched: tuple[str, ...], own_names: int) -> TableGroup | None:
    """Return the tables of a group that match, None if none does; one alternative may be selected by its word."""
    fits = [
        table for table in group.tables if any(_fits(searched, _segments(place), own_names) for place in table.places)
    ]
    if not fits:
        fits = [
            table
            for table in group.tables
            if table.choice
            and any(_fits(searched, (*_segments(place), table.chosen), own_names) for place in table.places)
        ]
    if not fits:
        return None
    return group if len(fits) == len(group.tables) else TableGroup(group.place, tuple(fits), ())


def _field_matches(searched: tuple[str, ...], own_names: int, groups: tuple[TableGroup, ...]) -> Iterator[FoundField]:
    found: dict[tuple[str, str, str], tuple[FieldWords, dict[str, list[str]]]] = {}
    for group in groups:
        for table in group.tables:
            for field in table.fields:
                for place in table.places:
                    if _fits(searched, (*_segments(place), field.name), own_names):
                        places = found.setdefault((field.name, field.description, field.range), (field, {}))[1]
                        places.setdefault(place, []).extend([table.chosen] if table.choice else [])
    for field, places in found.values():
        titles = (
            f"{place} ({', '.join(dict.fromkeys(chosen))})" if chosen else place for place, chosen in places.items()
        )
        yield FoundField(field, tuple(titles))


def find_fields(path: str) -> FoundFields:
    """Return the fields and tables of a profile or a course at a path, or at every path that ends with it:
    `mode.foot.look`, `gait.walk.accel_m_s2`, `dead_zone`, `inner`, `drive`. Your own names, and indices, can be left
    out.

    Raises `WendonicError` for a path that does not exist, with the nearest spelling.

    >>> found = find_fields("mode.foot.move.bind[0].dead_zone.inner")
    >>> [one.field.unit for one in found.fields], found.groups
    (['tilt'], ())
    >>> [table.choice for group in find_fields("curve").groups for table in group.tables][:2]
    ['form = "linear"', 'form = "power"']
    >>> find_fields("deadzone")
    Traceback (most recent call last):
    wendonic.errors.WendonicError: no field "deadzone"; did you mean "dead_zone"? All of them: wendonic fields
    """
    found = known_fields(path)
    if found is not None:
        return found
    searched = _segments(path)
    known = dict.fromkeys(field.name for group in _every() for table in group.tables for field in table.fields)
    guess = did_you_mean(searched[-1] if searched else path, known)
    raise WendonicError(f'no field "{path}"{guess or "."} All of them: wendonic fields')


def known_fields(path: str) -> FoundFields | None:
    """Return what `find_fields` does, but None if nothing is found.

    >>> known_fields("deadzone") is None
    True
    """
    searched = _segments(path)
    # As few words as possible are taken as the user's own names: "mode.look" is the table of every mode.
    for own_names in range(len(searched)):
        found = _found(searched, own_names)
        if any(found):
            return found
    return None


def _every() -> tuple[TableGroup, ...]:
    return (*groups_of(Profile), *groups_of(Course))


def _found(searched: tuple[str, ...], own_names: int) -> FoundFields:
    """Return what is found if a given number of the words are the user's own names."""
    # The whole group matches, so it comes before groups that only share a table with it.
    groups = tuple(group for group in _every() if _fits(searched, _segments(group.place), own_names))
    for group in () if groups else _every():
        found = _matching(group, searched, own_names)
        shown = [table for known in groups for table in known.tables]
        if found is not None and any(table not in shown for table in found.tables):
            groups += (found,)
    covered = {name for group in groups for table in group.tables for name in _names(table)}
    fields = tuple(
        found
        for found in _field_matches(searched, own_names, _every())
        if not any(f"{place.partition(' ')[0]}.{found.field.name}".lstrip(".") in covered for place in found.places)
    )
    return FoundFields(groups, fields)


def _names(table: ReferenceTable) -> Iterator[str]:
    """Yield the paths of the fields whose value is the table, or whose key selects this alternative."""
    for place in table.places:
        yield re.sub(r"(\[\]|\.NAME)+$", "", place)
        yield f"{place}.{table.chosen}"
