"""Real events of SDL, without a screen, and `wendonic record` from end to end."""

import json
import os
import shutil
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest

os.environ.setdefault("PYGAME_HIDE_SUPPORT_PROMPT", "1")
pygame = pytest.importorskip("pygame")

from wendonic import Event, Helm, Recording, WendonicError  # noqa: E402
from wendonic.demo import demo_profile  # noqa: E402
from wendonic.devices.adapters.pygame_events import PygameEvents  # noqa: E402
from wendonic.devices.controls import PAD_BUTTONS, find_control  # noqa: E402
from wendonic.devices.keys import KEY_CODES  # noqa: E402
from wendonic.devices.usb_keys import USB_KEYS  # noqa: E402
from wendonic.live.record import RecordSession  # noqa: E402
from wendonic.recording.held import held_spans  # noqa: E402


@pytest.fixture
def window(monkeypatch):
    monkeypatch.setenv("SDL_VIDEODRIVER", "dummy")
    pygame.display.init()
    pygame.display.set_mode((640, 400))
    pygame.event.clear()
    yield
    pygame.display.quit()


def through_sdl(*events):
    """Post events to SDL's own queue, and translate what comes out of it."""
    adapter = PygameEvents()
    for kind, attributes in events:
        pygame.event.post(pygame.event.Event(kind, attributes))
    return [made for raw in pygame.event.get() for made in adapter.events(raw)]


def test_every_key_that_pygame_names_is_the_w3c_key_of_that_place():
    """pygame has its own table of the same numbers, by its own names."""
    assert set(USB_KEYS.values()) <= set(KEY_CODES)
    names = {f"KSCAN_{letter}": f"Key{letter}" for letter in "ABCDEFGHIJKLMNOPQRSTUVWXYZ"}
    names |= {f"KSCAN_{digit}": f"Digit{digit}" for digit in range(10)}
    names |= {f"KSCAN_KP{digit}": f"Numpad{digit}" for digit in range(10)}
    names |= {f"KSCAN_F{number}": f"F{number}" for number in range(1, 16)}
    names |= {f"KSCAN_{way.upper()}": f"Arrow{way}" for way in ("Up", "Down", "Left", "Right")}
    for side, ours in (("L", "Left"), ("R", "Right")):
        for key, theirs in (("Shift", "SHIFT"), ("Control", "CTRL"), ("Alt", "ALT"), ("Meta", "GUI")):
            names[f"KSCAN_{side}{theirs}"] = f"{key}{ours}"
    words = "Space Tab Backspace Delete Insert Home End PageUp PageDown CapsLock Pause Minus Comma Period Slash"
    names |= {f"KSCAN_{word.upper()}": word for word in [*words.split(), "Backslash", "Semicolon"]}
    names |= {"KSCAN_RETURN": "Enter", "KSCAN_ESCAPE": "Escape", "KSCAN_GRAVE": "Backquote", "KSCAN_EQUALS": "Equal"}
    names |= {"KSCAN_LEFTBRACKET": "BracketLeft", "KSCAN_RIGHTBRACKET": "BracketRight", "KSCAN_APOSTROPHE": "Quote"}
    names |= {"KSCAN_NUMLOCK": "NumLock", "KSCAN_PRINT": "PrintScreen", "KSCAN_KP_ENTER": "NumpadEnter"}
    names |= {"KSCAN_KP_PLUS": "NumpadAdd", "KSCAN_KP_MINUS": "NumpadSubtract", "KSCAN_KP_DIVIDE": "NumpadDivide"}
    assert {name: USB_KEYS[getattr(pygame, name)] for name in names} == names


