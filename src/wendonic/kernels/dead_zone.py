"""Step 3 of shaping: the dead zone, and the outer rim with it."""

from wendonic.kernels.kernel import kernel


@kernel
def round_dead_zone(tilt: float, inner: float, outer: float) -> float:
    """Return how far a stick is tilted once its round dead zone is taken off, 0..1.

    Formula: 0 for tilt <= inner, 1 for tilt >= outer, (tilt - inner) / (outer - inner) between: no jump
    at either edge. `tilt` is the length of the stick's position (0 or more), 0 <= inner < outer. Because
    only the length is changed, the direction stays what the hand gave.

    >>> round_dead_zone(0.14, inner=0.14, outer=0.96)
    0.0
    >>> round(round_dead_zone(0.55, inner=0.14, outer=0.96), 12)
    0.5
    >>> round_dead_zone(1.2, inner=0.14, outer=0.96)
    1.0
    """
    if tilt <= inner:
        return 0.0
    if tilt >= outer:
        return 1.0
    return (tilt - inner) / (outer - inner)
