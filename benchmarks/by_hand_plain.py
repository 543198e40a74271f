"""The same without ramps and smoothing, as the beekeeper is shipped."""

import math


def by_hand_plain_tick(state, right, left, forward, back, stick_x, stick_y, yaw, dt):
    """Take (out, face, pos_x, pos_y, vel_x, vel_y), return the next; same numbers."""
    out, face, pos_x, pos_y, vel_x, vel_y = state
    # Keys: opposites cancel.
    x = right - left
    y = forward - back
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
    # Diagonals are capped.
    if length > 1.0:
        x /= length
        y /= length
    # Camera frame.
    sine = math.sin(yaw)
    cosine = math.cos(yaw)
    move_x = x * cosine + y * sine
    move_y = y * cosine - x * sine
    # Face the way of travel, the short way round, 540 degrees a second.
    heading = 0.0
    if length > 0.0:
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
    step_x = move_x * 3.2 - vel_x
    step_y = move_y * 3.2 - vel_y
    step = math.hypot(step_x, step_y)
    if step == 0.0:
        pos_x += vel_x * dt
        pos_y += vel_y * dt
    else:
        way_x = step_x / step
        way_y = step_y / step
        falling = min(max(-(vel_x * way_x + vel_y * way_y), 0.0), step)
        brake_s = min(falling / 30.0, dt)
        accel_s = min((step - falling) / 22.0, dt - brake_s)
        braked = 30.0 * brake_s
        gained = 22.0 * accel_s
        along = 0.5 * braked * brake_s + braked * (dt - brake_s) + 0.5 * gained * accel_s
        along += gained * (dt - brake_s - accel_s)
        pos_x += vel_x * dt + way_x * along
        pos_y += vel_y * dt + way_y * along
        if accel_s < dt - brake_s:
            vel_x = move_x * 3.2
            vel_y = move_y * 3.2
        else:
            vel_x += way_x * (braked + gained)
            vel_y += way_y * (braked + gained)
    return out, face, pos_x, pos_y, vel_x, vel_y
