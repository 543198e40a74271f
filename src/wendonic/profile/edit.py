"""Numbers of a profile changed in its text: comments, order and everything else stay."""

import copy
import itertools
import math
import re
from collections.abc import Iterable, Iterator, Mapping
from typing import Any, get_args

import tomlkit
from pydantic import ValidationError
from pydantic.fields import FieldInfo
from tomlkit.exceptions import TOMLKitError

from wendonic.errors import ProfileError, WendonicError, none_such
from wendonic.profile.inherited import with_inherited
from wendonic.profile.plain_values import plain_value
from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.table import Table
from wendonic.profile.units import in_metres, metre_name


def path_parts(path: str) -> list[str | int]:
    """Return the parts of a field path.

    >>> path_parts("mode.foot.move.bind[1].curve.exponent")
    ['mode', 'foot', 'move', 'bind', 1, 'curve', 'exponent']
    """
    parts: list[str | int] = []
    for word in path.split("."):
        match = re.fullmatch(r"([^\[\]]+)((?:\[\d+\])*)", word)
        if match is None:
            raise WendonicError(f"{path} is not a field path; allowed: such as mode.foot.move.bind[0].rise_s")
        parts.append(match[1])
        parts += [int(index) for index in re.findall(r"\[(\d+)\]", match[2])]
    return parts


def edited(text: str, changes: Mapping[str, Any]) -> str:
    """Return a profile's text with the values at some field paths changed; a value of None takes a field out.

    Tables on the way that the text does not have are made; entries of lists have to be there. Raises `WendonicError`
    for a text that is not valid TOML, and for a path that does not exist.

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
        for part in above:
            # Within the entries of lists headers are hard to tell apart, and dotted keys have none.
            inline = inline or isinstance(part, int) or _dotted(table, part)
            table = _step(table, part, path, inline)
        if value is None:
            table.pop(last, None)
        else:
            _put(table, last, inlined(value))
    return tomlkit.dumps(document)


def inlined(value: Any) -> Any:
    """Return a value as it is written in one line: tables inline, tuples as lists.

    >>> inlined({"form": "power", "exponent": 1.6}).as_string()
    '{form = "power", exponent = 1.6}'
    """
    if isinstance(value, Mapping):
        table = tomlkit.inline_table()
        table.update({name: inlined(part) for name, part in value.items()})
        return table
    return [inlined(part) for part in value] if isinstance(value, list | tuple) else value


def _put(table: Any, name: str | int, value: Any) -> None:
    """Put a value in the place of another one, where a comment behind it stays in its column, or after the others of
    its table.
    """
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
    """Put a new value after the last one of a table; what comes after that, blank lines and comments, is about what
    follows.
    """
    table = _pieces(table)[0]
    container = table.value if isinstance(table, tomlkit.items.Table) else table
    body = getattr(container, "body", ())
    own = list(itertools.takewhile(lambda row: not isinstance(row[1], tomlkit.items.Table | tomlkit.items.AoT), body))
    keyed = [index for index, (key, _) in enumerate(own) if key is not None]
    # A table without values may begin with a comment of its own.
    blank = (index for index, (_, item) in enumerate(own) if isinstance(item, tomlkit.items.Whitespace))
    index = keyed[-1] + 1 if keyed else next(blank, len(own))
    if index >= len(body):
        table[name] = value
        return
    item = tomlkit.item(value)
    container._insert_at(index, name, item)
    if container is not table:
        dict.__setitem__(table, name, item)


def _append_table(table: Any, name: str) -> Any:
    """Return a new table, put after the others of a table; what follows these, from a blank line on, stays
    above what it is about.
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
    """Return the lines of the table that comes last in the text of a table."""
    if isinstance(table, tomlkit.items.AoT):
        return _last_body(table[-1])
    container = table.value if isinstance(table, tomlkit.items.Table) else table
    body: list[Any] = getattr(container, "body", [])
    tables = [item for _, item in body if isinstance(item, tomlkit.items.Table | tomlkit.items.AoT)]
    return _last_body(tables[-1]) if tables else body


def _step(table: Any, part: str | int, path: str, inline: bool) -> Any:
    if isinstance(part, int):
        if not isinstance(table, list) or part >= len(table):
            raise WendonicError(f"{path} does not exist: there is no entry [{part}]")
        return table[part]
    if not hasattr(table, "get"):
        raise WendonicError(f"{path} does not exist: {part} is not inside a table")
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
    """Return the parts of a table that a file has in several places; mostly the table alone."""
    return list(getattr(table, "_tables", ())) or [table]


