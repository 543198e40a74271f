"""Walking by swinging the hands: from the way of each hand to an amount."""

import math
from typing import NamedTuple

from wendonic.kernels.kernel import Row, called_kernel
from wendonic.kernels.smoothing import half_life_factor
from wendonic.kernels.stick import StickForm, formed

FASTEST_M_S = 1000.0
"""No hand is as fast, on any axis."""

STILL_S = 0.1
"""A hand whose poses say nothing new for so long stands still."""


class SwingTuning(NamedTuple):
    """The numbers of one such source: `full_m_s` is the speed of one hand that asks for everything, `both_boost` how
    much more both hands give than one of them; the half-lives are those of a hand's velocity while it squeezes, and
    of the amount once it falls. Then dead zone and curve.
    """

    full_m_s: float
    both_boost: float
    steady_half_life_s: float
    release_half_life_s: float
    inner: float
    outer: float
    curve_form: int
    curve_exponent: float
    form: StickForm


class HandState(NamedTuple):
    """The smoothed velocity of a hand (m/s), and how long ago (s) its last pose came."""

    x: float
    y: float
    z: float
    since_s: float


class SwingState(NamedTuple):
    """The amount and the raw one, and what both hands do."""

    amount: float
    raw: float
    left: HandState
    right: HandState


HAND_AT_REST = HandState(0.0, 0.0, 0.0, 0.0)
SWING_AT_REST = SwingState(0.0, 0.0, HAND_AT_REST, HAND_AT_REST)


@called_kernel
def hand_velocity(hand: HandState, sample: Row, start: int, half_life_s: float, dt: float) -> HandState:
    """Return the state of a hand after `dt` seconds; it rests while it does not squeeze.

    The sample has its way since the last tick, then 0 while it does not count, 1 while it does, 2 in a tick with a
    new pose. A way was gone since the last pose, however many ticks ago that was; between poses the velocity stands,
    for as long as STILL_S. A trembling hand goes to and fro, so its velocities cancel where its ways would add up.

    >>> hand_velocity(HAND_AT_REST, (0.0, 0.0, 0.02, 2.0), 0, 0.01, 0.01).z
    1.0
    >>> between = hand_velocity(HandState(0.0, 0.0, 1.0, 0.0), (0.0, 0.0, 0.0, 1.0), 0, 0.01, 0.01)
    >>> between, hand_velocity(between, (0.0, 0.0, 0.02, 2.0), 0, 0.0, 0.01).z
    (HandState(x=0.0, y=0.0, z=1.0, since_s=0.01), 1.0)
    """
    counts = sample[start + 3]
    if counts <= 0.0:
        return HAND_AT_REST
    since_s = hand.since_s + dt
    if counts < 2.0 and since_s <= STILL_S:
        return HandState(hand.x, hand.y, hand.z, since_s)
    # A tick of next to no length must not make it infinite.
    x = min(max(sample[start] / since_s, -FASTEST_M_S), FASTEST_M_S)
    y = min(max(sample[start + 1] / since_s, -FASTEST_M_S), FASTEST_M_S)
    z = min(max(sample[start + 2] / since_s, -FASTEST_M_S), FASTEST_M_S)
    left = half_life_factor(half_life_s, since_s)
    return HandState(x + (hand.x - x) * left, y + (hand.y - y) * left, z + (hand.z - z) * left, 0.0)


@called_kernel
def swung(tuning: SwingTuning, tables: Row, state: SwingState, sample: Row, start: int, dt: float) -> SwingState:
    """Return the new state after `dt` seconds of swinging; the hands' numbers begin at `start` of the sample.

    Each hand has the way it went (m: three axes) and whether it counts, see `hand_velocity`. With l and r the speeds
    along their swings, the raw amount is (max(l, r) + (both_boost - 1) min(l, r)) / full_m_s, at most 1: one hand
    alone walks, both together walk faster by `both_boost`. Then dead zone and curve. The amount rises at once and
    falls by half every `release_half_life_s`, which also bridges the moment at either end of a swing in which a hand
    stands.

    >>> from wendonic.kernels.stick import USUAL_FORM
    >>> swing = SwingTuning(2.0, 1.5, 0.0, 0.25, 0.0, 1.0, 0, 1.0, USUAL_FORM)
    >>> one = swung(swing, (), SWING_AT_REST, (0.0, 0.0, 0.01, 2.0, 0.0, 0.0, 0.0, 0.0), 0, 0.01)
    >>> both = swung(swing, (), SWING_AT_REST, (0.0, 0.0, 0.01, 2.0, 0.0, 0.01, 0.0, 2.0), 0, 0.01)
    >>> one.amount, both.amount, swung(swing, (), both, (0.0,) * 8, 0, 0.25).amount
    (0.5, 0.75, 0.375)
    """
    if dt <= 0.0:
        return state
    left = hand_velocity(state.left, sample, start, tuning.steady_half_life_s, dt)
    right = hand_velocity(state.right, sample, start + 4, tuning.steady_half_life_s, dt)
    left_speed = math.sqrt(left.x * left.x + left.y * left.y + left.z * left.z)
    right_speed = math.sqrt(right.x * right.x + right.y * right.y + right.z * right.z)
    less, more = min(left_speed, right_speed), max(left_speed, right_speed)
    raw = min((more + (tuning.both_boost - 1.0) * less) / tuning.full_m_s, 1.0)
    was_out = 1 if state.amount > 0.0 else 0
    _, amount = formed(
        0.0, raw, tuning.inner, tuning.outer, tuning.curve_form, tuning.curve_exponent, tuning.form, was_out, tables
    )
    falling = state.amount * half_life_factor(tuning.release_half_life_s, dt)
    # What fades for ever is rest.
    return SwingState(max(amount, falling if falling > 1e-3 else 0.0), raw, left, right)
