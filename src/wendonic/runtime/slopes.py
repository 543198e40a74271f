"""Directions along sloping ground, in a game's own axes."""

import math
from collections.abc import Sequence

from wendonic.errors import WendonicError
from wendonic.kernels.body.slope import laid_on_slope
from wendonic.kernels.vector import Vec3
from wendonic.world_axes import PLAN_AXES, GameVector, WorldAxes


def on_slope(direction: Sequence[float], normal: Sequence[float], axes: WorldAxes = PLAN_AXES) -> GameVector:
    """Return a wanted level direction laid onto the ground, with its length and its heading on the plan kept.

    With d the direction and n the ground's normal, t = (n_z d_x, n_z d_y, -(n . d)) lies in the ground for every n,
    and above d; it is brought to the length of d. On level ground that is d itself, bit for bit, and nothing is
    compared with a threshold. `direction` and `normal` are in the game's own `axes` (the plan frame by default); what
    the direction has of up is left out, and the normal may have any length. Raises `WendonicError` for a normal that
    is zero, points down or is not finite, and in a 2-D game.

    >>> on_slope((0.0, 5.0, 0.0), normal=(0.0, -0.6, 0.8))
    (0.0, 4.0, 3.0)
    >>> on_slope((0.0, 0.0, -2.0), normal=(0.0, 1.0, 0.0), axes=WorldAxes("+x", "-z", "+y"))
    (0.0, 0.0, -2.0)
    """
    if axes.up is None or axes.forward is None:
        raise WendonicError("a 2-D game has no slopes; allowed: axes with right, forward and up")
    x, y, _ = axes.to_plan(*direction)
    normal_x, normal_y, normal_z = axes.to_plan(*normal)
    largest = max(abs(normal_x), abs(normal_y), normal_z)
    if not 0.0 < largest < math.inf or normal_z < 0.0:
        raise WendonicError(f"normal: found {tuple(normal)}; allowed: a finite vector that points up")
    # Only the direction of a normal counts, however long it is.
    return axes.from_plan(*laid_on_slope(x, y, Vec3(normal_x / largest, normal_y / largest, normal_z / largest)))
