"""A mouse that turns the view far too little, or far too much."""

from collections.abc import Iterator

from wendonic.profile.schema.look_binds import MouseBind
from wendonic.study.finding import Case, Found, finding
from wendonic.study.measuring.look_response import USUAL_HAND_CM_S, swipe_deg

LEAST_CM, MOST_CM = 10.0, 120.0
"""A full turn in fewer or more cm of mouse than this."""


@finding(140, "notice", "People play with 10 to 120 cm; probably a wrong digit, here or in dpi.")
def mouse_turn(case: Case) -> Iterator[Found]:
    """A mouse that turns the view far too little, or far too much."""
    for where, bind in case.entries("look"):
        if isinstance(bind, MouseBind) and bind.sideways:
            turn_cm = 360.0 / swipe_deg(bind, [1.0], USUAL_HAND_CM_S)[0]
            if not LEAST_CM <= turn_cm <= MOST_CM:
                usual = {f"{where}.cm_per_turn": 34.0, **case.out(f"{where}.deg_per_count")}
                dpi = {} if bind.hand_gain and bind.deg_per_count is not None else {f"{where}.dpi": 800.0}
                yield Found(
                    where,
                    f"a full turn takes {turn_cm:.1f} cm of mouse, at {USUAL_HAND_CM_S:g} cm/s",
                    [usual, {**usual, **dpi}, {**usual, **dpi, **case.out(f"{where}.hand_gain")}],
                )
