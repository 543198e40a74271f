"""The fields of a profile as the page shows them: numbers with their ranges, words with their choices, in order."""

import math
from collections.abc import Collection, Iterator, Sequence
from typing import Any, Literal, get_args, get_origin

from pydantic.fields import FieldInfo

from wendonic.profile.field_limits import field_limits
from wendonic.profile.schema.field_words import field_unit
from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.table import LEAST_NUMBER, Choice, Table, words_of_family
from wendonic.profile.schema.words import Words

Content = dict[str, Any]
LEFT_OUT = frozenset({"format", "version", "title", "seat", "joystick", "budget", "world", "window"})
"""Tables and fields that say nothing of how a body feels."""
MEASURED = frozenset({"rim"})
"""Fields that calibration writes and that are not turned by hand."""
SEATED = frozenset({"shared", "seat"})
"""Fields that mean something where there are several players."""


def field_contents(profile: Profile, paths: Sequence[str] = (), used: Collection[str] = ()) -> list[Content]:
    """Return the fields in the order of the profile's tables, each with its path, kind, value and words; `number` is
    its index among `paths`, where numbers of a tick are made of it, as of those `used`; else -1. A number that does
    nothing in this profile is left out. Values are in metres, `factor` is how many of the shown unit are one.
    """
    numbers = {path: index for index, path in enumerate(paths) if path in used}
    used_gaits = {gait for mode in profile.mode for gait in profile.gaits_of(mode)}
    found = []
    for path, table, name, value in _walk(profile.with_every_gait(), ""):
        parts = path.split(".")
        if parts[0] in LEFT_OUT or (parts[0] == "gait" and parts[1] not in used_gaits):
            continue
        if name in MEASURED or (name in SEATED and not profile.seat):
            continue
        one = _field(profile, path, table, name, value)
        if one is None:
            continue
        one["number"] = numbers.get(path, -1)
        bound = ".bind[" in path or ".press." in path
        if one["number"] >= 0 or bound or one["kind"] != "number" or one["whole"] or not paths:
            found.append(one)
    return found


def _walk(value: Any, path: str) -> Iterator[tuple[str, type[Table], str, Any]]:
    """Give each field that holds a number, a word or a switch: its path, its table, its name and its value."""
    idle = _idle(value)
    for name in type(value).model_fields:
        if name in idle or not value.uses(name):
            continue
        inside = f"{path}.{name}" if path else name
        for found in _walk_part(getattr(value, name), inside, type(value), name):
            if found[0].removeprefix(f"{path}.") not in idle:
                yield found


def _idle(table: Any) -> set[str]:
    """Return which fields would do nothing if they were written, by their paths from the table on."""
    content = {name: getattr(table, name) for name in type(table).model_fields}
    return {path for path, _ in type(table).model_construct(set(content), **content).idle_fields()}


def _walk_part(part: Any, path: str, table: type[Table], name: str) -> Iterator[tuple[str, type[Table], str, Any]]:
    if isinstance(part, Table):
        yield from _walk(part, path)
    elif name == "points":
        yield path, table, name, part
    elif isinstance(part, dict):
        for key, inner in part.items():
            yield from _walk_part(inner, f"{path}.{key}", table, name)
    elif isinstance(part, tuple):
        for index, inner in enumerate(part):
            yield from _walk_part(inner, f"{path}[{index}]", table, name)
    elif isinstance(part, bool | int | float | str):
        yield path, table, name, part


def _few(annotation: Any) -> list[int]:
    """Return the numbers that a field may have where these are few."""
    kinds = [annotation, *get_args(annotation)]
    return [
        number
        for kind in kinds
        if get_origin(kind) is Literal
        for number in get_args(kind)
        if isinstance(number, int)
    ]


def _field(profile: Profile, path: str, table: type[Table], name: str, value: Any) -> Content | None:
    info: FieldInfo = table.model_fields[name]
    unit, length = field_unit(name, info), profile.world.length
    said = {
        "path": path,
        "name": name,
        "value": value,
        "unit": length.label(unit),
        "factor": length.factor(unit),
        "about": info.description or "",
    }
    if isinstance(value, tuple):
        return said | {"kind": "points", "value": [list(point) for point in value]}
    if isinstance(value, bool):
        return said | {"kind": "switch"}
    few = _few(info.annotation)
    if few:
        return said | {"kind": "choice", "choices": few}
    if isinstance(value, str):
        words = next((list(mark) for mark in info.metadata if isinstance(mark, Words)), None)
        if words is None and issubclass(table, Choice) and name == table.chosen_by:
            words = words_of_family(table)
        return said | {"kind": "choice", "choices": words} if words else None
    # A limit that is not allowed itself is as near as a number may be.
    low, high = field_limits(info, LEAST_NUMBER)
    default = info.get_default(call_default_factory=True) if not info.is_required() else None
    return said | {
        "kind": "number",
        "whole": isinstance(value, int),
        "low": low if math.isfinite(low) else None,
        "high": high if math.isfinite(high) else None,
        "default": default if isinstance(default, int | float) else None,
    }
