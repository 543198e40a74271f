"""The gait: from a wanted velocity to a velocity and the distance it covers."""

import math
from typing import NamedTuple

from wendonic.kernels.body.fall import NO_FALL, FallTuning
from wendonic.kernels.vector import ZERO3, Vec3, length3, plus3, times3

COAST_ENDS_M_S = 0.02
"""An exponential decay never reaches zero; a body that coasts stops below this speed."""


FASTER = 1.0 + 1e-9
"""Factor above the requested speed from which a body coasts: at full speed rounding must not decide how it turns."""


class GaitTuning(NamedTuple):
    """The numbers of a gait; `press` is the number of the press that switches to it while held, -1 for none.

    `reverses` is 1 if `reverse_m_s2` brakes while the request points backwards, `airborne` if the two `air` rates
    count off the ground, `air_brakes` if only that brake slows the body there; `drags` if `drag_per_s` replaces all
    rates, `coasts` if `coast_half_life_s` replaces the brake except in a reversal, `keeps` if speed is kept; `forms`
    if any of these is 1, see `with_forms`. `loses` is 1 if, in any gait of the mode, `turn_loss` is the share of
    speed lost when the request turns straight back. Walls stop a body of `radius_m`; `rise_m_s` is how fast it rises
    where it flies.
    """

    press: int
    forms: int
    top_speed_m_s: float
    accel_m_s2: float
    brake_m_s2: float
    reverses: int
    reverse_m_s2: float
    airborne: int
    air_accel_m_s2: float
    air_brake_m_s2: float
    air_brakes: int
    drags: int
    drag_per_s: float
    keeps: int
    coasts: int
    coast_half_life_s: float
    loses: int
    turn_loss: float
    rise_m_s: float
    radius_m: float
    fall: FallTuning


PLAIN_GAIT = GaitTuning(
    -1, 0, 3.2, 22.0, 30.0, 0, 30.0, 0, 22.0, 30.0, 0, 0, 1.0, 0, 0, 1.0, 0, 0.0, 2.0, 0.25, NO_FALL
)


class Stride(NamedTuple):
    """Velocity (m/s) at the end of a tick, and the displacement (m) of it."""

    velocity: Vec3
    displacement: Vec3


def gained(falling: float, step: float, accel_m_s2: float, brake_m_s2: float, dt: float) -> tuple[float, float]:
    """Return how much of a change of velocity has been made after `dt` seconds (m/s), and the distance (m) that it
    adds along its direction.

    The velocity goes straight to the wanted one, `step` (m/s) away: at `brake_m_s2` while the speed falls, at
    `accel_m_s2` while it rises, and stays there. `falling` is the component of the speed against that direction,
    which falls first. Each of the three stretches is integrated in closed form (v t + a t² / 2), so the path does not
    depend on how `dt` is cut. Both rates are above 0. Exactly `step` is returned only if the change is complete.

    >>> gained(-1.0, 3.0, accel_m_s2=20.0, brake_m_s2=30.0, dt=0.1), gained(3.0, 3.0, 20.0, 24.0, 0.125)
    ((2.0, 0.1), (3.0, 0.1875))
    """
    left_s = dt
    done = 0.0
    added = 0.0
    # Speed falls up to the point of the straight line that is nearest to zero velocity.
    if falling > 0.0:
        falling = min(falling, step)
        brake_s = min(falling / brake_m_s2, dt)
        done = min(brake_m_s2 * brake_s, falling)
        left_s = dt - brake_s
        added = done * (0.5 * brake_s + left_s)
    # Speed rises in the rest of the tick.
    accel_s = 0.0
    if left_s > 0.0:
        rising = step - done
        accel_s = min(rising / accel_m_s2, left_s)
        more = min(accel_m_s2 * accel_s, rising)
        added += more * (left_s - 0.5 * accel_s)
        done += more
    if done >= step or accel_s < left_s:
        done = step
    return done, added


