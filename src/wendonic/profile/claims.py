"""Which controls a mode binds, and which of them to two things at once."""

from collections.abc import Iterator, Mapping, Sequence
from itertools import combinations
from typing import Any, NamedTuple

from wendonic.profile.binds import Bind
from wendonic.profile.press_binds import PressEntry, PressTable, TriggerEntry, WheelEntry, ZoneEntry


class Claim(NamedTuple):
    """`controls` are down together for `owner`, a channel or press; `where` is the field path within the mode."""

    controls: frozenset[str]
    owner: str
    where: str
    shared: bool


def _stick_axes(stick: str) -> list[str]:
    return [f"{stick}.x", f"{stick}.y"]


def _bound_controls(bind: Any) -> list[str]:
    """Return the controls of one `bind` entry of a channel, axis by axis; zones count as controls."""
    names: list[str] = []
    for key in type(bind).model_fields:
        named = getattr(bind, key)
        match key:
            case "keys":
                names += [f"key.{code}" for codes in named.model_dump().values() for code in codes]
            case "dpad":
                names += [f"{named}_{way}" for way in ("up", "down", "left", "right")]
            case "stick":
                names += _stick_axes(named)
            case "axes" | "triggers":
                names += [name for name in named.model_dump().values() if name]
            case "axis" | "mouse" | "gyro" | "pointer":
                names.append(named)
            case "touch_zones":
                names += [f'zone "{name}"' for zones in named.model_dump().values() for name in zones]
            case "touch_stick" | "touch_drag" | "touch":
                names.append(f'zone "{named}"')
            case "while_held":
                names += named
            case "hands":
                names += [f"{hand}.{part}" for hand in named for part in ("pose", "squeeze")]
    return names


def _press_controls(entry: PressEntry) -> frozenset[str]:
    match entry:
        case TriggerEntry(control=control):
            return frozenset({control})
        case ZoneEntry(zone=zone):
            return frozenset({f'zone "{zone}"'})
        case WheelEntry(wheel=way):
            return frozenset({f"mouse.wheel {way}"})
        case _:
            return frozenset(entry.split("+"))


def _claims(channels: Mapping[str, Sequence[Bind]], presses: Mapping[str, PressTable]) -> Iterator[Claim]:
    for channel, binds in channels.items():
        for index, bind in enumerate(binds):
            for name in _bound_controls(bind):
                yield Claim(frozenset({name}), channel, f"{channel}.bind.{index}", bind.shared)
    for name, press in presses.items():
        for index, entry in enumerate(press.bind):
            yield Claim(_press_controls(entry), f"press {name}", f"press.{name}.bind.{index}", press.shared)


def double_claims(channels: Mapping[str, Sequence[Bind]], presses: Mapping[str, PressTable]) -> list[tuple[str, str]]:
    """Return (field path, what is wrong) for each control that two channels or presses of a mode have, unshared.

    Chords clash only with what one of them holds down entirely: "ControlLeft+KeyC" with "KeyC", but not with
    "ShiftLeft+KeyC".
    """
    wrong: dict[tuple[str, str, str], str] = {}
    for first, second in combinations(_claims(channels, presses), 2):
        if first.owner == second.owner or first.shared or second.shared:
            continue
        if first.controls <= second.controls or second.controls <= first.controls:
            names = " and ".join(sorted(first.controls & second.controls))
            wrong.setdefault(
                (second.where, first.owner, names),
                f"{names} steers {first.owner} too ({first.where}); allowed: one of them, or shared = true",
            )
    return [(where, words) for (where, _, _), words in wrong.items()]
