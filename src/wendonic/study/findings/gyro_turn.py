"""A gyro that turns the view far too little, or far too much."""

from collections.abc import Iterator

from wendonic.profile.schema.look_binds import GyroBind
from wendonic.study.finding import Case, Found, finding

LEAST, MOST = 0.2, 15.0
"""Degrees of the view for each degree of the pad."""


@finding(144, "notice", "People play with 1 to 6; probably a wrong digit.")
def gyro_turn(case: Case) -> Iterator[Found]:
    """A gyro that turns the view far too little, or far too much."""
    for where, bind in case.entries("look"):
        if isinstance(bind, GyroBind) and not LEAST <= bind.turn_ratio <= MOST:
            yield Found(
                f"{where}.turn_ratio",
                f"the view turns {bind.turn_ratio:g} deg for each degree of the pad",
                [{f"{where}.turn_ratio": 2.0}],
            )
