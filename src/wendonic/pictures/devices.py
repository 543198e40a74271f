"""Every control of a recording over time, a lane each."""

import math
from collections.abc import Sequence
from itertools import accumulate
from typing import Any

from matplotlib.axes import Axes

from wendonic.counted import counted
from wendonic.devices.controls import CONTROLS, RELEASES, REPORTED, REPORTED_UNITS, Control
from wendonic.devices.event import Event
from wendonic.errors import WendonicError
from wendonic.pictures.marks import MARK_ROW_POINTS, add_marks, modes_entered, notes_of
from wendonic.pictures.picture import Given, picture
from wendonic.pictures.style import BRICK, FOG, INK, MIST, PAPER, blank_axes, dress_axes, write_title
from wendonic.recording.content import numbers_of
from wendonic.recording.held import HELD_KINDS, held_spans
from wendonic.recording.recording import Recording, known_recording
from wendonic.recording.stretches import stretch_of
from wendonic.significant import significant

HALF_LANE = 0.36

DASHES = ("-", (0, (4, 1.5)), (0, (1, 1.2)), (0, (5, 1.5, 1, 1.5)))
"""Dashes of the first, second and further numbers of a control: right, towards the player, and others."""

NUMBERS = {
    "stick": ("x", "y"),
    "counts": ("x", "y"),
    "pointer": ("x", "y"),
    "touch": ("x", "y"),
    "rates": ("x", "y", "z"),
    "pose": ("x", "y", "z"),
    "view": ("yaw", "pitch"),
    "window": ("width over height",),
    "place": ("x", "y"),
}
"""What the lines of a lane show; for a pose, the position is drawn."""

UNITS = {
    "counts": " counts, summed",
    "pose": " m",
    "view": " deg",
    "window": " times as wide as high",
    "place": " m",
    "pointer": " of the window",
    "touch": " of the window",
}

RATE_UNITS = {"gyro": " rad/s", "accel": " m/s²"}
"""Units of motion sensors, by the last part of their names."""

ABOUT_ZERO = ("counts", "rates")
"""Kinds with values of either sign, whose zero is in the middle of the lane."""

MOMENTS = ("body.push", "body.contact", "body.restart", "square", "discard")
"""Momentary reports of a game."""

BAR_LANES = 12
"""With fewer lanes than this, bars are thinner than their lanes."""

TWO_LINE_LANES = 22

ROOMY_LANES = 40
"""Number of lanes with room for names of the usual size."""


