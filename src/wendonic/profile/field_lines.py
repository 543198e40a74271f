"""Finds the line of a TOML text on which a field is written."""

from collections.abc import Sequence
from typing import Any

import tomlkit
from tomlkit.exceptions import TOMLKitError
from tomlkit.items import AoT, InlineTable, Table

_MARK = "field-line-mark"


def field_line(text: str, path: Sequence[str | int]) -> int | None:
    """Return the line, from 1, of the field at `path`, or of the nearest table around it; None if none is there.

    The field is overwritten with a mark in a parsed copy; TOML Kit writes the copy back with every other
    character kept, and the mark shows the line.

    >>> field_line("[a]\\nb = 1\\nc = { d = 2 }\\n", ["a", "c", "d"])
    3
    >>> field_line("[a]\\nb = 1\\n", ["a", "missing"])
    1
    """
    for length in range(len(path), 0, -1):
        line = _marked_line(text, path[:length])
        if line is not None:
            return line
    return None


def _marked_line(text: str, path: Sequence[str | int]) -> int | None:
    try:
        document: Any = tomlkit.parse(text)
        holder = document
        for part in path[:-1]:
            holder = holder[part]
        field = holder[path[-1]]
        if isinstance(field, AoT):
            field = field[0]
        if isinstance(field, Table) and not isinstance(field, InlineTable):
            field.comment(_MARK)
        else:
            holder[path[-1]] = _MARK
        before, found, _ = tomlkit.dumps(document).partition(_MARK)
    except (KeyError, IndexError, TypeError, AttributeError, TOMLKitError):
        return None
    return before.count("\n") + 1 if found else None
