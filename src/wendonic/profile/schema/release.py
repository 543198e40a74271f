"""The default `release` of presses on a tilt."""

RELEASE_SHARE = 0.8
"""A default `release` is at most this share of `above`."""


def released_at(release: float, above: float) -> float:
    """Return the default `release` for something that is down from `above` on, which is lower for a low `above`.

    >>> released_at(0.4, 0.5), round(released_at(0.4, 0.3), 2)
    (0.4, 0.24)
    """
    return min(release, RELEASE_SHARE * above)
