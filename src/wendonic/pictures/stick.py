"""A map of a stick: dead zone, rim and lines of equal amount."""

import logging
import math
import textwrap
from typing import Any

from matplotlib.axes import Axes
from matplotlib.collections import LineCollection
from matplotlib.patches import Circle, Polygon

from wendonic.devices.controls import CONTROLS
from wendonic.errors import WendonicError
from wendonic.pictures.picture import Given, picture
from wendonic.pictures.style import (
    BRICK,
    FOG,
    HONEY,
    INK,
    MIST,
    PAPER,
    RAW,
    SHAPED,
    SLATE,
    dress_axes,
    label_lines,
    split_axes,
)
from wendonic.profile.schema.move_binds import StickBind
from wendonic.profile.schema.profile import Profile, known_profile
from wendonic.recording.recording import Recording
from wendonic.study.stick_response import StickResponse

GRID_STEPS = 7
"""Number of raw positions of the grid between rest and rim, along an axis."""

TITLE_CHARACTERS = 32

AMOUNTS = (0.1, 0.25, 0.5, 0.75, 0.9)

HEADINGS_DEG = tuple(sorted({*range(0, 361, 2), 45, 135, 225, 315}))
"""Directions in which an edge of any form is searched, including the corners of all forms."""

JUST_SEEN = 1e-9
"""Amount from which a stick has an effect; this much below a level counts as on it."""

DRAWN_WITHIN = 1e-6
"""Tolerance of a line in tilt: a fraction of a pixel."""

LEAST_DEAD = 0.005
"""Tilt from which a dead zone is visible."""


def draw_stick(
    profile: Profile, recording: Recording | None = None, mode: str | None = None, ax: Axes | None = None
) -> list[Axes]:
    """Draw the first stick of a mode's `move`: a map, amount by tilt, and a grid of positions moved to where they go.

    On the map: the dead zone (hatched), lines of equal amount or where each pace begins, the outer rim from which on
    everything is full speed, whatever form they have, and the positions of that stick in `recording`, if one is
    given. All of it is what the channel makes of the stick: diagonals, paces and notches too. Returns the axes.
    Raises `WendonicError` where there is no such mode, or it binds no stick.

    >>> from wendonic.demo import demo_profile
    >>> plane, curve, moved = draw_stick(demo_profile())
    >>> curve.get_title(loc="left")
    'Half speed at tilt 0.67'
    """
    name = known_profile(profile).mode_name(mode)
    move = profile.mode[name].move
    bind = next((bind for bind in move.bind if isinstance(bind, StickBind)), None) if move else None
    if bind is None:
        raise WendonicError(f'mode "{name}" has no stick under move.bind; there is nothing to draw')
    stick = StickResponse(bind, move, profile.mode[name].steer.seen_from_side)
    plane, right = split_axes(ax, widths=(1.5, 1.0))
    curve, moved = split_axes(right, heights=(1.0, 1.0))
    _draw_plane(plane, bind, stick, recording)
    _draw_curve(curve, bind, stick)
    _draw_moved(moved, stick)
    return [plane, curve, moved]


def _sticks_in(recording: Recording) -> str:
    """Return which sticks a recording has, after the one that it lacks."""
    names = dict.fromkeys(event.control for event in recording if CONTROLS[event.control].kind == "stick")
    return f"; it has those of {', '.join(names)}" if names else ""


def _levels(stick: StickResponse) -> dict[float, str]:
    """Return the amounts for which lines are drawn, and their labels."""
    paces = [pace.amount for pace in stick.paces]
    return {amount - JUST_SEEN: f"{amount:g}" for amount in paces or AMOUNTS}


def _draw_moved(ax: Axes, stick: StickResponse) -> None:
    """Draw a grid of raw positions, and the shaped position of each."""
    dress_axes(ax, "Where a grid of positions goes", "right", "forward")
    ax.set_aspect("equal")
    ax.set_xlim(-1.08, 1.08)
    ax.set_ylim(-1.08, 1.08)
    ax.add_patch(Circle((0, 0), 1.0, fill=False, edgecolor=INK, linewidth=0.8, linestyle=(0, (1, 2))))
    ticks = [step / GRID_STEPS for step in range(-GRID_STEPS, GRID_STEPS + 1)]
    raw = [(x, y) for x in ticks for y in ticks if math.hypot(x, y) <= 1.0 + 1e-9]
    shaped = [stick.at(x, y) for x, y in raw]
    ax.add_collection(LineCollection(list(zip(raw, shaped, strict=True)), colors=FOG, linewidths=1.0, zorder=1))
    ax.plot(*zip(*raw, strict=True), "o", color=FOG, markersize=3.5, zorder=2, label="raw")
    ax.plot(*zip(*shaped, strict=True), "D", color=HONEY, markersize=3.0, zorder=3, label="shaped")
    label_lines(ax)


