"""Profiles on the same input: paths, speeds and headings in common panels."""

from typing import TYPE_CHECKING

import numpy as np
from matplotlib.axes import Axes

from wendonic.errors import WendonicError
from wendonic.pictures.lengths import label_axis
from wendonic.pictures.path_ground import upright
from wendonic.pictures.style import FOG, INK, LINE_STYLES, blank_axes, dress_axes, label_lines, split_axes
from wendonic.study.looking import look_rates_deg_s, only_looks, turned_deg, whole_yaw_deg
from wendonic.study.motion import level_speeds_m_s, speeds_m_s, steps_m
from wendonic.study.solve.compare import Comparison

if TYPE_CHECKING:
    import pandas as pd
    from numpy.typing import NDArray

END_MARKERS = "osD^v*"
MOVES_M_S = 0.05
LEAST_SPAN_M = 1.0
ROWS, ROW_INCHES = 3, 2.7
"""Number of inputs that fit into the usual picture, which grows with more."""


def draw_comparison(compared: Comparison, ax: Axes | None = None) -> list[Axes]:
    """Draw the traces of each input under each profile: one row per input, with the path, and speed and heading over
    time; for a player who only looks, where the view points, how fast it turns, and its yaw over time.

    Each profile has one colour and dash throughout; a marker is where its path ends. Returns the axes, row by row.
    Raises `WendonicError` for more profiles than there are line styles.

    >>> from wendonic.demo import demo_profile
    >>> from wendonic.study.solve.compare import compare
    >>> both = compare({"foot": demo_profile(), "cart": demo_profile("cart")})
    >>> len(draw_comparison(both))
    3
    """
    if len(compared.names) > len(LINE_STYLES):
        raise WendonicError(f"found {len(compared.names)} profiles; allowed: at most {len(LINE_STYLES)}")
    rows = len(compared.traces)
    if ax is None and rows > ROWS:
        # Twelve inputs in the height of three would leave no room for text.
        ax = blank_axes(None, height_inches=ROW_INCHES * rows)
    axes = split_axes(ax, heights=[1.0, 1.0] * rows, widths=[1.1, 1.0])
    shown: list[Axes] = []
    for row, (name, traces) in enumerate(compared.traces.items()):
        path_above, speed, path_below, heading = axes[4 * row : 4 * row + 4]
        # The path takes the whole height of its row.
        figure = path_above.figure
        above, below = path_above.get_subplotspec(), path_below.get_subplotspec()
        assert above is not None
        assert below is not None
        grid = above.get_gridspec()
        path_above.remove()
        path_below.remove()
        path = figure.add_subplot(grid[2 * row : 2 * row + 2, 0])
        if all(map(only_looks, traces)):
            _draw_views(path, compared, traces, name)
            _draw_looks(speed, heading, compared, traces)
        else:
            _draw_paths(path, compared, traces, name)
            _draw_times(speed, heading, compared, traces)
        shown += [path, speed, heading]
    return shown


def _draw_paths(ax: Axes, compared: Comparison, traces: "tuple[pd.DataFrame, ...]", title: str) -> None:
    names, length = compared.names, compared.length
    lengths = [float(steps_m(trace).sum()) * length.per_m for trace in traces]
    least, most = f"{min(lengths):.1f}", f"{max(lengths):.1f}"
    far = f"{most} {length.name}" if least == most else f"{least} to {most} {length.name}"
    dress_axes(ax, f"{title.replace('_', ' ')}: {far}")
    label_axis(ax.xaxis, "x, right", "m", length)
    label_axis(ax.yaxis, "height" if compared.from_side else "y, forward", "m", length)
    traces = tuple(map(upright, traces)) if compared.from_side else traces
    ax.set_aspect("equal", adjustable="datalim")
    ax.grid(color=FOG, linewidth=0.5, alpha=0.6)
    for name, trace, (color, dashes), marker in zip(names, traces, LINE_STYLES, END_MARKERS, strict=False):
        x, y = trace["pos_x"].to_numpy(), trace["pos_y"].to_numpy()
        ax.plot(x, y, color=color, linestyle=dashes, linewidth=2.0, label=name)
        ax.plot(x[-1], y[-1], marker, color=color, markersize=8, markeredgecolor=INK, zorder=3)
    places = np.concatenate([trace[["pos_x", "pos_y"]].to_numpy() for trace in traces])
    if float(np.ptp(places, axis=0).max()) < LEAST_SPAN_M:
        middle_x, middle_y = places.mean(axis=0)
        ax.set_aspect("equal", adjustable="box")
        ax.set_xlim(middle_x - LEAST_SPAN_M / 2.0, middle_x + LEAST_SPAN_M / 2.0)
        ax.set_ylim(middle_y - LEAST_SPAN_M / 2.0, middle_y + LEAST_SPAN_M / 2.0)


