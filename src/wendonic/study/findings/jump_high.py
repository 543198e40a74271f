"""A jump that is out of proportion to the body."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding

MOST_BODIES = 10.0


@finding(202, "notice", "Probably a wrong digit, or a gravity that is not intended.")
def jump_high(case: Case) -> Iterator[Found]:
    """A jump that is out of proportion to the body."""
    for name, gait, held in case.gaits:
        height_m = held.value("jump_height_m") if gait.jump else None
        if gait.jump and height_m is not None and height_m > MOST_BODIES * gait.body_m:
            where = f"gait.{name}"
            usual_m = round(3.0 * gait.body_m, 2)
            given = "speed_m_s" if gait.jump.speed_m_s is not None else "height_m"
            fixes = [{f"{where}.jump.height_m": usual_m, **case.out(f"{where}.jump.speed_m_s")}]
            if given == "speed_m_s":
                fixes = [{f"{where}.gravity_m_s2": 20.0, f"{where}.jump.speed_m_s": 6.0}, *fixes]
            yield Found(
                f"{where}.jump.{given}",
                f"a jump goes {case.profile.world.length.m(height_m, '.1f')} high, "
                f"{height_m / gait.body_m:.0f} times the width of the body",
                fixes,
            )
