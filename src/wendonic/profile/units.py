"""A game's own unit of length in a profile: values in it are converted to metres, and back for display."""

import math
import re
from typing import Any

from wendonic.length_unit import METRES, LengthUnit

_IN_UNITS = re.compile(r"^(.+)_u(|_s|_s2|_per_min)$")
_IN_METRES = re.compile(r"^(.+)_m(|_s|_s2|_per_min)$")
_FIELD = re.compile(r"\b[a-z][a-z0-9_]*_m(?:_s2|_s|_per_min)?\b")
_NAMED = ("press_amounts",)
"""Tables whose keys are names of presses, not fields."""


def metre_name(name: str) -> str:
    """Return the name of a field in metres.

    >>> metre_name("top_speed_u_s"), metre_name("square_u"), metre_name("rise_s")
    ('top_speed_m_s', 'square_m', 'rise_s')
    """
    return _IN_UNITS.sub(r"\1_m\2", name)


def unit_name(name: str) -> str:
    """Return the name of a field in the game's own unit, from that in metres.

    >>> unit_name("top_speed_m_s"), unit_name("rise_s")
    ('top_speed_u_s', 'rise_s')
    """
    return _IN_METRES.sub(r"\1_u\2", name)


def spelled_in(length: LengthUnit, name: str) -> str:
    """Return the name of a quantity as it is shown, and written in a budget, where lengths are in a game's own unit.

    >>> spelled_in(LengthUnit("px", 50.0), "stop_distance_m"), spelled_in(METRES, "stop_distance_m")
    ('stop_distance_u', 'stop_distance_m')
    """
    return name if length == METRES else unit_name(name)


def path_spelled_in(length: LengthUnit, path: str) -> str:
    """Return the path of a field as in a file with lengths in a game's own unit.

    >>> pixels = LengthUnit("px", 50.0)
    >>> path_spelled_in(pixels, "gait.walk.brake_m_s2"), path_spelled_in(pixels, "budget.stop_distance_m.max")
    ('gait.walk.brake_u_s2', 'budget.stop_distance_u.max')
    """
    table, _, rest = path.partition(".")
    if table != "budget":
        return spelled_in(length, path)
    quantity, *limit = rest.split(".")
    return ".".join([table, spelled_in(length, quantity), *limit])


def words_spelled_in(length: LengthUnit, words: str) -> str:
    """Return a sentence with its field names spelled as in a file with lengths in a game's own unit.

    >>> words_spelled_in(LengthUnit("px", 50.0), "either height_m or speed_m_s")
    'either height_u or speed_u_s'
    """
    return words if length == METRES else _FIELD.sub(lambda found: unit_name(found[0]), words)


def words_as_written(content: Any, path: list[str | int], words: str) -> str:
    """Return a sentence with its field names spelled as the content spells them, or would, in the table at a path or
    around the field there.

    >>> pixels = {"world": {"units_per_m": 50}, "gait": {"walk": {"accel_m_s2": 9.0}}}
    >>> words_as_written(pixels, ["gait", "walk"], "does nothing without brake_m_s2 and accel_m_s2")
    'does nothing without brake_u_s2 and accel_m_s2'
    """
    world = content.get("world") if isinstance(content, dict) else None
    if not isinstance(world, dict) or "units_per_m" not in world:
        return words
    found: Any = content
    there: dict[str, Any] = {}
    for part in path:
        try:
            found = found[part]
        except (KeyError, IndexError, TypeError):
            found = None
        there = found if isinstance(found, dict) else there if part == path[-1] else {}
    return _FIELD.sub(lambda name: name[0] if name[0] in there else unit_name(name[0]), words)


def units_per_m(content: Any) -> float:
    """Return how many of its own units a profile's content has in a metre; 1 if it has no usable value."""
    world = content.get("world") if isinstance(content, dict) else None
    found = world.get("units_per_m") if isinstance(world, dict) else None
    if isinstance(found, bool) or not isinstance(found, int | float) or not 0.0 < found < math.inf:
        return 1.0
    return float(found)


def own_unit(content: Any) -> str:
    """Return the name of the own unit of a profile's content; "" if it has none."""
    world = content.get("world") if isinstance(content, dict) else None
    name = world.get("unit") if isinstance(world, dict) else None
    return name if isinstance(name, str) and name != "m" else ""


def unit_name_of(name: str, unit: str) -> str:
    """Return the field name meant by one that contains the name of the file's own unit; any other name unchanged.

    >>> unit_name_of("top_speed_px_s", "px"), unit_name_of("square_px", "px"), unit_name_of("rise_s", "px")
    ('top_speed_u_s', 'square_u', 'rise_s')
    """
    return re.sub(rf"^(.+)_{re.escape(unit)}(|_s|_s2|_per_min)$", r"\1_u\2", name) if unit else name


def in_metres(content: Any) -> Any:
    """Return a profile's content with every length, speed and acceleration that is in the game's own unit in metres.

    A field that exists in both spellings, or in a unit that the content does not define, is left as it is.

    >>> pixels = {"world": {"units_per_m": 50}, "gait": {"walk": {"top_speed_u_s": 200}}}
    >>> in_metres(pixels)["gait"]
    {'walk': {'top_speed_m_s': 4.0}}
    """
    world = content.get("world") if isinstance(content, dict) else None
    if not isinstance(world, dict) or "units_per_m" not in world:
        return content
    return _converted(content, units_per_m(content), "")


def _converted(value: Any, units: float, inside: str) -> Any:
    if isinstance(value, list | tuple):
        return type(value)(_converted(part, units, inside) for part in value)
    if not isinstance(value, dict):
        return value
    made: dict[str, Any] = {}
    for name, part in value.items():
        metres = metre_name(name) if isinstance(name, str) else name
        if metres != name and metres not in value and inside not in _NAMED and _is_length(part, inside):
            made[metres] = _scaled(part, 1.0 / units)
        else:
            made[name] = _converted(part, units, name)
    return made


def _is_length(value: Any, inside: str) -> bool:
    """Return whether a value is a number, a list of numbers, or the limits of a budget; anything else with such an
    ending is a name.
    """
    return not isinstance(value, dict) or inside == "budget"


def _scaled(value: Any, factor: float) -> Any:
    if isinstance(value, dict):
        return {name: _scaled(part, factor) for name, part in value.items()}
    if isinstance(value, list | tuple):
        return type(value)(_scaled(part, factor) for part in value)
    if isinstance(value, bool) or not isinstance(value, int | float):
        return value
    return value * factor


def as_written(content: Any, path: list[str | int]) -> tuple[list[str | int], float]:
    """Return a field path as the content spells it, and how many of its units are a metre there.

    >>> pixels = {"world": {"units_per_m": 50}, "gait": {"walk": {"top_speed_u_s": 200}}}
    >>> as_written(pixels, ["gait", "walk", "top_speed_m_s"])
    (['gait', 'walk', 'top_speed_u_s'], 50.0)
    """
    written: list[str | int] = []
    factor = 1.0
    table = content
    for part in path:
        spelled = part
        if isinstance(table, dict) and isinstance(part, str) and part not in table:
            spelled = next((name for name in table if isinstance(name, str) and metre_name(name) == part), part)
        if spelled != part:
            factor = units_per_m(content)
        written.append(spelled)
        try:
            table = table[spelled]
        except (KeyError, IndexError, TypeError):
            table = None
    return written, factor
