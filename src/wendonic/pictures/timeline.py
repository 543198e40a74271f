"""Raw, shaped, intent and speed over time, with held keys as bars."""

from typing import TYPE_CHECKING, Any

from matplotlib.axes import Axes

from wendonic.batch.window import ticks_between
from wendonic.errors import WendonicError
from wendonic.length_unit import METRES, LengthUnit
from wendonic.pictures.lengths import label_axis
from wendonic.pictures.marks import MARK_ROW_POINTS, add_marks, mode_changes, notes_of
from wendonic.pictures.picture import Given, picture
from wendonic.pictures.style import (
    CLIMB,
    FOG,
    INTENT,
    MIST,
    MOTION,
    PAPER,
    RAW,
    SHAPED,
    dress_axes,
    label_lines,
    split_axes,
    write_title,
)
from wendonic.recording.held import held_spans
from wendonic.recording.recording import Recording
from wendonic.study.motion import level_speeds_m_s

if TYPE_CHECKING:
    import numpy as np
    import pandas as pd
    from numpy.typing import NDArray

SAME_SPEED = 1e-4
"""A speed within this share of the highest has reached it."""

LANE_HEIGHT = 0.16
"""Height of one key's lane, as a share of a panel's."""

MOST_LANES_HEIGHT = 4.0


def draw_timeline(
    trace: "pd.DataFrame",
    recording: Recording,
    start_s: float | None = None,
    end_s: float | None = None,
    ax: Axes | None = None,
    length: LengthUnit = METRES,
) -> list[Axes]:
    """Draw a recording and its trace over time, from `start_s` to `end_s` if given (the recording's own time).

    Panels from the top: held keys and buttons as bars (if there are any), right and forward (raw and shaped; where
    only `turn` and `throttle` steer, these; the height in place of a forward that is never requested, as in a game
    seen from the side), wanted amount, speed over the ground and, where
    there is any, the speed up and down (in the unit `length`). The player's notes, and the
    modes of a trace that has several, are flags on the topmost panel. Returns the axes, top first. Raises
    `WendonicError` for a window that is empty or holds no tick.

    >>> from wendonic import shape
    >>> from wendonic.demo import demo_profile, demo_recording
    >>> recording = demo_recording("beekeeper_keys")
    >>> len(draw_timeline(shape(recording, demo_profile()), recording, start_s=26, end_s=33))
    5
    """
    if trace.empty:
        raise WendonicError("the recording has no events; there is nothing to draw")
    seen = ticks_between(trace, start_s, end_s)
    first = float(trace["t"].iloc[0] - trace["dt"].iloc[0]) if start_s is None else start_s
    last = float(trace["t"].iloc[-1]) if end_s is None else end_s
    spans = {
        name: [(max(a, first), min(b, last)) for a, b in bars if b > first and a < last]
        for name, bars in held_spans(recording).items()
    }
    spans = {name: bars for name, bars in spans.items() if bars}
    lanes = [min(LANE_HEIGHT * len(spans), MOST_LANES_HEIGHT) + 0.1] if spans else []
    axes = split_axes(ax, heights=[*lanes, 1.0, 1.0, 0.8, 1.0], share_x=True)
    if spans:
        _draw_bars(axes[0], spans)
    right, forward, amount, speed = axes[-4:]
    t = seen["t"]
    drives = not trace[["local_x", "local_y"]].any(axis=None) and trace[["turn", "throttle"]].any(axis=None)
    rises = not trace[["raw_y", "local_y"]].any(axis=None) and bool(trace["vel_z"].any())
    for panel, axis, words in ((right, "x", "right\n(-1 left)"), (forward, "y", "forward\n(-1 back)")):
        panel.axhline(0.0, color=FOG, linewidth=0.6)
        if drives:
            # Nothing walks: what steers are the other two channels.
            name, ends = ("turn", "(-1 left)") if axis == "x" else ("throttle", "(-1 back)")
            dress_axes(panel, y_label=f"{name}\n{ends}")
            panel.plot(t, seen[name], label="shaped", **SHAPED)
            panel.set_ylim(-1.1, 1.1)
            continue
        if axis == "y" and rises:
            dress_axes(panel)
            label_axis(panel.yaxis, "height\n", "m", length)
            panel.plot(t, seen["pos_z"], label="motion", **MOTION)
            continue
        dress_axes(panel, y_label=words)
        # A sample stands for the whole tick that ends at t, so its step lies at the tick's beginning.
        panel.plot(t, seen[f"raw_{axis}"], drawstyle="steps-pre", label="raw", **RAW)
        panel.plot(t, seen[f"local_{axis}"], label="shaped", **SHAPED)
        panel.set_ylim(*_limits(seen[f"raw_{axis}"], seen[f"local_{axis}"], low=-1.1))
    dress_axes(amount, y_label="amount\n(of top)")
    amount.plot(t, seen["amount"], label="intent", **INTENT)
    amount.set_ylim(*_limits(seen["amount"], low=-0.05))
    moved, level = level_speeds_m_s(seen), not trace["vel_z"].any()
    _draw_speed(speed, seen, moved, level, length)
    for panel in axes[-4:]:
        label_lines(panel)
    for panel in axes[:-1]:
        panel.tick_params(labelbottom=False)
    speed.set_xlim(first, last)
    # Where it is reached, not where rounding makes it a little more.
    fastest = int((moved >= (1.0 - SAME_SPEED) * moved.max()).argmax())
    over = "" if level else " over the ground"
    top = f"top speed{over} {length.m_s(float(moved.max()), '.2f')}, first at {float(t.iloc[fastest]):.2f} s"
    rows = add_marks(axes, [*notes_of(recording), *mode_changes(seen)], first, last)
    write_title(axes[0], f"{recording.title or 'Recording'}: {top}", pad=10 + MARK_ROW_POINTS * rows)
    return axes


