"""The gait in three dimensions: from a wanted velocity to a velocity and the way it covers."""

import math
from typing import NamedTuple

from wendonic.kernels.gait import walked
from wendonic.kernels.kernel import called_kernel


class Flown(NamedTuple):
    """Velocity (m/s) at the end of a tick, and the displacement (m) of it."""

    vel_x: float
    vel_y: float
    vel_z: float
    moved_x: float
    moved_y: float
    moved_z: float


@called_kernel
def flown(
    vel_x: float,
    vel_y: float,
    vel_z: float,
    wanted_x: float,
    wanted_y: float,
    wanted_z: float,
    accel_m_s2: float,
    brake_m_s2: float,
    dt: float,
) -> Flown:
    """Return what `walked` gives, in three dimensions.

    The velocity runs straight to the wanted one, so all of it happens in the plane of the two: along the change of
    velocity, and across it, where nothing changes.

    >>> flown(0.0, 0.0, 0.0, 0.0, 0.0, 2.0, accel_m_s2=4.0, brake_m_s2=8.0, dt=0.25)
    Flown(vel_x=0.0, vel_y=0.0, vel_z=1.0, moved_x=0.0, moved_y=0.0, moved_z=0.125)
    """
    step_x = wanted_x - vel_x
    step_y = wanted_y - vel_y
    step_z = wanted_z - vel_z
    step = math.sqrt(step_x * step_x + step_y * step_y + step_z * step_z)
    if step == 0.0:
        return Flown(vel_x, vel_y, vel_z, vel_x * dt, vel_y * dt, vel_z * dt)
    way_x = step_x / step
    way_y = step_y / step
    way_z = step_z / step
    along = vel_x * way_x + vel_y * way_y + vel_z * way_z
    after, _, moved, _ = walked(along, 0.0, along + step, 0.0, accel_m_s2, brake_m_s2, dt)
    gained = after - along
    extra = moved - along * dt
    if after == along + step:
        # Arrived: the very numbers that were wanted.
        vel = (wanted_x, wanted_y, wanted_z)
    else:
        vel = (vel_x + way_x * gained, vel_y + way_y * gained, vel_z + way_z * gained)
    return Flown(
        vel[0], vel[1], vel[2], vel_x * dt + way_x * extra, vel_y * dt + way_y * extra, vel_z * dt + way_z * extra
    )