@pytest.mark.usefixtures("window")
def test_keys_mouse_and_focus_come_through():
    made = through_sdl(
        (pygame.KEYDOWN, {"scancode": pygame.KSCAN_W}),
        (pygame.KEYUP, {"scancode": pygame.KSCAN_W}),
        (pygame.MOUSEMOTION, {"pos": (160, 300), "rel": (7, -3), "buttons": (0, 0, 0), "touch": False}),
        (pygame.MOUSEBUTTONDOWN, {"button": 3, "pos": (0, 0), "touch": False}),
        (pygame.MOUSEBUTTONDOWN, {"button": 4, "pos": (0, 0), "touch": False}),
        (pygame.MOUSEBUTTONUP, {"button": 7, "pos": (0, 0), "touch": False}),
        (pygame.MOUSEWHEEL, {"x": 0, "y": 2, "precise_y": 2.0, "flipped": False}),
        (pygame.MOUSEMOTION, {"pos": (1, 1), "rel": (1, 1), "buttons": (0, 0, 0), "touch": True}),
        (pygame.WINDOWFOCUSLOST, {}),
    )
    assert made == [
        Event(0.0, "key.KeyW", 1.0),
        Event(0.0, "key.KeyW", 0.0),
        Event(0.0, "mouse.move", (7.0, -3.0)),
        Event(0.0, "window", 1.6),
        Event(0.0, "pointer.at", (0.25, 0.75)),
        Event(0.0, "mouse.right", 1.0),
        Event(0.0, "mouse.forward", 0.0),
        # Away from the user is up in pygame, and negative in the wheel's open standard.
        Event(0.0, "mouse.wheel", -2.0),
        Event(0.0, "lost.focus", 1.0),
    ]
    helm = Helm(demo_profile())
    for event in made[:3]:
        helm.apply(event)
    assert helm.tick(0.1).look.yaw_deg > 0.0


@pytest.mark.usefixtures("window")
def test_pads_are_numbered_as_they_come_and_say_when_they_go():
    axis, down = pygame.CONTROLLERAXISMOTION, pygame.CONTROLLERBUTTONDOWN
    made = through_sdl(
        (axis, {"instance_id": 7, "axis": pygame.CONTROLLER_AXIS_LEFTX, "value": 32767}),
        (axis, {"instance_id": 7, "axis": pygame.CONTROLLER_AXIS_LEFTY, "value": -32768}),
        (axis, {"instance_id": 9, "axis": pygame.CONTROLLER_AXIS_TRIGGERRIGHT, "value": 16384}),
        (down, {"instance_id": 9, "button": pygame.CONTROLLER_BUTTON_B}),
        (pygame.CONTROLLERDEVICEREMOVED, {"instance_id": 7}),
        (down, {"instance_id": 11, "button": pygame.CONTROLLER_BUTTON_DPAD_UP}),
        (pygame.CONTROLLERDEVICEREMOVED, {"instance_id": 99}),
    )
    assert made == [
        Event(0.0, "pad.left_stick", (1.0, 0.0)),
        Event(0.0, "pad.left_stick", (1.0, -1.0)),
        Event(0.0, "pad1.right_trigger", 16384 / 32767),
        Event(0.0, "pad1.east", 1.0),
        Event(0.0, "lost.pad", 1.0),
        # The number that is free again.
        Event(0.0, "pad.dpad_up", 1.0),
    ]
    adapter = PygameEvents()
    buttons = [
        adapter.events(pygame.event.Event(down, instance_id=1, button=number))[0].control.removeprefix("pad.")
        for number in range(15)
    ]
    assert set(buttons) == set(PAD_BUTTONS) - {"left_trigger", "right_trigger"}
    nine = [adapter.events(pygame.event.Event(down, instance_id=number, button=0)) for number in range(1, 10)]
    expected = ["pad.south", *(f"pad{number}.south" for number in range(1, 8)), None]
    assert [events[0].control if events else None for events in nine] == expected


