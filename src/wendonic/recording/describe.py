"""What a recording holds, in words, and what looks wrong in it."""

import math
import statistics
from itertools import pairwise

from wendonic.devices.controls import CONTROLS, LETS_GO
from wendonic.devices.event import Event
from wendonic.recording.held import held_spans
from wendonic.recording.recording import Recording

LEAST_GAPS = 40
"""Gaps between a stick's events that a polling rate has to rest on."""

RESTING_TILT = 0.3
"""A stick that lies free stays below this tilt."""

RESTING_S = 0.5
"""A stick has rested once it stayed below `RESTING_TILT` for so long."""


def describe_recording(recording: Recording) -> list[str]:
    """Return lines of text: length, what each control did, notes, and what looks suspicious.

    >>> walk = Recording([Event(0.0, "key.KeyW", 1), Event(1.5, "key.KeyD", 1), Event(2.0, "key.KeyD", 0)])
    >>> print("\\n".join(describe_recording(walk)))
    Recording without a title
      2.00 s from 0 s on, 3 events; longest silence 1.50 s, from 0.00 s on
      key.KeyW: down once, 2.00 s in all
      key.KeyD: down once, 0.50 s in all
      suspicious: key.KeyW is still down at the end
    """
    events = "1 event" if len(recording) == 1 else f"{len(recording)} events"
    silence = _longest_silence(recording)
    lines = [
        f'Recording "{recording.title}"' if recording.title else "Recording without a title",
        f"  {recording.duration_s:.2f} s from {recording.start_s:g} s on, {events}{silence}",
    ]
    by_control: dict[str, list[Event]] = {}
    for event in recording:
        by_control.setdefault(event.control, []).append(event)
    spans = held_spans(recording)
    for name, of_control in by_control.items():
        kind = CONTROLS[name].kind
        if kind in ("key", "button"):
            bars = spans.get(name, [])
            times = "once" if len(bars) == 1 else f"{len(bars)} times"
            lines.append(f"  {name}: down {times}, {sum(up - down for down, up in bars):.2f} s in all")
        elif kind in ("stick", "view"):
            rate = _polling_rate(of_control) if kind == "stick" else ""
            lines.append(f"  {name}: {len(of_control)} events{rate}, {_ranges(of_control, kind == 'view')}")
        elif kind == "loss":
            lines.append(f"  {name}: {len(of_control)} events")
    marks = by_control.get("mark", [])
    lines += [f'  mark at {event.t:.2f} s: "{event.value}"' for event in marks]
    lines += [f"  suspicious: {words}" for words in _suspicions(recording, by_control)]
    return lines + [f"  warning: {words}" for words in recording.warnings]


def _longest_silence(recording: Recording) -> str:
    gaps = [(after.t - before.t, before.t) for before, after in pairwise(recording)]
    if not gaps:
        return ""
    longest, since = max(gaps, key=lambda gap: gap[0])
    return f"; longest silence {longest:.2f} s, from {since:.2f} s on"


def _polling_rate(events: list[Event]) -> str:
    """Estimate how often the device is read: it tells of changes only, so the shorter gaps are single polls."""
    gaps = [after.t - before.t for before, after in pairwise(events) if after.t > before.t]
    if len(gaps) < LEAST_GAPS:
        return ""
    return f" (polled at about {1.0 / statistics.quantiles(gaps, n=4)[0]:.0f} Hz)"


def _ranges(events: list[Event], view: bool) -> str:
    pairs = [event.value for event in events if isinstance(event.value, tuple)]
    words = ("yaw", "pitch") if view else ("x", "y (towards the player)")
    unit = " deg" if view else ""
    return ", ".join(
        f"{word} {min(pair[axis] for pair in pairs):g} to {max(pair[axis] for pair in pairs):g}{unit}"
        for axis, word in enumerate(words)
    )


def _suspicions(recording: Recording, by_control: dict[str, list[Event]]) -> list[str]:
    words: list[str] = []
    end_s = recording.start_s + recording.duration_s
    for name, bars in held_spans(recording).items():
        # A span ends with its key, with a loss, or with the recording; only the last of these is no letting go.
        if bars[-1][1] == end_s and by_control[name][-1].value != 0.0 and recording[-1].control not in LETS_GO:
            words.append(f"{name} is still down at the end")
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
