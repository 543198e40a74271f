"""Times that a game hands in."""

from typing import Any

from wendonic.errors import WendonicError


def seconds_of(dt: Any) -> float:
    """Return a time (s) of any kind of number as Python's own float; raises `WendonicError` for what is no number.

    >>> seconds_of(1)
    1.0
    >>> seconds_of("fast")
    Traceback (most recent call last):
    wendonic.errors.WendonicError: dt: found 'fast'; allowed: a finite number of seconds, 0 or more
    """
    try:
        if isinstance(dt, str):
            raise TypeError
        return float(dt)
    except (TypeError, ValueError):
        raise WendonicError(f"dt: found {dt!r}; allowed: a finite number of seconds, 0 or more") from None