def test_pads_are_numbered_as_they_are_plugged_in_and_one_that_comes_back_has_its_number_again(monkeypatch):
    """The second one may speak first. Two are of one model, which is all that tells a pad that comes back."""
    plugged = {0: (70, "hive"), 1: (71, "comb"), 2: (72, "hive")}

    class Opened:
        def __init__(self, index):
            self.number, self.model = plugged[index]

        def as_joystick(self):
            return self

        def get_instance_id(self):
            return self.number

        def get_guid(self):
            return self.model

    monkeypatch.setattr("wendonic.devices.adapters.pygame_events.controller.Controller", Opened)
    adapter = PygameEvents()

    def add(index, number):
        plugged[index] = (number, plugged[index][1])
        assert adapter.events(pygame.event.Event(pygame.CONTROLLERDEVICEADDED, device_index=index)) == []

    def pads(*numbers):
        down = pygame.CONTROLLERBUTTONDOWN
        events = [adapter.events(pygame.event.Event(down, instance_id=number, button=0))[0] for number in numbers]
        return [event.control.removesuffix(".south") for event in events]

    def remove(number):
        (lost,) = adapter.events(pygame.event.Event(pygame.CONTROLLERDEVICEREMOVED, instance_id=number))
        return lost.control

    for index in range(3):
        add(index, 70 + index)
    assert pads(72, 71, 70) == ["pad2", "pad1", "pad"]
    assert [remove(number) for number in (70, 71)] == ["lost.pad", "lost.pad1"]
    # The second one comes back first.
    add(1, 81)
    add(0, 80)
    assert pads(80, 81, 72) == ["pad", "pad1", "pad2"]
    # Of one model both may be meant: they come back in the order in which they went.
    assert [remove(number) for number in (72, 80)] == ["lost.pad2", "lost.pad"]
    add(0, 90)
    add(2, 92)
    assert pads(90, 92, 81) == ["pad2", "pad", "pad1"]
    # Another model takes the lowest number that is free.
    remove(92)
    plugged[3] = (95, "smoker")
    add(3, 95)
    assert pads(95) == ["pad"]


@pytest.mark.parametrize(
    ("key", "code"),
    [
        (pygame.K_w, "KeyW"),
        (pygame.K_7, "Digit7"),
        (pygame.K_SPACE, "Space"),
        (pygame.K_LEFT, "ArrowLeft"),
        (pygame.K_RETURN, "Enter"),
        (pygame.K_LSHIFT, "ShiftLeft"),
        (pygame.K_RCTRL, "ControlRight"),
        (pygame.K_F5, "F5"),
        (pygame.K_PAGEUP, "PageUp"),
        (pygame.K_ESCAPE, "Escape"),
        (pygame.K_BACKSPACE, "Backspace"),
        (0, None),
    ],
)
@pytest.mark.usefixtures("window")
def test_an_event_that_was_made_by_hand_without_a_scancode_is_read_by_its_key(key, code):
    made = PygameEvents().events(pygame.event.Event(pygame.KEYDOWN, key=key))
    assert made == ([Event(0.0, f"key.{code}", 1.0)] if code else [])


@pytest.mark.usefixtures("window")
def test_a_captured_mouse_moves_but_has_no_position_in_the_window(monkeypatch):
    motion = (pygame.MOUSEMOTION, {"pos": (160, 300), "rel": (7, -3), "buttons": (0, 0, 0), "touch": False})
    monkeypatch.setattr(pygame.mouse, "get_relative_mode", lambda: True)
    assert through_sdl(motion) == [Event(0.0, "mouse.move", (7.0, -3.0))]


@pytest.mark.filterwarnings("ignore:no fast renderer")
@pytest.mark.parametrize(
    ("flags", "counts", "places"),
    [(0, 12.0, (0.75, 0.5)), (pygame.SCALED, 36.0, (0.75, 0.5))],
)
def test_a_window_that_is_scaled_up_is_pointed_at_by_what_is_drawn(window, flags, counts, places):  # noqa: ARG001
    """A hand moves 36 counts for 12 pixels that are three times as large."""
    pygame.display.set_mode((320, 200), flags)
    large = (960, 600) if flags else (320, 200)
    assert pygame.display.get_window_size() == large
    motion = {"pos": (240, 100), "rel": (12, 0), "buttons": (0, 0, 0), "touch": False}
    move, shape, pointer = PygameEvents().events(pygame.event.Event(pygame.MOUSEMOTION, motion))
    assert (move.value, shape.value, pointer.value) == ((counts, 0.0), 1.6, places)


