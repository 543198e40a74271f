"""How far a stick reaches at one heading, even at a corner of its rim."""

import math
from typing import TYPE_CHECKING, NamedTuple

from wendonic.study.calibration.estimate import CONFIDENCE, NORMAL, Estimate

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

LEAST_SAMPLES = 8
FAR_INSIDE = 4.0
"""Samples this many spreads inside the rim were on their way to it."""

CORNERS, ROUGHLY = 91, 13
"""Number of places within the window at which a corner is tried, and of the first, rough search."""

CERTAIN = 1e-4
"""A corner is accepted if chance would produce as much improvement less often than this."""


ONE_READING = 0.25
"""Readings whose rounding is random spread by more than this share of a step."""

APART = 20
"""Samples between two visits to a heading; a shorter gap is within one visit."""


class Reach(NamedTuple):
    """The length of the rim at a heading, the number of visits, and the variance between visits beyond that of noise,
    which the interval of `length` does not include.
    """

    length: Estimate
    visits: int
    uneven: float


def reach_at(
    u: "NDArray[np.float64]",
    length: "NDArray[np.float64]",
    memory: float = 1.0,
    step: float = 0.0,
    number: "NDArray[np.int64] | None" = None,
) -> Reach | None:
    """Return the length of the rim in the middle of a window, from samples at `u` (-1 to 1 across it) that are
    `length` from rest; None if there are too few on either side. `number` is the index of each sample in the
    recording, for noise with a correlation time of `memory` samples.

    A parabola is fitted, and, if it fits better (Fisher's F), two curves of equal bend that meet in a corner, at the
    place that fits best. Samples far inside were on their way to the rim and are left out. The interval is Student's;
    for a corner it covers every place that fits about as well (profile likelihood). `step` is the quantisation step
    of a device whose noise spans few steps: a quarter of it is added in quadrature, or as much of it as the interval
    has to cover if all readings are equal.

    >>> import numpy as np
    >>> u = np.linspace(-1.0, 1.0, 81)
    >>> noise = np.random.default_rng(1).normal(0.0, 0.001, 81)
    >>> found = reach_at(u, 1.2 - 0.2 * abs(u - 0.1) + noise).length
    >>> found.low < 1.18 < found.high < 1.185
    True
    """
    import numpy as np
    from scipy import stats

    number = np.arange(len(u)) if number is None else number
    for _ in range(3):
        if len(u) < LEAST_SAMPLES or (u < -0.2).sum() < 3 or (u > 0.2).sum() < 3:
            return None
        fits = _fitted(np.vander(u, 3)[None], length)
        kept = _correlations(number, memory)
        value, left = fits.values[0], fits.lefts[0]
        half = _halves(fits, kept)[0]
        low, high = value - half, value + half
        free = max((len(u) - 5) / memory, 1.0)
        if len(u) >= 2 * LEAST_SAMPLES and _has_corner(u, length, float(left @ left), free):
            fits = _fitted(_corners(u, CORNERS), length)
            sums = (fits.lefts**2).sum(axis=1)
            best = int(sums.argmin())
            value, left = fits.values[best], fits.lefts[best]
            near = sums <= sums[best] * (1.0 + float(stats.f.ppf(CONFIDENCE, 1.0, free)) / free)
            halves = _halves(fits, kept)[near]
            low, high = (fits.values[near] - halves).min(), (fits.values[near] + halves).max()
        visits, uneven = _visits(left, number, memory)
        spread = float(np.median(np.abs(left))) * NORMAL
        keep = left > -FAR_INSIDE * max(spread, 1e-6)
        if keep.all():
            break
        u, length, number = u[keep], length[keep], number[keep]
    # Along an edge of a square a quiet stick gives one reading only, and all that is known is its step.
    rounding = step * (CONFIDENCE / 2.0 if float(left.std()) < ONE_READING * step else 0.25)
    below, above = math.hypot(value - low, rounding), math.hypot(high - value, rounding)
    length_there = Estimate(float(value), float(value) - below, float(value) + above, len(left))
    return Reach(length_there, visits, uneven)


