"""Step 3 of shaping: the dead zone, and the outer rim with it."""

import math

from wendonic.kernels.kernel import kernel

ZONE_NONE = 0
ZONE_ROUND = 1
ZONE_AXES = 2
ZONE_WEDGE = 3
ZONE_ROUND_WEDGE = 4
ZONE_CUT = 5

JUST_OUT = 1e-12
"""Length of a tilt that is out of its dead zone and no further: a curve with a floor gives its floor there."""


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


@kernel
def zone_axis(along: float, inner: float, outer: float) -> float:
    """Return one coordinate with a dead zone of its own taken off.

    >>> zone_axis(-0.625, inner=0.25, outer=1.0), zone_axis(-0.1, inner=0.25, outer=1.0)
    (-0.5, 0.0)
    """
    amount = round_dead_zone(abs(along), inner, outer)
    # Not a bare minus: that would make nothing read -0.0.
    return 0.0 - amount if along < 0.0 else amount


@kernel
def wedged(x: float, y: float, share: float) -> tuple[float, float]:
    """Return a position with each coordinate damped in proportion to the other one, and its length kept.

    Formula: |x| becomes |x| - share |y|, |y| becomes |y| - share |x|, neither below 0, and the length is put back; so
    a direction within atan(share) of an axis is put on it, and the rest fans out without a jump. 0 <= share < 1.

    >>> wedged(0.25, 1.0, 0.25)[0], wedged(0.5, 0.5, 0.25)
    (0.0, (0.5, 0.5))
    """
    across = max(abs(x) - share * abs(y), 0.0)
    along = max(abs(y) - share * abs(x), 0.0)
    damped = math.hypot(across, along)
    if damped == 0.0:
        return x, y
    scale = math.hypot(x, y) / damped
    across *= scale
    along *= scale
    return 0.0 - across if x < 0.0 else across, 0.0 - along if y < 0.0 else along


@kernel
def zoned(x: float, y: float, form: int, inner: float, outer: float, edge: float) -> tuple[float, float]:
    """Return a stick's position with a dead zone of any form taken off, each coordinate within -1..1.

    `ZONE_NONE` takes nothing. `ZONE_ROUND` works on the length, see `round_dead_zone`; `ZONE_AXES` on each axis by
    itself. `ZONE_WEDGE` bends the direction, see `wedged` with `inner` as its share, and leaves no dead zone at rest;
    `ZONE_ROUND_WEDGE` does both. `ZONE_CUT` lets the raw length pass once it is above the edge: it jumps there.

    `edge` is `inner`, or less for a stick that is out already and has not come back to its release: then a round zone
    holds it just out, and a cut lets it pass.

    >>> zoned(0.55, 0.0, ZONE_CUT, 0.2, 1.0, 0.2), zoned(0.15, 0.0, ZONE_CUT, 0.2, 1.0, 0.1)
    ((0.55, 0.0), (0.15, 0.0))
    >>> zoned(0.625, -0.1, ZONE_AXES, 0.25, 1.0, 0.25)
    (0.5, 0.0)
    """
    if form == ZONE_AXES:
        return zone_axis(x, inner, outer), zone_axis(y, inner, outer)
    tilt = math.hypot(x, y)
    if tilt < JUST_OUT:
        # Rounding, not a hand; dividing by it would overflow in the end.
        return 0.0, 0.0
    if form in (ZONE_NONE, ZONE_CUT):
        length = 0.0 if form == ZONE_CUT and tilt <= edge else min(tilt, 1.0)
    elif form == ZONE_WEDGE:
        length = min(tilt / outer, 1.0)
    else:
        length = round_dead_zone(tilt, inner, outer)
        if length == 0.0 and tilt > edge:
            length = JUST_OUT
    if length == 0.0:
        return 0.0, 0.0
    x *= length / tilt
    y *= length / tilt
    if form in (ZONE_WEDGE, ZONE_ROUND_WEDGE):
        return wedged(x, y, inner)
    return x, y
