"""Comfort in a headset: the vignette, the head's place in the play space, and the way back out of a wall."""

import math
from typing import NamedTuple

from wendonic.kernels.angles import wrapped_angle
from wendonic.kernels.body.body import Body
from wendonic.kernels.body.ground import HEADER_NUMBERS, PIECE_NUMBERS, WALL_NUMBERS, height_at, in_wall
from wendonic.kernels.half_life import half_life_factor
from wendonic.kernels.row import Row
from wendonic.kernels.vector import ZERO2, ZERO3, Vec2, Vec3, length3, turned


class ComfortTuning(NamedTuple):
    """The vignette is full from `full_accel_m_s2` or `full_turn_rate` (rad/s) on, closes by one half-life and opens
    by another. The play space reaches `half_width_m` to either side and `half_depth_m` forward and back; a place is
    safe while its corners lie within `level_m` of its middle's height; inside a wall it takes `return_s` to be back
    there.
    """

    used: int
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
    that middle, its place on the plan, and where it was last outside (m); whether it was brought back this tick.
    """

    vignette: float
    shown: float
    velocity: Vec3
    yaw: float
    inside_s: float
    safe: Vec2
    offset: Vec2
    head: Vec2
    outside: Vec2
    returned: float


COMFORT_AT_REST = ComfortState(0.0, 0.0, ZERO3, 0.0, 0.0, ZERO2, ZERO2, ZERO2, ZERO2, 0.0)


def vignetted(tuning: ComfortTuning, vignette: float, accel_m_s2: float, turn_rate: float, dt: float) -> float:
    """Return the vignette (0 open, 1 closed) after `dt` seconds of that acceleration and turn rate (rad/s).

    It approaches the larger of both shares of full, at most 1, with the half-life of closing or of opening. Motion
    beyond full within a tick, such as a snap turn or a wall, closes it for as long as the same motion would have
    taken at full: the same at every tick rate.

    >>> headset = NO_COMFORT._replace(full_accel_m_s2=8.0, close_half_life_s=0.5, open_half_life_s=0.25)
    >>> vignetted(headset, 0.0, 8.0, 0.0, 0.5), vignetted(headset, 0.5, 0.0, 0.0, 0.25)
    (0.5, 0.25)
    >>> vignetted(headset, 0.0, 40.0, 0.0, 0.1), vignetted(headset, 0.0, 400.0, 0.0, 0.01)
    (0.5, 0.5)
    """
    share = max(accel_m_s2 / tuning.full_accel_m_s2, abs(turn_rate) / tuning.full_turn_rate)
    wanted = min(share, 1.0)
    if wanted > vignette:
        return wanted + (vignette - wanted) * half_life_factor(tuning.close_half_life_s, dt * max(share, 1.0))
    return wanted + (vignette - wanted) * half_life_factor(tuning.open_half_life_s, dt)


def is_inside(course: Row, step_m: float, state: ComfortState, place: Vec3, under: float) -> bool:
    """Return whether a head whose feet are at that height is inside a wall, or over ground `under` it (m) that is
    more than a step higher; a player who was placed there stands on it.

    >>> wall = (0.0, 1.0, 8.0, 3.0, -9.0, 9.0, 9.0, 3.0, 0.0)
    >>> is_inside(wall, 0.35, COMFORT_AT_REST, Vec3(4.0, 0.0, 0.0), 0.0)
    True
    >>> is_inside(wall, 0.35, COMFORT_AT_REST, Vec3(4.0, 0.0, 3.0), 0.0)
    False
    """
    x, y, feet_z = place
    if in_wall(course, x, y, feet_z):
        return True
    if under <= feet_z + step_m:
        return False
    return state.inside_s > 0.0 or height_at(course, state.head.x, state.head.y) <= feet_z + step_m


def room_meets_wall(tuning: ComfortTuning, course: Row, x: float, y: float, yaw: float, feet_z: float) -> bool:
    """Return whether a wall reaches into the play space about (x, y).

    Two rectangles are apart if they are apart along one of the four directions of their sides: if the distance of
    their middles there exceeds the sum of their half-widths.

    >>> room = NO_COMFORT._replace(half_width_m=1.0, half_depth_m=1.0)
    >>> pole = (0.0, 1.0, 8.0, 0.9, -0.1, 1.1, 0.1, 3.0, 0.0)
    >>> room_meets_wall(room, pole, 0.0, 0.0, 0.0, 0.0), room_meets_wall(room, pole, -0.2, 0.0, 0.0, 0.0)
    (True, False)
    """
    across = turned(1.0, 0.0, yaw)
    along = turned(0.0, 1.0, yaw)
    across_x, across_y = math.fabs(across.x), math.fabs(across.y)
    along_x, along_y = math.fabs(along.x), math.fabs(along.y)
    wide, deep = tuning.half_width_m, tuning.half_depth_m
    reach_x = wide * across_x + deep * along_x
    reach_y = wide * across_y + deep * along_y
    first = HEADER_NUMBERS + PIECE_NUMBERS * int(course[0])
    for wall in range(int(course[1])):
        k = first + WALL_NUMBERS * wall
        left, back, right, forward = course[k], course[k + 1], course[k + 2], course[k + 3]
        # Most walls are nowhere near.
        if left >= x + reach_x or right <= x - reach_x or back >= y + reach_y or forward <= y - reach_y:
            continue
        half_x, half_y = 0.5 * (right - left), 0.5 * (forward - back)
        far_x, far_y = left + half_x - x, back + half_y - y
        if (
            math.fabs(far_x * across.x + far_y * across.y) < wide + half_x * across_x + half_y * across_y
            and math.fabs(far_x * along.x + far_y * along.y) < deep + half_x * along_x + half_y * along_y
            and feet_z < course[k + 4]
        ):
            return True
    return False


def is_safe(tuning: ComfortTuning, course: Row, x: float, y: float, yaw: float, feet_z: float, under: float) -> bool:
    """Return whether the play space about (x, y) is free of walls, and its four corners and the ground `under` the
    head (m) are level with its middle.

    >>> room = NO_COMFORT._replace(half_width_m=1.0, half_depth_m=1.0)
    >>> wall = (0.0, 1.0, 8.0, 3.0, -9.0, 9.0, 9.0, 3.0, 0.0)
    >>> is_safe(room, wall, 0.0, 0.0, 0.0, 0.0, 0.0), is_safe(room, wall, 2.5, 0.0, 0.0, 0.0, 0.0)
    (True, False)
    """
    height = height_at(course, x, y)
    if abs(under - height) > tuning.level_m or room_meets_wall(tuning, course, x, y, yaw, feet_z):
        return False
    if course[0] == 0.0:
        return True
    across = turned(tuning.half_width_m, 0.0, yaw)
    along = turned(0.0, tuning.half_depth_m, yaw)
    for corner in range(4):
        right = 1.0 if corner % 2 == 0 else -1.0
        ahead = 1.0 if corner < 2 else -1.0
        at_x = x + right * across.x + ahead * along.x
        at_y = y + right * across.y + ahead * along.y
        if abs(height_at(course, at_x, at_y) - height) > tuning.level_m:
            return False
    return True


def comfort_output(
    tuning: ComfortTuning,
    course: Row,
    step_m: float,
    state: ComfortState,
    body: Body,
    yaw: float,
    head: Vec2,
    dt: float,
) -> tuple[ComfortState, Body]:
    """Return the new state, and the body moved to the middle of the play space.

    `head` is where the head is in the play space, right and forward of its middle (m); `yaw` (rad) is that of the
    play space. A turn rotates about the head, not about the middle, so turning does not move the player. While the
    head is inside a wall, or inside ground more than `step_m` higher, the vignette closes linearly over `return_s`;
    then the middle returns to the last safe place, at rest and on the ground there. If the head would be inside a
    wall there as well, it returns to where it was last outside.

    >>> room = NO_COMFORT._replace(used=1, half_width_m=1.0, half_depth_m=1.0, return_s=1.0)
    >>> wall = (0.0, 1.0, 8.0, 3.0, -9.0, 9.0, 9.0, 3.0, 0.0)
    >>> there = Body(0.0, Vec3(4.0, 0.0, 0.0), ZERO3)
    >>> inside, _ = comfort_output(room, wall, 0.35, COMFORT_AT_REST, there, 0.0, ZERO2, 0.75)
    >>> after, back = comfort_output(room, wall, 0.35, inside, there, 0.0, ZERO2, 0.25)
    >>> inside.shown, back.position.x, after.returned
    (0.75, 0.0, 1.0)
    """
    before = turned(head.x, head.y, state.yaw)
    offset = turned(head.x, head.y, yaw)
    x = body.position.x + (before.x - offset.x)
    y = body.position.y + (before.y - offset.y)
    velocity, was = body.velocity, state.velocity
    accel = length3(Vec3(velocity.x - was.x, velocity.y - was.y, velocity.z - was.z)) / dt
    vignette = vignetted(tuning, state.vignette, accel, wrapped_angle(yaw - state.yaw) / dt, dt)
    shown = vignette
    z = body.position.z
    at = Vec3(x + offset.x, y + offset.y, z)
    safe = state.safe
    inside_s = returned = 0.0
    under = height_at(course, at.x, at.y)
    if is_inside(course, step_m, state, at, under):
        inside_s = state.inside_s + dt
        # Rounding must not keep it from being complete.
        if inside_s >= tuning.return_s * (1.0 - 1e-9):
            x, y = safe
            inside_s = 0.0
            returned = shown = 1.0
            velocity = ZERO3
            if in_wall(course, x + offset.x, y + offset.y, height_at(course, x + offset.x, y + offset.y)):
                x = state.outside.x - offset.x
                y = state.outside.y - offset.y
            if course[0] > 0.0:
                z = height_at(course, x + offset.x, y + offset.y)
            at = Vec3(x + offset.x, y + offset.y, z)
        else:
            shown = max(shown, inside_s / tuning.return_s)
    elif is_safe(tuning, course, x, y, yaw, z, under):
        safe = Vec2(x, y)
    head_at = Vec2(at.x, at.y)
    outside = head_at if inside_s == 0.0 else state.outside
    after = ComfortState(vignette, shown, velocity, yaw, inside_s, safe, offset, head_at, outside, returned)
    return after, Body(body.face, Vec3(x, y, z), velocity)
