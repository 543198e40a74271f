"""A short summary of a trace: duration, speeds by direction, distance, turn of the view, and drift when released."""

import math
from typing import TYPE_CHECKING, NamedTuple

from wendonic.length_unit import METRES, LengthUnit
from wendonic.study.looking import turned_deg
from wendonic.study.motion import steps_m, walked_speeds_m_s

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    from wendonic.batch.trace import Columns

DIRECTION_TOLERANCE_DEG = 10.0
"""How far from a main or diagonal direction a request still counts as one."""

STEADY_M_S2 = 0.5
"""Below this rate of change a speed counts as steady; accelerations are tens of m/s²."""

HANDS_OFF_RAW = 0.25
"""Raw tilt below which a stick may be untouched."""

HANDS_OFF_RANGE = 0.06
"""How far each raw axis may wander over `HANDS_OFF_S` while nobody touches the stick."""

HANDS_OFF_S = 1.0
"""How long a stick has to be still before it counts as untouched."""


class Summary(NamedTuple):
    """What `summarise` found; None for what does not occur in the trace."""

    ticks: int
    duration_s: float
    top_amount: float | None
    straight_speed_m_s: float | None
    diagonal_speed_m_s: float | None
    distance_m: float
    turned_deg: float | None
    rest_drift_m_per_min: float | None

    def __str__(self) -> str:
        """Return the summary as one line, in metres."""
        return self.words(METRES)

    def words(self, length: LengthUnit) -> str:
        """Return the summary as one line, in a game's unit, without what does not occur in the trace."""
        parts = (
            ("top amount", self.top_amount, "", ".3f"),
            ("straight", self.straight_speed_m_s, "m/s", ".3f"),
            ("diagonal", self.diagonal_speed_m_s, "m/s", ".3f"),
            ("walked", self.distance_m, "m", ".1f"),
            ("view turned", self.turned_deg, "deg", ".0f"),
            ("rest drift", self.rest_drift_m_per_min, "m/min", ".3f"),
        )
        known = ((name, value, unit, digits) for name, value, unit, digits in parts if value is not None)
        return ", ".join(
            f"{name} {length.words(value, unit, digits)}".rstrip() for name, value, unit, digits in known
        )


def summarise(trace: "Columns") -> Summary:
    """Return the summary of a trace.

    `top_amount` is the largest amount. `straight_speed_m_s` and `diagonal_speed_m_s` are the highest steady speeds
    (changing by less than STEADY_M_S2) while the player requests one of the four main directions, or one of the four
    diagonals, to DIRECTION_TOLERANCE_DEG. Speeds are along the ground, so sliding down a bank adds to them, or
    through the air for a flyer; the vertical speed of a jump is left out. `distance_m` is the length of the path,
    height included, relocations excluded. `turned_deg` is how far the player turned the view, there and back.
    `rest_drift_m_per_min` is the path that `move` requests with hands off: every raw tilt of the last HANDS_OFF_S
    lies below HANDS_OFF_RAW and within HANDS_OFF_RANGE on each axis. A stick that drifts shows here; walking to a
    goal or driving by other channels does not.

    >>> from wendonic import shape
    >>> from wendonic.demo import demo_profile, demo_recording
    >>> summary = summarise(shape(demo_recording("beekeeper_pad"), demo_profile()))
    >>> print(summary)
    top amount 1.000, straight 3.200 m/s, diagonal 3.200 m/s, walked 57.8 m, rest drift 0.000 m/min
    """
    import numpy as np

    count = len(trace)
    if count == 0:
        return Summary(0, 0.0, None, None, None, 0.0, None, None)
    dt = np.asarray(trace["dt"])
    amount = np.asarray(trace["amount"])
    speed = walked_speeds_m_s(trace)
    steady = np.abs(np.diff(speed, prepend=0.0)) < STEADY_M_S2 * dt
    requested_deg = np.degrees(np.arctan2(np.asarray(trace["local_x"]), np.asarray(trace["local_y"])))
    off_straight = np.abs((requested_deg + 45.0) % 90.0 - 45.0)
    moving = steady & (amount > 0.0)
    steps = steps_m(trace)
    tilted = np.hypot(np.asarray(trace["raw_x"]), np.asarray(trace["raw_y"])) > 0.0
    # A request that is fading out is not drift, nor is movement by other sources.
    requests = tilted & (np.hypot(np.asarray(trace["local_x"]), np.asarray(trace["local_y"])) > 0.0)
    hands_off = _hands_off(trace, float(dt.mean())) & (requests | (amount == 0.0))
    drift = steps[hands_off & requests].sum()
    return Summary(
        ticks=count,
        duration_s=float(dt.sum()),
        top_amount=float(amount.max()),
        straight_speed_m_s=_highest(speed[moving & (off_straight <= DIRECTION_TOLERANCE_DEG)]),
        diagonal_speed_m_s=_highest(speed[moving & (off_straight >= 45.0 - DIRECTION_TOLERANCE_DEG)]),
        distance_m=float(steps.sum()),
        turned_deg=turned_deg(trace) or None,
        rest_drift_m_per_min=float(drift / dt[hands_off].sum() * 60.0) if hands_off.any() else None,
    )


def _highest(speeds: "NDArray[np.float64]") -> float | None:
    return float(speeds.max()) if len(speeds) else None


def _hands_off(trace: "Columns", dt_s: float) -> "NDArray[np.bool_]":
    """Mark the ticks at which the raw tilt has been small and almost constant for long enough."""
    import numpy as np

    raw = np.array([trace["raw_x"], trace["raw_y"]])
    ticks = max(math.ceil(HANDS_OFF_S / dt_s), 1)
    still = np.zeros(len(trace), dtype=bool)
    if len(trace) >= ticks:
        window = np.lib.stride_tricks.sliding_window_view(raw, ticks, axis=1)
        still[ticks - 1 :] = ((window.max(axis=-1) - window.min(axis=-1)) < HANDS_OFF_RANGE).all(axis=0)
    return np.asarray(still & (np.hypot(*raw) < HANDS_OFF_RAW), dtype=bool)
