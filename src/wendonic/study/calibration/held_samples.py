"""A device's readings at even intervals, from a driver that reports only changes."""

from typing import TYPE_CHECKING

from wendonic.recording.recording import Recording

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

LEAST_HZ = 20.0


def held_samples(recording: Recording, control: str, most_hz: float) -> "tuple[NDArray[np.float64], float]":
    """Return a control's readings, a row (t, numbers …) each, and its polling rate (LEAST_HZ to `most_hz`), so that
    each row is one reading.

    A reported value holds until the next report. The polling rate is estimated from the shorter gaps between events.
    Nothing holds after a loss, or after the last report.

    >>> from wendonic import Event
    >>> twice = Recording([Event(0.0, "pad.left_stick", (0.5, 0.0)), Event(0.02, "pad.left_stick", (0.25, 0.0))])
    >>> held_samples(twice, "pad.left_stick", 100.0)
    (array([[0.02, 0.25, 0.  ]]), 50.0)
    """
    import numpy as np

    times = np.array([event.t for event in recording if event.control == control])
    waits = np.diff(times)
    waits = waits[waits > 1e-4]
    hz = min(max(1.0 / float(np.quantile(waits, 0.2)), LEAST_HZ), most_hz) if len(waits) else LEAST_HZ
    rows: list[tuple[float, ...]] = []
    reading: tuple[float, ...] | None = None
    lost = (f"lost.{control.split('.', maxsplit=1)[0]}", "lost.focus")
    for t, events in recording.ticks(hz):
        for event in events:
            if event.control == control and isinstance(event.value, tuple):
                reading = event.value
            elif event.control in lost:
                reading = None
        # After the last event it may still be at rest, or unplugged.
        if reading is not None and t <= times[-1] + 1.0 / hz:
            rows.append((t, *reading))
    readings = (event.value for event in recording if event.control == control)
    width = next((len(value) for value in readings if isinstance(value, tuple)), 0)
    return np.array(rows).reshape(len(rows), 1 + width), hz
