"""A look stick that takes very long, or hardly any time, for a full turn."""

from collections.abc import Iterator

from wendonic.profile.schema.look_binds import LookStickBind
from wendonic.significant import significant
from wendonic.study.finding import Case, Found, finding
from wendonic.study.measuring.look_response import turn_rate_deg_s

LEAST_S, MOST_S = 0.35, 7.0
"""A full turn in less or more time than this."""

USUAL_DEG_S = 180.0


@finding(142, "notice", "People play with 1 to 5 s; probably a wrong digit.")
def stick_turn(case: Case) -> Iterator[Found]:
    """A look stick that takes very long, or hardly any time, for a full turn."""
    for where, bind in case.entries("look"):
        if isinstance(bind, LookStickBind) and not bind.snaps and bind.sideways:
            turn_s = full_turn_s(bind)
            if turn_s is not None and not LEAST_S <= turn_s <= MOST_S:
                usual = {f"{where}.yaw_deg_s": USUAL_DEG_S}
                yield Found(
                    f"{where}.yaw_deg_s",
                    f"a full turn takes {significant(turn_s, 2)} s at the rim",
                    [usual, {**usual, **case.out(f"{where}.rim_boost", f"{where}.hold_s")}],
                )


def full_turn_s(bind: LookStickBind) -> float | None:
    """Return how long a stick at its rim turns until it has gone all round; None for one that does not turn."""
    (rate_deg_s,) = turn_rate_deg_s(bind, [1.0])
    if rate_deg_s <= 0.0:
        return None
    plain_s = 360.0 / rate_deg_s
    if plain_s <= bind.hold_s:
        return plain_s
    return bind.hold_s + (plain_s - bind.hold_s) / (1.0 + bind.rim_boost)
