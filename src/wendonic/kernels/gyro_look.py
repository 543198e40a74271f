"""Looking by turning the pad: its rate sensor, without the sensor's faults."""

import math
from typing import NamedTuple

from wendonic.kernels.kernel import kernel
from wendonic.kernels.smoothing import half_life_factor

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
    """`levelled` is 1 to turn about the world's up, 0 about the pad's; rates in rad/s, 0 for off."""

    levelled: int
    steady_below: float
    still: float


class GyroState(NamedTuple):
    """Bias, mean reading and spread around it (rad/s), for how long that was small, and where up is for the pad."""

    bias_x: float
    bias_y: float
    bias_z: float
    mean_x: float
    mean_y: float
    mean_z: float
    spread: float
    still_s: float
    up_x: float
    up_y: float
    up_z: float


PLAIN_GYRO = GyroTuning(0, 0.0, 0.0)
GYRO_AT_REST = GyroState(0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0)


@kernel
def with_bias(state: GyroState, x: float, y: float, z: float, still: float, dt: float) -> GyroState:
    """Return the state with the bias found anew, if the pad has lain still long enough.

    It lies still while the reading's distance from its own mean, behind a low-pass, is below `still`, and the mean is
    small enough to be a bias; the bias then follows the mean. A hand, however calm, trembles more than a table.

    >>> state = GYRO_AT_REST
    >>> for _ in range(1000):
    ...     state = with_bias(state, 0.02, 0.0, 0.0, still=0.01, dt=0.01)
    >>> round(state.bias_x, 6)
    0.02
    """
    bias_x, bias_y, bias_z, mean_x, mean_y, mean_z, spread, still_s, up_x, up_y, up_z = state
    left = half_life_factor(MEAN_HALF_LIFE_S, dt)
    off = math.sqrt((x - mean_x) * (x - mean_x) + (y - mean_y) * (y - mean_y) + (z - mean_z) * (z - mean_z))
    mean_x = x + (mean_x - x) * left
    mean_y = y + (mean_y - y) * left
    mean_z = z + (mean_z - z) * left
    spread = off + (spread - off) * left
    size = math.sqrt(mean_x * mean_x + mean_y * mean_y + mean_z * mean_z)
    still_s = min(still_s + dt, STILL_FOR_S) if spread < still and size < MOST_BIAS_RAD_S else 0.0
    if still_s >= STILL_FOR_S:
        left = half_life_factor(BIAS_HALF_LIFE_S, dt)
        bias_x = mean_x + (bias_x - mean_x) * left
        bias_y = mean_y + (bias_y - mean_y) * left
        bias_z = mean_z + (bias_z - mean_z) * left
    return GyroState(bias_x, bias_y, bias_z, mean_x, mean_y, mean_z, spread, still_s, up_x, up_y, up_z)


@kernel
def up_of(
    x: float, y: float, z: float, up_x: float, up_y: float, up_z: float, felt: tuple[float, float, float], dt: float
) -> tuple[float, float, float]:
    """Return where the world's up is, as a unit vector in the pad's axes, after turning at (x, y, z) rad/s for `dt`.

    The turn itself is exact (Rodrigues' formula); the accelerometer, where it feels no more than gravity, draws up to
    where it says, with a half-life of LEVEL_HALF_LIFE_S. Without any reading yet, the pad's own up is up.

    >>> up_of(0.0, 0.0, 0.0, 0.0, 0.0, 0.0, (9.80665, 0.0, 0.0), 0.01)
    (1.0, 0.0, 0.0)
    """
    felt_x, felt_y, felt_z = felt
    size = math.sqrt(felt_x * felt_x + felt_y * felt_y + felt_z * felt_z)
    if size == 0.0:
        # No accelerometer has told anything; without it, a turn carried along would lead anywhere in the end.
        return 0.0, 1.0, 0.0
    gravity_only = abs(size - GRAVITY_M_S2) <= FELT_NEAR_GRAVITY * GRAVITY_M_S2
    if up_x == 0.0 and up_y == 0.0 and up_z == 0.0:
        if gravity_only:
            return felt_x / size, felt_y / size, felt_z / size
        return 0.0, 1.0, 0.0
    rate = math.sqrt(x * x + y * y + z * z)
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
        left = half_life_factor(LEVEL_HALF_LIFE_S, dt)
        up_x = felt_x / size + (up_x - felt_x / size) * left
        up_y = felt_y / size + (up_y - felt_y / size) * left
        up_z = felt_z / size + (up_z - felt_z / size) * left
    size = math.sqrt(up_x * up_x + up_y * up_y + up_z * up_z)
    if size < 1e-6:
        return 0.0, 1.0, 0.0
    return up_x / size, up_y / size, up_z / size


@kernel
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


@kernel
def gyro_rates(
    tuning: GyroTuning,
    state: GyroState,
    rates: tuple[float, float, float],
    felt: tuple[float, float, float],
    dt: float,
) -> tuple[GyroState, float, float]:
    """Return the new state and how fast the pad turns (rad/s): to the right, and up.

    `rates` (rad/s) and `felt` (m/s²) are the pad's own: x right, y up, z towards the player, by the right-hand rule.
    The bias comes off first. Read about the pad's axes, a turn to the right is -y and up is x. Levelled, a turn to
    the right is the part of the rates about the world's up, and up is the part about the level line to the pad's
    right. Last, below `steady_below` the turn fades out.

    >>> gyro_rates(PLAIN_GYRO, GYRO_AT_REST, (0.5, -0.25, 0.0), (0.0, 9.8, 0.0), 0.01)[1:]
    (0.25, 0.5)
    >>> on_its_side = gyro_rates(GyroTuning(1, 0.0, 0.0), GYRO_AT_REST, (-0.5, 0.0, 0.0), (9.8, 0.0, 0.0), 0.01)
    >>> round(on_its_side[1], 9)
    0.5
    """
    x, y, z = rates
    if tuning.still > 0.0:
        state = with_bias(state, x, y, z, tuning.still, dt)
        x -= state.bias_x
        y -= state.bias_y
        z -= state.bias_z
    yaw = 0.0 - y
    pitch = x
    if tuning.levelled > 0:
        bias_x, bias_y, bias_z, mean_x, mean_y, mean_z, spread, still_s, up_x, up_y, up_z = state
        up_x, up_y, up_z = up_of(x, y, z, up_x, up_y, up_z, felt, dt)
        yaw = 0.0 - (x * up_x + y * up_y + z * up_z)
        # The pad's right, laid level.
        level_x = 1.0 - up_x * up_x
        level_y = 0.0 - up_x * up_y
        level_z = 0.0 - up_x * up_z
        level = math.sqrt(level_x * level_x + level_y * level_y + level_z * level_z)
        if level > 1e-3:
            pitch = (x * level_x + y * level_y + z * level_z) / level
        state = GyroState(bias_x, bias_y, bias_z, mean_x, mean_y, mean_z, spread, still_s, up_x, up_y, up_z)
    if tuning.steady_below > 0.0:
        gain = steady_gain(math.hypot(yaw, pitch), tuning.steady_below)
        yaw *= gain
        pitch *= gain
    return state, yaw, pitch
