"""Names in printed source, from the paths of numbers in a tick."""

import re
import unicodedata
from collections.abc import Iterable, Sequence

from wendonic.devices.sources.base import Source
from wendonic.devices.sources.mode import ModeSources
from wendonic.kernels.body.body import BODY_AT_REST

_BODY = BODY_AT_REST._fields


def snake(text: str) -> str:
    """Return the name of a variable for a control.

    >>> snake("key.ArrowUp"), snake("pad.left_stick"), snake("key.KeyW"), snake("hand.left.squeeze")
    ('key_arrow_up', 'left_stick', 'key_w', 'hand_left_squeeze')
    """
    text = text.removeprefix("pad.").replace("key.Key", "key.")
    text = re.sub(r"(?<=[a-z0-9])(?=[A-Z])", "_", text)
    return re.sub(r"\W+", "_", text).strip("_").lower()


def identifier(name: str, kind: str) -> str:
    """Return a name of the profile as a part of a name in any language: ASCII letters, digits and underscores. It
    begins with its `kind` where a digit would come first, or nothing is left; and a press where its field `…_down`
    would be that of a key or of a direction pad.

    >>> identifier("OnFoot", "mode"), identifier("à pied", "mode"), identifier("2nd gear!", "press")
    ('on_foot', 'a_pied', 'press_2nd_gear')
    >>> identifier("dpad", "press"), identifier("key arrow", "press"), identifier("dpad", "mode")
    ('press_dpad', 'press_key_arrow', 'dpad')
    """
    plain = unicodedata.normalize("NFKD", name).encode("ascii", "ignore").decode()
    plain = re.sub(r"(?<=[a-z0-9])(?=[A-Z])", "_", plain)
    plain = re.sub(r"[^A-Za-z0-9]+", "_", plain).strip("_").lower()
    is_control = kind == "press" and re.fullmatch(r"key_.*|(pad\d+_)?dpad", plain)
    return plain if plain[:1].isalpha() and not is_control else f"{kind}_{plain}".rstrip("_")


def identifiers(names: Sequence[str], kind: str) -> list[str]:
    """Return names of the profile as parts of names, all different even without underscores.

    >>> identifiers(["smoke & run", "smoke run", "jump", "smokeRun", "row 1", "row1"], "press")
    ['smoke_run', 'smoke_run_2', 'jump', 'smoke_run_3', 'row_1', 'row1_2']
    """
    taken: set[str] = set()
    return [unique(identifier(name, kind), taken, in_camel_case=True) for name in names]


def in_comment(text: str) -> str:
    r"""Return a text of the profile as it can stand in a comment of any language: on one line, without the end of a
    comment.

    >>> in_comment('Bees */ and "smoke"\n'), in_comment("C:\\bees")
    ('Bees * / and "smoke"', 'C:/bees')
    """
    return " ".join(text.split()).replace("*/", "* /").replace("/*", "/ *").replace('"""', "'''").replace("\\", "/")


def source_names(sources: Iterable[Source]) -> list[str]:
    """Return the name of each source of a channel: its stick, or its kind; several of a kind are numbered."""
    found: list[str] = []
    for source in sources:
        control = getattr(source, "control", "")
        name = snake(control) if control else type(source).__name__.removesuffix("Source").lower()
        found.append({"mouse_move": "mouse", "touchstick": "thumb", "touchdrag": "drag"}.get(name, name))
    return [
        name if found.count(name) == 1 else f"{name}_{found[: index + 1].count(name)}"
        for index, name in enumerate(found)
    ]


class PathNames:
    """Gives the paths of a mode's tuning and of its ticks plain names."""

    def __init__(self, sources: ModeSources, presses: Sequence[str], gaits: Sequence[str]) -> None:
        """Take the words that replace the numbers in paths."""
        channels = ("move", "rise", "throttle", "turn", "look")
        self.sources = {
            channel: source_names(of_channel) for channel, of_channel in zip(channels, sources.channels, strict=True)
        }
        self.presses = identifiers(presses, "press")
        names = list(dict.fromkeys(gaits))
        words = dict(zip(names, identifiers(names, "gait"), strict=True))
        self.gaits = [words[gait] for gait in gaits]

    def of_tick(self, path: Sequence[str]) -> str:
        """Return the name of a number of a tick, whose path begins with "memory" or "outcome"."""
        first, *rest = path[1:]
        match first, rest:
            case "presses", [number, *more]:
                parts = [self.presses[int(number)], *more]
            case "look", [number, *more] if number.isdigit():
                parts = ["look", *_once(self.sources["look"][int(number)], more)]
            case "move", ["sources", number, *more]:
                parts = ["move", *_once(self.sources["move"][int(number)], more)]
            case "axes", [channel, number, *more]:
                parts = [channel, *_once(self.sources[channel][int(number)], more)]
            case "axes", [channel]:
                parts = [channel]
            case "body", [*more]:
                parts = more
            case "wanted", [*more]:
                parts = [*(["wanted"] if more[0] in _BODY else []), *more]
            case _:
                parts = [first, *rest]
        return "_".join(parts)

    def of_tuning(self, path: Sequence[str]) -> str:
        """Return the name of a number of a tuning, as a constant."""
        first, *rest = path
        match first, rest:
            case "presses", [number, *more]:
                parts = [self.presses[int(number)], *more]
            case "gaits", [number, *more]:
                parts = [self.gaits[int(number)], *(part for part in more if part != "fall")]
            case channel, ["sources", number, *more] if channel in self.sources:
                kind = self.sources[channel][int(number)]
                more = [
                    part for part in more if part not in ("displacement", "gyro", "tilt", "keys", "swing", "stick")
                ]
                parts = [channel, kind, *more]
            case "frame", [*more]:
                parts = more if len(more) == 1 else [part for part in more if part not in ("slope",)]
            case _:
                parts = [first, *rest]
        return "_".join(parts).upper()


def _once(source: str, more: Sequence[str]) -> list[str]:
    """Drop a repeated kind: the state of keys is called keys as well."""
    return [source, *(more[1:] if more and more[0] == source else more)]


def unique(wanted: str, taken: set[str], in_camel_case: bool = False) -> str:
    """Return a name that is not taken yet, and take it; in camel case underscores do not distinguish names."""
    found, number = wanted, 1
    while (key := found.replace("_", "") if in_camel_case else found) in taken:
        number += 1
        found = f"{wanted}_{number}"
    taken.add(key)
    return found
