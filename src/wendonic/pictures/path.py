"""The walk from above or from the side, with camera and facing at intervals, on the ground that it went over."""

import math
from typing import TYPE_CHECKING, Any

from matplotlib.axes import Axes
from matplotlib.patches import Wedge
from matplotlib.text import Annotation

from wendonic.course import Course
from wendonic.errors import WendonicError
from wendonic.length_unit import METRES, LengthUnit
from wendonic.pictures.clear_places import place_clear
from wendonic.pictures.lengths import label_axis
from wendonic.pictures.path_ground import add_ground, add_section, upright
from wendonic.pictures.path_marks import add_goals, add_jumps, add_mode_changes, add_refusals, add_squares
from wendonic.pictures.path_swing import add_swing
from wendonic.pictures.picture import Given, picture
from wendonic.pictures.style import FOG, INK, MIST, MOSS, PAPER, RIM, SLATE, blank_axes, dress_axes, split_axes
from wendonic.profile.schema.mode import Mode
from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.steer.grid import GridSteer
from wendonic.recording.recording import Recording
from wendonic.significant import clock_s
from wendonic.study.motion import begins_at, relocated, steps_m

if TYPE_CHECKING:
    import pandas as pd

LEVEL_M = 0.05
"""Smaller heights above the plan are not mentioned."""

GLYPHS = 24
"""Approximate number of places at which camera and facing are drawn."""

VIEW_WIDTH_DEG = 60.0
"""Width of the camera's wedge; only its middle has a meaning."""

SWING_SHARE = 0.28
"""Height of the panel with the hands' swing, as a share of the walk's."""


def draw_path(
    trace: "pd.DataFrame",
    title: str = "",
    ax: Axes | None = None,
    profile: Profile | None = None,
    recording: Recording | None = None,
    course: Course | None = None,
) -> Axes:
    """Draw the path of a trace in the plan frame: x right (east), y forward (north), both in metres, or in the
    profile's own unit.

    At equal intervals, an open wedge shows where the camera looks and an arrow where the body faces; the start is a
    ring, the end a square. With the `profile`, the parts of its steer frame are drawn as well: squares and refused
    steps, goals with the radius of arrival, the way backwards; with the `recording`, the swing of the hands below the
    walk; with a `course`, its heights as contour lines, its walls and its blocked squares. A diamond is where another
    mode begins. Where all modes of the trace are a side view, it is drawn as the player sees it: height over x, and a
    course is cut at the body's depth. Returns the axes of the walk. Raises `WendonicError` for a trace without rows.

    >>> from wendonic import shape
    >>> from wendonic.demo import demo_profile, demo_recording
    >>> ax = draw_path(shape(demo_recording("beekeeper_keys"), demo_profile()), title="Once round")
    >>> ax.get_title(loc="left")
    'Once round: 83.2 m in 36.0 s'
    """
    if trace.empty:
        raise WendonicError("the trace has no ticks; there is nothing to draw")
    stretches: list[tuple[pd.DataFrame, Mode | None]] = [(trace, None)]
    if profile is not None:
        names = trace["mode"].astype(str)
        stretches = [(trace[names == name], profile.mode[name]) for name in dict.fromkeys(names)]
    modes = [mode for _, mode in stretches]
    swings = recording is not None and any(mode is not None and mode.steer.frame == "hands" for mode in modes)
    if swings and recording is not None:
        ax, below = split_axes(ax, heights=(1.0, SWING_SHARE))
        add_swing(below, recording, trace)
    else:
        ax = blank_axes(ax)
    length_m = float(steps_m(trace).sum())
    from_side = all(mode is not None and mode.steer.seen_from_side for mode in modes)
    start = begins_at(trace)
    if from_side:
        stretches = [(upright(part), mode) for part, mode in stretches]
        depth_m = float(trace["pos_y"].iloc[0])
        trace = upright(trace)
    span = max(*(float(trace[axis].max() - trace[axis].min()) for axis in ("pos_x", "pos_y")), 1.0)
    duration_s = float(trace["dt"].sum())
    tick_s = float(trace["dt"].mean())
    interval_s = max(_round_interval(duration_s / GLYPHS), tick_s)
    length = METRES if profile is None else profile.world.length
    dress_axes(ax, f"{title or 'The walk'}: {length.m(length_m, '.1f')} in {duration_s:.1f} s")
    label_axis(ax.xaxis, "x, right", "m", length)
    label_axis(ax.yaxis, "height" if from_side else "y, forward", "m", length)
    ax.set_aspect("equal", adjustable="datalim")
    _draw_squares(ax, stretches, course)
    if course is not None and from_side:
        add_section(ax, course, trace, depth_m)
    elif course is not None:
        add_ground(ax, course, trace, length)
    _draw_line(ax, trace, [part for part, mode in stretches if mode and mode.steer.frame == "drive"])
    size = span / 22.0
    shown = _every(trace, interval_s)
    looking = [str(part["mode"].iloc[0]) for part, mode in stretches if mode is None or _steers_by_view(mode)]
    if looking:
        _draw_camera(ax, shown[shown["mode"].isin(looking)], size)
    facing = [math.radians(face_deg) for face_deg in shown["face_deg"]]
    _draw_facing(ax, shown, facing, from_side, 0.8 * size)
    goes = [math.pi / 2.0] * len(shown) if from_side else _headings(shown, facing)
    add_jumps(ax, trace)
    for part, mode in stretches:
        add_refusals(ax, part, mode)
        add_goals(ax, part, mode)
    modes_named = add_mode_changes(ax, trace)
    _draw_key(
        ax,
        trace,
        start[::2] if from_side else start[:2],
        bool(looking),
        "each tick" if interval_s == tick_s else f"every {interval_s:g} s",
    )
    place_clear(ax, [*modes_named, *_draw_times(ax, shown, goes, facing, length, from_side, size)])
    return ax