def _visits(left: "NDArray[np.float64]", number: "NDArray[np.int64]", memory: float) -> tuple[int, float]:
    """Return how often the window was visited, and the variance between visits beyond what noise does to their means:
    it may be below 0 by chance if they do not differ; 0 for one visit.
    """
    import numpy as np

    visit = np.cumsum(np.diff(number, prepend=number[0]) > APART)
    count = int(visit[-1]) + 1
    if count < 2:
        return count, 0.0
    sizes = np.bincount(visit)
    means = np.bincount(visit, left) / sizes
    around = left - means[visit]
    worth = np.maximum(sizes / memory, 1.0)
    noise = float(around @ around) / max(len(left) - count * memory, 1.0)
    return count, float(means.var(ddof=1)) - noise * float((1.0 / worth).mean())


def _corners(u: "NDArray[np.float64]", count: int) -> "NDArray[np.float64]":
    """Return the columns of two curves of equal bend that meet in a corner, for several places of the corner."""
    import numpy as np

    places = np.linspace(-0.9, 0.9, count)[:, None]
    # The bend is zero in the middle of the window, so that the constant is the length there.
    bends = np.abs(u - places) - np.abs(places)
    same = np.ones_like(bends)
    return np.stack([same * u * u, bends, same * u, same], axis=2)


def _has_corner(u: "NDArray[np.float64]", length: "NDArray[np.float64]", squares: float, free: float) -> bool:
    """Return whether a corner somewhere leaves significantly smaller residuals than the parabola's `squares`."""
    from scipy.special import fdtrc

    best = float((_fitted(_corners(u, ROUGHLY), length).lefts ** 2).sum(axis=1).min())
    return bool(fdtrc(2.0, free, (squares - best) / 2.0 / max(best / free, 1e-18)) < CERTAIN)


class _Fits(NamedTuple):
    """Many least-squares fits: their columns, the inverses of their normal matrices, the last coefficient of each,
    and the residual of each.
    """

    columns: "NDArray[np.float64]"
    inverse: "NDArray[np.float64]"
    values: "NDArray[np.float64]"
    lefts: "NDArray[np.float64]"


def _fitted(columns: "NDArray[np.float64]", length: "NDArray[np.float64]") -> _Fits:
    """Fit the lengths with each set of columns."""
    import numpy as np

    turned = columns.transpose(0, 2, 1)
    # Slightly more on the diagonal: a corner beyond the last sample makes the matrix singular.
    inverse = np.asarray(np.linalg.inv(turned @ columns + 1e-9 * np.eye(columns.shape[2])), dtype=np.float64)
    fits = inverse @ (turned @ length)[:, :, None]
    return _Fits(columns, inverse, fits[:, -1, 0], length - (columns @ fits)[:, :, 0])


def _correlations(number: "NDArray[np.int64]", memory: float) -> "NDArray[np.float64]":
    """Return the correlation matrix of first-order autoregressive noise."""
    import numpy as np

    apart = np.abs(number[:, None] - number[None, :]).astype(float)
    correlations: NDArray[np.float64] = ((memory - 1.0) / (memory + 1.0)) ** apart
    return correlations


def _halves(fits: _Fits, correlations: "NDArray[np.float64]") -> "NDArray[np.float64]":
    """Return half of Student's interval of each fit's last coefficient, for correlated noise.

    With M = I - X (X'X)^-1 X' the residuals have the expected sum of squares s² tr(M R), and tr(M R)² / tr(M R M R)
    degrees of freedom (Satterthwaite, Biometrics, 1946); the coefficients have the covariance s² (X'X)^-1 X'R X
    (X'X)^-1.
    """
    import numpy as np
    from scipy.special import stdtrit

    turned, inverse = fits.columns.transpose(0, 2, 1), fits.inverse
    across = correlations @ fits.columns
    once = inverse @ (turned @ across)
    twice = inverse @ (across.transpose(0, 2, 1) @ across)
    trace = len(correlations) - np.trace(once, axis1=1, axis2=2)
    squares = (correlations**2).sum() - np.trace(2.0 * twice - once @ once, axis1=1, axis2=2)
    variances = (fits.lefts**2).sum(axis=1) / trace * (once @ inverse)[:, -1, -1]
    free = np.maximum(trace * trace / squares, 1.0)
    halves: NDArray[np.float64] = stdtrit(free, 0.5 + CONFIDENCE / 2.0) * np.sqrt(variances)
    return halves
