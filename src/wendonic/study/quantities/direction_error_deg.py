"""Stick: largest angle between a slow tilt and what it asks for, 16 directions."""

import math

import numpy as np

from wendonic.batch.trace import shaped
from wendonic.study.bench import Bench
from wendonic.study.probes.stick_paths import RAMP_S, RAMPS, slow_ramps
from wendonic.study.quantity import quantity

ASKS = 0.05
"""Below this share of full speed a heading is not looked at: nobody can aim it."""


@quantity(90, "deg", "stick: largest angle between a slow tilt and what it asks for, 16 directions")
def direction_error_deg(bench: Bench) -> float | None:
    """Tilt a stick slowly from rest to its rim; None if it never asks for anything."""
    if bench.any_stick is None or bench.from_side:
        return None
    move = bench.table.move
    # After 14 half-lives nothing is left of the last direction.
    rest_s = 0.5 + math.ceil(14.0 * move.half_life_s) if move else 0.5
    period_s = RAMP_S + rest_s
    walked = shaped(slow_ramps(bench.any_stick.stick, period_s), bench.moving, hz=60, engine=bench.engine)
    since = walked["t"] + 1e-9
    number = (since / period_s).astype(int)
    tilts = since - number * period_s <= RAMP_S
    right, forward = walked["local_x"], walked["local_y"]
    asks = tilts & (np.hypot(right, forward) > ASKS)
    if not asks.any():
        return None
    off = np.arctan2(right, forward) - math.tau * number / RAMPS
    return float(np.degrees(np.abs((off[asks] + math.pi) % math.tau - math.pi)).max())
