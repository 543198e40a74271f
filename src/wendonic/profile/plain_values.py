"""Converts values from a program to those of a file."""

from collections.abc import Mapping
from typing import Any, SupportsFloat

_PLAIN = frozenset((bool, int, float, str, type(None)))


def plain_value(value: Any) -> Any:
    """Return a value made of Python's own numbers, lists and dicts. Number types of other libraries would not be
    recognised, nor their lengths converted to the game's own unit.

    >>> from fractions import Fraction
    >>> plain_value({"at": (Fraction(1, 2), 3), "form": "knee"})
    {'at': [0.5, 3], 'form': 'knee'}
    """
    if type(value) in _PLAIN:
        return value
    if hasattr(value, "tolist"):
        # An array, or a scalar of such a type.
        value = value.tolist()
    if isinstance(value, Mapping):
        return {name: plain_value(part) for name, part in value.items()}
    if isinstance(value, list | tuple):
        return [plain_value(part) for part in value]
    if isinstance(value, SupportsFloat) and not isinstance(value, int | float):
        return float(value)
    return value


def is_plain(value: Any) -> bool:
    """Return whether a value consists of numbers, texts, lists and dicts only, like that of a file, without tables.

    >>> from wendonic.profile.schema.world import World
    >>> is_plain({"world": {"up": "+z"}}), is_plain({"world": World(right="+x", forward="+y")})
    (True, False)
    """
    if isinstance(value, Mapping):
        return all(is_plain(part) for part in value.values())
    if isinstance(value, list | tuple):
        return all(is_plain(part) for part in value)
    return value is None or isinstance(value, str | bool | int | float)
