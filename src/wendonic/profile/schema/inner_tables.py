"""The tables inside a table of a file, with their paths."""

from collections.abc import Iterator
from typing import Annotated, Any, NamedTuple, get_args, get_origin

from pydantic import Tag

from wendonic.profile.schema.table import Choice, Table


class Place(NamedTuple):
    """A table, its field path, and which of several alternatives it is."""

    kind: type[Table]
    path: str
    choice: str


def inner_tables(kind: Any, path: str, choice: str = "") -> Iterator[Place]:
    """Yield the tables that a field of a type may contain, each with its path and alternative."""
    origin, parts = get_origin(kind), get_args(kind)
    if origin is Annotated:
        tags = [mark.tag for mark in parts[1:] if isinstance(mark, Tag)]
        yield from inner_tables(parts[0], path, tags[0] if tags else choice)
    elif isinstance(kind, type) and issubclass(kind, Table):
        yield Place(kind, path, _choice_of(kind, choice))
    elif origin is dict:
        yield from inner_tables(parts[1], f"{path}.NAME")
    elif origin is tuple:
        for part in dict.fromkeys(parts):
            yield from inner_tables(part, f"{path}[]", choice)
    else:
        for part in parts:
            yield from inner_tables(part, path, choice)


def _choice_of(kind: type[Table], tag: str) -> str:
    """Return which alternative a table is: the word that chooses it, or the key that names its controls."""
    for word in ("frame", "form"):
        field = kind.model_fields.get(word)
        values = get_args(field.annotation) if field else ()
        if values and len(values) == 1 and (tag or issubclass(kind, Choice) or (field and field.is_required())):
            return f'{word} = "{values[0]}"'
    return tag


def tables_with(root: type[Table], name: str) -> list[str]:
    """Return the field paths of the tables that have a field with this name, each once, with `NAME` for a user's own
    name.

    >>> from wendonic.profile.schema.profile import Profile
    >>> tables_with(Profile, "frame")
    ['mode.NAME.steer']
    """
    found: dict[str, None] = {}
    seen: set[type[Table]] = set()

    def walk(place: Place) -> None:
        if name in place.kind.model_fields:
            found[place.path] = None
        if place.kind in seen:
            return
        seen.add(place.kind)
        for field, info in place.kind.model_fields.items():
            for inner in inner_tables(info.annotation, f"{place.path}.{field}".lstrip(".")):
                walk(inner)

    walk(Place(root, "", ""))
    return list(found)
