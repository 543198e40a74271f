"""Raw, shaped, intent and speed over time, with held keys and presses as bars."""

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
    INK,
    INTENT,
    MIST,
    MOTION,
    PAPER,
    RAW,
    SHAPED,
    SLATE,
    dress_axes,
    label_lines,
    split_axes,
    write_title,
)
from wendonic.recording.held import held_spans
from wendonic.recording.recording import Recording
from wendonic.study.looking import look_rates_deg_s, looks_deg, only_looks, turned_deg, whole_yaw_deg
from wendonic.study.motion import level_speeds_m_s
from wendonic.study.press_spans import PressSpans, press_spans

if TYPE_CHECKING:
    import pandas as pd

SAME_SPEED = 1e-4
"""A speed within this share of the highest one counts as reaching it."""

LANE_HEIGHT = 0.16
"""Height of one key's lane, as a share of a panel's."""

MOST_LANES_HEIGHT = 4.0

LOOKING: dict[str, Any] = INTENT | {"linestyle": "-", "linewidth": 1.2}
"""The view is part of the intent; dashes would hide its steps from tick to tick."""

HEIGHTS = {"right": 1.0, "forward": 1.0, "amount": 0.8, "look": 0.8, "view": 0.8, "speed": 1.0}
"""The kinds of panels, with their relative heights."""


