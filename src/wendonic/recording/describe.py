"""Describes what a recording contains, and what looks suspicious in it."""

import math
import statistics
from itertools import pairwise

from wendonic.counted import counted
from wendonic.devices.controls import CONTROLS, REPORTED, REPORTED_UNITS, TEXTS
from wendonic.devices.event import Event
from wendonic.recording.content import numbers_of
from wendonic.recording.held import HELD_KINDS, held_spans, still_held
from wendonic.recording.recording import Recording
from wendonic.significant import clock_s, significant

LEAST_GAPS = 40
"""Least number of gaps between a stick's events from which a polling rate is estimated."""

POLLED_KINDS = frozenset({"stick", "counts", "touch", "pose", "rates"})
"""Kinds of control that are polled while they move."""

RANGES = {
    "stick": (("x", "y (towards the player)"), ""),
    "pointer": (("x", "y (down)"), ""),
    "pose": (("x", "y (up)", "z (towards the player)"), " m"),
    "rates": (("x", "y", "z"), ""),
    "view": (("yaw", "pitch"), " deg"),
    "window": (("width over height",), ""),
    "place": (("x (right)", "y (forward)"), " m"),
}
"""Names and units of a control's numbers."""

SHORT_SILENCE_S = 0.01
"""Gaps shorter than this are written with more digits."""

RESTING_TILT = 0.3
"""An untouched stick stays below this tilt."""

RESTING_S = 0.5
"""A stick is at rest if it stays below `RESTING_TILT` for this time."""


def describe_recording(recording: Recording) -> list[str]:
    """Return lines of text: length, what each control did, notes, and what looks suspicious.

    >>> walk = Recording([Event(0.0, "key.KeyW", 1), Event(1.5, "key.KeyD", 1), Event(2.0, "key.KeyD", 0)])
    >>> print("\\n".join(describe_recording(walk)))
    Recording without a title
      2.00 s from 0 s, 3 events; longest silence 1.50 s, from 0.00 s
      devices: keys
      key.KeyW: 1 event (0.5 a second), down once, 2.00 s in all
      key.KeyD: 2 events (1 a second), down once, 0.50 s in all
      suspicious: key.KeyW is still down at the end
    """
    events = counted(len(recording), "event")
    silence = _longest_silence(recording)
    lines = [
        f'Recording "{recording.title}"' if recording.title else "Recording without a title",
        f"  {recording.duration_s:.2f} s from {clock_s(recording.start_s)} s, {events}{silence}",
    ]
    if recording.devices:
        lines.append(f"  devices: {', '.join(recording.devices)}")
    by_control: dict[str, list[Event]] = {}
    for event in recording:
        by_control.setdefault(event.control, []).append(event)
    spans = held_spans(recording)
    for name, of_control in by_control.items():
        if CONTROLS[name].kind not in TEXTS:
            lines.append(f"  {name}: {_counted(of_control, recording)}{_what_it_did(name, of_control, spans)}")
    lines += [f"  mode at {event.t:.2f} s: {event.value}" for event in by_control.get("mode", [])]
    marks = by_control.get("mark", [])
    lines += [f'  mark at {event.t:.2f} s: "{event.value}"' for event in marks]
    lines += [f"  suspicious: {words}" for words in _suspicions(recording, by_control)]
    return lines + [f"  warning: {words}" for words in recording.warnings]


def _longest_silence(recording: Recording) -> str:
    gaps = [(after.t - before.t, before.t) for before, after in pairwise(recording)]
    if not gaps:
        return ""
    longest, since = max(gaps, key=lambda gap: gap[0])
    silence = f"{longest:.2f}" if longest >= SHORT_SILENCE_S else significant(longest, 2)
    return f"; longest silence {silence} s, from {since:.2f} s"


def _counted(events: list[Event], recording: Recording) -> str:
    rate = f" ({significant(len(events) / recording.duration_s, 2)} a second)" if recording.duration_s > 0.0 else ""
    return f"{counted(len(events), 'event')}{rate}{_polling_rate(events)}"


def _what_it_did(name: str, events: list[Event], spans: dict[str, list[tuple[float, float]]]) -> str:
    control = CONTROLS[name]
    if control.kind in HELD_KINDS:
        bars = spans.get(name, [])
        times = "once" if len(bars) == 1 else f"{len(bars)} times"
        return f", down {times}, {sum(up - down for down, up in bars):.2f} s in all"
    columns = list(zip(*(numbers_of(event.value) for event in events), strict=True))
    if control.kind == "counts":
        distance = sum(math.hypot(*numbers_of(event.value)) for event in events)
        right, towards = sum(columns[0]), sum(columns[1])
        sideways = f"{abs(right):.0f} {'left' if right < 0.0 else 'right'}"
        along = f"{abs(towards):.0f} {'away from' if towards < 0.0 else 'towards'} the user"
        return f", {distance:.0f} counts of travel; in all {sideways}, {along}"
    if control.kind == "wheel":
        towards = sum(notches for notches in columns[0] if notches > 0.0)
        away = sum(-notches for notches in columns[0] if notches < 0.0)
        return f", notches: {towards:g} towards the user, {away:g} away"
    words, unit = RANGES.get(control.kind, ((), ""))
    if len(REPORTED.get(name, ())) > 1 or name == "body.facing":
        words, unit = REPORTED[name], REPORTED_UNITS.get(name, "")
    return "".join(
        f", {word} {_range(min(column), max(column))}{unit}" for word, column in zip(words, columns, strict=False)
    )


def _range(low: float, high: float) -> str:
    return f"{low:g}" if low == high else f"{low:g} to {high:g}"


def _polling_rate(events: list[Event]) -> str:
    """Estimate the polling rate: a device reports only changes, so the shorter gaps are single polls."""
    if CONTROLS[events[0].control].kind not in POLLED_KINDS:
        return ""
    gaps = [after.t - before.t for before, after in pairwise(events) if after.t > before.t]
    if len(gaps) < LEAST_GAPS:
        return ""
    return f", polled at about {1.0 / statistics.quantiles(gaps, n=4)[0]:.0f} Hz"


def _suspicions(recording: Recording, by_control: dict[str, list[Event]]) -> list[str]:
    words = [f"{name} is still down at the end" for name in still_held(recording)]
    end_s = recording.start_s + recording.duration_s
    for name, events in by_control.items():
        if CONTROLS[name].kind == "stick" and not _ever_rests(events, end_s):
            words.append(f"{name} never rests: its tilt is never below {RESTING_TILT:g} for {RESTING_S:g} s")
    return words


def _ever_rests(events: list[Event], end_s: float) -> bool:
    since: float | None = None
    for event in events:
        low = isinstance(event.value, tuple) and math.hypot(*event.value) < RESTING_TILT
        if since is not None and event.t - since >= RESTING_S:
            return True
        since = (event.t if since is None else since) if low else None
    return since is not None and end_s - since >= RESTING_S
