"""Looking by turning the pad: its rate sensor, corrected for bias and tremor."""

import math
from typing import NamedTuple

from wendonic.kernels.half_life import share_left
from wendonic.kernels.vector import ZERO3, Vec3, length3

GRAVITY_M_S2 = 9.80665
FELT_NEAR_GRAVITY = 0.15
"""Share by which the accelerometer may differ from gravity and still show where up is; in a shaken pad it does not.
"""

LEVEL_HALF_LIFE_S = 0.5
MEAN_HALF_LIFE_S = 0.25
BIAS_HALF_LIFE_S = 0.5
STILL_FOR_S = 2.0
"""Time that the pad must lie still before its mean reading counts as the bias, if none is known yet."""

LONG_STILL_S = 15.0
"""Nobody aims so steadily for so long: after that time a known bias may change freely as well."""

DRIFT_RAD_S2 = math.radians(0.004)
"""How fast a known bias may change, as it does while a pad warms up; a turn changes the reading faster."""

LEAP_SHARE = 0.35
"""Share of `still` by which the mean may deviate from the average over the time that the pad has lain still."""

AVERAGE_AFTER_S = 0.5
"""Before this time the average is as noisy as a few readings."""

STILL_FELT_M_S2 = 0.15
"""Spread of the accelerometer's readings on a table; a hand shakes the pad more."""

MOST_BIAS_RAD_S = math.radians(8.0)
"""A steady reading beyond this is a turn, not a bias."""


class GyroTuning(NamedTuple):
    """`levelled` is 1 to turn about the world's up, 0 about the pad's; `steadies` is 1 if the turn fades out below
    `steady_below`, `finds_bias` if the bias is estimated while the readings spread by less than `still` (rad/s).
    `while_press` and `pause_press` are the numbers of the presses that enable and pause it, -1 for none.
    """

    levelled: int
    steadies: int
    finds_bias: int
    while_press: int
    pause_press: int
    steady_below: float
    still: float


class Steadiness(NamedTuple):
    """Mean of a sensor on its three axes, and the spread around it."""

    mean: Vec3
    spread: float


class BiasState(NamedTuple):
    """The bias (rad/s), and 1 if it is known; how steady rates and accelerations are; for how long the pad has lain
    still, and the average rate (rad/s) over that time; 1 once there has been a reading.
    """

    bias: Vec3
    known: float
    rates: Steadiness
    felt: Steadiness
    still_s: float
    average: Vec3
    begun: float


class GyroState(NamedTuple):
    """The bias as far as it is known, and the world's up as the pad sees it."""

    bias: BiasState
    up: Vec3


PLAIN_GYRO = GyroTuning(0, 0, 0, -1, -1, 0.0, 0.0)
BIAS_UNKNOWN = BiasState(ZERO3, 0.0, Steadiness(ZERO3, 0.0), Steadiness(ZERO3, 0.0), 0.0, ZERO3, 0.0)
GYRO_AT_REST = GyroState(BIAS_UNKNOWN, ZERO3)


def drawn(was: Vec3, to: Vec3, left: float) -> Vec3:
    """Return a vector of which a share is `left`, and the rest comes from its target.

    >>> drawn(Vec3(1.0, 0.0, 2.0), Vec3(0.0, 0.0, 4.0), 0.25)
    Vec3(x=0.25, y=0.0, z=3.5)
    """
    return Vec3(to.x + (was.x - to.x) * left, to.y + (was.y - to.y) * left, to.z + (was.z - to.z) * left)


def distance(one: Vec3, other: Vec3) -> float:
    """Return the distance of two vectors.

    >>> distance(Vec3(1.0, 1.0, 0.0), Vec3(4.0, 5.0, 0.0))
    5.0
    """
    return length3(Vec3(one.x - other.x, one.y - other.y, one.z - other.z))


def steadied(was: Steadiness, reading: Vec3, left: float) -> Steadiness:
    """Return the mean and spread of a sensor after a reading, by a low-pass that leaves a share of the old ones.

    >>> steadied(Steadiness(ZERO3, 0.0), Vec3(0.0, 2.0, 0.0), 0.5)
    Steadiness(mean=Vec3(x=0.0, y=1.0, z=0.0), spread=1.0)
    """
    off = distance(reading, was.mean)
    return Steadiness(drawn(was.mean, reading, left), off + (was.spread - off) * left)


