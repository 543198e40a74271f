"""Pressing back that stops later than releasing."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding
from wendonic.study.measuring.step_response import crossing
from wendonic.study.unmeasured import Unmeasured

LATER = 1.15
LATER_S = 0.02


@finding(184, "notice", "Pulling back to stop sooner makes the body stop later.")
def reversing_brakes_less(case: Case) -> Iterator[Found]:
    """Pressing back that stops later than releasing."""
    if case.table.steer.glides:
        return
    for name, gait, held in case.gaits:
        try:
            answer = held.step_response
        except Unmeasured:
            continue
        if answer.speed_turned_back is None or answer.stop_time_s is None:
            continue
        after = answer.t > answer.release_s
        still_s = crossing(answer.t[after], answer.speed_turned_back[after], 0.0, rising=False)
        if still_s is None:
            continue
        back_s = still_s - answer.release_s
        if back_s > LATER * answer.stop_time_s + LATER_S:
            where = f"gait.{name}.reverse_m_s2"
            yield Found(
                where,
                f"released it stops after {answer.stop_time_s:.2f} s, pulled back after {back_s:.2f} s",
                [case.out(where), {where: 1.5 * gait.brake_m_s2}],
            )
