"""Stick round its rim: how far the face is behind."""

import numpy as np

from wendonic.batch.trace import shaped
from wendonic.profile.schema.steer.sprite import Faced
from wendonic.study.bench import Bench
from wendonic.study.probes.stick_paths import ROUND_HZ, round_the_rim
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere


@quantity(100, "deg", "how far the face lags behind a stick that goes round its rim in {circle_s:g} s")
def facing_lag_deg(bench: Bench) -> float | None:
    """Take a stick round twice, where the face follows the travel; 180 where it cannot keep up."""
    steer = bench.table.steer
    follows = (
        isinstance(steer, Faced)
        and steer.face == "travel"
        and steer.turns_with in ("plan", "view")
        and not steer.glides
        and not bench.from_side
    )
    if not follows:
        raise NotHere("the face does not follow the travel of a stick")
    bench.need_gait()
    walked = shaped(round_the_rim(bench.stick_bind), bench.moving, hz=ROUND_HZ, engine=bench.engine)
    x, y = bench.stick_bind.centre
    # Held for all of its tick, a tilt is half a tick early.
    raw = np.degrees(np.arctan2(walked["raw_x"] - x, walked["raw_y"] + y))
    half_tick_deg = 180.0 / ROUND_HZ / bench.thresholds.circle_s
    last_turn = round(ROUND_HZ * bench.thresholds.circle_s)
    behind = ((raw + half_tick_deg - walked["face_deg"] + 180.0) % 360.0 - 180.0)[-last_turn:]
    steady = float(np.ptp(behind)) < 20.0
    return float(np.abs(behind).mean()) if steady else 180.0
