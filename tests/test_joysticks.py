"""Joysticks of numbered axes, buttons and hats: mapped by a profile or by SDL's database, driven by SDL itself."""

import ctypes
import logging
import os
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

os.environ.setdefault("PYGAME_HIDE_SUPPORT_PROMPT", "1")
pygame = pytest.importorskip("pygame")

from wendonic import Event, Helm, WendonicError  # noqa: E402
from wendonic.devices.adapters.pygame_events import PygameEvents, moved_element  # noqa: E402
from wendonic.devices.controls import PAD_BUTTONS, PAD_STICKS  # noqa: E402
from wendonic.devices.joystick import JoystickMapping, JoystickState, MappedJoystick  # noqa: E402
from wendonic.profile.load import profile_from_text  # noqa: E402

HEAD = 'format = "wendonic-profile"\nversion = 1\n[[mode.m.move.bind]]\nstick = "pad.left_stick"\n'
LIBRARY = sorted((Path(pygame.__file__).parent.parent / "pygame_ce.libs").glob("libSDL2-2*"))
CONTROLS = """[joystick.barrow.controls]
left_stick = ["a0", "a1~"]
south = "b2"
east = "-a2"
left_trigger = "a3"
dpad_up = "h0.1"
dpad_left = "h0.8"
"""
FLIGHT_STICK = 3


class Virtual:
    """A joystick that SDL itself makes up: four axes, six buttons, a hat."""

    def __init__(self):
        self.sdl = ctypes.CDLL(str(LIBRARY[0]))
        self.sdl.SDL_JoystickOpen.restype = ctypes.c_void_p
        self.index = self.sdl.SDL_JoystickAttachVirtual(FLIGHT_STICK, 4, 6, 1)
        self.opened = ctypes.c_void_p(self.sdl.SDL_JoystickOpen(self.index))

    def axis(self, number, value):
        self.sdl.SDL_JoystickSetVirtualAxis(self.opened, number, ctypes.c_int16(round(value * 32767)))

    def button(self, number, down):
        self.sdl.SDL_JoystickSetVirtualButton(self.opened, number, ctypes.c_uint8(down))

    def hat(self, bits):
        self.sdl.SDL_JoystickSetVirtualHat(self.opened, 0, ctypes.c_uint8(bits))

    def unplug(self):
        if self.index >= 0:
            self.sdl.SDL_JoystickDetachVirtual(self.index)
        self.index = -1


@pytest.fixture
def plugged(monkeypatch):
    if not LIBRARY:
        pytest.skip("this build of pygame keeps its SDL elsewhere")
    monkeypatch.setenv("SDL_VIDEODRIVER", "dummy")
    pygame.display.init()
    pygame.display.set_mode((64, 64))
    PygameEvents().open_pads()
    made = Virtual()
    yield made
    made.unplug()
    pygame.event.clear()
    pygame.joystick.quit()
    pygame.display.quit()


def reported(adapter):
    return [event for raw in pygame.event.get() for event in adapter.events(raw)]


def test_a_joystick_that_a_profile_maps_is_a_pad(plugged):
    name = pygame.joystick.Joystick(plugged.index).get_name()
    profile = profile_from_text(f'{HEAD}[joystick.barrow]\nname = "{name}"\n{CONTROLS}')
    adapter, helm = PygameEvents(joysticks=profile.joysticks), Helm(profile)
    assert reported(adapter) == []
    plugged.axis(0, 0.5)
    plugged.axis(1, 1.0)
    plugged.axis(2, -1.0)
    plugged.axis(3, -1.0)
    plugged.button(2, True)
    plugged.button(5, True)
    plugged.hat(1 | 8)
    seen = {event.control: event.value for event in reported(adapter)}
    # The axis that is inverted is forward, where the plain one would have been back; a trigger at its end is up.
    assert seen.pop("pad.left_stick") == pytest.approx((0.5, -1.0), abs=1e-4)
    assert seen == {"pad.east": 1.0, "pad.south": 1.0, "pad.dpad_up": 1.0, "pad.dpad_left": 1.0}
    plugged.axis(3, 0.5)
    plugged.hat(8)
    events = reported(adapter)
    assert {event.control: event.value for event in events} == {
        "pad.left_trigger": pytest.approx(0.75, abs=1e-4),
        "pad.dpad_up": 0.0,
    }
    for event in [*events, Event(0.0, "pad.left_stick", (0.0, -1.0))]:
        helm.apply(event)
    assert helm.tick(1 / 60).local.forward > 0.0
    plugged.unplug()
    assert reported(adapter)[-1] == Event(0.0, "lost.pad", 1.0)


