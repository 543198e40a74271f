"""The beekeeper's tick written the naive way, with small NumPy arrays for every vector."""

import itertools
import math

import numpy as np

LAG_S = 0.008 / math.log(2.0)


def followed(smooth, begin, end, part):
    """Smooth an input that runs straight from `begin` to `end` over `part` seconds."""
    slope = np.divide(end - begin, part, out=np.zeros(2), where=part > 0.0) * LAG_S
    return np.where(part > 0.0, end - slope + (smooth - begin + slope) * 0.5 ** (part / 0.008), smooth)


def ramped(values, targets, rise_s, fall_s, dt):
    """Move keys' values towards their targets, through zero; return them, and what smoothing makes of the way."""
    crossing = values * targets < 0.0
    falling = crossing | (np.abs(targets) < np.abs(values))
    stops = np.where(falling & ~crossing, targets, 0.0)
    fall_time = np.where(falling, np.abs(values - stops) * fall_s, 0.0)
    part = np.minimum(fall_time, dt)
    fallen = np.where(falling, values + np.sign(stops - values) * part / fall_s, values)
    fallen = np.where(falling & (fall_time <= dt), stops, fallen)
    smooth = followed(np.zeros(2), values, fallen, part)
    rest = np.where(fall_time <= dt, dt - part, 0.0)
    rise = np.minimum(np.abs(targets - fallen), rest / rise_s)
    risen = fallen + np.sign(targets - fallen) * rise
    part = np.minimum(rise * rise_s, rest)
    smooth = followed(smooth, fallen, risen, part)
    smooth = followed(smooth, risen, risen, rest - part)
    return risen, smooth / (1.0 - 0.5 ** (dt / 0.008))


def cornered(values, targets, rise_s, fall_s, dt):
    """Do the same for two keys at once, their length capped at 1 all the while."""
    ends, _ = ramped(values, targets, rise_s, fall_s, dt)
    part, smooth = dt / 8, np.zeros(2)
    for _ in range(8):
        values, felt = ramped(values, targets, rise_s, fall_s, part)
        felt = felt / max(np.linalg.norm(felt), 1.0)
        smooth = felt + (smooth - felt) * 0.5 ** (part / 0.008)
    return ends, smooth / (1.0 - 0.5 ** (dt / 0.008))


def walked(vel, wanted, dt):
    """Brake at 30 m/s² while speed falls, speed up at 22 m/s² while it rises; return velocity and displacement."""
    step = wanted - vel
    distance = np.linalg.norm(step)
    if distance == 0.0 or dt <= 0.0:
        return vel, vel * dt
    unit = step / distance
    falling = np.clip(-np.dot(vel, unit), 0.0, distance)
    brake_s = min(falling / 30.0, dt)
    accel_s = min((distance - falling) / 22.0, dt - brake_s)
    braked, gained = 30.0 * brake_s, 22.0 * accel_s
    along = 0.5 * braked * brake_s + braked * (dt - brake_s) + 0.5 * gained * accel_s
    along += gained * (dt - brake_s - accel_s)
    return wanted if accel_s < dt - brake_s else vel + unit * (braked + gained), vel * dt + unit * along


def follows(vel, begin, wanted, dt):
    """Follow a wanted velocity that runs straight; where the way to it is not, in parts of at most 1/240 s."""
    run, gap = wanted - begin, begin - vel
    runs = np.dot(run, run)
    if runs <= 1e-12 or (gap[0] * run[1] - gap[1] * run[0]) ** 2 <= 1e-12 * runs:
        return follows_part(vel, begin, wanted, dt)
    parts = max(1, math.ceil(dt * 240.0 - 1e-6))
    ends = [begin + run * (part / parts) for part in range(parts + 1)]
    moved = np.zeros(2)
    for start, end in itertools.pairwise(ends):
        vel, more = follows_part(vel, start, end, dt / parts)
        moved = moved + more
    return vel, moved


def follows_part(vel, begin, wanted, dt):
    """Meet a wanted velocity that runs straight, then keep up with it, or fall behind."""
    gap = begin - vel
    away = np.linalg.norm(gap)
    meet = 0.0
    if away > 0.0:
        closes = (30.0 if np.dot(vel, gap) < 0.0 else 22.0) - np.dot(wanted - begin, gap) / away / dt
        meet = away / closes if closes > 0.0 and away < closes * dt else dt
    aim = begin + (wanted - begin) * meet / dt
    if meet >= dt:
        middle = 0.5 * (begin + wanted) - vel
        aim = vel + middle * np.linalg.norm(wanted - vel) / max(np.linalg.norm(middle), 1e-12)
    met, moved = walked(vel, aim, meet)
    end, more = walked(met, wanted, dt - meet)
    if np.array_equal(end, wanted):
        more = 0.5 * (met + wanted) * (dt - meet)
    return end, moved + more


def by_numpy_tick(state, keys, stick, yaw, dt):
    """Take (keys_xy, local, face, pos, vel), each vector an array of two; return the next."""
    values, local, face, pos, vel = state
    moved = cornered if np.any(values != keys) and np.all((values != 0.0) | (keys != 0.0)) else ramped
    began = values
    values, target = moved(values, keys, 0.03, 0.02, dt)
    falls = (began * keys < 0.0) | (keys == 0.0)
    whole = np.where(falls, np.abs(began) * 0.02 + np.abs(keys) * 0.03, np.abs(keys - began) * 0.03)
    mean = values + 0.5 * (began - values) * np.minimum(whole, dt) / dt
    mean = mean / max(np.linalg.norm(mean), 1.0)
    runs = np.any(began != keys)
    length = np.linalg.norm(target)
    tilt = np.linalg.norm(stick)
    if tilt > 0.14:
        amount = np.clip((tilt - 0.14) / 0.82, 0.0, 1.0) ** 1.6
        if amount > length:
            length = amount
            target = stick / tilt * amount
            runs = False
    size = np.linalg.norm(target)
    if size > 1.0:
        target = target / size
    was = local
    local = target + (local - target) * 0.5 ** (dt / 0.008)
    amount = np.linalg.norm(local)
    if length == 0.0 and amount < 1e-3:
        local = np.zeros(2)
        amount = 0.0
    turn = np.array([[np.cos(yaw), np.sin(yaw)], [-np.sin(yaw), np.cos(yaw)]])
    move = turn @ local
    if amount > 0.0:
        heading = np.arctan2(move[0], move[1])
        difference = (heading - face + math.pi) % math.tau - math.pi
        face = (
            face + np.clip(difference, -9.42477796076938 * dt, 9.42477796076938 * dt) + math.pi
        ) % math.tau - math.pi
    wanted = move * 3.2
    if np.sum(np.abs(local - was)) <= 1e-5:
        vel, moved = walked(vel, wanted, dt)
        return values, local, face, pos + moved, vel
    first_s = min(dt / 2, 0.016)
    corner = 2.0 * ((mean if runs else target) - (local - was) * LAG_S / dt) - local + (local - was) * first_s / dt
    most = max(np.linalg.norm(was), np.linalg.norm(local), np.linalg.norm(mean if runs else target))
    corner = corner * min(most / max(np.linalg.norm(corner), 1e-300), 1.0)
    vel, first = follows(vel, turn @ was * 3.2, turn @ corner * 3.2, first_s)
    vel, last = follows(vel, turn @ corner * 3.2, wanted, dt - first_s)
    return values, local, face, pos + first + last, vel
