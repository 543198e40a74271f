"""Where a stick comes to rest after each release: springs never return it to exactly the same place."""

import math
from typing import TYPE_CHECKING, NamedTuple

from wendonic.study.calibration.estimate import CONFIDENCE, Estimate, correlation_time
from wendonic.study.calibration.stick_samples import StickSamples

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

PUSHED = 0.25
"""A stick that moves this far (raw) from its rest point was pushed and released."""

LEAST_RETURNS = 5
"""With fewer rest points, how far they scatter is unknown."""

CERTAIN = 1e-3
"""The rest points differ if chance would produce as large a difference less often than this."""


class StickReturns(NamedTuple):
    """How often a stick came to rest, where (`places`, raw, a row each), and the scatter of these places per axis
    (None: they do not differ, or there is only one).
    """

    times: int
    places: "NDArray[np.float64]"
    scatter: Estimate | None

    def share_within(self, share: float) -> Estimate | None:
        """Return the distance from the middle of all rest points within which a share (0..1) of them lies.

        If the places scatter normally, their distances follow a Rayleigh distribution: s sqrt(-2 ln(1 - share)). The
        middle of n places is itself off by s / sqrt(n), which is added except at the interval's lower end. None with
        fewer than LEAST_RETURNS places.

        >>> import numpy as np
        >>> found = StickReturns(8, np.zeros((8, 2)), Estimate(0.01, 0.007, 0.015, 8)).share_within(0.999)
        >>> round(found.value, 4), found.samples
        (0.0394, 8)
        """
        if self.scatter is None or self.times < LEAST_RETURNS:
            return None
        distance = self.scatter.scaled(math.sqrt(-2.0 * math.log(1.0 - share)))
        return distance.scaled(math.sqrt(1.0 + 1.0 / self.times))._replace(low=distance.low)


def pushes_before(samples: StickSamples, used: "NDArray[np.bool_]") -> "NDArray[np.int64]":
    """Return for each sample at rest how often the stick had been pushed before it, from 0.

    >>> import numpy as np
    >>> x = np.array([0.0, 0.0, 0.9, 0.1, 0.1])
    >>> pushes_before(StickSamples(np.arange(5.0), x, np.zeros(5), 1.0), x < 0.5).tolist()
    [0, 0, 1, 1]
    """
    import numpy as np

    middle_x, middle_y = float(np.median(samples.x[used])), float(np.median(samples.y[used]))
    pushed = np.hypot(samples.x - middle_x, samples.y - middle_y) > PUSHED
    before = np.cumsum(pushed)[used]
    _, number = np.unique(before, return_inverse=True)
    return number.astype(np.int64)


def stick_returns(
    x: "NDArray[np.float64]", y: "NDArray[np.float64]", number: "NDArray[np.int64]", step: float
) -> StickReturns:
    """Return where a stick came to rest each time, and how far these places scatter.

    They differ if their variance is larger than the noise around each of them explains (Fisher's F with the effective
    sample size of correlated noise). The scatter per axis is the square root of the mean variance of both axes; its
    interval is that of chi-square.
    """
    import numpy as np
    from scipy import stats

    count = int(number[-1]) + 1
    sizes = np.bincount(number)
    places = np.stack([np.bincount(number, axis) / sizes for axis in (x, y)], axis=1)
    if count < 2:
        return StickReturns(count, places, None)
    around = [axis - places[number, index] for index, axis in enumerate((x, y))]
    memory = max(correlation_time(axis) for axis in around)
    worth = np.maximum(sizes / memory, 1.0)
    free = 2.0 * max(float(worth.sum()) - count, 1.0)
    # Noise that hardly leaves a quantisation step may be hidden in it.
    noise = max(sum(float(axis @ axis) for axis in around) / (2.0 * len(x)), step * step / 12.0)
    middle = np.average(places, axis=0, weights=worth)
    between = float((worth[:, None] * (places - middle) ** 2).sum()) / (2.0 * (count - 1))
    if float(stats.f.sf(between / max(noise, 1e-18), 2.0 * (count - 1), free)) >= CERTAIN:
        return StickReturns(count, places, None)
    degrees = 2.0 * (count - 1)
    scatter = math.sqrt(float(places.var(axis=0, ddof=1).mean()))
    tail = (1.0 - CONFIDENCE) / 2.0
    most, least = stats.chi2.ppf([tail, 1.0 - tail], degrees)
    low, high = scatter * math.sqrt(degrees / least), scatter * math.sqrt(degrees / most)
    return StickReturns(count, places, Estimate(scatter, low, high, count))
