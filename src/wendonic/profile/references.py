"""References of a profile by name, which must exist: gaits, modes, zones and presses."""

from collections.abc import Iterable, Iterator
from typing import Any

from wendonic.devices.controls import PADS
from wendonic.errors import none_such
from wendonic.profile.field_path import SEPARATES
from wendonic.profile.inherited import likes
from wendonic.profile.schema.gait import USUAL_GAITS
from wendonic.profile.schema.window import USUAL_ZONES


def _not_there(kind: str, name: str, known: Iterable[str], table: str) -> str:
    """Return that there is no `kind` with that name, the existing names, and the table that would add it, if the name
    is possible.

    >>> _not_there("gait", "sprint up", ["walk"], "gait")
    'no gait "sprint up"; there are: walk; a table [gait."sprint up"] adds it'
    """
    from tomlkit import key

    if not name or set(name) & set(SEPARATES):
        return none_such(kind, name, known)
    return f"{none_such(kind, name, known)}; a table [{table}.{key(name).as_string()}] adds it"


def _zone_fields(mode: dict[str, Any], path: str) -> Iterator[tuple[str, str]]:
    """Yield the zones that a mode names: field path and name. Values of a wrong type are skipped."""
    for channel in ("move", "look", "goal"):
        table = mode.get(channel)
        binds = table.get("bind") if isinstance(table, dict) else None
        for index, bind in enumerate(binds if isinstance(binds, list | tuple) else ()):
            for key, value in bind.items() if isinstance(bind, dict) else ():
                where = f"{path}.{channel}.bind.{index}.{key}"
                if key in ("touch_stick", "touch_drag", "touch") and isinstance(value, str):
                    yield where, value
                if key == "touch_zones" and isinstance(value, dict):
                    for direction, names in value.items():
                        for name in names if isinstance(names, list | tuple) else ():
                            if isinstance(name, str):
                                yield f"{where}.{direction}", name
    presses = mode.get("press")
    for press, table in presses.items() if isinstance(presses, dict) else ():
        entries = table.get("bind") if isinstance(table, dict) else None
        for index, entry in enumerate(entries if isinstance(entries, list | tuple) else ()):
            if isinstance(entry, dict) and isinstance(entry.get("zone"), str):
                yield f"{path}.press.{press}.bind.{index}.zone", entry["zone"]


def _press_fields(mode: dict[str, Any], path: str) -> Iterator[tuple[str, str]]:
    """Yield the presses that a mode's channels name: field path and name."""
    move, look = mode.get("move"), mode.get("look")
    amounts = move.get("press_amounts") if isinstance(move, dict) else None
    for name in amounts if isinstance(amounts, dict) else ():
        yield f"{path}.move.press_amounts.{name}", name
    switches = mode.get("press_gaits")
    for name in switches if isinstance(switches, dict) else ():
        yield f"{path}.press_gaits.{name}", name
    steer = mode.get("steer")
    teleport = steer.get("teleport") if isinstance(steer, dict) else None
    if isinstance(teleport, dict) and isinstance(teleport.get("press"), str):
        yield f"{path}.steer.teleport.press", teleport["press"]
    if not isinstance(look, dict):
        return
    zoom, binds = look.get("zoom"), look.get("bind")
    if isinstance(zoom, dict) and isinstance(zoom.get("press"), str):
        yield f"{path}.look.zoom.press", zoom["press"]
    for index, bind in enumerate(binds if isinstance(binds, list | tuple) else ()):
        for name in ("while_press", "pause_press"):
            if isinstance(bind, dict) and isinstance(bind.get(name), str):
                yield f"{path}.look.bind.{index}.{name}", bind[name]


def _seated_tables(mode: dict[str, Any], path: str) -> list[tuple[str, Any]]:
    """Return the parts of a mode that may name a seat, by field path."""
    tables: list[tuple[str, Any]] = []
    for channel in ("move", "rise", "throttle", "turn", "look", "goal"):
        table = mode.get(channel)
        binds = table.get("bind") if isinstance(table, dict) else None
        found = enumerate(binds if isinstance(binds, list | tuple) else ())
        tables += [(f"{path}.{channel}.bind.{index}", bind) for index, bind in found]
    presses = mode.get("press")
    return tables + _entries(presses, f"{path}.press")


def _entries(table: Any, path: str) -> list[tuple[str, Any]]:
    return [(f"{path}.{name}", entry) for name, entry in table.items()] if isinstance(table, dict) else []