def _every(trace: "pd.DataFrame", interval_s: float) -> "pd.DataFrame":
    """Return the first tick of each interval."""
    start_t = float(trace["t"].iloc[0] - trace["dt"].iloc[0])
    # A tick that ends with an interval is its first one, however its time was rounded.
    return trace[((trace["t"] - start_t) / interval_s + 1e-6).astype("int64").diff().fillna(1) > 0]


def _draw_key(ax: Axes, trace: "pd.DataFrame", start: tuple[float, float], looks: bool, every: str) -> None:
    """Mark where the walk begins and ends, and explain the marks."""
    x, y = trace["pos_x"].to_numpy(), trace["pos_y"].to_numpy()
    if looks:
        ax.plot(
            [],
            [],
            marker=(3, 0, 60),
            color=MIST,
            markerfacecolor=FOG,
            markersize=11,
            linestyle="",
            label=f"camera, {every}",
        )
    ax.plot([], [], marker=r"$\rightarrow$", color=SLATE, markersize=13, linestyle="", label=f"facing, {every}")
    ax.plot(*start, "o", markersize=11, markerfacecolor=PAPER, markeredgecolor=INK, label="start", zorder=4)
    ax.plot(x[-1], y[-1], "s", markersize=9, markerfacecolor=INK, markeredgecolor=INK, label="end", zorder=4)
    ax.legend(loc="center left", bbox_to_anchor=(1.0, 0.5), frameon=False, labelcolor=INK)


def _steers_by_view(mode: Mode) -> bool:
    return mode.steer.turns_with in ("view", "other") or getattr(mode.steer, "face", "") == "view"


def _draw_line(ax: Axes, trace: "pd.DataFrame", driven: "list[pd.DataFrame]") -> None:
    walks = ~relocated(trace)
    x, y = trace["pos_x"].where(walks), trace["pos_y"].where(walks)
    ax.plot(x, y, color=MOSS, linewidth=2.0, label="path", zorder=2)
    in_air = ~trace["grounded"]
    if in_air.any():
        ax.plot(x.where(in_air), y.where(in_air), color=PAPER, linewidth=1.1, linestyle=(0, (1, 1.6)), zorder=2.5)
        ax.plot([], [], color=MOSS, linewidth=2.0, linestyle=(0, (1, 0.6)), label="in the air")
    for part in driven:
        faces = part["face_deg"].map(math.radians)
        along = part["vel_x"] * faces.map(math.sin) + part["vel_y"] * faces.map(math.cos)
        back = (along < -1e-6).reindex(trace.index, fill_value=False)
        if back.any():
            ax.plot(x.where(back), y.where(back), color=PAPER, linewidth=1.0, linestyle=(0, (2, 2)), zorder=2.5)
            ax.plot([], [], color=MOSS, linewidth=2.0, linestyle=(0, (2, 1)), label="backwards")


