"""Marks of steer frames on a path: squares, refused steps, goals, relocations."""

import math
from typing import TYPE_CHECKING

import numpy as np
from matplotlib.axes import Axes
from matplotlib.patches import Circle, Rectangle
from matplotlib.text import Annotation

from wendonic.course import Course
from wendonic.pictures.style import BRICK, FOG, HEATHER, INK, MIST, PAPER, RIM
from wendonic.profile.schema.mode import Mode
from wendonic.profile.schema.steer.grid import GridSteer
from wendonic.study.motion import placed

if TYPE_CHECKING:
    import pandas as pd

DRAGGED_S = 0.1
"""A goal that is replaced sooner than this is being dragged."""


def add_squares(ax: Axes, trace: "pd.DataFrame", steer: GridSteer, course: Course | None) -> None:
    """Draw the squares around a walk, those that were entered, and those that are blocked."""
    blocked = course.blocked if course else ()
    xs = [*trace["step_x"], *(x for x, _ in blocked)]
    ys = [*trace["step_y"], *(y for _, y in blocked)]
    left, right, back, forward = (int(number) for number in (min(xs) - 1, max(xs) + 1, min(ys) - 1, max(ys) + 1))

    def along(number: float) -> float:
        return steer.middle.x + number * steer.square_m

    def across(number: float) -> float:
        return steer.middle.y + number * steer.square_m

    for line in range(left, right + 2):
        ends = [across(back - 0.5), across(forward + 0.5)]
        ax.plot([along(line - 0.5)] * 2, ends, color=FOG, linewidth=0.7, zorder=0.3)
    for line in range(back, forward + 2):
        ends = [along(left - 0.5), along(right + 0.5)]
        ax.plot(ends, [across(line - 0.5)] * 2, color=FOG, linewidth=0.7, zorder=0.3)
    for number, (x, y) in enumerate(blocked):
        ax.add_patch(
            Rectangle(
                (along(x - 0.5), across(y - 0.5)),
                steer.square_m,
                steer.square_m,
                facecolor=FOG,
                edgecolor=MIST,
                hatch="///",
                zorder=0.4,
                label="blocked" if number == 0 else None,
            )
        )
    visited = trace[["step_x", "step_y"]].drop_duplicates().to_numpy().tolist()
    middles = [(along(x), across(y)) for x, y in visited]
    ax.plot(*zip(*middles, strict=True), "o", markersize=5, color=MIST, label="stepped on", zorder=1.5)


def add_refusals(ax: Axes, trace: "pd.DataFrame", mode: Mode | None) -> None:
    """Mark where a step was refused, at the edge of the square that refused it, or a slope that is too steep."""
    if mode is not None and isinstance(mode.steer, GridSteer):
        at = trace[["refused_x", "refused_y", "step_x", "step_y"]].dropna().drop_duplicates() * mode.steer.square_m
        x = (at["refused_x"] + at["step_x"]) / 2.0 + mode.steer.middle.x
        y = (at["refused_y"] + at["step_y"]) / 2.0 + mode.steer.middle.y
        if len(at):
            ax.plot(x, y, "X", markersize=11, color=BRICK, linestyle="", label="step refused", zorder=4)
    elif "refused" in trace and trace["refused"].any():
        at = trace[trace["refused"]]
        ax.plot(at["pos_x"], at["pos_y"], "x", markersize=4, color=BRICK, linestyle="", label="too steep", zorder=4)


def add_goals(ax: Axes, trace: "pd.DataFrame", mode: Mode | None) -> None:
    """Mark each goal with the radius of arrival, numbered in order, joined to where it was given."""
    if "goal_x" not in trace or mode is None or mode.steer.frame != "goto":
        return
    # A dragged goal is one goal, at its final place.
    goals = trace.groupby(["goal_x", "goal_y"], sort=False)[["t", "pos_x", "pos_y"]].first().reset_index()
    stays = goals["t"].shift(-1, fill_value=math.inf) - goals["t"] > DRAGGED_S
    for number, (x, y, _, from_x, from_y) in enumerate(goals[stays].to_numpy().tolist()):
        ax.plot([from_x, x], [from_y, y], color=HEATHER, linewidth=0.8, linestyle=(0, (3, 3)), zorder=1.2)
        words = "goal" if number == 0 else None
        ax.plot(x, y, "P", markersize=8, color=HEATHER, markeredgecolor=PAPER, label=words, zorder=3.5)
        reach = Circle((x, y), mode.steer.arrival_m, facecolor="none", edgecolor=HEATHER, linewidth=1.0, zorder=3)
        ax.add_patch(reach)
    there = trace[trace["arrived"]]
    ax.plot(
        there["pos_x"],
        there["pos_y"],
        "*",
        markersize=14,
        markerfacecolor=PAPER,
        markeredgecolor=HEATHER,
        linestyle="",
        label="arrived",
        zorder=4.5,
    )


def add_mode_changes(ax: Axes, trace: "pd.DataFrame") -> list[Annotation]:
    """Mark where another mode begins, and name it; return the names."""
    modes = trace["mode"].astype(str)
    begins = trace[(modes != modes.shift()) & (trace.index != trace.index[0])]
    if begins.empty:
        return []
    ax.plot(
        begins["pos_x"],
        begins["pos_y"],
        "D",
        markersize=7,
        markerfacecolor=PAPER,
        markeredgecolor=INK,
        linestyle="",
        label="other mode",
        zorder=4,
    )
    return [
        ax.annotate(
            str(mode),
            (x, y),
            (28, 12),
            textcoords="offset points",
            ha="center",
            va="center",
            fontsize=9,
            color=INK,
            zorder=5,
            path_effects=RIM,
        )
        for x, y, mode in begins[["pos_x", "pos_y", "mode"]].itertuples(index=False)
    ]


def add_jumps(ax: Axes, trace: "pd.DataFrame") -> None:
    """Draw a dotted arrow for each relocation of the body."""
    jumps = {"pointed there": ("teleported", HEATHER), "out of the wall": ("returned", BRICK)}
    found = {label: (trace[name].to_numpy(), color) for label, (name, color) in jumps.items() if name in trace}
    found["placed by the game"] = (placed(trace), MIST)
    places = trace[["pos_x", "pos_y"]].to_numpy()
    for label, (ticks, color) in found.items():
        for number, index in enumerate(np.flatnonzero(ticks).tolist()):
            ax.annotate(
                "",
                tuple(places[index]),
                tuple(places[max(index - 1, 0)]),
                arrowprops={
                    "arrowstyle": "->",
                    "color": color,
                    "linestyle": ":",
                    "linewidth": 1.6,
                    "connectionstyle": "arc3,rad=0.2",
                },
                zorder=4,
            )
            if number == 0:
                ax.plot([], [], color=color, linestyle=":", linewidth=1.6, label=label)
