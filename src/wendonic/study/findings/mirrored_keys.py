"""Keys that go against where they lie on the keyboard, seen from the others of their entry."""

import math
from collections.abc import Iterator
from typing import Any

from wendonic.devices.key_places import KEY_PLACES
from wendonic.study.finding import Case, Found, finding
from wendonic.study.settled import direction_word, settled_request

OPPOSITE = -0.5
"""Cosine of the angle from which on a key goes the other way: more than 120 deg from where it lies."""

_UPWARDS = {"forward": "up", "back": "down"}

BY_HABIT = ("Space", "ShiftLeft", "ShiftRight", "ControlLeft", "ControlRight")
"""Up and down are often these, wherever they lie."""


@finding(40, "fault", "A player who turns to one side goes to the other, and no tuning helps.")
def mirrored_keys(case: Case) -> Iterator[Found]:
    """Keys that go against where they lie on the keyboard, seen from the others of their entry."""
    for channel in ("move", "throttle", "turn", "rise", "look"):
        for where, bind in case.entries(channel):
            yield from _of_entry(case, channel, bind, where)


def _of_entry(case: Case, channel: str, bind: Any, where: str) -> Iterator[Found]:
    lists = getattr(bind, "keys", None)
    if lists is None:
        return
    sides = lists.lists()
    upright, looks = channel == "rise", channel == "look"
    keys = [
        (side, code)
        for side, codes in sides.items()
        for code in codes
        if code in KEY_PLACES and not (upright and code in BY_HABIT)
    ]
    mirrored: dict[str, tuple[str, str, str]] = {}
    for side, code in keys:
        place = KEY_PLACES[code]
        block = [KEY_PLACES[other] for _, other in keys if KEY_PLACES[other].block == place.block]
        x = place.x - sum(other.x for other in block) / len(block)
        y = place.y - sum(other.y for other in block) / len(block)
        if upright and abs(y) <= abs(x):
            # Side by side, either may be up.
            continue
        right, forward = settled_request(case.looking if looks else case.moving, channel, f"key.{code}", 1.0)
        if looks:
            # Inverted on purpose, or found as such.
            right, forward = -right if bind.invert_yaw else right, -forward if bind.invert_pitch else forward
        length = math.hypot(x, y) * math.hypot(right, forward)
        if length > 0.0 and (x * right + y * forward) / length < OPPOSITE:
            lies, goes = direction_word(x, y), direction_word(right, forward)
            if upright or looks:
                lies, goes = (_UPWARDS.get(word, word) for word in (lies, goes))
            mirrored[code] = (side, lies, goes)
    # All of an entry are put right together: one alone would leave a direction without a key.
    right_way = {side: [code for code in codes if code not in mirrored] for side, codes in sides.items()}
    for code, (_, lies, _) in mirrored.items():
        if lies in right_way:
            right_way[lies].append(code)
    fix = {f"{where}.keys.{side}": codes for side, codes in right_way.items() if codes != list(sides[side])}
    for code, (side, lies, goes) in mirrored.items():
        below = {"up": "above", "down": "below"}.get(lies, f"{lies} of")
        yield Found(f"{where}.keys.{side}", f"{code} is {below} the others and goes {goes}", [fix])
