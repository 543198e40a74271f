"""Looking by turning the pad: its rate sensor, without the sensor's faults."""

import math
from typing import NamedTuple

from wendonic.kernels.half_life import share_left
from wendonic.kernels.vector import ZERO3, Vec3, length3

GRAVITY_M_S2 = 9.80665
FELT_NEAR_GRAVITY = 0.15
"""Share by which the accelerometer may differ from gravity and still tell where up is: a shaken pad does not."""

LEVEL_HALF_LIFE_S = 0.5
MEAN_HALF_LIFE_S = 0.25
BIAS_HALF_LIFE_S = 0.5
STILL_FOR_S = 1.0
"""For so long the pad has to lie still before its reading is taken for the bias."""

MOST_BIAS_RAD_S = math.radians(8.0)
"""A steady reading beyond this is a turn, not a bias."""


class GyroTuning(NamedTuple):
    """`levelled` is 1 to turn about the world's up, 0 about the pad's; `steadies` is 1 where the turn fades out below
    `steady_below`, `finds_bias` where the pad's bias is found while its readings spread less than `still` (rad/s).
    `pause_press` is the number of the press that pauses it, -1 for none.
    """

    levelled: int
    steadies: int
    finds_bias: int
    pause_press: int
    steady_below: float
    still: float


class BiasState(NamedTuple):
    """Bias, mean reading and spread around it (rad/s), and for how long that was small."""

    bias: Vec3
    mean: Vec3
    spread: float
    still_s: float


class GyroState(NamedTuple):
    """What is known of the bias, and where up is for the pad."""

    bias: BiasState
    up: Vec3


PLAIN_GYRO = GyroTuning(0, 0, 0, -1, 0.0, 0.0)
BIAS_UNKNOWN = BiasState(ZERO3, ZERO3, 0.0, 0.0)
GYRO_AT_REST = GyroState(BIAS_UNKNOWN, ZERO3)


def bias_found(state: BiasState, rates: Vec3, still: float, dt: float) -> BiasState:
    """Return the state with the bias found anew, if the pad has lain still long enough.

    It lies still while the reading's distance from its own mean, behind a low-pass, is below `still`, and the mean is
    small enough to be a bias; the bias then follows the mean. A hand, however calm, trembles more than a table.

    >>> state = BIAS_UNKNOWN
    >>> for _ in range(1000):
    ...     state = bias_found(state, Vec3(0.02, 0.0, 0.0), still=0.01, dt=0.01)
    >>> round(state.bias.x, 6)
    0.02
    """
    x, y, z = rates
    was = state.mean
    left = share_left(MEAN_HALF_LIFE_S, dt)
    off = length3(Vec3(x - was.x, y - was.y, z - was.z))
    mean = Vec3(x + (was.x - x) * left, y + (was.y - y) * left, z + (was.z - z) * left)
    spread = off + (state.spread - off) * left
    still_s = min(state.still_s + dt, STILL_FOR_S) if spread < still and length3(mean) < MOST_BIAS_RAD_S else 0.0
    bias = state.bias
    if still_s >= STILL_FOR_S:
        left = share_left(BIAS_HALF_LIFE_S, dt)
        bias = Vec3(
            mean.x + (bias.x - mean.x) * left, mean.y + (bias.y - mean.y) * left, mean.z + (bias.z - mean.z) * left
        )
    return BiasState(bias, mean, spread, still_s)


def up_of(rates: Vec3, up: Vec3, felt: Vec3, dt: float) -> Vec3:
    """Return where the world's up is, as a unit vector in the pad's axes, after turning at `rates` (rad/s) for `dt`.

    The turn itself is exact (Rodrigues' formula); the accelerometer, where it feels no more than gravity, draws up to
    where it says, with a half-life of LEVEL_HALF_LIFE_S. Without any reading yet, the pad's own up is up.

    >>> up_of(ZERO3, ZERO3, Vec3(9.80665, 0.0, 0.0), 0.01)
    Vec3(x=1.0, y=0.0, z=0.0)
    """
    own_up = Vec3(0.0, 1.0, 0.0)
    felt_x, felt_y, felt_z = felt
    size = length3(felt)
    if size == 0.0:
        # No accelerometer has reported anything; without it, a turn carried along would lead anywhere in the end.
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
        # What stands still in the world turns the other way round in the pad.
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
    """Return by how much a rate (0 or more, rad/s) counts: u (2 - u) with u = rate / steady_below, 1 from there on.

    The turn fades out as the square of the rate, and meets the plain one without a kink.

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

    `rates` (rad/s) and `felt` (m/s²) are the pad's own: x right, y up, z towards the player, by the right-hand rule.
    The bias comes off first. Read about the pad's axes, a turn to the right is -y and up is x. Levelled, a turn to
    the right is the part of the rates about the world's up, and up is the part about the level line to the pad's
    right. Last, below `steady_below` the turn fades out.

    >>> gyro_rates(PLAIN_GYRO, GYRO_AT_REST, Vec3(0.5, -0.25, 0.0), Vec3(0.0, 9.8, 0.0), 0.01)[1]
    GyroRates(yaw=0.25, pitch=0.5)
    >>> levelled = PLAIN_GYRO._replace(levelled=1)
    >>> on_its_side = gyro_rates(levelled, GYRO_AT_REST, Vec3(-0.5, 0.0, 0.0), Vec3(9.8, 0.0, 0.0), 0.01)
    >>> round(on_its_side[1].yaw, 9)
    0.5
    """
    x, y, z = rates
    bias, up = state
    if tuning.finds_bias > 0:
        bias = bias_found(bias, rates, tuning.still, dt)
        x -= bias.bias.x
        y -= bias.bias.y
        z -= bias.bias.z
    yaw = 0.0 - y
    pitch = x
    if tuning.levelled > 0:
        up = up_of(Vec3(x, y, z), up, felt, dt)
        yaw = 0.0 - (x * up.x + y * up.y + z * up.z)
        # The pad's right, laid level.
        level = Vec3(1.0 - up.x * up.x, 0.0 - up.x * up.y, 0.0 - up.x * up.z)
        length = length3(level)
        if length > 1e-3:
            pitch = (x * level.x + y * level.y + z * level.z) / length
    if tuning.steadies > 0:
        gain = steady_gain(math.hypot(yaw, pitch), tuning.steady_below)
        yaw *= gain
        pitch *= gain
    return GyroState(bias, up), GyroRates(yaw, pitch)
