"""How far the view turns in a trace."""

from typing import TYPE_CHECKING

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    from wendonic.batch.trace import Columns


LOOK_AXES = ("yaw", "pitch")


def looks_deg(trace: "Columns") -> "NDArray[np.float64]":
    """Return how far the player turns the view in each tick (deg), one row to the right and one up; zeros for a trace
    without these columns.

    >>> import pandas as pd
    >>> looks_deg(pd.DataFrame({"look_yaw_deg": [3.0, -1.0], "look_pitch_deg": [4.0, 0.0]})).tolist()
    [[3.0, -1.0], [4.0, 0.0]]
    """
    import numpy as np

    nothing = np.zeros(len(trace))
    rows = [np.asarray(trace[f"look_{axis}_deg"]) if f"look_{axis}_deg" in trace else nothing for axis in LOOK_AXES]
    return np.array(rows, dtype=float)


def look_rates_deg_s(trace: "Columns") -> "NDArray[np.float64]":
    """Return how fast the player turns the view in each tick (deg/s), one row to the right and one up.

    >>> import pandas as pd
    >>> look_rates_deg_s(pd.DataFrame({"look_yaw_deg": [3.0], "look_pitch_deg": [4.0], "dt": [0.5]})).tolist()
    [[6.0], [8.0]]
    """
    import numpy as np

    rates: NDArray[np.float64] = looks_deg(trace) / np.asarray(trace["dt"])
    return rates


def whole_yaw_deg(trace: "Columns") -> "NDArray[np.float64]":
    """Return the yaw of the view in each tick (deg), unwrapped: without a jump from 360 to 0.

    >>> import pandas as pd
    >>> whole_yaw_deg(pd.DataFrame({"view_yaw_deg": [350.0, 10.0]})).tolist()
    [350.0, 370.0]
    """
    import numpy as np

    return np.asarray(np.unwrap(np.asarray(trace["view_yaw_deg"]), period=360.0), dtype=float)


def turned_deg(trace: "Columns") -> float:
    """Return the total angle (deg) by which the player turns the view, there and back.

    >>> import pandas as pd
    >>> turned_deg(pd.DataFrame({"look_yaw_deg": [3.0, -1.0], "look_pitch_deg": [4.0, 0.0]}))
    6.0
    """
    import numpy as np

    return float(np.hypot(*looks_deg(trace)).sum())


WALKS = ("raw_x", "raw_y", "local_x", "local_y", "rise", "turn", "throttle", "amount", "vel_x", "vel_y", "vel_z")
"""Columns of which at least one differs from 0 if the player does more than look."""


def only_looks(trace: "Columns") -> bool:
    """Return whether the player turns the view and nothing else moves.

    >>> from wendonic import Event, Recording, shape
    >>> from wendonic.demo import demo_profile
    >>> swipe, key = Event(0.0, "mouse.move", (30.0, 0.0)), Event(0.0, "key.KeyW", 1)
    >>> [only_looks(shape(Recording(events), demo_profile())) for events in ([swipe], [key, swipe])]
    [True, False]
    """
    import numpy as np

    return bool(looks_deg(trace).any()) and not any(np.any(np.asarray(trace[name])) for name in WALKS)
