"""Step 10 of shaping: smoothing that weakens when the hand is fast."""

import math
from typing import NamedTuple


class OneEuroTuning(NamedTuple):
    """The filter's three numbers; `min_cutoff_hz` of 0 means no filter."""

    min_cutoff_hz: float
    beta: float
    d_cutoff_hz: float


class OneEuroState(NamedTuple):
    """The smoothed input of a tick ago, and its smoothed rate of change (per second)."""

    was_x: float
    was_y: float
    speed_x: float
    speed_y: float


NO_ONE_EURO = OneEuroTuning(0.0, 0.0, 1.0)
ONE_EURO_AT_REST = OneEuroState(0.0, 0.0, 0.0, 0.0)


def one_euro(
    tuning: OneEuroTuning, state: OneEuroState, x: float, y: float, smooth_x: float, smooth_y: float, dt: float
) -> tuple[OneEuroState, float, float]:
    """Return the filter's new state and (smooth_x, smooth_y) after following (x, y) for `dt` seconds.

    Formula (Casiez, Roussel, Vogel, CHI 2012): a low-pass whose cutoff is min_cutoff + beta * speed, where speed is
    the input's rate of change after its own low-pass at d_cutoff; `beta` is in Hz for a speed of 1 per second. One
    cutoff serves both axes, so no direction is smoothed more than another.

    The paper steps both low-passes once a sample. Here they are integrated: within a tick the input is constant, so a
    change is an impulse of speed at its beginning that fades at d_cutoff, and the cutoff's mean over the tick is
    known in closed form. At a high rate that is the paper's filter; and input that is constant between ticks gives
    the same curve at every tick rate. A `dt` of 0 changes nothing.

    >>> tuning = OneEuroTuning(1.0, 0.0, 1.0)
    >>> _, x, _ = one_euro(tuning, ONE_EURO_AT_REST, 1.0, 0.0, 0.0, 0.0, dt=math.log(2.0) / math.tau)
    >>> round(x, 12)
    0.5
    """
    if dt <= 0.0:
        return state, smooth_x, smooth_y
    min_cutoff_hz, beta, d_cutoff_hz = tuning
    was_x, was_y, speed_x, speed_y = state
    rate = math.tau * d_cutoff_hz
    # The speed of the input after a low-pass at d_cutoff, and its mean over the tick.
    speed_x += rate * (x - was_x)
    speed_y += rate * (y - was_y)
    left = math.exp(-rate * dt)
    mean_speed = math.hypot(speed_x, speed_y) * ((1.0 - left) / (rate * dt) if rate * dt > 1e-9 else 1.0)
    # y + (smooth - y) exp(-2 pi (min_cutoff + beta speed) dt)
    kept = math.exp(-math.tau * (min_cutoff_hz + beta * mean_speed) * dt)
    after = OneEuroState(x, y, speed_x * left, speed_y * left)
    return after, x + (smooth_x - x) * kept, y + (smooth_y - y) * kept