def walked(
    vel_x: float,
    vel_y: float,
    wanted_x: float,
    wanted_y: float,
    accel_m_s2: float,
    brake_m_s2: float,
    dt: float,
) -> tuple[float, float, float, float]:
    """Return velocity (m/s) after `dt` seconds, and the displacement (m): vel_x, vel_y, moved_x, moved_y; see
    `gained`.

    >>> walked(0.0, 0.0, 3.0, 0.0, accel_m_s2=20.0, brake_m_s2=30.0, dt=0.1)
    (2.0, 0.0, 0.1, 0.0)
    >>> walked(3.0, 0.0, 0.0, 0.0, accel_m_s2=20.0, brake_m_s2=24.0, dt=0.125)
    (0.0, 0.0, 0.1875, 0.0)
    """
    moved_x = vel_x * dt
    moved_y = vel_y * dt
    step_x = wanted_x - vel_x
    step_y = wanted_y - vel_y
    step = math.hypot(step_x, step_y)
    if step != 0.0:
        along_x = step_x / step
        along_y = step_y / step
        done, added = gained(-(vel_x * along_x + vel_y * along_y), step, accel_m_s2, brake_m_s2, dt)
        moved_x += along_x * added
        moved_y += along_y * added
        if done == step:
            vel_x = wanted_x
            vel_y = wanted_y
        else:
            vel_x += along_x * done
            vel_y += along_y * done
    return vel_x, vel_y, moved_x, moved_y


def walked_in_space(velocity: Vec3, wanted: Vec3, accel_m_s2: float, brake_m_s2: float, dt: float) -> Stride:
    """Return the same as `walked` in three dimensions.

    >>> walked_in_space(ZERO3, Vec3(0.0, 0.0, 2.0), accel_m_s2=4.0, brake_m_s2=8.0, dt=0.25)
    Stride(velocity=Vec3(x=0.0, y=0.0, z=1.0), displacement=Vec3(x=0.0, y=0.0, z=0.125))
    """
    x, y, z = velocity
    change = Vec3(wanted.x - x, wanted.y - y, wanted.z - z)
    step = length3(change)
    displacement = Vec3(x * dt, y * dt, z * dt)
    if step != 0.0:
        along_x = change.x / step
        along_y = change.y / step
        along_z = change.z / step
        done, added = gained(-(x * along_x + y * along_y + z * along_z), step, accel_m_s2, brake_m_s2, dt)
        displacement = Vec3(x * dt + along_x * added, y * dt + along_y * added, z * dt + along_z * added)
        velocity = wanted if done == step else Vec3(x + along_x * done, y + along_y * done, z + along_z * done)
    return Stride(velocity, displacement)


def against_drag(velocity: Vec3, wanted: Vec3, drag_per_s: float, dt: float) -> Stride:
    """Return velocity and displacement under thrust against a drag proportional to speed: dv/dt = drag (wanted - v),
    solved exactly.

    With e = exp(-drag dt), v becomes wanted + (v - wanted) e, and the displacement is wanted dt + (v - wanted)
    (1 - e) / drag. The terminal speed is thrust / drag.

    >>> against_drag(ZERO3, Vec3(4.0, 0.0, 0.0), math.log(2.0), 1.0).velocity.x
    2.0
    """
    # v -> wanted + (v - wanted) exp(-drag dt), and its integral.
    left = math.exp(-drag_per_s * dt)
    covered = (1.0 - left) / drag_per_s
    over_x = velocity.x - wanted.x
    over_y = velocity.y - wanted.y
    over_z = velocity.z - wanted.z
    return Stride(
        Vec3(wanted.x + over_x * left, wanted.y + over_y * left, wanted.z + over_z * left),
        Vec3(wanted.x * dt + over_x * covered, wanted.y * dt + over_y * covered, wanted.z * dt + over_z * covered),
    )


