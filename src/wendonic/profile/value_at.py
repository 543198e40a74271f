"""Reads the value of a profile at a field path."""

import json
import math
from collections.abc import Iterable
from typing import Any

from pydantic.fields import FieldInfo

from wendonic.errors import WendonicError, none_such
from wendonic.profile.field_limits import field_limits, is_whole
from wendonic.profile.field_path import dotted, no_step, path_parts
from wendonic.profile.schema.field_words import field_unit, field_words
from wendonic.profile.schema.profile import Profile
from wendonic.profile.units import metre_name


def value_at(profile: Profile, path: str) -> Any:
    """Return the value of a profile at a field path, defaults included; raises `WendonicError` for an unknown path,
    with the nearest right spelling.

    >>> from wendonic.demo import demo_profile
    >>> value_at(demo_profile(), "gait.walk.accel_m_s2"), value_at(demo_profile(), "mode.foot.move.bind[1].gate")
    (22.0, 'circle')
    """
    return _at(profile, path_parts(path), path)


def limits_of(profile: Profile, path: str) -> tuple[float, float]:
    """Return the smallest and largest allowed value of a number of a profile; raises `WendonicError` if it is not a
    number.

    >>> from wendonic.demo import demo_profile
    >>> limits_of(demo_profile(), "mode.foot.move.half_life_s")
    (0.0, 10.0)
    """
    return number_at(profile, path)[1:]


def whole_at(profile: Profile, path: str) -> bool:
    """Return whether a setting takes whole numbers only; raises `WendonicError` for an unknown path.

    >>> from wendonic.demo import demo_profile
    >>> whole_at(demo_profile(), "mode.foot.move.notches"), whole_at(demo_profile(), "gait.walk.accel_m_s2")
    (True, False)
    """
    value_at(profile, path)
    field = _field(profile, path)
    return field is not None and is_whole(field)


def number_at(profile: Profile, path: str) -> tuple[float, float, float]:
    """Return a number of a profile, and its smallest and largest allowed value; if the profile has none, the example
    of its field is used. Raises `WendonicError` if there is no number.

    >>> from wendonic.demo import demo_profile
    >>> number_at(demo_profile(), "gait.walk.reverse_m_s2")[0]
    40.0
    """
    value, field = value_at(profile, path), _field(profile, path)
    last = path_parts(path)[-1]
    units = 1.0 if not isinstance(last, str) or metre_name(last) == last else profile.world.units_per_m
    if value is None and field is not None and field.examples and isinstance(field.examples[0], int | float):
        value = field.examples[0] * units
    if isinstance(value, bool) or not isinstance(value, int | float):
        raise WendonicError(f"{path} is not a number: {_what_it_is(value)}")
    low, high = field_limits(field) if field else (-math.inf, math.inf)
    return float(value), low * units, high * units


def meaning_of(profile: Profile, path: str) -> tuple[str, str]:
    """Return the unit of a setting, "" if it has none, and the sentence of its field, or of the table that it is an
    entry of.

    >>> from wendonic.demo import demo_profile
    >>> meaning_of(demo_profile(), "gait.walk.top_speed_m_s")[0]
    'm/s'
    """
    unit, sentence = "", ""
    parts = path_parts(path)
    for count, part in enumerate(parts):
        try:
            fields = getattr(type(_at(profile, parts[:count], path)), "model_fields", {})
        except WendonicError:
            break
        name = metre_name(part) if isinstance(part, str) else part
        if name in fields:
            unit, sentence = field_unit(str(name), fields[name]), fields[name].description or ""
            if name != part:
                unit = profile.world.length.label(unit)
    return unit, sentence


def _field(profile: Profile, path: str) -> FieldInfo | None:
    """Return the field that a path names; None for an entry of a list or of a table of names."""
    *above, last = path_parts(path)
    fields: dict[str, FieldInfo] = getattr(type(_at(profile, above, path)), "model_fields", {})
    return fields[metre_name(last)] if isinstance(last, str) and fields else None


def _at(profile: Profile, parts: Iterable[str | int], path: str) -> Any:
    """Return the value of a profile at some parts of a path."""
    found: Any = profile
    for count, part in enumerate(parts):
        if isinstance(part, int):
            if not isinstance(found, tuple) or part >= len(found):
                raise no_step(found, path_parts(path)[:count], part, path)
            found = found[part]
        elif isinstance(found, tuple):
            raise no_step(found, path_parts(path)[:count], part, path)
        elif isinstance(found, dict):
            if part not in found:
                raise WendonicError(f"{path} does not exist: {none_such('entry', part, found)}")
            found = found[part]
        elif found is None:
            raise WendonicError(f"{path} does not exist: {_unset(profile, path, count)}")
        else:
            fields = getattr(type(found), "model_fields", {})
            name = metre_name(part) if "units_per_m" in profile.world.model_fields_set else part
            if name not in fields:
                raise WendonicError(f"{path} does not exist: {none_such('field', part, fields)}")
            found = profile.every_gait if found is profile and name == "gait" else getattr(found, name)
            if name != part and isinstance(found, int | float):
                found *= profile.world.units_per_m
    return found


def _what_it_is(value: Any) -> str:
    """Return what was found at a path where a number was expected."""
    fields = getattr(type(value), "model_fields", value if isinstance(value, dict) else None)
    if fields is not None:
        return f"found a table; in it: {', '.join(fields) or 'nothing'}"
    if isinstance(value, tuple):
        return f"found a list of {len(value)}"
    return "it is not set" if value is None else f"found {json.dumps(value)}"


def _unset(profile: Profile, path: str, count: int) -> str:
    """Return which table a profile lacks, and how to write it."""
    *above, name = path_parts(path)[:count]
    fields = field_words(type(_at(profile, above, path)))
    example = next((words.example for words in fields if words.name == name), "")
    such = f", such as {name} = {example}" if example else ""
    return f"{dotted([*above, name])} is not set; write that table first{such}"