def file_content_of(profile: Profile) -> dict[str, Any]:
    """Return a profile as the content of a file: what it says itself, without defaults, and without what follows.

    >>> from wendonic.demo import demo_profile
    >>> file_content_of(demo_profile())["gait"]["walk"]
    {'top_speed_m_s': 3.2, 'accel_m_s2': 22, 'brake_m_s2': 30}
    """
    if profile.written:
        return _listed(profile.written)  # type: ignore[no-any-return]
    content: dict[str, Any] = profile.model_dump(exclude_unset=True)
    for gait in content.get("gait", {}).values():
        if "drag_per_s" in gait:
            # They follow from thrust and drag.
            for name in ("top_speed_m_s", "accel_m_s2", "brake_m_s2"):
                gait.pop(name, None)
    return _listed(content)  # type: ignore[no-any-return]


def _listed(value: Any) -> Any:
    """Return a value with lists where it has tuples, as a file has them."""
    if isinstance(value, dict):
        return {name: _listed(part) for name, part in value.items()}
    return [_listed(part) for part in value] if isinstance(value, list | tuple) else value


def with_values(content: Mapping[str, Any], changes: Mapping[str, Any]) -> Profile:
    """Return the profile of a file's content with the values at some field paths changed; None takes a field out.

    Quicker than by its text: for trying many numbers. Raises `ProfileError` where they do not go together.

    >>> stick = {"move": {"bind": [{"stick": "pad.left_stick"}]}}
    >>> walks = {"format": "wendonic-profile", "version": 1, "mode": {"foot": stick}}
    >>> with_values(walks, {"gait.walk.accel_m_s2": 9.0}).gait["walk"].accel_m_s2
    9.0
    """
    changed: Any = copy.deepcopy(dict(content))
    unwritten = UnwrittenTables(content)
    for path, value in changes.items():
        *above, last = path_parts(path)
        table, whole = changed, with_inherited(in_metres(changed))
        for index, part in enumerate(above):
            if isinstance(part, int):
                if not isinstance(table, list) or part >= len(table):
                    raise WendonicError(f"{path} does not exist: there is no entry [{part}]")
                table, whole = table[part], whole[part]
            else:
                if not isinstance(table, dict):
                    raise WendonicError(f"{path} does not exist: {part} is not inside a table")
                whole = whole.get(part, {})
                if part not in table:
                    # A list that a mode has from another one becomes its own once something in it differs.
                    own = isinstance(whole, list)
                    table[part] = copy.deepcopy(whole) if own else unwritten.table(above[: index + 1])
                table = table[part]
        _put_value(table, last, plain_value(value), path)
    try:
        return Profile.model_validate(changed)
    except ValidationError as fault:
        from wendonic.profile.faults import table_faults

        raise ProfileError("<changed>", table_faults(Profile, fault, changed, "")) from None


class UnwrittenTables:
    """What tables hold that a content does not write: numbers of their own kind, which must not become others only
    because one of them is written.
    """

    def __init__(self, content: Mapping[str, Any]) -> None:
        """Take a file's content."""
        self._content = content
        self._profile: Profile | None = None

    def table(self, parts: Iterable[str | int]) -> Any:
        """Return what the table at these parts of a path holds that is not the default of its fields, or the
        numbers of a list.
        """
        try:
            if self._profile is None:
                self._profile = Profile.model_validate(copy.deepcopy(dict(self._content)))
            found: Any = self._profile
            for part in parts:
                found = getattr(found, str(part)) if isinstance(found, Table) else found[part]
        except (ValidationError, AttributeError, KeyError, IndexError, TypeError):
            return {}
        if isinstance(found, tuple):
            return _listed(found) if all(isinstance(one, int | float) for one in found) else {}
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


def _put_value(table: Any, last: str | int, value: Any, path: str) -> None:
    if isinstance(last, int) and (not isinstance(table, list) or last >= len(table)):
        raise WendonicError(f"{path} does not exist: there is no entry [{last}]")
    if not isinstance(last, int) and not isinstance(table, dict):
        raise WendonicError(f"{path} does not exist: {last} is not inside a table")
    if value is not None:
        table[last] = _listed(value)
    elif isinstance(last, int):
        del table[last]
    else:
        table.pop(last, None)


