"""Response curves: amount by tilt, its slope, and the steps of a stick at small tilt."""

import math
from collections.abc import Iterable, Mapping, Sequence
from itertools import pairwise
from typing import TYPE_CHECKING, Any

from matplotlib.axes import Axes

from wendonic.errors import WendonicError
from wendonic.pictures.by_name import by_name
from wendonic.pictures.picture import Given, picture
from wendonic.pictures.style import (
    BRICK,
    FOG,
    HONEY,
    LINE_STYLES,
    MIST,
    PAPER,
    RAW,
    SLATE,
    dress_axes,
    key_below,
    split_axes,
    write_title,
)
from wendonic.profile.schema.look_binds import LookStickBind
from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.tilted import Tilted
from wendonic.study.stick_response import QUARTER, StickResponse

if TYPE_CHECKING:
    from numpy.typing import NDArray

LEAST_ZONE = 1e-3
"""Smallest dead zone that is drawn; a full tilt this near to the rim is not drawn either."""

BEHIND = {"facecolor": PAPER, "edgecolor": "none", "pad": 1.0}


def tilt_responses(profile: Profile, mode: str | None = None) -> list[tuple[str, StickResponse]]:
    """Return the response to each tilt of every source of a mode with a dead zone and a curve, by name, after all
    rules of its channel.
    """
    name = profile.mode_name(mode)
    table = profile.mode[name]
    found: list[tuple[str, StickResponse]] = []
    for channel in ("move", "rise", "throttle", "turn", "look"):
        of_channel = getattr(table, channel)
        for bind in of_channel.bind if of_channel else ():
            if isinstance(bind, Tilted | LookStickBind):
                move = table.move if channel == "move" and bind.called() != "hands" else None
                zone = getattr(bind, "touch_stick", "")
                called = f"{bind.called()} {zone}".rstrip()
                found.append((f"{channel}: {called}", StickResponse(bind, move, table.steer.seen_from_side)))
    if not found:
        raise WendonicError(f'mode "{name}" has no source with a dead zone and a curve; there is nothing to draw')
    return found


def draw_curve(
    profiles: Profile | Mapping[str, Profile], mode: str | None = None, ax: Axes | None = None
) -> list[Axes]:
    """Draw the response curves of a profile, or of several by name: amount by tilt straight ahead, and its slope.

    Of one profile all curves of the mode are drawn, of several the first one of each, after the rules of its channel.
    The key says how many of the 127 steps of an 8-bit stick, or the 255 of a trigger, fall into the first quarter of
    speed: few of them make slow walking coarse. Returns both axes. Raises `WendonicError` for an unknown mode, or if
    nothing has a curve.

    >>> from wendonic.demo import demo_profile
    >>> amount, slope = draw_curve(demo_profile())
    >>> slope.get_ylabel()
    'slope (amount for tilt)'
    """
    of = by_name(profiles)
    found = {title: tilt_responses(profile, mode) for title, profile in of.items()}
    if len(of) == 1:
        (shown,) = found.values()
    else:
        shown = [(f"{title}, {some[0][0].split(': ')[1]}", some[0][1]) for title, some in found.items()]
    if len(shown) > len(LINE_STYLES):
        raise WendonicError(f"{len(shown)} curves in one picture; allowed: at most {len(LINE_STYLES)}")
    amount, slope = split_axes(ax, widths=(1.0, 1.0))
    dress_axes(amount, "", "tilt (raw, 0 to 1)", "wanted amount (of top speed or rate)")
    dress_axes(slope, "Slope: change of amount for a change of tilt", "tilt (raw, 0 to 1)", "slope (amount for tilt)")
    amount.plot([0.0, 1.0], [0.0, 1.0], label="raw: amount = tilt", **RAW)
    slope.axhline(1.0, **RAW)
    steepest = 1.0
    for line, ((name, stick), style) in enumerate(zip(shown, LINE_STYLES, strict=False)):
        steepest = max(steepest, _draw_one(amount, slope, name, stick, style, line))
    _draw_zone(amount, [stick for _, stick in shown])
    _draw_quarter(amount, shown[0][1])
    write_title(amount, _title([stick for _, stick in shown[: len(of)]]))
    for panel, top in ((amount, 1.05), (slope, min(1.08 * steepest, 6.0))):
        panel.set_xlim(0.0, 1.0)
        panel.set_ylim(0.0, top)
        panel.set_box_aspect(1.0)
        panel.set_anchor("N")
    key_below(amount)
    return [amount, slope]


def _title(sticks: Sequence[StickResponse]) -> str:
    """Return how many steps are left for slow walking, or, without steps, for how much of the tilt it is slow."""
    if all(stick.paces for stick in sticks):
        return "Rounded to paces: no tilt gives a quarter of speed"
    smooth = [stick for stick in sticks if not stick.paces]
    paced = "" if len(smooth) == len(sticks) else ", the rest in paces"
    steps = smooth[0].steps_to_rim()
    if any(stick.steps_to_rim() != steps for stick in smooth) or steps == 0:
        shares = [stick.tilt_for(QUARTER) for stick in smooth]
        ends = ", ".join("none" if share is None else f"{share:.2f}" for share in shares)
        return f"First quarter of speed up to tilt {ends}{paced}"
    counts = ", ".join(str(stick.steps_in_first_quarter()) for stick in smooth)
    return f"{counts} of {steps} steps for the first quarter{' of speed' if len(sticks) == 1 else ''}{paced}"