def test_a_game_that_makes_its_windows_by_itself_is_measured_by_them(monkeypatch):
    monkeypatch.setenv("SDL_VIDEODRIVER", "dummy")
    pygame.display.init()
    yard = pygame.Window("yard", (640, 400))
    motion = {"pos": (160, 300), "rel": (7, -3), "buttons": (0, 0, 0), "touch": False}
    made = PygameEvents().events(pygame.event.Event(pygame.MOUSEMOTION, motion | {"window": yard}))
    bare = PygameEvents().events(pygame.event.Event(pygame.MOUSEMOTION, motion))
    yard.destroy()
    pygame.display.quit()
    assert made == [
        Event(0.0, "mouse.move", (7.0, -3.0)),
        Event(0.0, "window", 1.6),
        Event(0.0, "pointer.at", (0.25, 0.75)),
    ]
    assert bare == [Event(0.0, "mouse.move", (7.0, -3.0))]


@pytest.mark.usefixtures("window")
def test_fingers_get_the_lowest_free_number():
    def finger(kind, number, x):
        return kind, {"touch_id": 1, "finger_id": number, "x": x, "y": 0.5, "dx": 0.0, "dy": 0.0, "pressure": 0.5}

    made = through_sdl(
        finger(pygame.FINGERDOWN, 40, 0.1),
        finger(pygame.FINGERDOWN, 41, 0.9),
        finger(pygame.FINGERUP, 40, 0.2),
        finger(pygame.FINGERDOWN, 42, 1.2),
        finger(pygame.FINGERMOTION, 55, 0.5),
    )
    assert [(event.control, event.value) for event in made] == [
        ("window", 1.6),
        ("touch.0", (0.1, 0.5, 0.5)),
        ("touch.1", (0.9, 0.5, 0.5)),
        ("touch.0", (0.2, 0.5, 0.0)),
        ("touch.0", (1.0, 0.5, 0.5)),
    ]
    assert all(find_control(event.control).kind in ("touch", "window") for event in made)
    # A window that goes away under a finger does not hear of its end.
    days = [
        event
        for number in range(20)
        for event in (finger(pygame.FINGERDOWN, number, 0.1), (pygame.WINDOWFOCUSLOST, {}))
    ]
    assert [event.control for event in through_sdl(*days)] == ["window"] + 20 * ["touch.0", "lost.focus"]
    # The shape of the window is told when it is another one, before what is measured by it.
    adapter, at = PygameEvents(), {"pos": (10, 10), "rel": (0, 0), "buttons": (0, 0, 0), "touch": False}
    told = []
    for size in ((640, 400), (320, 200), (640, 320)):
        pygame.display.set_mode(size)
        told += adapter.events(pygame.event.Event(pygame.MOUSEMOTION, at))
    assert [event.value for event in told if event.control == "window"] == [1.6, 2.0]


def test_a_session_records_what_arrives_marks_it_and_stops_on_its_key(tmp_path, monkeypatch):
    monkeypatch.setenv("SDL_VIDEODRIVER", "dummy")
    path = tmp_path / "walk.jsonl"
    session = RecordSession(path, title="Three steps", mark_key="KeyM", stop_key="KeyQ")
    typed = [pygame.KSCAN_W, pygame.KSCAN_M, pygame.KSCAN_Q]
    waiting = [pygame.event.Event(kind, scancode=code) for code in typed for kind in (pygame.KEYDOWN, pygame.KEYUP)]
    shown = []

    def wait(_timeout):
        shown.append(pygame.surfarray.array3d(pygame.display.get_surface()).copy())
        return waiting.pop(0) if waiting and len(shown) % 25 == 0 else pygame.event.Event(pygame.NOEVENT)

    monkeypatch.setattr(pygame.event, "wait", wait)
    monkeypatch.setattr("wendonic.live.record.FRAME_S", 0.0)
    done = session.run()
    recording = Recording.read(path)
    assert recording.title == "Three steps"
    assert [(event.control, event.value) for event in recording] == [
        ("key.KeyW", 1.0),
        ("key.KeyW", 0.0),
        ("mark", "mark 1"),
    ]
    assert (done.events, done.controls) == (3, {"key.KeyW": 2, "mark": 1})
    # The window shows honey where the key was held: as it is released, for on a slow machine it has gone by the end.
    honey = [(frame == (217, 144, 47)).all(axis=2).sum() for frame in (shown[1], shown[50])]
    assert honey[0] == 0 < honey[1]


