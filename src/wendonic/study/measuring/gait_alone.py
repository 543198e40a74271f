"""How long a gait takes by itself, without smoothing and ramps, as closed forms of its numbers."""

import math

from wendonic.kernels.body.gait import COAST_ENDS_M_S
from wendonic.profile.schema.gait import Gait
from wendonic.study.thresholds import Thresholds

OWN_SHARE = 0.7
"""Share of a limit from which the gait itself counts as the cause, rather than ramps and smoothing."""


def start_alone_s(gait: Gait, thresholds: Thresholds) -> float:
    """Return the time (s) from rest to most of the gait's top speed under full input.

    Formula: most * top / accel, or ln(1 / (1 - most)) / drag.

    >>> from wendonic.study.thresholds import THRESHOLDS
    >>> start_alone_s(Gait(top_speed_m_s=4.0, accel_m_s2=18.0), THRESHOLDS)
    0.2
    """
    if gait.drag_per_s is not None:
        return -math.log1p(-thresholds.most) / gait.drag_per_s
    return thresholds.most * gait.top_speed_m_s / gait.accel_m_s2


def stop_alone(gait: Gait, thresholds: Thresholds) -> tuple[float, float]:
    """Return how far (m) and how long (s) the body slides from top speed once all input ends; infinite if the gait
    keeps its speed.

    Formula: v² / 2b and v / b for a brake b; (v - e) h / ln 2 and h log2(v / e) for a half-life h, which ends at the
    speed e; v / d and ln(v / r) / d for a drag d, at rest below r.

    >>> from wendonic.study.thresholds import THRESHOLDS
    >>> stop_alone(Gait(top_speed_m_s=4.0, brake_m_s2=16.0), THRESHOLDS)
    (0.5, 0.25)
    """
    top = gait.top_speed_m_s
    if gait.keeps_speed:
        return math.inf, math.inf
    if gait.drag_per_s is not None:
        return top / gait.drag_per_s, math.log(max(top / thresholds.rests_m_s, 1.0)) / gait.drag_per_s
    if gait.coast_half_life_s is not None:
        over = max(top - COAST_ENDS_M_S, 0.0)
        halvings = math.log2(max(top / COAST_ENDS_M_S, 1.0))
        return over * gait.coast_half_life_s / math.log(2.0), halvings * gait.coast_half_life_s
    return top * top / (2.0 * gait.brake_m_s2), top / gait.brake_m_s2


def started_by(gait: Gait) -> tuple[str, ...]:
    """Return the settings that accelerate a body.

    >>> started_by(Gait()), started_by(Gait(thrust_m_s2=9.0, drag_per_s=2.0))
    (('accel_m_s2',), ('drag_per_s', 'thrust_m_s2'))
    """
    return ("accel_m_s2",) if gait.drag_per_s is None else ("drag_per_s", "thrust_m_s2")


def stopped_by(gait: Gait) -> tuple[str, ...]:
    """Return the settings that stop a body.

    >>> stopped_by(Gait()), stopped_by(Gait(coast_half_life_s=0.2))
    (('brake_m_s2',), ('coast_half_life_s',))
    """
    if gait.drag_per_s is not None:
        return started_by(gait)
    return ("coast_half_life_s",) if gait.coast_half_life_s is not None else ("brake_m_s2",)
