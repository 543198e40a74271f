"""A body that takes long to turn round."""

from collections.abc import Iterator

from wendonic.profile.schema.steer.sprite import Faced
from wendonic.significant import significant
from wendonic.study.feel_sheet import sheet_of
from wendonic.study.finding import Case, Found, finding
from wendonic.study.unmeasured import NotHere

TURN_S = 1.2
FULL_TURN_S = 15.0


@finding(185, "notice", "The body walks backwards for a while before it faces where it goes.")
def turns_slowly(case: Case) -> Iterator[Found]:
    """A body that takes long to turn round."""
    sheet = sheet_of(case, ("turn_round_s", "full_turn_s"))
    # A turn that takes longer than it is watched for has a reason instead of a number.
    ends = {name: str(reason) for name, reason in sheet.reasons.items() if not isinstance(reason, NotHere)}
    turn_s, full_s = sheet.turn_round_s, sheet.full_turn_s
    answer_s = case.value("reversal_s") or 0.0
    where = f"{case.where}.steer.turn_deg_s"
    slow = turn_s is not None and turn_s - 0.5 * answer_s > TURN_S
    if isinstance(case.table.steer, Faced) and (slow or "turn_round_s" in ends):
        words = ends.get("turn_round_s") or f"turning round takes {significant(turn_s or 0.0, 2)} s"
        yield Found(where, words, [{where: 360.0}, {where: 540.0}])
    fast = case.out(f"{case.where}.steer.fast_turn_deg_s")
    if "full_turn_s" in ends or (full_s is not None and full_s > FULL_TURN_S):
        yield Found(
            where,
            ends.get("full_turn_s") or f"a full turn at top speed takes {full_s:.0f} s",
            [
                {where: 110.0},
                {where: 110.0, **fast},
                {where: 110.0, **fast, f"{case.where}.steer.turn_radius_m": 2.0},
            ],
            "",
            "It cannot get round a corner.",
        )