def test_the_command_stops_by_itself_and_overwrites_nothing(tmp_path):
    path = tmp_path / "walk.jsonl"
    command = [sys.executable, "-m", "wendonic", "record", str(path), "--seconds", "0.3"]
    environment = {**os.environ, "SDL_VIDEODRIVER": "dummy"}
    done = subprocess.run(command, capture_output=True, text=True, env=environment, timeout=60, check=False)
    assert done.returncode == 0, done.stderr
    assert done.stdout.startswith(f"wrote {path}: 0 events in 0.3")
    assert json.loads(path.read_text().splitlines()[0])["format"] == "wendonic-recording"
    again = subprocess.run(command, capture_output=True, text=True, env=environment, timeout=60, check=False)
    assert (again.returncode, again.stdout) == (2, "")
    assert again.stderr == f"wendonic: {path} already exists; give another name, or remove it\n"
    with pytest.raises(WendonicError, match="seconds: found -1; allowed: above 0"):
        RecordSession(Path("other.jsonl"), seconds=-1.0)


@pytest.mark.long
def test_without_a_screen_it_says_so_and_ctrl_c_stops_it(tmp_path):
    path = tmp_path / "walk.jsonl"
    command = [sys.executable, "-m", "wendonic", "record", str(path)]
    blind = {name: value for name, value in os.environ.items() if "DISPLAY" not in name and name != "SDL_VIDEODRIVER"}
    for environment in (blind, blind | {"SDL_VIDEODRIVER": "nosuchdriver"}):
        done = subprocess.run(command, capture_output=True, text=True, env=environment, timeout=60, check=False)
        assert (done.returncode, done.stdout) == (2, "")
        assert done.stderr.splitlines()[-1].startswith("wendonic: no window can be opened here: ")
        assert "Traceback" not in done.stderr
        assert not path.exists()
    # A shell's background job, such as this suite may be, hands on that it ignores the signal.
    ours = signal.signal(signal.SIGINT, signal.default_int_handler)
    running = subprocess.Popen(command, env=blind | {"SDL_VIDEODRIVER": "dummy"}, stdout=subprocess.PIPE, text=True)
    signal.signal(signal.SIGINT, ours)
    while not path.exists():
        time.sleep(0.05)
    time.sleep(1.0)
    running.send_signal(signal.SIGINT)
    reported, _ = running.communicate(timeout=30)
    assert (running.returncode, reported.startswith(f"wrote {path}: 0 events")) == (0, True)


@pytest.mark.skipif(not (shutil.which("xvfb-run") and shutil.which("xdotool")), reason="no Xvfb or no xdotool here")
def test_real_keys_typed_into_a_real_window_are_recorded(tmp_path):
    """A window on a display of its own, keys and a mouse from outside of this process."""
    path = tmp_path / "typed.jsonl"
    script = f"""
        "{sys.executable}" -m wendonic record "{path}" --seconds 30 &
        recorder=$!
        for _ in $(seq 150); do [ -s "{path}" ] && break; sleep 0.1; done
        sleep 0.6
        xdotool mousemove 400 300 mousemove_relative 20 10
        xdotool keydown w sleep 0.3 keydown d sleep 0.2 keyup w sleep 0.1 keyup d click 1 key F9 key F10
        wait $recorder
    """
    environment = {name: value for name, value in os.environ.items() if name != "SDL_VIDEODRIVER"}
    command = ["xvfb-run", "-a", "-s", "-screen 0 1280x800x24", "bash", "-c", script]
    done = subprocess.run(command, env=environment, capture_output=True, text=True, timeout=90, check=False)
    assert f"wrote {path}" in done.stdout, done.stderr
    recording = Recording.read(path)
    typed = [(e.control, e.value) for e in recording if e.control.startswith(("key.", "mark"))]
    assert typed == [
        ("key.KeyW", 1.0),
        ("key.KeyD", 1.0),
        ("key.KeyW", 0.0),
        ("key.KeyD", 0.0),
        ("mark", "mark 1"),
    ]
    both_s = held_spans(recording)["key.KeyW"][0][1] - held_spans(recording)["key.KeyD"][0][0]
    # On a busy machine events are fetched late, yet in their order.
    assert 0.0 <= both_s < 5.0
    assert {"mouse.move", "pointer.at", "mouse.left"} <= {event.control for event in recording}
