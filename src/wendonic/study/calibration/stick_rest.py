"""Where a stick rests and its noise there, from the stretches in which nobody touches it."""

import math
from typing import TYPE_CHECKING, NamedTuple

from wendonic.study.calibration.estimate import (
    FEW_STEPS,
    NORMAL_ERRORS,
    Estimate,
    correlation_time,
    mean_estimate,
    reaches_over,
    spread_estimate,
    spread_memory,
    step_of,
    tail_estimate,
)
from wendonic.study.calibration.stick_held import held_stretches
from wendonic.study.calibration.stick_returns import StickReturns, pushes_before, stick_returns
from wendonic.study.calibration.stick_samples import StickSamples, says_nothing

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

WINDOW_S = 0.5
NEAR_TILT = 0.3
"""An untouched stick is nearer to its middle than this."""

STILL_RANGE = 0.12
"""How far it may wander over WINDOW_S on each axis."""

SETTLE_S, LEAVE_S = 0.3, 0.15
"""Time left out at both ends of a stretch: the thumb is still on the stick, or on it again."""

LEAST_S = 2.0
CERTAIN = 1e-3
"""A drift counts if chance would produce it less often than this."""

SAME_SLOPE = 3.0
"""Number of standard errors within which two slopes count as equal."""

MOST_GLITCHES = 2
"""With this many glitches the extent of the noise is unknown."""

COARSE_STEP = 2.0 / 255.0
"""The step of 8 bits: no stick reports in larger ones."""

FAR, GLITCH = 4.0, 22.0
"""Number of spreads from the middle at which a reading of (0, 0) is not a rest, and at which a single reading is a
glitch.
"""


class StickRest(NamedTuple):
    """The rest point (raw), the noise per axis, the drift (raw units a minute; None: it does not drift), and where
    the stick came to rest after each release.

    `used` marks the samples behind these numbers, `lengths` are their distances from the rest point, `memory` is the
    correlation time of the noise in samples, `step` the quantisation step, 0 if the noise spans more than a few
    steps, `left_out` the number of readings that were not used, `glitches` how many of these were single ones far
    off, and `held_times` how often the stick was held still elsewhere.
    """

    x: Estimate
    y: Estimate
    noise: Estimate
    drift_per_min: Estimate | None
    returns: StickReturns
    used: "NDArray[np.bool_]"
    lengths: "NDArray[np.float64]"
    seconds: float
    memory: float
    step: float
    left_out: int
    glitches: int
    held_times: int

    def inner(self, share: float) -> Estimate | None:
        """Return the dead zone that covers a share (0..1) of the samples at rest. It is None if there are too few
        samples, if they are correlated for too long or contain glitches, and if the rest points differ but there are
        too few of them.

        Noise and rest points are independent, so their squares add.
        """
        if self.glitches >= MOST_GLITCHES:
            return None
        noise = tail_estimate(self.lengths, share, self.memory, self.step)
        if noise is None or self.returns.scatter is None:
            return noise
        places = self.returns.share_within(share)
        if places is None:
            return None
        value, low, high = (math.hypot(*ends) for ends in zip(noise[:3], places[:3], strict=True))
        return Estimate(value, low, high, noise.samples)


def free_samples(samples: StickSamples) -> "NDArray[np.bool_]":
    """Mark the samples at which nobody touches the stick: it is near its middle, for a while before and after."""
    import numpy as np
    import pandas as pd

    count = len(samples.t)
    window = max(round(WINDOW_S * samples.hz), 2)
    if count < window:
        return np.zeros(count, dtype=bool)
    frame = pd.DataFrame({"x": samples.x, "y": samples.y})
    rolling = frame.rolling(window)
    ranges = (rolling.max() - rolling.min()).max(axis=1).to_numpy()
    near = np.hypot(*rolling.mean().to_numpy().T) < NEAR_TILT
    ends = (ranges < STILL_RANGE) & near
    # Every sample of a still window is free, and so is the step between two such samples.
    still, steps = np.zeros(count + 1, dtype=int), np.zeros(count + 1, dtype=int)
    for end in np.flatnonzero(ends):
        still[end - window + 1] += 1
        still[end + 1] -= 1
        steps[end - window + 1] += 1
        steps[end] -= 1
    free = np.cumsum(still[:-1]) > 0
    # A step outside all still windows separates two stretches, as does a gap in time after a loss.
    apart = (np.cumsum(steps[:-1]) == 0)[:-1] | (np.diff(samples.t) > 1.5 / samples.hz)
    cuts = np.flatnonzero(apart) + 1
    edges = np.flatnonzero(np.diff(free.astype(int))) + 1
    starts = np.unique(np.concatenate([[0], edges, cuts]))
    for start, end in zip(starts, np.append(starts[1:], count), strict=True):
        if free[start]:
            settle = 0 if start == 0 else round(SETTLE_S * samples.hz)
            leave = 0 if end == count else round(LEAVE_S * samples.hz)
            free[start : min(start + settle, end)] = False
            free[max(end - leave, start) : end] = False
    return free


