"""The beekeeper's tick written the naive way, with small NumPy arrays for every vector."""

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


def by_numpy_tick(state, keys, stick, yaw, dt):
    """Take (keys_xy, local, face, pos, vel), each vector an array of two; return the next."""
    values, local, face, pos, vel = state
    moved = cornered if np.any(values != keys) and np.all((values != 0.0) | (keys != 0.0)) else ramped
    values, target = moved(values, keys, 0.03, 0.02, dt)
    length = np.linalg.norm(target)
    tilt = np.linalg.norm(stick)
    if tilt > 0.14:
        amount = np.clip((tilt - 0.14) / 0.82, 0.0, 1.0) ** 1.6
        if amount > length:
            length = amount
            target = stick / tilt * amount
    size = np.linalg.norm(target)
    if size > 1.0:
        target = target / size
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
    step = wanted - vel
    distance = np.linalg.norm(step)
    if distance == 0.0:
        return values, local, face, pos + vel * dt, vel
    unit = step / distance
    falling = np.clip(-np.dot(vel, unit), 0.0, distance)
    brake_s = min(falling / 30.0, dt)
    accel_s = min((distance - falling) / 22.0, dt - brake_s)
    braked, gained = 30.0 * brake_s, 22.0 * accel_s
    along = 0.5 * braked * brake_s + braked * (dt - brake_s) + 0.5 * gained * accel_s
    along += gained * (dt - brake_s - accel_s)
    pos = pos + vel * dt + unit * along
    vel = wanted if brake_s + accel_s < dt else vel + unit * (braked + gained)
    return values, local, face, pos, vel
