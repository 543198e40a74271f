"""Stretches in which a stick was held still at a small tilt, which look as if it had been released."""

from typing import TYPE_CHECKING

from wendonic.study.calibration.stick_samples import StickSamples

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

FAR_AWAY, FAR_SPREADS = 0.1, 6.0
"""A stretch this far (raw) from the usual rest point, and this many times as far as usual, was held."""

LEAST_FREE = 5
"""With fewer stretches the usual rest point is unknown."""

MOST_HELD = 0.4
"""If it was held for more than this share of the time, the usual rest point is unknown."""

MEDIAN_LENGTH = 1.1774
"""Median distance of points that scatter normally with standard deviation 1 on each axis (Rayleigh)."""


def held_stretches(samples: StickSamples, free: "NDArray[np.bool_]") -> "tuple[NDArray[np.bool_], int]":
    """Mark the samples of those stretches of `free` in which the stick was held, and count these stretches.

    The usual rest point is the median over the free time. A spring may return the stick to a different place each
    time, but the scatter is about the same each time.

    >>> import numpy as np
    >>> x = np.repeat([0.0, 0.9, 0.01, 0.9, 0.0, 0.9, 0.02, 0.9, 0.01, 0.9, 0.25, 0.9], 50)
    >>> held, count = held_stretches(StickSamples(np.arange(600) / 100.0, x, np.zeros(600), 100.0), x < 0.5)
    >>> count, np.flatnonzero(held).tolist() == list(range(500, 550))
    (1, True)
    """
    import numpy as np

    edges = np.flatnonzero(np.diff(free.astype(int), prepend=0, append=0))
    starts, ends = edges[::2], edges[1::2]
    held = np.zeros(len(free), dtype=bool)
    if len(starts) <= LEAST_FREE:
        return held, 0
    sizes = ends - starts
    stretches = list(zip(starts, ends, strict=True))
    x, y = (np.array([np.median(axis[start:end]) for start, end in stretches]) for axis in (samples.x, samples.y))
    usual_x, usual_y = (float(np.median(np.repeat(places, sizes))) for places in (x, y))
    away = np.hypot(x - usual_x, y - usual_y)
    usual = float(np.median(np.repeat(away, sizes))) / MEDIAN_LENGTH
    far = away > max(FAR_AWAY, FAR_SPREADS * usual)
    if int((~far).sum()) < LEAST_FREE or sizes[far].sum() > MOST_HELD * sizes.sum():
        return held, 0
    for place in np.flatnonzero(far):
        held[starts[place] : ends[place]] = True
    return held, int(far.sum())
