"""Sources that request more to one side than to the other."""

import math
from collections.abc import Iterator
from typing import Any

from wendonic.profile.schema.look_binds import LookStickBind
from wendonic.profile.schema.move_binds import StickBind
from wendonic.study.finding import Case, Found, finding
from wendonic.study.measuring.look_response import turn_rate_deg_s

MIRROR_SHARE = 0.1
CALIBRATE = "or record this stick and use wendonic calibrate"


@finding(230, "notice", "The two sides feel different for no visible reason.")
def no_mirror_image(case: Case) -> Iterator[Found]:
    """Sources that request more to one side than to the other."""
    binds = case.table.move.bind if case.table.move else ()
    if any(isinstance(bind, StickBind) for bind in binds):
        words = _walking_differs(case)
        if words:
            move = f"{case.where}.move"
            notches = case.table.move.notches if case.table.move else None
            fixes = [{f"{move}.notches": 2 * notches}] if notches and notches % 4 and notches <= 32 else []
            fixes += [_as_new(case, where) for where, bind in case.entries("move") if isinstance(bind, StickBind)]
            yield Found(move, words, fixes, CALIBRATE)
    for where, bind in case.entries("look"):
        if isinstance(bind, LookStickBind) and not bind.snaps:
            right, left = turn_rate_deg_s(bind, [0.5, -0.5])
            most = max(abs(right), abs(left))
            if most > 0.0 and abs(right + left) > MIRROR_SHARE * most:
                one, other = ("to the right", "to the left") if bind.sideways else ("up", "down")
                words = f"half a tilt turns {abs(right):.0f} deg/s {one}, {abs(left):.0f} deg/s {other}"
                yield Found(where, words, [_as_new(case, where)], CALIBRATE)


def _as_new(case: Case, where: str) -> dict[str, Any]:
    """Return changes that give a stick its rest point in the middle and a circular gate."""
    return {f"{where}.centre": [0.0, 0.0], f"{where}.gate": "circle", **case.out(f"{where}.rim")}


def _walking_differs(case: Case) -> str:
    """Say which sides differ and by how much, "" if none do."""
    for envelope in case.envelopes:
        by_heading = dict(zip(envelope.headings_deg, envelope.wanted, strict=True))
        for heading, (right, forward) in by_heading.items():
            for words, other, sign_x, sign_y in (
                ("left and right", (360.0 - heading) % 360.0, -1.0, 1.0),
                ("forward and back", (540.0 - heading) % 360.0, 1.0, -1.0),
            ):
                mirrored = by_heading.get(other)
                # Exactly on the axis there may be a border between two directions.
                if mirrored is not None and other != heading:
                    off = math.hypot(right - sign_x * mirrored[0], forward - sign_y * mirrored[1])
                    if off > MIRROR_SHARE:
                        return f"{envelope.name}: {words} differ by {100.0 * off:.0f} % of top speed"
    return ""
