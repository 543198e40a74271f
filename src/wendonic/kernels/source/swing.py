"""Walking by swinging the hands: from the way of each hand to an amount."""

from typing import NamedTuple

from wendonic.kernels.half_life import half_life_factor
from wendonic.kernels.row import Row
from wendonic.kernels.source.stick import PLAIN_STICK, StickTuning, stick_output
from wendonic.kernels.vector import Vec2, Vec3, length3

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
    tilt: StickTuning


class HandState(NamedTuple):
    """The smoothed velocity of a hand (m/s), and how long ago (s) its last pose came."""

    velocity: Vec3
    since_s: float


class SwingState(NamedTuple):
    """The amount and the raw one, and what both hands do."""

    amount: float
    raw: float
    left: HandState
    right: HandState


NO_SWING = SwingTuning(1.0, 1.0, 0.0, 0.0, PLAIN_STICK)
HAND_AT_REST = HandState(Vec3(0.0, 0.0, 0.0), 0.0)
SWING_AT_REST = SwingState(0.0, 0.0, HAND_AT_REST, HAND_AT_REST)


def component_speed(moved: float, since_s: float) -> float:
    """Return the speed (m/s) along one axis; a tick of next to no length must not make it infinite.

    >>> component_speed(0.02, 0.01)
    2.0
    """
    return min(max(moved / since_s, -FASTEST_M_S), FASTEST_M_S)


def hand_velocity(hand: HandState, moved: Vec3, counts: float, half_life_s: float, dt: float) -> HandState:
    """Return the state of a hand after `dt` seconds; it rests while it does not squeeze.

    `moved` is how far it moved since the last tick (m), `counts` 0 while that does not count, 1 while it does, 2 in a
    tick with a new pose. It moved since the last pose, however many ticks ago that was; between poses the velocity
    stands, for as long as STILL_S. A trembling hand goes to and fro, so its velocities cancel where distances would
    add up.

    >>> hand_velocity(HAND_AT_REST, Vec3(0.0, 0.0, 0.02), 2.0, 0.01, 0.01).velocity.z
    1.0
    >>> between = hand_velocity(HandState(Vec3(0.0, 0.0, 1.0), 0.0), Vec3(0.0, 0.0, 0.0), 1.0, 0.01, 0.01)
    >>> between.since_s, hand_velocity(between, Vec3(0.0, 0.0, 0.02), 2.0, 0.0, 0.01).velocity.z
    (0.01, 1.0)
    """
    if counts <= 0.0:
        return HAND_AT_REST
    since_s = hand.since_s + dt
    if counts < 2.0 and since_s <= STILL_S:
        return HandState(hand.velocity, since_s)
    x = component_speed(moved.x, since_s)
    y = component_speed(moved.y, since_s)
    z = component_speed(moved.z, since_s)
    left = half_life_factor(half_life_s, since_s)
    was = hand.velocity
    return HandState(Vec3(x + (was.x - x) * left, y + (was.y - y) * left, z + (was.z - z) * left), 0.0)


def swing_output(tuning: SwingTuning, tables: Row, state: SwingState, raw: Row, dt: float) -> SwingState:
    """Return the new state after `dt` seconds of swinging.

    `raw` has for the left hand, then the right one, how far it moved (m: three axes) and whether that counts, see
    `hand_velocity`. With l and r the speeds of both, the raw amount is (max(l, r) + (both_boost - 1) min(l, r)) /
    full_m_s, at most 1: one hand alone walks, both together walk faster by `both_boost`. Then dead zone and curve.
    The amount rises at once and falls by half every `release_half_life_s`, which also bridges the moment at either
    end of a swing in which a hand stands.

    >>> swing = SwingTuning(2.0, 1.5, 0.0, 0.25, PLAIN_STICK)
    >>> one = swing_output(swing, (), SWING_AT_REST, (0.0, 0.0, 0.01, 2.0, 0.0, 0.0, 0.0, 0.0), 0.01)
    >>> both = swing_output(swing, (), SWING_AT_REST, (0.0, 0.0, 0.01, 2.0, 0.0, 0.01, 0.0, 2.0), 0.01)
    >>> one.amount, both.amount, swing_output(swing, (), both, (0.0,) * 8, 0.25).amount
    (0.5, 0.75, 0.375)
    """
    half_life_s = tuning.steady_half_life_s
    left = hand_velocity(state.left, Vec3(raw[0], raw[1], raw[2]), raw[3], half_life_s, dt)
    right = hand_velocity(state.right, Vec3(raw[4], raw[5], raw[6]), raw[7], half_life_s, dt)
    left_speed = length3(left.velocity)
    right_speed = length3(right.velocity)
    less = min(left_speed, right_speed)
    more = max(left_speed, right_speed)
    amount_raw = min((more + (tuning.both_boost - 1.0) * less) / tuning.full_m_s, 1.0)
    amount = stick_output(tuning.tilt, tables, Vec2(0.0, state.amount), 0.0, amount_raw).y
    falling = state.amount * half_life_factor(tuning.release_half_life_s, dt)
    # What fades for ever is rest.
    return SwingState(max(amount, falling if falling > 1e-3 else 0.0), amount_raw, left, right)