def test_one_without_a_mapping_is_said_once_and_its_elements_can_be_found(plugged, caplog):
    adapter = PygameEvents()
    with caplog.at_level(logging.WARNING, "wendonic"):
        reported(adapter)
        plugged.button(4, True)
        plugged.axis(1, -0.9)
        plugged.axis(0, 0.2)
        plugged.hat(2)
        raws = pygame.event.get()
        assert [event for raw in raws for event in adapter.events(raw)] == []
    (warning,) = caplog.messages
    name = pygame.joystick.Joystick(plugged.index).get_name()
    assert name in warning
    assert "[joystick" in warning
    moved = [moved_element(raw) for raw in raws if adapter.unmapped(raw) == name]
    assert set(filter(None, moved)) == {"b4", "-a1", "h0.2"}


DATABASE = (
    "030000006d0400001dc2000014400000,Barrow stick,a:b0,b:b1,x:b2,y:b3,back:b6,guide:b8,start:b7,leftstick:b9,"
    "rightstick:b10,leftshoulder:b4,rightshoulder:b5,dpup:h0.1,dpright:h0.2,dpdown:h0.4,dpleft:h0.8,leftx:a0,lefty:a1,"
    "-rightx:b11,+rightx:b12,righty:a4~,lefttrigger:a2,righttrigger:+a5,paddle1:b13,platform:Linux,"
)


def test_a_line_of_the_database_names_every_control_of_a_pad():
    mapping = JoystickMapping.from_database(DATABASE)
    assert set(mapping.control_names) == {*PAD_STICKS, *PAD_BUTTONS}
    state = JoystickState()
    state.axes |= {0: -0.25, 1: 1.0, 2: 1.0, 4: 0.5, 5: -1.0}
    state.buttons |= {3: 1.0, 12: 1.0}
    state.hats[0] = (1.0, -1.0)
    values = {name: value for name, value in mapping.values(state) if value}
    assert values == {
        "left_stick": (-0.25, 1.0),
        "right_stick": (1.0, -0.5),
        "north": 1.0,
        "dpad_right": 1.0,
        "dpad_down": 1.0,
        "left_trigger": 1.0,
    }
    # With the checksum that newer systems put in, it is the same joystick.
    assert mapping.fits("0300AB126d0400001dc2000014400000", "")
    assert not mapping.fits("030000006d0400001dc2000014400001", "Barrow stick")


@given(
    axes=st.dictionaries(st.integers(0, 5), st.floats(-1.0, 1.0)),
    buttons=st.dictionaries(st.integers(0, 12), st.sampled_from([0.0, 1.0])),
    hat=st.tuples(*[st.sampled_from([-1.0, 0.0, 1.0])] * 2),
)
def test_whatever_a_joystick_says_is_within_a_pads_ranges_and_told_once(axes, buttons, hat):
    joystick = MappedJoystick(JoystickMapping.from_database(DATABASE))
    joystick.state.axes |= axes
    joystick.state.buttons |= buttons
    joystick.state.hats[0] = hat
    helm = Helm(profile_from_text(HEAD))
    for control, value in joystick.changes():
        helm.apply(Event(0.0, f"pad.{control}", value))
    assert (helm.health["clamped"], helm.health["refused"]) == ({}, {})
    assert joystick.changes() == []


@pytest.mark.parametrize(
    ("table", "words"),
    [
        ('name = "B"', "needs either controls or database"),
        ('controls = { south = "b0" }', "give it a guid or a name"),
        ('name = "B"\ncontrols = { suoth = "b0" }', 'did you mean "south"'),
        ('name = "B"\ncontrols = { south = "c0" }', 'found "c0"; allowed: an axis "a0"'),
        ('name = "B"\ncontrols = { south = "+b0" }', 'found "+b0"'),
        ('name = "B"\ncontrols = { south = "h0" }', 'found "h0"'),
        ('name = "B"\ncontrols = { south = ["a0", "a1"] }', 'one element such as "b0"'),
        ('name = "B"\ncontrols = { left_stick = "a0" }', 'two axes such as ["a0", "a1"]'),
        ('database = "a:b0"', "a line of SDL's database"),
    ],
)
def test_faults_of_a_joysticks_table(table, words):
    with pytest.raises(WendonicError) as caught:
        profile_from_text(f"{HEAD}[joystick.barrow]\n{table}\n")
    assert words in str(caught.value)
    assert "joystick.barrow" in str(caught.value)