def coasting(velocity: Vec3, wanted: Vec3, half_life_s: float, dt: float) -> Stride:
    """Return velocity and displacement of a decay to a slower velocity with a half-life; near rest the body stops.

    >>> coasting(Vec3(0.0, 4.0, 0.0), ZERO3, 0.5, 0.5).velocity.y
    2.0
    >>> coasting(Vec3(0.0, 4.0, 0.0), ZERO3, 0.5, 60.0).velocity.y
    0.0
    """
    drag_per_s = math.log(2.0) / half_life_s
    stands = wanted.x == 0.0 and wanted.y == 0.0 and wanted.z == 0.0
    speed = length3(velocity)
    if stands and speed <= COAST_ENDS_M_S:
        return Stride(ZERO3, ZERO3)
    if stands and speed * math.exp(-drag_per_s * dt) <= COAST_ENDS_M_S:
        # The distance up to the moment at which that speed is reached.
        share = (speed - COAST_ENDS_M_S) / (speed * drag_per_s)
        return Stride(ZERO3, Vec3(velocity.x * share, velocity.y * share, velocity.z * share))
    return against_drag(velocity, wanted, drag_per_s, dt)


LEAST_M_S = 1e-12
"""A smaller change of velocity has no direction."""

LEAST_KEPT = 1e-3
"""Least share of the speed that a request straight back leaves."""


def kept_in_turn(turn_loss: float, last_direction: Vec3, direction: Vec3) -> float:
    """Return the share of speed that is left when a request turns from one direction to another, of any length.

    With the angle a it is (1 - turn_loss)^(a / pi): turning half of the angle twice costs as much as all of it at
    once, so a turn costs the same at every tick rate.

    >>> ahead, right = Vec3(0.0, 1.0, 0.0), Vec3(0.5, 0.0, 0.0)
    >>> round(kept_in_turn(0.75, ahead, Vec3(0.0, -1.0, 0.0)), 9), round(kept_in_turn(0.75, ahead, right), 9)
    (0.25, 0.5)
    """
    across = Vec3(
        last_direction.y * direction.z - last_direction.z * direction.y,
        last_direction.z * direction.x - last_direction.x * direction.z,
        last_direction.x * direction.y - last_direction.y * direction.x,
    )
    along = last_direction.x * direction.x + last_direction.y * direction.y + last_direction.z * direction.z
    angle = math.atan2(length3(across), along)
    # (1 - turn_loss)^(angle / pi)
    return math.pow(max(1.0 - turn_loss, LEAST_KEPT), angle / math.pi)


def slowed_by_turn(gait: GaitTuning, velocity: Vec3, last_direction: Vec3, direction: Vec3) -> Vec3:
    """Return the velocity, upwards included, that a turn of the request leaves, see `kept_in_turn`.

    >>> gait = PLAIN_GAIT._replace(loses=1, turn_loss=0.5)
    >>> slowed_by_turn(gait, Vec3(0.0, 4.0, 0.0), Vec3(0.0, 1.0, 0.0), Vec3(0.0, -1.0, 0.0))
    Vec3(x=0.0, y=2.0, z=0.0)
    """
    if gait.loses <= 0 or length3(direction) <= 0.0:
        return velocity
    kept = kept_in_turn(gait.turn_loss, last_direction, direction)
    return Vec3(velocity.x * kept, velocity.y * kept, velocity.z * kept)


def with_forms(gait: GaitTuning) -> GaitTuning:
    """Return a gait with `forms` set: whether it has more than a top speed and two rates.

    >>> with_forms(PLAIN_GAIT).forms, with_forms(PLAIN_GAIT._replace(coasts=1)).forms
    (0, 1)
    """
    formed = gait.reverses > 0 or gait.airborne > 0 or gait.drags > 0 or gait.keeps > 0 or gait.coasts > 0
    return gait._replace(forms=1 if formed else 0)


class TickPart(NamedTuple):
    """Velocity (m/s), displacement (m) and time (s) of the part of a tick in which a body turns or reverses."""

    velocity: Vec3
    displacement: Vec3
    spent_s: float