def _draw_camera(ax: Axes, shown: "pd.DataFrame", size: float) -> None:
    half = VIEW_WIDTH_DEG / 2.0
    for at_x, at_y, yaw_deg in zip(shown["pos_x"], shown["pos_y"], shown["view_yaw_deg"], strict=True):
        # Wedges are measured counter-clockwise from +x, headings clockwise from +y.
        middle = 90.0 - yaw_deg
        ax.add_patch(
            Wedge(
                (at_x, at_y), size, middle - half, middle + half, facecolor=FOG, edgecolor=MIST, alpha=0.55, zorder=1
            )
        )


def _draw_squares(ax: Axes, stretches: "list[tuple[pd.DataFrame, Mode | None]]", course: Course | None) -> None:
    """Draw the squares of a grid, or lines to read places by."""
    on_squares = [(part, mode.steer) for part, mode in stretches if mode and isinstance(mode.steer, GridSteer)]
    for part, steer in on_squares:
        add_squares(ax, part, steer, course)
    if not on_squares:
        ax.grid(color=FOG, linewidth=0.5, alpha=0.6)


def _draw_facing(ax: Axes, shown: "pd.DataFrame", facing: list[float], from_side: bool, size: float) -> None:
    ax.quiver(
        shown["pos_x"],
        shown["pos_y"],
        [math.sin(face) for face in facing],
        [0.0 if from_side else math.cos(face) for face in facing],
        angles="xy",
        scale_units="xy",
        scale=1.0 / size,
        color=SLATE,
        width=0.0028,
        zorder=3,
    )


def _headings(shown: "pd.DataFrame", facing: list[float]) -> list[float]:
    """Return the direction of the path at each mark: from the previous one to the next; where the body stays, the
    direction in which it came, or its facing at first.
    """
    places = list(zip(shown["pos_x"], shown["pos_y"], strict=True))
    before, after = [places[0], *places[:-1]], [*places[1:], places[-1]]
    headings, heading = [], facing[0]
    for (from_x, from_y), (to_x, to_y) in zip(before, after, strict=True):
        if math.hypot(to_x - from_x, to_y - from_y) > 1e-6:
            heading = math.atan2(to_x - from_x, to_y - from_y)
        headings.append(heading)
    return headings


def _draw_times(
    ax: Axes,
    shown: "pd.DataFrame",
    headings: list[float],
    facing: list[float],
    length: LengthUnit,
    from_side: bool,
    size: float,
) -> list[Annotation]:
    """Write the time beside every fifth mark, once for a place where the body stays, and the height if it changes and
    nothing else shows it; return the labels.
    """
    rises = not from_side and float(shown["pos_z"].max() - shown["pos_z"].min()) > LEVEL_M
    places = zip(shown["pos_x"], shown["pos_y"], shown["pos_z"], shown["t"], headings, facing, strict=True)
    written, labels = (math.inf, math.inf), []
    for number, (at_x, at_y, at_z, t, heading, face) in enumerate(places):
        if number and number % 5 == 0 and math.dist(written, (at_x, at_y)) > 0.5 * size:
            written = (at_x, at_y)
            time = f"{clock_s(round(t, 2))} s"
            if rises and abs(at_z) > LEVEL_M:
                time += f"\n{length.m(at_z, '.1f')} up"
            # Beside the path, to the right unless the body faces that way, where neither it nor the arrow runs.
            side = -1.0 if not from_side and math.sin(face - heading) > 0.7 else 1.0
            across, along = (40.0, -20.0) if rises else (24.0, -14.0)
            label = ax.annotate(
                time,
                (at_x, at_y),
                (side * across * math.cos(heading), side * along * math.sin(heading)),
                textcoords="offset points",
                ha="center",
                va="center",
                fontsize=9,
                color=INK,
                zorder=5,
                path_effects=RIM,
            )
            labels.append(label)
    return labels


def _round_interval(seconds: float) -> float:
    """Return the next of 1, 2, 5 times a power of ten.

    >>> _round_interval(1.5), _round_interval(0.03)
    (2.0, 0.05)
    """
    power = 10.0 ** math.floor(math.log10(seconds))
    return next(step * power for step in (1.0, 2.0, 5.0, 10.0) if step * power >= seconds)


@picture(
    "profile",
    "recording",
    "window",
    "hz",
    "mode",
    "seat",
    "course",
    example="wendonic draw path demo-out/beekeeper.toml demo-out/beekeeper_keys.jsonl -o path.png",
)
def path(given: Given) -> Any:
    """The walk from above, or height over x in a side view: camera, facing, goals, squares, heights, swings."""
    return draw_path(
        given.seen,
        given.own_recording.title,
        profile=given.profile,
        recording=given.own_recording,
        course=given.course,
    )
