"""Estimates with 95 % confidence intervals."""

import math
from typing import TYPE_CHECKING, NamedTuple

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

CONFIDENCE = 0.95
NORMAL_ERRORS = 1.96
"""Standard errors on either side of a normal estimate that give a 95 % interval."""

HIDDEN = 0.53
"""Noise below this share of a quantisation step hardly ever leaves the step."""

NORMAL = 1.4826
"""Standard deviation of normal noise over its median absolute deviation."""

FEW_STEPS, SOME_STEPS = 2, 6
"""Noise that spans no more steps than this is distorted by quantisation: entirely, or enough to change its spread."""

LEAST_WORTH = 100
LONG_MEMORY = 3.0
"""Noise with a correlation time of more samples than this needs half as many again: its correlation time is
uncertain.
"""

BIASED = 8.0
TAIL = 0.15
WIDER_BELOW, WIDER_ABOVE, WIDER_BY_SHAPE = 1.15, 1.5, 1.5
RESAMPLES = 300


class Estimate(NamedTuple):
    """A value, both ends of its 95 % interval, and the number of samples behind it."""

    value: float
    low: float
    high: float
    samples: int

    def scaled(self, factor: float) -> "Estimate":
        """Return it in another unit.

        >>> Estimate(1.0, 0.5, 2.0, 9).scaled(10.0)
        Estimate(value=10.0, low=5.0, high=20.0, samples=9)
        """
        return Estimate(self.value * factor, self.low * factor, self.high * factor, self.samples)


def step_of(values: "NDArray[np.float64]") -> float:
    """Return a device's quantisation step: the smallest difference between two values; 0 if there is only one value.

    >>> import numpy as np
    >>> step_of(np.array([0.0, 0.25, 0.75, 0.25]))
    0.25
    """
    import numpy as np

    seen = np.unique(values)
    return float(np.diff(seen).min()) if len(seen) > 1 else 0.0


def reaches_over(values: "NDArray[np.float64]", step: float, steps: int) -> bool:
    """Return whether noise spans no more than so many quantisation steps, so that they distort what is seen."""
    return float(values.max() - values.min()) < (steps + 0.5) * step