def limits_of(profile: Profile, path: str) -> tuple[float, float]:
    """Return the least and the most that a number of a profile may be; raises `WendonicError` where it is none.

    >>> from wendonic.demo import demo_profile
    >>> limits_of(demo_profile(), "mode.foot.move.half_life_s")
    (0.0, 10.0)
    """
    return number_at(profile, path)[1:]


def number_at(profile: Profile, path: str) -> tuple[float, float, float]:
    """Return a number of a profile, and the least and the most that it may be; where the profile has none, the
    example of its field stands for it. Raises `WendonicError` where there is no number.

    >>> from wendonic.demo import demo_profile
    >>> number_at(demo_profile(), "gait.walk.reverse_m_s2")[0]
    40.0
    """
    *above, last = path_parts(path)
    table, value = _at(profile, above, path), value_at(profile, path)
    name = metre_name(str(last))
    field = type(table).model_fields[name] if hasattr(type(table), "model_fields") else None
    units = 1.0 if name == last else profile.world.units_per_m
    if value is None and field is not None and field.examples and isinstance(field.examples[0], int | float):
        value = field.examples[0] * units
    if isinstance(value, bool) or not isinstance(value, int | float):
        raise WendonicError(f"{path} is not a number: found {value!r}")
    low, high = field_limits(field) if field else (-math.inf, math.inf)
    return float(value), low * units, high * units


def field_limits(field: FieldInfo, margin: float = 0.0) -> tuple[float, float]:
    """Return the least and the most that a number of a field may be, in the field's own unit; a limit that is not
    allowed itself is moved inwards by a margin.

    >>> from wendonic.profile.schema.gait import Gait
    >>> field_limits(Gait.model_fields["top_speed_m_s"]), field_limits(Gait.model_fields["top_speed_m_s"], 0.1)
    ((0.0, 1000.0), (0.1, 1000.0))
    """
    low, high = -math.inf, math.inf
    for limit in _limits((*field.metadata, field.annotation)):
        low = max(low, getattr(limit, "ge", getattr(limit, "gt", low - margin) + margin))
        high = min(high, getattr(limit, "le", getattr(limit, "lt", high + margin) - margin))
    return low, high


def _limits(parts: Iterable[Any]) -> Iterator[Any]:
    """Go through the limits that an annotation holds, however deep they lie in it."""
    for part in parts:
        if any(hasattr(part, name) for name in ("ge", "gt", "le", "lt")) and not isinstance(part, type):
            yield part
        elif hasattr(part, "metadata") and not isinstance(part, type):
            yield from _limits(part.metadata)
        yield from _limits(get_args(part))


def value_at(profile: Profile, path: str) -> Any:
    """Return what a profile has at a field path, defaults included; raises `WendonicError` for one that leads
    nowhere, with the nearest right spelling.

    >>> from wendonic.demo import demo_profile
    >>> value_at(demo_profile(), "gait.walk.accel_m_s2"), value_at(demo_profile(), "mode.foot.move.bind[1].gate")
    (22.0, 'circle')
    """
    return _at(profile, path_parts(path), path)


def _at(profile: Profile, parts: Iterable[str | int], path: str) -> Any:
    """Return what a profile has at the end of some parts of a path."""
    found: Any = profile
    for part in parts:
        if isinstance(part, int):
            if not isinstance(found, tuple) or part >= len(found):
                raise WendonicError(f"{path} does not exist: there is no entry [{part}]")
            found = found[part]
        elif isinstance(found, dict):
            if part not in found:
                raise WendonicError(f"{path} does not exist: {none_such('entry', part, found)}")
            found = found[part]
        elif found is None:
            raise WendonicError(f"{path} does not exist: {path.partition(f'.{part}')[0]} is not set")
        else:
            fields = getattr(type(found), "model_fields", {})
            name = metre_name(part) if "units_per_m" in profile.world.model_fields_set else part
            if name not in fields:
                raise WendonicError(f"{path} does not exist: {none_such('field', part, fields)}")
            found = profile.every_gait if found is profile and name == "gait" else getattr(found, name)
            if name != part and isinstance(found, int | float):
                found *= profile.world.units_per_m
    return found