def draw_devices(
    recording: Recording,
    start_s: float | None = None,
    end_s: float | None = None,
    only: Sequence[str] = (),
    ax: Axes | None = None,
) -> Axes:
    """Draw a lane for each control of a recording, from `start_s` to `end_s` if given (the recording's own time).

    Keys, buttons and touches are bars, a button that is pressed in part a line; sticks, sensors, poses and the view
    are lines, as are places, velocities and grounds that a game reported; the mouse is the sum of its counts; the
    wheel is ticks, away from the user upwards, and so are a game's pushes and the like. A lost device has a gap and a
    cross in its lines. The player's notes are at the top. `only` keeps the controls whose names begin with one of its
    words, such as "pad" or "hand.left". Raises `WendonicError` for a window, or a choice, with nothing in it.

    >>> from wendonic.demo import demo_recording
    >>> draw_devices(demo_recording("beekeeper_mouse")).get_title(loc="left")
    'Beekeeper with keys and mouse: 8 controls, 737 events, lost once'
    """
    by_control = _by_control(known_recording(recording), only)
    if not by_control:
        known = ", ".join(dict.fromkeys(event.control for event in recording)) or "none"
        raise WendonicError(f"no control to draw; the recording has: {known}")
    # Leave room around a single event.
    first, last = stretch_of(recording.start_s, recording.start_s + (recording.duration_s or 1.0), start_s, end_s)
    place = blank_axes(ax)
    dress_axes(place, x_label="time (s)")
    spans = held_spans(recording)
    losses = [event for event in recording if event.control in RELEASES]
    names = list(by_control)
    place.set_ylim(len(names) - 0.4, -0.6)
    for lane, name in enumerate(names):
        control = CONTROLS[name]
        lost_s = [event.t for event in losses if control.unit in RELEASES[event.control]]
        place.axhline(lane, color=FOG, linewidth=0.6, zorder=0)
        if control.kind in HELD_KINDS and not _in_part(control, by_control[name]):
            bars = [(max(a, first), min(b, last)) for a, b in spans.get(name, []) if b >= first and a <= last]
            widths = [(a, max(b - a, (last - first) * 3e-3)) for a, b in bars]
            half = HALF_LANE * min(len(names) / BAR_LANES, 1.0)
            if control.kind == "touch":
                place.broken_barh(
                    widths, (lane - HALF_LANE, 2 * HALF_LANE), facecolors=FOG, edgecolor=PAPER, alpha=0.5
                )
                _draw_lines(place, lane, control, by_control[name], [up for _, up in spans.get(name, [])], last)
            else:
                place.broken_barh(widths, (lane - half, 2 * half), facecolors=MIST, edgecolor=PAPER)
        else:
            _draw_marks_or_lines(place, lane, control, by_control[name], lost_s, last)
        shown_s = [t for t in lost_s if first <= t <= last]
        if shown_s:
            lanes = [lane] * len(shown_s)
            place.plot(shown_s, lanes, "x", color=BRICK, markersize=8, markeredgewidth=2.0, clip_on=False)
    fits = min(ROOMY_LANES / len(names), 1.0)
    place.set_yticks(range(len(names)), names, fontsize=max(9.0 * fits, 4.0))
    place.spines["left"].set_visible(False)
    place.tick_params(axis="y", length=0)
    place.set_xlim(first, last)
    _name_losses(place, [event for event in losses if first <= event.t <= last], (first + last) / 2.0)
    rows = add_marks([place], [*notes_of(recording), *modes_entered(recording)], first, last)
    count = sum(first <= event.t <= last for of_control in by_control.values() for event in of_control)
    lost = f", lost {len(losses)} times" if len(losses) > 1 else ", lost once" if losses else ""
    title = f"{recording.title or 'Recording'}: {counted(len(names), 'control')}, {counted(count, 'event')}{lost}"
    write_title(place, title, pad=10 + MARK_ROW_POINTS * rows)
    return place


def _by_control(recording: Recording, only: Sequence[str]) -> dict[str, list[Event]]:
    by_control: dict[str, list[Event]] = {}
    for event in recording:
        if CONTROLS[event.control].kind in ("loss", "mode", "mark"):
            continue
        if not only or event.control.startswith(tuple(only)):
            by_control.setdefault(event.control, []).append(event)
    return by_control


def _in_part(control: Control, events: list[Event]) -> bool:
    return control.kind == "button" and any(event.value not in (0.0, 1.0) for event in events)


def _name_losses(ax: Axes, losses: Sequence[Event], middle_s: float) -> None:
    at_once: dict[float, list[str]] = {}
    for event in losses:
        at_once.setdefault(event.t, []).append(event.control)
    for t, names in at_once.items():
        ax.axvline(t, color=BRICK, linewidth=0.9, linestyle=(0, (6, 3)), zorder=0)
        ax.annotate(
            ", ".join(names),
            (t, 0.0),
            xycoords=("data", "axes fraction"),
            xytext=(-5 if t > middle_s else 5, 4),
            textcoords="offset points",
            ha="right" if t > middle_s else "left",
            fontsize=8.5,
            color=BRICK,
        )


def _draw_ticks(ax: Axes, lane: int, events: list[Event]) -> None:
    notches = [numbers_of(event.value)[0] for event in events]
    most = max(map(abs, notches)) or 1.0
    # Lanes grow downwards, and so does turning towards the user.
    ends = [lane + HALF_LANE * notch / most for notch in notches]
    ax.vlines([event.t for event in events], lane, ends, color=MIST, linewidth=2.0)
    _write_range(ax, lane, f"up to {most:g} notch{'es' if most > 1.0 else ''}")


