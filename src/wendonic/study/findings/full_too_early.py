"""A stick that gives the full amount long before its rim."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding
from wendonic.study.stick_survey import STEPS, surveyed_sticks

EARLY_TILT = 0.7
OUTER = 0.95


@finding(112, "notice", "At least 30 % of the stick's travel changes nothing, and the rest is harder to control.")
def full_too_early(case: Case) -> Iterator[Found]:
    """A stick that gives the full amount long before its rim."""
    for stick in surveyed_sticks(case):
        if stick.full / STEPS < EARLY_TILT and stick.wears:
            outer = {f"{stick.where}.dead_zone.outer": OUTER}
            yield Found(
                f"{stick.where}.dead_zone.outer",
                f"full input is reached at a tilt of {stick.full / STEPS:.2f}",
                [
                    outer,
                    {**outer, f"{stick.where}.curve": {"form": "power", "exponent": 1.6}},
                    {f"{stick.where}.curve": {"form": "power", "exponent": 1.6}},
                ],
            )
