"""How much a change changes real play: over all recordings, and those that changed most."""

from typing import TYPE_CHECKING

import numpy as np
from matplotlib.axes import Axes

from wendonic.errors import WendonicError
from wendonic.length_unit import METRES, LengthUnit
from wendonic.pictures.lengths import label_axis
from wendonic.pictures.style import FOG, INK, LINE_STYLES, MIST, SLATE, dress_axes, split_axes
from wendonic.study.solve.corpus import AGAINST, changed, changed_most, ranked_by
from wendonic.study.solve.differences import DIFFERENCES, UNITS

if TYPE_CHECKING:
    import pandas as pd

SHOWN = 12
"""Recordings that are named, those that changed most."""

LEAST_ROWS = 6
"""A picture with fewer bars leaves room for as many."""

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
    """Draw what `wendonic.study.solve.corpus` returned: over all recordings the share that changed by no more than so
    much, a line for each profile; and the recordings that changed most, with the moment at which they parted.

    `by` is a difference, see `wendonic.study.solve.corpus.ranked_by` for the usual one; the title counts the
    recordings that differ in anything. Returns both axes. Raises `WendonicError` for a difference that is not in
    there, and where nothing could be compared.

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
    unit = UNITS[by]
    count = int(frame["error"].isna().sum())
    differ = sum(changed(frame)[pair] for pair in pairs) / len(pairs)
    dress_axes(spread, f"{differ:.0f} of {count} recordings change", "", "share of the recordings (%)")
    label_axis(spread.xaxis, AXIS.get(by, by.replace("_", " ")), unit, length)
    spread.grid(color=FOG, linewidth=0.5, alpha=0.6)
    for (pair, values), (color, dashes) in zip(known.items(), LINE_STYLES, strict=False):
        ordered = np.sort(values)
        shares = 100.0 * np.arange(1, len(ordered) + 1) / len(ordered)
        x, y = np.concatenate([[0.0], ordered]), np.concatenate([[0.0], shares])
        spread.step(x, y, where="post", color=color, linestyle=dashes, linewidth=2.0, label=pair)
        median = float(np.median(ordered))
        spread.plot(median, 50.0, "o", color=color, markeredgecolor=INK, markersize=8, zorder=3)
    spread.set_ylim(0.0, 102.0)
    spread.set_xlim(left=0.0)
    legend = spread.legend(loc="lower right", frameon=False, labelcolor=INK, title="dot: half of the recordings")
    legend.get_title().set_color(INK)
    changes = changed_most(frame, by, SHOWN)[::-1]
    dress_axes(most, "changed most, and when they part")
    label_axis(most.xaxis, AXIS.get(by, by.replace("_", " ")), unit, length)
    places = np.arange(len(changes))
    amounts = [abs(change.amount) for change in changes]
    most.barh(places, amounts, color=SLATE, height=0.62)
    most.set_yticks(places, [_short(change.recording) for change in changes], color=INK)
    # A few bars are no thicker than many, and stand at the top.
    most.set_ylim(len(changes) - 0.5 - max(len(changes), LEAST_ROWS), len(changes) - 0.5)
    if not changes:
        most.text(0.5, 0.5, "no recording differs by this", transform=most.transAxes, ha="center", color=INK)
    most.set_xlim(0.0, 1.3 * (max(amounts) if amounts else 1.0))
    for place, change, amount in zip(places, changes, amounts, strict=True):
        pair = f" {change.profile.partition(AGAINST)[0]}" if len(pairs) > 1 else ""
        since = "" if change.parts_s is None else f", from {change.parts_s:.2f} s"
        words = f" {length.words(amount, unit, '.3g').rstrip()}{pair}{since}"
        most.text(amount, float(place), words, va="center", color=INK, fontsize=9)
    failed = int(frame["error"].notna().sum())
    if failed:
        spread.text(0.02, 0.97, f"{failed} could not be compared", transform=spread.transAxes, color=MIST, va="top")
    return [spread, most]


def _short(name: str) -> str:
    return name if len(name) <= LONGEST_NAME else f"…{name[-LONGEST_NAME + 1 :]}"