def _usable(samples: StickSamples, free: "NDArray[np.bool_]", step: float) -> "tuple[NDArray[np.bool_], int]":
    """Mark the free samples that show where a stick rests, and count the glitches. Left out are the (0, 0) of a
    device that has nothing to report, and glitches: single readings far off, which neither a hand nor a spring
    produces.
    """
    import numpy as np

    x, y = samples.x[free], samples.y[free]
    middle_x, middle_y = float(np.median(x)), float(np.median(y))
    spread = 1.4826 * float(np.median(np.abs(np.concatenate([x - middle_x, y - middle_y]))))
    spread = max(spread, step, 1e-6)
    away = np.hypot(samples.x - middle_x, samples.y - middle_y)
    silent = says_nothing(samples) & (math.hypot(middle_x, middle_y) > FAR * spread)
    far = away > GLITCH * spread
    single = far & ~np.roll(far, 1) & ~np.roll(far, -1)
    # One or two of them may be the tail of heavy noise.
    glitches = int((free & single).sum())
    usable: NDArray[np.bool_] = free & ~silent & (~single if glitches >= MOST_GLITCHES else True)
    return usable, glitches


def _drift(t: "NDArray[np.float64]", axis: "NDArray[np.float64]", number: "NDArray[np.int64]") -> tuple[float, float]:
    """Return how fast an axis drifts (raw a second) and its standard error; zeros if it does not drift.

    A regression line over time separates a slow drift from noise: it counts if chance would produce as steep a line
    less often than CERTAIN. Each release has its own intercept, with one slope for all: another rest point after a
    release is not a drift. A single line through all samples is more precise, and is used if its slope is the same.
    """
    import numpy as np
    from scipy import stats

    sizes = np.bincount(number)
    since = t - (np.bincount(number, t) / sizes)[number]
    beside = axis - (np.bincount(number, axis) / sizes)[number]
    if np.ptp(beside) == 0.0 or np.ptp(since) == 0.0:
        return 0.0, 0.0
    line = stats.linregress(since, beside)
    worth = max(len(t) / correlation_time(beside - line.slope * since), 3.0)
    stderr = float(line.stderr) * math.sqrt(len(t) / worth)
    chance = 2.0 * stats.t.sf(abs(line.slope) / max(stderr, 1e-15), worth - 2.0)
    if chance >= CERTAIN:
        return 0.0, 0.0
    whole = stats.linregress(t, axis)
    if abs(whole.slope - line.slope) < SAME_SLOPE * stderr:
        return float(whole.slope), float(whole.stderr) * math.sqrt(len(t) / worth)
    return float(line.slope), stderr


def stick_rest(samples: StickSamples) -> StickRest | None:
    """Return where a stick rests; None if it rests for less than LEAST_S.

    Correlated noise counts for fewer samples (see `correlation_time`).
    """
    import numpy as np

    free = free_samples(samples)
    held, held_times = held_stretches(samples, free)
    free &= ~held
    if int(free.sum()) < LEAST_S * samples.hz:
        return None
    # A quiet stick may rest on one reading: its steps show only while it moves, and are finer than a few readings
    # suggest.
    moved = max(step_of(samples.x), step_of(samples.y)) or COARSE_STEP
    step = max(step_of(samples.x[free]), step_of(samples.y[free]), min(moved, COARSE_STEP))
    used, glitches = _usable(samples, free, step)
    count = int(used.sum())
    if count < LEAST_S * samples.hz / 2.0:
        return None
    t, x, y = samples.t[used], samples.x[used], samples.y[used]
    number = pushes_before(samples, used)
    drifts = [_drift(t, axis, number) for axis in (x, y)]
    left = [axis - slope * (t - t.mean()) for axis, (slope, _) in zip((x, y), drifts, strict=True)]
    returns = stick_returns(left[0], left[1], number, step)
    if returns.scatter:
        middle_x, middle_y = mean_estimate(returns.places[:, 0]), mean_estimate(returns.places[:, 1])
        left = [axis - returns.places[number, index] for index, axis in enumerate(left)]
    else:
        middle_x, middle_y = mean_estimate(left[0], step), mean_estimate(left[1], step)
        left = [left[0] - middle_x.value, left[1] - middle_y.value]
    memory = max(correlation_time(axis) for axis in left)
    spread = spread_estimate(np.concatenate(left), step, max(spread_memory(axis) for axis in left))
    slope = math.hypot(*(slope for slope, _ in drifts))
    error = NORMAL_ERRORS * math.hypot(*(error for _, error in drifts))
    drift = Estimate(slope * 60.0, (slope - error) * 60.0, (slope + error) * 60.0, count) if slope else None
    lengths = np.hypot(left[0], left[1])
    coarse_step = step if any(reaches_over(axis, step, FEW_STEPS) for axis in left) else 0.0
    left_out = int(free.sum()) - count
    seconds = count / samples.hz
    return StickRest(
        middle_x,
        middle_y,
        spread,
        drift,
        returns,
        used,
        lengths,
        seconds,
        memory,
        coarse_step,
        left_out,
        glitches,
        held_times,
    )
