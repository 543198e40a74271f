"""Held state: what a device holds, and what it lets go."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wendonic import ControlError, Event
from wendonic.devices.controls import CONTROLS, PAD_BUTTONS, RELEASES, STATE_WIDTH, find_control, find_kind
from wendonic.devices.keys import KEY_CODES
from wendonic.devices.sources.names import find_axis
from wendonic.devices.state import DeviceState

HELD = [name for name, control in CONTROLS.items() if control.kind in ("key", "button") and control.name == name]
STICK = "pad.left_stick"


def test_the_tables_hold_what_the_standards_hold():
    """Letters, digits and the rest of the W3C code table; 17 buttons of its standard pad layout; no slot twice."""
    assert {f"Key{chr(letter)}" for letter in range(ord("A"), ord("Z") + 1)} <= set(KEY_CODES)
    assert {f"Digit{digit}" for digit in range(10)} | {f"Numpad{digit}" for digit in range(10)} <= set(KEY_CODES)
    assert {"IntlBackslash", "IntlRo", "IntlYen", "Lang1", "NonConvert", "Fn", "F24", "AudioVolumeUp"} <= set(
        KEY_CODES
    )
    assert len(KEY_CODES) == len(set(KEY_CODES))
    assert len(PAD_BUTTONS) == 17
    slots = [slot for control in set(CONTROLS.values()) for slot in range(control.slot, control.slot + control.width)]
    assert sorted(slots) == list(range(STATE_WIDTH))


@given(steps=st.lists(st.tuples(st.sampled_from(HELD[:6] + HELD[-6:]), st.booleans()), max_size=40))
def test_each_control_stands_at_its_own_last_value(steps):
    state, expected = DeviceState(), {}
    for t, (name, down) in enumerate(steps):
        state.apply(Event(t, name, down))
        expected[name] = down
    assert set(state.held()) == {name for name, down in expected.items() if down}


@pytest.mark.parametrize(("loss", "left"), [("lost.focus", ()), ("lost.pad", ("key.KeyW",))])
def test_a_loss_releases_what_the_device_held_and_leaves_the_view(loss, left):
    state = DeviceState()
    for name, value in (
        ("key.KeyW", 1),
        ("pad.south", 1),
        ("pad.left_trigger", 0.4),
        (STICK, (0.5, -0.5)),
        ("view", (30, -10)),
    ):
        state.apply(Event(0.0, name, value))
    before = state.changes
    state.apply(Event(1.0, loss, 1))
    assert state.changes > before
    assert state.held() == left
    assert state.value(STICK) == (0.0, 0.0)
    assert state.value("view") == (30.0, -10.0)


@pytest.mark.parametrize("bad", [math.nan, math.inf, -math.inf])
def test_a_number_that_is_not_finite_is_refused_and_counted_and_the_last_good_one_stays(bad):
    state = DeviceState()
    for value in ((0.5, -0.25), (bad, 0.0), (0.0, bad)):
        state.apply(Event(0.0, STICK, value))
    state.apply(Event(0.0, "pad.left_trigger", 0.75))
    state.apply(Event(0.0, "pad.left_trigger", bad))
    assert state.value(STICK) == (0.5, -0.25)
    assert state.value("pad.left_trigger") == 0.75
    assert state.refused == {STICK: 2, "pad.left_trigger": 1}
    assert not state.clamped


def test_a_value_beyond_its_range_is_cut_to_it_and_counted():
    state = DeviceState()
    state.apply(Event(0.0, STICK, (1.5, -1e300)))
    state.apply(Event(0.0, "pad.right_trigger", -0.1))
    assert state.value(STICK) == (1.0, -1.0)
    assert state.value("pad.right_trigger") == 0.0
    assert state.clamped == {STICK: 1, "pad.right_trigger": 1}


@pytest.mark.parametrize(
    ("control", "value", "words"),
    [
        ("pad.left_stik", (0, 0), 'did you mean "pad.left_stick"'),
        ("key.keyw", 1, 'did you mean "key.KeyW"'),
        ("nonsense", 1, "all of them: .wendonic controls."),
        (STICK, 0.5, "allowed: two numbers"),
        (STICK, (0.5,), "allowed: two numbers"),
        (STICK, (0.1, 0.2, 0.3), "allowed: two numbers"),
        ("key.KeyW", (1, 0), "allowed: a number"),
        ("key.KeyW", "down", "allowed: a number"),
    ],
)
def test_a_misfit_is_an_error_that_teaches_and_changes_nothing(control, value, words):
    state = DeviceState()
    with pytest.raises(ControlError, match=words):
        state.apply(Event(0.0, control, value))
    assert state.values == DeviceState().values


def test_the_second_name_of_the_first_pad_is_the_same_pad():
    state = DeviceState()
    state.apply(Event(0.0, "pad0.south", 1))
    assert state.value("pad.south") == 1.0
    assert state.held() == ("pad.south",)


EVERY_KIND = {
    "key.KeyW": 1.0,
    "pad.south": 1.0,
    "pad.gyro": (0.1, 0.2, 0.3),
    "pad1.left_stick": (0.5, -0.5),
    "pad3.left_trigger": 0.4,
    "mouse.left": 1.0,
    "pointer.at": (0.9, 0.1),
    "touch.4": (0.2, 0.3, 1.0),
    "hand.left.pose": (0.1, 1.2, -0.3, 0.0, 0.0, 0.0, 1.0),
    "hand.right.squeeze": 1.0,
    "head.pose": (0.0, 1.7, 0.0, 0.0, 0.0, 0.0, 1.0),
    "view": (30.0, -10.0),
}
AT_REST = {name: tuple(0.0 for _ in v) if isinstance(v, tuple) else 0.0 for name, v in EVERY_KIND.items()}
# A pointer rests in the middle, and a lifted finger stays where it was.
AT_REST |= {"pointer.at": (0.5, 0.5), "touch.4": (0.2, 0.3, 0.0)}


@pytest.mark.parametrize("loss", sorted(RELEASES))
def test_a_loss_releases_exactly_what_its_device_held(loss):
    state = DeviceState()
    state.watched = frozenset(find_control(name).slot for name in EVERY_KIND)
    for name, value in EVERY_KIND.items():
        state.apply(Event(0.0, name, value))
    state.take_kept()
    state.apply(Event(1.0, loss, 1.0))
    gone = {name for name in EVERY_KIND if find_control(name).unit in RELEASES[loss]}
    assert {name: state.value(name) for name in EVERY_KIND} == {
        name: AT_REST[name] if name in gone else value for name, value in EVERY_KIND.items()
    }
    reported = state.take_kept()
    assert {change.slot for change in reported} == {find_control(name).slot for name in gone}
    assert all(change.lost for change in reported)
    # A second loss has nothing left to let go; what waits for the ground hears of it all the same.
    state.apply(Event(2.0, loss, 1.0))
    again = state.take_kept()
    assert all(change.lost and change.value == change.was and change.value[-1] == 0.0 for change in again)
    assert {change.slot for change in again} == {
        find_control(name).slot for name in gone if find_control(name).kind in ("key", "button", "stick", "touch")
    }
    assert (loss == "lost.focus") == (len(gone) == len(EVERY_KIND) - 1)


@pytest.mark.parametrize(
    "thing", [None, "key.KeyW", (0.0, "key.KeyW", 1), Event(0.0, 5, 1), Event(0.0, ["key.KeyW"], 1)], ids=repr
)
def test_a_value_that_is_not_an_event_is_reported_and_ignored(thing):
    state = DeviceState()
    state.apply(Event(0.0, "key.KeyW", 1))
    before = (state.changes, state.held())
    words = r"allowed: (an Event\(t, control, value\), its control a name|the name of a control)"
    with pytest.raises(ControlError, match=words):
        state.apply(thing)
    assert (state.changes, state.held()) == before


def test_a_finger_that_is_lifted_already_changes_nothing():
    state = DeviceState()
    state.apply(Event(0.0, "touch.2", (0.3, 0.3, 0.0)))
    assert (state.changes, state.touch_changes, state.value("touch.2")) == (0, 0, (0.0, 0.0, 0.0))


def test_displacements_add_up_and_a_loss_does_not_undo_them():
    state = DeviceState()
    for counts in ((3.0, -4.0), (1e300, 1.0), (math.nan, 0.0)):
        state.apply(Event(0.0, "mouse.move", counts))
    state.apply(Event(0.0, "mouse.wheel", 2.0))
    state.apply(Event(0.0, "lost.focus", 1.0))
    assert state.value("mouse.move") == (1e9 + 3.0, -3.0)
    assert state.value("mouse.wheel") == 2.0
    assert (dict(state.clamped), dict(state.refused)) == ({"mouse.move": 1}, {"mouse.move": 1})


def test_the_state_at_the_last_tick_can_be_read_until_the_next():
    state = DeviceState()
    state.watched = frozenset({find_control("key.KeyW").slot, find_control("touch.0").slot})
    state.apply(Event(0.0, "key.KeyW", 1.0))
    state.take_kept()
    for down in (0.0, 1.0, 0.0):
        state.apply(Event(0.1, "key.KeyW", down))
    state.apply(Event(0.1, "touch.0", (0.25, 0.5, 1.0)))
    before = state.values_before_kept()
    assert before[find_control("key.KeyW").slot] == 1.0
    assert before[find_control("touch.0").slot + 2] == 0.0
    assert state.landings[0] == (0.25, 0.5)
    assert state.held() == ("touch.0",)


def test_controls_of_the_wrong_kind_are_named_with_some_that_are_right():
    with pytest.raises(ControlError, match=r"key\.KeyW is not a stick; sticks: pad\.left_stick, pad\.right_stick"):
        find_kind("key.KeyW", "stick")
    with pytest.raises(ControlError, match="not a pose; poses: hand"):
        find_kind("pad.south", "pose")
    for name, known in (("pad.right_stik.y", "pad.right_stick.y"), ("pad.lft_stick.x", "pad.left_stick.x")):
        with pytest.raises(ControlError, match=f'unknown axis "{name}"; did you mean "{known}"'):
            find_axis(name)


@pytest.mark.parametrize(
    ("control", "values", "words"),
    [
        (
            "pointer.at",
            [(1.2, 0.5), (400, 300), (500, 2)],
            "found 400, 300, cut to its range of 0 to 1; were these pixels?",
        ),
        ("touch.0", [(0.5, 640, 1)], "found 0.5, 640, 1, cut to its range of 0 to 1; were these pixels?"),
        ("pad.left_stick", [(-1.01, 0), (-32768, 12), (1, 32767)], "found -32768, 12, cut to its range of -1 to 1"),
        ("pad.left_trigger", [1.5, 255, 254], "found 255, cut to its range of 0 to 1"),
    ],
)
def test_a_value_in_another_unit_is_logged_once(control, values, words, caplog):
    state = DeviceState()
    for value in values:
        state.apply(Event(0.0, control, value))
    (logged,) = [record.getMessage() for record in caplog.records]
    assert logged == f"{control}: {words}"
    assert state.clamped == {control: len(values)}