def _draw_plane(ax: Axes, bind: StickBind, stick: StickResponse, recording: Recording | None) -> None:
    import numpy as np

    inner, outer = bind.dead_zone.inner, bind.dead_zone.outer
    dress_axes(ax, f"{bind.stick}: amount at each position", "right (raw tilt)", "forward (raw tilt)")
    ax.set_aspect("equal")
    ax.set_xlim(-1.12, 1.12)
    ax.set_ylim(-1.12, 1.12)
    ax.axhline(0.0, color=FOG, linewidth=0.6)
    ax.axvline(0.0, color=FOG, linewidth=0.6)
    ax.add_patch(Circle((0, 0), 1.0, fill=False, edgecolor=INK, linewidth=1.0, linestyle=(0, (1, 2))))
    if recording is not None:
        points = np.array([event.value for event in recording if event.control == bind.stick]).reshape(-1, 2)
        ax.plot(points[:, 0], -points[:, 1], ".", color=MIST, markersize=2.5, alpha=0.55, zorder=1)
        words = f"dots: {len(points)} raw positions of the recording"
        if not len(points):
            words = f"the recording has no positions of {bind.stick}"
            logging.getLogger("wendonic").warning("%s%s", words, _sticks_in(recording))
        ax.text(-1.1, -1.1, words, color=MIST, fontsize=9, va="bottom")
    for number, (amount, words) in enumerate(_levels(stick).items()):
        _draw_level(ax, stick, amount, label=f"amount {words}", color=HONEY, linewidth=1.4)
        # Each label has its own heading, so that lines close together have room for their labels.
        _write_on_level(ax, stick, amount, words, 28.0 + 13.0 * number)
    if not stick.usual:
        _draw_any_regions(ax, stick)
        return
    ax.add_patch(
        Circle((0, 0), inner, facecolor=PAPER, edgecolor=BRICK, hatch="////", linewidth=1.4, alpha=0.9, zorder=2)
    )
    ax.add_patch(Circle((0, 0), outer, fill=False, edgecolor=SLATE, linewidth=1.8, linestyle="--", zorder=3))
    release, words = bind.dead_zone.back, f"inner {inner:g}"
    if release < inner:
        ax.add_patch(Circle((0, 0), release, fill=False, edgecolor=BRICK, linewidth=1.0, linestyle=":", zorder=3))
        words += f",\nreleased at {release:.3g}"
    _point_at(ax, "dead zone", words, inner, 215.0, (-0.62, -0.62), BRICK)
    _point_at(ax, "full speed", f"from outer {outer:g} on", outer, 318.0, (-1.1, 1.02), SLATE)
    ax.text(1.1, -1.1, "dotted: tilt 1", color=INK, fontsize=9, va="bottom", ha="right")
    ax.text(1.1, 1.1, "lines: wanted amount\n(of top speed)", color=HONEY, fontsize=10, va="top", ha="right")


def _draw_any_regions(ax: Axes, stick: StickResponse) -> None:
    """Draw the regions without effect and with the full amount, of any shape."""
    still = [tilt or 1.0 for tilt in stick.tilts_for(JUST_SEEN, HEADINGS_DEG, DRAWN_WITHIN)]
    edge = [stick.held(tilt, heading_deg) for tilt, heading_deg in zip(still, HEADINGS_DEG, strict=True)]
    hatched = max(still) > LEAST_DEAD
    if hatched:
        ax.add_patch(Polygon(edge, facecolor="none", edgecolor=BRICK, hatch="////", linewidth=1.4, zorder=2.5))
    behind = {"facecolor": PAPER, "edgecolor": "none", "pad": 1.0}
    top_left: dict[str, Any] = {"fontsize": 10, "va": "top", "bbox": behind}
    ax.text(-1.1, 1.1, "hatched: nothing" if hatched else "no dead zone", color=BRICK, **top_left)
    ceiling = stick.tuning.curve.ceiling
    full = ceiling - JUST_SEEN
    if not stick.paces and any(stick.amount(*stick.held(1.0, heading_deg)) >= full for heading_deg in HEADINGS_DEG):
        _draw_level(ax, stick, full, label=f"from {ceiling:g}", color=SLATE, linewidth=1.8, linestyle="--")
        ax.text(-1.1, 1.02, f"dashed: {ceiling:g} from here outwards", color=SLATE, **top_left)
    ax.text(1.1, -1.1, "dotted: tilt 1", color=INK, fontsize=9, va="bottom", ha="right", bbox=behind)
    of = "each pace begins" if stick.paces else "wanted amount"
    lines_words = f"lines: {of}\n(of top speed)"
    ax.text(1.1, 1.1, lines_words, color=HONEY, fontsize=10, va="top", ha="right", bbox=behind)


def _draw_level(ax: Axes, stick: StickResponse, amount: float, **style: Any) -> None:
    """Draw where an amount is reached; the line is interrupted in directions in which it never is."""
    tilts = stick.tilts_for(amount, HEADINGS_DEG, DRAWN_WITHIN)
    places = [
        (math.nan, math.nan) if tilt is None else stick.held(tilt, heading_deg)
        for tilt, heading_deg in zip(tilts, HEADINGS_DEG, strict=True)
    ]
    ax.plot(*zip(*places, strict=True), **style)


