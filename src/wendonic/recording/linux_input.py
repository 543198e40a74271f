"""Captures of a Linux input device: the raw stream of /dev/input/event*, as `cat` writes it to a file."""

import struct
from collections import Counter
from collections.abc import Iterable, Iterator
from pathlib import Path
from typing import NamedTuple

from wendonic.atomic_file import file_content
from wendonic.errors import Fault, RecordingError, WendonicError
from wendonic.recording.content import Content, Entry, ordered_events
from wendonic.recording.linux_codes import (
    EV_ABS,
    EV_KEY,
    EV_REL,
    EV_SYN,
    HAT_AXES,
    KEY_CONTROLS,
    LAST_EVENT_TYPE,
    MOUSE_AXES,
    STICK_AXES,
    SYN_DROPPED,
    SYN_REPORT,
    TRIGGER_AXES,
    TRIGGER_BUTTONS,
    WHEEL_AXIS,
)

LAYOUTS = {64: struct.Struct("<qqHHi"), 32: struct.Struct("<iiHHi")}
"""`struct input_event` of little-endian machines: seconds, microseconds, type, code, value."""

SIGNED_RANGES = ((-128, 127), (-512, 511), (-2048, 2047), (-32768, 32767))
UNSIGNED_RANGES = ((0, 255), (0, 1023), (0, 4095), (0, 65535))

DROPPED = "events were dropped here by the kernel"

Range = tuple[int, int]


class _Record(NamedTuple):
    number: int
    t: float
    kind: int
    code: int
    value: int


def read_linux_input(
    path: str | Path, layout: int = 64, stick_range: Range | None = None, trigger_range: Range | None = None
) -> Content:
    """Return the events of a capture; times begin at 0.

    `layout` is the word length of the machine that made the capture, 64 or 32. The stream does not contain the ranges
    of its axes: without `stick_range` and `trigger_range` (raw numbers at both ends) the narrowest common range that
    covers all values is assumed, and a warning says so. If the kernel had to drop events, everything up to the next
    report is discarded as the kernel's documentation requires, everything is released and the place is marked, so
    that no key stays stuck because its release was lost. A key that continues to repeat counts as down again. Codes
    without a control are counted in a warning. A cut-off last record is left out with a warning.
    """
    if layout not in LAYOUTS:
        raise WendonicError(f"layout: found {layout!r}; allowed: 64, 32")
    for name, chosen in (("stick range", stick_range), ("trigger range", trigger_range)):
        if chosen is not None and not chosen[0] < chosen[1]:
            raise WendonicError(f"{name}: found {chosen[0]} to {chosen[1]}; allowed: the low end below the high one")
    raw = file_content(path, "recording", RecordingError)
    records = list(_records(path, raw, layout))
    warnings: list[str] = []
    if len(raw) % LAYOUTS[layout].size:
        warnings.append(f"{path}: record {len(records)}: cut off, and ignored")
    sticks = stick_range or _guessed(records, STICK_AXES, f"{path}: range of the sticks", warnings)
    triggers = trigger_range or _guessed(records, TRIGGER_AXES, f"{path}: range of the triggers", warnings)
    if any(record.kind == EV_ABS and record.code in TRIGGER_AXES for record in records):
        # Such a pad reports a trigger twice, as an axis and as a button at its end; the axis has more information.
        records = [record for record in records if record.kind != EV_KEY or record.code not in TRIGGER_BUTTONS]
    skipped: Counter[tuple[int, int]] = Counter()
    faults: list[Fault] = []
    events = ordered_events(_Reader(sticks, triggers, skipped).entries(records), faults)
    if faults:
        raise RecordingError(path, faults)
    if skipped:
        codes = ", ".join(f"type {kind} code {code} ({count})" for (kind, code), count in skipped.most_common(5))
        warnings.append(f"{path}: ignored records without a control: {skipped.total()}, such as {codes}")
    return Content(events, "", {}, tuple(warnings))


