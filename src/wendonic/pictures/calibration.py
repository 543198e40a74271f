"""The calibration of a recording's sticks: the samples at rest with the dead zone, and the rim with the gate."""

import math
import textwrap
from typing import Any

import numpy as np
from matplotlib.axes import Axes
from matplotlib.patches import Circle
from matplotlib.ticker import MultipleLocator

from wendonic.errors import WendonicError
from wendonic.pictures.picture import Given, picture
from wendonic.pictures.style import BRICK, FOG, HONEY, INK, MIST, MOSS, SLATE, dress_axes, split_axes
from wendonic.study.calibration.calibrate import calibrate
from wendonic.study.calibration.found import LEAST_INNER, Calibration, StickCalibration

MOST_STICKS = 2

MISSING_CHARACTERS = 44


def draw_calibration(found: Calibration, ax: Axes | None = None) -> list[Axes]:
    """Draw the sticks of a calibration, one row each: at rest on the left, round the rim on the right.

    At rest: every sample, the rest point, and the dead zone that is suggested. Round the rim: the samples there, the
    rim with its interval, and where input is full. Missing numbers are replaced by the reason. Returns the axes.
    Raises `WendonicError` for a recording without sticks, or with more than two of them.

    >>> from wendonic.demo import demo_recording
    >>> from wendonic.study.calibration.calibrate import calibrate
    >>> rest, rim, *_ = draw_calibration(calibrate(demo_recording("lookout_devices")))
    >>> rim.get_title(loc="left")
    'its rim is not a circle: measured'
    """
    sticks = found.sticks
    if not 1 <= len(sticks) <= MOST_STICKS:
        raise WendonicError(f"the recording has {len(sticks)} sticks; a picture shows one or two")
    axes = split_axes(ax, heights=[1.0] * len(sticks), widths=[1.0, 1.0])
    for row, stick in enumerate(sticks):
        _draw_rest(axes[2 * row], stick)
        _draw_rim(axes[2 * row + 1], stick)
    return axes


def _beside(ax: Axes) -> None:
    ax.legend(loc="center left", bbox_to_anchor=(1.0, 0.5), frameon=False, fontsize=9, labelcolor=INK)


def _say_missing(ax: Axes, stick: StickCalibration, what: str) -> None:
    words = next(words for words in stick.missing if words.startswith(what))
    ax.set_axis_off()
    ax.text(0.5, 0.5, words.replace("; ", ";\n"), color=BRICK, ha="center", va="center", transform=ax.transAxes)


def _draw_rest(ax: Axes, stick: StickCalibration) -> None:
    rest, inner = stick.rest, stick.inner
    if rest is None:
        dress_axes(ax, f"{stick.control} at rest")
        _say_missing(ax, stick, "rest")
        return
    dress_axes(ax, f"{stick.control} rests {_tilt(stick):.3f} off centre", "right (raw)", "forward (raw)")
    ax.set_aspect("equal")
    x, y = stick.samples.x[rest.used], -stick.samples.y[rest.used]
    ax.plot(x, y, ".", color=FOG, markersize=4, label=f"{len(x)} samples,\n{rest.seconds:.1f} s hands off", zorder=1)
    centre = (rest.x.value, -rest.y.value)
    if inner is None:
        # Draw the samples even if they are too few, or too alike, for an estimate.
        words = next(words for words in stick.missing if words.startswith("inner"))
        words = textwrap.fill(words, MISSING_CHARACTERS)
        ax.text(0.02, 0.98, words, color=BRICK, va="top", fontsize=9, transform=ax.transAxes)
    else:
        words = f"dead zone of {inner.value:.3f}\n({inner.low:.3f} to {inner.high:.3f})"
        ax.add_patch(Circle(centre, inner.value, fill=False, edgecolor=HONEY, linewidth=2.0, label=words, zorder=3))
    for end in (inner.low, inner.high) if inner else ():
        ax.add_patch(Circle(centre, end, fill=False, edgecolor=HONEY, linewidth=0.8, linestyle=(0, (2, 2)), zorder=3))
    if rest.returns.scatter:
        places = rest.returns.places
        words = f"where it came to rest,\n{len(places)} times"
        ax.plot(
            places[:, 0], -places[:, 1], "o", color=MOSS, markersize=6, markeredgecolor=INK, label=words, zorder=4
        )
    ax.plot(*centre, "P", color=SLATE, markersize=9, markeredgecolor=INK, linestyle="", label="rest point", zorder=4)
    ax.plot(0.0, 0.0, "x", color=INK, markersize=8, markeredgewidth=1.6, linestyle="", label="its zero", zorder=4)
    widest = inner.high if inner else float(rest.lengths.max())
    reach = 1.25 * max(widest, float(rest.lengths.max()), math.hypot(*centre) + 0.3 * widest, LEAST_INNER)
    ax.set_xlim(centre[0] - reach, centre[0] + reach)
    ax.set_ylim(centre[1] - reach, centre[1] + reach)
    ax.locator_params(nbins=5)
    ax.grid(color=FOG, linewidth=0.5, alpha=0.6)
    _beside(ax)


