"""The helm as a game uses it."""

import math

import pytest

from wendonic import ControlError, Event, Helm, View, WendonicError
from wendonic.profile.load import profile_from_text

TWO_MODES = """
format = "wendonic-profile"
version = 1
[mode.foot]
leave_to = ["cart"]
[mode.foot.move]
[[mode.foot.move.bind]]
keys = { forward = ["KeyW", "ArrowUp"] }
[mode.cart]
gait = "cart"
[mode.cart.move]
half_life_s = 0
[[mode.cart.move.bind]]
stick = "pad.left_stick"
[[mode.cart.move.bind]]
keys = { forward = ["KeyW"] }
rise_s = 1.0
[mode.hut]
leave_to = []
[mode.hut.move]
[[mode.hut.move.bind]]
stick = "pad.left_stick"
[gait.cart]
top_speed_m_s = 10
accel_m_s2 = 4
"""


def ticked(helm, seconds):
    for _ in range(round(seconds * 60)):
        intent = helm.tick(1 / 60)
    return intent


@pytest.fixture
def helm():
    return Helm(profile_from_text(TWO_MODES))


def test_calls_and_events_are_two_spellings_of_the_same(beekeeper):
    by_call, by_event = Helm(beekeeper), Helm(beekeeper)
    by_call.key("KeyW", down=True)
    by_call.stick("pad.left_stick", 0.3, -0.9)
    by_call.button("pad.south", True)
    by_call.view(40.0, -5.0)
    for control, value in (
        ("key.KeyW", 1),
        ("pad.left_stick", (0.3, -0.9)),
        ("pad.south", 1),
        ("view", (40, -5)),
    ):
        by_event.apply(Event(0.0, control, value))
    assert by_call.state.values == by_event.state.values
    assert by_call.tick(0.02) == by_event.tick(0.02)


@pytest.mark.parametrize(
    ("world", "forward"),
    [
        ('right = "+x"\nforward = "-y"', (0.0, -3.2)),
        ('right = "-y"\nforward = "+x"', (3.2, 0.0)),
        ('right = "+x"\nforward = "-z"\nup = "+y"', (0.0, 0.0, -3.2)),
        ('right = "-z"\nforward = "-x"\nup = "+y"', (-3.2, 0.0, 0.0)),
        ("", (0.0, 3.2, 0.0)),
    ],
)
def test_forward_is_where_the_world_says(world, forward):
    text = TWO_MODES.replace("[mode.foot]", f"[world]\n{world}\n[mode.foot]" if world else "[mode.foot]", 1)
    helm = Helm(profile_from_text(text))
    helm.key("KeyW", down=True)
    intent = ticked(helm, 1.0)
    assert intent.velocity() == pytest.approx(forward)
    assert intent.direction() == pytest.approx([part / 3.2 for part in forward])
    assert intent.position() == pytest.approx([part / 3.2 * intent.motion.pos_y for part in forward])


def test_one_of_two_keys_for_the_same_way_is_enough(helm):
    for code in ("KeyW", "ArrowUp", "KeyW"):
        helm.key(code, down=True)
    helm.key("KeyW", down=False)
    assert ticked(helm, 1.0).amount == pytest.approx(1.0)
    helm.key("ArrowUp", down=False)
    assert ticked(helm, 1.0).amount == 0.0


def test_losing_focus_stops_the_walk(helm):
    helm.key("KeyW", down=True)
    assert ticked(helm, 1.0).velocity()[1] == pytest.approx(3.2)
    helm.apply(Event(1.0, "lost.focus", 1))
    assert ticked(helm, 1.0).velocity() == (0.0, 0.0, 0.0)


def test_entering_a_mode_keeps_the_body_and_drops_the_request(helm):
    helm.key("KeyW", down=True)
    before = ticked(helm, 1.0)
    helm.enter("cart")
    first = helm.tick(1 / 60)
    assert (helm.mode, first.mode) == ("cart", "cart")
    # The key is still down, yet its value rises from zero anew: 1/60 of a second of its 1 s.
    assert first.amount == pytest.approx(1 / 60)
    assert first.position()[1] == pytest.approx(before.position()[1] + before.velocity()[1] / 60, abs=0.01)
    # Brakes towards the small wish from the speed it came with, at the 6 m/s² of a cart.
    assert first.velocity()[1] == pytest.approx(before.velocity()[1] - 6.0 / 60)
    assert ticked(helm, 5.0).velocity()[1] == pytest.approx(10.0)
    same = ticked(helm, 1.0)
    helm.enter("cart")
    assert helm.tick(0.0).amount == same.amount