def draw_timeline(
    trace: "pd.DataFrame",
    recording: Recording,
    start_s: float | None = None,
    end_s: float | None = None,
    ax: Axes | None = None,
    length: LengthUnit = METRES,
) -> list[Axes]:
    """Draw a recording and its trace over time, from `start_s` to `end_s` if given (the recording's own time).

    Panels from the top: held keys and buttons as bars, and the presses that come of them (if there are any), right
    and forward (raw and shaped, and `turn`, `throttle` and `rise` where they steer as well; where only `turn` and
    `throttle` steer, these; the height in place of a forward that is never requested, as in a game seen from the
    side), wanted amount, how fast the player turns the view (if ever), speed over the ground and, where there is
    any, the speed up and down (in the unit `length`). Of a player who only looks, there is nothing but how fast the
    view turns and where it points. The player's notes, and the modes of a trace that has several, are flags on the
    topmost panel. Returns the axes, top first. Raises `WendonicError` for a window that is empty or holds no tick.

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
    presses = press_spans(seen)
    count = len(spans) + len(presses)
    lanes = {"bars": min(LANE_HEIGHT * count, MOST_LANES_HEIGHT) + 0.1} if count else {}
    heights = lanes | {name: HEIGHTS[name] for name in _panels(trace)}
    axes = split_axes(ax, heights=list(heights.values()), share_x=True)
    panels = dict(zip(heights, axes, strict=True))
    if count:
        _draw_bars(panels.pop("bars"), spans, presses)
    for axis, name in (("x", "right"), ("y", "forward")):
        if name in panels:
            _draw_channel(panels[name], axis, trace, seen, length)
    if "amount" in panels:
        dress_axes(panels["amount"], y_label="amount\n(of top)")
        panels["amount"].plot(seen["t"], seen["amount"], label="intent", **INTENT)
        panels["amount"].set_ylim(*_limits(seen["amount"], low=-0.05))
    if "look" in panels:
        _draw_look(panels["look"], seen)
    if "view" in panels:
        _draw_view(panels["view"], seen)
    level = not trace["vel_z"].any()
    if "speed" in panels:
        _draw_speed(panels["speed"], seen, level, length)
    for panel in panels.values():
        label_lines(panel)
    for panel in axes[:-1]:
        panel.tick_params(labelbottom=False)
    axes[-1].set_xlabel("time (s)", color=INK)
    axes[-1].set_xlim(first, last)
    rows = add_marks(axes, [*notes_of(recording), *mode_changes(seen)], first, last)
    what = _what_to_see(seen, level, length)
    write_title(axes[0], f"{recording.title or 'Recording'}: {what}", pad=10 + MARK_ROW_POINTS * rows)
    return axes


def _panels(trace: "pd.DataFrame") -> list[str]:
    """Return the panels, top first: no walk for a player who only looks, and the look only if the player looks."""
    if only_looks(trace):
        return ["look", "view"]
    return ["right", "forward", "amount", *(["look"] if looks_deg(trace).any() else []), "speed"]


def _draw_channel(panel: Axes, axis: str, trace: "pd.DataFrame", seen: "pd.DataFrame", length: LengthUnit) -> None:
    """Draw the request along an axis of `move`, or the channel that drives, or the height, in its place."""
    t, sideways = seen["t"], axis == "x"
    panel.axhline(0.0, color=FOG, linewidth=0.6)
    if not trace[["local_x", "local_y"]].any(axis=None) and trace[["turn", "throttle"]].any(axis=None):
        # Nothing walks, so the other two channels steer.
        channel = "turn" if sideways else "throttle"
        dress_axes(panel, y_label="turn\n(-1 left)" if sideways else "throttle\n(-1 back)")
        panel.plot(t, seen[channel], label="shaped", **SHAPED)
        panel.set_ylim(-1.1, 1.1)
    elif not (sideways or trace[["raw_y", "local_y"]].any(axis=None)) and trace["vel_z"].any():
        dress_axes(panel)
        label_axis(panel.yaxis, "height\n", "m", length)
        panel.plot(t, seen["pos_z"], label="motion", **MOTION)
    else:
        dress_axes(panel, y_label="right\n(-1 left)" if sideways else "forward\n(-1 back)")
        # A sample holds for the whole tick that ends at t, so its step is at the beginning of the tick.
        panel.plot(t, seen[f"raw_{axis}"], drawstyle="steps-pre", label="raw", **RAW)
        panel.plot(t, seen[f"local_{axis}"], label="shaped", **SHAPED)
        # Other channels steer as well, or in other modes.
        others = [channel for channel in (["turn"] if sideways else ["throttle", "rise"]) if trace[channel].any()]
        for channel, style in zip(others, (CLIMB, INTENT), strict=False):
            panel.plot(t, seen[channel], label=channel, **style)
        panel.set_ylim(*_limits(seen[f"raw_{axis}"], seen[f"local_{axis}"], low=-1.1))


def _what_to_see(seen: "pd.DataFrame", level: bool, length: LengthUnit) -> str:
    """Return the words of the title: the top speed, or, for a player who only looks, how far the view turned."""
    moved = level_speeds_m_s(seen)
    if not moved.any():
        return f"view turned {turned_deg(seen):.0f} deg" if looks_deg(seen).any() else "nothing moves"
    # Where it is first reached, not where rounding makes it slightly larger.
    fastest = int((moved >= (1.0 - SAME_SPEED) * moved.max()).argmax())
    over = "" if level else " over the ground"
    when = f"first at {float(seen['t'].iloc[fastest]):.2f} s"
    return f"top speed{over} {length.m_s(float(moved.max()), '.2f')}, {when}"


def _draw_look(look: Axes, seen: "pd.DataFrame") -> None:
    """Draw how fast the player turns the view."""
    dress_axes(look, y_label="look\n(deg/s)")
    look.axhline(0.0, color=FOG, linewidth=0.6)
    yaw, pitch = look_rates_deg_s(seen)
    look.plot(seen["t"], yaw, label="yaw, to the right", **LOOKING)
    if pitch.any():
        look.plot(seen["t"], pitch, label="pitch, up", **CLIMB)


def _draw_view(view: Axes, seen: "pd.DataFrame") -> None:
    """Draw where the view points, without a jump from 360 to 0."""
    dress_axes(view, y_label="view\n(deg)")
    view.plot(seen["t"], whole_yaw_deg(seen), label="yaw", **LOOKING)
    if seen["view_pitch_deg"].any():
        view.plot(seen["t"], seen["view_pitch_deg"], label="pitch", **CLIMB)


def _draw_speed(speed: Axes, seen: "pd.DataFrame", level: bool, length: LengthUnit) -> None:
    t, climbs, moved = seen["t"], seen["vel_z"], level_speeds_m_s(seen)
    dress_axes(speed)
    label_axis(speed.yaxis, "speed", "m/s", length)
    speed.plot(t, moved, label="motion" if level else "over ground", **MOTION)
    if not level:
        speed.axhline(0.0, color=FOG, linewidth=0.6)
        speed.plot(t, climbs, label="up", **CLIMB)
    speed.set_ylim(
        min(1.12 * float(climbs.min()), 0.0), max(1.12 * float(moved.max()), 1.12 * float(climbs.max()), 0.1)
    )


def _limits(*series: "pd.Series[float]", low: float) -> tuple[float, float]:
    """Return limits that include -1.1 (or `low`) to 1.1, and more if the values go further."""
    least = min(float(values.min()) for values in series)
    most = max(float(values.max()) for values in series)
    return min(low, 1.1 * least), max(1.1, 1.1 * most)


def _draw_bars(ax: Axes, spans: dict[str, list[tuple[float, float]]], presses: dict[str, PressSpans]) -> None:
    """Draw held controls, and below them the resulting presses, with a mark where they begin."""
    dress_axes(ax)
    for lane, bars in enumerate(spans.values()):
        ax.broken_barh([(a, b - a) for a, b in bars], (lane - 0.32, 0.64), facecolors=MIST, edgecolor=PAPER)
    for lane, press in enumerate(presses.values(), len(spans)):
        ax.broken_barh([(a, b - a) for a, b in press.held], (lane - 0.14, 0.28), facecolors=SLATE)
        ax.plot(press.began, [lane] * len(press.began), "|", color=SLATE, markersize=7, markeredgewidth=1.6)
    labels = [*(name.removeprefix("key.") for name in spans), *presses]
    # Many lanes share the height, and their names shrink with them.
    fits = MOST_LANES_HEIGHT / LANE_HEIGHT / len(labels)
    ax.set_yticks(range(len(labels)), labels, fontsize=9.0 * min(fits, 1.0))
    ax.set_ylim(len(labels) - 0.4, -0.6)
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
    """Raw, shaped, intent, look and speed over time, held keys and presses as bars."""
    return draw_timeline(
        given.trace, given.own_recording, given.start_s, given.end_s, length=given.profile.world.length
    )
