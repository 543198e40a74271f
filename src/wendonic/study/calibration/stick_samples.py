"""Where a stick was, at even moments."""

from typing import TYPE_CHECKING, NamedTuple

from wendonic.recording.recording import Recording

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

MOST_HZ = 100.0
LEAST_HZ = 20.0


class StickSamples(NamedTuple):
    """Time (s) and raw position, x right and y towards the player, `hz` times a second while the stick reports
    itself; there are none while it was lost.
    """

    t: "NDArray[np.float64]"
    x: "NDArray[np.float64]"
    y: "NDArray[np.float64]"
    hz: float


NOTHING = 1e-4
"""A device of 16 bits has no reading nearer to the middle than this, but for one that says nothing."""


def says_nothing(samples: StickSamples) -> "NDArray[np.bool_]":
    """Mark readings of (0, 0): what some devices say when they have nothing to say."""
    import numpy as np

    silent: NDArray[np.bool_] = (np.abs(samples.x) < NOTHING) & (np.abs(samples.y) < NOTHING)
    return silent


def stick_samples(recording: Recording, control: str) -> StickSamples:
    """Return a stick's samples, as often as it is read (from LEAST_HZ to MOST_HZ), so that each is a reading of its
    own.

    What it reported last holds until it reports again: drivers report changes only. How often it is read is seen from
    the shorter of the times between two events. Nothing holds after a loss, or after its last report.

    >>> from wendonic import Event
    >>> both = Recording([Event(0.0, "pad.left_stick", (0.5, 0.0)), Event(0.02, "pad.left_stick", (0.25, 0.0))])
    >>> stick_samples(both, "pad.left_stick").x.tolist()
    [0.25]
    """
    import numpy as np

    times = np.array([event.t for event in recording if event.control == control])
    waits = np.diff(times)
    waits = waits[waits > 1e-4]
    hz = min(max(1.0 / float(np.quantile(waits, 0.2)), LEAST_HZ), MOST_HZ) if len(waits) else LEAST_HZ
    rows: list[tuple[float, float, float]] = []
    place: tuple[float, float] | None = None
    lost = (f"lost.{control.split('.', maxsplit=1)[0]}", "lost.focus")
    for t, events in recording.ticks(hz):
        for event in events:
            if event.control == control and isinstance(event.value, tuple):
                place = event.value[0], event.value[1]
            elif event.control in lost:
                place = None
        # After its last word nobody knows whether it still lies there, or was unplugged.
        if place is not None and t <= times[-1] + 1.0 / hz:
            rows.append((t, *place))
    table = np.array(rows).reshape(-1, 3)
    return StickSamples(table[:, 0], table[:, 1], table[:, 2], hz)
