"""The ground under a walk: contour lines, walls; from the side, a section of it."""

from typing import TYPE_CHECKING

import numpy as np
import numpy.typing as npt
from matplotlib.axes import Axes
from matplotlib.patches import Rectangle
from matplotlib.ticker import MaxNLocator

from wendonic.course import Course, Wall
from wendonic.length_unit import METRES, LengthUnit
from wendonic.pictures.style import FOG, HEATHER, INK, MIST

if TYPE_CHECKING:
    import pandas as pd

MARGIN = 0.15
"""Margin around the walk, as a share of it."""

SAMPLES = 160
MOST_LINES = 12

DARKEST = 0.3
"""Opacity of the highest ground."""

LABEL_PIXELS = 8.0
"""Contour lines closer together than this are not labelled."""

LEVEL_SLOPE = 0.02
"""Ground that rises less than this share of the distance may be level."""

LEVEL_STEP_SHARE = 0.1
"""Heights of level ground differ by less than this share of the step between two lines."""

LEAST_LEVEL_SHARE = 0.002
"""Level ground is labelled if it is at least this share of the picture."""

Row = npt.NDArray[np.float64]
Cells = npt.NDArray[np.bool_]


def shown_range(ax: Axes, trace: "pd.DataFrame") -> tuple[float, float, float, float]:
    """Return left, right, back and forward edge (m) of the region shown around a walk, in the shape of the axes."""
    left, right = float(trace["pos_x"].min()), float(trace["pos_x"].max())
    back, forward = float(trace["pos_y"].min()), float(trace["pos_y"].max())
    more = MARGIN * max(right - left, forward - back, 4.0)
    box = ax.get_window_extent()
    half_height = max(0.5 * (forward - back) + more, (0.5 * (right - left) + more) * box.height / box.width)
    half_width = half_height * box.width / box.height
    x, y = 0.5 * (left + right), 0.5 * (back + forward)
    return x - half_width, x + half_width, y - half_height, y + half_height


def _is_seen(wall: Wall, left: float, right: float, back: float, forward: float) -> bool:
    return wall.left_m < right and wall.right_m > left and wall.back_m < forward and wall.forward_m > back


def upright(trace: "pd.DataFrame") -> "pd.DataFrame":
    """Return a trace as seen from the side: the height is drawn upwards, and a goal is level with the body at its
    end.
    """
    level = {}
    if "goal_x" in trace:
        level["goal_y"] = trace["pos_z"].groupby(trace["goal_x"]).transform("last")
    return trace.assign(pos_y=trace["pos_z"], **level)


def add_section(ax: Axes, course: Course, trace: "pd.DataFrame", depth_m: float) -> None:
    """Draw the ground and the walls of a course where a plane through y = `depth_m` cuts them; `trace` is upright."""
    left, right, low, high = shown_range(ax, trace)
    across = np.linspace(left, right, SAMPLES * 4)
    heights = [course.ground(x, depth_m).height for x in across]
    # The space below the ground needs no room.
    bottom = min(*heights, float(trace["pos_y"].min())) - 0.05 * (right - left)
    low, high = bottom, high + bottom - low
    ax.fill_between(across, low, heights, facecolor=FOG, alpha=0.5, zorder=0.4)
    ax.plot(across, heights, color=HEATHER, linewidth=1.2, label="ground", zorder=0.5)
    cut = [wall for wall in course.wall if wall.back_m < depth_m < wall.forward_m]
    for number, wall in enumerate(wall for wall in cut if wall.left_m < right and wall.right_m > left):
        ax.add_patch(
            Rectangle(
                (wall.left_m, 0.0),
                wall.right_m - wall.left_m,
                wall.height_m,
                facecolor=FOG,
                edgecolor=MIST,
                hatch="///",
                zorder=0.6,
                label="wall" if number == 0 else None,
            )
        )
    for end_m in (course.bounds.left_m, course.bounds.right_m) if course.bounds else ():
        ax.axvline(end_m, color=MIST, linewidth=1.4, linestyle=(0, (6, 3)))
    ax.set_xlim(left, right)
    ax.set_ylim(low, high)
    ax.set_aspect("equal", adjustable="box")


