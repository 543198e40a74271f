"""A body that takes long to stop."""

import math
from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding

STOP_LENGTHS = 1.5


@finding(180, "notice", "Whoever stops at an edge goes over it.")
def slides_on(case: Case) -> Iterator[Found]:
    """A body that takes long to stop."""
    gait = case.profile.gait_of(case.mode)
    most_m = STOP_LENGTHS * gait.body_m
    stops_m = case.value("stop_distance_m")
    if stops_m is not None and stops_m > most_m and not case.table.steer.glides:
        brake = gait.top_speed_m_s**2 / (2.0 * most_m)
        far = case.profile.world.length.m(stops_m, ".2f")
        yield Found(
            f"gait.{case.table.gait}.brake_m_s2",
            f"from top speed it takes {far} to stop, {stops_m / gait.body_m:.1f} body lengths",
            f"brake_m_s2 = {math.ceil(brake)}",
        )