def _records(path: str | Path, raw: bytes, layout: int) -> Iterator[_Record]:
    record = LAYOUTS[layout]
    whole = len(raw) - len(raw) % record.size
    first: int | None = None
    for number, (seconds, microseconds, kind, code, value) in enumerate(record.iter_unpack(raw[:whole])):
        if kind > LAST_EVENT_TYPE or not 0 <= microseconds < 1_000_000:
            what = f"is not an input event of the {layout}-bit layout; try layout {96 - layout}"
            raise RecordingError(path, [Fault(None, f"record {number}", what)])
        # Integer microseconds, so that no digit of a time since 1970 is lost.
        time_us = seconds * 1_000_000 + microseconds
        first = time_us if first is None else first
        yield _Record(number, (time_us - first) / 1e6, kind, code, value)
    if first is None:
        raise RecordingError(path, [Fault(None, "", "has no whole input event")])


def _guessed(records: Iterable[_Record], axes: Iterable[int], what: str, warnings: list[str]) -> Range:
    values = [record.value for record in records if record.kind == EV_ABS and record.code in axes]
    if not values:
        return UNSIGNED_RANGES[0]
    low, high = min(values), max(values)
    usual = SIGNED_RANGES if low < 0 else UNSIGNED_RANGES
    chosen = next((ends for ends in usual if ends[0] <= low and high <= ends[1]), (low, high))
    warnings.append(f"{what} guessed as {chosen[0]} to {chosen[1]}")
    return chosen


class _Reader:
    """Turns records into events; it keeps what is down, where the sticks are and how far the mouse has moved."""

    def __init__(self, sticks: Range, triggers: Range, skipped: Counter[tuple[int, int]]) -> None:
        self._sticks = sticks
        self._triggers = triggers
        self._skipped = skipped
        self._down: set[str] = set()
        self._tilts: dict[str, list[float]] = {}
        self._moved: set[str] = set()
        self._counts = [0.0, 0.0]

    def entries(self, records: Iterable[_Record]) -> Iterator[Entry]:
        """Go through the records; a stick's two axes are reported together, at the report that ends their frame."""
        dropping = False
        for record in records:
            where = f"record {record.number}"
            if record.kind == EV_SYN and record.code == SYN_DROPPED:
                dropping = True
            elif record.kind == EV_SYN and record.code == SYN_REPORT:
                if dropping:
                    dropping = False
                    self._down.clear()
                    self._tilts.clear()
                    self._moved.clear()
                    self._counts = [0.0, 0.0]
                    yield Entry(None, where, record.t, "mark", DROPPED)
                    yield Entry(None, where, record.t, "lost.focus", 1.0)
                for stick in sorted(self._moved):
                    yield Entry(None, where, record.t, stick, tuple(self._tilts[stick]))
                self._moved.clear()
                if any(self._counts):
                    yield Entry(None, where, record.t, "mouse.move", tuple(self._counts))
                    self._counts = [0.0, 0.0]
            elif not dropping:
                for control, value in self._changes(record):
                    yield Entry(None, where, record.t, control, value)

    def _changes(self, record: _Record) -> Iterator[tuple[str, float]]:
        code, value = record.code, record.value
        if record.kind == EV_KEY and code in KEY_CONTROLS:
            yield from self._pressed(KEY_CONTROLS[code], value != 0)
        elif record.kind == EV_ABS and code in HAT_AXES:
            negative, positive = HAT_AXES[code]
            yield from self._pressed(negative, value < 0)
            yield from self._pressed(positive, value > 0)
        elif record.kind == EV_ABS and code in TRIGGER_AXES:
            low, high = self._triggers
            yield TRIGGER_AXES[code], (value - low) / (high - low)
        elif record.kind == EV_ABS and code in STICK_AXES:
            stick, axis = STICK_AXES[code]
            low, high = self._sticks
            tilt = (value - low) / (high - low) * 2.0 - 1.0
            self._tilts.setdefault(stick, [0.0, 0.0])[axis] = tilt
            self._moved.add(stick)
        elif record.kind == EV_REL and code in MOUSE_AXES:
            self._counts[MOUSE_AXES[code]] += value
        elif record.kind == EV_REL and code == WHEEL_AXIS:
            yield "mouse.wheel", -float(value)
        elif record.kind in (EV_KEY, EV_ABS, EV_REL):
            self._skipped[record.kind, code] += 1

    def _pressed(self, control: str, down: bool) -> Iterator[tuple[str, float]]:
        if down != (control in self._down):
            (self._down.add if down else self._down.remove)(control)
            yield control, float(down)
