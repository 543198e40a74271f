"""Checks a game's reports of its body, and converts them to the plan frame."""

import math
from collections.abc import Sequence

from wendonic.errors import WendonicError
from wendonic.world_axes import WorldAxes, vector_numbers

Numbers = tuple[float, ...]


def plan_vector(
    axes: WorldAxes,
    what: str,
    vector: Sequence[float | Sequence[float]],
    was: Sequence[float],
    units: float = 1.0,
) -> tuple[float, float, float]:
    """Return a vector of the game in the plan frame; a component that a 2-D game does not have stays as it was.
    `units` of the game's unit are a metre, for places and velocities.

    Raises `WendonicError` for too few or too many numbers, or for one that is not finite.
    """
    try:
        numbers = vector_numbers(vector)
        if not all(map(math.isfinite, numbers)):
            raise WendonicError(f"found {numbers}; allowed: finite numbers")
        x, y, z = axes.plan_of(numbers)
    except WendonicError as error:
        found = str(error)
        raise WendonicError(f"{what}: {found if found.startswith('found') else f'found {found}'}") from None
    return axes.kept_from((x / units, y / units, z / units), was)


def corrected_body(
    axes: WorldAxes,
    body: Numbers,
    place: Sequence[float | Sequence[float]],
    velocity: Sequence[float] | None,
    facing: Sequence[float] | None,
) -> list[float]:
    """Return the numbers of a body (see `runtime.reader.BODY`) with the game's corrections; what it does not mention
    stays as it was.

    >>> corrected_body(WorldAxes("+x", "-z", "+y"), (0.0,) * 7, (1.0, 2.0, 3.0), None, (1.0, 0.0, 0.0))[:4]
    [1.5707963267948966, 1.0, -3.0, 2.0]
    """
    face, *rest = body
    at, moving = rest[:3], rest[3:]
    if place:
        at = list(plan_vector(axes, "place", place, at, axes.units_per_m))
    if velocity is not None:
        moving = list(plan_vector(axes, "velocity", velocity, moving, axes.units_per_m))
    if facing is not None:
        x, y, _ = plan_vector(axes, "facing", facing, (0.0, 0.0, 0.0))
        if x == 0.0 and y == 0.0:
            raise WendonicError(f"facing: found {tuple(facing)}; allowed: a vector that is not zero, nor straight up")
        face = math.atan2(x, y)
    return [face, *at, *moving]
