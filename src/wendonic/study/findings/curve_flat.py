"""A stretch of the curve on which almost nothing changes."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding
from wendonic.study.stick_survey import STEPS, surveyed_sticks

FLAT = 0.2
CHANGES = 0.02
"""A stretch that changes by no more than this feels flat to the thumb."""

BEGINS = 0.1
"""A curve may begin this gently over this much of the travel."""


@finding(120, "notice", "At least a fifth of the stick's travel changes almost nothing.")
def curve_flat(case: Case) -> Iterator[Found]:
    """A stretch of the curve on which almost nothing changes."""
    window = round(FLAT * STEPS)
    for stick in surveyed_sticks(case):
        amounts = stick.amounts
        begins = stick.first + round(BEGINS * (stick.full - stick.first))
        changes = [(amounts[start + window] - amounts[start], start) for start in range(begins, stick.full - window)]
        if not changes or min(changes)[0] >= CHANGES * amounts[-1]:
            continue
        change, start = min(changes)
        yield Found(
            f"{stick.where}.curve",
            f"from a tilt of {start / STEPS:.2f} to {(start + window) / STEPS:.2f} "
            f"the amount changes by {change:z.3f}",
            [{f"{stick.where}.curve": {"form": "power", "exponent": 1.6}}],
        )
