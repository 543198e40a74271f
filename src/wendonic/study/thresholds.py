"""Every threshold that a quantity of the feel sheet depends on: what counts as rest, as a response, as usual.

They are defined only here; definitions of quantities, the JSON, the help and the documents use these numbers.
"""

from typing import NamedTuple

from wendonic.errors import WendonicError


class Thresholds(NamedTuple):
    """The numbers of the definitions. `tilt`, `hz` and `goal_m` may be changed for a measurement."""

    tilt: float = 0.5
    """How far a stick is tilted where a quantity is about one tilt: a share of the way from its rest to its rim."""

    hz: float = 60.0
    """Ticks a second where a quantity is about a whole chain."""

    goal_m: float = 5.0
    """How far off the place is that is pointed at."""

    responds: float = 1e-3
    """Share of top speed from which a request counts as an answer."""

    most: float = 0.9
    """Share of top speed, or of a turn, that counts as arrived."""

    half: float = 0.5
    """Share of what is finally requested that counts as the answer of smoothing."""

    rests_m_s: float = 1e-3
    """Speed below which a body is at rest."""

    steady: float = 1e-3
    """Share by which a steady speed changes over the last twentieth of the time that it was held for, at most."""

    longest_s: float = 600.0
    """Longest time for which anything is held to become steady."""

    tap_s: float = 0.1
    """How long a tap lasts."""

    within_deg: float = 5.0
    """How near a body has to face to where it finally faces to count as turned round."""

    aims: float = 0.05
    """Share of full speed below which a hand cannot aim, so that the heading is ignored."""

    past: float = 0.1
    """How far past the edge of a dead zone small tilts are looked at."""

    quarter: float = 0.25
    """Share of full speed up to which steps of a stick are fine ones."""

    circle_s: float = 2.0
    """Time in which a stick is taken once round its rim."""

    border_tilt: float = 0.7
    """Tilt at which a stick is held on a border between two facings."""

    rest_right: float = 0.03
    """Where a usual worn stick comes to rest, to the right."""

    rest_back: float = -0.02
    """Where a usual worn stick comes to rest, towards the player."""

    noise: float = 0.004
    """Standard deviation of each axis of a usual stick, at rest or held."""

    hand_cm_s: float = 20.0
    """Speed of a hand that turns a mouse without hurry."""

    swing_m_s: float = 1.0
    """Mean speed of hands that swing to walk."""

    cadence_hz: float = 0.9
    """How often hands swing back and forth in a second."""

    tremor_mm: float = 5.0
    """Standard deviation of usual hands that are held still, as they are tracked."""

    gyro_drift_deg_s: float = 0.5
    """Bias of a usual rate sensor that lies still."""

    gyro_noise_deg_s: float = 0.1
    """Standard deviation of a usual rate sensor."""

    gyro_turn_deg_s: float = 60.0
    """Rate of a hand that turns a pad to look."""

    gyro_aim_deg_s: float = 2.0
    """Rate of a hand that turns a pad to aim."""


THRESHOLDS = Thresholds()
"""The usual ones."""


def changed_thresholds(tilt: float | None = None, hz: float | None = None, goal_m: float | None = None) -> Thresholds:
    """Return the usual thresholds with changes for a measurement; raises `WendonicError` for a tilt outside 0..1, and
    for an impossible rate or distance.

    >>> changed_thresholds(tilt=0.3).tilt, changed_thresholds().tilt
    (0.3, 0.5)
    """
    for name, value, least, most, unit in (
        ("tilt", tilt, 0.0, 1.0, ""),
        ("tick rate", hz, 1.0, 10_000.0, " Hz"),
        ("distance", goal_m, 0.01, 10_000.0, " m"),
    ):
        if value is not None and not least <= value <= most:
            raise WendonicError(f"{name}: found {value:g}{unit}; allowed: {least:g} to {most:g}{unit}")
    changes = {"tilt": tilt, "hz": hz, "goal_m": goal_m}
    return THRESHOLDS._replace(**{name: value for name, value in changes.items() if value is not None})
