"""Windows of pyglet and GLFW on a display of their own: real keys from outside, and the libraries' own pad events."""

import ctypes
import os
import re
import shutil
import subprocess
import sys
import time
from pathlib import Path
from types import SimpleNamespace

import pytest

from wendonic import Event, Helm
from wendonic.demo import demo_profile
from wendonic.devices.adapters import glfw_events, pyglet_events
from wendonic.devices.controls import PAD_BUTTONS, PADS, find_control
from wendonic.devices.joystick import JoystickMapping

pytestmark = pytest.mark.skipif(not (shutil.which("Xvfb") and shutil.which("xdotool")), reason="no Xvfb or xdotool")


@pytest.fixture(scope="module")
def display():
    """A display without a monitor."""
    read, write = os.pipe()
    command = ["Xvfb", "-displayfd", str(write), "-noreset", "-screen", "0", "1280x800x24", "-nolisten", "tcp"]
    server = subprocess.Popen(command, pass_fds=[write], stderr=subprocess.DEVNULL)
    os.close(write)
    with os.fdopen(read) as number:
        name = f":{number.readline().strip()}"
    had = os.environ.get("DISPLAY")
    os.environ["DISPLAY"] = name
    yield name
    server.terminate()
    server.wait()
    if had is None:
        del os.environ["DISPLAY"]
    else:
        os.environ["DISPLAY"] = had


@pytest.fixture(scope="module")
def pyglet_window(display):
    assert display
    pyglet = pytest.importorskip("pyglet")
    pyglet.options["audio"] = ("silent",)
    window = pyglet.window.Window(640, 480, caption="yard of pyglet")
    yield window
    window.close()


@pytest.fixture(scope="module")
def glfw_window(display):
    assert display
    glfw = pytest.importorskip("glfw")
    assert glfw.init()
    glfw.window_hint(glfw.CLIENT_API, glfw.NO_API)
    window = glfw.create_window(640, 480, "yard of GLFW", None, None)
    yield window
    glfw.destroy_window(window)
    glfw.terminate()


def typed(pump, reported, *command, until):
    """Do something from outside, and fetch events until the one that ends it has come."""
    pump()
    reported.clear()
    subprocess.run(["xdotool", *command], check=True, timeout=20)
    end = time.monotonic() + 10.0
    while not any(event.control == until for event in reported):
        assert time.monotonic() < end, reported
        pump()
        time.sleep(0.01)
    return list(reported)


def typing_is_told_in_order(pump, reported, caption):
    # The window of another test may lie over it.
    subprocess.run(["xdotool", "search", "--name", caption, "windowraise", "windowfocus"], check=True, timeout=20)
    typing = "keydown w keydown Left keyup w keydown shift keyup Left keyup shift key F9"
    keys = typed(pump, reported, *typing.split(), until="key.F9")
    names = [(event.control, event.value) for event in keys if event.control.startswith("key.")]
    assert names[:6] == [
        ("key.KeyW", 1.0),
        ("key.ArrowLeft", 1.0),
        ("key.KeyW", 0.0),
        ("key.ShiftLeft", 1.0),
        ("key.ArrowLeft", 0.0),
        ("key.ShiftLeft", 0.0),
    ]
    typed(pump, reported, "mousemove", "300", "200", "click", "2", until="mouse.middle")
    moving = "mousemove 320 230 click 1 click 3 click 4"
    moved = typed(pump, reported, *moving.split(), until="mouse.wheel")
    motions = [event.value for event in moved if event.control == "mouse.move"]
    assert tuple(map(sum, zip(*motions, strict=True))) == (20.0, 30.0)
    (at, *_) = [event.value for event in reversed(moved) if event.control == "pointer.at"]
    assert at == pytest.approx((320 / 640, 230 / 480), abs=0.01)
    clicks = [(e.control, e.value) for e in moved if e.control in ("mouse.left", "mouse.right", "mouse.wheel")]
    assert clicks == [
        ("mouse.left", 1.0),
        ("mouse.left", 0.0),
        ("mouse.right", 1.0),
        ("mouse.right", 0.0),
        ("mouse.wheel", -1.0),
    ]


