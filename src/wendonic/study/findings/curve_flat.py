"""A stretch of the curve on which nothing changes."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding
from wendonic.study.stick_survey import STEPS, surveyed_sticks

FLAT = 0.2


@finding(120, "notice", "A fifth of the stick's travel or more changes nothing.")
def curve_flat(case: Case) -> Iterator[Found]:
    """A stretch of the curve on which nothing changes."""
    window = round(FLAT * STEPS)
    for stick in surveyed_sticks(case):
        amounts = stick.amounts
        for start in range(stick.first, stick.full - window):
            if amounts[start + window] - amounts[start] < 1e-9:
                yield Found(
                    f"{stick.where}.curve",
                    f"from a tilt of {start / STEPS:.2f} to {(start + window) / STEPS:.2f} nothing changes",
                    'curve = { form = "power", exponent = 1.6 }',
                )
                break
