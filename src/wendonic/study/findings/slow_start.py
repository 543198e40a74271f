"""A body that takes long to get going, in any gait that it can be in."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding
from wendonic.study.measuring.gait_alone import OWN_SHARE, start_alone_s, started_by

REACH_S = 1.25
GLIDES_S = 6.0


@finding(182, "notice", "The body is still slow when the player needs to get away.")
def slow_start(case: Case) -> Iterator[Found]:
    """A body that takes long to get going."""
    for name, gait, held in case.gaits:
        most_s = GLIDES_S if case.glides(gait) else REACH_S
        reach_s = held.value("reach90_s")
        # If the gait itself is quick, smoothing or a ramp is slow, and `slow-answer` reports that.
        if reach_s is not None and reach_s > most_s and start_alone_s(gait, case.thresholds) > OWN_SHARE * most_s:
            where = f"gait.{name}"
            aim_s = 0.4 * most_s
            fixes = [
                {f"{where}.accel_m_s2": float(f"{more * gait.top_speed_m_s / aim_s:.3g}")} for more in (1.0, 2.0)
            ]
            if gait.drag_per_s is not None:
                drag = float(f"{2.303 / aim_s:.3g}")
                fixes = [
                    {f"{where}.drag_per_s": drag, f"{where}.thrust_m_s2": float(f"{drag * gait.top_speed_m_s:.6g}")}
                ]
            yield Found(
                f"{where}.{started_by(gait)[0]}", f"90 % of top speed is reached after {reach_s:.2f} s", fixes
            )
