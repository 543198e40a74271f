"""Stretches in which a stick was held still at a small tilt, which look as if it lay free."""

from typing import TYPE_CHECKING

from wendonic.study.calibration.stick_samples import StickSamples

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

FAR_AWAY, FAR_SPREADS = 0.1, 6.0
"""A stretch this far (raw) from where the stick usually lies, and this many times as far as usual, was held."""

LEAST_FREE = 5
"""Fewer stretches do not tell where it usually lies."""

MOST_HELD = 0.4
"""If more of the time was held than this share, what is usual is unknown."""

MEDIAN_LENGTH = 1.1774
"""Median distance of places that scatter normally by 1 on each axis (Rayleigh)."""


def held_stretches(samples: StickSamples, free: "NDArray[np.bool_]") -> "tuple[NDArray[np.bool_], int]":
    """Mark the samples of those stretches of `free` ones in which the stick was held, and count these stretches.

    The stick usually lies where the median of its free time is. A spring may bring it back somewhere else each time,
    but by about as much each time.

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