def _draw_times(speed: Axes, heading: Axes, compared: Comparison, traces: "tuple[pd.DataFrame, ...]") -> None:
    names, length = compared.names, compared.length
    speeds = level_speeds_m_s if compared.from_side else speeds_m_s
    dress_axes(speed)
    label_axis(speed.yaxis, "speed\n", "m/s", length)
    # A body that jumps on the spot, or is seen from the side, has a height instead of a heading.
    turns = not compared.from_side and any(_moves(trace).any() for trace in traces)
    dress_axes(heading, "", "time (s)", "heading, turns\nadded up (deg)")
    if not turns:
        label_axis(heading.yaxis, "height\n", "m", length)
    for name, trace, (color, dashes) in zip(names, traces, LINE_STYLES, strict=False):
        t = trace["t"].to_numpy()
        speed.plot(t, speeds(trace), color=color, linestyle=dashes, linewidth=1.8, label=name)
        below = _headings_deg(trace) if turns else trace["pos_z"].to_numpy()
        heading.plot(t, below, color=color, linestyle=dashes, linewidth=1.8)
    _share_time(speed, heading, traces)


def _share_time(upper: Axes, lower: Axes, traces: "tuple[pd.DataFrame, ...]") -> None:
    """Give two panels the same time axis, and put the names into the upper one, where nothing is below 0."""
    starts = [float(trace["t"].iloc[0]) for trace in traces]
    ends = [float(trace["t"].iloc[-1]) for trace in traces]
    for panel in (upper, lower):
        panel.grid(color=FOG, linewidth=0.5, alpha=0.6)
        panel.set_xlim(min(starts), max(ends))
    upper.set_ylim(bottom=0.0)
    upper.tick_params(labelbottom=False)
    label_lines(upper)


def _draw_views(ax: Axes, compared: Comparison, traces: "tuple[pd.DataFrame, ...]", title: str) -> None:
    """Draw where the view of a player who only looks points."""
    turns = [f"{turned_deg(trace):.0f}" for trace in traces]
    far = " to ".join(dict.fromkeys([min(turns, key=float), max(turns, key=float)]))
    dress_axes(ax, f"{title.replace('_', ' ')}: view turned {far} deg", "yaw, right (deg)", "pitch, up (deg)")
    ax.set_aspect("equal", adjustable="datalim")
    ax.grid(color=FOG, linewidth=0.5, alpha=0.6)
    for name, trace, (color, dashes), marker in zip(compared.names, traces, LINE_STYLES, END_MARKERS, strict=False):
        yaw, pitch = whole_yaw_deg(trace), trace["view_pitch_deg"].to_numpy()
        ax.plot(yaw, pitch, color=color, linestyle=dashes, linewidth=2.0, label=name)
        ax.plot(yaw[-1], pitch[-1], marker, color=color, markersize=8, markeredgecolor=INK, zorder=3)


def _draw_looks(pace: Axes, turned: Axes, compared: Comparison, traces: "tuple[pd.DataFrame, ...]") -> None:
    """Draw how fast the view turns, and how far to the right."""
    dress_axes(pace, y_label="look\n(deg/s)")
    dress_axes(turned, "", "time (s)", "yaw, turns\nadded up (deg)")
    for name, trace, (color, dashes) in zip(compared.names, traces, LINE_STYLES, strict=False):
        t = trace["t"].to_numpy()
        pace.plot(t, np.hypot(*look_rates_deg_s(trace)), color=color, linestyle=dashes, linewidth=1.8, label=name)
        turned.plot(t, whole_yaw_deg(trace), color=color, linestyle=dashes, linewidth=1.8)
    _share_time(pace, turned, traces)


def _moves(trace: "pd.DataFrame") -> "NDArray[np.bool_]":
    return np.asarray(np.hypot(trace["vel_x"].to_numpy(), trace["vel_y"].to_numpy()) > MOVES_M_S, dtype=bool)


def _headings_deg(trace: "pd.DataFrame") -> "NDArray[np.float64]":
    """Return the headings of the path, without a jump at 360; missing at rest."""
    moving = _moves(trace)
    turned: NDArray[np.float64] = np.full(len(trace), np.nan)
    headings = np.arctan2(trace["vel_x"].to_numpy()[moving], trace["vel_y"].to_numpy()[moving])
    turned[moving] = np.degrees(np.unwrap(headings))
    return turned
