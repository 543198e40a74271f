"""Step 8 of shaping: a length made one of a few paces."""

from typing import NamedTuple

from wendonic.kernels.kernel import called_kernel

MOST_PACES = 4


class PaceTuning(NamedTuple):
    """How many paces there are, above which length each begins (rising), its amount, and the margin of leaving it."""

    paces: int
    above: tuple[float, float, float, float]
    amount: tuple[float, float, float, float]
    margin: float


NO_PACES = PaceTuning(0, (0.0, 0.0, 0.0, 0.0), (0.0, 0.0, 0.0, 0.0), 0.0)


@called_kernel
def paced(tuning: PaceTuning, length: float, pace: int) -> int:
    """Return which pace a length (0 or more) asks for: 0 for standing, 1 for the first; `pace` is the one before.

    A pace is left downwards only `margin` below where it begins (or at 0), so that a stick held on a border does not
    flicker.

    >>> tuning = PaceTuning(2, (0.0, 0.7, 0.0, 0.0), (0.45, 1.0, 0.0, 0.0), 0.1)
    >>> [paced(tuning, length, 1) for length in (0.0, 0.65, 0.75)], paced(tuning, 0.65, 2)
    ([0, 1, 2], 2)
    """
    count, above, _, margin = tuning
    while pace < count and length > above[pace]:
        pace += 1
    while pace > 0 and length <= max(above[pace - 1] - margin, 0.0):
        pace -= 1
    return pace


@called_kernel
def pace_amount(tuning: PaceTuning, pace: int) -> float:
    """Return the amount of a pace, see `paced`; 0 for standing.

    >>> tuning = PaceTuning(2, (0.0, 0.7, 0.0, 0.0), (0.45, 1.0, 0.0, 0.0), 0.1)
    >>> pace_amount(tuning, 2), pace_amount(tuning, 0)
    (1.0, 0.0)
    """
    if pace == 0:
        return 0.0
    return tuning.amount[pace - 1]
