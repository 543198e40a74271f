"""A part of a trace."""

from typing import TYPE_CHECKING

from wendonic.errors import WendonicError
from wendonic.recording.stretches import stretch_of
from wendonic.significant import clock_s

if TYPE_CHECKING:
    import pandas as pd


ROUNDING_S = 1e-9


def ticks_between(trace: "pd.DataFrame", start_s: float | None = None, end_s: float | None = None) -> "pd.DataFrame":
    """Return the ticks of a trace that overlap the time from `start_s` to `end_s`; an end that is not given is that
    of the trace.

    Everything before has been played as well, so the body is where that left it. Raises `WendonicError` for a time
    that is not finite, an end not after the start, and a stretch that has no tick.

    >>> from wendonic import shape
    >>> from wendonic.demo import demo_profile, demo_recording
    >>> trace = shape(demo_recording("beekeeper_keys"), demo_profile())
    >>> len(ticks_between(trace, 2.0, 3.0)), len(ticks_between(trace)) == len(trace)
    (60, True)
    """
    if trace.empty:
        return trace
    began_s, ended_s = float(trace["t"].iloc[0] - trace["dt"].iloc[0]), float(trace["t"].iloc[-1])
    first, last = stretch_of(began_s, ended_s, start_s, end_s)
    seen = trace[(trace["t"] > first + ROUNDING_S) & (trace["t"] - trace["dt"] < last - ROUNDING_S)]
    if seen.empty:
        runs = f"the recording runs from {clock_s(began_s)} s to {clock_s(ended_s)} s"
        raise WendonicError(f"nothing between {clock_s(first)} s and {clock_s(last)} s; {runs}")
    return seen
