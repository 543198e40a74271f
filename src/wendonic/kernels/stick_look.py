"""Looking by a stick: a rate that may ease in, and grow at the rim."""

import math
from typing import NamedTuple

from wendonic.kernels.kernel import Row, kernel
from wendonic.kernels.stick import USUAL_FORM, StickForm, formed

AT_RIM = 1.0 - 1e-9
"""Shaped length that counts as full tilt."""


class StickLookTuning(NamedTuple):
    """Dead zone and curve; then `ease_s`, `rim_boost` (share of the rate) and `hold_s`; for snap turns, the tilt from
    which one turns (0: none does) and the one at which it may turn again.
    """

    inner: float
    outer: float
    curve_form: int
    curve_exponent: float
    form: StickForm
    ease_s: float
    rim_boost: float
    hold_s: float
    snap_at: float
    rearm_at: float


class StickLookState(NamedTuple):
    """How much of full rate it has come to, and for how long it has been at the rim; under snap turns, 1 in `amount`
    after one has been made, until it may turn again.
    """

    amount: float
    rim_s: float


STICK_LOOK = StickLookTuning(0.0, 1.0, 0, 1.0, USUAL_FORM, 0.0, 0.0, 0.0, 0.0, 0.0)
STICK_LOOK_AT_REST = StickLookState(0.0, 0.0)


@kernel
def eased(amount: float, wanted: float, ease_s: float, dt: float) -> tuple[float, float]:
    """Return the amount at the end of a tick, and its mean over the tick, rising at 1 / ease_s and falling at once.

    >>> eased(0.0, 1.0, ease_s=0.5, dt=0.25), eased(0.0, 0.5, ease_s=0.5, dt=0.5), eased(1.0, 0.25, 0.5, 0.1)
    ((0.5, 0.25), (0.5, 0.375), (0.25, 0.25))
    """
    rising_s = (wanted - amount) * ease_s
    if rising_s <= 0.0:
        return wanted, wanted
    if rising_s >= dt:
        end = amount + dt / ease_s
        return end, 0.5 * (amount + end)
    return wanted, wanted - 0.5 * (wanted - amount) * rising_s / dt


@kernel
def boosted_s(rim_s: float, hold_s: float, ease_s: float) -> float:
    """Return for how many seconds' worth of full boost a stick has been at the rim: none up to `hold_s`, then eased
    in.

    >>> boosted_s(1.0, 0.5, 0.0), boosted_s(0.75, 0.5, 0.5), boosted_s(0.25, 0.5, 0.5)
    (0.5, 0.0625, 0.0)
    """
    past_s = rim_s - hold_s
    if past_s <= 0.0:
        return 0.0
    if past_s >= ease_s:
        return past_s - 0.5 * ease_s
    return 0.5 * past_s * past_s / ease_s


@kernel
def tilted(
    tuning: StickLookTuning, tables: Row, state: StickLookState, right: float, up: float, dt: float
) -> tuple[StickLookState, float, float]:
    """Return the new state and how much of its full rate a stick gives, right and up, as the mean over the tick.

    Dead zone and curve as for walking, see `formed`. The amount eases in over `ease_s` and falls at once. A stick
    that has been at the rim for `hold_s` gives `rim_boost` of its rate more, eased in over `ease_s` too. Both are
    integrated in closed form, so a turn does not depend on how it is cut into ticks.

    >>> tilted(STICK_LOOK._replace(rim_boost=0.5, hold_s=0.5), (), STICK_LOOK_AT_REST, 1.0, 0.0, 1.0)[1:]
    (1.25, 0.0)
    """
    inner, outer, curve_form, curve_exponent, form, ease_s, rim_boost, hold_s, _, _ = tuning
    amount, rim_s = state
    right, up = formed(right, up, inner, outer, curve_form, curve_exponent, form, 0, tables)
    length = math.hypot(right, up)
    if length == 0.0:
        return STICK_LOOK_AT_REST, 0.0, 0.0
    amount, mean = eased(amount, length, ease_s, dt)
    if rim_boost > 0.0:
        if length >= form.ceiling * AT_RIM:
            before_s = boosted_s(rim_s, hold_s, ease_s)
            mean *= 1.0 + rim_boost * (boosted_s(rim_s + dt, hold_s, ease_s) - before_s) / dt
            rim_s = min(rim_s + dt, hold_s + ease_s)
        else:
            rim_s = 0.0
    return StickLookState(amount, rim_s), right * mean / length, up * mean / length


@kernel
def snapped(
    tuning: StickLookTuning, tables: Row, state: StickLookState, right: float, up: float
) -> tuple[StickLookState, float]:
    """Return the new state and which way a stick turns at once: 1 to the right, -1 to the left, 0 not at all.

    It turns once the shaped tilt sideways is at `snap_at`, and again only after it was back at `rearm_at`.

    >>> snap = STICK_LOOK._replace(snap_at=0.75, rearm_at=0.25)
    >>> state, first = snapped(snap, (), STICK_LOOK_AT_REST, -0.8, 0.0)
    >>> held, second = snapped(snap, (), state, -0.5, 0.0)
    >>> back, _ = snapped(snap, (), held, 0.25, 0.0)
    >>> first, second, snapped(snap, (), back, 1.0, 0.0)[1]
    (-1.0, 0.0, 1.0)
    """
    inner, outer, curve_form, curve_exponent, form, _, _, _, snap_at, rearm_at = tuning
    right, _ = formed(right, up, inner, outer, curve_form, curve_exponent, form, 0, tables)
    if state.amount > 0.0:
        return (STICK_LOOK_AT_REST if abs(right) <= rearm_at else state), 0.0
    if abs(right) < snap_at:
        return state, 0.0
    return StickLookState(1.0, 0.0), math.copysign(1.0, right)