def bias_drawn(bias: Vec3, known: float, average: Vec3, still_s: float, dt: float) -> Vec3:
    """Return the bias (rad/s) of a pad that has lain still for a while: at first the average; later it follows the
    average no faster than DRIFT_RAD_S2, until no hand could turn so evenly (LONG_STILL_S).

    >>> bias_drawn(ZERO3, 0.0, Vec3(0.02, 0.0, 0.0), 1.0, 0.01).x, bias_drawn(ZERO3, 1.0, ZERO3, 1.0, 0.01).x
    (0.02, 0.0)
    """
    if still_s >= LONG_STILL_S:
        return drawn(bias, average, share_left(BIAS_HALF_LIFE_S, dt))
    if known <= 0.0:
        return average
    far = distance(average, bias)
    return drawn(bias, average, 1.0 - min(DRIFT_RAD_S2 * dt / far, 1.0)) if far > 0.0 else bias


def bias_found(state: BiasState, rates: Vec3, felt: Vec3, still: float, dt: float) -> BiasState:
    """Return the state with an updated bias, if the pad has lain still long enough.

    It lies still while the low-passed distance of the rates from their mean is below `still`, that of the
    accelerations is below STILL_FELT_M_S2, and the mean stays constant and is small enough to be a bias. After
    STILL_FOR_S the first bias is the average over that time. A known one follows the mean no faster than
    DRIFT_RAD_S2, since a slow, even turn looks like a pad on a table, until no hand could turn so evenly
    (LONG_STILL_S).

    >>> state, lies = BIAS_UNKNOWN, Vec3(0.0, 9.8, 0.0)
    >>> for _ in range(300):
    ...     state = bias_found(state, Vec3(0.02, 0.0, 0.0), lies, still=0.01, dt=0.01)
    >>> round(state.bias.x, 9)
    0.02
    >>> for _ in range(1000):
    ...     state = bias_found(state, Vec3(0.04, 0.0, 0.0), lies, still=0.01, dt=0.01)
    >>> round(state.bias.x, 3)
    0.021
    """
    left = share_left(MEAN_HALF_LIFE_S, dt) if state.begun > 0.0 else 0.0
    of_rates = steadied(state.rates, rates, left)
    of_felt = steadied(state.felt, felt, left)
    if state.begun <= 0.0:
        of_rates = Steadiness(rates, 0.0)
        of_felt = Steadiness(felt, 0.0)
    steady = of_rates.spread < still and of_felt.spread < STILL_FELT_M_S2
    stays = state.still_s < AVERAGE_AFTER_S or distance(of_rates.mean, state.average) < LEAP_SHARE * still
    bias, known = state.bias, state.known
    still_s, average = 0.0, of_rates.mean
    if steady and stays and length3(of_rates.mean) < MOST_BIAS_RAD_S:
        still_s = min(state.still_s + dt, LONG_STILL_S)
        if still_s > 0.0:
            average = drawn(state.average, rates, state.still_s / still_s)
        if still_s >= LONG_STILL_S:
            average = drawn(state.average, of_rates.mean, share_left(BIAS_HALF_LIFE_S, dt))
        if still_s >= STILL_FOR_S:
            bias, known = bias_drawn(bias, known, average, still_s, dt), 1.0
    return BiasState(bias, known, of_rates, of_felt, still_s, average, 1.0)


