"""Recordings that have no effect under a profile, usually because they are of another device or another player."""

import logging
from typing import TYPE_CHECKING

import numpy as np

from wendonic.devices.controls import CONTROLS
from wendonic.recording.recording import Recording
from wendonic.study.looking import WALKS

if TYPE_CHECKING:
    import pandas as pd

REQUESTS = (*WALKS, "look_yaw_deg", "look_pitch_deg")
"""Columns of which at least one differs from 0 if a recording requests something or moves the body."""

NAMED = 3
"""Number of controls that are named; the rest are counted."""


def words_of_no_effect(trace: "pd.DataFrame", recording: Recording, seat: str | None = None) -> str | None:
    """Return a sentence if nothing in a recording has any effect in its trace, None otherwise.

    >>> from wendonic import shape
    >>> from wendonic.demo import demo_profile, demo_recording
    >>> keys = demo_recording("beekeeper_keys")
    >>> words_of_no_effect(shape(keys, demo_profile()), keys)
    >>> ride = demo_recording("cart_ride")
    >>> words_of_no_effect(shape(ride, demo_profile("headset")), ride)
    'nothing in the recording has an effect in mode foot: its controls are key.KeyW, key.KeyD, key.KeyA and 3 more'
    """
    names = [
        name for name in dict.fromkeys(event.control for event in recording) if CONTROLS[name].device is not None
    ]
    pressed = [column for column in trace if str(column).endswith("_held")]
    if not names or trace.empty or any(np.any(trace[name].to_numpy() != 0) for name in (*REQUESTS, *pressed)):
        return None
    modes = ", ".join(dict.fromkeys(trace["mode"].astype(str)))
    more = f" and {len(names) - NAMED} more" if len(names) > NAMED else ""
    player = f" of seat {seat}" if seat else ""
    return (
        f"nothing in the recording has an effect in mode {modes}{player}: "
        f"its controls are {', '.join(names[:NAMED])}{more}"
    )


def warn_of_no_effect(trace: "pd.DataFrame", recording: Recording, seat: str | None = None, title: str = "") -> None:
    """Log it as a warning of the logger `wendonic`, after a `title`."""
    words = words_of_no_effect(trace, recording, seat)
    if words:
        logging.getLogger("wendonic").warning("%s%s", title, words)
