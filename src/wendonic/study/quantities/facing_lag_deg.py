"""Stick round its rim: how far the face is behind."""

import numpy as np

from wendonic.batch.trace import shaped
from wendonic.profile.schema.steer.sprite import Faced
from wendonic.study.bench import Bench
from wendonic.study.probes.stick_paths import round_the_rim
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere

HZ = 480.0
NEVER_DEG = 180.0
ROUND_DEG = 20.0
"""A body that keeps up with the stick has made a whole turn, give or take this."""


@quantity(100, "deg", "how far the face lags on average behind a stick that goes round its rim in {circle_s:g} s")
def facing_lag_deg(bench: Bench) -> float | None:
    """Move a stick round its rim twice, if the body faces its travel; 180 if it cannot keep up."""
    steer = bench.table.steer
    follows = isinstance(steer, Faced) and steer.face == "travel" and steer.turns_with in ("plan", "view")
    if bench.from_side:
        raise NotHere("seen from the side there are two directions")
    if not follows:
        raise NotHere("the face does not follow the travel of a stick")
    bench.need_gait()
    coarse_deg, fine_deg = _behind_deg(bench, HZ / 2.0), _behind_deg(bench, HZ)
    if NEVER_DEG in (coarse_deg, fine_deg):
        return NEVER_DEG
    # A tilt holds for its whole tick, so it comes early by a part of one; this extrapolates to the lag without ticks.
    return max(2.0 * fine_deg - coarse_deg, 0.0)


def _behind_deg(bench: Bench, hz: float) -> float:
    """Return how far (deg) the facing lags at `hz` ticks a second, NEVER_DEG if it cannot keep up."""
    walked = shaped(round_the_rim(bench.stick_bind, hz), bench.moving, hz=hz, engine=bench.engine)
    x, y = bench.stick_bind.centre
    raw = np.degrees(np.arctan2(walked["raw_x"] - x, walked["raw_y"] + y))
    last_turn = round(hz * bench.thresholds.circle_s)
    faces = np.unwrap(walked["face_deg"], period=360.0)[-last_turn - 1 :]
    if abs(abs(float(faces[-1] - faces[0])) - 360.0) > ROUND_DEG:
        return NEVER_DEG
    # Rules such as notches pull the direction to either side: only the mean is a lag.
    return float(((raw[-last_turn:] - faces[1:] + 180.0) % 360.0 - 180.0).mean())
