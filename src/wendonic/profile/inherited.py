"""Modes that copy another one and contain only what differs."""

from collections.abc import Mapping, Sequence
from typing import Any

_CHOOSES = ("frame", "form")
"""Fields that determine what else a table may have: if one differs, nothing of the other table is inherited."""

_EITHER = (("half_life_s", "one_euro"), ("deg_per_count", "cm_per_turn"))
"""Fields of which a table has only one: writing one replaces the other."""


def with_inherited(content: Any) -> Any:
    """Return a profile's content in which every mode with `like` has everything of the other mode that it does not
    contain itself.

    Tables are inherited field by field, lists as a whole. A `like` that names no mode, or leads in a circle, is left
    as it is.

    >>> foot = {"gait": "walk", "move": {"diagonal": "cap", "half_life_s": 0.02}}
    >>> aim = {"like": "foot", "move": {"diagonal": "unit"}}
    >>> with_inherited({"mode": {"foot": foot, "aim": aim}})["mode"]["aim"]["move"]
    {'diagonal': 'unit', 'half_life_s': 0.02}
    """
    modes = content.get("mode") if isinstance(content, dict) else None
    if not isinstance(modes, dict) or not any(isinstance(mode, dict) and "like" in mode for mode in modes.values()):
        return content
    return {**content, "mode": {name: _whole(modes, name, ()) for name in modes}}


def likes(modes: Mapping[str, Any], name: str) -> list[str]:
    """Return the modes that a mode copies, the nearest first; a circle ends with the name that closes it.

    >>> likes({"a": {"like": "b"}, "b": {"like": "c"}, "c": {}}, "a"), likes({"a": {"like": "a"}}, "a")
    (['b', 'c'], ['a'])
    """
    found: list[str] = []
    seen = {name}
    mode = modes.get(name)
    while isinstance(mode, dict) and isinstance(mode.get("like"), str):
        other = mode["like"]
        found.append(other)
        if other in seen:
            break
        seen.add(other)
        mode = modes.get(other)
    return found


def inherited_from(modes: Mapping[str, Any], name: str, path: Sequence[str | int]) -> str:
    """Return the mode in which something at a path of a mode is written: itself, or the nearest of those that it
    copies.

    >>> foot = {"move": {"bind": [{"stick": "pad.left_stick"}]}}
    >>> modes = {"foot": foot, "swim": {"like": "foot", "move": {"half_life_s": 0.1}}}
    >>> inherited_from(modes, "swim", ["move", "bind", 0]), inherited_from(modes, "swim", ["move", "half_life_s"])
    ('foot', 'swim')
    """
    return next((one for one in (name, *likes(modes, name)) if _has(modes.get(one), path)), name)


def _has(content: Any, path: Sequence[str | int]) -> bool:
    for part in path:
        try:
            content = content[part]
        except (KeyError, IndexError, TypeError):
            return False
    return True


def _whole(modes: Mapping[str, Any], name: str, behind: tuple[str, ...]) -> Any:
    mode = modes[name]
    other = mode.get("like") if isinstance(mode, dict) else None
    if not isinstance(other, str) or other not in modes or other in (*behind, name):
        return mode
    return _merged(_whole(modes, other, (*behind, name)), mode)


def _merged(begun: Any, own: Any) -> Any:
    if not isinstance(begun, dict) or not isinstance(own, dict):
        return own
    if any(name in own and own[name] != begun.get(name) for name in _CHOOSES):
        return own
    without = {other for pair in _EITHER for other in pair if other not in own and any(name in own for name in pair)}
    kept = {name: value for name, value in begun.items() if name not in without}
    return kept | {name: _merged(kept[name], value) if name in kept else value for name, value in own.items()}
