"""A dead zone that takes much of the stick."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding
from wendonic.study.stick_survey import STEPS, surveyed_sticks

DEAD_TILT = 0.2
INNER = 0.12


@finding(90, "notice", "More than a fifth of the stick's travel does nothing, so small steps are a matter of luck.")
def dead_zone_large(case: Case) -> Iterator[Found]:
    """A dead zone that takes much of the stick."""
    for stick in surveyed_sticks(case):
        if stick.first / STEPS > DEAD_TILT:
            inner = {f"{stick.where}.dead_zone.inner": INNER, **case.out(f"{stick.where}.dead_zone.release")}
            yield Found(
                f"{stick.where}.dead_zone.inner",
                f"nothing happens up to a tilt of {stick.first / STEPS:.2f}",
                [inner, {**inner, f"{stick.where}.curve": {"form": "power", "exponent": 1.6}}],
            )
