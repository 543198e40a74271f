"""The beekeeper's tick in straight-line Python, the way a game without Wendonic has it."""

import math

LN_2 = math.log(2.0)


def by_hand_ramp(key, target, dt):
    """Return where a key's ramp ends, and the steady value that smoothing would end the tick at the same place for.

    0.03 s up, 0.02 s down, a change of side through zero; the half-life is 0.008 s.
    """
    smooth, rest = 0.0, dt
    while rest > 0.0 and key != target:
        if key * target < 0.0 or abs(target) < abs(key):
            end, whole = 0.0, 0.02
        else:
            end, whole = target, 0.03
        part = min(abs(end - key) * whole, rest)
        if part == rest and abs(end - key) * whole > rest:
            end = key + math.copysign(rest / whole, end - key)
        lag = (end - key) / part * 0.008 / LN_2
        smooth = end - lag + (smooth - key + lag) * 0.5 ** (part / 0.008)
        key = end
        rest -= part
    if rest > 0.0:
        smooth = key + (smooth - key) * 0.5 ** (rest / 0.008)
    return key, smooth / -math.expm1(-LN_2 * dt / 0.008)


def by_hand_corner(key_x, key_y, target_x, target_y, dt):
    """Return both ramps' ends, and what both come to for smoothing, capped at length 1 all the while."""
    ends = by_hand_ramp(key_x, target_x, dt)[0], by_hand_ramp(key_y, target_y, dt)[0]
    part, smooth_x, smooth_y = dt / 8, 0.0, 0.0
    left_over = 0.5 ** (part / 0.008)
    for _ in range(8):
        x, y = target_x, target_y
        if key_x != target_x:
            key_x, x = by_hand_ramp(key_x, target_x, part)
        if key_y != target_y:
            key_y, y = by_hand_ramp(key_y, target_y, part)
        size = max(math.hypot(x, y), 1.0)
        smooth_x = x / size + (smooth_x - x / size) * left_over
        smooth_y = y / size + (smooth_y - y / size) * left_over
    share = -math.expm1(-LN_2 * dt / 0.008)
    return *ends, smooth_x / share, smooth_y / share


def by_hand_mean(key, end, target, dt):
    """Return the mean of a key's ramp in a tick, and how long it runs."""
    if key * target < 0.0 or target == 0.0:
        run = min(abs(key) * 0.02 + abs(target) * 0.03, dt)
    else:
        run = min(abs(target - key) * 0.03, dt)
    return end + 0.5 * (key - end) * run / dt, run


def by_hand_walk(vel_x, vel_y, wanted_x, wanted_y, dt):
    """Brake at 30 m/s² while speed falls, speed up at 22 m/s² while it rises; return velocity and displacement."""
    step_x = wanted_x - vel_x
    step_y = wanted_y - vel_y
    step = math.hypot(step_x, step_y)
    if step == 0.0 or dt <= 0.0:
        return vel_x, vel_y, vel_x * dt, vel_y * dt
    way_x = step_x / step
    way_y = step_y / step
    falling = min(max(-(vel_x * way_x + vel_y * way_y), 0.0), step)
    brake_s = min(falling / 30.0, dt)
    accel_s = min((step - falling) / 22.0, dt - brake_s)
    braked = 30.0 * brake_s
    gained = 22.0 * accel_s
    along = 0.5 * braked * brake_s + braked * (dt - brake_s) + 0.5 * gained * accel_s
    along += gained * (dt - brake_s - accel_s)
    moved_x, moved_y = vel_x * dt + way_x * along, vel_y * dt + way_y * along
    if accel_s < dt - brake_s:
        return wanted_x, wanted_y, moved_x, moved_y
    return vel_x + way_x * (braked + gained), vel_y + way_y * (braked + gained), moved_x, moved_y


