"""Logs of devices that other programs wrote."""

import json
import re
import struct
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wendonic import DeviceError, Event, Recording, RecordingError, WendonicError
from wendonic.demo import CAPTURE_PATH, demo_recording
from wendonic.demo.make_recordings import beekeeper_capture
from wendonic.devices.controls import MOUSE_BUTTONS, PAD_BUTTONS
from wendonic.devices.keys import KEY_CODES
from wendonic.recording.linux_capture import linux_capture
from wendonic.recording.linux_codes import KEY_CONTROLS

KERNEL_HEADER = Path("/usr/include/linux/input-event-codes.h")
SYN, KEY, REL, ABS = 0, 1, 2, 3
W, E, D, TL2 = 17, 18, 32, 0x138
X, Y, Z, HAT_X = 0, 1, 2, 16
REPORT, DROPPED = (SYN, 0, 0), (SYN, 3, 0)
START_S = 1_764_028_800


def capture(path, steps, layout=64):
    """Write (t, type, code, value) the way the kernel hands them out, at a time of day."""
    form = "<qqHHi" if layout == 64 else "<iiHHi"
    records = []
    for t, kind, code, value in steps:
        microseconds = round(t * 1e6)
        records.append(struct.pack(form, START_S + microseconds // 10**6, microseconds % 10**6, kind, code, value))
    path.write_bytes(b"".join(records))
    return path


@pytest.mark.skipif(not KERNEL_HEADER.exists(), reason="no kernel headers on this machine")
def test_key_codes_are_the_kernels():
    """Names that both tables spell alike have the number that the kernel's own header gives."""
    header = {
        name: int(value, 0)
        for name, value in re.findall(r"#define\s+((?:KEY|BTN)_\w+)\s+(0x[0-9a-f]+|\d+)\b", KERNEL_HEADER.read_text())
    }
    expected = {f"KEY_{letter}": f"Key{letter}" for letter in "ABCDEFGHIJKLMNOPQRSTUVWXYZ"}
    expected |= {f"KEY_{digit}": f"Digit{digit}" for digit in range(10)}
    expected |= {f"KEY_KP{digit}": f"Numpad{digit}" for digit in range(10)}
    expected |= {f"KEY_F{number}": f"F{number}" for number in range(1, 25)}
    expected |= {f"KEY_{way.upper()}": f"Arrow{way}" for way in ("Up", "Down", "Left", "Right")}
    words = "Space Tab Enter Backspace Minus Equal Comma Slash Backslash Semicolon Home End Insert Delete Power Sleep"
    words += " CapsLock NumLock ScrollLock PageUp PageDown Pause Help Again Undo Copy Open Paste Find Cut Props Fn"
    expected |= {f"KEY_{word.upper()}": word for word in words.split()}
    for side in ("Left", "Right"):
        for ours, theirs in (("Shift", "SHIFT"), ("Control", "CTRL"), ("Alt", "ALT"), ("Meta", "META")):
            expected[f"KEY_{side.upper()}{theirs}"] = f"{ours}{side}"
    expected |= {"KEY_ESC": "Escape", "KEY_102ND": "IntlBackslash", "KEY_RO": "IntlRo", "KEY_YEN": "IntlYen"}
    expected |= {"KEY_GRAVE": "Backquote", "KEY_APOSTROPHE": "Quote", "KEY_DOT": "Period", "KEY_SYSRQ": "PrintScreen"}
    expected |= {"KEY_HENKAN": "Convert", "KEY_MUHENKAN": "NonConvert", "KEY_COMPOSE": "ContextMenu"}
    assert {name: KEY_CONTROLS[header[name]] for name in expected} == {
        name: f"key.{code}" for name, code in expected.items()
    }
    buttons = {f"BTN_{word.upper()}": word for word in ("south", "east", "west", "north", "dpad_up", "dpad_left")}
    buttons |= {"BTN_TL": "left_bumper", "BTN_TR2": "right_trigger", "BTN_MODE": "home", "BTN_START": "right_menu"}
    buttons |= {"BTN_SELECT": "left_menu", "BTN_THUMBR": "right_stick_press"}
    assert {name: KEY_CONTROLS[header[name]] for name in buttons} == {n: f"pad.{b}" for n, b in buttons.items()}


def test_every_code_stands_for_a_control_that_exists():
    names = {f"key.{code}" for code in KEY_CODES} | {f"pad.{button}" for button in PAD_BUTTONS}
    names |= {f"mouse.{button}" for button in MOUSE_BUTTONS}
    assert set(KEY_CONTROLS.values()) <= names


@pytest.mark.parametrize("layout", [64, 32])
def test_a_capture_gives_its_events_from_time_zero(tmp_path, layout):
    steps = [
        (0.25, KEY, W, 1),
        (0.25, *REPORT),
        (0.5, KEY, W, 2),
        (0.75, ABS, X, 255),
        (0.750001, ABS, Y, 0),
        (0.75001, *REPORT),
        (1.0, ABS, HAT_X, -1),
        (1.0, ABS, Z, 51),
        (1.0, KEY, TL2, 1),
        (1.5, ABS, HAT_X, 1),
        (1.75, KEY, W, 0),
        (1.75, KEY, D, 0),
        (1.75, REL, 0, 5),
        (2.0, KEY, 0x2FF, 1),
    ]
    recording = Recording.read_linux_input(capture(tmp_path / "event3", steps, layout), layout)
    assert list(recording) == [
        Event(0.0, "key.KeyW", 1.0),
        Event(0.50001, "pad.left_stick", (1.0, -1.0)),
        Event(0.75, "pad.dpad_left", 1.0),
        Event(0.75, "pad.left_trigger", 0.2),
        Event(1.25, "pad.dpad_left", 0.0),
        Event(1.25, "pad.dpad_right", 1.0),
        Event(1.5, "key.KeyW", 0.0),
    ]
    guessed, triggers, skipped = recording.warnings
    assert "range of the sticks guessed as 0 to 255" in guessed
    assert "range of the triggers guessed as 0 to 255" in triggers
    assert "ignored records without a control: 1, such as type 1 code 767 (1)" in skipped


@pytest.mark.parametrize(
    ("values", "ends"),
    [((-100, 127), (-128, 127)), ((-32768, 5), (-32768, 32767)), ((0, 900), (0, 1023)), ((-99999, 5), (-99999, 5))],
)
def test_ranges_are_guessed_or_given(tmp_path, values, ends):
    path = capture(
        tmp_path / "event3", [(0.0, ABS, X, values[0]), (0.0, *REPORT), (1.0, ABS, X, values[1]), (1.0, *REPORT)]
    )
    low, high = ends
    expected = [(value - low) / (high - low) * 2.0 - 1.0 for value in values]
    assert [event.value[0] for event in Recording.read_linux_input(path)] == pytest.approx(expected)
    given_range = Recording.read_linux_input(path, stick_range=(-200_000, 200_000))
    assert [event.value[0] for event in given_range] == pytest.approx([value / 200_000 for value in values])
    assert not [warning for warning in given_range.warnings if "sticks" in warning]


def test_dropped_events_leave_nothing_stuck_and_are_marked(tmp_path):
    steps = [(0.0, KEY, W, 1), (0.0, KEY, D, 1), (0.0, ABS, X, 255), (0.1, *REPORT), (0.2, *DROPPED)]
    # Half a frame that must not be believed, up to its report; then W goes on repeating, and D's end is never told.
    steps += [
        (0.3, KEY, D, 2),
        (0.3, KEY, E, 1),
        (0.3, ABS, X, 9),
        (0.4, *REPORT),
        (0.5, KEY, W, 2),
        (0.6, KEY, W, 2),
        (0.7, KEY, W, 0),
    ]
    recording = Recording.read_linux_input(capture(tmp_path / "event3", steps))
    assert [(event.t, event.control, event.value) for event in recording][3:] == [
        (0.4, "mark", "events were dropped here by the kernel"),
        (0.4, "lost.focus", 1.0),
        (0.5, "key.KeyW", 1.0),
        (0.7, "key.KeyW", 0.0),
    ]


def test_invalid_captures(tmp_path):
    path = capture(tmp_path / "event3", [(0.0, KEY, W, 1), (0.0, *REPORT), (1.0, KEY, W, 0), (1.0, *REPORT)])
    with pytest.raises(RecordingError, match="is not an input event of the 32-bit layout; try layout 64"):
        Recording.read_linux_input(path, layout=32)
    with pytest.raises(WendonicError, match="layout: found 16; allowed: 64, 32"):
        Recording.read_linux_input(path, layout=16)
    with pytest.raises(WendonicError, match="stick range: found 5 to 5"):
        Recording.read_linux_input(path, stick_range=(5, 5))
    path.write_bytes(path.read_bytes()[:-5])
    assert Recording.read_linux_input(path).warnings == (f"{path}: record 3: cut off, and ignored",)
    path.write_bytes(b"short")
    with pytest.raises(RecordingError, match="has no whole input event"):
        Recording.read_linux_input(path)
    capture(path, [(1.0, KEY, W, 1), (0.5, KEY, W, 0)])
    with pytest.raises(RecordingError, match=r"record 1: t falls from 0\.0 to -0\.5"):
        Recording.read_linux_input(path)


@given(content=st.binary(max_size=200))
def test_no_bytes_make_anything_but_a_recording_or_its_error(tmp_path_factory, content):
    path = tmp_path_factory.mktemp("capture") / "event3"
    path.write_bytes(content)
    for read in (Recording.read_linux_input, Recording.read_gamepad_snapshots):
        try:
            recording = read(path)
        except RecordingError:
            continue
        assert list(Recording(recording)) == list(recording)


def test_the_beekeepers_pad_comes_back_through_a_web_pages_log(tmp_path):
    """Every poll of the shipped pad as a full snapshot; what comes back are its own events."""
    pad = [event for event in demo_recording("beekeeper_pad") if event.control == "pad.left_stick"]
    lines = []
    for event in pad:
        buttons = [{"pressed": event.t > 30.0, "value": float(event.t > 30.0)}] + [0] * 16
        lines.append(
            json.dumps({"timestamp": 5000.0 + event.t * 1000.0, "axes": [*event.value, 0, 0], "buttons": buttons})
        )
    path = tmp_path / "pad.log"
    path.write_text("\n".join(lines))
    recording = Recording.read_gamepad_snapshots(path)
    sticks = [event for event in recording if event.control == "pad.left_stick"]
    assert [event.value for event in sticks] == [event.value for event in pad]
    assert [event.t for event in sticks] == pytest.approx([event.t for event in pad], abs=1e-9)
    (south,) = [event for event in recording if event.control == "pad.south"]
    assert south.value == 1.0
    assert south.t == pytest.approx(30.0, abs=0.02)


@pytest.mark.parametrize(
    ("lines", "words"),
    [
        ("", "has no snapshots"),
        ('{"timestamp": 1, "axes": [], "buttons": []}\nrubbish\n{"axes": []}\n', "line 2: is not a snapshot"),
        ('{"timestamp": 1, "axes": [0, NaN], "buttons": []}', "line 1: pad.left_stick: found (0, nan)"),
        ('{"timestamp": 1, "axes": [], "buttons": [{"value": "x"}]}', "line 1: pad.south: found 'x'"),
        (
            '{"timestamp": 9, "axes": [], "buttons": [1]}\n{"timestamp": 1, "axes": [], "buttons": [0]}',
            "line 2: t falls",
        ),
    ],
)
def test_faults_of_snapshots(tmp_path, lines, words):
    path = tmp_path / "pad.log"
    path.write_text(lines)
    with pytest.raises(RecordingError) as caught:
        Recording.read_gamepad_snapshots(path)
    assert words in str(caught.value)


@pytest.mark.parametrize("layout", [64, 32])
def test_the_shipped_capture_is_what_the_stand_ins_did(tmp_path, layout):
    """Keyboard, mouse and an 8-bit pad: times to the microsecond, values to the bit."""
    assert beekeeper_capture() == CAPTURE_PATH.read_bytes()
    recording = Recording.read_linux_input(CAPTURE_PATH)
    kinds = {event.control.split(".")[0] for event in recording}
    assert kinds == {"key", "mouse", "pad"}
    # Written anew from what was read, and read again, it is the same in either layout.
    path = tmp_path / "again.bin"
    path.write_bytes(linux_capture(recording, layout))
    again = Recording.read_linux_input(path, layout, stick_range=(0, 255))
    assert list(again) == list(recording)
    counts = [event.value[0] for event in recording if event.control == "mouse.move"]
    assert sum(counts) == pytest.approx(6.0 / 2.54 * 800.0, abs=1.0)
    wheel = [event.value for event in recording if event.control == "mouse.wheel"]
    assert wheel == [1.0]
    with pytest.raises(DeviceError, match=r"hand\.left\.pose: no Linux keyboard, pad or mouse reports it"):
        linux_capture([Event(0.0, "hand.left.pose", (0.0,) * 7)])
