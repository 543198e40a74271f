"""The default limit at which something counts as up again, after it went down at another."""

RELEASE_SHARE = 0.8
"""Where no `release` is written, it is at most this share of `above`."""


def released_at(release: float, above: float) -> float:
    """Return where something counts as up again that is down from `above` on and says nothing else: the default
    `release`, or less for what counts early.

    >>> released_at(0.4, 0.5), round(released_at(0.4, 0.3), 2)
    (0.4, 0.24)
    """
    return min(release, RELEASE_SHARE * above)
