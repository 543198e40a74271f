"""Cuts stretches out of recordings, and joins recordings."""

import math
from collections.abc import Iterator, Sequence

from wendonic.devices.controls import CONTROLS
from wendonic.devices.event import Event
from wendonic.devices.state import DeviceState
from wendonic.errors import WendonicError
from wendonic.kernels.body.fall import GROUND_UNKNOWN
from wendonic.recording.content import numbers_of
from wendonic.recording.recording import Recording
from wendonic.significant import clock_s

BEGIN, END = "begin", "end"
"""Notes at the ends of a stretch without other events there, so that it keeps its length."""


def stretch_of(
    first_s: float, last_s: float, start_s: float | None = None, end_s: float | None = None
) -> tuple[float, float]:
    """Return the ends (s) of a stretch of a recording from `first_s` to `last_s`; an end that is not given is that of
    the recording.

    Raises `WendonicError` for a stretch that is empty, or lies outside.

    >>> stretch_of(0.0, 36.0, 2.0), stretch_of(0.0, 36.0, -1.0, 40.0)
    ((2.0, 36.0), (-1.0, 40.0))
    """
    begin_s = first_s if start_s is None else start_s
    finish_s = last_s if end_s is None else end_s
    runs = f"the recording runs from {clock_s(first_s)} s to {clock_s(last_s)} s"
    if not (math.isfinite(begin_s) and math.isfinite(finish_s)):
        raise WendonicError(f"from {clock_s(begin_s)} s to {clock_s(finish_s)} s; allowed: finite times; {runs}")
    if begin_s >= last_s or finish_s <= first_s:
        side = f"after {clock_s(begin_s)} s" if begin_s >= last_s else f"before {clock_s(finish_s)} s"
        raise WendonicError(f"nothing {side}; {runs}")
    if begin_s >= finish_s:
        raise WendonicError(
            f"from {clock_s(begin_s)} s to {clock_s(finish_s)} s; allowed: the end after the start; {runs}"
        )
    return begin_s, finish_s


def cut(recording: Recording, start_s: float | None = None, end_s: float | None = None) -> Recording:
    """Return the stretch of a recording from `start_s` to `end_s`, with its times unchanged; an end that is not given
    is that of the recording.

    Controls held when it begins are pressed there, see `Recording.between`; a note marks an end without other events,
    so that the stretch keeps its length. Raises `WendonicError` for a stretch that is empty, or lies outside.

    >>> walk = Recording([Event(0.0, "key.KeyW", 1), Event(3.0, "key.KeyW", 0)])
    >>> [(event.t, event.control) for event in cut(walk, 1.0, 2.0)]
    [(1.0, 'key.KeyW'), (2.0, 'mark')]
    """
    first_s, last_s = recording.start_s, recording.start_s + recording.duration_s
    begin_s, finish_s = stretch_of(first_s, last_s, start_s, end_s)
    begin_s, finish_s = max(begin_s, first_s), min(finish_s, last_s)
    events = list(recording.between(begin_s, finish_s))
    if not events or events[0].t > begin_s:
        events.insert(0, Event(begin_s, "mark", BEGIN))
    if events[-1].t < finish_s:
        events.append(Event(finish_s, "mark", END))
    return Recording.from_checked(events, recording.title, recording.header)


def join(recordings: Sequence[Recording], pause_s: float = 0.5) -> Recording:
    """Return recordings one after the other, from 0 s on, with a pause between them in which everything is released
    and the game's reports of ground and blocked squares no longer count.

    Each one begins a new life, as it did by itself: toggles, goals and buffers are forgotten. The body and the mode
    stay as they are unless the next recording changes them. A note with its title marks the beginning of each. Raises
    `WendonicError` for a pause that cannot be.

    >>> walk = Recording([Event(7.0, "key.KeyW", 1)], "Walk")
    >>> [(event.t, event.control) for event in join([walk, walk], pause_s=2.0)]
    [(0.0, 'mark'), (0.0, 'key.KeyW'), (0.0, 'lost.focus'), (2.0, 'body.restart'), (2.0, 'mark'), (2.0, 'key.KeyW')]
    """
    if not 0.0 <= pause_s <= 3600.0:
        raise WendonicError(f"pause_s: found {pause_s:g}; allowed: 0 to 3600 s")
    events: list[Event] = []
    at_s = 0.0
    for number, recording in enumerate(recordings, 1):
        if events and _holds(events):
            events.append(Event(at_s - pause_s, "lost.focus", 1.0))
        if events:
            events += _taken_back(recordings[number - 2], at_s - pause_s)
            events.append(Event(at_s, "body.restart", 1.0))
        events.append(Event(at_s, "mark", recording.title or f"recording {number}"))
        events += recording.shifted(at_s)
        at_s += recording.duration_s + pause_s
    titles = dict.fromkeys(recording.title for recording in recordings if recording.title)
    return Recording.from_checked(events, ", then ".join(titles))


def _taken_back(recording: Recording, t: float) -> Iterator[Event]:
    """Yield events that cancel, at a given time, the lasting reports of a game."""
    ground, blocked = GROUND_UNKNOWN, dict[tuple[float, float], None]()
    for event in recording:
        if event.control == "body.ground":
            ground = numbers_of(event.value)[0]
        elif event.control == "square":
            x, y, is_blocked = numbers_of(event.value)
            blocked.pop((x, y), None)
            if is_blocked > 0.0:
                blocked[x, y] = None
    if ground != GROUND_UNKNOWN:
        yield Event(t, "body.ground", (GROUND_UNKNOWN, 0.0, 0.0, 1.0))
    for square in blocked:
        yield Event(t, "square", (*square, 0.0))


def _holds(events: Sequence[Event]) -> bool:
    """Return whether any control is held after these events."""
    state = DeviceState()
    for event in events:
        if CONTROLS[event.control].device is not None or event.control.startswith("lost."):
            state.apply(event)
    return state.values != DeviceState().values
