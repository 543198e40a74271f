"""What a recording holds, in words."""

from collections import Counter

from wendonic.devices.controls import CONTROLS
from wendonic.recording.held import held_spans
from wendonic.recording.recording import Recording


def describe_recording(recording: Recording) -> list[str]:
    """Return lines of text: length, then what each control did."""
    events = "1 event" if len(recording) == 1 else f"{len(recording)} events"
    lines = [
        f'Recording "{recording.title}"' if recording.title else "Recording without a title",
        f"  {recording.duration_s:.2f} s from {recording.start_s:g} s on, {events}",
    ]
    counts = Counter(event.control for event in recording)
    spans = held_spans(recording)
    for name, count in counts.items():
        kind = CONTROLS[name].kind
        if kind in ("key", "button"):
            bars = spans.get(name, [])
            times = "once" if len(bars) == 1 else f"{len(bars)} times"
            lines.append(f"  {name}: down {times}, {sum(up - down for down, up in bars):.2f} s in all")
        elif kind in ("stick", "view"):
            lines.append(f"  {name}: {count} events, {_ranges(recording, name, kind == 'view')}")
        elif kind == "loss":
            lines.append(f"  {name}: {count} events")
    marks = [event for event in recording if event.control == "mark"]
    lines += [f'  mark at {event.t:.2f} s: "{event.value}"' for event in marks]
    return lines + [f"  warning: {words}" for words in recording.warnings]


def _ranges(recording: Recording, name: str, view: bool) -> str:
    pairs = [event.value for event in recording if event.control == name and isinstance(event.value, tuple)]
    words = ("yaw", "pitch") if view else ("x", "y (towards the player)")
    unit = " deg" if view else ""
    return ", ".join(
        f"{word} {min(pair[axis] for pair in pairs):g} to {max(pair[axis] for pair in pairs):g}{unit}"
        for axis, word in enumerate(words)
    )
