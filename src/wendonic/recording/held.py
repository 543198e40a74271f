"""When keys, buttons and fingers were down."""

from wendonic.devices.controls import CONTROLS, RELEASES
from wendonic.devices.event import at_rest
from wendonic.recording.recording import Recording

HELD_KINDS = frozenset({"key", "button", "touch"})


def held_spans(recording: Recording) -> dict[str, list[tuple[float, float]]]:
    """Return (down, up) times in seconds for each key, button and touch of a recording, in the order of first use.

    A loss of focus releases everything, a lost device what it held; a control that is still down at the end is held
    until the last event.

    >>> from wendonic.devices.event import Event
    >>> held_spans(Recording([Event(0.0, "key.KeyW", 1), Event(0.5, "key.KeyD", 1), Event(2.0, "lost.focus", 1)]))
    {'key.KeyW': [(0.0, 2.0)], 'key.KeyD': [(0.5, 2.0)]}
    """
    spans, down_s = _spans(recording)
    end_s = recording.start_s + recording.duration_s
    for name, since_s in down_s.items():
        spans[name].append((since_s, end_s))
    return spans


def still_held(recording: Recording) -> list[str]:
    """Return the keys, buttons and touches that are still held at the end of a recording.

    >>> from wendonic.devices.event import Event
    >>> still_held(Recording([Event(0.0, "key.KeyW", 1), Event(0.5, "pad.south", 1), Event(2.0, "lost.pad", 1)]))
    ['key.KeyW']
    """
    return list(_spans(recording)[1])


def _spans(recording: Recording) -> tuple[dict[str, list[tuple[float, float]]], dict[str, float]]:
    """Return the spans that have ended, and the beginnings of those that have not."""
    spans: dict[str, list[tuple[float, float]]] = {}
    down_s: dict[str, float] = {}
    for event in recording:
        control = CONTROLS[event.control]
        if control.kind == "loss":
            for name in list(down_s):
                if CONTROLS[name].unit in RELEASES[event.control]:
                    spans[name].append((down_s.pop(name), event.t))
        elif control.kind in HELD_KINDS:
            if at_rest(event):
                if event.control in down_s:
                    spans[event.control].append((down_s.pop(event.control), event.t))
            elif event.control not in down_s:
                down_s[event.control] = event.t
                spans.setdefault(event.control, [])
    return spans, down_s
