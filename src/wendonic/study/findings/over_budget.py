"""Quantities of the first mode that miss the profile's own budget."""

from collections.abc import Iterator

from wendonic.errors import WendonicError
from wendonic.profile.units import spelled_in
from wendonic.study.bench import Bench
from wendonic.study.budgets import missed_limits
from wendonic.study.feel_sheet import sheet_of
from wendonic.study.finding import Case, Found, finding
from wendonic.study.quantities import QUANTITIES

SOLVED_BY = {
    "reach90_s": "accel_m_s2",
    "reversal_s": "brake_m_s2",
    "stop_time_s": "brake_m_s2",
    "stop_distance_m": "brake_m_s2",
}
"""The setting of a gait that a quantity depends on most."""


@finding(240, "fault", "The profile's own budget sets this limit.", once=True)
def over_budget(case: Case) -> Iterator[Found]:
    """Quantities of the first mode that miss the profile's own budget."""
    length = case.profile.world.length
    for name, limit in case.profile.budget.items():
        low, high = limit.min, limit.max
        try:
            bench = Bench(case.profile, case.mode, case.engine, limit.by, limit.press)
        except WendonicError as error:
            yield Found(f"budget.{name}", str(error), (), "name a device and a press that the mode has")
            continue
        words = next(
            (words for _, words in missed_limits(sheet_of(bench, [name]), {name: (low, high)}, length)), None
        )
        if words is None:
            continue
        aim = (high if high is not None else low or 0.0) * length.factor(QUANTITIES[name].unit)
        spelled = spelled_in(length, name)
        setting = SOLVED_BY.get(name)
        free = f"gait.{case.table.gait}.{spelled_in(length, setting)}" if setting else "SETTING"
        yield Found(
            f"budget.{name}",
            f"{spelled}: {words}",
            (),
            f"wendonic fit PROFILE --target {spelled}={aim:g} --free {free}",
            f"It is {QUANTITIES[name].definition}; the profile's own budget sets this limit.",
        )
