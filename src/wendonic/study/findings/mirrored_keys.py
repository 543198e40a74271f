"""Keys that go against where they lie on the keyboard, seen from the others of their entry."""

import math
from collections.abc import Iterator
from typing import Any

from wendonic.devices.key_places import KEY_PLACES
from wendonic.study.finding import Case, Found, finding
from wendonic.study.settled import direction_word, settled_request

OPPOSITE = -0.5
"""Cosine of the angle from which on a key goes the other way: more than 120 deg from where it lies."""


@finding(40, "fault", "A player who turns to one side goes to the other: no tuning helps against that.")
def mirrored_keys(case: Case) -> Iterator[Found]:
    """Keys that go against where they lie on the keyboard, seen from the others of their entry."""
    for channel in ("move", "throttle", "turn"):
        table = getattr(case.table, channel)
        for index, bind in enumerate(table.bind if table else ()):
            yield from _of_entry(case, channel, bind, f"{case.where}.{channel}.bind[{index}]")


def _of_entry(case: Case, channel: str, bind: Any, where: str) -> Iterator[Found]:
    lists = getattr(bind, "keys", None)
    if lists is None:
        return
    keys = [(side, code) for side, codes in lists.model_dump().items() for code in codes if code in KEY_PLACES]
    for side, code in keys:
        place = KEY_PLACES[code]
        block = [KEY_PLACES[other] for _, other in keys if KEY_PLACES[other].block == place.block]
        x = place.x - sum(other.x for other in block) / len(block)
        y = place.y - sum(other.y for other in block) / len(block)
        right, forward = settled_request(case.one_mode, channel, f"key.{code}", 1.0)
        length = math.hypot(x, y) * math.hypot(right, forward)
        if length > 0.0 and (x * right + y * forward) / length < OPPOSITE:
            lies, goes = direction_word(x, y), direction_word(right, forward)
            yield Found(
                f"{where}.keys.{side}",
                f"{code} lies {lies} of the others, and goes {goes}",
                f'{lies} = ["{code}"] in keys',
            )
