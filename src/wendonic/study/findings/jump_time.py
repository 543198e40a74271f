"""A jump that floats, or is over before it is seen."""

from collections.abc import Iterator

from wendonic.significant import significant
from wendonic.study.finding import Case, Found, finding

LEAST_S, MOST_S = 0.08, 1.2
"""Time to the top of a jump."""


@finding(203, "notice", "It does not look like a jump; probably a wrong digit, or a gravity that is not intended.")
def jump_time(case: Case) -> Iterator[Found]:
    """A jump that floats, or is over before it is seen."""
    for name, gait, held in case.gaits:
        apex_s = held.value("jump_apex_s") if gait.jump else None
        if gait.jump and apex_s is not None and not LEAST_S <= apex_s <= MOST_S:
            where = f"gait.{name}"
            height_m = round(min(gait.jump.height_m or 2.0 * gait.body_m, 4.0 * gait.body_m), 2)
            usual = {f"{where}.jump.height_m": height_m, f"{where}.jump.apex_s": 0.35}
            without = case.out(f"{where}.jump.speed_m_s", f"{where}.gravity_m_s2")
            yield Found(
                f"{where}.jump",
                f"it takes {significant(apex_s, 2)} s to the top",
                [{f"{where}.jump.apex_s": 0.35}, {**usual, **without}],
            )