def _draw_one(
    amount: Axes, slope: Axes, name: str, stick: StickResponse, style: tuple[str, object], line: int
) -> float:
    """Draw one curve into both panels; return its steepest slope, jumps left out."""
    tilts = _tilts(stick)
    amounts = [stick.ahead(tilt) for tilt in tilts]
    color, dashes = style
    curve = stick.tuning.curve
    begins = _begins(stick)
    full = stick.tilt_for(curve.ceiling - 1e-9) or 1.0
    ends = f", floor {curve.floor:g}" if curve.floor else ""
    ends += f", ceiling {curve.ceiling:g}" if curve.ceiling < 1.0 else ""
    steps = (
        f"; {stick.steps_in_first_quarter()} steps below a quarter"
        if stick.steps_to_rim() and not stick.paces
        else ""
    )
    label = f"{name}: from {begins:.2g}, full at {full:.2g}{ends}{steps}"
    amount.plot(tilts, amounts, color=color, linestyle=dashes, linewidth=1.8, label=label)
    amount.plot([begins], [0.0], "|", color=color, markersize=14, markeredgewidth=2.0, clip_on=False)
    slopes = [
        (after - before) / (right - left)
        for left, right, before, after in zip(tilts, tilts[1:], amounts, amounts[1:], strict=False)
    ]
    middles = [(left + right) / 2.0 for left, right in pairwise(tilts)]
    # A slope steeper than that of any curve is a jump: at the edge of a cut, or onto a floor.
    jumps = [index for index, steep in enumerate(slopes) if steep > 40.0]
    for number, index in enumerate(jumps):
        slopes[index] = math.nan
        slope.axvline(middles[index], color=color, linestyle=":", linewidth=1.2)
        beside = 4 if middles[index] < 0.5 else -4
        slope.annotate(
            f"{name.split(', ', maxsplit=1)[0]}: jumps to {amounts[index + 1]:.2g}",
            (middles[index], 0.97 - 0.045 * (line + number)),
            xycoords=("data", "axes fraction"),
            xytext=(beside, 0),
            textcoords="offset points",
            color=BRICK,
            fontsize=9,
            ha="left" if beside > 0 else "right",
            bbox=BEHIND,
            va="top",
        )
    slope.plot(middles, slopes, color=color, linestyle=dashes, linewidth=1.8)
    return max((steep for steep in slopes if not math.isnan(steep)), default=1.0)


def _begins(stick: StickResponse) -> float:
    """Return the tilt from which something is requested, 0 without a dead zone."""
    begins = stick.tilt_for(1e-9) or 0.0
    return begins if begins > LEAST_ZONE else 0.0


def _tilts(stick: StickResponse) -> list[float]:
    import numpy as np

    edges = [stick.tuning.dead_zone.inner, stick.tuning.dead_zone.outer]
    beside = [edge + gap for edge in edges for gap in (-1e-4, 1e-4)]
    grid: NDArray[np.float64] = np.unique(np.concatenate([np.linspace(0.0, 1.0, 801), edges, beside]))
    return [tilt for tilt in grid.tolist() if 0.0 <= tilt <= 1.0]


def _draw_quarter(ax: Axes, stick: StickResponse) -> None:
    """Mark the steps that lie in the first quarter of speed."""
    end = stick.tilt_for(QUARTER)
    if end is None or stick.paces:
        return
    ax.plot([0.0, end, end], [QUARTER, QUARTER, 0.0], color=MIST, linewidth=0.9, linestyle=":")
    ax.annotate("a quarter", (0.01, QUARTER), xytext=(0, 3), textcoords="offset points", color=MIST, fontsize=9)
    to_rim = stick.steps_to_rim()
    few = [step / to_rim for step in range(1, to_rim + 1) if 0.0 < stick.ahead(step / to_rim) <= QUARTER]
    ax.vlines(few, 0.0, 0.022, color=HONEY, linewidth=1.0)
    ax.axhline(0.0, color=FOG, linewidth=0.6)


def _draw_zone(ax: Axes, sticks: Sequence[StickResponse]) -> None:
    """Mark where nothing is requested, and from where on the full amount is, if these are the same for all."""
    begins = _only(map(_begins, sticks))
    if begins:
        ax.axvspan(0.0, begins, facecolor="none", edgecolor=BRICK, hatch="////", alpha=0.35, linewidth=0.0)
        words = "dead zone"
        ax.text(begins / 2.0, 0.6, words, color=BRICK, fontsize=9, rotation=90, ha="center", va="center", bbox=BEHIND)
    full = _only(stick.tilt_for(stick.tuning.curve.ceiling - 1e-9) for stick in sticks)
    if full is not None and full < 1.0 - LEAST_ZONE:
        ax.axvline(full, color=SLATE, linewidth=1.0, linestyle="--")
        ax.text(full, 0.3, f"full from {full:.2g}", color=SLATE, fontsize=9, rotation=90, ha="center", bbox=BEHIND)


def _only(tilts: Iterable[float | None]) -> float | None:
    """Return the common tilt of all; None if they differ, or have none."""
    different = {None if tilt is None else round(tilt, 3) for tilt in tilts}
    return different.pop() if len(different) == 1 else None


@picture(
    "profiles",
    "mode",
    "seat",
    example="wendonic draw curve demo-out/beekeeper.toml -o curve.png",
)
def curve(given: Given) -> Any:
    """Response curves with their slope, and how many of a stick's steps are left for slow walking."""
    return draw_curve(given.own_profiles, given.mode)