def _draw_marks_or_lines(
    ax: Axes, lane: int, control: Control, events: list[Event], lost_s: Sequence[float], end_s: float
) -> None:
    if control.kind == "wheel":
        _draw_ticks(ax, lane, events)
    elif control.name in MOMENTS:
        _draw_moments(ax, lane, events)
    else:
        _draw_lines(ax, lane, control, events, lost_s, end_s)


def _draw_moments(ax: Axes, lane: int, events: list[Event]) -> None:
    ax.vlines([event.t for event in events], lane - 0.2, lane + 0.2, color=INK, linewidth=1.1)
    _write_range(ax, lane, "once" if len(events) == 1 else f"{len(events)} times")


def _draw_lines(
    ax: Axes, lane: int, control: Control, events: list[Event], lost_s: Sequence[float], end_s: float
) -> None:
    words = REPORTED.get(control.name) or NUMBERS.get(control.kind, ("",))
    columns = [list(column) for column in zip(*(numbers_of(event.value) for event in events), strict=True)]
    columns = columns[: len(words)]
    if control.kind == "counts":
        columns = [list(accumulate(column)) for column in columns]
    low, high = min(map(min, columns)), max(map(max, columns))
    if control.high == 1.0:
        low, high = control.low, control.high
    middle, half = (low + high) / 2.0, (high - low) / 2.0 or 1.0
    if control.kind in ABOUT_ZERO:
        middle, half = 0.0, max(-low, high) or 1.0
    t = [event.t for event in events]
    for column, dashes in zip(columns, DASHES, strict=False):
        times, heights = _with_gaps(t, column, lost_s, end_s)
        # Down and up are drawn as in the device's own standard.
        sign = 1.0 if control.kind in ("stick", "counts", "pointer", "touch") and dashes != DASHES[0] else -1.0
        places = [lane + sign * HALF_LANE * (height - middle) / half for height in heights]
        ax.plot(times, places, color=INK, linewidth=1.1, linestyle=dashes, drawstyle="steps-post")
    legend = ", ".join(
        f"{word} {dashes}" for word, dashes in zip(words, ("solid", "dashed", "dotted", "dash-dotted"), strict=False)
    )
    unit = REPORTED_UNITS.get(control.name) or UNITS.get(control.kind) or RATE_UNITS.get(control.name.split(".")[-1])
    digits = 9 if control.kind == "counts" else 4
    span = f"{significant(low, digits)} to {significant(high, digits)}{unit or ''}"
    # Two lines of text need more room than a narrow lane has.
    between = "\n" if abs(ax.get_ylim()[1] - ax.get_ylim()[0]) <= TWO_LINE_LANES else ": "
    _write_range(ax, lane, f"{legend}{between}{span}" if len(words) > 1 else span)


def _with_gaps(
    t: list[float], values: list[float], lost_s: Sequence[float], end_s: float
) -> tuple[list[float], list[float]]:
    """Hold each value until the next one, the end, or a loss, after which there is a gap."""
    times, heights = list(t), list(values)
    times.append(max(end_s, t[-1]))
    heights.append(values[-1])
    rows = list(zip(times, heights, strict=True)) + [(lost, math.nan) for lost in lost_s if lost >= t[0]]
    rows.sort(key=lambda row: row[0])
    # After a loss there is no value to hold up to the end.
    if lost_s and max(lost_s) >= t[-1]:
        rows = [row for row in rows if row[0] <= max(lost_s)]
    return [row[0] for row in rows], [row[1] for row in rows]


def _write_range(ax: Axes, lane: int, words: str) -> None:
    ax.annotate(
        words,
        (1.0, lane),
        xycoords=("axes fraction", "data"),
        xytext=(9, 0),
        textcoords="offset points",
        va="center",
        fontsize=min(8.5, 340.0 / abs(ax.get_ylim()[1] - ax.get_ylim()[0])),
        color=MIST,
        annotation_clip=False,
    )


@picture(
    "recording",
    "window",
    "only",
    example="wendonic draw devices demo-out/beekeeper_mouse.jsonl -o devices.png",
)
def devices(given: Given) -> Any:
    """Every control of a recording over time: bars, lines and ticks, losses and notes."""
    return draw_devices(given.recording, given.start_s, given.end_s, given.only)