def _unknown_seats(tables: Iterable[tuple[str, Any]], seats: Any) -> Iterator[tuple[str, str]]:
    names = list(seats) if isinstance(seats, dict) else []
    for where, table in tables:
        seat = table.get("seat") if isinstance(table, dict) else None
        if isinstance(seat, str) and seat not in names:
            # A seat cannot have the name of a pad.
            is_pad = seat in (*PADS, "pad0")
            yield (
                f"{where}.seat",
                none_such("seat", seat, names) if is_pad else _not_there("seat", seat, names, "seat"),
            )


def _within(table: Any, *names: Any) -> Any:
    for name in names:
        table = table.get(name) if isinstance(table, dict) and isinstance(name, str) else None
    return table


def _closed_modes(mode: dict[str, Any], path: str, modes: dict[str, Any]) -> Iterator[tuple[str, str]]:
    """Yield the presses that enter a mode that does not exist, or that cannot be entered from this one."""
    presses, leave_to = mode.get("press"), mode.get("leave_to")
    begun = _within(modes, mode.get("like"))
    for name, table in presses.items() if isinstance(presses, dict) else ():
        to = table.get("enter") if isinstance(table, dict) else None
        if not isinstance(to, str) or to == "none":
            continue
        if to not in modes:
            yield f"{path}.press.{name}.enter", none_such("mode", to, modes)
        elif path == f"mode.{to}":
            words = f'"{to}" is the mode itself; allowed: another one, or "none"'
            if _within(begun, "press", name, "enter") == to:
                words += f"; it is copied from mode {mode['like']} by like"
            yield f"{path}.press.{name}.enter", words
        elif isinstance(leave_to, list | tuple) and to not in leave_to:
            allowed = ", ".join(map(str, leave_to)) or "no mode"
            words = f'found "{to}"; allowed by leave_to: {allowed}'
            if _within(begun, "leave_to") == leave_to:
                words += f", copied from mode {mode['like']} by like; write {path}.leave_to as well"
            yield f"{path}.press.{name}.enter", words


def _unknown_likes(modes: dict[str, Any]) -> Iterator[tuple[str, str]]:
    for name in modes:
        begun = likes(modes, name)
        if begun and begun[0] not in modes:
            yield f"mode.{name}.like", none_such("mode", begun[0], modes)
        elif begun and begun[-1] == name:
            yield f"mode.{name}.like", f"begins as itself: {' like '.join([name, *begun])}"


def unknown_references(content: dict[str, Any]) -> list[tuple[str, str]]:
    """Return (field path, what is wrong) for each gait, mode, zone or press that is named but does not exist.

    `content` may have other faults: values of a wrong type are skipped.
    """
    wrong: list[tuple[str, str]] = []
    modes, gaits, window = content.get("mode"), content.get("gait", {}), content.get("window", {})
    if not isinstance(modes, dict) or not isinstance(gaits, dict):
        return wrong
    gait_names = dict.fromkeys([*gaits, *USUAL_GAITS])
    zones = window.get("zone", {}) if isinstance(window, dict) else {}
    zone_names = dict.fromkeys([*(zones if isinstance(zones, dict) else ()), *USUAL_ZONES])
    wrong += _unknown_likes(modes)
    for name, mode in modes.items():
        if not isinstance(mode, dict):
            continue
        gait = mode.get("gait", "walk")
        if isinstance(gait, str) and gait not in gait_names:
            wrong.append((f"mode.{name}.gait", _not_there("gait", gait, gait_names, "gait")))
        switches = mode.get("press_gaits")
        for press, other in switches.items() if isinstance(switches, dict) else ():
            if isinstance(other, str) and other not in gait_names:
                wrong.append((f"mode.{name}.press_gaits.{press}", _not_there("gait", other, gait_names, "gait")))
        leave_to = mode.get("leave_to")
        for other in leave_to if isinstance(leave_to, list | tuple) else ():
            if isinstance(other, str) and other not in modes:
                wrong.append((f"mode.{name}.leave_to", none_such("mode", other, modes)))
        wrong += _closed_modes(mode, f"mode.{name}", modes)
        wrong += _unknown_seats(_seated_tables(mode, f"mode.{name}"), content.get("seat"))
        for where, zone in _zone_fields(mode, f"mode.{name}"):
            if zone not in zone_names:
                wrong.append((where, _not_there("zone", zone, zone_names, "window.zone")))
        presses = mode.get("press", {})
        for where, press in _press_fields(mode, f"mode.{name}"):
            if isinstance(presses, dict) and press not in presses:
                wrong.append((where, none_such("press in this mode", press, presses)))
    wrong += _unknown_seats(_entries(content.get("budget"), "budget"), content.get("seat"))
    return wrong
