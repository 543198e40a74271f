"""From top speed, the other direction pressed, to a face that has turned round."""

import numpy as np

from wendonic.profile.schema.steer.sprite import Faced
from wendonic.study.bench import Bench
from wendonic.study.measuring.step_response import crossing
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere


@quantity(55, "s", "from top speed, the other direction pressed, to a face turned by {turned_deg:g} deg")
def turn_round_s(bench: Bench) -> float | None:
    """Read it off the step response, where the face follows the travel."""
    steer, answer = bench.table.steer, bench.step_response
    if not isinstance(steer, Faced) or steer.face != "travel" or steer.turns_with == "body":
        raise NotHere("the face does not follow the travel")
    if answer.face_turned_back_deg is None:
        raise NotHere("no way straight back")
    since = answer.t - answer.release_s
    faces = answer.face_turned_back_deg
    before = float(np.interp(answer.release_s, answer.t, faces))
    turned = np.abs((faces - before + 180.0) % 360.0 - 180.0)
    later = since > 0.0
    return crossing(since[later], turned[later], bench.thresholds.turned_deg)
