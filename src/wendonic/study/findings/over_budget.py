"""Quantities of the first mode that miss the profile's own budget."""

from collections.abc import Iterator

from wendonic.errors import WendonicError
from wendonic.profile.schema.budget import Limits
from wendonic.profile.schema.gait import Gait
from wendonic.profile.units import spelled_in
from wendonic.study.bench import Bench
from wendonic.study.budgets import missed_limits
from wendonic.study.feel_sheet import sheet_of
from wendonic.study.finding import Case, Found, finding
from wendonic.study.measuring.gait_alone import started_by, stopped_by
from wendonic.study.quantities import QUANTITIES
from wendonic.study.seated import seated, seated_device

STARTING = ("reach90_s",)
STOPPING = ("stop_time_s", "stop_distance_m")
REVERSING = ("reversal_s",)


@finding(240, "fault", "The profile's own budget sets this limit.", once=True)
def over_budget(case: Case) -> Iterator[Found]:
    """Quantities of the first mode that miss the profile's own budget."""
    length = case.profile.world.length
    for name, limit in case.profile.budget.items():
        low, high = limit.min, limit.max
        try:
            own = seated(case.profile, limit.seat) if limit.seat else case.profile
            by = seated_device(case.profile, limit.seat, limit.by)
            bench = Bench(own, case.mode, case.engine, by, limit.press)
        except WendonicError as error:
            yield Found(f"budget.{name}", str(error), (), "name a device and a press that the mode has")
            continue
        words = next(
            (words for _, words in missed_limits(sheet_of(bench, [name]), {name: (low, high)}, length)), None
        )
        if words is None:
            continue
        spelled = spelled_in(length, name)
        yield Found(
            f"budget.{name}",
            f"{spelled}: {words}",
            (),
            _fit(case, name, limit),
            f"Definition: {QUANTITIES[name].definition}. The profile's own budget sets this limit.",
        )


def _fit(case: Case, name: str, limit: Limits) -> str:
    """Return the command that solves for a limit, with the settings of the gait that it depends on most as free
    settings.
    """
    length = case.profile.world.length
    factor = length.factor(QUANTITIES[name].unit)
    ends = [f"{end * factor:g}" for end in (limit.min, limit.max) if end is not None]
    sign = "=" if len(ends) == 2 else ">=" if limit.max is None else "<="
    targets = [f"{spelled_in(length, name)}{sign}{':'.join(ends)}"]
    gait = case.table.press_gaits.get(limit.press or "", case.table.gait)
    settings = _settings(case.profile.gaits_of(case.mode).get(gait), name)
    if len(settings) > 1:
        # Thrust and drag determine the top speed as well, which should stay.
        top_m_s = case.profile.gaits_of(case.mode)[gait].top_speed_m_s
        targets.append(f"{spelled_in(length, 'top_speed_m_s')}={top_m_s * length.per_m:g}")
    free = ",".join(f"gait.{gait}.{spelled_in(length, setting)}" for setting in settings) or "SETTING"
    words = ["wendonic fit PROFILE", f'--target "{",".join(targets)}"', f"--free {free}"]
    words += [f"--seat {limit.seat}"] if limit.seat else []
    words += [f"--by {limit.by}"] if limit.by else []
    words += [f"--while {limit.press}"] if limit.press else []
    return " ".join(words)


def _settings(gait: Gait | None, name: str) -> tuple[str, ...]:
    if gait is None:
        return ()
    if name in STARTING:
        return started_by(gait)
    if name in STOPPING:
        return () if gait.keeps_speed else stopped_by(gait)
    if name in REVERSING:
        return started_by(gait) if gait.drag_per_s is not None else ("brake_m_s2",)
    return ()