def correlation_time(values: "NDArray[np.float64]") -> float:
    """Return the correlation time of noise, in samples: 1 for independent ones.

    1 + 2 sum of the autocorrelations, up to where two neighbouring ones add up to nothing (Geyer, Practical Markov
    Chain Monte Carlo, Statistical Science, 1992): n samples say as much about their mean as n divided by this
    independent ones.

    >>> import numpy as np
    >>> noise = np.random.default_rng(1).normal(size=4000)
    >>> correlation_time(noise) < 1.3, 7.0 < correlation_time(np.convolve(noise, np.ones(10))) < 13.0
    (True, True)
    """
    import numpy as np

    count = len(values)
    if count < 4 or float(np.ptp(values)) == 0.0:
        return 1.0
    centred = values - values.mean()
    power = np.abs(np.fft.rfft(centred, 2 * count)) ** 2
    correlation = np.fft.irfft(power)[:count]
    correlation /= correlation[0]
    pairs = correlation[: count // 2 * 2].reshape(-1, 2).sum(axis=1)
    ends = np.flatnonzero(pairs <= 0.0)
    pairs = pairs[: ends[0]] if len(ends) else pairs
    # The correlation time is never taken to be less than that of independent samples.
    found = max(2.0 * float(np.minimum.accumulate(pairs).sum()) - 1.0, 1.0) if len(pairs) else 1.0
    # Subtracting the mean of few independent samples hides a part of their correlation.
    return found * (1.0 + BIASED * (found - 1.0) / count)


def spread_memory(values: "NDArray[np.float64]") -> float:
    """Return the correlation time, in samples, of the indicator "nearer to the median than half of the samples",
    which is what an estimate of the spread counts. For first-order noise it is half of the samples' own, and it is
    never taken to be less, since it underestimates a slow component below a quick one.

    >>> import numpy as np
    >>> noise = np.convolve(np.random.default_rng(1).normal(size=4000), np.ones(10))
    >>> spread_memory(noise) < 0.8 * correlation_time(noise)
    True
    """
    import numpy as np

    away = np.abs(values - np.median(values))
    return max(correlation_time((away < np.median(away)).astype(float)), correlation_time(values) / 2.0)


def mean_estimate(values: "NDArray[np.float64]", step: float = 0.0) -> Estimate:
    """Return the mean of samples, with Student's interval for their effective sample size.

    If the quantisation step is coarse against the noise s, a mean is off by up to step / pi exp(-2 pi² s² / step²),
    which is added (Widrow and Kollár, Quantization Noise, 2008); if the noise hardly ever leaves a step, only the
    step is known, and the interval covers 95 % of it. How often each step occurred would say more, but only for noise
    of a known shape.

    >>> import numpy as np
    >>> mean_estimate(np.array([1.0, 2.0, 3.0])).value
    2.0
    """
    from scipy.special import stdtrit

    count = len(values)
    mean, deviation = float(values.mean()), float(values.std(ddof=1))
    worth = max(count / correlation_time(values), 2.0)
    half = float(stdtrit(worth - 1.0, 0.5 + CONFIDENCE / 2.0)) * deviation / math.sqrt(worth)
    if step > 0.0:
        half += step / math.pi * math.exp(-2.0 * (math.pi * deviation / step) ** 2)
        if deviation < HIDDEN * step:
            half = max(half, CONFIDENCE * step / 2.0)
    return Estimate(mean, mean - half, mean + half, count)


def spread_estimate(values: "NDArray[np.float64]", step: float = 0.0, memory: float = 1.0) -> Estimate:
    """Return the median absolute deviation times 1.4826: the standard deviation of normal noise, unaffected by the
    tails of any other (Hampel, 1974). Its interval comes from order statistics.

    >>> import numpy as np
    >>> found = spread_estimate(np.random.default_rng(1).normal(0.0, 2.0, 4000))
    >>> 1.9 < found.low < found.value < found.high < 2.1
    True
    """
    import numpy as np
    from scipy import stats

    # Readings are spread evenly over their steps to give distances in between; what that adds is subtracted again,
    # with what the steps have added (Sheppard's correction).
    even = np.random.default_rng(1).uniform(-step / 2.0, step / 2.0, len(values))
    spread = values + even
    away = np.sort(np.abs(spread - np.median(spread)))
    count = len(away)
    worth = max(int(count / memory), 4)
    tails = stats.binom.ppf([(1.0 - CONFIDENCE) / 2.0, (1.0 + CONFIDENCE) / 2.0], worth, 0.5) / worth
    low, high = np.clip(np.round(tails * count).astype(int), 0, count - 1)
    ends = (float(away[low]), float(np.median(away)), float(away[high]))
    least, value, most = (math.sqrt(max((NORMAL * end) ** 2 - step * step / 6.0, 0.0)) for end in ends)
    if reaches_over(values, step, SOME_STEPS):
        # With so few steps, what they add is known only to an eighth.
        least, most = max(least - step / 8.0, 0.0), most + step / 8.0
    if value < HIDDEN * step:
        # Noise within one step is invisible.
        least, most = 0.0, max(most, step / 2.0)
    return Estimate(value, least, most, count)


def tail_estimate(
    values: "NDArray[np.float64]", share: float, memory: float = 1.0, step: float = 0.0
) -> Estimate | None:
    """Return a high quantile, at a share (0..1), of samples; None if their effective sample size is below
    LEAST_WORTH.

    A generalized Pareto distribution is fitted to the largest samples, a share TAIL of all, by probability-weighted
    moments (Hosking and Wallis, Technometrics, 1987). The interval comes from a block bootstrap with blocks as long
    as the correlation time (Kunsch, 1989). It is widened, more above than below and more for heavier tails, since
    resamples contain no extremes that were not observed.
    """
    import numpy as np

    count = len(values)
    if count / memory < LEAST_WORTH * (1.5 if memory > LONG_MEMORY else 1.0):
        return None
    quantile, shape = _tail_quantile(values, share)
    value = float(quantile)
    wider_above = WIDER_ABOVE + WIDER_BY_SHAPE * max(float(shape), 0.0)
    block = max(math.ceil(memory), 1)
    random = np.random.default_rng(1)
    starts = random.integers(0, count - block + 1, (RESAMPLES, -(-count // block)))
    places = (starts[:, :, None] + np.arange(block)).reshape(RESAMPLES, -1)[:, :count]
    tail = (1.0 - CONFIDENCE) / 2.0
    low, high = np.quantile(_tail_quantile(values[places], share)[0], [tail, 1.0 - tail])
    # A reading and the middle are each known only to half a step, and squares add.
    spare = step / math.sqrt(2.0)
    if value > 0.0:
        low, high = value * (low / value) ** WIDER_BELOW, value * (high / value) ** wider_above
    return Estimate(value, max(min(float(low), value) - spare, 0.0), max(float(high), value) + spare, count)


def _tail_quantile(values: "NDArray[np.float64]", share: float) -> "tuple[NDArray[np.float64], NDArray[np.float64]]":
    """Return the quantile of each row of samples, and the shape parameter of its tail: above 0 for a heavy one."""
    import numpy as np

    count = values.shape[-1]
    largest = max(int(TAIL * count), 20)
    ordered = np.sort(values, axis=-1)
    from_value = ordered[..., count - largest - 1]
    excess = ordered[..., count - largest :] - from_value[..., None]
    weights = 1.0 - (np.arange(1, largest + 1) - 0.35) / largest
    mean, weighted = excess.mean(axis=-1), (excess * weights).mean(axis=-1)
    gap = np.maximum(mean - 2.0 * weighted, 1e-12)
    shape = np.clip(2.0 - mean / gap, -0.5, 0.6)
    scale = 2.0 * mean * weighted / gap
    rest = (1.0 - share) * count / largest
    shape = np.where(np.abs(shape) < 1e-6, 1e-6, shape)
    quantile: NDArray[np.float64] = from_value + scale / shape * (rest ** (-shape) - 1.0)
    return quantile, shape
