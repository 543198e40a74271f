"""A path that depends on the tick rate."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Changes, Found, finding

TICK_SHARE = 0.02
"""Largest difference between paths that is not reported, as a share of their length."""


@finding(170, "notice", "The game feels different on a screen with another refresh rate.")
def depends_on_ticks(case: Case) -> Iterator[Found]:
    """A path that depends on the tick rate."""
    difference = case.value("tick_dependence")
    if difference is not None and difference > TICK_SHARE:
        measured = f"the path differs by {100.0 * difference:.1f} % between 30, 60 and 144 ticks a second"
        yield Found(case.where, measured, _fixes(case), "or tick at a fixed step: helm.fixed_ticks(frame_dt, step_s)")


def _fixes(case: Case) -> list[Changes]:
    """Return changes that make the request immediate, the fewest first."""
    move = f"{case.where}.move"
    smooths = case.table.move is not None and case.table.move.half_life_s > 0.0
    unsmoothed = {**({f"{move}.half_life_s": 0.0} if smooths else {}), **case.out(f"{move}.one_euro")}
    ramps = {
        field: {
            f"{where}.{field}": 0.0 for where, bind in case.entries("move", "throttle") if getattr(bind, field, 0.0)
        }
        for field in ("fall_s", "rise_s")
    }
    falls = ramps["fall_s"]
    tried: list[Changes] = [falls, unsmoothed, {**falls, **unsmoothed}, {**falls, **ramps["rise_s"], **unsmoothed}]
    return [changes for number, changes in enumerate(tried) if changes and changes not in tried[:number]]
