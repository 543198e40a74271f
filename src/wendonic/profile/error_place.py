"""Locates pydantic's errors in the schema: their `loc` has parts that field paths do not have."""

from collections.abc import Sequence
from typing import Annotated, Any, get_args, get_origin

from pydantic import BaseModel, Tag

from wendonic.profile.schema.table import Table


def field_path_at(root: type[Table], loc: Sequence[str | int]) -> list[str | int]:
    """Return pydantic's path without the names of alternatives."""
    # A wrong key has an additional part.
    return [part for part, _, is_choice in _steps(root, loc) if not is_choice and part != "[key]"]


def _steps(root: type[Table], loc: Sequence[str | int]) -> list[tuple[str | int, Any, bool]]:
    """Follow `loc`: yield each part, what the schema expects there, and whether it is the name of an alternative."""
    steps = []
    kind: Any = root
    for part in loc:
        kind, is_choice = _step(kind, part)
        steps.append((part, kind, is_choice))
    return steps


def _step(kind: Any, part: str | int) -> tuple[Any, bool]:
    kind = without_marks(kind)
    if isinstance(kind, type) and issubclass(kind, BaseModel):
        field = kind.model_fields.get(str(part))
        return (field.annotation if field else None), False
    if get_origin(kind) is dict:
        return get_args(kind)[1], False
    if get_origin(kind) is tuple:
        return get_args(kind)[0], False
    choices = [choice for choice in get_args(kind) if choice is not type(None)]
    for choice in choices:
        if part in _choice_names(choice):
            return choice, True
    # An optional field: the type besides None.
    return _step(choices[0], part) if len(choices) == 1 else (None, False)


def _choice_names(choice: Any) -> tuple[str, ...]:
    if get_origin(choice) is Annotated:
        return tuple(mark.tag for mark in get_args(choice) if isinstance(mark, Tag))
    form = choice.model_fields.get("form") if isinstance(choice, type) and issubclass(choice, BaseModel) else None
    return get_args(form.annotation) if form else ()


def kind_at(root: type[Table], loc: Sequence[str | int]) -> Any:
    """Return what the schema expects at `loc`, with its annotations."""
    return _steps(root, loc)[-1][1]


def without_marks(kind: Any) -> Any:
    """Return a type without its annotations.

    >>> without_marks(Annotated[float, "above 0"])
    <class 'float'>
    """
    while get_origin(kind) is Annotated:
        kind = get_args(kind)[0]
    return kind


def alternatives_at(root: type[Table], loc: Sequence[str | int]) -> list[str]:
    """Return the names of the alternatives that the schema has at `loc`."""
    choices = get_args(without_marks(kind_at(root, loc)))
    return [name for choice in choices for name in _choice_names(choice)]


def alternatives_with(root: type[Table], loc: Sequence[str | int]) -> list[str]:
    """Return the names of the alternatives that have the field at `loc`, unlike the chosen one."""
    choices = get_args(without_marks(kind_at(root, loc[:-2]))) if len(loc) > 2 else ()
    tables = ((choice, without_marks(choice)) for choice in choices)
    has = [choice for choice, table in tables if loc[-1] in getattr(table, "model_fields", ())]
    return [name for choice in has for name in _choice_names(choice)]


def table_around(root: type[Table], loc: Sequence[str | int]) -> type[Table]:
    """Return the table that has the field at `loc`; `root` where there is none."""
    kind = without_marks(kind_at(root, loc[:-1])) if len(loc) > 1 else root
    if type(None) in get_args(kind):
        kind = next(part for part in get_args(kind) if part is not type(None))
    return kind if isinstance(kind, type) and issubclass(kind, Table) else root


def path_along(content: Any, above: Sequence[str | int], where: str) -> list[str | int]:
    """Return the parts of a path below `above`; a number is an index in a list, or the name of a table."""
    path = list(above)
    for part in above:
        content = part_of(content, part)
    for word in where.split("."):
        part = int(word) if word.isdigit() and not isinstance(content, dict) else word
        content = part_of(content, part)
        path.append(part)
    return path


def part_of(content: Any, part: str | int) -> Any:
    """Return what a content has under a name or number, None if it has nothing there."""
    try:
        return content[part]
    except (KeyError, IndexError, TypeError):
        return None
