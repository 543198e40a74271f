"""Checks times that a game passes in."""

from typing import Any

from wendonic.devices.event import finite
from wendonic.errors import WendonicError


def seconds_of(name: str, time_s: Any) -> float:
    """Return a time (s), a number of any type, as a Python float; raises `WendonicError` with its name if it is not a
    finite number.

    >>> seconds_of("dt", 1)
    1.0
    >>> seconds_of("dt", "fast")
    Traceback (most recent call last):
    wendonic.errors.WendonicError: dt: found 'fast'; allowed: a finite number of seconds, 0 or more
    """
    number = finite(time_s)
    if number is None:
        raise WendonicError(f"{name}: found {time_s!r}; allowed: a finite number of seconds, 0 or more")
    return number
