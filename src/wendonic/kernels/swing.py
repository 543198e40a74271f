"""Walking by swinging the hands: from the way of each hand to an amount."""

import math
from typing import NamedTuple

from wendonic.kernels.kernel import Row, called_kernel
from wendonic.kernels.smoothing import half_life_factor
from wendonic.kernels.stick import StickForm, formed

FASTEST_M_S = 1000.0
"""No hand is as fast, on any axis."""


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


class SwingState(NamedTuple):
    """The amount and the raw one, and the smoothed velocity of the left and the right hand (m/s)."""

    amount: float
    raw: float
    left: tuple[float, float, float]
    right: tuple[float, float, float]


SWING_AT_REST = SwingState(0.0, 0.0, (0.0, 0.0, 0.0), (0.0, 0.0, 0.0))


@called_kernel
def hand_velocity(
    velocity: tuple[float, float, float], sample: Row, start: int, left: float, dt: float
) -> tuple[float, float, float]:
    """Return the smoothed velocity (m/s) of a hand, of which `left` (0..1) is kept; none while it does not squeeze.

    A trembling hand goes to and fro, so its velocities cancel where its ways would add up.

    >>> hand_velocity((0.0, 0.0, 0.0), (0.0, 0.0, 0.02, 1.0), 0, 0.5, 0.01)
    (0.0, 0.0, 1.0)
    >>> hand_velocity((0.0, 0.0, 1.0), (0.0, 0.0, 0.0, 0.0), 0, 0.5, 0.01)
    (0.0, 0.0, 0.0)
    """
    if sample[start + 3] <= 0.0:
        return 0.0, 0.0, 0.0
    # A tick of next to no length must not make it infinite.
    x = min(max(sample[start] / dt, -FASTEST_M_S), FASTEST_M_S)
    y = min(max(sample[start + 1] / dt, -FASTEST_M_S), FASTEST_M_S)
    z = min(max(sample[start + 2] / dt, -FASTEST_M_S), FASTEST_M_S)
    return x + (velocity[0] - x) * left, y + (velocity[1] - y) * left, z + (velocity[2] - z) * left


@called_kernel
def swung(tuning: SwingTuning, tables: Row, state: SwingState, sample: Row, start: int, dt: float) -> SwingState:
    """Return the new state after `dt` seconds of swinging; the hands' numbers begin at `start` of the sample.

    Each hand has the way it went (m: three axes) and 1 while it squeezes and is seen. With l and r the speeds along
    their swings, the raw amount is (max(l, r) + (both_boost - 1) min(l, r)) / full_m_s, at most 1: one hand alone
    walks, both together walk faster by `both_boost`. Then dead zone and curve. The amount rises at once and falls by
    half every `release_half_life_s`, which also bridges the moment at either end of a swing in which a hand stands.

    >>> from wendonic.kernels.stick import USUAL_FORM
    >>> swing = SwingTuning(2.0, 1.5, 0.0, 0.25, 0.0, 1.0, 0, 1.0, USUAL_FORM)
    >>> one = swung(swing, (), SWING_AT_REST, (0.0, 0.0, 0.01, 1.0, 0.0, 0.0, 0.0, 0.0), 0, 0.01)
    >>> both = swung(swing, (), SWING_AT_REST, (0.0, 0.0, 0.01, 1.0, 0.0, 0.01, 0.0, 1.0), 0, 0.01)
    >>> one.amount, both.amount, swung(swing, (), both, (0.0,) * 8, 0, 0.25).amount
    (0.5, 0.75, 0.375)
    """
    if dt <= 0.0:
        return state
    kept = half_life_factor(tuning.steady_half_life_s, dt)
    left = hand_velocity(state.left, sample, start, kept, dt)
    right = hand_velocity(state.right, sample, start + 4, kept, dt)
    left_speed = math.sqrt(left[0] * left[0] + left[1] * left[1] + left[2] * left[2])
    right_speed = math.sqrt(right[0] * right[0] + right[1] * right[1] + right[2] * right[2])
    less, more = min(left_speed, right_speed), max(left_speed, right_speed)
    raw = min((more + (tuning.both_boost - 1.0) * less) / tuning.full_m_s, 1.0)
    was_out = 1 if state.amount > 0.0 else 0
    _, amount = formed(
        0.0, raw, tuning.inner, tuning.outer, tuning.curve_form, tuning.curve_exponent, tuning.form, was_out, tables
    )
    falling = state.amount * half_life_factor(tuning.release_half_life_s, dt)
    # What fades for ever is rest.
    return SwingState(max(amount, falling if falling > 1e-3 else 0.0), raw, left, right)