def turned_back(velocity: Vec3, wanted: Vec3, rate_m_s2: float, dt: float) -> TickPart:
    """Return the result of the part of `dt` seconds in which the request points more than 90 degrees away from the
    velocity.

    The velocity goes straight to the wanted one at `rate_m_s2` until it has no component against it. With d the
    direction of the change, that is a change of -(v . wanted) / (d . wanted), so a reversal at one rate followed by
    another rate does not depend on how `dt` is cut.

    >>> turned_back(Vec3(2.0, 0.0, 0.0), Vec3(-2.0, 0.0, 0.0), 8.0, 1.0)
    TickPart(velocity=Vec3(x=0.0, y=0.0, z=0.0), displacement=Vec3(x=0.25, y=0.0, z=0.0), spent_s=0.25)
    >>> turned_back(Vec3(2.0, 0.0, 0.0), Vec3(0.0, 2.0, 0.0), 8.0, 1.0).spent_s
    0.0
    """
    along = velocity.x * wanted.x + velocity.y * wanted.y + velocity.z * wanted.z
    if along >= 0.0:
        return TickPart(velocity, ZERO3, 0.0)
    change = Vec3(wanted.x - velocity.x, wanted.y - velocity.y, wanted.z - velocity.z)
    step = length3(change)
    want = length3(wanted)
    # The share of the change until velocity and request are at right angles, and the share of this tick.
    square = 0.0 - along / (want * want - along)
    spent_s = min(square * step / rate_m_s2, dt)
    share = min(rate_m_s2 * spent_s / step, square)
    after = Vec3(velocity.x + change.x * share, velocity.y + change.y * share, velocity.z + change.z * share)
    half = 0.5 * spent_s
    covered = Vec3((velocity.x + after.x) * half, (velocity.y + after.y) * half, (velocity.z + after.z) * half)
    return TickPart(after, covered, spent_s)


def turned_at_speed(velocity: Vec3, wanted: Vec3, rate_m_s2: float, dt: float) -> TickPart:
    """Return the result of the part of `dt` seconds in which a velocity turns towards the wanted one at constant
    speed.

    `rate_m_s2` is the lateral acceleration, so it turns on an arc of radius r = v² / rate, at rate / v (rad/s). The
    request must not point backwards.

    >>> quarter = turned_at_speed(Vec3(0.0, 2.0, 0.0), Vec3(0.5, 0.0, 0.0), 4.0, 9.0)
    >>> quarter.velocity, round(quarter.spent_s / math.pi, 12), round(quarter.displacement.y, 12)
    (Vec3(x=2.0, y=0.0, z=0.0), 0.25, 1.0)
    """
    speed = length3(velocity)
    want = length3(wanted)
    if speed == 0.0 or want == 0.0:
        return TickPart(velocity, ZERO3, 0.0)
    ahead = Vec3(velocity.x / speed, velocity.y / speed, velocity.z / speed)
    to = Vec3(wanted.x / want, wanted.y / want, wanted.z / want)
    along = ahead.x * to.x + ahead.y * to.y + ahead.z * to.z
    aside = Vec3(to.x - along * ahead.x, to.y - along * ahead.y, to.z - along * ahead.z)
    across = length3(aside)
    if across == 0.0:
        return TickPart(velocity, ZERO3, 0.0)
    whole = math.atan2(across, along)
    angle = min(rate_m_s2 * dt / speed, whole)
    sine, half_sine = math.sin(angle), math.sin(0.5 * angle)
    # r sin a ahead, and r (1 - cos a) = 2 r sin² (a / 2) aside.
    radius = speed * speed / rate_m_s2
    forward, sideways = radius * sine, radius * 2.0 * half_sine * half_sine / across
    covered = Vec3(
        ahead.x * forward + aside.x * sideways,
        ahead.y * forward + aside.y * sideways,
        ahead.z * forward + aside.z * sideways,
    )
    if angle == whole:
        return TickPart(Vec3(to.x * speed, to.y * speed, to.z * speed), covered, angle * speed / rate_m_s2)
    forward, sideways = speed * math.cos(angle), speed * sine / across
    after = Vec3(
        ahead.x * forward + aside.x * sideways,
        ahead.y * forward + aside.y * sideways,
        ahead.z * forward + aside.z * sideways,
    )
    return TickPart(after, covered, dt)


