"""A path, or a tap, that depends on the tick rate."""

from collections.abc import Iterator

from wendonic.profile.schema.keyed import Ramped
from wendonic.study.finding import Case, Changes, Found, finding

TICK_SHARE = 0.02
"""Largest difference between paths that is not reported, as a share of their length."""

TAP_SHARE = 0.1
"""The same for a tap, of which one tick of a ramp is a larger share."""


@finding(170, "notice", "The game feels different on a screen with another refresh rate.")
def depends_on_ticks(case: Case) -> Iterator[Found]:
    """A path, or a tap, that depends on the tick rate."""
    difference = case.value("tick_dependence")
    # A stick is pushed and springs back; only what is switched on and off is tapped.
    switched = any(isinstance(bind, Ramped) for _, bind in case.entries("move", "throttle"))
    tap_difference = case.value("tap_dependence") if switched else None
    if difference is not None and difference > TICK_SHARE:
        measured = f"the path differs by {100.0 * difference:.1f} % between 30, 60 and 144 ticks a second"
    elif tap_difference is not None and tap_difference > TAP_SHARE:
        tap = f"a tap of {case.thresholds.tap_s:g} s"
        measured = (
            f"the distance of {tap} differs by {100.0 * tap_difference:.0f} % between 30, 60 and 120 ticks a second"
        )
    else:
        return
    yield Found(case.where, measured, _fixes(case), "or tick at a fixed step: helm.fixed_ticks(frame_dt, step_s)")


def _fixes(case: Case) -> list[Changes]:
    """Return what makes the request change at once, the fewest changes first."""
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
