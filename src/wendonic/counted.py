"""Counts and durations in words."""


def counted(number: int, thing: str) -> str:
    """Return a number of things, with `thing` as the singular.

    >>> counted(1, "event"), counted(0, "event"), counted(3, "recording")
    ('1 event', '0 events', '3 recordings')
    """
    return f"{number} {thing}" if number == 1 else f"{number} {thing}s"


def played(seconds: float) -> str:
    """Return a duration of play: in seconds up to a minute, in minutes up to an hour.

    >>> played(1.9), played(72.0), played(5400.0)
    ('1.9 s', '1.2 min', '1.50 h')
    """
    if seconds < 60.0:
        return f"{seconds:.1f} s"
    return f"{seconds / 60.0:.1f} min" if seconds < 3600.0 else f"{seconds / 3600.0:.2f} h"
