"""Step 8 of shaping: the length becomes one of a few paces."""

from typing import NamedTuple


class PaceTuning(NamedTuple):
    """A pace: the length above which it begins, and its amount."""

    above: float
    amount: float


COARSE_LENGTH = 1e-30
"""Below this length two numbers are too coarse to be divided by it directly, in single precision as well."""


def pace_of(paces: tuple[PaceTuning, ...], margin: float, length: float, pace: float) -> float:
    """Return which pace a length (0 or more) requests: 0 for standing, 1 for the first; `pace` is the one before.

    Paces rise. A pace is left downwards only `margin` below its beginning (or at 0), so that a stick held on a border
    does not flicker.

    >>> paces = (PaceTuning(0.0, 0.45), PaceTuning(0.7, 1.0))
    >>> [pace_of(paces, 0.1, length, 1.0) for length in (0.0, 0.65, 0.75)], pace_of(paces, 0.1, 0.65, 2.0)
    ([0.0, 1.0, 2.0], 2.0)
    """
    count = len(paces)
    for k in range(len(paces)):
        # Up as soon as the next pace begins,
        if pace == k and length > paces[k].above:
            pace = k + 1.0
    for k in range(len(paces)):
        # and down only a margin below where it began.
        last = count - k
        if pace == last and length <= max(paces[last - 1].above - margin, 0.0):
            pace = last - 1.0
    return pace


def pace_amount(paces: tuple[PaceTuning, ...], pace: float) -> float:
    """Return the amount of a pace, see `pace_of`; 0 for standing.

    >>> paces = (PaceTuning(0.0, 0.45), PaceTuning(0.7, 1.0))
    >>> pace_amount(paces, 2.0), pace_amount(paces, 0.0)
    (1.0, 0.0)
    """
    amount = 0.0
    for k in range(len(paces)):
        if pace == k + 1.0:
            amount = paces[k].amount
    return amount
