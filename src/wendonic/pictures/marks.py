"""The player's notes and changes of mode, above a picture with a time axis."""

from typing import TYPE_CHECKING, NamedTuple

from matplotlib.axes import Axes

from wendonic.pictures.style import INK, MIST
from wendonic.recording.recording import Recording

if TYPE_CHECKING:
    import pandas as pd

MARK_ROW_POINTS = 12
CHARACTER_WIDTH = 0.0064
"""Approximate width of a note's character as a share of the axes, at the usual size of the picture."""


class Note(NamedTuple):
    """A text at a moment (s)."""

    t: float
    words: str


def notes_of(recording: Recording) -> list[Note]:
    """Return the player's notes."""
    return [Note(event.t, str(event.value)) for event in recording if event.control == "mark"]


def modes_entered(recording: Recording) -> list[Note]:
    """Return the modes that a game entered."""
    return [Note(event.t, f"mode {event.value}") for event in recording if event.control == "mode"]


def mode_changes(trace: "pd.DataFrame") -> list[Note]:
    """Return the modes of a trace that has several, each from where it begins."""
    modes = trace["mode"].astype(str)
    begins = trace[modes != modes.shift()]
    if len(begins) < 2:
        return []
    return [Note(t - dt, f"mode {mode}") for t, dt, mode in begins[["t", "dt", "mode"]].itertuples(index=False)]


def add_marks(axes: list[Axes], notes: list[Note], first: float, last: float) -> int:
    """Draw notes above the topmost panel, in as many rows as they need; return how many."""
    ends: list[float] = []
    for t, words in sorted(notes):
        if not first <= t <= last:
            continue
        for panel in axes:
            panel.axvline(t, color=MIST, linewidth=0.8, linestyle=":", zorder=0)
        width = len(words) * CHARACTER_WIDTH * (last - first)
        # A note that would leave the picture ends at its moment instead of beginning there.
        before = t + width > last
        begins = t - width if before else t
        row = next((row for row, end in enumerate(ends) if end < begins), len(ends))
        ends[row : row + 1] = [begins + width]
        axes[0].annotate(
            words,
            (t, 1.0),
            xycoords=("data", "axes fraction"),
            xytext=(-2 if before else 2, 3 + MARK_ROW_POINTS * row),
            textcoords="offset points",
            ha="right" if before else "left",
            fontsize=8.5,
            color=INK,
            annotation_clip=False,
            parse_math=False,
        )
    return len(ends)
