"""Looking by a stick or by keys: a rate that may ease in, and grow at the rim."""

import math
from typing import NamedTuple

from wendonic.kernels.row import Row
from wendonic.kernels.source.stick import PLAIN_STICK, StickTuning, centred, stick_output
from wendonic.kernels.vector import ZERO2, Vec2

AT_RIM = 1.0 - 1e-9
"""Shaped length that counts as full tilt."""


class StickLookTuning(NamedTuple):
    """Dead zone and curve; `eases` is 1 if it eases in over `ease_s`, `boosts` if a stick that has been at the rim
    for `hold_s` gets `rim_boost` (share of the rate) more; `snaps` if it turns at once from the tilt `snap_at` on,
    and again after it has been back at `rearm_at`.
    """

    tilt: StickTuning
    eases: int
    boosts: int
    snaps: int
    ease_s: float
    rim_boost: float
    hold_s: float
    snap_at: float
    rearm_at: float


class StickLookState(NamedTuple):
    """The share of the full rate that it has reached, and for how long it has been at the rim; with snap turns,
    `amount` is 1 after a turn until it may turn again; and what a stick with `release` requested a tick ago.
    """

    amount: float
    rim_s: float
    requested: Vec2


STICK_LOOK = StickLookTuning(PLAIN_STICK, 0, 0, 0, 0.0, 0.0, 0.0, 0.0, 0.0)
STICK_LOOK_AT_REST = StickLookState(0.0, 0.0, ZERO2)


def eased(amount: float, wanted: float, ease_s: float, dt: float) -> tuple[float, float]:
    """Return the amount at the end of a tick, and its mean over the tick; it rises at 1 / ease_s and falls at once.

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


def boosted_s(rim_s: float, hold_s: float, ease_s: float) -> float:
    """Return the integral (s) of the boost of a stick that has been at the rim for a time: none up to `hold_s`, then
    easing in.

    >>> boosted_s(1.0, 0.5, 0.0), boosted_s(0.75, 0.5, 0.5), boosted_s(0.25, 0.5, 0.5)
    (0.5, 0.0625, 0.0)
    """
    past_s = rim_s - hold_s
    if past_s <= 0.0:
        return 0.0
    if past_s >= ease_s:
        return past_s - 0.5 * ease_s
    return 0.5 * past_s * past_s / ease_s


class StickLookOutput(NamedTuple):
    """The share of its full rate that a stick gives, right and up."""

    right: float
    up: float


def stick_rates(
    tuning: StickLookTuning, tables: Row, state: StickLookState, right: float, up: float, dt: float
) -> tuple[StickLookState, StickLookOutput]:
    """Return the new state and the share of its full rate that a stick gives, as the mean over the tick.

    Dead zone and curve as for walking, see `stick_output`, its release included. The amount eases in over `ease_s`
    and falls at once. A stick that has been at the rim for `hold_s` gives `rim_boost` of its rate more, eased in over
    `ease_s` too. Both are integrated in closed form, so a turn does not depend on the tick rate.

    >>> boosted = STICK_LOOK._replace(boosts=1, rim_boost=0.5, hold_s=0.5)
    >>> stick_rates(boosted, (), STICK_LOOK_AT_REST, 1.0, 0.0, 1.0)[1]
    StickLookOutput(right=1.25, up=0.0)
    """
    length, right, up = stick_output(tuning.tilt, tables, state.requested, right, up)
    requested = Vec2(right, up) if tuning.tilt.dead_zone.releases > 0 else ZERO2
    if tuning.eases == 0 and tuning.boosts == 0:
        return StickLookState(0.0, 0.0, requested), StickLookOutput(right, up)
    if length == 0.0:
        return STICK_LOOK_AT_REST, StickLookOutput(0.0, 0.0)
    amount, rim_s, _ = state
    amount, mean = eased(amount, length, tuning.ease_s, dt)
    if tuning.boosts > 0:
        hold_s, ease_s = tuning.hold_s, tuning.ease_s
        if length >= tuning.tilt.curve.ceiling * AT_RIM:
            before_s = boosted_s(rim_s, hold_s, ease_s)
            mean *= 1.0 + tuning.rim_boost * (boosted_s(rim_s + dt, hold_s, ease_s) - before_s) / dt
            rim_s = min(rim_s + dt, hold_s + ease_s)
        else:
            rim_s = 0.0
    return StickLookState(amount, rim_s, requested), StickLookOutput(right * mean / length, up * mean / length)


def key_rates(
    tuning: StickLookTuning, state: StickLookState, right: float, up: float, dt: float
) -> tuple[StickLookState, StickLookOutput]:
    """Return the new state and the shares of their full rates that held keys give, as the mean over the tick: all of
    each, easing in over `ease_s` from the first press on.

    >>> soft = STICK_LOOK._replace(eases=1, ease_s=0.5)
    >>> key_rates(soft, STICK_LOOK_AT_REST, -1.0, 1.0, 0.5)
    (StickLookState(amount=1.0, rim_s=0.0, requested=Vec2(x=0.0, y=0.0)), StickLookOutput(right=-0.5, up=0.5))
    """
    if tuning.eases == 0:
        return STICK_LOOK_AT_REST, StickLookOutput(right, up)
    if right == 0.0 and up == 0.0:
        return STICK_LOOK_AT_REST, StickLookOutput(0.0, 0.0)
    amount, mean = eased(state.amount, 1.0, tuning.ease_s, dt)
    return StickLookState(amount, 0.0, ZERO2), StickLookOutput(right * mean, up * mean)


def snap_turn(
    tuning: StickLookTuning, tables: Row, state: StickLookState, right: float, up: float
) -> tuple[StickLookState, float]:
    """Return the new state and the snap turn of a stick: 1 to the right, -1 to the left, 0 for none.

    It turns once the sideways tilt, after gate and centre only, reaches `snap_at`, and again only after it has been
    back at `rearm_at` or on the other side.

    >>> snap = STICK_LOOK._replace(snaps=1, snap_at=0.75, rearm_at=0.25)
    >>> state, first = snap_turn(snap, (), STICK_LOOK_AT_REST, -0.8, 0.0)
    >>> held, second = snap_turn(snap, (), state, -0.5, 0.0)
    >>> back, _ = snap_turn(snap, (), held, 0.25, 0.0)
    >>> first, second, snap_turn(snap, (), back, 1.0, 0.0)[1]
    (-1.0, 0.0, 1.0)
    >>> snap_turn(snap, (), state, 0.9, 0.0)[1]
    1.0
    """
    tilt = centred(tuning.tilt, tables, right, up).x
    made = state.amount
    side = 0.0
    if abs(tilt) <= tuning.rearm_at or tilt * made < 0.0:
        made = 0.0
    if made == 0.0 and abs(tilt) >= tuning.snap_at:
        made = side = math.copysign(1.0, tilt)
    return StickLookState(made, 0.0, ZERO2), side
