"""The bias and noise of a gyro that lies on a table."""

from typing import TYPE_CHECKING, NamedTuple

from wendonic.recording.recording import Recording
from wendonic.study.calibration.estimate import (
    Estimate,
    mean_estimate,
    spread_estimate,
    spread_memory,
    step_of,
)
from wendonic.study.calibration.held_samples import held_samples

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

MOST_HZ = 1000.0
WINDOW_S = 1.0
RANGE_DEG_S = 6.0
"""If an axis spreads by more than this within a window, the pad is not at rest."""

MOST_BIAS_DEG_S = 8.0
SWAY_S, SWAY_DEG_S, SWAY_SHARE = 0.1, 1.0, 0.7
"""A hand sways: if a gyro spreads by more than this, and most of that over longer times than the first number, it is
held in a hand.
"""

LEAST_WINDOWS = 2
STILL_SPARE = 1.5
"""By what factor a gyro may spread more than on the table and still count as lying still."""


class GyroRest(NamedTuple):
    """Bias (deg/s, right-hand rule about x, y, z), standard deviation of the noise (of the noisiest axis if they
    differ), and the spread (deg/s) over a second below which it counts as lying still. They are None if it never
    rested, and `swayed` is set if that is because somebody held it.
    """

    bias_deg_s: tuple[Estimate, Estimate, Estimate] | None
    noise_deg_s: Estimate | None
    still_deg_s: float | None
    swayed: bool


def gyro_rest(recording: Recording, control: str) -> GyroRest:
    """Return the estimate from the seconds in which a pad lies still: no axis spreads by more than RANGE_DEG_S, and
    nobody holds it.

    >>> from wendonic.devices.standins import GyroStandIn
    >>> lies = GyroStandIn(bias=(0.01, 0.0, 0.0), noise=0.002, seed=4).events(lambda t: (0.0, 0.0), 0.0, 3.0)
    >>> round(gyro_rest(Recording(lies), "pad.gyro").bias_deg_s[0].value, 2)
    0.57
    """
    import numpy as np

    table, hz = held_samples(recording, control, MOST_HZ)
    rates = np.degrees(table[:, 1:])
    window = max(round(WINDOW_S * hz), 1)
    runs: list[list[NDArray[np.float64]]] = [[]]
    for start in range(0, len(rates) - window + 1, window):
        part = rates[start : start + window]
        gap = table[start + window - 1, 0] - table[start, 0] > 1.5 * WINDOW_S
        if gap or np.ptp(part, axis=0).max() > RANGE_DEG_S or np.abs(part.mean(axis=0)).max() > MOST_BIAS_DEG_S:
            runs.append([])
        else:
            runs[-1].append(part)
    held = [run for run in runs if run and _sways(run, hz)]
    still = [part for run in runs if run and not _sways(run, hz) for part in run]
    if len(still) < LEAST_WINDOWS:
        return GyroRest(None, None, None, sum(map(len, held)) >= LEAST_WINDOWS)
    rest = np.concatenate(still)
    steps = [step_of(axis) for axis in rest.T]
    bias_x, bias_y, bias_z = (mean_estimate(axis, step) for axis, step in zip(rest.T, steps, strict=True))
    centred = rest - rest.mean(axis=0)
    memory = max(spread_memory(axis) for axis in centred.T)
    axes = [spread_estimate(axis, step, memory) for axis, step in zip(centred.T, steps, strict=True)]
    noise = max(axes)
    if noise.low <= min(axis.high for axis in axes):
        noise = spread_estimate(centred.ravel(), max(steps), memory)
    spread = max(float(np.ptp(part, axis=0).max()) for part in still)
    return GyroRest((bias_x, bias_y, bias_z), noise._replace(samples=len(rest)), STILL_SPARE * spread, False)


def _sways(run: "list[NDArray[np.float64]]", hz: float) -> bool:
    """Return whether a hand holds it: the spread is wide and mostly slow."""
    import numpy as np

    size = max(round(SWAY_S * hz), 1)
    whole = np.array([part - part.mean(axis=0) for part in run])
    slow = whole[:, : whole.shape[1] // size * size].reshape(len(run), -1, size, whole.shape[2]).mean(axis=2)
    wide = np.ptp(whole, axis=1).max(axis=0) > SWAY_DEG_S
    return bool((wide & (slow.std(axis=(0, 1)) > SWAY_SHARE * whole.std(axis=(0, 1)))).any())