def stride(gait: GaitTuning, in_air: bool, velocity: Vec3, wanted: Vec3, dt: float) -> Stride:
    """Return velocity (m/s) and displacement (m) after `dt` seconds of a gait with all its forms.

    If a gait `keeps` its speed, a request turns it at that speed, and only a request that points backwards slows it.

    >>> icy = with_forms(PLAIN_GAIT._replace(reverses=1, reverse_m_s2=4.0))
    >>> stride(icy, False, Vec3(2.0, 0.0, 0.0), Vec3(-2.0, 0.0, 0.0), 0.25).velocity.x
    1.0
    >>> stride(icy, False, Vec3(2.0, 0.0, 0.0), ZERO3, 0.05).velocity.x
    0.5
    """
    accel_m_s2 = gait.accel_m_s2
    brake_m_s2 = gait.brake_m_s2
    if gait.forms > 0:
        want = length3(wanted)
        if gait.drags > 0:
            return against_drag(velocity, wanted, gait.drag_per_s, dt)
        if gait.keeps > 0 and want == 0.0:
            return Stride(velocity, Vec3(velocity.x * dt, velocity.y * dt, velocity.z * dt))
        if in_air and gait.airborne > 0:
            accel_m_s2 = gait.air_accel_m_s2
            brake_m_s2 = gait.air_brake_m_s2
        own_brake = in_air and gait.air_brakes > 0
        back_m_s2 = gait.reverse_m_s2 if gait.reverses > 0 and not own_brake else brake_m_s2
        if gait.keeps > 0:
            back = turned_back(velocity, wanted, back_m_s2, dt)
            left_s = dt - back.spent_s
            turn = turned_at_speed(back.velocity, wanted, accel_m_s2, left_s)
            left_s -= turn.spent_s
            goal = wanted if want > length3(turn.velocity) else turn.velocity
            after = walked_in_space(turn.velocity, goal, accel_m_s2, brake_m_s2, left_s)
            return Stride(after.velocity, plus3(plus3(back.displacement, turn.displacement), after.displacement))
        if (gait.reverses > 0 or gait.coasts > 0) and not own_brake:
            back = turned_back(velocity, wanted, back_m_s2, dt)
            left_s = dt - back.spent_s
            if gait.coasts > 0 and want * FASTER < length3(back.velocity):
                after = coasting(back.velocity, wanted, gait.coast_half_life_s, left_s)
            else:
                after = walked_in_space(back.velocity, wanted, accel_m_s2, brake_m_s2, left_s)
            return Stride(after.velocity, plus3(back.displacement, after.displacement))
    return walked_in_space(velocity, wanted, accel_m_s2, brake_m_s2, dt)


def behind_run(gait: GaitTuning, in_air: bool, velocity: Vec3, begin: Vec3, wanted: Vec3, run_s: float) -> Stride:
    """Return the result of `stride` over `run_s` seconds (above 0) while the wanted velocity changes linearly from
    `begin` to `wanted`, for a gait with constant accelerations.

    First the velocity approaches the moving target, D m/s away along d, and meets it after D / (rate - m . d) s,
    where m is the target's rate of change. From there on it follows the target, or falls behind at its own rate. On a
    line this is exact.

    >>> gait = PLAIN_GAIT._replace(accel_m_s2=8.0, brake_m_s2=8.0)
    >>> behind_run(gait, False, Vec3(2.0, 0.0, 0.0), Vec3(4.0, 0.0, 0.0), ZERO3, 0.5)
    Stride(velocity=Vec3(x=0.0, y=0.0, z=0.0), displacement=Vec3(x=0.875, y=0.0, z=0.0))
    """
    gap = Vec3(begin.x - velocity.x, begin.y - velocity.y, begin.z - velocity.z)
    run = Vec3(wanted.x - begin.x, wanted.y - begin.y, wanted.z - begin.z)
    away = length3(gap)
    meet_s = 0.0
    if away > 0.0:
        rate = gait.air_accel_m_s2 if in_air and gait.airborne > 0 else gait.accel_m_s2
        if velocity.x * gap.x + velocity.y * gap.y + velocity.z * gap.z < 0.0:
            rate = gait.air_brake_m_s2 if in_air and gait.airborne > 0 else gait.brake_m_s2
        closes = rate - (run.x * gap.x + run.y * gap.y + run.z * gap.z) / away / run_s
        meet_s = away / closes if closes > 0.0 and away < closes * run_s else run_s
    if meet_s < run_s:
        meeting = plus3(begin, times3(run, meet_s / run_s))
    else:
        # The target is not reached: the middle of its course gives the direction, its end the distance.
        middle = plus3(gap, times3(run, 0.5))
        to_end = length3(plus3(gap, run))
        meeting = plus3(velocity, times3(middle, to_end / max(length3(middle), LEAST_M_S)))
    met = stride(gait, in_air, velocity, meeting, meet_s)
    left_s = run_s - meet_s
    behind = stride(gait, in_air, met.velocity, wanted, left_s)
    moved = behind.displacement
    if behind.velocity.x == wanted.x and behind.velocity.y == wanted.y and behind.velocity.z == wanted.z:
        moved = times3(plus3(met.velocity, wanted), 0.5 * left_s)
    return Stride(behind.velocity, plus3(met.displacement, moved))


