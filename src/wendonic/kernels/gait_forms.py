"""What a gait can have besides a top speed and two rates: reversal, air, drag, coasting, and a loss in turns."""

import math
from typing import NamedTuple

from wendonic.kernels.flown import Flown, flown
from wendonic.kernels.gait import walked
from wendonic.kernels.kernel import called_kernel

COAST_ENDS_M_S = 0.02
"""A half-life never arrives; a body that coasts stands still below this speed."""


class GaitForms(NamedTuple):
    """The rest of a gait; `any` is 0 where it has none of it.

    `reverse_m_s2` brakes while the wish points backwards, the two `air` rates count off the ground; a `drag_per_s`
    above 0 takes the place of all rates, a `coast_half_life_s` above 0 that of the brake, but for a reversal;
    `turn_loss` is the share of speed lost to a wish that points straight back.
    """

    any: int
    reverse_m_s2: float
    air_accel_m_s2: float
    air_brake_m_s2: float
    drag_per_s: float
    coast_half_life_s: float
    turn_loss: float


PLAIN_GAIT = GaitForms(0, 30.0, 22.0, 30.0, 0.0, 0.0, 0.0)


@called_kernel
def dragged(
    vel: tuple[float, float, float], wanted: tuple[float, float, float], drag_per_s: float, dt: float
) -> Flown:
    """Return what thrust against a drag in proportion to speed gives: dv/dt = drag (wanted - v), solved exactly.

    With e = exp(-drag dt), v becomes wanted + (v - wanted) e, and the way is wanted dt + (v - wanted) (1 - e) / drag.
    The terminal speed is thrust / drag.

    >>> dragged((0.0, 0.0, 0.0), (4.0, 0.0, 0.0), math.log(2.0), 1.0).vel_x
    2.0
    """
    left = math.exp(-drag_per_s * dt)
    covered = (1.0 - left) / drag_per_s
    over_x, over_y, over_z = vel[0] - wanted[0], vel[1] - wanted[1], vel[2] - wanted[2]
    return Flown(
        wanted[0] + over_x * left,
        wanted[1] + over_y * left,
        wanted[2] + over_z * left,
        wanted[0] * dt + over_x * covered,
        wanted[1] * dt + over_y * covered,
        wanted[2] * dt + over_z * covered,
    )


@called_kernel
def coasted(
    vel: tuple[float, float, float], wanted: tuple[float, float, float], half_life_s: float, dt: float
) -> Flown:
    """Return what is left of a velocity that falls to a slower one by a half-life; near rest it stands still.

    >>> coasted((0.0, 4.0, 0.0), (0.0, 0.0, 0.0), 0.5, 0.5).vel_y
    2.0
    >>> coasted((0.0, 4.0, 0.0), (0.0, 0.0, 0.0), 0.5, 60.0).vel_y
    0.0
    """
    drag_per_s = math.log(2.0) / half_life_s
    stands = wanted[0] == 0.0 and wanted[1] == 0.0 and wanted[2] == 0.0
    speed = math.sqrt(vel[0] * vel[0] + vel[1] * vel[1] + vel[2] * vel[2])
    if stands and speed <= COAST_ENDS_M_S:
        return Flown(0.0, 0.0, 0.0, 0.0, 0.0, 0.0)
    after = dragged(vel, wanted, drag_per_s, dt)
    if stands and speed * math.exp(-drag_per_s * dt) <= COAST_ENDS_M_S:
        # The way down to that speed, and no further.
        share = (speed - COAST_ENDS_M_S) / (speed * drag_per_s)
        return Flown(0.0, 0.0, 0.0, vel[0] * share, vel[1] * share, vel[2] * share)
    return after


@called_kernel
def carried(
    forms: GaitForms,
    accel_m_s2: float,
    brake_m_s2: float,
    in_air: bool,
    vel: tuple[float, float, float],
    wanted: tuple[float, float, float],
    dt: float,
) -> Flown:
    """Return velocity (m/s) and way (m) after `dt` seconds of a gait with all its forms.

    `turn_loss` leaves 1 - turn_loss (1 - cos a) / 2 of the wanted speed, a being the angle between velocity and wish.

    >>> icy = PLAIN_GAIT._replace(any=1, reverse_m_s2=4.0)
    >>> carried(icy, 20.0, 30.0, False, (2.0, 0.0, 0.0), (-2.0, 0.0, 0.0), 0.25).vel_x
    1.0
    >>> carried(icy, 20.0, 30.0, False, (2.0, 0.0, 0.0), (0.0, 0.0, 0.0), 0.05).vel_x
    0.5
    """
    along = vel[0] * wanted[0] + vel[1] * wanted[1] + vel[2] * wanted[2]
    speed = math.sqrt(vel[0] * vel[0] + vel[1] * vel[1] + vel[2] * vel[2])
    want = math.sqrt(wanted[0] * wanted[0] + wanted[1] * wanted[1] + wanted[2] * wanted[2])
    if forms.turn_loss > 0.0 and speed * want > 0.0:
        kept = 1.0 - forms.turn_loss * 0.5 * (1.0 - along / (speed * want))
        wanted = (wanted[0] * kept, wanted[1] * kept, wanted[2] * kept)
        want *= kept
    if forms.drag_per_s > 0.0:
        return dragged(vel, wanted, forms.drag_per_s, dt)
    if in_air:
        accel_m_s2 = forms.air_accel_m_s2
        brake_m_s2 = forms.air_brake_m_s2
    elif along < 0.0:
        brake_m_s2 = forms.reverse_m_s2
    elif forms.coast_half_life_s > 0.0 and want < speed:
        return coasted(vel, wanted, forms.coast_half_life_s, dt)
    return flown(vel[0], vel[1], vel[2], wanted[0], wanted[1], wanted[2], accel_m_s2, brake_m_s2, dt)


@called_kernel
def strode(
    forms: GaitForms,
    accel_m_s2: float,
    brake_m_s2: float,
    in_air: bool,
    vel_x: float,
    vel_y: float,
    wanted_x: float,
    wanted_y: float,
    dt: float,
) -> tuple[float, float, float, float]:
    """Return vel_x, vel_y, moved_x, moved_y of any gait on the plan: `walked`, or `carried` where it has more.

    >>> strode(PLAIN_GAIT, 20.0, 30.0, False, 0.0, 0.0, 3.0, 0.0, 0.1)
    (2.0, 0.0, 0.1, 0.0)
    """
    if forms.any <= 0:
        return walked(vel_x, vel_y, wanted_x, wanted_y, accel_m_s2, brake_m_s2, dt)
    after = carried(forms, accel_m_s2, brake_m_s2, in_air, (vel_x, vel_y, 0.0), (wanted_x, wanted_y, 0.0), dt)
    return after.vel_x, after.vel_y, after.moved_x, after.moved_y
