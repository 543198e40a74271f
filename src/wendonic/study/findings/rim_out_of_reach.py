"""Full input only at a tilt that many sticks never reach."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding
from wendonic.study.stick_survey import FULL_AMOUNT, STEPS, surveyed_sticks

RIM_TILT = 0.98
"""A worn or cheap stick reaches no further than this in some direction."""


@finding(
    110,
    "notice",
    "Worn sticks, and the diagonals of many, do not reach that tilt, so their players never get all of it.",
)
def rim_out_of_reach(case: Case) -> Iterator[Found]:
    """Full input only at a tilt that many sticks never reach."""
    for stick in surveyed_sticks(case):
        if stick.full / STEPS > RIM_TILT and stick.wears:
            zone = f"{stick.where}.dead_zone"
            outer = {f"{zone}.outer": 0.95}
            yield Found(
                f"{zone}.{'outer' if stick.bind.dead_zone.uses('outer') else 'form'}",
                f"{FULL_AMOUNT[stick.channel]} needs a tilt of {stick.full / STEPS:.2f}",
                [
                    outer,
                    {f"{zone}.form": "round", **outer},
                    {f"{zone}.form": "round", **outer, f"{zone}.inner": 0.12},
                ],
            )
