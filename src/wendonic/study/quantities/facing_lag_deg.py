"""Stick round its rim once in 2 s: how far the face is behind."""

import numpy as np

from wendonic.batch.trace import shaped
from wendonic.profile.schema.steer.sprite import Faced
from wendonic.study.bench import Bench
from wendonic.study.probes.stick_paths import CIRCLE_S, ROUND_HZ, round_the_rim
from wendonic.study.quantity import quantity


@quantity(100, "deg", "stick round its rim once in 2 s: how far the face is behind")
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
    if bench.stick is None or not follows:
        return None
    walked = shaped(round_the_rim(bench.stick.stick), bench.moving, hz=ROUND_HZ, engine=bench.engine)
    # Held for all of its tick, a tilt is half a tick early.
    raw = np.degrees(np.arctan2(walked["raw_x"], walked["raw_y"]))
    half_tick_deg = 180.0 / ROUND_HZ / CIRCLE_S
    behind = ((raw + half_tick_deg - walked["face_deg"] + 180.0) % 360.0 - 180.0)[-round(ROUND_HZ * CIRCLE_S) :]
    steady = float(np.ptp(behind)) < 20.0
    return float(np.abs(behind).mean()) if steady else 180.0
