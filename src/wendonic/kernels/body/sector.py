"""Which of a few facings a sprite has."""

import math
from typing import NamedTuple

from wendonic.kernels.angles import wrapped_angle

TIE_SIDEWAYS = 0
TIE_UPRIGHT = 1
TIE_LATER = 2

TIE = 1e-6
"""Within this angle (rad) of a border a heading counts as on it, as with two keys."""


def is_on_border(face: float, sectors: int) -> bool:
    """Return whether a heading (rad) is on the border between two facings.

    >>> is_on_border(math.pi / 4.0, 4), is_on_border(0.3, 4)
    (True, False)
    """
    width = math.tau / sectors
    first = 0.5 * math.pi if sectors == 2 else 0.0
    beyond = (face - first) / width + 0.5
    off = beyond - math.floor(beyond + 0.5)
    return abs(off) * width < TIE


class RequestedFacing(NamedTuple):
    """The last requested heading (rad), 1 if one is requested now, and, while it is between two of four facings, the
    one requested later, -1 if both came at once.
    """

    heading: float
    requested: float
    later: float


NONE_REQUESTED = RequestedFacing(0.0, 0.0, -1.0)
"""Nothing requested yet."""


def between_facings(heading: float) -> tuple[float, float]:
    """Return the two of four facings on whose border a heading (rad) is: the one to the side, and the upright one.

    >>> between_facings(math.radians(45.0)), between_facings(math.radians(-135.0))
    ((1.0, 0.0), (3.0, 2.0))
    """
    clockwise = math.floor(heading / (0.5 * math.pi) + 0.75) % 4 + 0.0
    other = (clockwise + 3.0) % 4.0
    if clockwise % 2.0 == 1.0:
        return clockwise, other
    return other, clockwise


def touches(facing: float, heading: float) -> bool:
    """Return whether a heading (rad) belongs to one of four facings, or is on its border.

    >>> [touches(1.0, math.radians(deg)) for deg in (44.0, 45.0, 135.0, 136.0)]
    [False, True, True, False]
    """
    return abs(wrapped_angle(heading - 0.5 * math.pi * facing)) < 0.25 * math.pi + TIE


def requested_facing(was: RequestedFacing, heading: float, amount: float) -> RequestedFacing:
    """Return which of two facings was requested later: the one that the request did not point to before, or neither
    if both came at once.

    >>> up, left_up = requested_facing(NONE_REQUESTED, 0.0, 1.0), math.radians(-45.0)
    >>> requested_facing(up, left_up, 1.0).later, requested_facing(NONE_REQUESTED, left_up, 1.0).later
    (3.0, -1.0)
    """
    if amount <= 0.0:
        return was._replace(requested=0.0)
    later = -1.0
    if was.requested > 0.0 and is_on_border(heading, 4):
        side, upright = between_facings(heading)
        if touches(side, was.heading):
            later = was.later if touches(upright, was.heading) else upright
        elif touches(upright, was.heading):
            later = side
    return RequestedFacing(heading, 1.0, later)


def sectored(face: float, later: float, sector: float, sectors: int, margin: float, tie: int) -> float:
    """Return the nearest of `sectors` facings to a heading `face` (rad); `sector` is the previous one, -1 for none,
    and `later` the one requested later, see `requested_facing`.

    The first facing is forward and they count clockwise; two of them are right and left, as for a sprite seen from
    the side. Each is the middle of 2 pi / sectors of the circle, and is left only `margin` (rad) beyond its border,
    so that a heading on the border does not flicker. At first, a border belongs to the facing clockwise from it. With
    four facings, two keys are exactly on a border: there `tie` selects the facing to the side, the upright one, or
    that of the later key, the one to the side if both came at once.

    >>> [sectored(math.radians(deg), -1.0, 0.0, 8, math.radians(6.0), 0) for deg in (22.5, 28.0, 29.0, -28.0, 180.0)]
    [0.0, 0.0, 1.0, 0.0, 4.0]
    >>> sectored(math.radians(-10.0), -1.0, -1.0, 2, 0.0, 0), sectored(math.radians(10.0), -1.0, -1.0, 2, 0.0, 0)
    (1.0, 0.0)
    >>> [sectored(math.radians(deg), -1.0, -1.0, 4, 0.0, TIE_SIDEWAYS) for deg in (45.0, 135.0, -135.0, -45.0)]
    [1.0, 1.0, 3.0, 3.0]
    """
    width = math.tau / sectors
    first = 0.5 * math.pi if sectors == 2 else 0.0
    if sectors == 4 and is_on_border(face, 4):
        side, upright = between_facings(face)
        if tie == TIE_UPRIGHT or (tie == TIE_LATER and later == upright):
            return upright
        return side
    if sector >= 0.0 and abs(wrapped_angle(face - first - sector * width)) <= 0.5 * width + margin:
        return sector
    return math.floor((face - first) / width + 0.5) % sectors + 0.0
