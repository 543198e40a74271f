"""The times at which presses began and were held in a trace."""

from itertools import pairwise
from typing import TYPE_CHECKING, NamedTuple

if TYPE_CHECKING:
    import pandas as pd

HELD = "_held"


class PressSpans(NamedTuple):
    """Times (s) of one press: from when to when it was held, and when it began.

    A tick counts from its beginning. A press without duration, such as a tap, begins without being held.
    """

    held: tuple[tuple[float, float], ...]
    began: tuple[float, ...]


def press_names_of(trace: "pd.DataFrame") -> list[str]:
    """Return the presses that a trace has columns for.

    >>> import pandas as pd
    >>> press_names_of(pd.DataFrame({"t": [0.5], "jump_held": [True], "jump_began": [True], "step_began": [False]}))
    ['jump']
    """
    return [str(name).removesuffix(HELD) for name in trace if str(name).endswith(HELD)]


def press_spans(trace: "pd.DataFrame") -> dict[str, PressSpans]:
    """Return the times of each press that was held or began in a trace.

    >>> import pandas as pd
    >>> ticks = {"t": [0.5, 1.0, 1.5, 2.0], "dt": [0.5] * 4, "jump_began": [False, True, False, True]}
    >>> press_spans(pd.DataFrame({**ticks, "jump_held": [False, True, True, False]}))["jump"]
    PressSpans(held=((0.5, 1.5),), began=(0.5, 1.5))
    """
    import numpy as np

    ends = np.asarray(trace["t"], dtype=float)
    starts = ends - np.asarray(trace["dt"], dtype=float)
    spans: dict[str, PressSpans] = {}
    for name in press_names_of(trace):
        held = np.asarray(trace[f"{name}{HELD}"], dtype=bool)
        began = np.asarray(trace[f"{name}_began"], dtype=bool)
        if not (held.any() or began.any()):
            continue
        changes = np.flatnonzero(np.diff(held, prepend=False, append=False)).tolist()
        pairs = list(pairwise(changes))[::2]
        times = tuple((float(starts[first]), float(ends[after - 1])) for first, after in pairs)
        spans[name] = PressSpans(times, tuple(starts[began].tolist()))
    return spans
