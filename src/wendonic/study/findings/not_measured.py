"""Something that a mode has but that could not be measured."""

from collections.abc import Iterator

from wendonic.study.feel_sheet import sheet_of
from wendonic.study.finding import Case, Found, finding
from wendonic.study.unmeasured import NotHere

MAY_FAIL = (
    *("first_response_s", "reach90_s", "stop_distance_m", "reversal_s", "turn_round_s", "diagonal_ratio"),
    *("speed_spread_stick", "turn_circle_m", "jump_height_m", "goal_time_s", "thumb_travel", "swing_gain"),
    *("climb_m_s", "dive_m_s"),
)
"""One quantity of each kind that a mode may have but that may have no value."""


@finding(235, "notice", "What cannot be measured has not been checked.")
def not_measured(case: Case) -> Iterator[Found]:
    """Something that a mode has but that could not be measured."""
    missing = sheet_of(case, MAY_FAIL).missing()
    words = [f"{', '.join(names)}: {reason}" for reason, names in missing.items() if not isinstance(reason, NotHere)]
    if words:
        advice = "try it by hand, or measure it by another device: wendonic measure PROFILE --by DEVICE"
        yield Found(case.where, "; ".join(words), (), advice)
