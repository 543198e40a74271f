"""Two panels side by side: before and after."""

from collections.abc import Callable
from typing import Any

import matplotlib.pyplot as plt
from matplotlib.axes import Axes

from wendonic.pictures.style import BRICK, FOG, HONEY, INK, MOSS, PAPER, SLATE, dress_axes

SIZE = (12.8, 5.2)
LINES = ((BRICK, "-"), (SLATE, "--"), (MOSS, ":"), (HONEY, "-."), (INK, "-"), (FOG, "-"))
"""Colours and dashes of several lines, so that no colour alone carries a meaning."""


def before_after(draw: Callable[[Axes, str], None], before: str, after: str, share: bool = True) -> Any:
    """Return a figure of two panels: `draw` gets each with "before" or "after"."""
    figure, panels = plt.subplots(1, 2, figsize=SIZE, sharey=share, facecolor=PAPER, layout="constrained")
    for axes, which, title in zip(panels, ("before", "after"), (before, after), strict=True):
        draw(axes, which)
        axes.set_title(f"{which}: {title}", loc="left", color=INK)
    return figure


def plain(axes: Axes, x_label: str, y_label: str) -> None:
    """Dress axes of one's own plot."""
    dress_axes(axes, "", x_label, y_label)
