"""Comfort in a headset: the vignette, the head's place in the play space, and the way back out of a wall."""

import math
from typing import NamedTuple

from wendonic.kernels.angles import wrapped_angle
from wendonic.kernels.body import Body
from wendonic.kernels.ground import ground_at, in_wall
from wendonic.kernels.kernel import Row, called_kernel
from wendonic.kernels.smoothing import half_life_factor
from wendonic.kernels.steer_frame import FRAME_CAMERA, steered


class ComfortTuning(NamedTuple):
    """The vignette is full from `full_accel_m_s2` or `full_turn_rate` (rad/s) on, closes by one half-life and opens
    by another. The play space reaches `half_width_m` to either side and `half_depth_m` ahead and back; a place is
    safe while its corners lie within `level_m` of its middle's height; inside a wall it takes `return_s` to be back
    there.
    """

    on: int
    full_accel_m_s2: float
    full_turn_rate: float
    close_half_life_s: float
    open_half_life_s: float
    half_width_m: float
    half_depth_m: float
    level_m: float
    return_s: float


NO_COMFORT = ComfortTuning(0, 1.0, 1.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0)


class ComfortState(NamedTuple):
    """`vignette` from motion alone, and as it is `shown`; the last velocity (m/s) and yaw (rad) of the play space;
    how long the head has been inside a wall, and the last safe middle of the play space (m); the head's offset from
    that middle and its place on the plan (m); whether it was brought back this tick.
    """

    vignette: float
    shown: float
    vel_x: float
    vel_y: float
    vel_z: float
    yaw: float
    inside_s: float
    safe_x: float
    safe_y: float
    offset_x: float
    offset_y: float
    head_x: float
    head_y: float
    returned: float


COMFORT_AT_REST = ComfortState(0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0)


@called_kernel
def vignetted(tuning: ComfortTuning, vignette: float, accel_m_s2: float, turn_rate: float, dt: float) -> float:
    """Return the vignette (0 open, 1 closed) after `dt` seconds of that acceleration and turn rate (rad/s).

    It runs to the larger of both shares of full, at most 1, by the half-life of closing or of opening.

    >>> headset = NO_COMFORT._replace(full_accel_m_s2=8.0, close_half_life_s=0.5, open_half_life_s=0.25)
    >>> vignetted(headset, 0.0, 8.0, 0.0, 0.5), vignetted(headset, 0.5, 0.0, 0.0, 0.25)
    (0.5, 0.25)
    """
    wanted = min(max(accel_m_s2 / tuning.full_accel_m_s2, abs(turn_rate) / tuning.full_turn_rate), 1.0)
    half_life_s = tuning.close_half_life_s if wanted > vignette else tuning.open_half_life_s
    return wanted + (vignette - wanted) * half_life_factor(half_life_s, dt)


@called_kernel
def is_safe(tuning: ComfortTuning, course: Row, x: float, y: float, yaw: float, head_x: float, head_y: float) -> bool:
    """Return whether the head and all four corners of the play space about (x, y) are out of walls and level.

    >>> room = NO_COMFORT._replace(half_width_m=1.0, half_depth_m=1.0)
    >>> wall = (0.0, 1.0, 7.0, 3.0, -9.0, 9.0, 9.0, 0.0)
    >>> is_safe(room, wall, 0.0, 0.0, 0.0, 0.0, 0.0), is_safe(room, wall, 2.5, 0.0, 0.0, 2.0, 0.0)
    (True, False)
    """
    height = ground_at(course, x, y).height
    safe = (
        not in_wall(course, head_x, head_y)
        and abs(ground_at(course, head_x, head_y).height - height) <= tuning.level_m
    )
    for corner in range(4):
        right = tuning.half_width_m if corner % 2 == 0 else -tuning.half_width_m
        ahead = tuning.half_depth_m if corner < 2 else -tuning.half_depth_m
        to_x, to_y = steered(right, ahead, FRAME_CAMERA, yaw)
        flat = abs(ground_at(course, x + to_x, y + to_y).height - height) <= tuning.level_m
        safe = safe and flat and not in_wall(course, x + to_x, y + to_y)
    return safe


@called_kernel
def comforted(
    tuning: ComfortTuning,
    course: Row,
    state: ComfortState,
    body: Body,
    yaw: float,
    head: tuple[float, float],
    dt: float,
) -> tuple[ComfortState, Body]:
    """Return the new state, and the body brought to where it belongs: the middle of the play space.

    `head` is where the head is in the play space, right and ahead of its middle (m); `yaw` (rad) is that of the play
    space. A turn goes round the head, not round the middle, so nobody is carried about by turning. While the head is
    inside a wall the vignette closes evenly over `return_s`; then the middle is back at the last safe place, at rest.

    >>> room = NO_COMFORT._replace(on=1, half_width_m=1.0, half_depth_m=1.0, return_s=1.0)
    >>> wall = (0.0, 1.0, 7.0, 3.0, -9.0, 9.0, 9.0, 0.0)
    >>> there = Body(0.0, 4.0, 0.0, 0.0, 0.0, 0.0, 0.0)
    >>> inside, _ = comforted(room, wall, COMFORT_AT_REST, there, 0.0, (0.0, 0.0), 0.75)
    >>> after, back = comforted(room, wall, inside, there, 0.0, (0.0, 0.0), 0.25)
    >>> inside.shown, back.pos_x, after.returned
    (0.75, 0.0, 1.0)
    """
    face, pos_x, pos_y, pos_z, vel_x, vel_y, vel_z = body
    before_x, before_y = steered(head[0], head[1], FRAME_CAMERA, state.yaw)
    offset_x, offset_y = steered(head[0], head[1], FRAME_CAMERA, yaw)
    pos_x += before_x - offset_x
    pos_y += before_y - offset_y
    accel = math.sqrt((vel_x - state.vel_x) ** 2 + (vel_y - state.vel_y) ** 2 + (vel_z - state.vel_z) ** 2) / dt
    vignette = vignetted(tuning, state.vignette, accel, wrapped_angle(yaw - state.yaw) / dt, dt)
    shown = vignette
    head_x, head_y = pos_x + offset_x, pos_y + offset_y
    safe_x, safe_y, inside_s, returned = state.safe_x, state.safe_y, 0.0, 0.0
    if in_wall(course, head_x, head_y):
        inside_s = state.inside_s + dt
        # A hair less than the whole of it is the whole of it.
        if inside_s >= tuning.return_s * (1.0 - 1e-9):
            pos_x, pos_y, inside_s, returned = safe_x, safe_y, 0.0, 1.0
            vel_x = vel_y = vel_z = 0.0
            head_x, head_y = pos_x + offset_x, pos_y + offset_y
            shown = 1.0
        else:
            shown = max(shown, inside_s / tuning.return_s)
    elif is_safe(tuning, course, pos_x, pos_y, yaw, head_x, head_y):
        safe_x, safe_y = pos_x, pos_y
    after = ComfortState(
        vignette,
        shown,
        vel_x,
        vel_y,
        vel_z,
        yaw,
        inside_s,
        safe_x,
        safe_y,
        offset_x,
        offset_y,
        head_x,
        head_y,
        returned,
    )
    return after, Body(face, pos_x, pos_y, pos_z, vel_x, vel_y, vel_z)