def test_real_keys_and_a_real_mouse_reach_a_pyglet_window(pyglet_window):
    reported = []
    pyglet_window.set_location(0, 0)
    pyglet_window.activate()
    pyglet_events.PygletEvents(pyglet_window, reported.append)
    typing_is_told_in_order(pyglet_window.dispatch_events, reported, "yard of pyglet")


def test_real_keys_and_a_real_mouse_reach_a_glfw_window_and_the_games_own_callback(glfw_window):
    import glfw

    reported, own = [], []
    glfw.set_window_pos(glfw_window, 0, 0)
    glfw.focus_window(glfw_window)
    glfw.set_key_callback(glfw_window, lambda *given: own.append(given[1]))
    glfw_events.GlfwEvents(glfw_window, reported.append)
    typing_is_told_in_order(glfw.poll_events, reported, "yard of GLFW")
    assert glfw.KEY_W in own
    # A window that is resized says what shape it has, with the next place of the pointer.
    glfw.set_window_size(glfw_window, 640, 320)
    resized = typed(glfw.poll_events, reported, "sleep", "0.2", "mousemove", "100", "90", until="pointer.at")
    assert [event.value for event in resized if event.control == "window"] == [2.0]
    glfw.set_window_size(glfw_window, 640, 480)


def test_a_released_mouse_in_glfw_does_not_turn_the_camera_back(glfw_window):
    import glfw

    reported = []
    glfw.set_window_pos(glfw_window, 0, 0)
    adapter = glfw_events.GlfwEvents(glfw_window, reported.append)
    typed(glfw.poll_events, reported, "mousemove", "300", "200", until="pointer.at")
    turned = []
    for seen_by in ("motion", "poll", "key"):
        glfw.set_input_mode(glfw_window, glfw.CURSOR, glfw.CURSOR_DISABLED)
        for _ in range(4):
            turned += typed(glfw.poll_events, reported, "mousemove_relative", "40", "-20", until="mouse.move")
        assert "pointer.at" not in {event.control for event in turned}
        # A menu opens: the pointer is where it was, and may not be moved at all before the mouse is captured again.
        glfw.set_input_mode(glfw_window, glfw.CURSOR, glfw.CURSOR_NORMAL)
        if seen_by == "motion":
            menu = typed(glfw.poll_events, reported, "mousemove_relative", "5", "0", until="pointer.at")
            assert all(abs(e.value[0]) <= 5.0 for e in menu if e.control == "mouse.move"), menu
        elif seen_by == "poll":
            adapter.poll()
        else:
            subprocess.run(["xdotool", "search", "--name", "yard of GLFW", "windowfocus"], check=True, timeout=20)
            typed(glfw.poll_events, reported, "key", "F9", until="key.F9")
    glfw.set_input_mode(glfw_window, glfw.CURSOR, glfw.CURSOR_NORMAL)
    motions = [event.value for event in turned if event.control == "mouse.move"]
    assert tuple(map(sum, zip(*motions, strict=True))) == (3 * 4 * 40.0, 3 * 4 * -20.0)


@pytest.mark.parametrize("adapter", [glfw_events, pyglet_events])
def test_every_key_of_a_table_is_one_of_the_library_and_has_a_code(adapter, display):
    assert display
    name = adapter.__name__.rsplit(".", 1)[1].removesuffix("_events")
    library = pytest.importorskip("glfw" if name == "glfw" else "pyglet.window.key")
    for known, code in adapter.KEYS.items():
        assert hasattr(library, known), known
        assert find_control(f"key.{code}")
    codes = set(adapter.KEYS.values())
    assert {"KeyA", "KeyZ", "Digit0", "Space", "ControlLeft", "ArrowUp", "Numpad5", "F12", "Quote"} <= codes


