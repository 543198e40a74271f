"""Wanted speed by direction at full input."""

import math
from typing import Any, NamedTuple

from matplotlib.axes import Axes
from matplotlib.patches import Circle

from wendonic.errors import WendonicError
from wendonic.length_unit import LengthUnit
from wendonic.pictures.lengths import label_axis
from wendonic.pictures.picture import Given, picture
from wendonic.pictures.style import BRICK, FOG, INK, LINE_STYLES, blank_axes, dress_axes
from wendonic.profile.schema.profile import Profile, known_profile
from wendonic.study.envelope import Envelope, envelopes

MARKERS = (("o", 12.0), ("D", 9.0), ("s", 7.0), ("^", 5.0))
"""Form and size, the later the smaller, so that none hides another."""

FAULT = 1.005
"""Share of top speed from which a direction is too fast."""


class _Scale(NamedTuple):
    """The scale of a full request: a speed in a unit of length, or an amount if the mode has no speed of its own."""

    full: float
    length: LengthUnit | None

    @property
    def name(self) -> str:
        return "top speed" if self.length else "the full amount"

    def words(self, share: float, digits: str = "g") -> str:
        return self.length.m_s(share * self.full, digits) if self.length else f"{share:{digits}}"


def _scale(profile: Profile, mode: str) -> _Scale:
    table = profile.mode[mode]
    if table.gait == "none" or table.steer.frame == "grid":
        return _Scale(1.0, None)
    return _Scale(profile.gait_of(mode).top_speed_m_s, profile.world.length)


def draw_diagonals(profile: Profile, mode: str | None = None, ax: Axes | None = None) -> Axes:
    """Draw the wanted speed of a mode's keys and sticks in every direction at full input, around the middle.

    The ring is top speed: a point outside it is too fast, such as diagonals under `free`. A mode without a speed of
    its own, on squares or with the gait "none", is drawn by amounts. Returns the axes. Raises `WendonicError` for an
    unknown mode, one with neither keys nor a stick, or a vehicle.

    >>> from wendonic.demo import demo_profile
    >>> draw_diagonals(demo_profile()).get_title(loc="left")
    'Every direction is within top speed, 3.2 m/s'
    """
    name = known_profile(profile).mode_name(mode)
    if profile.mode[name].steer.frame == "drive":
        raise WendonicError(f'mode "{name}" is a vehicle, which goes where it points; it has no diagonals to draw')
    inputs = envelopes(profile, name)
    scale = _scale(profile, name)
    ax = blank_axes(ax)
    fastest = max(one.fastest for one in inputs)
    dress_axes(ax, _title(inputs, scale))
    for axis, words in ((ax.xaxis, "right"), (ax.yaxis, "forward")):
        if scale.length:
            label_axis(axis, words, "m/s", scale.length)
        else:
            axis.set_label_text(f"{words} (amount)")
    ax.set_aspect("equal")
    limit = 1.12 * scale.full * max(fastest, 1.0)
    ax.set_xlim(-limit, limit)
    ax.set_ylim(-limit, limit)
    for share in (0.25, 0.5, 0.75):
        ax.add_patch(Circle((0, 0), share * scale.full, fill=False, edgecolor=FOG, linewidth=0.8))
    ax.add_patch(
        Circle((0, 0), scale.full, fill=False, edgecolor=INK, linewidth=1.4, linestyle=(0, (1, 2)), zorder=4)
    )
    for spoke in range(8):
        angle = math.tau * spoke / 8
        ax.plot([0.0, limit * math.sin(angle)], [0.0, limit * math.cos(angle)], color=FOG, linewidth=0.6, zorder=0)
    for one, (color, dashes), marker in zip(inputs, LINE_STYLES, MARKERS, strict=False):
        _draw_input(ax, one, color, dashes, marker, scale)
    ax.text(0.01, 0.01, f"dotted: {scale.name}, {scale.words(1.0)}", color=INK, fontsize=9, transform=ax.transAxes)
    ax.legend(loc="upper left", bbox_to_anchor=(1.0, 1.0), frameon=False, fontsize=10, labelcolor=INK)
    return ax


def _title(inputs: list[Envelope], scale: _Scale) -> str:
    worst = max(inputs, key=lambda one: one.fastest)
    if worst.fastest >= FAULT:
        over = worst.fastest - 1.0
        name = worst.name[:1].upper() + worst.name[1:]
        beyond = "fast" if scale.length else "much"
        return f"{name}: diagonals are {100.0 * over:.0f} % too {beyond}, {scale.words(worst.fastest, '.2f')}"
    return f"Every direction is within {scale.name}, {scale.words(1.0)}"


def _draw_input(
    ax: Axes, one: Envelope, color: str, dashes: object, marker: tuple[str, float], scale: _Scale
) -> None:
    points = [(right * scale.full, forward * scale.full) for right, forward in one.wanted]
    slowest = min(math.hypot(*pair) for pair in one.wanted)
    most, least = scale.words(one.fastest, ".2f"), "everywhere"
    if one.fastest - slowest > 0.005:
        least = f"at most,\n{scale.words(slowest, '.2f')} at least"
    label = f"{one.name}:\n{most} {least}"
    x, y = zip(*[*points, points[0]], strict=True)
    if one.round:
        ax.plot(x, y, color=color, linestyle=dashes, linewidth=1.8, label=label, zorder=2)
    else:
        # Keys have only eight directions, so the line that joins them is faint.
        ax.plot(x, y, color=color, linewidth=0.8, alpha=0.6, zorder=2)
        form, size = marker
        ax.plot(x, y, form, color=color, markersize=size, label=label, zorder=3)
    for (right, forward), (x_at, y_at) in zip(one.wanted, points, strict=True):
        if not one.round and math.hypot(right, forward) >= FAULT:
            share = math.hypot(right, forward)
            ax.plot(
                [right / share * scale.full, x_at], [forward / share * scale.full, y_at], color=BRICK, linewidth=4.0
            )
            ax.annotate(
                f"+{100.0 * (share - 1.0):.0f} %",
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
    "seat",
    example="wendonic draw diagonals demo-out/beekeeper.toml -o diagonals.png",
)
def diagonals(given: Given) -> Any:
    """Wanted speed by direction for keys and sticks; diagonals that are too fast stand out."""
    return draw_diagonals(given.own_profile, given.mode)
