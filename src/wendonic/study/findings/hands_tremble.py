"""Hands that walk while they are held still."""

from collections.abc import Iterator

from wendonic.profile.schema.move_binds import HandsBind
from wendonic.study.finding import Case, Changes, Found, finding
from wendonic.study.thresholds import THRESHOLDS


@finding(222, "notice", "A player who holds both hands still walks off.")
def hands_tremble(case: Case) -> Iterator[Found]:
    """Hands that walk while they are held still."""
    for where, bind in case.entries("move"):
        if not isinstance(bind, HandsBind):
            continue
        tremor_mm = case.value("swing_tremor_mm")
        if tremor_mm is not None and tremor_mm < THRESHOLDS.tremor_mm:
            zone = bind.dead_zone
            form = {} if zone.uses("inner") else {f"{where}.dead_zone.form": "round"}
            wider = [
                {f"{where}.dead_zone.inner": inner, **form}
                for inner in (0.12, 0.16, 0.2, 0.25)
                if form or inner > zone.inner
            ]
            steady: Changes = {f"{where}.steady_half_life_s": max(0.08, bind.steady_half_life_s)}
            yield Found(
                f"{where}.dead_zone.inner",
                f"a tremor of {tremor_mm:.1f} mm walks; tracked hands that are held still reach "
                f"{THRESHOLDS.tremor_mm:g} mm",
                [*wider, {f"{where}.dead_zone.inner": max(0.25, zone.inner), **form, **steady}],
            )
        return
