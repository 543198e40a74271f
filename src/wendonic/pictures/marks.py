"""The player's notes, above a picture that has time to the right."""

from matplotlib.axes import Axes

from wendonic.pictures.style import INK, MIST
from wendonic.recording.recording import Recording

MARK_ROW_POINTS = 12
CHARACTER_WIDTH = 0.0064
"""About how wide a note's character is, as a share of the axes, at the usual size of the picture."""


def draw_marks(axes: list[Axes], recording: Recording, first: float, last: float) -> int:
    """Draw the player's notes above the topmost panel, in as many rows as they need; return how many."""
    ends: list[float] = []
    for event in recording:
        if event.control != "mark" or not first <= event.t <= last:
            continue
        for panel in axes:
            panel.axvline(event.t, color=MIST, linewidth=0.8, linestyle=":", zorder=0)
        width = len(str(event.value)) * CHARACTER_WIDTH * (last - first)
        # A note that would run out of the picture ends where it belongs instead of beginning there.
        before = event.t + width > last
        begins = event.t - width if before else event.t
        row = next((row for row, end in enumerate(ends) if end < begins), len(ends))
        ends[row : row + 1] = [begins + width]
        axes[0].annotate(
            str(event.value),
            (event.t, 1.0),
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
