"""Which way the body faces."""

import math

from wendonic.kernels.angles import wrapped_angle
from wendonic.kernels.kernel import kernel


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
