"""The differences of two walks on the same input: distance, end point, and when they part."""

from typing import NamedTuple

import numpy as np

from wendonic.batch.trace import Columns
from wendonic.significant import without_rounding
from wendonic.study.looking import looks_deg, turned_deg
from wendonic.study.motion import speeds_m_s, steps_m

PART_M = 0.05
"""Two bodies have parted once they are this far from each other."""

PART_DEG = 1.0
"""So have two views."""

MOVES_M_S = 0.05
"""Below this speed a heading means nothing."""


class Walked(NamedTuple):
    """How far a body went (m), where it ended (m, plan frame), how far the view was turned in all (deg), and how
    often a press began.
    """

    distance_m: float
    end_x_m: float
    end_y_m: float
    end_z_m: float
    turned_deg: float
    presses: int


class Difference(NamedTuple):
    """How a walk differs from another one on the same input: how much longer its path is (m); the distance of their
    ends and the largest distance of the bodies (m); the root mean square of the difference of their speeds (m/s), and
    of the angle between their headings (deg) while both move; the largest angle (deg) between the views as the input
    has turned them; how many presses began in one and not in the other; and the first moment (s) at which they had
    parted: by PART_M, by PART_DEG, or by a press.

    None if they never part, or never move at the same time.
    """

    distance_m: float
    end_apart_m: float
    most_apart_m: float
    speed_rms_m_s: float
    heading_rms_deg: float | None
    view_apart_deg: float
    presses: int
    parts_s: float | None


UNITS = {"distance_m": "m", "end_x_m": "m", "end_y_m": "m", "end_z_m": "m", "presses": "presses"}
UNITS |= {"end_apart_m": "m", "most_apart_m": "m", "speed_rms_m_s": "m/s", "heading_rms_deg": "deg", "parts_s": "s"}
UNITS |= {"turned_deg": "deg", "view_apart_deg": "deg"}
WALKED = {
    "distance_m": "length of the path, height included",
    "end_x_m": "where it ends, to the right on the plan",
    "end_y_m": "where it ends, forward on the plan",
    "end_z_m": "where it ends, up",
    "turned_deg": "how far the view was turned, there and back",
    "presses": "how often a press began",
}
DIFFERENCES = {
    "distance_m": "how much longer the path is",
    "end_apart_m": "distance between the ends",
    "most_apart_m": "largest distance between the bodies at any moment",
    "speed_rms_m_s": "root mean square of the difference of speed",
    "heading_rms_deg": "root mean square of the angle between the headings, while both are faster than "
    f"{MOVES_M_S:g} m/s",
    "view_apart_deg": "largest angle between where the input has turned the views",
    "presses": "presses that began in one and not in the other",
    "parts_s": f"first moment at which they are {PART_M:g} m or {PART_DEG:g} deg apart, or differ in a press",
}


def _began(trace: Columns, names: list[str]) -> "np.ndarray[tuple[int, int], np.dtype[np.bool_]]":
    columns = [np.asarray(trace[name], dtype=bool) for name in names]
    return np.array(columns).reshape(len(names), len(trace))


def press_columns(press_names: tuple[str, ...]) -> list[str]:
    """Return the columns in which presses begin."""
    return [f"{name}_began" for name in press_names]


def walked(trace: Columns, press_names: tuple[str, ...] = ()) -> Walked:
    """Return the numbers of one walk.

    >>> from wendonic import shape
    >>> from wendonic.demo import demo_profile, demo_recording
    >>> profile = demo_profile()
    >>> one = walked(shape(demo_recording("beekeeper_mouse"), profile), profile.press_names)
    >>> round(one.distance_m, 1), one.presses
    (42.9, 10)
    """
    count = len(trace)
    if count == 0:
        return Walked(0.0, 0.0, 0.0, 0.0, 0.0, 0)
    x, y, z = (float(trace[f"pos_{axis}"][count - 1 : count].sum()) for axis in "xyz")
    began = _began(trace, [name for name in press_columns(press_names) if name in trace])
    return Walked(float(steps_m(trace).sum()), x, y, z, turned_deg(trace), int(began.sum()))


def difference(one: Columns, other: Columns, press_names: tuple[str, ...] = ()) -> Difference:
    """Return how `other` differs from `one`; if one is longer, only the common part counts.

    Walks are compared tick by tick, so both need the same tick rate.

    >>> import pandas as pd
    >>> still = dict.fromkeys(["pos_y", "pos_z", "vel_y", "vel_z"], [0.0, 0.0])
    >>> times = {"t": [0.5, 1.0], "dt": [0.5, 0.5]}
    >>> slow = pd.DataFrame({**times, "pos_x": [0.5, 1.0], "vel_x": [1.0, 1.0], **still})
    >>> fast = pd.DataFrame({**times, "pos_x": [0.5, 2.0], "vel_x": [1.0, 3.0], **still})
    >>> apart = difference(slow, fast)
    >>> apart.distance_m, apart.end_apart_m, round(apart.speed_rms_m_s, 3), apart.parts_s
    (1.0, 1.0, 1.414, 1.0)
    """
    count = min(len(one), len(other))
    if count == 0:
        return Difference(0.0, 0.0, 0.0, 0.0, None, 0.0, 0, None)
    apart = np.sqrt(sum(_difference(one, other, f"pos_{axis}", count) ** 2 for axis in "xyz"))
    speeds = [speeds_m_s(trace)[:count] for trace in (one, other)]
    names = [name for name in press_columns(press_names) if name in one and name in other]
    differ = _began(one, names)[:, :count] != _began(other, names)[:, :count]
    # A press that comes later in one of them is still the same press.
    presses = int(
        np.abs(_began(one, names)[:, :count].sum(axis=1) - _began(other, names)[:, :count].sum(axis=1)).sum()
    )
    views = np.hypot(*np.cumsum(looks_deg(other)[:, :count] - looks_deg(one)[:, :count], axis=1))
    parted = (apart > PART_M) | (views > PART_DEG) | differ.any(axis=0)
    level = [
        np.hypot(np.asarray(trace["vel_x"])[:count], np.asarray(trace["vel_y"])[:count]) for trace in (one, other)
    ]
    moving = (level[0] > MOVES_M_S) & (level[1] > MOVES_M_S)
    headings = [
        np.arctan2(np.asarray(trace["vel_x"])[:count], np.asarray(trace["vel_y"])[:count])[moving]
        for trace in (one, other)
    ]
    between = np.degrees((headings[1] - headings[0] + np.pi) % (2.0 * np.pi) - np.pi)
    lengths = [float(steps_m(trace)[:count].sum()) for trace in (one, other)]
    return Difference(
        without_rounding(lengths[1] - lengths[0]),
        without_rounding(apart[-1]),
        without_rounding(apart.max()),
        without_rounding(np.sqrt(np.mean((speeds[1] - speeds[0]) ** 2))),
        without_rounding(np.sqrt(np.mean(between**2))) if moving.any() else None,
        without_rounding(views.max()),
        presses,
        float(np.asarray(one["t"])[int(np.argmax(parted))]) if parted.any() else None,
    )


def _difference(
    one: Columns, other: Columns, name: str, count: int
) -> "np.ndarray[tuple[int], np.dtype[np.float64]]":
    found: np.ndarray[tuple[int], np.dtype[np.float64]] = (
        np.asarray(other[name])[:count] - np.asarray(one[name])[:count]
    )
    return found
