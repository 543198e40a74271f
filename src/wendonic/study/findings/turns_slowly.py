"""A face that takes long to turn round."""

from collections.abc import Iterator

from wendonic.profile.schema.steer.sprite import Faced
from wendonic.significant import significant
from wendonic.study.finding import Case, Found, finding

TURN_S = 1.2
FULL_TURN_S = 20.0


@finding(185, "notice", "The body walks backwards for a while before it faces where it goes.")
def turns_slowly(case: Case) -> Iterator[Found]:
    """A face that takes long to turn round."""
    turn_s = case.value("turn_round_s")
    answer_s = case.value("reversal_s") or 0.0
    where = f"{case.where}.steer.turn_deg_s"
    if isinstance(case.table.steer, Faced) and turn_s is not None and turn_s - 0.5 * answer_s > TURN_S:
        yield Found(where, f"turning round takes {significant(turn_s, 2)} s", [{where: 360.0}, {where: 540.0}])
    full_s = case.value("full_turn_s")
    if full_s is not None and full_s > FULL_TURN_S:
        fast = case.out(f"{case.where}.steer.fast_turn_deg_s")
        yield Found(
            where,
            f"a full turn at top speed takes {full_s:.0f} s",
            [
                {where: 110.0},
                {where: 110.0, **fast},
                {where: 110.0, **fast, f"{case.where}.steer.turn_radius_m": 2.0},
            ],
            "",
            "It cannot get round a corner.",
        )
