"""A stand-in for the kernel: the stream that a Linux input device would have produced for given events."""

from collections.abc import Iterable, Iterator

from wendonic.devices.controls import find_control
from wendonic.devices.event import Event
from wendonic.errors import DeviceError
from wendonic.recording.content import numbers_of
from wendonic.recording.linux_codes import (
    EV_ABS,
    EV_KEY,
    EV_REL,
    EV_SYN,
    KEY_CONTROLS,
    MOUSE_AXES,
    STICK_AXES,
    SYN_REPORT,
    TRIGGER_AXES,
    WHEEL_AXIS,
)
from wendonic.recording.linux_input import LAYOUTS, Range

_KEY_CODES = {control: code for code, control in KEY_CONTROLS.items()}
_STICK_CODES = {stick_axis: code for code, stick_axis in STICK_AXES.items()}
_TRIGGER_CODES = {control: code for code, control in TRIGGER_AXES.items()}


def linux_capture(
    events: Iterable[Event],
    layout: int = 64,
    stick_range: Range = (0, 255),
    trigger_range: Range = (0, 255),
    epoch_s: int = 1_764_028_800,
) -> bytes:
    """Return the stream of `struct input_event` for the events, each in a frame of its own.

    `layout` is the machine's word length, 64 or 32; the ranges are the raw numbers at both ends of an axis; `epoch_s`
    is the system time at time 0. Numbers are rounded to the device's steps and times to microseconds. Raises
    `DeviceError` for an event that no such device reports.

    >>> len(linux_capture([Event(0.5, "key.KeyW", 1.0)])) // 24
    2
    """
    if layout not in LAYOUTS:
        raise DeviceError(f"layout: found {layout!r}; allowed: 64, 32")
    record = LAYOUTS[layout]
    stream = bytearray()
    for event in events:
        seconds, microseconds = divmod(round(event.t * 1e6), 1_000_000)
        for kind, code, value in _records(event, stick_range, trigger_range):
            stream += record.pack(epoch_s + seconds, microseconds, kind, code, value)
        stream += record.pack(epoch_s + seconds, microseconds, EV_SYN, SYN_REPORT, 0)
    return bytes(stream)


def _records(event: Event, stick_range: Range, trigger_range: Range) -> Iterator[tuple[int, int, int]]:
    control = find_control(event.control)
    numbers = numbers_of(event.value)
    if control.name in _TRIGGER_CODES:
        low, high = trigger_range
        yield EV_ABS, _TRIGGER_CODES[control.name], round(low + numbers[0] * (high - low))
    elif control.name in _KEY_CODES:
        yield EV_KEY, _KEY_CODES[control.name], round(numbers[0])
    elif control.kind == "stick" and (control.name, 0) in _STICK_CODES:
        low, high = stick_range
        for axis, tilt in enumerate(numbers):
            yield EV_ABS, _STICK_CODES[control.name, axis], round(low + (tilt + 1.0) / 2.0 * (high - low))
    elif control.kind == "counts":
        for code, axis in MOUSE_AXES.items():
            yield EV_REL, code, round(numbers[axis])
    elif control.kind == "wheel":
        yield EV_REL, WHEEL_AXIS, -round(numbers[0])
    else:
        raise DeviceError(f"{control.name}: no Linux keyboard, pad or mouse reports it")
