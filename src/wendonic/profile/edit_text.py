"""Changes values of a profile in its text; comments, order and everything else stay."""

import itertools
from collections.abc import Mapping, Sequence
from typing import Any

import tomlkit
from tomlkit.exceptions import TOMLKitError

from wendonic.errors import WendonicError
from wendonic.profile.field_path import no_step, path_parts


def edited(text: str, changes: Mapping[str, Any]) -> str:
    """Return a profile's text with the values at some field paths changed; a value of None removes a field.

    Missing tables on the path are created; entries of lists must exist. Raises `WendonicError` for a text that is not
    valid TOML, and for a path that does not exist.

    >>> edited("[gait.walk]\\naccel_m_s2 = 9     # slow\\n", {"gait.walk.accel_m_s2": 22.0})
    '[gait.walk]\\naccel_m_s2 = 22.0  # slow\\n'
    """
    try:
        document = tomlkit.parse(text)
    except TOMLKitError as fault:
        raise WendonicError(f"is not valid TOML: {fault}") from None
    for path, value in changes.items():
        *above, last = path_parts(path)
        table: Any = document
        inline = False
        for count, part in enumerate(above):
            # Headers inside the entries of lists are ambiguous, and dotted keys have none.
            inline = inline or isinstance(part, int) or _dotted(table, part)
            table = _step(table, above[:count], part, path, inline)
        if value is None:
            table.pop(last, None)
        else:
            _put(table, last, inlined(value))
    return tomlkit.dumps(document)


def inlined(value: Any) -> Any:
    """Return a value as it is written on one line: tables inline, tuples as lists.

    >>> inlined({"form": "power", "exponent": 1.6}).as_string()
    '{ form = "power", exponent = 1.6 }'
    """
    if isinstance(value, Mapping):
        # Made from text, since a table made from values has no spaces inside its braces.
        return tomlkit.value(_in_line(value)) if value else tomlkit.inline_table()
    return [inlined(part) for part in value] if isinstance(value, list | tuple) else value


def _in_line(value: Any) -> str:
    if isinstance(value, Mapping):
        fields = (f"{tomlkit.key(name).as_string()} = {_in_line(part)}" for name, part in value.items())
        return f"{{ {', '.join(fields)} }}" if value else "{}"
    if isinstance(value, list | tuple):
        return f"[{', '.join(map(_in_line, value))}]"
    return str(tomlkit.item(value).as_string())


def _put(table: Any, name: str | int, value: Any) -> None:
    """Replace a value, with the comment after it staying in its column, or add one after the others of its table."""
    old = table.get(name) if hasattr(table, "get") else None
    if old is None and isinstance(name, str):
        _append(table, name, value)
    else:
        table[name] = value
    if old is not None and hasattr(old, "trivia") and old.trivia.comment:
        trivia = table[name].trivia
        grown = len(table[name].as_string()) - len(old.as_string())
        trivia.comment, trivia.comment_ws = old.trivia.comment, " " * max(len(old.trivia.comment_ws) - grown, 1)


def _append(table: Any, name: str, value: Any) -> None:
    """Add a value after the last one of a table; blank lines and comments after that belong to what follows."""
    table = _pieces(table)[0]
    if isinstance(table, tomlkit.items.InlineTable):
        _append_inline(table, name, value)
        return
    container = table.value if isinstance(table, tomlkit.items.Table) else table
    body = getattr(container, "body", ())
    own = list(itertools.takewhile(lambda row: not isinstance(row[1], tomlkit.items.Table | tomlkit.items.AoT), body))
    keyed = [index for index, (key, _) in enumerate(own) if key is not None]
    # A table without values may begin with its own comment.
    blank = (index for index, (_, item) in enumerate(own) if isinstance(item, tomlkit.items.Whitespace))
    index = keyed[-1] + 1 if keyed else next(blank, len(own))
    if index >= len(body):
        table[name] = value
        return
    item = tomlkit.item(value)
    container._insert_at(index, name, item)
    if container is not table:
        dict.__setitem__(table, name, item)


def _append_inline(table: tomlkit.items.InlineTable, name: str, value: Any) -> None:
    """Add a value at the end of an inline table; a space before its brace stays."""
    rows = table.value.body
    ends = len(table) > 0 and isinstance(rows[-1][1], tomlkit.items.Whitespace)
    space = rows.pop() if ends else None
    table[name] = value
    if space is not None:
        rows.append(space)


def _append_table(table: Any, name: str) -> Any:
    """Return a new table, added after the others of a table; text after these, from a blank line on, stays above what
    it belongs to.
    """
    new = tomlkit.table()
    body = _last_body(table)
    values = [index for index, (key, _) in enumerate(body) if key is not None]
    behind = range(values[-1] + 1 if values else 0, len(body))
    blank = next((index for index in behind if isinstance(body[index][1], tomlkit.items.Whitespace)), len(body))
    moved = body[blank:]
    del body[blank:]
    if body:
        new.trivia.indent = "\n"
    table[name] = new
    table[name].value.body.extend(moved)
    return table[name]


def _last_body(table: Any) -> list[Any]:
    """Return the lines of the last table in the text of a table."""
    if isinstance(table, tomlkit.items.AoT):
        return _last_body(table[-1])
    container = table.value if isinstance(table, tomlkit.items.Table) else table
    body: list[Any] = getattr(container, "body", [])
    tables = [item for _, item in body if isinstance(item, tomlkit.items.Table | tomlkit.items.AoT)]
    return _last_body(tables[-1]) if tables else body


def _step(table: Any, above: Sequence[str | int], part: str | int, path: str, inline: bool) -> Any:
    if isinstance(part, int):
        if not isinstance(table, list) or part >= len(table):
            raise no_step(table, above, part, path)
        return table[part]
    if not hasattr(table, "get"):
        raise no_step(table, above, part, path)
    if part not in table:
        last = _pieces(table)[-1]
        if not inline and not isinstance(table, tomlkit.items.InlineTable):
            return _append_table(last, str(part))
        _put(last, part, tomlkit.inline_table())
        return last[part]
    return table[part]


def _dotted(table: Any, part: str | int) -> bool:
    """Return whether a table within another one is written with dotted keys."""
    container = table.value if isinstance(table, tomlkit.items.Table) else table
    keys = (key for key, _ in getattr(container, "body", ()) if key is not None)
    return any(key.key == part and key.is_dotted() for key in keys)


def _pieces(table: Any) -> list[Any]:
    """Return the parts of a table that a file has in several places; usually just the table."""
    return list(getattr(table, "_tables", ())) or [table]
