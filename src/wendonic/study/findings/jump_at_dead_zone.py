"""An edge of the dead zone where the amount jumps."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding
from wendonic.study.stick_survey import FULL_AMOUNT, surveyed_sticks

JUMP = 0.1


@finding(100, "notice", "Nothing small is possible: the first movement is already large.")
def jump_at_dead_zone(case: Case) -> Iterator[Found]:
    """An edge of the dead zone where the amount jumps."""
    for stick in surveyed_sticks(case):
        if stick.amounts[stick.first] > JUMP:
            by_zone = stick.bind.curve.floor == 0.0
            round_zone = {f"{stick.where}.dead_zone.form": "round"}
            smooth = {f"{stick.where}.curve": {"form": "power", "exponent": 1.6}}
            percent = 100.0 * stick.amounts[stick.first]
            yield Found(
                f"{stick.where}.dead_zone" if by_zone else f"{stick.where}.curve.floor",
                f"leaving the dead zone gives {percent:.0f} % of {FULL_AMOUNT[stick.channel]} at once",
                [round_zone, smooth, {**round_zone, **smooth}]
                if by_zone
                else [{f"{stick.where}.curve.floor": 0.05}, {**round_zone, f"{stick.where}.curve.floor": 0.05}],
            )
