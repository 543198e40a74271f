"""The gait: from a wanted velocity to a velocity and the way it covers."""

import math

from wendonic.kernels.kernel import kernel


@kernel
def walked(
    vel_x: float,
    vel_y: float,
    wanted_x: float,
    wanted_y: float,
    accel_m_s2: float,
    brake_m_s2: float,
    dt: float,
) -> tuple[float, float, float, float]:
    """Return velocity (m/s) after `dt` seconds, and the displacement (m): vel_x, vel_y, moved_x, moved_y.

    The velocity runs straight to the wanted one: at `brake_m_s2` while the speed falls, at `accel_m_s2`
    while it rises, and stays there once it arrives. Each of the three stretches is integrated in closed
    form (v t + a t² / 2), so the path does not depend on how `dt` is cut. Both rates are above 0.

    >>> walked(0.0, 0.0, 3.0, 0.0, accel_m_s2=20.0, brake_m_s2=30.0, dt=0.1)
    (2.0, 0.0, 0.1, 0.0)
    >>> walked(3.0, 0.0, 0.0, 0.0, accel_m_s2=20.0, brake_m_s2=24.0, dt=0.125)
    (0.0, 0.0, 0.1875, 0.0)
    """
    step_x = wanted_x - vel_x
    step_y = wanted_y - vel_y
    step = math.hypot(step_x, step_y)
    if step == 0.0:
        return vel_x, vel_y, vel_x * dt, vel_y * dt
    way_x = step_x / step
    way_y = step_y / step
    along = 0.0
    changed = 0.0
    left_s = dt
    # Speed falls up to the point of the straight line that is nearest to standing still.
    falling = -(vel_x * way_x + vel_y * way_y)
    if falling > 0.0:
        falling = min(falling, step)
        brake_s = falling / brake_m_s2
        if brake_s >= dt:
            changed = brake_m_s2 * dt
            along = 0.5 * changed * dt
            return (
                vel_x + way_x * changed,
                vel_y + way_y * changed,
                vel_x * dt + way_x * along,
                vel_y * dt + way_y * along,
            )
        left_s = dt - brake_s
        along = falling * (0.5 * brake_s + left_s)
        changed = falling
    rising = step - changed
    accel_s = rising / accel_m_s2
    if accel_s <= left_s:
        along += rising * (left_s - 0.5 * accel_s)
        return wanted_x, wanted_y, vel_x * dt + way_x * along, vel_y * dt + way_y * along
    gained = accel_m_s2 * left_s
    along += 0.5 * gained * left_s
    changed += gained
    return (
        vel_x + way_x * changed,
        vel_y + way_y * changed,
        vel_x * dt + way_x * along,
        vel_y * dt + way_y * along,
    )
