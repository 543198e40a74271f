"""The walk from above, with the camera and the facing at intervals."""

import math
from typing import TYPE_CHECKING

from matplotlib.axes import Axes
from matplotlib.patches import Wedge

from wendonic.errors import WendonicError
from wendonic.pictures.style import FOG, INK, MIST, MOSS, PAPER, SLATE, blank_axes, dress_axes

if TYPE_CHECKING:
    import pandas as pd

GLYPHS = 24
"""About how many times camera and facing are drawn."""

VIEW_WIDTH_DEG = 60.0
"""How wide the wedge of the camera is drawn; only its middle means something."""


def draw_path(trace: "pd.DataFrame", title: str = "", ax: Axes | None = None) -> Axes:
    """Draw the path of a trace in the plan frame: x right (east), y ahead (north), both in metres.

    At equal intervals, an open wedge shows where the camera looks and an arrow where the body faces; the start
    is a ring, the end a square. Returns the axes. Raises `WendonicError` for a trace without rows.

    >>> from wendonic import shape
    >>> from wendonic.demo import demo_profile, demo_recording
    >>> ax = draw_path(shape(demo_recording("beekeeper_keys"), demo_profile()), title="Once round")
    >>> ax.get_title(loc="left")
    'Once round: 82.9 m in 36.0 s'
    """
    if trace.empty:
        raise WendonicError("the trace has no ticks; there is nothing to draw")
    ax = blank_axes(ax)
    x, y = trace["pos_x"].to_numpy(), trace["pos_y"].to_numpy()
    length_m = float(((trace["pos_x"].diff() ** 2 + trace["pos_y"].diff() ** 2) ** 0.5).sum())
    span = max(float(x.max() - x.min()), float(y.max() - y.min()), 1.0)
    duration_s = float(trace["dt"].sum())
    tick_s = float(trace["dt"].mean())
    interval_s = max(_round_interval(duration_s / GLYPHS), tick_s)
    dress_axes(
        ax,
        f"{title or 'The walk'}: {length_m:.1f} m in {duration_s:.1f} s",
        "x, right (m)",
        "y, ahead (m)",
    )
    ax.set_aspect("equal", adjustable="datalim")
    ax.grid(color=FOG, linewidth=0.5, alpha=0.6)
    ax.plot(x, y, color=MOSS, linewidth=2.0, label="path", zorder=2)
    size = span / 22.0
    start_t = float(trace["t"].iloc[0] - trace["dt"].iloc[0])
    begins = ((trace["t"] - start_t) / interval_s).astype("int64").diff().fillna(1) > 0
    shown = trace[begins]
    for at_x, at_y, yaw_deg in zip(shown["pos_x"], shown["pos_y"], shown["view_yaw_deg"], strict=True):
        # Wedges are measured counter-clockwise from +x, headings clockwise from +y.
        middle = 90.0 - yaw_deg
        half = VIEW_WIDTH_DEG / 2.0
        ax.add_patch(
            Wedge(
                (at_x, at_y), size, middle - half, middle + half, facecolor=FOG, edgecolor=MIST, alpha=0.55, zorder=1
            )
        )
    facing = [math.radians(face_deg) for face_deg in shown["face_deg"]]
    ax.quiver(
        shown["pos_x"],
        shown["pos_y"],
        [math.sin(face) for face in facing],
        [math.cos(face) for face in facing],
        angles="xy",
        scale_units="xy",
        scale=1.0 / (0.8 * size),
        color=SLATE,
        width=0.0028,
        zorder=3,
    )
    times = zip(shown["pos_x"], shown["pos_y"], shown["t"], facing, strict=True)
    for number, (at_x, at_y, t, face) in enumerate(times):
        if number and number % 5 == 0:
            # To the right of the body, where neither the path nor the arrow runs.
            ax.annotate(
                f"{t:.0f} s" if interval_s >= 0.2 else f"{t:.2f} s",
                (at_x, at_y),
                (24.0 * math.cos(face), -14.0 * math.sin(face)),
                textcoords="offset points",
                ha="center",
                va="center",
                fontsize=9,
                color=INK,
                zorder=5,
            )
    ax.plot([], [], marker=(3, 0, 60), color=MIST, markerfacecolor=FOG, markersize=11, linestyle="", label="camera")
    ax.plot([], [], marker=r"$\rightarrow$", color=SLATE, markersize=13, linestyle="", label="facing")
    ax.plot(x[0], y[0], "o", markersize=11, markerfacecolor=PAPER, markeredgecolor=INK, label="start", zorder=4)
    ax.plot(x[-1], y[-1], "s", markersize=9, markerfacecolor=INK, markeredgecolor=INK, label="end", zorder=4)
    every = "every tick" if interval_s == tick_s else f"every {interval_s:g} s"
    ax.legend(loc="center left", bbox_to_anchor=(1.0, 0.5), frameon=False, labelcolor=INK, title=every)
    return ax


def _round_interval(seconds: float) -> float:
    """Return the next of 1, 2, 5 times a power of ten.

    >>> _round_interval(1.5), _round_interval(0.03)
    (2.0, 0.05)
    """
    power = 10.0 ** math.floor(math.log10(seconds))
    return next(step * power for step in (1.0, 2.0, 5.0, 10.0) if step * power >= seconds)
