"""Keys whose directions contradict their places on the keyboard, compared with the keys around them."""

import math
from collections.abc import Iterator
from itertools import groupby
from typing import Any

from wendonic.devices.key_places import KEY_PLACES
from wendonic.study.finding import Case, Found, finding
from wendonic.study.settled import direction_word, settled_request

OPPOSITE = -0.5
"""Cosine of the angle from which a key counts as opposite: more than 120 deg from where it lies."""

_UPWARDS = {"forward": "up", "back": "down"}

NEAR = 1.6
"""Keys no further apart than this are neighbours."""

BY_HABIT = ("Space", "ShiftLeft", "ShiftRight", "ControlLeft", "ControlRight")
"""Keys that are often used for up and down, wherever they lie."""


@finding(40, "fault", "A player who turns to one side goes to the other, and no tuning helps.")
def mirrored_keys(case: Case) -> Iterator[Found]:
    """Look for keys whose direction contradicts their place on the keyboard, relative to the other keys of the same
    hand.
    """
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
    owners = {code: name for name, seat in case.profile.seat.items() for code in seat.keys}
    together = {code: hand for hand in _hands(keys, owners) for _, code in hand}
    for side, code in keys:
        place = KEY_PLACES[code]
        hand = [KEY_PLACES[other] for _, other in together[code]]
        x = place.x - sum(other.x for other in hand) / len(hand)
        y = place.y - sum(other.y for other in hand) / len(hand)
        if upright and abs(y) <= abs(x):
            # If two keys are side by side, either may be up.
            continue
        right, forward = settled_request(case.looking if looks else case.moving, channel, f"key.{code}", 1.0)
        if looks:
            # Inverted on purpose, or reported as a mirrored look.
            right, forward = -right if bind.invert_yaw else right, -forward if bind.invert_pitch else forward
        length = math.hypot(x, y) * math.hypot(right, forward)
        if length > 0.0 and (x * right + y * forward) / length < OPPOSITE:
            lies, goes = direction_word(x, y), direction_word(right, forward)
            if upright or looks:
                lies, goes = (_UPWARDS.get(word, word) for word in (lies, goes))
            mirrored[code] = (side, lies, goes)
    # All keys of an entry are fixed together: fixing one alone would leave a direction without a key.
    corrected = {side: [code for code in codes if code not in mirrored] for side, codes in sides.items()}
    for code, (_, lies, _) in mirrored.items():
        if lies in corrected:
            corrected[lies].append(code)
    fix = {f"{where}.keys.{side}": codes for side, codes in corrected.items() if codes != list(sides[side])}
    for code, (side, lies, goes) in mirrored.items():
        below = {"up": "above", "down": "below"}.get(lies, f"{lies} of")
        yield Found(f"{where}.keys.{side}", f"{code} is {below} the others and goes {goes}", [fix])


Keys = list[tuple[str, str]]
"""Keys with the direction of each."""


def _hands(keys: Keys, owners: dict[str, str]) -> Iterator[Keys]:
    """Yield groups of keys that belong together: those of one player in one block of the keyboard. If a direction has
    several of them, neighbours form a group; if it still has several, the first keys of all directions form one
    group, the second ones another.
    """

    def place_of(key: tuple[str, str]) -> tuple[str, str]:
        return owners.get(key[1], ""), KEY_PLACES[key[1]].block

    for _, found in groupby(sorted(keys, key=place_of), place_of):
        block = list(found)
        for near in [block] if _one_each(block) else _neighbours(block):
            if _one_each(near):
                yield near
                continue
            of_side: dict[str, Keys] = {}
            for key in sorted(near, key=keys.index):
                of_side.setdefault(key[0], []).append(key)
            most = max(map(len, of_side.values()))
            yield from ([some[number] for some in of_side.values() if number < len(some)] for number in range(most))


def _one_each(keys: Keys) -> bool:
    return len({side for side, _ in keys}) == len(keys)


def _neighbours(keys: Keys) -> list[Keys]:
    """Return the keys in groups of neighbours."""
    groups: list[Keys] = []
    for key in keys:
        place = KEY_PLACES[key[1]]
        touched = [
            group
            for group in groups
            if any(math.dist((place.x, place.y), KEY_PLACES[code][1:]) <= NEAR for _, code in group)
        ]
        groups = [group for group in groups if group not in touched] + [
            [key, *(one for group in touched for one in group)]
        ]
    return groups