def test_a_key_held_through_two_modes_still_walks_when_coming_back(helm):
    helm.key("KeyW", down=True)
    ticked(helm, 0.5)
    helm.enter("cart")
    ticked(helm, 0.5)
    helm.enter("foot")
    assert ticked(helm, 1.0).amount == pytest.approx(1.0)
    helm.key("KeyW", down=False)
    assert ticked(helm, 1.0).amount == 0.0


def test_modes_can_only_be_left_as_the_profile_says(helm):
    with pytest.raises(WendonicError, match='no mode "crt"; did you mean "cart"'):
        helm.enter("crt")
    with pytest.raises(WendonicError, match='mode "foot" can be left for cart, not for "hut"'):
        helm.enter("hut")
    helm.enter("cart")
    helm.enter("hut")
    with pytest.raises(WendonicError, match='mode "hut" cannot be left'):
        helm.enter("foot")
    assert helm.mode == "hut"


@pytest.mark.parametrize("dt", [-1e-9, math.nan, math.inf])
def test_an_impossible_dt_is_an_error_and_changes_nothing(helm, dt):
    before = helm.tick(0.1)
    with pytest.raises(WendonicError, match="dt: found"):
        helm.tick(dt)
    after = helm.tick(0.1)
    assert (after.tick, after.t) == (before.tick + 1, pytest.approx(0.2))


def test_a_view_that_is_not_finite_is_refused_and_the_last_one_stays(helm):
    helm.key("KeyW", down=True)
    assert helm.tick(0.1, view=View(90.0, 0.0)).heading_deg == pytest.approx(90.0)
    assert helm.tick(0.1, view=View(math.nan, 0.0)).heading_deg == pytest.approx(90.0)
    helm.stick("pad.left_stick", 5.0, 0.0)
    health = helm.health
    assert (health["clamped"], health["refused"]) == ({"pad.left_stick": 1}, {"view": 1})


@pytest.mark.parametrize(
    ("call", "words"),
    [
        (lambda helm: helm.key("keyW", down=True), 'unknown key code "keyW"; did you mean "KeyW"'),
        (lambda helm: helm.button("pad.left_stick", 1), "pad.left_stick is not a button"),
        (lambda helm: helm.button("pad.sout", 1), 'did you mean "pad.south"'),
        (lambda helm: helm.stick("pad.south", 0, 0), "pad.south is not a stick"),
        (lambda helm: helm.button("KeyW", True), '"KeyW" is key.KeyW, which is not a button'),
    ],
)
def test_slips_are_errors_that_teach(helm, call, words):
    with pytest.raises(ControlError, match=words):
        call(helm)


def test_a_day_of_play_keeps_its_clock_and_its_place(beekeeper):
    """Ten hours at 60 Hz, one tick after the other for a minute, then by the hitch: the clock adds up."""
    helm = Helm(beekeeper)
    dt = 1 / 60
    for _ in range(60 * 60 * 10):
        intent = helm.tick(dt)
    assert intent.t == pytest.approx(600.0, abs=1e-10)
    helm.key("KeyW", down=True)
    intent = helm.tick(36000.0)
    assert intent.t == pytest.approx(36600.0, abs=1e-9)
    assert intent.amount == 1.0
    helm.key("KeyW", down=False)
    assert ticked(helm, 2.0).velocity() == (0.0, 0.0, 0.0)


def test_device_follows_what_steered_last_and_a_resting_stick_does_not_take_it(beekeeper):
    helm = Helm(beekeeper)
    assert helm.tick(0.1).device is None
    helm.stick("pad.left_stick", 0.05, 0.05)
    assert helm.tick(0.1).device is None
    helm.key("KeyW", down=True)
    assert ticked(helm, 0.5).device == "keys"
    helm.key("KeyW", down=False)
    helm.stick("pad.left_stick", -0.06, 0.05)
    assert ticked(helm, 0.5).device == "keys"
    helm.stick("pad.left_stick", 0.6, 0.0)
    assert ticked(helm, 0.1).device == "pad"


def test_a_tick_of_impossible_length_changes_nothing_not_even_the_view(beekeeper):
    helm = Helm(beekeeper)
    for dt in (-0.1, math.nan, math.inf):
        with pytest.raises(WendonicError, match="dt: found"):
            helm.tick(dt, view=View(yaw_deg=90.0))
    assert helm.tick(1 / 60).view == View()


def test_all_modes_or_only_the_first_are_prepared(beekeeper):
    with pytest.raises(WendonicError, match='no way to prepare "frist"; did you mean "first"'):
        Helm(beekeeper, prepare="frist")