def _tilt(stick: StickCalibration) -> float:
    assert stick.rest is not None
    return math.hypot(stick.rest.x.value, stick.rest.y.value)


def _draw_rim(ax: Axes, stick: StickCalibration) -> None:
    rim, outer = stick.rim, stick.outer
    if rim is None or outer is None:
        dress_axes(ax, f"{stick.control} round its rim")
        _say_missing(ax, stick, "rim")
        return
    shape = "a circle" if rim.gate == "circle" else "not a circle: measured"
    dress_axes(ax, f"its rim is {shape}", "right, from rest (raw)", "forward, from rest (raw)")
    for axis in (ax.xaxis, ax.yaxis):
        axis.set_major_locator(MultipleLocator(0.5))
    ax.set_aspect("equal")
    centre_x, centre_y = (stick.rest.x.value, stick.rest.y.value) if stick.rest else (0.0, 0.0)
    x, y = stick.samples.x[rim.used] - centre_x, centre_y - stick.samples.y[rim.used]
    ax.plot(x, y, ".", color=MIST, markersize=3, label=f"{len(x)} samples,\n{rim.turns:.1f} turns", zorder=1)
    angles = np.linspace(0.0, math.tau, len(rim.lengths) + 1)
    ends = [np.array([getattr(length, end) for length in (*rim.lengths, rim.lengths[0])]) for end in ("low", "high")]
    middle = np.array([length.value for length in (*rim.lengths, rim.lengths[0])])
    widest = max(length.high - length.low for length in rim.lengths) / 2.0
    label = f"rim, {middle.min():.3f} to {middle.max():.3f}\n(each to {widest:.3f})"
    ax.plot(middle * np.sin(angles), middle * np.cos(angles), color=MOSS, linewidth=1.8, label=label, zorder=3)
    for end in ends:
        ax.plot(
            end * np.sin(angles), end * np.cos(angles), color=MOSS, linewidth=0.7, linestyle=(0, (2, 2)), zorder=3
        )
    full = outer.value * (middle if rim.gate == "measured" else np.ones_like(middle))
    words = f"outer {outer.value:.3f}{' of the rim' if rim.gate == 'measured' else ''}:\nfull from here outwards"
    ax.plot(full * np.sin(angles), full * np.cos(angles), color=HONEY, linestyle=(0, (5, 2)), label=words, zorder=2)
    ax.add_patch(
        Circle((0, 0), 1.0, fill=False, edgecolor=INK, linewidth=0.8, linestyle=(0, (1, 2)), label="unit circle")
    )
    limit = 1.08 * max(1.0, float(ends[1].max()))
    ax.set_xlim(-limit, limit)
    ax.set_ylim(-limit, limit)
    ax.grid(color=FOG, linewidth=0.5, alpha=0.6)
    _beside(ax)


@picture(
    "recording",
    "window",
    "share",
    example="wendonic draw calibration demo-out/lookout_devices.jsonl",
)
def calibration(given: Given) -> Any:
    """Sticks at rest and round their rims, with the dead zone and the gate that follow."""
    return draw_calibration(calibrate(given.stretch or given.recording, given.share))
