"""Wanted speed by direction, with everything pressed or tilted all the way."""

import math
from typing import Any

from matplotlib.axes import Axes
from matplotlib.patches import Circle

from wendonic.length_unit import LengthUnit
from wendonic.pictures.lengths import label_axis
from wendonic.pictures.picture import Given, picture
from wendonic.pictures.style import BRICK, FOG, INK, LINE_STYLES, blank_axes, dress_axes
from wendonic.profile.schema.profile import Profile, known_profile
from wendonic.study.envelope import Envelope, envelopes

MARKERS = (("o", 12.0), ("D", 9.0), ("s", 7.0), ("^", 5.0))
"""Form and size, the later the smaller, so that none hides another."""

FAULT = 1.005
"""From this share of top speed on, a direction is too fast."""


def draw_diagonals(profile: Profile, mode: str | None = None, ax: Axes | None = None) -> Axes:
    """Draw how fast a mode's keys and sticks want to go in every direction, all the way down, around the middle.

    The ring is top speed: what lies outside of it is too fast, such as diagonals under `free`. Returns the axes.
    Raises `WendonicError` where there is no such mode, or it has neither keys nor a stick.

    >>> from wendonic.demo import demo_profile
    >>> draw_diagonals(demo_profile()).get_title(loc="left")
    'Every direction is within top speed, 3.2 m/s'
    """
    name = known_profile(profile).mode_name(mode)
    top_m_s = profile.gait_of(name).top_speed_m_s
    inputs = envelopes(profile, name)
    ax = blank_axes(ax)
    fastest = max(one.fastest for one in inputs)
    length = profile.world.length
    dress_axes(ax, _title(inputs, top_m_s, length))
    label_axis(ax.xaxis, "right", "m/s", length)
    label_axis(ax.yaxis, "forward", "m/s", length)
    ax.set_aspect("equal")
    limit = 1.12 * top_m_s * max(fastest, 1.0)
    ax.set_xlim(-limit, limit)
    ax.set_ylim(-limit, limit)
    for share in (0.25, 0.5, 0.75):
        ax.add_patch(Circle((0, 0), share * top_m_s, fill=False, edgecolor=FOG, linewidth=0.8))
    ax.add_patch(Circle((0, 0), top_m_s, fill=False, edgecolor=INK, linewidth=1.4, linestyle=(0, (1, 2)), zorder=4))
    for spoke in range(8):
        angle = math.tau * spoke / 8
        ax.plot([0.0, limit * math.sin(angle)], [0.0, limit * math.cos(angle)], color=FOG, linewidth=0.6, zorder=0)
    for one, (color, dashes), marker in zip(inputs, LINE_STYLES, MARKERS, strict=False):
        _draw_input(ax, one, color, dashes, marker, top_m_s, length)
    ax.text(0.01, 0.01, f"dotted: top speed, {length.m_s(top_m_s)}", color=INK, fontsize=9, transform=ax.transAxes)
    ax.legend(loc="upper left", bbox_to_anchor=(1.0, 1.0), frameon=False, fontsize=10, labelcolor=INK)
    return ax


def _title(inputs: list[Envelope], top_m_s: float, length: LengthUnit) -> str:
    worst = max(inputs, key=lambda one: one.fastest)
    if worst.fastest >= FAULT:
        over = worst.fastest - 1.0
        name = worst.name[:1].upper() + worst.name[1:]
        return f"{name}: diagonals are {over:.0%} too fast, {length.m_s(worst.fastest * top_m_s, '.2f')}"
    return f"Every direction is within top speed, {length.m_s(top_m_s)}"


def _draw_input(
    ax: Axes,
    one: Envelope,
    color: str,
    dashes: object,
    marker: tuple[str, float],
    top_m_s: float,
    length: LengthUnit,
) -> None:
    points = [(right * top_m_s, forward * top_m_s) for right, forward in one.wanted]
    slowest = min(math.hypot(*pair) for pair in one.wanted)
    most = length.m_s(one.fastest * top_m_s, ".2f")
    least = (
        f"at most,\n{length.m_s(slowest * top_m_s, '.2f')} at least"
        if one.fastest - slowest > 0.005
        else "everywhere"
    )
    label = f"{one.name}:\n{most} {least}"
    x, y = zip(*[*points, points[0]], strict=True)
    if one.round:
        ax.plot(x, y, color=color, linestyle=dashes, linewidth=1.8, label=label, zorder=2)
    else:
        # Keys have eight directions and nothing between, so the line that joins them is faint.
        ax.plot(x, y, color=color, linewidth=0.8, alpha=0.6, zorder=2)
        form, size = marker
        ax.plot(x, y, form, color=color, markersize=size, label=label, zorder=3)
    for (right, forward), (x_at, y_at) in zip(one.wanted, points, strict=True):
        if not one.round and math.hypot(right, forward) >= FAULT:
            share = math.hypot(right, forward)
            ax.plot([right / share * top_m_s, x_at], [forward / share * top_m_s, y_at], color=BRICK, linewidth=4.0)
            ax.annotate(
                f"+{share - 1.0:.0%}",
                (x_at, y_at),
                xytext=(12 * right / share, 12 * forward / share),
                textcoords="offset points",
                color=BRICK,
                fontsize=10,
                ha="left" if right > 0.0 else "right",
                va="bottom" if forward > 0.0 else "top",
            )
    if one.round and one.fastest >= FAULT:
        over = [
            point if math.hypot(*pair) >= FAULT else (math.nan, math.nan)
            for pair, point in zip(one.wanted, points, strict=True)
        ]
        x, y = zip(*over, strict=True)
        ax.plot(x, y, color=BRICK, linewidth=3.0, alpha=0.8, zorder=2.5)


@picture(
    "profile",
    "mode",
    example="wendonic draw diagonals demo-out/beekeeper.toml -o diagonals.png",
)
def diagonals(given: Given) -> Any:
    """Wanted speed by direction for keys and sticks; diagonals that are too fast stand out."""
    return draw_diagonals(given.profile, given.mode)