def test_events_of_the_window_that_pyglet_makes_itself(pyglet_window):
    import pyglet

    key, mouse = pyglet.window.key, pyglet.window.mouse
    reported = []
    pyglet_window.dispatch_events()
    pyglet_events.PygletEvents(pyglet_window, reported.append, now=lambda: 2.5)
    for name, given in (
        ("on_key_press", (key.A, 0)),
        ("on_key_press", (key.MOTION_COPY, 0)),
        ("on_key_press", (key.EXCLAMATION, 0)),
        ("on_mouse_drag", (320, 120, 4, -3, mouse.LEFT, 0)),
        ("on_mouse_press", (0, 0, mouse.MOUSE4, 0)),
        ("on_mouse_press", (0, 0, 1 << 9, 0)),
        ("on_mouse_scroll", (0, 0, 1.0, 0.0)),
        ("on_deactivate", ()),
    ):
        pyglet_window.dispatch_event(name, *given)
    pyglet_window.dispatch_events()
    # Another test's window may have taken the focus as well.
    assert Event(2.5, "lost.focus", 1.0) in reported
    assert [event for event in reported if event.t == 2.5 and event.control != "lost.focus"] == [
        Event(2.5, "key.KeyA", 1.0),
        Event(2.5, "mouse.move", (4.0, 3.0)),
        Event(2.5, "window", 640 / 480),
        Event(2.5, "pointer.at", (0.5, 0.75)),
        Event(2.5, "mouse.back", 1.0),
    ]


def test_pads_of_pyglet_come_and_go(pyglet_window):
    from pyglet.input.base import Controller
    from pyglet.math import Vec2

    reported = []
    adapter = pyglet_events.PygletEvents(pyglet_window, reported.append)

    def pad(model):
        device = SimpleNamespace(get_controls=list, open=lambda *_: None)
        controller = Controller(device, {"name": model, "guid": model})
        adapter.add_pad(controller)
        return controller

    first, second = pad("hive"), pad("comb")
    reported.clear()
    second.dispatch_event("on_stick_motion", second, "leftstick", Vec2(0.25, 1.0))
    first.dispatch_event("on_dpad_motion", first, Vec2(-1.0, 1.0))
    first.dispatch_event("on_dpad_motion", first, Vec2(0.0, 1.0))
    first.dispatch_event("on_trigger_motion", first, "righttrigger", 0.75)
    for name in pyglet_events.PAD_BUTTONS:
        second.dispatch_event("on_button_press", second, name)
    adapter.remove_pad(first)
    back = pad("hive")
    back.dispatch_event("on_button_release", back, "a")
    assert reported == [
        Event(0.0, "pad1.left_stick", (0.25, -1.0)),
        Event(0.0, "pad.dpad_left", 1.0),
        Event(0.0, "pad.dpad_up", 1.0),
        Event(0.0, "pad.dpad_left", 0.0),
        Event(0.0, "pad.right_trigger", 0.75),
        *(Event(0.0, f"pad1.{button}", 1.0) for button in pyglet_events.PAD_BUTTONS.values()),
        Event(0.0, "lost.pad", 1.0),
        Event(0.0, "pad.south", 0.0),
    ]
    named = [*pyglet_events.PAD_BUTTONS.values(), *pyglet_events.TRIGGERS.values()]
    assert {*named, *(control for control, _, _ in pyglet_events.DPAD)} == set(PAD_BUTTONS)


