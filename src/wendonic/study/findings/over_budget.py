"""Quantities of the first mode that miss the profile's own budget."""

from collections.abc import Iterator

from wendonic.study.budgets import missed_limits
from wendonic.study.finding import Case, Found, finding
from wendonic.study.quantities import QUANTITIES


@finding(240, "fault", "The profile sets itself this limit.", once=True)
def over_budget(case: Case) -> Iterator[Found]:
    """Quantities of the first mode that miss the profile's own budget."""
    limits = {name: (limit.min, limit.max) for name, limit in case.profile.budget.items()}
    for name, words in missed_limits(case.sheet, limits):
        low, high = limits[name]
        aim = high if high is not None else low
        yield Found(
            f"budget.{name}",
            f"{name}: {words}",
            f"wendonic fit PROFILE --target {name}={aim:g} --free gait.walk.brake_m_s2 (or another setting)",
            f"It is {QUANTITIES[name].definition}; the profile sets itself this limit.",
        )
