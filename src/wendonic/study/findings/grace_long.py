"""A grace so long that the player is seen to jump from the air."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding

GRACE_S = 0.3


@finding(205, "notice", "Players visibly jump from thin air.")
def grace_long(case: Case) -> Iterator[Found]:
    """A grace so long that the player is seen to jump from the air."""
    grace_s = case.value("jump_grace_s")
    if grace_s is not None and grace_s > GRACE_S:
        where = f"{case.where}.press.{case.jump.name}.grace_s"
        yield Found(where, f"a press still jumps {grace_s:.2f} s after leaving the ground", [{where: 0.1}])
