"""The length of each mouse swipe, without the trembling of the hand in between."""

import math

from wendonic.recording.recording import Recording

STEP_S = 0.01
SPEED_S = 0.1
"""Time over which a speed is measured: a trembling hand returns within it."""

MOVES_SHARE = 0.05
"""Below this share of its highest speed the mouse counts as still."""

PAUSE_S = 0.3
"""How long the mouse is still between two swipes."""

LEAST_COUNTS = 200


def swipe_lengths(recording: Recording) -> tuple[float, ...]:
    """Return the straight-line length (counts) of each swipe; anything shorter than LEAST_COUNTS is not a swipe.

    A swipe lasts from the middle of the pause before it to the middle of the one after it, so that a slow beginning
    and end belong to it; a hand that trembles in a pause returns to where it was.

    >>> from wendonic.devices.standins import MouseStandIn
    >>> mouse = MouseStandIn(counts_per_inch=254.0, seed=1)
    >>> both = [event for start_s in (0.0, 1.0) for event in mouse.swipe(10.0, start_s, 0.4)]
    >>> [round(length, -1) for length in swipe_lengths(Recording(both))]
    [1000.0, 1000.0]
    """
    import numpy as np

    rows = [
        (event.t, *event.value)
        for event in recording
        if event.control == "mouse.move" and isinstance(event.value, tuple)
    ]
    table = np.array(rows).reshape(-1, 3)
    if not len(table):
        return ()
    reach = round(SPEED_S / STEP_S / 2.0)
    bins = ((table[:, 0] - table[0, 0]) / STEP_S).astype(int) + reach
    count = int(bins[-1]) + reach + 1
    moved = np.stack([np.cumsum(np.bincount(bins, axis, count)) for axis in table[:, 1:].T], axis=1)
    speed = np.zeros(count)
    speed[reach:-reach] = np.hypot(*(moved[2 * reach :] - moved[: -2 * reach]).T)
    moves = np.flatnonzero(speed > MOVES_SHARE * speed.max())
    if not len(moves):
        return ()
    breaks = np.flatnonzero(np.diff(moves) * STEP_S > PAUSE_S)
    middles = (moves[breaks] + moves[breaks + 1]) // 2
    ends = moved[np.concatenate([[0], middles, [count - 1]])]
    lengths = [math.hypot(*part) for part in np.diff(ends, axis=0).tolist()]
    return tuple(length for length in lengths if length >= LEAST_COUNTS)
