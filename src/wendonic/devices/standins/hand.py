"""The path of a hand between targets."""

from bisect import bisect_right
from collections.abc import Callable, Sequence

HandPath = Callable[[float], tuple[float, float]]
"""Where the hand holds a stick at a time (s): (right, forward), length 0 at rest and 1 at the rim."""


def hand_path(keyframes: Sequence[tuple[float, float, float]]) -> HandPath:
    """Return the path through `keyframes`, each (t, right, forward), t rising; it stays at the first and last.

    Between two of them the hand moves with the least jerk: with u from 0 to 1, the share of the way is
    10 u³ - 15 u⁴ + 6 u⁵ (Flash and Hogan, The Journal of Neuroscience, 1985).

    >>> path = hand_path([(0.0, 0.0, 0.0), (1.0, 0.0, 0.8)])
    >>> path(-1.0), path(0.5), path(2.0)
    ((0.0, 0.0), (0.0, 0.4), (0.0, 0.8))
    """
    times = [frame[0] for frame in keyframes]

    def position(t: float) -> tuple[float, float]:
        after = bisect_right(times, t)
        if after == 0 or after == len(keyframes):
            _, right, forward = keyframes[min(after, len(keyframes) - 1)]
            return right, forward
        from_t, from_right, from_forward = keyframes[after - 1]
        to_t, to_right, to_forward = keyframes[after]
        u = (t - from_t) / (to_t - from_t)
        share = u**3 * (10.0 - 15.0 * u + 6.0 * u * u)
        return from_right + (to_right - from_right) * share, from_forward + (to_forward - from_forward) * share

    return position
