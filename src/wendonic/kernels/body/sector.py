"""Which of a few facings a sprite has."""

import math

from wendonic.kernels.angles import wrapped_angle


def sectored(face: float, sector: float, sectors: int, margin: float) -> float:
    """Return which of `sectors` facings a heading `face` (rad) is nearest to; `sector` is the one before, -1 for
    none.

    The first one is forward and they count clockwise; where there are two, they are right and left, as a sprite seen
    from the side has them. Each has 2 pi / sectors of the circle, in the middle of which it lies; it is left only
    `margin` (rad) beyond its border, so that a heading on the border does not flicker. At first, a border belongs
    to the facing that is clockwise from it.

    >>> [sectored(math.radians(deg), 0.0, 8, math.radians(6.0)) for deg in (22.5, 28.0, 29.0, -28.0, 180.0)]
    [0.0, 0.0, 1.0, 0.0, 4.0]
    >>> sectored(math.radians(-10.0), -1.0, 2, 0.0), sectored(math.radians(10.0), -1.0, 2, 0.0)
    (1.0, 0.0)
    """
    width = math.tau / sectors
    first = 0.5 * math.pi if sectors == 2 else 0.0
    if sector >= 0.0 and abs(wrapped_angle(face - first - sector * width)) <= 0.5 * width + margin:
        return sector
    return math.floor((face - first) / width + 0.5) % sectors + 0.0
