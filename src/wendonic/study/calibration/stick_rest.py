"""Where a stick rests and how it trembles there, from the stretches in which nobody touches it."""

import math
from typing import TYPE_CHECKING, NamedTuple

from wendonic.study.calibration.estimate import Estimate, deviation_estimate, mean_estimate, step_of
from wendonic.study.calibration.stick_samples import StickSamples

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

WINDOW_S = 0.5
NEAR_TILT = 0.3
"""A free stick lies nearer to its middle than this."""

STILL_RANGE = 0.12
"""How far it may wander over WINDOW_S on each axis."""

SETTLE_S, LEAVE_S = 0.3, 0.15
"""What is left out at both ends of a stretch: the thumb is still there, or there again."""

LEAST_S = 2.0
CERTAIN = 1e-3
"""A drift counts once chance would make it less often than this."""


class StickRest(NamedTuple):
    """Where it rests (raw), its noise on an axis, how fast it drifts (raw units a minute; None: it does not), and
    which samples it rests on; `lengths` are their distances from the rest point.
    """

    x: Estimate
    y: Estimate
    noise: Estimate
    drift_per_min: Estimate | None
    used: "NDArray[np.bool_]"
    lengths: "NDArray[np.float64]"
    seconds: float

    def inner(self, share: float) -> Estimate:
        """Return the dead zone in which a share (0..1) of the samples at rest lies.

        With normal noise s on both axes, distances follow Rayleigh's law: s sqrt(-2 ln(1 - share)). Where more than
        ten samples lie beyond the share and they reach farther than that, it is they that count, with the interval
        that their order gives.
        """
        import numpy as np
        from scipy import stats

        per_axis = math.sqrt(float((self.lengths**2).mean()) / 2.0)
        factor = math.sqrt(-2.0 * math.log(1.0 - share))
        normal = deviation_estimate(per_axis, 2 * len(self.lengths) - 2, len(self.lengths)).scaled(factor)
        beyond = len(self.lengths) * (1.0 - share)
        if beyond < 10.0:
            return normal
        ordered = np.sort(self.lengths)
        found = float(np.quantile(ordered, share))
        if found <= 1.1 * normal.high:
            return normal
        low, high = stats.binom.ppf((0.025, 0.975), len(ordered), share).astype(int)
        return Estimate(found, float(ordered[low]), float(ordered[min(high, len(ordered) - 1)]), len(ordered))


def free_samples(samples: StickSamples) -> "NDArray[np.bool_]":
    """Mark the samples at which nobody touches the stick: it lies near its middle, and has for a while and will."""
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
    # Every sample of a still window is free.
    still = np.zeros(count + 1, dtype=int)
    for end in np.flatnonzero(ends):
        still[end - window + 1] += 1
        still[end + 1] -= 1
    free = np.cumsum(still[:-1]) > 0
    # A gap in time, after a loss, ends a stretch.
    cuts = np.flatnonzero(np.diff(samples.t) > 1.5 / samples.hz) + 1
    edges = np.flatnonzero(np.diff(free.astype(int))) + 1
    starts = np.unique(np.concatenate([[0], edges, cuts]))
    for start, end in zip(starts, np.append(starts[1:], count), strict=True):
        if free[start]:
            settle = 0 if start == 0 else round(SETTLE_S * samples.hz)
            leave = 0 if end == count else round(LEAVE_S * samples.hz)
            free[start : min(start + settle, end)] = False
            free[max(end - leave, start) : end] = False
    return free


def stick_rest(samples: StickSamples) -> StickRest | None:
    """Return where a stick rests; None with less than LEAST_S of it.

    A straight line through time tells a slow drift from noise: it counts once chance would make one as steep less
    often than CERTAIN, and the noise is what is left about it.
    """
    import numpy as np
    from scipy import stats

    used = free_samples(samples)
    count = int(used.sum())
    if count < LEAST_S * samples.hz:
        return None
    t, x, y = samples.t[used], samples.x[used], samples.y[used]
    drifts: list[tuple[float, float]] = []
    left = []
    for axis in (x, y):
        line = stats.linregress(t, axis) if np.ptp(axis) > 0.0 else None
        real = line is not None and line.pvalue < CERTAIN
        drifts.append((line.slope, line.stderr) if line is not None and real else (0.0, 0.0))
        left.append(axis - (line.slope * (t - t.mean()) if line is not None and real else 0.0))
    step = max(step_of(x), step_of(y))
    deviations = [float(axis.std(ddof=1)) for axis in left]
    # A step of its own comes on top of the noise (Sheppard's correction).
    total = deviation_estimate(math.sqrt(sum(deviation**2 for deviation in deviations) / 2.0), 2 * count - 2, count)
    low, value, high = (math.sqrt(max(end**2 - step**2 / 12.0, 0.0)) for end in (total.low, total.value, total.high))
    # Within one step nothing is seen of it.
    unseen = value < step / 3.0
    spread = Estimate(value, 0.0 if unseen else low, max(high, step / 2.0) if unseen else high, count)
    slope = math.hypot(*(slope for slope, _ in drifts))
    error = 1.96 * math.hypot(*(error for _, error in drifts))
    drift = Estimate(slope * 60.0, (slope - error) * 60.0, (slope + error) * 60.0, count) if slope else None
    middle_x, middle_y = mean_estimate(left[0], step), mean_estimate(left[1], step)
    lengths = np.hypot(x - middle_x.value, y - middle_y.value)
    return StickRest(middle_x, middle_y, spread, drift, used, lengths, count / samples.hz)
