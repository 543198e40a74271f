"""The step response of profiles, with the quantities of the feel sheet marked."""

from collections.abc import Mapping
from typing import Any

import numpy as np
from matplotlib.axes import Axes

from wendonic.errors import WendonicError
from wendonic.length_unit import LengthUnit, common_unit
from wendonic.pictures.by_name import by_name
from wendonic.pictures.lengths import label_axis
from wendonic.pictures.picture import Given, picture
from wendonic.pictures.style import FOG, INK, LINE_STYLES, PAPER, blank_axes, dress_axes, split_axes, write_title
from wendonic.profile.schema.profile import Profile
from wendonic.study.bench import Bench
from wendonic.study.measuring.request import request_response
from wendonic.study.measuring.step_response import SHARE, StepResponse
from wendonic.study.unmeasured import Unmeasured

DOT, SQUARE, TRIANGLE, DIAMOND = "o", "s", "v", "D"
BEFORE_S = 0.05
LONG_S = 2.0
"""Times from this one on are given in seconds."""


def draw_feel(
    profiles: Profile | Mapping[str, Profile],
    mode: str | None = None,
    ax: Axes | None = None,
    by: str | None = None,
    held: str | None = None,
) -> list[Axes]:
    """Draw how each profile responds to a full press, its release, and a reversal; `by` and `held` are as in
    `measure`.

    Three panels show speed over the time since the change, in one scale: marks show where the quantities of the feel
    sheet are measured, with their values beside the name. Returns the axes. Raises `WendonicError` for more profiles
    than there are line styles, and for one without a speed to draw, with the reason.

    >>> from wendonic.demo import demo_profile
    >>> press, released, back = draw_feel(demo_profile())
    >>> press.get_title(loc="left"), released.get_title(loc="left")
    ('pressed (dot: first response, square: 90 % of top speed)', 'released (triangle: at rest)')
    """
    of = by_name(profiles)
    if not 1 <= len(of) <= len(LINE_STYLES):
        raise WendonicError(f"found {len(of)} profiles; allowed: 1 to {len(LINE_STYLES)}")
    answers: dict[str, tuple[StepResponse, float | None]] = {}
    for name, profile in of.items():
        in_mode = profile.mode_name(mode)
        try:
            bench = Bench(profile, in_mode, by=by, held=held)
            answers[name] = bench.step_response, request_response(bench).reached_s(bench.thresholds.responds)
        except Unmeasured as reason:
            raise WendonicError(f'{name}: mode "{in_mode}" has no speed to draw: {reason}') from None
    length = common_unit([profile.world.length for profile in of.values()])
    axes = split_axes(blank_axes(ax), heights=[1.0, 1.0, 1.25])
    titles = (
        "pressed (dot: first response, square: 90 % of top speed)",
        "released (triangle: at rest)",
        "opposite direction pressed (diamond: 90 % of top speed back)",
    )
    for panel, title in zip(axes, titles, strict=True):
        dress_axes(panel)
        label_axis(panel.yaxis, "speed", "m/s", length)
        write_title(panel, title)
        panel.grid(color=FOG, linewidth=0.5, alpha=0.6)
        panel.axvline(0.0, color=INK, linewidth=0.8, linestyle=(0, (1, 2)))
    axes[-1].set_xlabel("time since the change (s)", color=INK)
    for number, (name, (answer, first_s)) in enumerate(answers.items()):
        _draw_answer(axes, name, answer, first_s, number, length)
    for panel in axes:
        if not panel.get_legend_handles_labels()[0]:
            continue
        panel.legend(
            loc="center left", bbox_to_anchor=(1.0, 0.5), frameon=False, fontsize=9, labelcolor=INK, handlelength=2.4
        )
    return axes


def _words(value_s: float | None) -> str:
    if value_s is None:
        return "never"
    return f"{value_s * 1000.0:.0f} ms" if value_s < LONG_S else f"{value_s:.3g} s"


def _draw_answer(
    axes: list[Axes], name: str, answer: StepResponse, first_s: float | None, number: int, length: LengthUnit
) -> None:
    color, dashes = LINE_STYLES[number]
    since = answer.t - answer.release_s
    top = answer.top_speed_m_s
    spans = (
        (answer.t, answer.speed, _shown(answer.reach90_s)),
        (since, answer.speed, _shown(answer.stop_time_s)),
        (since, answer.speed_turned_back, _shown(answer.reversal_s)),
    )
    on = "" if answer.stop_distance_m is None else f",\nover {length.m(answer.stop_distance_m, '.3g')}"
    labels = (
        f"{name}: first {_words(first_s)},\n90 % after {_words(answer.reach90_s)}",
        f"{name}: never at rest"
        if answer.stop_time_s is None
        else f"{name}: rest after {_words(answer.stop_time_s)}{on}",
        f"{name}: 90 % back after\n{_words(answer.reversal_s)}",
    )
    for panel, (t, speed, until_s), label in zip(axes, spans, labels, strict=True):
        if speed is None:
            continue
        panel.plot(
            t[t >= -BEFORE_S], speed[t >= -BEFORE_S], color=color, linestyle=dashes, linewidth=2.0, label=label
        )
        right = max(panel.get_xlim()[1] if number else 0.0, until_s)
        panel.set_xlim(-BEFORE_S, right)
    release_title = (since >= 0.0) & (since <= (answer.stop_time_s or 0.0))
    axes[1].fill_between(since[release_title], answer.speed[release_title], color=color, alpha=0.12, linewidth=0.0)
    _mark(axes[0], first_s, 0.0, DOT, color)
    _mark(axes[0], answer.reach90_s, SHARE * top, SQUARE, color)
    _mark(axes[1], answer.stop_time_s, 0.0, TRIANGLE, color)
    if answer.speed_turned_back is not None:
        _mark(axes[2], answer.reversal_s, SHARE * float(answer.speed_turned_back[-1]), DIAMOND, color)


def _shown(value_s: float | None) -> float:
    return 1.35 * value_s + 0.05 if value_s is not None else 1.0


def _mark(ax: Axes, at_s: float | None, speed: float, form: str, color: str) -> None:
    if at_s is not None and np.isfinite(at_s):
        ax.plot(at_s, speed, form, color=color, markersize=9, markeredgecolor=PAPER, zorder=4)


@picture(
    "profiles",
    "mode",
    "seat",
    "by",
    example="wendonic draw feel demo-out/beekeeper.toml demo-out/terraces.toml -o feel.png",
)
def feel(given: Given) -> Any:
    """Speed after a full press, after a release and after a reversal, with the feel sheet's quantities marked."""
    return draw_feel(given.own_profiles, given.mode, by=given.own_by, held=given.held)
