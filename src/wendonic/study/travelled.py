"""How fast a trace goes and how far, height included; what somebody was merely brought over is no way."""

from typing import TYPE_CHECKING

if TYPE_CHECKING:
    import numpy as np
    import pandas as pd
    from numpy.typing import NDArray


def speeds_m_s(trace: "pd.DataFrame") -> "NDArray[np.float64]":
    """Return the speed (m/s) at the end of every tick, up and down included.

    >>> import pandas as pd
    >>> speeds_m_s(pd.DataFrame({"vel_x": [1.0], "vel_y": [2.0], "vel_z": [-2.0]})).tolist()
    [3.0]
    """
    import numpy as np

    speeds: NDArray[np.float64] = np.linalg.norm(trace[["vel_x", "vel_y", "vel_z"]].to_numpy(), axis=1)
    return speeds


def brought(trace: "pd.DataFrame") -> "NDArray[np.bool_]":
    """Return in which ticks the body was brought somewhere: out of a wall, or to where a hand pointed."""
    import numpy as np

    marks = np.zeros(len(trace), dtype=bool)
    for name in ("returned", "landed"):
        if name in trace:
            marks |= trace[name].to_numpy()
    return marks


def steps_m(trace: "pd.DataFrame") -> "NDArray[np.float64]":
    """Return the way (m) that every tick covers; the first one's is not known, and counts as 0.

    >>> import pandas as pd
    >>> places = {"pos_x": [0.0, 1.0, 9.0], "pos_y": [0.0, 2.0, 9.0], "pos_z": [0.0, 2.0, 9.0]}
    >>> steps_m(pd.DataFrame({**places, "landed": [False, False, True]})).tolist()
    [0.0, 3.0, 0.0]
    """
    import numpy as np

    places = trace[["pos_x", "pos_y", "pos_z"]].to_numpy()
    ways: NDArray[np.float64] = np.linalg.norm(np.diff(places, axis=0, prepend=places[:1]), axis=1)
    return np.where(brought(trace), 0.0, ways)
