"""Sticks under a rule for diagonals that is made for keys."""

from collections.abc import Iterator

from wendonic.profile.schema.tilted import Tilted
from wendonic.study.finding import Case, Found, finding


@finding(75, "notice", "A stick says by itself how much it asks for, and this rule takes that away.")
def tilt_by_the_rule_of_keys(case: Case) -> Iterator[Found]:
    """Sticks under a rule for diagonals that is made for keys."""
    move = case.table.move
    for where, bind in case.entries("move"):
        rule = move.rule_of(bind) if move else ""
        if move and isinstance(bind, Tilted) and rule in ("unit", "factor"):
            measured = {
                "unit": "the slightest tilt beyond the dead zone asks for full speed",
                "factor": f"a full diagonal tilt asks for {move.diagonal_factor:.2f} of what a straight one does",
            }
            yield Found(f"{where}.diagonal", measured[rule], [{f"{where}.diagonal": "cap"}])
