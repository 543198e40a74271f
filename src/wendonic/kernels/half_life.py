"""Decay with a half-life, exact for any tick length."""


def share_left(half_life_s: float, dt: float) -> float:
    """Return the share of a difference that is left after `dt` seconds: 2 ** (-dt / half_life_s), both above 0.

    >>> share_left(0.02, dt=0.04)
    0.25
    """
    # 2^(-dt / half-life), written as a power of one half, which is faster.
    return float(0.5 ** (dt / half_life_s))


def half_life_factor(half_life_s: float, dt: float) -> float:
    """Return the share of a difference that is left after `dt` seconds.

    Formula: 2 ** (-dt / half_life_s), exact for any `dt`: the shares of two halves of a tick multiply to
    the share of the whole. A half-life of 0 s means no smoothing: nothing is left.

    >>> half_life_factor(0.02, dt=0.02), half_life_factor(0.02, dt=0.0), half_life_factor(0.0, dt=0.01)
    (0.5, 1.0, 0.0)
    """
    if half_life_s <= 0.0:
        return 0.0
    return share_left(half_life_s, dt)
