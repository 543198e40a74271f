"""Which of a few facings a sprite has."""

import math

from wendonic.kernels.angles import wrapped_angle

TIE_SIDEWAYS = 0
TIE_UPRIGHT = 1
TIE_LATER = 2

TIE = 1e-6
"""Within this angle (rad) of a border a heading is on it, as that of two keys is."""


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


def sectored(face: float, was_face: float, sector: float, sectors: int, margin: float, tie: int) -> float:
    """Return which of `sectors` facings a heading `face` (rad) is nearest to; `sector` is the one before, -1 for
    none, of the heading `was_face`.

    The first one is forward and they count clockwise; where there are two, they are right and left, as a sprite seen
    from the side has them. Each has 2 pi / sectors of the circle, in the middle of which it lies; it is left only
    `margin` (rad) beyond its border, so that a heading on the border does not flicker. At first, a border belongs
    to the facing that is clockwise from it. Of four, two keys are exactly on a border: there `tie` says which picture
    is shown, the one to the side, the upright one, or that of the later key.

    >>> [sectored(math.radians(deg), 0.0, 0.0, 8, math.radians(6.0), 0) for deg in (22.5, 28.0, 29.0, -28.0, 180.0)]
    [0.0, 0.0, 1.0, 0.0, 4.0]
    >>> sectored(math.radians(-10.0), 0.0, -1.0, 2, 0.0, 0), sectored(math.radians(10.0), 0.0, -1.0, 2, 0.0, 0)
    (1.0, 0.0)
    >>> [sectored(math.radians(deg), 0.0, -1.0, 4, 0.0, TIE_SIDEWAYS) for deg in (45.0, 135.0, -135.0, -45.0)]
    [1.0, 1.0, 3.0, 3.0]
    """
    width = math.tau / sectors
    first = 0.5 * math.pi if sectors == 2 else 0.0
    if sectors == 4 and is_on_border(face, 4):
        clockwise = math.floor((face - first) / width + 0.75) % 4 + 0.0
        other = (clockwise + 3.0) % 4.0
        side = clockwise if clockwise % 2.0 == 1.0 else other
        upright = other if clockwise % 2.0 == 1.0 else clockwise
        if tie == TIE_SIDEWAYS:
            return side
        if tie == TIE_UPRIGHT:
            return upright
        if sector in (side, upright):
            if is_on_border(was_face, 4):
                return sector
            return upright if sector == side else side
        return side
    if sector >= 0.0 and abs(wrapped_angle(face - first - sector * width)) <= 0.5 * width + margin:
        return sector
    return math.floor((face - first) / width + 0.5) % sectors + 0.0