def by_hand_follow(vel_x, vel_y, from_x, from_y, to_x, to_y, dt):
    """Follow a wanted velocity that runs straight; where the way to it is not, in parts of at most 1/240 s."""
    run_x, run_y, gap_x, gap_y = to_x - from_x, to_y - from_y, from_x - vel_x, from_y - vel_y
    across = gap_x * run_y - gap_y * run_x
    runs = run_x * run_x + run_y * run_y
    if runs <= 1e-12 or across * across <= 1e-12 * runs:
        return by_hand_follow_part(vel_x, vel_y, from_x, from_y, to_x, to_y, dt)
    parts = max(1, math.ceil(dt * 240.0 - 1e-6))
    part_s = dt / parts
    moved_x = moved_y = 0.0
    last_x, last_y = from_x, from_y
    for part in range(parts):
        share = (part + 1.0) / parts
        next_x, next_y = from_x + run_x * share, from_y + run_y * share
        vel_x, vel_y, more_x, more_y = by_hand_follow_part(vel_x, vel_y, last_x, last_y, next_x, next_y, part_s)
        moved_x += more_x
        moved_y += more_y
        last_x, last_y = next_x, next_y
    return vel_x, vel_y, moved_x, moved_y


def by_hand_follow_part(vel_x, vel_y, from_x, from_y, to_x, to_y, dt):
    """Meet a wanted velocity that runs straight, then keep up with it, or fall behind."""
    gap_x = from_x - vel_x
    gap_y = from_y - vel_y
    away = math.hypot(gap_x, gap_y)
    meet = 0.0
    if away > 0.0:
        rate = 30.0 if vel_x * gap_x + vel_y * gap_y < 0.0 else 22.0
        closes = rate - ((to_x - from_x) * gap_x + (to_y - from_y) * gap_y) / away / dt
        meet = away / closes if closes > 0.0 and away < closes * dt else dt
    if meet < dt:
        at_x = from_x + (to_x - from_x) * meet / dt
        at_y = from_y + (to_y - from_y) * meet / dt
    else:
        # Not met: towards the middle, as far as the end is.
        way_x = 0.5 * (from_x + to_x) - vel_x
        way_y = 0.5 * (from_y + to_y) - vel_y
        longer = math.hypot(to_x - vel_x, to_y - vel_y) / max(math.hypot(way_x, way_y), 1e-12)
        at_x = vel_x + way_x * longer
        at_y = vel_y + way_y * longer
    vel_x, vel_y, moved_x, moved_y = by_hand_walk(vel_x, vel_y, at_x, at_y, meet)
    end_x, end_y, more_x, more_y = by_hand_walk(vel_x, vel_y, to_x, to_y, dt - meet)
    if end_x == to_x and end_y == to_y:
        more_x = 0.5 * (vel_x + to_x) * (dt - meet)
        more_y = 0.5 * (vel_y + to_y) * (dt - meet)
    return end_x, end_y, moved_x + more_x, moved_y + more_y


