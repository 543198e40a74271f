"""A stick's positions at even intervals."""

from typing import TYPE_CHECKING, NamedTuple

from wendonic.recording.recording import Recording
from wendonic.study.calibration.held_samples import held_samples

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

MOST_HZ = 100.0


class StickSamples(NamedTuple):
    """Time (s) and raw position, x right and y towards the player, `hz` times a second while the stick reports; none
    while it was lost.
    """

    t: "NDArray[np.float64]"
    x: "NDArray[np.float64]"
    y: "NDArray[np.float64]"
    hz: float


NOTHING = 1e-4
"""A 16-bit device has no reading nearer to the middle than this, except (0, 0) when it has nothing to report."""


def says_nothing(samples: StickSamples) -> "NDArray[np.bool_]":
    """Mark readings of (0, 0), which some devices report when they have nothing to report."""
    import numpy as np

    silent: NDArray[np.bool_] = (np.abs(samples.x) < NOTHING) & (np.abs(samples.y) < NOTHING)
    return silent


def stick_samples(recording: Recording, control: str) -> StickSamples:
    """Return a stick's samples at its polling rate, see `held_samples`.

    >>> from wendonic import Event
    >>> both = Recording([Event(0.0, "pad.left_stick", (0.5, 0.0)), Event(0.02, "pad.left_stick", (0.25, 0.0))])
    >>> stick_samples(both, "pad.left_stick").x.tolist()
    [0.25]
    """
    table, hz = held_samples(recording, control, MOST_HZ)
    return StickSamples(table[:, 0], table[:, 1], table[:, 2], hz)
