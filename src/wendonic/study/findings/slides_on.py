"""A body that takes long to stop, in any gait that it can be in."""

import math
from collections.abc import Iterator
from typing import Any

from wendonic.profile.schema.gait import Gait
from wendonic.profile.schema.keyed import Ramped
from wendonic.significant import significant
from wendonic.study.finding import Case, Found, finding
from wendonic.study.measuring.gait_alone import OWN_SHARE, stop_alone, stopped_by

STOP_LENGTHS = 1.5
STOP_S = 5.0
"""Longest time to stop for a body on foot; one that glides may roll out."""

GLIDES_S = 15.0

FALL_S = 0.05
HALF_LIFE_S = 0.02
"""The value (s) to which a fix sets a key's ramp and the smoothing, before it tries 0."""


@finding(180, "notice", "A player who stops at an edge slides over it.")
def slides_on(case: Case) -> Iterator[Found]:
    """A body that takes long to stop."""
    for name, gait, held in case.gaits:
        glides = case.glides(gait)
        stops_m, stops_s = held.value("stop_distance_m"), held.value("stop_time_s")
        most_m = STOP_LENGTHS * gait.body_m * max(1.0, gait.top_speed_m_s / 3.0)
        if stops_m is None or stops_s is None:
            continue
        if glides:
            most_m = math.inf
        most_s = GLIDES_S if glides else STOP_S
        if stops_m > most_m or stops_s > most_s:
            alone_m, alone_s = stop_alone(gait, case.thresholds)
            if alone_m > OWN_SHARE * most_m or alone_s > OWN_SHARE * most_s:
                where, fixes = (
                    f"gait.{name}.{stopped_by(gait)[0]}",
                    _fixes(case, f"gait.{name}", gait, most_m, most_s),
                )
            else:
                where, fixes = _shaping(case)
            yield Found(
                where,
                f"from top speed it slides for {case.profile.world.length.m(stops_m, '.2f')}, "
                f"{stops_m / gait.body_m:.1f} body lengths, in {significant(stops_s, 2)} s",
                fixes,
            )


def _shaping(case: Case) -> tuple[str, list[dict[str, Any]]]:
    """Return what prolongs a request after a release if the gait itself stops soon enough: a slow key ramp, or
    smoothing.
    """
    move = f"{case.where}.move"
    slow = [f"{where}.fall_s" for where, bind in case.entries("move", "throttle") if _falls_slowly(bind)]
    fixes: list[dict[str, Any]] = []
    for fall_s, half_life_s in ((FALL_S, HALF_LIFE_S), (0.0, 0.0)):
        ramps = dict.fromkeys(slow, fall_s)
        smoother = {f"{move}.half_life_s": half_life_s, **case.out(f"{move}.one_euro")} if case.table.move else {}
        fixes += [fix for fix in (ramps, smoother, {**ramps, **smoother}) if fix]
    where = next(iter(slow), f"{move}.{'one_euro' if case.out(f'{move}.one_euro') else 'half_life_s'}")
    return where, fixes


def _falls_slowly(bind: Any) -> bool:
    return isinstance(bind, Ramped) and bind.fall_s > FALL_S


def _fixes(case: Case, where: str, gait: Gait, most_m: float, most_s: float) -> list[dict[str, Any]]:
    """Return stronger brakes: first the one that just suffices by the closed form, then stronger ones to make up for
    what shaping adds.
    """
    top = gait.top_speed_m_s
    within_m = min(most_m, 0.4 * top)
    alone_m, alone_s = stop_alone(gait.model_copy(update={"keeps_speed": False}), case.thresholds)
    # Time and distance fall in proportion as the brakes get stronger.
    times = max(alone_m / within_m, alone_s / most_s) if math.isfinite(most_m) else alone_s / most_s
    found: list[dict[str, Any]] = []
    for more in (1.1, 1.5, 2.5):
        if gait.drag_per_s is not None:
            drag = float(f"{more * times * gait.drag_per_s:.3g}")
            found.append({f"{where}.drag_per_s": drag, f"{where}.thrust_m_s2": float(f"{drag * top:.6g}")})
        elif gait.coast_half_life_s is not None:
            found.append({f"{where}.coast_half_life_s": float(f"{gait.coast_half_life_s / (more * times):.2g}")})
        else:
            brake = math.ceil(more * times * gait.brake_m_s2)
            if brake > gait.brake_m_s2:
                found.append({f"{where}.brake_m_s2": float(brake), **case.out(f"{where}.keeps_speed")})
    return found