class Run(NamedTuple):
    """How a wanted velocity (m/s) changes within a tick: linearly from `begin` to `corner` in the first `corner_s`
    seconds, 0 if it is constant, and linearly on to `end`.
    """

    begin: Vec3
    corner: Vec3
    corner_s: float
    end: Vec3


def middle_of(begin: Vec3, wanted: Vec3) -> Vec3:
    """Return the middle of a run, with the mean length of its ends: a velocity that turns under the cap is not
    shorter between them. One that reverses is.

    >>> middle_of(Vec3(1.0, 0.0, 0.0), Vec3(0.0, 1.0, 0.0)), middle_of(Vec3(1.0, 0.0, 0.0), Vec3(-0.5, 0.0, 0.0)).x
    (Vec3(x=0.5, y=0.5, z=0.0), 0.25)
    >>> round(length3(middle_of(Vec3(1.0, 0.0, 0.0), Vec3(0.6, 0.8, 0.0))), 12)
    1.0
    """
    middle = times3(plus3(begin, wanted), 0.5)
    if begin.x * wanted.x + begin.y * wanted.y + begin.z * wanted.z <= 0.0:
        return middle
    return times3(middle, 0.5 * (length3(begin) + length3(wanted)) / length3(middle))


RUN_PART_S = 1.0 / 240.0
"""Longest part of a run (s) while the velocity turns on the way to it."""

OFF_LINE_M_S = 1e-6
"""A velocity closer to a line than this (m/s) counts as on it, and a shorter run as none: rounding must not decide.
"""


def is_off_line(velocity: Vec3, begin: Vec3, wanted: Vec3) -> bool:
    """Return whether a velocity (m/s) turns on its way to the wanted one, which changes from `begin` to `wanted`.

    Its distance from the line of that run is |gap x run| / |run|, where gap = begin - velocity and run = wanted -
    begin.

    >>> is_off_line(Vec3(0.0, 1.0, 0.0), Vec3(0.0, 2.0, 0.0), Vec3(0.0, -2.0, 0.0))
    False
    >>> is_off_line(Vec3(0.0, 1.0, 0.0), Vec3(0.0, 2.0, 0.0), Vec3(2.0, 0.0, 0.0))
    True
    """
    gap = Vec3(begin.x - velocity.x, begin.y - velocity.y, begin.z - velocity.z)
    run = Vec3(wanted.x - begin.x, wanted.y - begin.y, wanted.z - begin.z)
    across = Vec3(gap.y * run.z - gap.z * run.y, gap.z * run.x - gap.x * run.z, gap.x * run.y - gap.y * run.x)
    off = across.x * across.x + across.y * across.y + across.z * across.z
    runs = run.x * run.x + run.y * run.y + run.z * run.z
    least = OFF_LINE_M_S * OFF_LINE_M_S
    return runs > least and off > least * runs


