"""The effect of a change on real play: the distribution over all recordings, and those that changed most."""

from typing import TYPE_CHECKING

import numpy as np
from matplotlib.axes import Axes

from wendonic.errors import WendonicError
from wendonic.length_unit import METRES, LengthUnit
from wendonic.pictures.lengths import label_axis
from wendonic.pictures.style import (
    FOG,
    INK,
    LINE_STYLES,
    MIST,
    PAPER,
    SLATE,
    dress_axes,
    fold_names,
    folded_name,
    split_axes,
)
from wendonic.study.solve.corpus import AGAINST, changed, changed_most, ranked_by
from wendonic.study.solve.differences import DIFFERENCES, UNITS

if TYPE_CHECKING:
    import pandas as pd
    from numpy.typing import NDArray

SHOWN = 12
"""Number of recordings that are named."""

LEAST_ROWS = 6
"""Least number of bars for which there is room."""

LONGEST_NAME = 28
AXIS = {
    "distance_m": "how much longer the path is",
    "end_apart_m": "distance between the ends",
    "most_apart_m": "largest distance between the bodies",
    "speed_rms_m_s": "difference of speed, root mean square",
    "heading_rms_deg": "angle between the headings, root mean square",
    "view_apart_deg": "largest angle between the views",
    "presses": "presses that differ",
    "parts_s": "first moment at which they part",
}


def draw_corpus(
    frame: "pd.DataFrame", by: str | None = None, ax: Axes | None = None, length: LengthUnit = METRES
) -> list[Axes]:
    """Draw the result of `wendonic.study.solve.corpus`: the cumulative share of recordings by their change, a line
    for each profile; and the recordings that changed most, with the moment at which they parted.

    `by` is a difference, see `wendonic.study.solve.corpus.ranked_by` for the usual one; the title counts the
    recordings that differ in anything. Returns both axes. Raises `WendonicError` for a difference that it does not
    have, and if nothing could be compared.

    >>> from wendonic.demo import FOLDER, demo_profile
    >>> from wendonic.study.solve.corpus import corpus
    >>> ours = demo_profile()
    >>> frame = corpus(FOLDER, {"old": ours, "new": ours.changed({"gait.walk.top_speed_m_s": 3.6})})
    >>> len(draw_corpus(frame))
    2
    """
    by = by or ranked_by((), frame)
    columns = [str(column) for column in frame]
    pairs = [column.rpartition(".")[0] for column in columns if column.endswith(f".{by}") and AGAINST in column]
    known = {pair: frame[f"{pair}.{by}"].abs().dropna().to_numpy(float) for pair in pairs}
    if by not in DIFFERENCES or not pairs:
        raise WendonicError(f"the corpus has no {by} of two profiles")
    if not any(len(values) for values in known.values()):
        raise WendonicError("nothing could be compared: every recording has an error")
    if len(pairs) > len(LINE_STYLES):
        raise WendonicError(f"found {len(pairs)} profiles; allowed: at most {len(LINE_STYLES)}")
    spread, most = split_axes(ax, widths=[1.1, 1.0])
    _draw_shares(spread, frame, known)
    _draw_most(most, frame, by, length, several=len(pairs) > 1)
    for panel in (spread, most):
        label_axis(panel.xaxis, AXIS.get(by, by.replace("_", " ")), UNITS[by], length)
    return [spread, most]


def _draw_shares(ax: Axes, frame: "pd.DataFrame", known: "dict[str, NDArray[np.float64]]") -> None:
    """Draw the cumulative share of recordings by their change, a line for each pair of profiles."""
    count, differ = int(frame["error"].isna().sum()), changed(frame)
    named = {pair: pair.partition(AGAINST)[0] for pair in known}
    (first, *others) = known
    if others:
        title = f"{count} recordings, and how many change"
        # Non-breaking spaces.
        named = {pair: f"{name}:\u00a0{differ[pair]}\u00a0of\u00a0{count}" for pair, name in named.items()}
    else:
        title = f"{differ[first]} of {count} recordings change"
    dress_axes(ax, title, "", "share of the recordings (%)")
    ax.grid(color=FOG, linewidth=0.5, alpha=0.6)
    for (pair, values), (color, dashes) in zip(known.items(), LINE_STYLES, strict=False):
        ordered = np.sort(values)
        shares = 100.0 * np.arange(1, len(ordered) + 1) / len(ordered)
        x, y = np.concatenate([[0.0], ordered]), np.concatenate([[0.0], shares])
        ax.step(x, y, where="post", color=color, linestyle=dashes, linewidth=2.0, label=named[pair])
        median = float(np.median(ordered))
        ax.plot(median, 50.0, "o", color=color, markeredgecolor=INK, markersize=8, zorder=3)
    ax.set_ylim(0.0, 102.0)
    ax.set_xlim(left=0.0)
    title = f"against {folded_name(first.partition(AGAINST)[2])}\n(dot: half of the recordings)"
    legend = ax.legend(
        loc="best", facecolor=PAPER, edgecolor="none", framealpha=0.8, labelcolor=INK, alignment="left", title=title
    )
    legend.get_title().set_color(INK)
    fold_names(legend)
    failed = int(frame["error"].notna().sum())
    if failed:
        ax.text(0.02, 0.97, f"{failed} could not be compared", transform=ax.transAxes, color=MIST, va="top")


def _draw_most(ax: Axes, frame: "pd.DataFrame", by: str, length: LengthUnit, several: bool) -> None:
    """Draw the recordings that changed most, with the profile that they changed under if there are `several`."""
    dress_axes(ax, "changed most, and when they part")
    changes = changed_most(frame, by, SHOWN)[::-1]
    places = np.arange(len(changes))
    amounts = [abs(change.amount) for change in changes]
    ax.barh(places, amounts, color=SLATE, height=0.62)
    ax.set_yticks(places, [_short(change.recording) for change in changes], color=INK)
    # A few bars are as thick as many, and at the top.
    ax.set_ylim(len(changes) - 0.5 - max(len(changes), LEAST_ROWS), len(changes) - 0.5)
    if not changes:
        ax.text(0.5, 0.5, "no recording differs by this", transform=ax.transAxes, ha="center", color=INK)
    ax.set_xlim(0.0, 1.3 * (max(amounts) if amounts else 1.0))
    for place, change, amount in zip(places, changes, amounts, strict=True):
        under = f" {_short(change.profile.partition(AGAINST)[0])}" if several else ""
        since = "" if change.parts_s is None else f", from {change.parts_s:.2f} s"
        words = f" {length.words(amount, UNITS[by], '.3g').rstrip()}{under}{since}"
        ax.text(amount, float(place), words, va="center", color=INK, fontsize=9)


def _short(name: str) -> str:
    return name if len(name) <= LONGEST_NAME else f"…{name[-LONGEST_NAME + 1 :]}"
