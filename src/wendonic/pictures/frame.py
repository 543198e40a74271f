"""Why "forward" went there: a compass rose at chosen moments."""

import math
from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

import numpy as np
from matplotlib.axes import Axes
from matplotlib.patches import Circle, Wedge

from wendonic.errors import WendonicError
from wendonic.length_unit import LengthUnit
from wendonic.pictures.path import VIEW_WIDTH_DEG
from wendonic.pictures.picture import Given, picture
from wendonic.pictures.style import FOG, HEATHER, HONEY, INK, MIST, MOSS, PAPER, SLATE, split_axes, write_title
from wendonic.profile.schema.mode import Mode
from wendonic.profile.schema.profile import Profile

if TYPE_CHECKING:
    import pandas as pd

MOST_MOMENTS = 12
USUAL_MOMENTS = 6
INPUT_AT = (-1.12, -1.12)
INPUT_SIZE = 0.3
"""Position and size of the player's own input beside the rose."""


def moments_of(trace: "pd.DataFrame", count: int = USUAL_MOMENTS) -> list[float]:
    """Return a number of times (s), evenly spread over the moving parts of a trace.

    >>> from wendonic import shape
    >>> from wendonic.demo import demo_profile, demo_recording
    >>> [round(t, 2) for t in moments_of(shape(demo_recording("beekeeper_keys"), demo_profile()), 3)]
    [5.58, 15.77, 24.7]
    """
    moving = trace["t"][trace["amount"] > 0.0]
    times = moving if len(moving) else trace["t"]
    shares = (np.arange(count) + 0.5) / count
    return [float(times.iloc[int(share * len(times))]) for share in shares]


LONG_TITLE = 70
"""Characters of a title that fit on one line above the first of three columns."""


