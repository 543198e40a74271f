"""A stick whose slightest tilt gives full input, after all rules."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding
from wendonic.study.stick_response import StickResponse
from wendonic.study.stick_survey import surveyed_sticks

JUST_OUT = 0.03
NEARLY = 0.9


@finding(76, "notice", "The player cannot walk slowly: the stick works like a key.")
def analogue_lost(case: Case) -> Iterator[Found]:
    """A stick whose slightest tilt gives full input, after all rules."""
    move = case.table.move
    by_rule = {where for where, bind in case.entries("move") if move and move.rule_of(bind) in ("unit", "factor")}
    for stick in surveyed_sticks(case):
        if move is None or ".move." not in stick.where or stick.where in by_rule:
            continue
        response = StickResponse(stick.bind, move, case.from_side)
        first, most = response.tilt_for(1e-9), response.ahead(1.0)
        if first is None or most <= 0.0 or first > 0.9:
            continue
        if response.ahead(min(first + JUST_OUT, 1.0)) >= NEARLY * most:
            paces = f"{case.where}.move.paces"
            plain = {f"{stick.where}.curve": {"form": "power", "exponent": 1.6}}
            fixes = [
                case.out(paces, f"{case.where}.move.pace_margin"),
                plain,
                {**plain, f"{stick.where}.dead_zone.form": "round"},
            ]
            yield Found(
                paces if move.paces else f"{stick.where}.curve",
                f"a tilt of {first + JUST_OUT:.2f} gives as much as a full one: {most:.2f} of top speed",
                [fix for fix in fixes if fix],
            )