def _draw_speed(
    speed: Axes, seen: "pd.DataFrame", moved: "NDArray[np.float64]", level: bool, length: LengthUnit
) -> None:
    t, climbs = seen["t"], seen["vel_z"]
    dress_axes(speed, x_label="time (s)")
    label_axis(speed.yaxis, "speed", "m/s", length)
    speed.plot(t, moved, label="motion" if level else "over ground", **MOTION)
    if not level:
        speed.axhline(0.0, color=FOG, linewidth=0.6)
        speed.plot(t, climbs, label="up", **CLIMB)
    speed.set_ylim(
        min(1.12 * float(climbs.min()), 0.0), max(1.12 * float(moved.max()), 1.12 * float(climbs.max()), 0.1)
    )


def _limits(*series: "pd.Series[float]", low: float) -> tuple[float, float]:
    """Return limits that hold all of -1.1 (or `low`) to 1.1, and more where the values go further."""
    least = min(float(values.min()) for values in series)
    most = max(float(values.max()) for values in series)
    return min(low, 1.1 * least), max(1.1, 1.1 * most)


def _draw_bars(ax: Axes, spans: dict[str, list[tuple[float, float]]]) -> None:
    dress_axes(ax)
    for lane, bars in enumerate(spans.values()):
        ax.broken_barh([(a, b - a) for a, b in bars], (lane - 0.32, 0.64), facecolors=MIST, edgecolor=PAPER)
    labels = [name.removeprefix("key.") for name in spans]
    # Many lanes share what height there is, and their names shrink with them.
    fits = MOST_LANES_HEIGHT / LANE_HEIGHT / len(spans)
    ax.set_yticks(range(len(spans)), labels, fontsize=9.0 * min(fits, 1.0))
    ax.set_ylim(len(spans) - 0.4, -0.6)
    ax.spines["left"].set_visible(False)
    ax.tick_params(axis="y", length=0)


@picture(
    "profile",
    "recording",
    "window",
    "hz",
    "mode",
    "seat",
    "course",
    example="wendonic draw timeline demo-out/beekeeper.toml demo-out/beekeeper_keys.jsonl --from 26 --to 33",
)
def timeline(given: Given) -> Any:
    """Raw, shaped, intent and speed over time, held keys as bars."""
    return draw_timeline(given.trace, given.recording, given.start_s, given.end_s, length=given.profile.world.length)
