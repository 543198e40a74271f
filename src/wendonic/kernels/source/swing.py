"""Walking by swinging the hands: from the distance that each hand has moved to an amount."""

from typing import NamedTuple

from wendonic.kernels.half_life import half_life_factor
from wendonic.kernels.row import Row
from wendonic.kernels.source.stick import PLAIN_STICK, StickTuning, stick_output
from wendonic.kernels.vector import Vec2, Vec3, length3

FASTEST_M_S = 1000.0
"""No hand is faster, on any axis."""

STILL_S = 0.1
"""A hand whose pose does not change for this time counts as still."""

END_OF_SWING_S = 0.35
"""How long a hand may be slow at either end of a swing and still count as swinging: one swing there and back in 2 s.
"""


class SwingTuning(NamedTuple):
    """The numbers of one such source: `full_m_s` is the speed at which a hand gives its full amount, `both_boost` how
    much more both hands give than one; the half-lives are those of a hand's velocity while it counts, and of the
    amount when it falls; dead zone and curve apply to each hand.
    """

    full_m_s: float
    both_boost: float
    steady_half_life_s: float
    release_half_life_s: float
    tilt: StickTuning


class HandState(NamedTuple):
    """The smoothed velocity of a hand (m/s), and the time (s) since its last pose."""

    velocity: Vec3
    since_s: float


class Swings(NamedTuple):
    """The maxima of this swing and of the last one, the minimum between them while the amount falls (`turns` is 1),
    and for how long (s) almost nothing has been requested.
    """

    most: float
    last: float
    least: float
    turns: float
    slow_s: float


class SwingState(NamedTuple):
    """The amount and the raw one, the states of both hands, and how they swing."""

    amount: float
    raw: float
    left: HandState
    right: HandState
    swings: Swings


NO_SWING = SwingTuning(1.0, 1.0, 0.0, 0.0, PLAIN_STICK)
HAND_AT_REST = HandState(Vec3(0.0, 0.0, 0.0), 0.0)
NO_SWINGS = Swings(0.0, 0.0, 0.0, 0.0, 0.0)
SWING_AT_REST = SwingState(0.0, 0.0, HAND_AT_REST, HAND_AT_REST, NO_SWINGS)


def component_speed(moved: float, since_s: float) -> float:
    """Return the speed (m/s) along one axis, limited so that a very short tick does not make it infinite.

    >>> component_speed(0.02, 0.01)
    2.0
    """
    return min(max(moved / since_s, -FASTEST_M_S), FASTEST_M_S)


def hand_velocity(hand: HandState, moved: Vec3, counts: float, half_life_s: float, dt: float) -> HandState:
    """Return the state of a hand after `dt` seconds; it rests while it does not squeeze.

    `moved` is how far it moved since the last tick (m), `counts` 0 while that does not count, 1 while it does, 2 in a
    tick with a new pose. The distance is since the last pose, however many ticks ago that was; between poses the
    velocity is kept, for up to STILL_S. The velocities of a trembling hand cancel, whereas its distances would add
    up.

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


def swings_after(state: Swings, amount: float, dt: float) -> Swings:
    """Return the state of the swings after `dt` seconds in which the hands request `amount`.

    A swing ends when the amount falls below 0.35 of its maximum, and the next one begins when it rises again by a
    tenth of that. An amount below 0.3 of the maximum counts as slow.

    >>> once = swings_after(NO_SWINGS, 0.8, 0.1)
    >>> swings_after(swings_after(once, 0.1, 0.1), 0.5, 0.1)
    Swings(most=0.5, last=0.8, least=0.0, turns=0.0, slow_s=0.0)
    """
    most, last, least, turns, slow_s = state
    if turns > 0.0 and amount > least + 0.1 * most:
        last, most, least, turns = most, amount, 0.0, 0.0
    elif amount > most:
        most = amount
        turns = 0.0
    elif amount < 0.35 * most:
        least = min(least, amount) if turns > 0.0 else amount
        turns = 1.0
    slow_s = slow_s + dt if amount < 0.3 * max(most, last) else 0.0
    if slow_s > END_OF_SWING_S:
        return NO_SWINGS
    return Swings(most, last, least, turns, slow_s)


def of_both(left: float, right: float, both_boost: float) -> float:
    """Return the request of two hands together: the full amount for both, and 1 / both_boost for one alone.

    >>> of_both(1.0, 1.0, 1.5), of_both(0.75, 0.0, 1.5)
    (1.0, 0.5)
    """
    return (max(left, right) + (both_boost - 1.0) * min(left, right)) / both_boost


def swing_output(tuning: SwingTuning, tables: Row, state: SwingState, raw: Row, dt: float) -> SwingState:
    """Return the new state after `dt` seconds of swinging.

    `raw` has for the left hand, then the right one, how far it moved (m: three axes) and whether that counts, see
    `hand_velocity`. With l and r the speeds of both over full_m_s, each at most 1 and through dead zone and curve,
    the amount is (max(l, r) + (both_boost - 1) min(l, r)) / both_boost: both together give full speed, and one hand
    alone 1 / both_boost of that, at every swing. The amount rises at once, keeps the level of the last swings at
    either end of a swing, where a hand stops for a moment, and halves every `release_half_life_s`.

    >>> swing = SwingTuning(2.0, 1.5, 0.0, 0.25, PLAIN_STICK)
    >>> one = swing_output(swing, (), SWING_AT_REST, (0.0, 0.0, 0.01, 2.0, 0.0, 0.0, 0.0, 0.0), 0.01)
    >>> both = swing_output(swing, (), SWING_AT_REST, (0.0, 0.0, 0.01, 2.0, 0.0, 0.01, 0.0, 2.0), 0.01)
    >>> one.amount, both.amount, swing_output(swing, (), both, (0.0,) * 8, 0.25).amount
    (0.3333333333333333, 0.5, 0.25)
    """
    half_life_s = tuning.steady_half_life_s
    left = hand_velocity(state.left, Vec3(raw[0], raw[1], raw[2]), raw[3], half_life_s, dt)
    right = hand_velocity(state.right, Vec3(raw[4], raw[5], raw[6]), raw[7], half_life_s, dt)
    left_speed = length3(left.velocity)
    right_speed = length3(right.velocity)
    raw_left = min(left_speed / tuning.full_m_s, 1.0)
    raw_right = min(right_speed / tuning.full_m_s, 1.0)
    was = Vec2(0.0, state.amount)
    of_left = stick_output(tuning.tilt, tables, was, 0.0, raw_left).y
    of_right = stick_output(tuning.tilt, tables, was, 0.0, raw_right).y
    amount_raw = of_both(raw_left, raw_right, tuning.both_boost)
    amount = of_both(of_left, of_right, tuning.both_boost)
    swings = swings_after(state.swings, amount, dt)
    if raw[3] <= 0.0 and raw[7] <= 0.0:
        # No hand counts any more, so this is not the end of a swing.
        swings = NO_SWINGS
    stays = max(swings.most, swings.last)
    falling = stays + (state.amount - stays) * half_life_factor(tuning.release_half_life_s, dt)
    # A decay never ends by itself.
    return SwingState(max(amount, stays, falling if falling > 1e-3 else 0.0), amount_raw, left, right, swings)
