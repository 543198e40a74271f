"""The steer frame `drive`: throttle and turn steer a heading."""

import math
from typing import NamedTuple

from wendonic.kernels.angles import wrapped_angle
from wendonic.kernels.body import Body
from wendonic.kernels.gait_forms import GaitForms, strode
from wendonic.kernels.kernel import called_kernel, kernel


class DriveTuning(NamedTuple):
    """How a cart turns: at most `turn_rate` at rest and `fast_turn_rate` at top speed (rad/s), and never in a circle
    of a radius below `turn_radius_m`, 0 for no such limit.

    `reverse_ratio` is the top speed backwards as a share of that ahead; `reverse_flips` is 1 where a turn to the
    right brings the heading round to the left while it rolls backwards, as with a steered axle.
    """

    turn_rate: float
    fast_turn_rate: float
    turn_radius_m: float
    reverse_ratio: float
    reverse_flips: int


NO_DRIVE = DriveTuning(1.0, 1.0, 0.0, 1.0, 0)


@kernel
def driven_turn_rate(tuning: DriveTuning, turn: float, speed: float, top_speed: float) -> float:
    """Return the rate (rad/s, right positive) at which a cart turns at a speed (m/s, backwards negative).

    With s = |speed| / top_speed, at most 1, the limit is turn_rate + (fast_turn_rate - turn_rate) s, and no more than
    |speed| / turn_radius_m; `turn` (-1..1) is a share of it.

    >>> cart = DriveTuning(2.0, 1.0, 2.0, 0.5, 1)
    >>> [driven_turn_rate(cart, 1.0, speed, 4.0) for speed in (0.0, 2.0, 4.0, -1.0)]
    [0.0, 1.0, 1.0, -0.5]
    """
    pace = abs(speed)
    share = min(pace / top_speed, 1.0)
    rate = tuning.turn_rate + (tuning.fast_turn_rate - tuning.turn_rate) * share
    if tuning.turn_radius_m > 0.0:
        rate = min(rate, pace / tuning.turn_radius_m)
    if speed < 0.0 and tuning.reverse_flips > 0:
        turn = -turn
    return rate * turn


@kernel
def throttle_speed(tuning: DriveTuning, top_speed: float, throttle: float) -> float:
    """Return the speed (m/s, backwards negative) that a throttle of -1..1 asks for.

    >>> throttle_speed(NO_DRIVE._replace(reverse_ratio=0.5), 4.0, -1.0), throttle_speed(NO_DRIVE, 4.0, 0.5)
    (-2.0, 2.0)
    """
    return throttle * top_speed * (tuning.reverse_ratio if throttle < 0.0 else 1.0)


@called_kernel
def driven(
    tuning: DriveTuning,
    top_speed: float,
    accel: float,
    brake: float,
    forms: GaitForms,
    body: Body,
    wanted: float,
    turn: float,
    dt: float,
) -> Body:
    """Return the body after `dt` seconds of driving: it moves along its face, ahead or back, and never sideways.

    The speed runs to `wanted` (m/s) as in `walked`. The heading turns at the rate for the mean speed of the tick, see
    `driven_turn_rate`; with a turn of a in all, the way s is an arc, whose chord is s sin(a / 2) / (a / 2) long and
    points half-way between both headings. So a circle stays a circle at every tick rate.

    >>> cart = DriveTuning(math.pi, math.pi, 0.0, 1.0, 0)
    >>> from wendonic.kernels.gait_forms import PLAIN_GAIT
    >>> rolling = Body(0.0, 0.0, 0.0, 0.0, 0.0, math.pi, 0.0)
    >>> after = driven(cart, 9.0, 9.0, 9.0, PLAIN_GAIT, rolling, math.pi, 1.0, 0.5)
    >>> round(math.degrees(after.face)), round(after.pos_x, 12), round(after.pos_y, 12)
    (90, 1.0, 1.0)
    """
    face, pos_x, pos_y, pos_z, vel_x, vel_y, _ = body
    sine = math.sin(face)
    cosine = math.cos(face)
    speed, _, moved, _ = strode(forms, accel, brake, False, vel_x * sine + vel_y * cosine, 0.0, wanted, 0.0, dt)
    if turn == 0.0 or dt <= 0.0:
        return Body(face, pos_x + sine * moved, pos_y + cosine * moved, pos_z, sine * speed, cosine * speed, 0.0)
    half = 0.5 * driven_turn_rate(tuning, turn, moved / dt, top_speed) * dt
    chord = moved * math.sin(half) / half if half != 0.0 else moved
    pos_x += math.sin(face + half) * chord
    pos_y += math.cos(face + half) * chord
    face = wrapped_angle(face + 2.0 * half)
    return Body(face, pos_x, pos_y, pos_z, math.sin(face) * speed, math.cos(face) * speed, 0.0)