def by_hand_tick(state, right, left, forward, back, stick_x, stick_y, yaw, dt):
    """Take (key_x, key_y, out, local_x, local_y, face, pos_x, pos_y, vel_x, vel_y), return the next; same numbers."""
    key_x, key_y, out, local_x, local_y, face, pos_x, pos_y, vel_x, vel_y = state
    # Keys: opposites cancel, ramps.
    target_x = right - left
    target_y = forward - back
    x, y = key_x, key_y
    run = 0.0
    if key_x != target_x or key_y != target_y:
        was_x, was_y = key_x, key_y
        if (key_x or target_x) and (key_y or target_y):
            key_x, key_y, x, y = by_hand_corner(key_x, key_y, target_x, target_y, dt)
        elif key_x != target_x:
            key_x, x = by_hand_ramp(key_x, target_x, dt)
        else:
            key_y, y = by_hand_ramp(key_y, target_y, dt)
        mean_x, run_x = by_hand_mean(was_x, key_x, target_x, dt)
        mean_y, run_y = by_hand_mean(was_y, key_y, target_y, dt)
        run = max(run_x, run_y)
    length = math.hypot(x, y)
    # Stick: round dead zone with a release, rim, power curve; the stronger of the two wins.
    tilt = math.hypot(stick_x, stick_y)
    out = tilt > (0.11 if out else 0.14)
    if out:
        share = 1.0 if tilt >= 0.96 else (tilt - 0.14) / 0.82 if tilt > 0.14 else 1e-12
        amount = share**1.6
        if amount > length:
            length = amount
            x = stick_x / tilt * amount
            y = stick_y / tilt * amount
            run = 0.0
    # Diagonals are capped, then smoothed.
    size = math.hypot(x, y)
    if size > 1.0:
        x /= size
        y /= size
    was_x, was_y = local_x, local_y
    left_over = 0.5 ** (dt / 0.008)
    local_x = x + (local_x - x) * left_over
    local_y = y + (local_y - y) * left_over
    amount = math.hypot(local_x, local_y)
    if length == 0.0 and amount < 1e-3:
        local_x = local_y = amount = 0.0
    # Camera frame.
    sine = math.sin(yaw)
    cosine = math.cos(yaw)
    move_x = local_x * cosine + local_y * sine
    move_y = local_y * cosine - local_x * sine
    # Face the way of travel, the short way round, 540 degrees a second.
    heading = 0.0
    if amount > 0.0:
        heading = math.atan2(move_x, move_y)
        difference = heading - face
        if difference > math.pi:
            difference -= math.tau
        elif difference <= -math.pi:
            difference += math.tau
        step = 9.42477796076938 * dt
        if abs(difference) <= step:
            face = heading
        else:
            face += math.copysign(step, difference)
            if face > math.pi:
                face -= math.tau
            elif face <= -math.pi:
                face += math.tau
    # Gait: 3.2 m/s, brake at 30 m/s² while the speed falls, speed up at 22 m/s² while it rises.
    if abs(local_x - was_x) + abs(local_y - was_y) > 1e-5:
        # Two straight runs, to a corner that gives them the mean of the tick, and on.
        if run == 0.0:
            mean_x, mean_y = x, y
        else:
            size = max(math.hypot(mean_x, mean_y), 1.0)
            mean_x /= size
            mean_y /= size
        lag = 0.008 / (dt * LN_2)
        first = min(0.5 * dt, 0.016)
        share = first / dt
        x = 2.0 * (mean_x - (local_x - was_x) * lag) - local_x + (local_x - was_x) * share
        y = 2.0 * (mean_y - (local_y - was_y) * lag) - local_y + (local_y - was_y) * share
        most = max(math.hypot(was_x, was_y), math.hypot(local_x, local_y), math.hypot(mean_x, mean_y))
        size = math.hypot(x, y)
        if size > most:
            x *= most / size
            y *= most / size
        from_x, from_y = (was_x * cosine + was_y * sine) * 3.2, (was_y * cosine - was_x * sine) * 3.2
        over_x, over_y = (x * cosine + y * sine) * 3.2, (y * cosine - x * sine) * 3.2
        vel_x, vel_y, moved_x, moved_y = by_hand_follow(vel_x, vel_y, from_x, from_y, over_x, over_y, first)
        pos_x += moved_x
        pos_y += moved_y
        vel_x, vel_y, moved_x, moved_y = by_hand_follow(
            vel_x, vel_y, over_x, over_y, move_x * 3.2, move_y * 3.2, dt - first
        )
    else:
        moved_x = vel_x * dt
        moved_y = vel_y * dt
        if vel_x != move_x * 3.2 or vel_y != move_y * 3.2:
            vel_x, vel_y, moved_x, moved_y = by_hand_walk(vel_x, vel_y, move_x * 3.2, move_y * 3.2, dt)
    pos_x += moved_x
    pos_y += moved_y
    return key_x, key_y, out, local_x, local_y, face, pos_x, pos_y, vel_x, vel_y
