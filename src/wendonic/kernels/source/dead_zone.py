"""Step 3 of shaping: the dead zone, and the outer limit."""

import math
from typing import NamedTuple

from wendonic.kernels.vector import Vec2

ZONE_NONE = 0
ZONE_ROUND = 1
ZONE_AXES = 2
ZONE_WEDGE = 3
ZONE_ROUND_WEDGE = 4
ZONE_CUT = 5

JUST_OUT = 1e-12
"""Length of a tilt just outside its dead zone, where a curve with a floor gives its floor."""


def round_dead_zone(tilt: float, inner: float, outer: float) -> float:
    """Return the tilt of a stick after its round dead zone, 0..1.

    Formula: 0 for tilt <= inner, 1 for tilt >= outer, (tilt - inner) / (outer - inner) between: no jump at either
    edge. `tilt` is the length of the stick's position (0 or more), 0 <= inner < outer. Only the length is changed, so
    the direction stays that of the hand.

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


def zone_axis(along: float, inner: float, outer: float) -> float:
    """Return one coordinate after a dead zone of its own.

    >>> zone_axis(-0.625, inner=0.25, outer=1.0), zone_axis(-0.1, inner=0.25, outer=1.0)
    (-0.5, 0.0)
    """
    amount = round_dead_zone(abs(along), inner, outer)
    # No plain negation: it would turn zero into -0.0.
    return 0.0 - amount if along < 0.0 else amount


def wedged(x: float, y: float, share: float) -> Vec2:
    """Return a position (not the middle) with each coordinate damped in proportion to the other one, at the same
    length.

    Formula: |x| becomes |x| - share |y|, |y| becomes |y| - share |x|, neither below 0, and the length is restored; so
    a direction within atan(share) of an axis is moved onto it, and the others spread out without a jump. 0 <= share <
    1.

    >>> wedged(0.25, 1.0, 0.25)[0], wedged(0.5, 0.5, 0.25)
    (0.0, Vec2(x=0.5, y=0.5))
    """
    across = max(abs(x) - share * abs(y), 0.0)
    along = max(abs(y) - share * abs(x), 0.0)
    scale = math.hypot(x, y) / math.hypot(across, along)
    across *= scale
    along *= scale
    return Vec2(0.0 - across if x < 0.0 else across, 0.0 - along if y < 0.0 else along)


class DeadZoneTuning(NamedTuple):
    """A form with its numbers, in tilt (0..1); if `releases` is 1, a stick that is out stays out until `release`."""

    form: int
    releases: int
    inner: float
    outer: float
    release: float


NO_DEAD_ZONE = DeadZoneTuning(ZONE_NONE, 0, 0.0, 1.0, 0.0)


class Tilt(NamedTuple):
    """The length of a tilt, and its direction: that of (x, y), which has the length `norm`; a length of 0 has no
    direction.
    """

    length: float
    x: float
    y: float
    norm: float


def held_axis(tuning: DeadZoneTuning, was: float, along: float) -> float:
    """Return one coordinate after a dead zone of its own; one that was out on the same side (`was`) stays just out
    until it is back at the release.

    >>> axes = DeadZoneTuning(ZONE_AXES, 1, 0.2, 1.0, 0.1)
    >>> held_axis(axes, 0.5, 0.15), held_axis(axes, 0.0, 0.15), held_axis(axes, -0.5, 0.15)
    (1e-12, 0.0, 0.0)
    """
    left = zone_axis(along, tuning.inner, tuning.outer)
    if tuning.releases > 0 and left == 0.0 and was * along > 0.0 and abs(along) > tuning.release:
        left = math.copysign(JUST_OUT, along)
    return left


def dead_zone_output(tuning: DeadZoneTuning, was: Vec2, x: float, y: float) -> Tilt:
    """Return a stick's tilt after a dead zone of any form, each coordinate of the position within -1..1.

    `ZONE_NONE` changes nothing. `ZONE_ROUND` works on the length, see `round_dead_zone`; `ZONE_AXES` on each axis
    separately. `ZONE_WEDGE` bends the direction, see `wedged` with `inner` as its share, and leaves no dead zone at
    rest; `ZONE_ROUND_WEDGE` does both. `ZONE_CUT` passes the raw length above the edge, where it jumps.

    The edge is `inner` (JUST_OUT or more), or the release for a stick that is out already (`was`, its request a tick
    ago, is not zero): then a round zone holds it just out, and a cut passes it; each axis works separately.

    >>> from wendonic.kernels.vector import ZERO2
    >>> cut, out = DeadZoneTuning(ZONE_CUT, 1, 0.2, 1.0, 0.1), Vec2(0.15, 0.0)
    >>> dead_zone_output(cut, ZERO2, 0.55, 0.0).length, dead_zone_output(cut, out, 0.15, 0.0).length
    (0.55, 0.15)
    >>> dead_zone_output(NO_DEAD_ZONE._replace(form=ZONE_AXES, inner=0.25), ZERO2, 0.625, -0.1)
    Tilt(length=0.5, x=0.5, y=0.0, norm=0.5)
    """
    form, inner, outer = tuning.form, tuning.inner, tuning.outer
    if form == ZONE_AXES:
        # Each axis has a dead zone of its own.
        x = held_axis(tuning, was.x, x)
        y = held_axis(tuning, was.y, y)
        length = norm = math.hypot(x, y)
    else:
        norm = math.hypot(x, y)
        if form in (ZONE_NONE, ZONE_WEDGE):
            # A length below JUST_OUT is rounding, not a hand; dividing by it could overflow.
            length = min(norm / outer, 1.0) if norm >= JUST_OUT else 0.0
        elif form == ZONE_CUT:
            edge = tuning.release if tuning.releases > 0 and (was.x != 0.0 or was.y != 0.0) else inner
            # Not rescaled: the raw length passes, and jumps at the edge.
            length = 0.0 if norm <= edge else min(norm, 1.0)
        else:
            length = round_dead_zone(norm, inner, outer)
            # A stick that has left the zone stays just outside until it is back at the release.
            if tuning.releases > 0 and length == 0.0 and norm > tuning.release and (was.x != 0.0 or was.y != 0.0):
                length = JUST_OUT
    if form in (ZONE_WEDGE, ZONE_ROUND_WEDGE) and length > 0.0:
        x, y = wedged(x, y, inner)
    return Tilt(length, x, y, norm)
