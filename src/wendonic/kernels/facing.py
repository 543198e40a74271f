"""Which way the body faces."""

import math

from wendonic.kernels.angles import wrapped_angle
from wendonic.kernels.kernel import called_kernel, kernel

FACE_TRAVEL = 0
FACE_VIEW = 1
FACE_AIM = 2
FACE_HOLD = 3
FACE_TURN = 4


@kernel
def turned_towards(face: float, heading: float, turn_rate: float, dt: float) -> float:
    """Return the heading `face` after turning towards `heading` for `dt` seconds, the short way round.

    All angles in radians, `turn_rate` in rad/s (0 or more). The turn is at most turn_rate * dt and never
    goes past `heading`; exactly behind is reached by the right. The result is wrapped to -pi..pi.

    >>> degrees = [turned_towards(math.radians(170), math.radians(-170), math.radians(100), dt) for dt in (0.1, 1)]
    >>> [round(math.degrees(angle), 9) for angle in degrees]
    [180.0, -170.0]
    """
    if heading == face:
        return face
    difference = wrapped_angle(heading - face)
    step = turn_rate * dt
    if abs(difference) <= step:
        return wrapped_angle(heading)
    return wrapped_angle(face + math.copysign(step, difference))


@called_kernel
def faced(
    rule: int,
    turn_rate: float,
    face: float,
    heading: float,
    moving: bool,
    view_yaw: float,
    aim: tuple[float, float, float],
    turn: float,
    dt: float,
) -> float:
    """Return the face (rad) after `dt` seconds under a rule.

    `FACE_TRAVEL` turns to `heading` while `moving`; `FACE_VIEW` to the view; `FACE_AIM` to the point that `aim` has
    (1 if there is one, then how far it is to the right and ahead on the plan, m); `FACE_TURN` turns by `turn`
    (-1..1); `FACE_HOLD` never. All of them turn at `turn_rate` (rad/s) at most, see `turned_towards`. At the point
    itself the face stays.

    >>> faced(FACE_AIM, 9.0, 0.0, 0.0, False, 0.0, (1.0, 0.0, -2.0), 0.0, 1.0) == math.pi
    True
    >>> faced(FACE_TURN, 2.0, 0.5, 0.0, False, 0.0, (0.0, 0.0, 0.0), -0.5, 0.25)
    0.25
    """
    if rule == FACE_TRAVEL:
        return turned_towards(face, heading, turn_rate, dt) if moving else face
    if rule == FACE_VIEW:
        return turned_towards(face, wrapped_angle(view_yaw), turn_rate, dt)
    if rule == FACE_AIM:
        known, right, ahead = aim
        if known > 0.0 and (right != 0.0 or ahead != 0.0):
            return turned_towards(face, math.atan2(right, ahead), turn_rate, dt)
        return face
    if rule == FACE_TURN:
        return wrapped_angle(face + turn_rate * turn * dt)
    return face
