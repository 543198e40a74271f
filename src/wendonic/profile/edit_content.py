"""Changes values of a profile in the content of its file."""

import copy
from collections.abc import Callable, Iterable, Mapping
from typing import Any

from pydantic import ValidationError

from wendonic.profile.field_path import no_step, path_parts
from wendonic.profile.inherited import with_inherited
from wendonic.profile.plain_values import plain_value
from wendonic.profile.schema.table import Table
from wendonic.profile.units import in_metres

Read = Callable[[dict[str, Any]], Table]
"""Makes a profile from a file's content; raises pydantic's `ValidationError` for faults."""


def changed_content(content: Mapping[str, Any], changes: Mapping[str, Any], read: Read) -> dict[str, Any]:
    """Return a file's content with the values at some field paths changed; None removes a field.

    Raises `WendonicError` for a path that does not exist.
    """
    changed = copy.deepcopy(dict(content))
    unwritten = UnwrittenTables(content, read)
    for path, value in changes.items():
        *above, last = path_parts(path)
        table: Any = changed
        whole: Any = with_inherited(in_metres(changed))
        for index, part in enumerate(above):
            if isinstance(part, int):
                if not isinstance(table, list) or part >= len(table):
                    raise no_step(table, above[:index], part, path)
                table, whole = table[part], whole[part]
            else:
                if not isinstance(table, dict):
                    raise no_step(table, above[:index], part, path)
                whole = whole.get(part, {})
                if part not in table:
                    # A list that a mode inherits becomes its own once something in it differs.
                    own = isinstance(whole, list)
                    table[part] = copy.deepcopy(whole) if own else unwritten.table(above[: index + 1])
                table = table[part]
        _put(table, last, plain_value(value), path)
    return changed


class UnwrittenTables:
    """Values of tables that a content does not write, which must not change only because one of them is written."""

    def __init__(self, content: Mapping[str, Any], read: Read) -> None:
        """Take a file's content, and the function that makes a profile from it."""
        self._content = content
        self._read = read
        self._profile: Table | None = None

    def table(self, parts: Iterable[str | int]) -> Any:
        """Return the values of the table at these parts of a path that differ from the defaults of its fields, or the
        numbers of a list.
        """
        try:
            if self._profile is None:
                self._profile = self._read(copy.deepcopy(dict(self._content)))
            found: Any = self._profile
            for part in parts:
                found = getattr(found, str(part)) if isinstance(found, Table) else found[part]
        except (ValidationError, AttributeError, KeyError, IndexError, TypeError):
            return {}
        if isinstance(found, tuple):
            return plain_value(found) if all(isinstance(one, int | float) for one in found) else {}
        if not isinstance(found, Table):
            return {}
        fields = type(found).model_fields
        held = {name: getattr(found, name) for name in fields}
        plain = {name: value for name, value in held.items() if isinstance(value, bool | int | float | str)}
        return {
            name: value
            for name, value in plain.items()
            if fields[name].is_required() or value != fields[name].get_default(call_default_factory=True)
        }


def _put(table: Any, last: str | int, value: Any, path: str) -> None:
    fits = isinstance(table, list) and last < len(table) if isinstance(last, int) else isinstance(table, dict)
    if not fits:
        raise no_step(table, path_parts(path)[:-1], last, path)
    if value is not None:
        table[last] = value
    elif isinstance(last, int):
        del table[last]
    else:
        table.pop(last, None)