def up_of(rates: Vec3, up: Vec3, felt: Vec3, dt: float) -> Vec3:
    """Return the world's up as a unit vector in the pad's axes, after turning at `rates` (rad/s) for `dt`.

    The turn itself is exact (Rodrigues' formula); the accelerometer, while it measures little but gravity, corrects
    it with a half-life of LEVEL_HALF_LIFE_S. Before the first reading, up is the pad's own up.

    >>> up_of(ZERO3, ZERO3, Vec3(9.80665, 0.0, 0.0), 0.01)
    Vec3(x=1.0, y=0.0, z=0.0)
    """
    own_up = Vec3(0.0, 1.0, 0.0)
    felt_x, felt_y, felt_z = felt
    size = length3(felt)
    if size == 0.0:
        # No accelerometer has reported anything; without one, integrated turns would drift without limit.
        return own_up
    gravity_only = abs(size - GRAVITY_M_S2) <= FELT_NEAR_GRAVITY * GRAVITY_M_S2
    if up.x == 0.0 and up.y == 0.0 and up.z == 0.0:
        if gravity_only:
            return Vec3(felt_x / size, felt_y / size, felt_z / size)
        return own_up
    up_x, up_y, up_z = up
    x, y, z = rates
    rate = length3(rates)
    if rate * dt > 0.0:
        # A direction fixed in the world turns the opposite way in the pad.
        angle = -rate * dt
        cosine = math.cos(angle)
        sine = math.sin(angle)
        axis_x = x / rate
        axis_y = y / rate
        axis_z = z / rate
        along = (axis_x * up_x + axis_y * up_y + axis_z * up_z) * (1.0 - cosine)
        turned_x = up_x * cosine + (axis_y * up_z - axis_z * up_y) * sine + axis_x * along
        turned_y = up_y * cosine + (axis_z * up_x - axis_x * up_z) * sine + axis_y * along
        turned_z = up_z * cosine + (axis_x * up_y - axis_y * up_x) * sine + axis_z * along
        up_x = turned_x
        up_y = turned_y
        up_z = turned_z
    if gravity_only:
        left = share_left(LEVEL_HALF_LIFE_S, dt)
        up_x = felt_x / size + (up_x - felt_x / size) * left
        up_y = felt_y / size + (up_y - felt_y / size) * left
        up_z = felt_z / size + (up_z - felt_z / size) * left
    size = length3(Vec3(up_x, up_y, up_z))
    if size < 1e-6:
        return own_up
    return Vec3(up_x / size, up_y / size, up_z / size)


def steady_gain(rate: float, steady_below: float) -> float:
    """Return the gain for a rate (0 or more, rad/s): u (2 - u) with u = rate / steady_below, 1 from there on.

    The turn fades out with the square of the rate, and meets the plain one without a kink.

    >>> steady_gain(1.0, 2.0), steady_gain(3.0, 2.0)
    (0.75, 1.0)
    """
    if rate >= steady_below:
        return 1.0
    share = rate / steady_below
    return share * (2.0 - share)


class GyroRates(NamedTuple):
    """How fast the pad turns (rad/s): to the right, and up."""

    yaw: float
    pitch: float


def gyro_rates(
    tuning: GyroTuning, state: GyroState, rates: Vec3, felt: Vec3, dt: float
) -> tuple[GyroState, GyroRates]:
    """Return the new state and how fast the pad turns.

    `rates` (rad/s) and `felt` (m/s²) are in the pad's axes: x right, y up, z towards the player, by the right-hand
    rule. The bias is subtracted first. About the pad's axes, a turn to the right is -y and up is x. Levelled, a turn
    to the right is the component of the rates about the world's up, and up is the component about the horizontal line
    to the pad's right. Last, below `steady_below` the turn fades out. A missing or lost pad reports exactly zero: it
    does not turn, and its bias stays known.

    >>> gyro_rates(PLAIN_GYRO, GYRO_AT_REST, Vec3(0.5, -0.25, 0.0), Vec3(0.0, 9.8, 0.0), 0.01)[1]
    GyroRates(yaw=0.25, pitch=0.5)
    >>> levelled = PLAIN_GYRO._replace(levelled=1)
    >>> on_its_side = gyro_rates(levelled, GYRO_AT_REST, Vec3(-0.5, 0.0, 0.0), Vec3(9.8, 0.0, 0.0), 0.01)
    >>> round(on_its_side[1].yaw, 9)
    0.5
    """
    x, y, z = rates
    bias, up = state
    if x == 0.0 and y == 0.0 and z == 0.0 and felt.x == 0.0 and felt.y == 0.0 and felt.z == 0.0:
        return state, GyroRates(0.0, 0.0)
    if tuning.finds_bias > 0:
        bias = bias_found(bias, rates, felt, tuning.still, dt)
        x -= bias.bias.x
        y -= bias.bias.y
        z -= bias.bias.z
    yaw = 0.0 - y
    pitch = x
    if tuning.levelled > 0:
        up = up_of(Vec3(x, y, z), up, felt, dt)
        yaw = 0.0 - (x * up.x + y * up.y + z * up.z)
        # The pad's right, projected onto the horizontal.
        level = Vec3(1.0 - up.x * up.x, 0.0 - up.x * up.y, 0.0 - up.x * up.z)
        length = length3(level)
        if length > 1e-3:
            pitch = (x * level.x + y * level.y + z * level.z) / length
    if tuning.steadies > 0:
        gain = steady_gain(math.hypot(yaw, pitch), tuning.steady_below)
        yaw *= gain
        pitch *= gain
    return GyroState(bias, up), GyroRates(yaw, pitch)
