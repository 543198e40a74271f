"""Numbers that were estimated, each with its 95 % confidence interval."""

import math
from typing import TYPE_CHECKING, NamedTuple

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

CONFIDENCE = 0.95


class Estimate(NamedTuple):
    """A value, both ends of its 95 % interval, and how many samples it rests on."""

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
    """Return the step in which a device reports its values: the smallest difference between two of them; 0 for one.

    >>> import numpy as np
    >>> step_of(np.array([0.0, 0.25, 0.75, 0.25]))
    0.25
    """
    import numpy as np

    seen = np.unique(values)
    return float(np.diff(seen).min()) if len(seen) > 1 else 0.0


def mean_estimate(values: "NDArray[np.float64]", step: float = 0.0) -> Estimate:
    """Return the mean of independent samples, with Student's interval.

    In steps that are coarse against the noise s, a mean is off by up to step / pi exp(-2 pi² s² / step²), which comes
    on top (Widrow and Kollár, Quantization Noise, 2008).

    >>> import numpy as np
    >>> mean_estimate(np.array([1.0, 2.0, 3.0])).value
    2.0
    """
    from scipy import stats

    count = len(values)
    mean, deviation = float(values.mean()), float(values.std(ddof=1))
    half = float(stats.t.ppf(0.5 + CONFIDENCE / 2.0, count - 1)) * deviation / math.sqrt(count)
    if step > 0.0:
        half += step / math.pi * math.exp(-2.0 * (math.pi * deviation / step) ** 2)
    return Estimate(mean, mean - half, mean + half, count)


def deviation_estimate(deviation: float, free: int, samples: int) -> Estimate:
    """Return the interval of a standard deviation of normal noise that has `free` degrees of freedom (chi squared).

    >>> found = deviation_estimate(1.0, 100, 100)
    >>> round(found.low, 3), round(found.high, 3)
    (0.879, 1.161)
    """
    from scipy import stats

    tail = (1.0 - CONFIDENCE) / 2.0
    low = deviation * math.sqrt(free / stats.chi2.ppf(1.0 - tail, free))
    high = deviation * math.sqrt(free / stats.chi2.ppf(tail, free))
    return Estimate(deviation, float(low), float(high), samples)
