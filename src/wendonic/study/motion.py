"""The speed and distance of a trace, height included; a relocation is not a distance."""

import math
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    from wendonic.batch.trace import Columns


def speeds_m_s(trace: "Columns") -> "NDArray[np.float64]":
    """Return the speed (m/s) at the end of every tick, up and down included.

    >>> import pandas as pd
    >>> speeds_m_s(pd.DataFrame({"vel_x": [1.0], "vel_y": [2.0], "vel_z": [-2.0]})).tolist()
    [3.0]
    """
    import numpy as np

    speeds: NDArray[np.float64] = np.linalg.norm([trace["vel_x"], trace["vel_y"], trace["vel_z"]], axis=0)
    return speeds


def walked_speeds_m_s(trace: "Columns") -> "NDArray[np.float64]":
    """Return the speed (m/s) at the end of every tick along the ground, or through the air for a flyer. The vertical
    speed of a jump or fall is left out.

    >>> import pandas as pd
    >>> speeds = {"vel_x": [4.0, 4.0], "vel_y": [0.0, 0.0], "vel_z": [3.0, 3.0]}
    >>> walked_speeds_m_s(pd.DataFrame({**speeds, "grounded": [True, False]})).tolist()
    [5.0, 4.0]
    """
    import numpy as np

    upwards = np.asarray(trace["vel_z"]) * np.asarray(trace["grounded"])
    speeds: NDArray[np.float64] = np.linalg.norm([trace["vel_x"], trace["vel_y"], upwards], axis=0)
    return speeds


def level_speeds_m_s(trace: "Columns") -> "NDArray[np.float64]":
    """Return the horizontal speed (m/s) at the end of every tick.

    >>> import pandas as pd
    >>> level_speeds_m_s(pd.DataFrame({"vel_x": [3.0], "vel_y": [4.0], "vel_z": [-2.0]})).tolist()
    [5.0]
    """
    import numpy as np

    speeds: NDArray[np.float64] = np.asarray(np.hypot(trace["vel_x"], trace["vel_y"]))
    return speeds


JUMP_M = 0.5
UNEXPLAINED = 3.0
UNUSUAL = 10.0
"""A step of more than JUMP_M is a relocation if it is this many times as long as its speed explains and as the usual
steps of the trace: a game may move a body at each tick without reporting a speed.
"""


def placed(trace: "Columns") -> "NDArray[np.bool_]":
    """Return the ticks in which the game put the body somewhere else, for example to respawn.

    >>> import pandas as pd
    >>> x = [0.0, 0.1, 0.2, 7.0, 7.1]
    >>> level = {"pos_y": 0.0, "pos_z": 0.0, "vel_x": 1.0, "vel_y": 0.0, "vel_z": 0.0, "dt": 0.1}
    >>> placed(pd.DataFrame({"pos_x": x, **level})).tolist()
    [False, False, False, True, False]
    """
    import numpy as np

    steps, speeds = _raw_steps_m(trace), speeds_m_s(trace)
    faster = np.maximum(speeds, np.concatenate([speeds[:1], speeds[:-1]]))
    usual_m = float(np.median(steps[steps > 0.0])) if (steps > 0.0).any() else 0.0
    longest_m = np.maximum(UNEXPLAINED * faster * np.asarray(trace["dt"]), max(UNUSUAL * usual_m, JUMP_M))
    marks: NDArray[np.bool_] = steps > longest_m
    return marks & ~_moved_by_rules(trace)


def relocated(trace: "Columns") -> "NDArray[np.bool_]":
    """Return the ticks in which the body was relocated: out of a wall, to where a hand pointed, or by the game."""
    return placed(trace) | _moved_by_rules(trace)


def _moved_by_rules(trace: "Columns") -> "NDArray[np.bool_]":
    import numpy as np

    marks = np.zeros(len(trace["pos_x"]), dtype=bool)
    for name in ("returned", "teleported"):
        if name in trace:
            marks |= np.asarray(trace[name])
    return marks


def _raw_steps_m(trace: "Columns") -> "NDArray[np.float64]":
    import numpy as np

    places = np.array([trace["pos_x"], trace["pos_y"], trace["pos_z"]])
    steps: NDArray[np.float64] = np.linalg.norm(np.diff(places, axis=1, prepend=places[:, :1]), axis=0)
    return steps


def steps_m(trace: "Columns") -> "NDArray[np.float64]":
    """Return the distance (m) covered in every tick, in the first one from `begins_at`.

    >>> import pandas as pd
    >>> trace = {"pos_x": [0.0, 1.0, 9.0], "pos_y": [0.0, 2.0, 9.0], "pos_z": [0.0, 2.0, 9.0], "dt": [1.0, 1.0, 1.0]}
    >>> trace |= {f"vel_{axis}": [2.0, 2.0, 2.0] for axis in "xyz"}
    >>> steps_m(pd.DataFrame({**trace, "teleported": [False, False, True]})).tolist()
    [0.0, 3.0, 0.0]
    """
    import numpy as np

    steps = _raw_steps_m(trace)
    if len(steps):
        steps[0] = math.dist(begins_at(trace), _first(trace, "pos"))
    return np.where(relocated(trace), 0.0, steps)


def begins_at(trace: "Columns") -> tuple[float, float, float]:
    """Return where the body is (m) before the first tick: at the origin, where a walk begins, if its speed explains
    that, otherwise as far back as that speed goes in a tick.

    >>> import pandas as pd
    >>> def row(x, speed):
    ...     return pd.DataFrame([{f"{what}_{axis}": 0.0 for what in ("pos", "vel") for axis in "xyz"} | {
    ...         "pos_x": x, "vel_x": speed, "dt": 0.1}])
    >>> begins_at(row(0.2, 3.0)), begins_at(row(5.0, 3.0))
    ((0.0, 0.0, 0.0), (4.7, 0.0, 0.0))
    """
    place, velocity = _first(trace, "pos"), _first(trace, "vel")
    dt = float(next(iter(trace["dt"])))
    if math.hypot(*place) <= math.hypot(*velocity) * dt * (1.0 + 1e-9):
        return 0.0, 0.0, 0.0
    x, y, z = (at - speed * dt for at, speed in zip(place, velocity, strict=True))
    return x, y, z


def _first(trace: "Columns", what: str) -> tuple[float, float, float]:
    x, y, z = (float(next(iter(trace[f"{what}_{axis}"]))) for axis in "xyz")
    return x, y, z
