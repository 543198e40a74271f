"""The house style: colours by meaning, paper, axes, and writing of files."""

import re
import textwrap
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from matplotlib.axes import Axes
from matplotlib.figure import Figure, SubFigure
from matplotlib.layout_engine import ConstrainedLayoutEngine
from matplotlib.legend import Legend
from matplotlib.patheffects import withStroke
from matplotlib.ticker import ScalarFormatter

from wendonic.atomic_file import atomic_file, check_ending
from wendonic.errors import WendonicError

PAPER = "#FAF7F0"
INK = "#1F2430"
HONEY = "#D9902F"
SLATE = "#4A6FA5"
HEATHER = "#8E5B8F"
MOSS = "#4E7A51"
BRICK = "#B4483B"
FOG = "#C9C4B8"
MIST = "#8B8778"
"""Fog, dark enough for text."""

RIM = [withStroke(linewidth=2.5, foreground=PAPER)]
"""Path effects for text that may lie over a line: a rim of paper."""

RAW: dict[str, Any] = {"color": FOG, "linewidth": 2.6, "solid_capstyle": "butt"}
SHAPED: dict[str, Any] = {"color": HONEY, "linewidth": 1.4}
INTENT: dict[str, Any] = {"color": SLATE, "linewidth": 1.6, "linestyle": (0, (5, 1.2))}
MOTION: dict[str, Any] = {"color": MOSS, "linewidth": 1.6}
CLIMB: dict[str, Any] = {"color": HEATHER, "linewidth": 1.4, "linestyle": (0, (1, 1))}

NAME_CHARACTERS = 24
"""Characters in a line of a name in a legend."""

LINE_STYLES: tuple[tuple[str, Any], ...] = (
    (HONEY, "-"),
    (SLATE, (0, (5, 1.5))),
    (HEATHER, (0, (1.5, 1.2))),
    (MOSS, (0, (6, 1.5, 1.5, 1.5))),
    (INK, (0, (3, 3))),
    (MIST, "-"),
)
"""Line styles for several things of one kind, distinguished by colour and dashes."""

ENDINGS = (".png", ".svg", ".pdf")


def blank_axes(ax: Axes | None, height_inches: float = 8.0) -> Axes:
    """Return `ax`, or the only axes of a new picture, 1280 wide and 800 high unless a height is given."""
    if ax is not None:
        return ax
    layout = ConstrainedLayoutEngine(w_pad=0.15, h_pad=0.12)
    return Figure(figsize=(12.8, height_inches), dpi=100, facecolor=PAPER, layout=layout).add_subplot()


def split_axes(
    ax: Axes | None, heights: Sequence[float] = (1.0,), widths: Sequence[float] = (1.0,), share_x: bool = False
) -> list[Axes]:
    """Replace `ax` (or a new picture) by a grid of axes, and return them row by row."""
    place = blank_axes(ax)
    spec = place.get_subplotspec()
    if spec is None:
        raise WendonicError("this picture has several panels; pass an ax made by subplots(), not by add_axes()")
    figure: Figure | SubFigure = place.figure
    place.remove()
    grid = spec.subgridspec(len(heights), len(widths), height_ratios=list(heights), width_ratios=list(widths))
    axes: list[Axes] = []
    for row in range(len(heights)):
        for column in range(len(widths)):
            axes.append(figure.add_subplot(grid[row, column], sharex=axes[0] if share_x and axes else None))
    return axes


def dress_axes(ax: Axes, title: str = "", x_label: str = "", y_label: str = "") -> None:
    """Give the axes the house's paper, ink and labels."""
    ax.set_facecolor(PAPER)
    ax.set_xlabel(x_label, color=INK)
    ax.set_ylabel(y_label, color=INK)
    if title:
        write_title(ax, title)
    ax.tick_params(colors=INK, labelsize=9)
    for side, spine in ax.spines.items():
        spine.set_visible(side in ("left", "bottom"))
        spine.set_color(INK)
        spine.set_linewidth(0.8)
    ax.set_axisbelow(True)
    for axis in (ax.xaxis, ax.yaxis):
        shown = axis.get_major_formatter()
        # Large times and lengths are written in full, not as an offset.
        if isinstance(shown, ScalarFormatter):
            shown.set_useOffset(False)
            shown.set_powerlimits((-4, 12))


def write_title(ax: Axes, title: str, pad: float = 10.0) -> None:
    """Write a title unchanged: a dollar sign in a user's text is not a formula."""
    ax.set_title(title, color=INK, loc="left", fontsize=13, fontweight="bold", pad=pad, parse_math=False)


def key_below(ax: Axes, height_ratio: float = 1.0) -> None:
    """Put the legend below the axes, where long names have the width of the picture; the axes extend to the top, and
    are `height_ratio` times as high as wide.
    """
    ax.set_box_aspect(height_ratio)
    ax.set_anchor("N")
    words = ax.legend(loc="upper left", bbox_to_anchor=(0.0, -0.12), frameon=False, fontsize=9, labelcolor=INK)
    # Otherwise a long name would squeeze the axes above it.
    words.set_in_layout(False)


def label_lines(ax: Axes) -> None:
    """Label the lines at their right ends, with a sample of each, so that colour alone carries no meaning."""
    named = ax.legend(
        loc="center left", bbox_to_anchor=(1.0, 0.5), frameon=False, fontsize=9, handlelength=1.8, labelcolor=INK
    )
    fold_names(named)


def fold_names(legend: Legend) -> None:
    """Break long names of a legend into lines; beside the axes, they would take the space of the plot."""
    for text in legend.get_texts():
        text.set_text(folded_name(text.get_text()))


def folded_name(name: str) -> str:
    """Return a name in lines of at most NAME_CHARACTERS, broken behind spaces, dashes or underscores if it has any.

    >>> print(folded_name("beekeeper_after_the_third_playtest"))
    beekeeper_after_the_
    third_playtest
    """
    lines = [""]
    for part in re.findall(r"[^ _-]*[ _-]?", name):
        if len(lines[-1]) + len(part.rstrip()) > NAME_CHARACTERS:
            lines.append("")
        lines[-1] += part
    return "\n".join(piece for line in lines for piece in textwrap.wrap(line, NAME_CHARACTERS))


def save_picture(drawn: Axes | Sequence[Axes], path: str | Path) -> None:
    """Write the picture that contains `drawn`, by file ending: `.png`, `.svg` or `.pdf`; whole or not at all.

    Raises `WendonicError` for another ending.

    >>> from wendonic.demo import demo_profile
    >>> from wendonic.pictures import draw_curve
    >>> save_picture(draw_curve(demo_profile()), "curve.bmp")
    Traceback (most recent call last):
    wendonic.errors.WendonicError: cannot write curve.bmp: found ending ".bmp"; allowed: .png, .svg, .pdf
    """
    check_ending(path, ENDINGS)
    first = drawn if isinstance(drawn, Axes) else drawn[0]
    with atomic_file(path) as beside:
        figure = first.get_figure(root=True)
        assert figure is not None, "every axes that is drawn on has a figure"
        figure.savefig(beside, facecolor=PAPER)