def draw_frame(
    trace: "pd.DataFrame",
    profile: Profile,
    moments: Sequence[float] | None = None,
    title: str = "",
    ax: Axes | None = None,
) -> list[Axes]:
    """Draw a compass rose for each of the moments (s, the trace's own time; six of them by default).

    Forward of the world is up. A wedge shows the camera, an open arrow where the body faces, a dashed line what is
    forward in the profile's steer frame, a full arrow where the request goes, as long as its amount; the small circle
    beside it has what the player requested, forward up. Returns the axes of the roses. Raises `WendonicError` for a
    trace without rows, or a moment outside of it.

    >>> from wendonic import shape
    >>> from wendonic.demo import demo_profile, demo_recording
    >>> ride = shape(demo_recording("cart_ride"), demo_profile("cart"), engine="interpreted")
    >>> len(draw_frame(ride, demo_profile("cart"), moments=[2.0, 5.0]))
    2
    """
    if trace.empty:
        raise WendonicError("the trace has no ticks; there is nothing to draw")
    times = moments_of(trace) if moments is None else list(moments)
    first, last = float(trace["t"].iloc[0]), float(trace["t"].iloc[-1])
    outside = [t for t in times if not first - 1e-9 <= t <= last + 1e-9]
    if outside or not 0 < len(times) <= MOST_MOMENTS:
        shown = ", ".join(f"{t:g}" for t in outside) or f"{len(times)} of them"
        raise WendonicError(f"moments: found {shown}; allowed: 1 to {MOST_MOMENTS} from {first:.2f} to {last:.2f} s")
    columns = min(len(times), 3 if len(times) <= 6 else 4)
    rows = -(-len(times) // columns)
    roses = split_axes(ax, heights=(1.0,) * rows, widths=(1.0,) * columns)
    for empty in roses[len(times) :]:
        empty.set_axis_off()
    roses = roses[: len(times)]
    ticks = [trace.iloc[int(np.searchsorted(trace["t"].to_numpy(), t - 1e-9))] for t in times]
    modes = [profile.mode[str(tick["mode"])] for tick in ticks]
    for rose, tick, mode in zip(roses, ticks, modes, strict=True):
        _draw_rose(rose, tick, mode, profile.world.length)
    frames = " and ".join(f'"{frame}"' for frame in dict.fromkeys(mode.steer.frame for mode in modes))
    words = f"{title or 'Forward'}: why it goes there, in frame {frames}"
    # A title centred beyond the first column would widen it.
    write_title(roses[0], words if len(words) < LONG_TITLE else words.replace(": why", ":\nwhy"), pad=22.0)
    _draw_key(roses[0], modes[0])
    return roses


def _bearing(deg: float, length: float = 1.0) -> tuple[float, float]:
    return length * math.sin(math.radians(deg)), length * math.cos(math.radians(deg))


def forward_deg(tick: Any, mode: Mode) -> float | None:
    """Return the compass heading (deg) of forward in a mode's steer frame at a tick; None if the tick cannot tell."""
    by = mode.steer.turns_with
    if by == "plan":
        return 0.0
    if by == "view":
        return float(tick["view_yaw_deg"]) % 360.0
    if by == "body":
        return float(tick["face_deg"])
    if math.isnan(tick["heading_deg"]):
        return None
    requested_deg = math.degrees(math.atan2(tick["local_x"], tick["local_y"]))
    return (float(tick["heading_deg"]) - requested_deg) % 360.0


def _input(tick: Any, mode: Mode) -> tuple[float, float]:
    if mode.steer.frame == "drive":
        return tick["turn"] + tick["local_x"], tick["throttle"] + tick["local_y"]
    return tick["local_x"], tick["local_y"]


def _draw_rose(ax: Axes, tick: Any, mode: Mode, length: LengthUnit) -> None:
    ax.set_facecolor(PAPER)
    ax.set_aspect("equal")
    ax.set_xlim(-1.6, 1.6)
    ax.set_ylim(-2.05, 1.3)
    ax.set_axis_off()
    ax.add_patch(Circle((0.0, 0.0), 1.0, facecolor="none", edgecolor=MIST, linewidth=1.0))
    for deg in range(0, 360, 45):
        x, y = _bearing(deg)
        inner = 0.9 if deg % 90 == 0 else 0.95
        ax.plot([x * inner, x], [y * inner, y], color=MIST, linewidth=1.0)
        if deg % 90 == 0:
            name = {0: "0, +y", 90: "90, +x", 180: "180", 270: "270"}[deg]
            side = {90: "left", 270: "right"}.get(deg, "center")
            ax.text(x * 1.04, y * 1.2, name, ha=side, va="center", fontsize=8, color=MIST)
    yaw_deg = float(tick["view_yaw_deg"])
    half = VIEW_WIDTH_DEG / 2.0
    ax.add_patch(
        Wedge(
            (0.0, 0.0), 0.8, 90.0 - yaw_deg - half, 90.0 - yaw_deg + half, facecolor=FOG, edgecolor=MIST, alpha=0.55
        )
    )
    forward = forward_deg(tick, mode)
    if forward is not None:
        # Past the rim, so that it is visible under an arrow.
        x, y = _bearing(forward, 1.1)
        ax.plot([0.0, x], [0.0, y], color=HONEY, linewidth=1.6, linestyle=(0, (4, 2)), zorder=2)
    going = mode.steer.frame == "goto" and not math.isnan(tick["goal_x"])
    if going:
        goal_bearing_deg = math.degrees(math.atan2(tick["goal_x"] - tick["pos_x"], tick["goal_y"] - tick["pos_y"]))
        ax.plot(*_bearing(goal_bearing_deg, 1.0), "P", markersize=10, color=HEATHER, markeredgecolor=PAPER, zorder=4)
    _arrow(ax, _bearing(float(tick["face_deg"]), 0.62), MOSS, filled=False)
    if not math.isnan(tick["heading_deg"]):
        _arrow(
            ax, _bearing(float(tick["heading_deg"]), max(min(float(tick["amount"]), 1.0), 0.15)), SLATE, filled=True
        )
    _draw_input(ax, _input(tick, mode))
    ax.text(
        0.0,
        -1.52,
        _words(tick, mode, forward, length),
        ha="center",
        va="top",
        fontsize=9,
        color=INK,
        linespacing=1.35,
    )


def _arrow(ax: Axes, to: tuple[float, float], color: str, filled: bool) -> None:
    style = "-|>,head_width=0.28,head_length=0.6" if filled else "->,head_width=0.3,head_length=0.5"
    ax.annotate(
        "",
        to,
        (0.0, 0.0),
        arrowprops={
            "arrowstyle": style,
            "color": color,
            "linewidth": 3.2 if filled else 1.8,
            "shrinkA": 0.0,
            "shrinkB": 0.0,
            "mutation_scale": 14,
        },
        zorder=3.5 if filled else 3.0,
    )


def _draw_input(ax: Axes, request: tuple[float, float]) -> None:
    x, y = INPUT_AT
    ax.add_patch(Circle(INPUT_AT, INPUT_SIZE, facecolor="none", edgecolor=HONEY, linewidth=1.0))
    ax.text(x, y + INPUT_SIZE + 0.06, "input", ha="center", va="bottom", fontsize=8, color=INK)
    length = max(math.hypot(*request), 1.0)
    to = (x + INPUT_SIZE * request[0] / length, y + INPUT_SIZE * request[1] / length)
    ax.plot([x, to[0]], [y, to[1]], color=HONEY, linewidth=1.6)
    ax.plot(*to, "o", markersize=5, color=HONEY)


def _words(tick: Any, mode: Mode, forward: float | None, length: LengthUnit) -> str:
    """Return three lines: what was forward, what was requested, and the result."""
    lines = [f"{tick['t']:.2f} s"]
    frame = mode.steer.frame
    if mode.steer.seen_from_side:
        lines[0] += ": seen from the side"
    elif forward is not None:
        lines[0] += f": forward is {mode.steer.forward_name}, {_whole(forward)} deg"
    right, forth = _input(tick, mode)
    if frame == "drive":
        lines.append(f"throttle {forth:z.2f}, turn {right:z.2f}")
    elif frame == "goto" and not math.isnan(tick["goal_x"]):
        far = math.hypot(tick["goal_x"] - tick["pos_x"], tick["goal_y"] - tick["pos_y"])
        lines.append(f"the goal is {length.m(far, '.1f')} away")
    elif right == 0.0 and forth == 0.0:
        lines.append("nothing requested")
    else:
        side = math.degrees(math.atan2(right, forth))
        usual = {0: "straight ahead", 180: "straight back"}
        direction = usual.get(round(abs(side)), f"{abs(side):.0f} deg to the {'right' if side > 0 else 'left'}")
        lines.append(f"requested: {direction}, {math.hypot(right, forth):.2f}")
    rises = f", rise {tick['rise']:.2f}" if frame == "fly" and tick["rise"] else ""
    goes = "rests"
    if not math.isnan(tick["heading_deg"]):
        goes = f"goes {_whole(tick['heading_deg'])} deg, {tick['amount']:.2f}{rises}"
    elif tick["amount"] > 0.0:
        climbs = (tick["rise"] or tick["view_pitch_deg"]) > 0.0
        goes = f"goes straight {'up' if climbs else 'down'}, {tick['amount']:.2f}"
    if not math.isnan(tick.get("refused_x", math.nan)):
        goes = f"refused by square ({tick['refused_x']:.0f}, {tick['refused_y']:.0f})"
    elif tick.get("refused", False):
        goes += ", too steep"
    lines.append(f"{goes}; faces {_whole(tick['face_deg'])} deg")
    return "\n".join(lines)


def _whole(heading_deg: float) -> int:
    return round(heading_deg) % 360


def _draw_key(ax: Axes, mode: Mode) -> None:
    marks: list[tuple[str, dict[str, Any]]] = [
        ("camera", {"marker": (3, 0, 60), "color": MIST, "markerfacecolor": FOG, "markersize": 11, "linestyle": ""}),
        ("forward", {"color": HONEY, "linestyle": (0, (4, 2)), "linewidth": 1.6}),
        ("faces", {"marker": r"$\rightarrow$", "color": MOSS, "markersize": 13, "linestyle": ""}),
        ("goes", {"color": SLATE, "linewidth": 3.2}),
    ]
    if mode.steer.frame == "goto":
        marks.append(("goal", {"marker": "P", "color": HEATHER, "markersize": 9, "linestyle": ""}))
    for label, style in marks:
        ax.plot([], [], label=label, **style)
    key = ax.legend(
        loc="lower left", bbox_to_anchor=(0.0, 0.98), ncols=len(marks), frameon=False, fontsize=9, labelcolor=INK
    )
    # Otherwise the first column would be as wide as the key.
    key.set_in_layout(False)
    ax.title.set_in_layout(False)


@picture(
    "profile",
    "recording",
    "moments",
    "window",
    "hz",
    "mode",
    "seat",
    "course",
    example="wendonic draw frame demo-out/beekeeper.toml demo-out/beekeeper_keys.jsonl --at 3 --at 17.5",
)
def frame(given: Given) -> Any:
    """Why forward went there: a compass rose with camera, facing, input and result at some moments."""
    return draw_frame(given.seen, given.profile, given.moments, given.own_recording.title)
