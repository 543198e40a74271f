"""Step 5 of shaping, first half: two opposite keys."""

OPPOSITES_CANCEL = 0
OPPOSITES_LATEST = 1
OPPOSITES_EARLIEST = 2


def opposed(positive: float, negative: float, rule: int) -> float:
    """Return the request of two opposite sides together: -1, 0 or 1.

    Each side is 0 while nothing of it is held, otherwise the number of the key in the order of pressing, from 1: the
    highest of the held ones of a side under `OPPOSITES_LATEST`, the lowest under `OPPOSITES_EARLIEST`, any under
    `OPPOSITES_CANCEL`. One side alone counts. Both together are exactly 0 under cancel; otherwise the side pressed
    later, or earlier, wins.

    >>> opposed(1.0, 0.0, OPPOSITES_CANCEL), opposed(1.0, 1.0, OPPOSITES_CANCEL)
    (1.0, 0.0)
    >>> opposed(3.0, 4.0, OPPOSITES_LATEST), opposed(3.0, 4.0, OPPOSITES_EARLIEST)
    (-1.0, 1.0)
    """
    if positive == 0.0:
        return -1.0 if negative > 0.0 else 0.0
    if negative == 0.0:
        return 1.0
    if rule == OPPOSITES_CANCEL:
        return 0.0
    return 1.0 if (positive > negative) == (rule == OPPOSITES_LATEST) else -1.0
