"""Smoothing that is felt as a delay."""

from collections.abc import Iterator

from wendonic.profile.schema.look_binds import MouseBind
from wendonic.study.finding import Case, Found, finding

DELAY_S = 0.05
"""Delay of half the answer from which smoothing is reported."""


@finding(210, "notice", "The hand is ahead of the body; from about 50 ms on that is felt.")
def slow_answer(case: Case) -> Iterator[Found]:
    """Smoothing that is felt as a delay."""
    half_s = case.sheet.smoothing_delay_s
    if half_s is not None and half_s > DELAY_S:
        yield Found(
            f"{case.where}.move.half_life_s",
            f"half of what a stick asks for is there after {half_s * 1000.0:.0f} ms",
            "half_life_s = 0.02",
        )
    for index, bind in enumerate(case.table.look.bind if case.table.look else ()):
        # By definition half of a displacement is there after a half-life.
        if isinstance(bind, MouseBind) and bind.half_life_s > DELAY_S:
            yield Found(
                f"{case.where}.look.bind[{index}].half_life_s",
                f"half of a swipe is there after {bind.half_life_s * 1000.0:.0f} ms",
                "half_life_s = 0.01",
                "The hand is ahead of the view; from about 50 ms on that is felt.",
            )
