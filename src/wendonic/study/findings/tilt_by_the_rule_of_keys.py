"""Sticks under a rule for diagonals that is meant for keys."""

from collections.abc import Iterator

from wendonic.profile.schema.tilted import Tilted
from wendonic.study.finding import Case, Found, finding


@finding(75, "notice", "A stick's tilt says how much the player wants, and this rule ignores it.")
def tilt_by_the_rule_of_keys(case: Case) -> Iterator[Found]:
    """Sticks under a rule for diagonals that is meant for keys."""
    move = case.table.move
    for where, bind in case.entries("move"):
        rule = move.rule_of(bind) if move else ""
        if move and isinstance(bind, Tilted) and rule in ("unit", "factor"):
            measured = {
                "unit": "the slightest tilt past the dead zone gives full speed",
                "factor": f"a full diagonal tilt gives {move.diagonal_factor:.2f} of what a straight one gives",
            }
            yield Found(f"{where}.diagonal", measured[rule], [{f"{where}.diagonal": "cap"}])