def _middles(level: Cells, walked: Cells, heights: Row, most_m: float) -> list[tuple[int, int]]:
    """Return row and column of the cell of each level patch that is furthest from its edges and the walk; a patch
    whose heights differ by more than `most_m` is a gentle slope.
    """
    # Slow to import, and most pictures need no ground.
    from scipy.ndimage import distance_transform_edt, label, maximum_position

    patches, count = label(level)
    from_edge = distance_transform_edt(np.pad(level & ~walked, 1))[1:-1, 1:-1]
    large = []
    for number in range(1, count + 1):
        patch = heights[patches == number]
        if patch.size > LEAST_LEVEL_SHARE * level.size and np.ptp(patch) < most_m:
            large.append(number)
    return [(int(row), int(column)) for row, column in maximum_position(from_edge, patches, large)]


def _edges(middles: Row) -> Row:
    """Return the edges of cells from their middles."""
    half = 0.5 * (middles[1] - middles[0])
    return np.append(middles - half, middles[-1] + half)


def _add_heights(ax: Axes, across: Row, along: Row, heights: Row, trace: "pd.DataFrame", length: LengthUnit) -> None:
    """Draw heights as tints and contour lines, with numbers where lines are far enough apart and where the ground is
    level.
    """
    levels = MaxNLocator(MOST_LINES, steps=[1, 2, 2.5, 5, 10]).tick_values(heights.min(), heights.max())
    # The edge of level ground is not an additional line.
    levels = levels[levels > heights.min()]
    step_m = levels[1] - levels[0]
    tints = [(HEATHER, alpha) for alpha in np.linspace(0.0, DARKEST, len(levels) + 1)[1:]]
    ax.contourf(across, along, heights, [*levels, levels[-1] + step_m], colors=tints, zorder=0.3)
    lines = ax.contour(across, along, heights, levels=levels, colors=HEATHER, linewidths=0.8, alpha=0.8, zorder=0.5)
    slope = np.hypot(*np.gradient(heights, along[1] - along[0], across[1] - across[0]))
    pixels_per_m = ax.get_window_extent().width / (across[-1] - across[0])
    steepest = step_m * pixels_per_m / LABEL_PIXELS
    near = [(level, slope[np.abs(heights - level) < 0.5 * step_m]) for level in levels]
    apart = [level for level, slopes in near if slopes.size and np.median(slopes) < steepest]
    ax.clabel(lines, apart[::2], fmt=length.m, colors=INK, fontsize=8, inline_spacing=3)
    walked, _, _ = np.histogram2d(trace["pos_y"], trace["pos_x"], bins=(_edges(along), _edges(across)))
    level_ground = (slope < LEVEL_SLOPE) & (heights > heights.min() + 0.5 * step_m)
    for row, column in _middles(level_ground, walked > 0.0, heights, LEVEL_STEP_SHARE * step_m):
        height = length.m(heights[row, column])
        ax.text(across[column], along[row], height, fontsize=8, color=INK, ha="center", va="center", zorder=0.7)
    about = f"height, every {length.m(step_m)}\ndarker is higher"
    ax.add_patch(Rectangle((0, 0), 0, 0, facecolor=(HEATHER, 0.5 * DARKEST), edgecolor=HEATHER, label=about))


def add_ground(ax: Axes, course: Course, trace: "pd.DataFrame", length: LengthUnit = METRES) -> None:
    """Draw the heights of a course as contour lines around a walk, and its walls."""
    left, right, back, forward = shown_range(ax, trace)
    across, along = np.linspace(left, right, SAMPLES), np.linspace(back, forward, SAMPLES)
    heights = np.array([[course.ground(x, y).height for x in across] for y in along])
    if np.ptp(heights) > 0.0:
        _add_heights(ax, across, along, heights, trace, length)
    # Heights are computed only for the visible region, which the axes keep.
    ax.set_xlim(left, right)
    ax.set_ylim(back, forward)
    ax.set_aspect("equal", adjustable="box")
    seen = [wall for wall in course.wall if _is_seen(wall, left, right, back, forward)]
    for number, wall in enumerate(seen):
        ax.add_patch(
            Rectangle(
                (wall.left_m, wall.back_m),
                wall.right_m - wall.left_m,
                wall.forward_m - wall.back_m,
                facecolor=FOG,
                edgecolor=MIST,
                hatch="///",
                zorder=0.6,
                label="wall" if number == 0 else None,
            )
        )
    if course.bounds:
        ends = course.bounds
        corner, width, depth = (ends.left_m, ends.back_m), ends.right_m - ends.left_m, ends.forward_m - ends.back_m
        fence = Rectangle(corner, width, depth, fill=False, edgecolor=MIST, linewidth=1.4, linestyle=(0, (6, 3)))
        fence.set_label("bounds")
        ax.add_patch(fence)
