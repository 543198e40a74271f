"""From pressing the other direction at top speed until the body has turned round."""

import numpy as np

from wendonic.profile.schema.steer.sprite import Faced
from wendonic.study.bench import Bench
from wendonic.study.measuring.step_response import crossing, rate_hz
from wendonic.study.probes.walk import Walk
from wendonic.study.probes.walker import Steps
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere, Unmeasured

HZ = 500.0
TURNS_S, LONGEST_S = 2.0, 64.0
"""How long a turn is watched at first, and at most."""

NOTHING_DEG = 1e-9
STILL_DEG = 1e-3
"""A facing that turns by less than this in 0.1 s has settled."""


@quantity(
    55,
    "s",
    "from pressing the opposite direction at top speed to facing within {within_deg:g} deg of where it ends",
)
def turn_round_s(bench: Bench) -> float | None:
    """Walk until the speed is steady, reverse, and wait until the facing is steady as well."""
    steer, walker = bench.table.steer, bench.walker
    if not isinstance(steer, Faced) or steer.face != "travel" or steer.turns_with == "body":
        raise NotHere("the face does not follow the travel")
    if walker.opposite is None:
        raise NotHere(f"{walker.name}: nothing goes straight back from {walker.ahead}")
    held_s, turns_s = bench.step_response.release_s, TURNS_S
    while True:
        back_s = held_s + turns_s
        steps: Steps = [
            (0.0, walker.full(walker.ahead)),
            (held_s, walker.changes((walker.ahead,), (walker.opposite,))),
        ]
        hz = rate_hz(held_s + back_s, HZ)
        walk = Walk(bench.moving, walker, steps, held_s + back_s, hz, bench.engine)
        since, faces = walk["t"] - held_s, walk["face_deg"]
        later = since > 0.0
        turned = np.abs((faces[later] - float(np.interp(0.0, since, faces)) + 180.0) % 360.0 - 180.0)
        if abs(turned[-1] - turned[-round(0.1 * hz)]) < STILL_DEG and (turned[-1] > 0.0 or turns_s >= LONGEST_S):
            break
        if turns_s >= LONGEST_S:
            raise Unmeasured(f"after {LONGEST_S:g} s it is still turning round")
        turns_s *= 2.0
    if turned[-1] <= bench.thresholds.within_deg:
        if turned[-1] > NOTHING_DEG:
            raise Unmeasured(f"after {turns_s:g} s it is still turning round")
        raise NotHere("the face does not change")
    if turned[0] >= turned[-1] - bench.thresholds.within_deg:
        # It turned within the tick of the press: at once.
        return 0.0
    return crossing(since[later], turned, float(turned[-1]) - bench.thresholds.within_deg)