def stride_behind_run(
    gait: GaitTuning, in_air: bool, velocity: Vec3, begin: Vec3, wanted: Vec3, run_s: float
) -> Stride:
    """Return the result of `stride` over `run_s` seconds (above 0) while the wanted velocity changes linearly from
    `begin` to `wanted`: a gait with constant accelerations follows it, see `behind_run`, any other form follows its
    mean. Where that is not exact, the run is cut into parts of at most RUN_PART_S.

    >>> drag = with_forms(PLAIN_GAIT._replace(drags=1, drag_per_s=1e9))
    >>> round(stride_behind_run(drag, False, ZERO3, ZERO3, Vec3(4.0, 0.0, 0.0), 0.1).displacement.x, 6)
    0.2
    """
    parts = 1
    if gait.keeps > 0 or gait.coasts > 0 or is_off_line(velocity, begin, wanted):
        # Rounding must not add a part.
        parts = max(1, math.ceil(run_s / RUN_PART_S - 1e-6))
    part_s = run_s / parts
    after = Stride(velocity, ZERO3)
    start = begin
    for part in range(parts):
        share = (part + 1.0) / parts
        end = Vec3(
            begin.x + (wanted.x - begin.x) * share,
            begin.y + (wanted.y - begin.y) * share,
            begin.z + (wanted.z - begin.z) * share,
        )
        if gait.drags > 0 or gait.keeps > 0 or gait.coasts > 0:
            now = stride(gait, in_air, after.velocity, middle_of(start, end), part_s)
        else:
            now = behind_run(gait, in_air, after.velocity, start, end, part_s)
        after = Stride(now.velocity, plus3(after.displacement, now.displacement))
        start = end
    return after


def stride_behind(gait: GaitTuning, in_air: bool, velocity: Vec3, run: Run, dt: float) -> Stride:
    """Return the result of `stride` while the wanted velocity changes (`corner_s` above 0), so that a ramp or
    smoothing moves the body equally far however `dt` is cut.

    >>> fast = Vec3(3.0, 0.0, 0.0)
    >>> stride_behind(PLAIN_GAIT, False, ZERO3, Run(ZERO3, fast, 0.5, fast), 1.0).displacement.x
    2.25
    """
    first = stride_behind_run(gait, in_air, velocity, run.begin, run.corner, run.corner_s)
    left_s = dt - run.corner_s
    if left_s <= 0.0:
        return first
    last = stride_behind_run(gait, in_air, first.velocity, run.corner, run.end, left_s)
    return Stride(last.velocity, plus3(first.displacement, last.displacement))


def plan_stride(gait: GaitTuning, in_air: bool, velocity: Vec3, run: Run, dt: float) -> Stride:
    """Return velocity (m/s) and displacement (m) after `dt` seconds on the plan, where nothing rises or falls.

    >>> plan_stride(PLAIN_GAIT, False, ZERO3, Run(ZERO3, ZERO3, 0.0, Vec3(3.0, 0.0, 0.0)), 0.1).velocity.x
    2.2
    """
    level = Vec3(velocity.x, velocity.y, 0.0)
    if run.corner_s > 0.0:
        return stride_behind(gait, in_air, level, run, dt)
    if gait.forms > 0:
        return stride(gait, in_air, level, run.end, dt)
    wanted_x, wanted_y = run.end.x, run.end.y
    vel_x, vel_y, moved_x, moved_y = walked(
        velocity.x, velocity.y, wanted_x, wanted_y, gait.accel_m_s2, gait.brake_m_s2, dt
    )
    return Stride(Vec3(vel_x, vel_y, 0.0), Vec3(moved_x, moved_y, 0.0))


def line_stride(gait: GaitTuning, in_air: bool, speed: float, wanted: float, dt: float) -> tuple[float, float]:
    """Return the result of `stride` on a line: the speed (m/s, negative backwards), and the distance (m).

    >>> dragged = with_forms(PLAIN_GAIT._replace(drags=1))
    >>> line_stride(PLAIN_GAIT, False, 0.0, -3.0, 0.1)[0], line_stride(dragged, False, 0.0, 2.0, 9e9)[0]
    (-2.2, 2.0)
    """
    if gait.forms > 0:
        after = stride(gait, in_air, Vec3(speed, 0.0, 0.0), Vec3(wanted, 0.0, 0.0), dt)
        return after.velocity.x, after.displacement.x
    moved = speed * dt
    step = math.fabs(wanted - speed)
    if step != 0.0:
        along = math.copysign(1.0, wanted - speed)
        done, added = gained(0.0 - speed * along, step, gait.accel_m_s2, gait.brake_m_s2, dt)
        moved += along * added
        speed = wanted if done == step else speed + along * done
    return speed, moved