def test_pads_of_pyglet_are_ignored_while_another_window_has_the_focus(pyglet_window):
    from pyglet.input.base import Controller
    from pyglet.math import Vec2

    helm, reported = Helm(demo_profile()), []
    pyglet_window.dispatch_events()
    adapter = pyglet_events.PygletEvents(pyglet_window, lambda event: (reported.append(event), helm.apply(event)))
    pad = Controller(SimpleNamespace(get_controls=list, open=lambda *_: None), {"name": "hive", "guid": "hive"})
    adapter.add_pad(pad)
    pad.dispatch_event("on_stick_motion", pad, "leftstick", Vec2(0.0, 1.0))
    pad.dispatch_event("on_dpad_motion", pad, Vec2(0.0, 1.0))
    adapter._deactivate()
    assert helm.tick(1.0).amount == 0.0
    reported.clear()
    pad.dispatch_event("on_stick_motion", pad, "leftstick", Vec2(0.0, 0.9))
    pad.dispatch_event("on_trigger_motion", pad, "righttrigger", 0.75)
    pad.dispatch_event("on_button_press", pad, "a")
    pad.dispatch_event("on_dpad_motion", pad, Vec2(0.0, 0.0))
    assert reported == []
    adapter._activate()
    adapter._activate()
    pad.dispatch_event("on_dpad_motion", pad, Vec2(0.0, 1.0))
    assert reported == [
        Event(0.0, "pad.left_stick", (0.0, -0.9)),
        Event(0.0, "pad.right_trigger", 0.75),
        Event(0.0, "pad.dpad_up", 1.0),
    ]
    assert helm.tick(1.0).amount > 0.5


def test_pads_of_glfw_are_ignored_while_another_window_has_the_focus(glfw_window, monkeypatch):
    import glfw

    held = SimpleNamespace(axes=[0.0, -1.0, 0.0, 0.0, -1.0, 1.0], buttons=[1] + 14 * [0])
    monkeypatch.setattr(glfw, "joystick_is_gamepad", lambda number: number == 0)
    monkeypatch.setattr(glfw, "get_gamepad_state", lambda _: held)
    monkeypatch.setattr(glfw, "get_joystick_guid", lambda _: b"hive")
    helm, reported = Helm(demo_profile()), []
    adapter = glfw_events.GlfwEvents(glfw_window, lambda event: (reported.append(event), helm.apply(event)))
    adapter.poll()
    assert helm.tick(1.0).amount == 1.0
    adapter._window_focus(glfw_window, 0)
    # A worn stick trembles, whoever has the focus.
    held.axes[1] = -0.9
    adapter.poll()
    assert helm.tick(1.0).amount == 0.0
    reported.clear()
    adapter._window_focus(glfw_window, 1)
    adapter.poll()
    adapter.poll()
    assert reported == [Event(0.0, "pad.left_stick", (0.0, -0.9)), Event(0.0, "pad.right_trigger", 1.0)]
    held.buttons[0] = 0
    adapter.poll()
    held.buttons[0] = 1
    adapter.poll()
    assert reported[2:] == [Event(0.0, "pad.south", 0.0), Event(0.0, "pad.south", 1.0)]


def test_pads_of_glfw_are_reported_when_they_change(glfw_window, monkeypatch):
    import glfw

    states = {}
    monkeypatch.setattr(glfw, "joystick_is_gamepad", lambda number: number in states)
    monkeypatch.setattr(glfw, "get_gamepad_state", states.get)
    monkeypatch.setattr(glfw, "get_joystick_guid", lambda number: f"model {number}".encode())
    helm, reported = Helm(demo_profile()), []
    adapter = glfw_events.GlfwEvents(glfw_window, lambda event: (reported.append(event), helm.apply(event)))

    def state(axes=(0.0, 0.0, 0.0, 0.0, -1.0, -1.0), *down):
        return SimpleNamespace(axes=axes, buttons=[int(number in down) for number in range(15)])

    states[3] = state()
    adapter.poll()
    assert reported == []
    states[3] = state((0.5, -1.0, 0.0, 0.0, -1.0, 0.0), glfw.GAMEPAD_BUTTON_A, glfw.GAMEPAD_BUTTON_DPAD_LEFT)
    states[1] = state()
    adapter.poll()
    adapter.poll()
    assert reported == [
        Event(0.0, "pad.left_stick", (0.5, -1.0)),
        Event(0.0, "pad.right_trigger", 0.5),
        Event(0.0, "pad.south", 1.0),
        Event(0.0, "pad.dpad_left", 1.0),
    ]
    assert helm.tick(1 / 60).local.forward > 0.0
    reported.clear()
    del states[3]
    adapter.poll()
    assert reported == [Event(0.0, "lost.pad", 1.0)]
    assert len(glfw_events.PAD_BUTTONS) == glfw.GAMEPAD_BUTTON_LAST + 1
    assert set(glfw_events.PAD_BUTTONS) == {name for name in PAD_BUTTONS if "trigger" not in name}
    # More than there are names for: the rest is silent.
    states.update({number: state(state().axes, 0) for number in range(16)})
    adapter.poll()
    assert sorted(event.control for event in reported[1:]) == sorted(f"{pad}.south" for pad in PADS)


