"""Numbers of a profile changed in its text: comments, order and everything else stay."""

import re
from collections.abc import Mapping
from typing import Any

import tomlkit
from tomlkit.exceptions import TOMLKitError

from wendonic.errors import WendonicError, none_such
from wendonic.profile.schema import Profile


def path_parts(path: str) -> list[str | int]:
    """Return the parts of a field path.

    >>> path_parts("mode.foot.move.bind[1].curve.exponent")
    ['mode', 'foot', 'move', 'bind', 1, 'curve', 'exponent']
    """
    parts: list[str | int] = []
    for word in path.split("."):
        match = re.fullmatch(r"([^\[\]]+)((?:\[\d+\])*)", word)
        if match is None:
            raise WendonicError(f"{path} is no field path; allowed: such as mode.foot.move.bind[0].rise_s")
        parts.append(match[1])
        parts += [int(index) for index in re.findall(r"\[(\d+)\]", match[2])]
    return parts


def edited(text: str, changes: Mapping[str, Any]) -> str:
    """Return a profile's text with the values at some field paths changed; a value of None takes a field out.

    Tables on the way that the text does not have are made; entries of lists have to be there. Raises `WendonicError`
    for a text that is no TOML, and for a path that leads nowhere.

    >>> edited("[gait.walk]\\naccel_m_s2 = 9   # slow\\n", {"gait.walk.accel_m_s2": 22.0})
    '[gait.walk]\\naccel_m_s2 = 22.0   # slow\\n'
    """
    try:
        document = tomlkit.parse(text)
    except TOMLKitError as fault:
        raise WendonicError(f"is no TOML: {fault}") from None
    for path, value in changes.items():
        *way, last = path_parts(path)
        table: Any = document
        for part in way:
            table = _step(table, part, path)
        if value is None:
            table.pop(last, None)
        else:
            table[last] = list(value) if isinstance(value, tuple) else value
    return tomlkit.dumps(document)


def _step(table: Any, part: str | int, path: str) -> Any:
    if isinstance(part, int):
        if not isinstance(table, list) or part >= len(table):
            raise WendonicError(f"{path} leads nowhere: there is no entry [{part}]")
        return table[part]
    if not hasattr(table, "get"):
        raise WendonicError(f"{path} leads nowhere: {part} is inside of no table")
    if part not in table:
        table[part] = tomlkit.inline_table() if isinstance(table, tomlkit.items.InlineTable) else tomlkit.table()
    return table[part]


def value_at(profile: Profile, path: str) -> Any:
    """Return what a profile has at a field path, defaults included; raises `WendonicError` for one that leads
    nowhere, with the nearest right spelling.

    >>> from wendonic.demo import demo_profile
    >>> value_at(demo_profile(), "gait.walk.accel_m_s2"), value_at(demo_profile(), "mode.foot.move.bind[1].gate")
    (22.0, 'circle')
    """
    found: Any = profile
    for part in path_parts(path):
        if isinstance(part, int):
            if not isinstance(found, tuple) or part >= len(found):
                raise WendonicError(f"{path} leads nowhere: there is no entry [{part}]")
            found = found[part]
        elif isinstance(found, dict):
            if part not in found:
                raise WendonicError(f"{path} leads nowhere: {none_such('entry', part, found)}")
            found = found[part]
        else:
            fields = getattr(type(found), "model_fields", {})
            if part not in fields:
                raise WendonicError(f"{path} leads nowhere: {none_such('field', part, fields)}")
            found = getattr(found, part)
    return found
