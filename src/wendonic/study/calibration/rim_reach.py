"""How far a stick reaches at one heading, where its rim may have a corner."""

import math
from typing import TYPE_CHECKING, Any

from wendonic.study.calibration.estimate import CONFIDENCE, Estimate

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

LEAST_SAMPLES = 8
FAR_INSIDE = 4.0
"""What lies so many spreads inside of the rim was on its way to it."""

CORNERS, ROUGHLY = 91, 13
"""Places within the window at which a corner is looked for, and to begin with."""

CERTAIN = 1e-4
"""A corner counts once chance would make one that fits as much better less often than this."""


def reach_at(
    u: "NDArray[np.float64]", length: "NDArray[np.float64]", memory: float = 1.0, step: float = 0.0
) -> Estimate | None:
    """Return how long a rim is in the middle of a window, from samples at `u` (-1 to 1 across it) that are `length`
    from rest; None for too few on either side.

    A parabola is fitted; and two lines of one bend that meet in a corner, at whichever place fits best, where they
    fit better (Fisher's F). What lies far inside of it was on its way and is left out. The interval is Student's;
    for a corner it is that of every place which fits about as well (profile likelihood).

    >>> import numpy as np
    >>> u = np.linspace(-1.0, 1.0, 81)
    >>> noise = np.random.default_rng(1).normal(0.0, 0.001, 81)
    >>> found = reach_at(u, 1.2 - 0.2 * abs(u - 0.1) + noise)
    >>> found.low < 1.18 < found.high < 1.185
    True
    """
    import numpy as np
    from scipy import stats

    for _ in range(3):
        if len(u) < LEAST_SAMPLES or (u < -0.2).sum() < 3 or (u > 0.2).sum() < 3:
            return None
        (value,), (error,), (left,) = _fitted(np.vander(u, 3)[None], length)
        free = max((len(u) - 3) / memory, 1.0)
        half = _half(error * math.sqrt(memory), free)
        low, high = value - half, value + half
        free = max((len(u) - 5) / memory, 1.0)
        if len(u) >= 2 * LEAST_SAMPLES and _has_corner(u, length, float(left @ left), free):
            values, errors, lefts = _fitted(_corners(u, CORNERS), length)
            sums = (lefts**2).sum(axis=1)
            best = int(sums.argmin())
            value, left = values[best], lefts[best]
            near = sums <= sums[best] * (1.0 + float(stats.f.ppf(CONFIDENCE, 1.0, free)) / free)
            halves = _half(errors[near] * math.sqrt(memory), free)
            low, high = (values[near] - halves).min(), (values[near] + halves).max()
        spread = float(np.median(np.abs(left))) * 1.4826
        keep = left > -FAR_INSIDE * max(spread, 1e-6)
        if keep.all():
            break
        u, length = u[keep], length[keep]
    low, high = value - math.hypot(value - low, step / 4.0), value + math.hypot(high - value, step / 4.0)
    return Estimate(float(value), float(low), float(high), len(left))


def _corners(u: "NDArray[np.float64]", count: int) -> "NDArray[np.float64]":
    """Return the columns of two lines of one bend that meet in a corner, for each of some places of it."""
    import numpy as np

    places = np.linspace(-0.9, 0.9, count)[:, None]
    # Beside its corner the bend is nothing in the middle of the window, so that the constant is the length there.
    bends = np.abs(u - places) - np.abs(places)
    same = np.ones_like(bends)
    return np.stack([same * u * u, bends, same * u, same], axis=2)


def _has_corner(u: "NDArray[np.float64]", length: "NDArray[np.float64]", squares: float, free: float) -> bool:
    """Return whether a corner somewhere leaves less over than the parabola's `squares`, and that not by chance."""
    from scipy.special import fdtrc

    _, _, lefts = _fitted(_corners(u, ROUGHLY), length)
    best = float((lefts**2).sum(axis=1).min())
    return bool(fdtrc(2.0, free, (squares - best) / 2.0 / max(best / free, 1e-18)) < CERTAIN)


def _fitted(
    columns: "NDArray[np.float64]", length: "NDArray[np.float64]"
) -> "tuple[NDArray[np.float64], NDArray[np.float64], NDArray[np.float64]]":
    """Return the last coefficient of each of many least-squares fits, its standard error, and what each leaves over;
    a row of columns each.
    """
    import numpy as np

    turned = columns.transpose(0, 2, 1)
    # The least bit more on the diagonal: a corner beyond the last sample is not a corner.
    inverse = np.linalg.inv(turned @ columns + 1e-9 * np.eye(columns.shape[2]))
    fits = inverse @ (turned @ length)[:, :, None]
    lefts = length - (columns @ fits)[:, :, 0]
    variances = (lefts**2).sum(axis=1) / (len(length) - columns.shape[2])
    return fits[:, -1, 0], np.sqrt(variances * inverse[:, -1, -1]), lefts


def _half(error: Any, free: float) -> Any:
    """Return half of Student's interval."""
    from scipy.special import stdtrit

    return float(stdtrit(free, 0.5 + CONFIDENCE / 2.0)) * error
