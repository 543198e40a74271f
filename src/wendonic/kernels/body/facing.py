"""Which way the body faces."""

import math
from typing import NamedTuple

from wendonic.kernels.angles import wrapped_angle

FACE_TRAVEL = 0
FACE_VIEW = 1
FACE_AIM = 2
FACE_HOLD = 3
FACE_TURN = 4


BEHIND = 1e-9
"""Within this angle (rad) of half a turn a heading counts as exactly behind: rounding must not choose the side."""


def turned_towards(face: float, heading: float, turn_rate: float, dt: float) -> float:
    """Return the heading `face` after turning towards `heading` for `dt` seconds, the short way round.

    All angles in radians, `turn_rate` in rad/s (0 or more). The turn is at most turn_rate * dt and never goes past
    `heading`; a heading exactly behind, to rounding, is reached by turning right. The result is wrapped to -pi..pi.

    >>> degrees = [turned_towards(math.radians(170), math.radians(-170), math.radians(100), dt) for dt in (0.1, 1)]
    >>> [round(math.degrees(angle), 9) for angle in degrees]
    [180.0, -170.0]
    """
    if heading != face:
        difference = wrapped_angle(heading - face)
        # A heading exactly behind is reached by turning right.
        if difference < BEHIND - math.pi:
            difference += math.tau
        step = turn_rate * dt
        if abs(difference) <= step:
            face = wrapped_angle(heading)
        else:
            face = wrapped_angle(face + math.copysign(step, difference))
    return face


def leaves_diagonal(towards: float, heading: float) -> bool:
    """Return whether a heading (rad) may be what is left of a diagonal `towards` (rad) when one of its two keys is
    released first; both are measured from what is forward for the keys.

    >>> quarter = math.pi / 4.0
    >>> [leaves_diagonal(quarter, heading) for heading in (0.0, 0.5, quarter, math.pi)], leaves_diagonal(0.0, 0.1)
    ([True, True, False, False], False)
    """
    apart = math.cos(heading - towards)
    return math.fabs(math.sin(2.0 * towards)) > 0.999 and 0.7 < apart < 1.0 - 1e-9


class Aim(NamedTuple):
    """A point to face: `known` is 1 once there is one, then where it is on the plan (m)."""

    known: float
    x: float
    y: float


def face_after(
    rule: int,
    turn_rate: float,
    face: float,
    heading: float,
    moving: bool,
    view_yaw: float,
    aim: Aim,
    x: float,
    y: float,
    turn: float,
    dt: float,
) -> float:
    """Return the face (rad) after `dt` seconds under a rule, of a body at (x, y).

    `FACE_TRAVEL` turns to `heading` while `moving`; `FACE_VIEW` to the view; `FACE_AIM` to the point that is aimed
    at; `FACE_TURN` turns by `turn` (-1..1); `FACE_HOLD` never. All of them turn at `turn_rate` (rad/s) at most, see
    `turned_towards`. At the point itself the face stays.

    >>> face_after(FACE_AIM, 9.0, 0.0, 0.0, False, 0.0, Aim(1.0, 0.0, -2.0), 0.0, 0.0, 0.0, 1.0) == math.pi
    True
    >>> face_after(FACE_TURN, 2.0, 0.5, 0.0, False, 0.0, Aim(0.0, 0.0, 0.0), 0.0, 0.0, -0.5, 0.25)
    0.25
    """
    if rule == FACE_TRAVEL:
        if moving:
            face = turned_towards(face, heading, turn_rate, dt)
    elif rule == FACE_VIEW:
        face = turned_towards(face, wrapped_angle(view_yaw), turn_rate, dt)
    elif rule == FACE_AIM:
        right = aim.x - x
        forward = aim.y - y
        if aim.known > 0.0 and (right != 0.0 or forward != 0.0):
            face = turned_towards(face, math.atan2(right, forward), turn_rate, dt)
    elif rule == FACE_TURN:
        face = wrapped_angle(face + turn_rate * turn * dt)
    return face