def test_a_joystick_without_a_layout_in_glfw_uses_a_mapping(glfw_window, monkeypatch, caplog):
    import glfw

    axes, hats = (ctypes.c_float * 2)(0.5, -1.0), (ctypes.c_ubyte * 1)(1 | 8)
    plugged = {2}
    monkeypatch.setattr(glfw, "joystick_present", lambda number: number in plugged)
    monkeypatch.setattr(glfw, "joystick_is_gamepad", lambda _: False)
    monkeypatch.setattr(glfw, "get_joystick_guid", lambda _: b"0300")
    monkeypatch.setattr(glfw, "get_joystick_name", lambda _: b"Barrow stick")
    monkeypatch.setattr(glfw, "get_joystick_axes", lambda _: (axes, 2))
    monkeypatch.setattr(glfw, "get_joystick_buttons", lambda _: ((ctypes.c_ubyte * 1)(1), 1))
    monkeypatch.setattr(glfw, "get_joystick_hats", lambda _: (hats, 1))
    controls = {
        "left_stick": ("a0", "a1"),
        "south": "b0",
        "dpad_up": "h0.1",
        "dpad_left": "h0.8",
        "dpad_right": "h0.2",
    }
    reported = []
    adapter = glfw_events.GlfwEvents(
        glfw_window, reported.append, joysticks=[JoystickMapping(controls, name="barrow STICK")]
    )
    adapter.poll()
    adapter.poll()
    assert reported == [
        Event(0.0, "pad.left_stick", (0.5, -1.0)),
        Event(0.0, "pad.south", 1.0),
        Event(0.0, "pad.dpad_up", 1.0),
        Event(0.0, "pad.dpad_left", 1.0),
    ]
    plugged.clear()
    adapter.poll()
    assert reported[-1] == Event(0.0, "lost.pad", 1.0)
    # Without a mapping it is silent.
    plugged.add(2)
    silent = []
    unmapped = glfw_events.GlfwEvents(glfw_window, silent.append)
    unmapped.poll()
    unmapped.poll()
    assert silent == []
    # What would make it speak is said once.
    (said,) = [record.getMessage() for record in caplog.records]
    assert said.startswith('joystick "Barrow stick" (GUID 0300) reports numbers only; to use it, give the profile a')


def test_the_adapters_load_their_libraries_only_when_they_are_made():
    script = (
        "import sys, wendonic.devices.adapters.glfw_events, wendonic.devices.adapters.pyglet_events\n"
        "assert not {'glfw', 'pyglet'} & set(sys.modules)"
    )
    subprocess.run([sys.executable, "-c", script], check=True)


@pytest.mark.long
@pytest.mark.parametrize("library", ["pyglet", "glfw"])
def test_the_example_windows_walk_by_real_keys(display, library, tmp_path):
    script = Path(__file__).parent.parent / "examples" / f"window_{library}.py"
    command = [sys.executable, str(script), "2.5"]
    with subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True, cwd=tmp_path) as window:
        found = ["xdotool", "search", "--sync", "--onlyvisible", "--name", "Hollowmere|Beekeeper"]
        number = subprocess.run(found, check=True, capture_output=True, text=True, timeout=20).stdout.split()[0]
        subprocess.run(["xdotool", "windowfocus", number, "keydown", "d"], check=True, timeout=20)
        out, err = window.communicate(timeout=30)
        subprocess.run(["xdotool", "keyup", "d"], check=True, timeout=20)
    assert window.returncode == 0, err
    assert display
    assert re.search(r"foot: amount 1.00, heading +90.0 deg, facing +90.0 deg, 3.20 m/s", out), out