def _write_on_level(ax: Axes, stick: StickResponse, amount: float, words: str, heading_deg: float) -> None:
    """Label the line of an amount, in a direction in which it exists, as near to `heading_deg` as possible."""
    for further in sorted(HEADINGS_DEG, key=lambda heading: abs(heading - heading_deg)):
        tilt = stick.tilt_for(amount, further)
        if tilt is not None:
            behind = {"facecolor": PAPER, "edgecolor": "none", "pad": 0.8}
            place = stick.held(tilt, further)
            ax.text(*place, words, fontsize=9, color=INK, ha="center", va="center", bbox=behind, zorder=3)
            return


def _point_at(
    ax: Axes, what: str, where: str, radius: float, heading_deg: float, text_at: tuple[float, float], color: str
) -> None:
    heading = math.radians(heading_deg)
    ax.annotate(
        f"{what}\n{where}",
        (radius * math.sin(heading), radius * math.cos(heading)),
        text_at,
        color=color,
        fontsize=10,
        va="center",
        arrowprops={"arrowstyle": "-", "color": color},
        bbox={"facecolor": PAPER, "edgecolor": "none", "pad": 1.0},
        zorder=4,
    )


def _draw_any_curve(ax: Axes, stick: StickResponse) -> None:
    """Draw amount by tilt straight ahead, seen from the side to the right, and diagonally: for most forms they
    differ.
    """
    import numpy as np

    tilts: list[float] = np.linspace(0.0, 1.0, 401).tolist()
    ahead = [stick.ahead(tilt) for tilt in tilts]
    word = "right" if stick.across else "forward"
    diagonal = [stick.amount(*stick.held(tilt, 45.0)) for tilt in tilts]
    reached = stick.tilt_for(0.5)
    title = f"Never half speed {word}" if reached is None else f"Half speed {word} at tilt {reached:.2f}"
    if stick.paces:
        begins = [(pace.amount, stick.tilt_for(pace.amount - 1e-9)) for pace in stick.paces]
        paces = [
            f"{amount:g}\N{NO-BREAK SPACE}from\N{NO-BREAK SPACE}tilt\N{NO-BREAK SPACE}{tilt:.2f}"
            for amount, tilt in begins
            if tilt is not None
        ]
        title = textwrap.fill(", ".join(paces), TITLE_CHARACTERS) or "No pace is ever reached"
    dress_axes(ax, title, "tilt (0 at rest, 1 at the rim)", "wanted amount (of top speed)")
    ax.set_xlim(0.0, 1.0)
    ax.set_ylim(0.0, 1.05)
    ax.set_box_aspect(1.0)
    ax.plot(tilts, tilts, label="raw", **RAW)
    ax.plot(tilts, ahead, label=word, **SHAPED)
    ax.plot(tilts, diagonal, label="diagonal", **(SHAPED | {"linestyle": (0, (4, 1.5))}))
    label_lines(ax)


def _draw_curve(ax: Axes, bind: StickBind, stick: StickResponse) -> None:
    import numpy as np

    if not stick.usual:
        _draw_any_curve(ax, stick)
        return
    inner, outer = bind.dead_zone.inner, bind.dead_zone.outer
    tilts = np.unique(np.concatenate([np.linspace(0.0, 1.0, 301), [inner, outer]]))
    half = stick.tilt_for(0.5) or 1.0
    dress_axes(ax, f"Half speed at tilt {half:.2f}", "tilt (raw, 0 to 1)", "wanted amount (of top speed)")
    ax.set_xlim(0.0, 1.0)
    ax.set_ylim(0.0, 1.05)
    ax.set_box_aspect(1.0)
    ax.axvspan(0.0, inner, facecolor="none", edgecolor=BRICK, hatch="////", alpha=0.45, linewidth=0.0)
    ax.axvline(inner, color=BRICK, linewidth=1.2)
    ax.axvline(outer, color=SLATE, linewidth=1.6, linestyle="--")
    ax.plot(tilts, tilts, label="raw", **RAW)
    ax.plot(tilts, [stick.amount(tilt, 0.0) for tilt in tilts.tolist()], label="shaped", **SHAPED)
    ax.plot([0.0, half, half], [0.5, 0.5, 0.0], color=INK, linewidth=0.8, linestyle=":")
    ax.plot([half], [0.5], "o", color=HONEY, markersize=6)
    label_lines(ax)


@picture(
    "profile",
    "[recording]",
    "window",
    "mode",
    "seat",
    example="wendonic draw stick demo-out/beekeeper.toml demo-out/beekeeper_pad.jsonl -o stick.png",
)
def stick(given: Given) -> Any:
    """Where raw stick positions go: dead zone, rim, lines of wanted amount."""
    return draw_stick(given.own_profile, given.stretch, given.mode)
