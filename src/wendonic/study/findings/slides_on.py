"""A body that takes long to stop, in any gait that it gets into."""

import math
from collections.abc import Iterator
from typing import Any

from wendonic.profile.schema.gait import Gait
from wendonic.significant import significant
from wendonic.study.finding import Case, Found, finding

STOP_LENGTHS = 1.5
STOP_S = 5.0
"""Nobody waits longer for a body on foot; what glides may roll out."""

GLIDES_S = 15.0


@finding(180, "notice", "A player who stops at an edge slides over it.")
def slides_on(case: Case) -> Iterator[Found]:
    """A body that takes long to stop."""
    glides = case.table.steer.glides
    for name, gait, held in case.gaits:
        stops_m, stops_s = held.value("stop_distance_m"), held.value("stop_time_s")
        most_m = STOP_LENGTHS * gait.body_m * max(1.0, gait.top_speed_m_s / 3.0)
        if stops_m is None or stops_s is None:
            continue
        far = not glides and stops_m > most_m
        if far or stops_s > (GLIDES_S if glides else STOP_S):
            words = case.profile.world.length.m(stops_m, ".2f")
            yield Found(
                f"gait.{name}.{_stopped_by(gait)}",
                f"from top speed it slides for {words}, {stops_m / gait.body_m:.1f} body lengths, "
                f"in {significant(stops_s, 2)} s",
                _fixes(case, f"gait.{name}", gait, most_m if not glides else math.inf),
            )


def _stopped_by(gait: Gait) -> str:
    """Return the setting that stops a body."""
    if gait.drag_per_s is not None:
        return "drag_per_s"
    return "coast_half_life_s" if gait.coast_half_life_s is not None else "brake_m_s2"


def _fixes(case: Case, where: str, gait: Gait, most_m: float) -> list[dict[str, Any]]:
    """Return stronger brakes: what just suffices by the closed form first, and more for what shaping adds."""
    top = gait.top_speed_m_s
    within_m = min(most_m, 0.4 * top)
    found: list[dict[str, Any]] = []
    for more in (1.1, 1.5, 2.5):
        if gait.drag_per_s is not None:
            drag = float(f"{more * top / within_m:.3g}")
            found.append({f"{where}.drag_per_s": drag, f"{where}.thrust_m_s2": float(f"{drag * top:.6g}")})
        elif gait.coast_half_life_s is not None:
            found.append({f"{where}.coast_half_life_s": float(f"{within_m * math.log(2.0) / (more * top):.2g}")})
        else:
            brake = math.ceil(more * top * top / (2.0 * within_m))
            if brake > gait.brake_m_s2:
                found.append({f"{where}.brake_m_s2": float(brake), **case.out(f"{where}.keeps_speed")})
    return found
