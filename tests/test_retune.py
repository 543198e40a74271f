"""Another profile while the game runs: numbers, forms, bindings and modes, and nothing jumps but for what changed."""

import pytest

from few_of_many import few_of
from wendonic import Helm, WendonicError
from wendonic.demo import RECORDINGS, demo_profile, demo_recording
from wendonic.profile.load import profile_from_text

TEXT = """
format = "wendonic-profile"
version = 1
[mode.m.move]
half_life_s = 0
[[mode.m.move.bind]]
keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }
rise_s = 0
fall_s = 0
[[mode.m.move.bind]]
stick = "pad.left_stick"
curve = { form = "linear" }
[mode.m.press]
sprint = { bind = ["key.ShiftLeft"], style = "toggle" }
aim = { bind = ["key.KeyE"] }
[mode.n.move]
[[mode.n.move.bind]]
stick = "pad.left_stick"
"""


@pytest.mark.parametrize("name", ["beekeeper_pad", "cart_ride", "headset_walk", "harvest_run", "crates_push"])
def test_the_same_numbers_again_change_nothing_to_the_last_bit(name):
    profile = demo_profile(RECORDINGS[name])
    plain, retuned = Helm(profile), Helm(profile)
    for tick, (_, events) in enumerate(demo_recording(name).ticks(60)):
        for event in events:
            plain.apply(event)
            retuned.apply(event)
        if tick % 50 == 7:
            retuned.retune(profile.changed({"title": f"tick {tick}"}))
        ours, theirs = plain.tick(1 / 60), retuned.tick(1 / 60)
        assert (ours.record, ours.device, ours.t) == (theirs.record, theirs.device, theirs.t)
        if tick == 600:
            break


def test_a_number_counts_from_the_next_tick_on_and_nothing_else_moves():
    helm, plain = (Helm(profile_from_text(TEXT)) for _ in range(2))
    for each in (helm, plain):
        each.key("KeyW", down=True)
        for _ in range(60):
            before = each.tick(1 / 60)
    helm.retune(helm.profile.changed({"gait.walk.top_speed_m_s": 4.2, "gait.walk.accel_m_s2": 6.0}))
    after, other = helm.tick(1 / 60), plain.tick(1 / 60)
    assert (after.amount, after.face_deg, after.presses) == (other.amount, other.face_deg, other.presses)
    # From 3.2 m/s on at 6 m/s².
    assert after.motion.vel_y == pytest.approx(before.motion.vel_y + 6.0 / 60.0)
    assert [round(helm.tick(1 / 60).motion.vel_y, 6) for _ in range(20)][-1] == 4.2


FORMS = [
    {"mode.m.move.half_life_s": 0.2},
    {"mode.m.move.half_life_s": None, "mode.m.move.one_euro": {"min_cutoff_hz": 1.0}},
    {"mode.m.move.bind[1].dead_zone": {"form": "axes", "inner": 0.2}},
    {"mode.m.move.bind[1].curve": {"form": "expo", "amount": 0.8}},
    {"mode.m.move.bind[0].rise_s": 0.4, "mode.m.move.bind[0].fall_s": 0.4},
    {"mode.m.move.diagonal": "free"},
    {"mode.m.move.merge": "sum"},
    {"mode.m.move.paces": [{"above": 0, "amount": 0.5}, {"above": 0.8, "amount": 1.0}]},
    {"mode.m.steer": {"frame": "map"}, "gait.walk.coast_half_life_s": 0.3},
    {"gait.walk.jump": {"height_m": 1.0, "press": "aim"}, "mode.n.gait": "stroll"},
]


@pytest.mark.parametrize("changes", few_of(FORMS, FORMS[1::2]), ids=lambda changes: next(iter(changes)))
@pytest.mark.parametrize("held", [{"key": "KeyW"}, {"stick": (0.3, -0.7)}, {"key": "KeyD", "stick": (0.1, -0.5)}])
@pytest.mark.parametrize("back", [False, True])
def test_another_form_never_takes_the_amount_beyond_where_it_was_and_where_it_goes(changes, held, back):
    """Both ways: from the plain profile to the changed one, and from the changed one back."""
    plain = profile_from_text(TEXT)
    start, end = (plain.changed(changes), plain) if back else (plain, plain.changed(changes))

    def settled(profile):
        helm = Helm(profile, prepare="first")
        if "key" in held:
            helm.key(held["key"], down=True)
        if "stick" in held:
            helm.stick("pad.left_stick", *held["stick"])
        for _ in range(240):
            intent = helm.tick(1 / 60)
        return helm, intent

    helm, was = settled(start)
    _, goes = settled(end)
    helm.retune(end)
    low, high = sorted((was.amount, goes.amount))
    for _ in range(240):
        intent = helm.tick(1 / 60)
        assert low - 1e-6 <= intent.amount <= high + 1e-6
    assert intent.amount == pytest.approx(goes.amount, abs=1e-4)


def test_presses_are_known_by_their_names_and_what_is_held_stays_held():
    helm = Helm(profile_from_text(TEXT))
    helm.key("ShiftLeft", down=True)
    helm.key("ShiftLeft", down=False)
    helm.tick(1 / 60)
    helm.key("KeyE", down=True)
    helm.tick(1 / 60)
    # Another press comes before them, and every number moves up.
    text = TEXT.replace("[mode.m.press]\n", '[mode.m.press]\ndash = { bind = ["key.KeyQ"] }\n')
    helm.retune(profile_from_text(text))
    intent = helm.tick(1 / 60)
    assert {name: press.held for name, press in intent.presses.items()} == {
        "dash": False,
        "sprint": True,
        "aim": True,
    }
    assert not any(press.began or press.ended for press in intent.presses.values())
    helm.key("KeyE", down=False)
    assert helm.tick(1 / 60).press("aim").ended
    helm.key("KeyQ", down=True)
    assert helm.tick(1 / 60).press("dash").began


def test_a_key_that_was_rebound_stops_and_the_new_one_walks():
    helm = Helm(profile_from_text(TEXT))
    helm.key("KeyW", down=True)
    assert helm.tick(1 / 60).amount == 1.0
    helm.retune(helm.profile.changed({"mode.m.move.bind[0].keys.forward": ["KeyI"]}))
    assert helm.tick(1 / 60).amount == 0.0
    helm.key("KeyI", down=True)
    assert helm.tick(1 / 60).amount == 1.0


def test_modes_come_and_go_but_not_the_one_the_helm_is_in():
    helm = Helm(profile_from_text(TEXT))
    helm.key("KeyW", down=True)
    before = helm.tick(1 / 60)
    other = profile_from_text(TEXT.replace("mode.m", "mode.walk"))
    with pytest.raises(WendonicError, match=r'the helm is in mode "m"; the profile has '):
        helm.retune(other)
    for wrong in (None, "foot.toml"):
        with pytest.raises(WendonicError, match="allowed: a Profile, as load_profile returns it"):
            helm.retune(wrong)
        with pytest.raises(WendonicError, match=r"allowed: what snapshot\(\) returned"):
            helm.restore(wrong)
    assert helm.tick(0.0).motion == before.motion
    helm.retune(profile_from_text(TEXT + '[mode.third.press]\nwave = { bind = ["key.KeyV"] }\n'))
    helm.enter("third")
    helm.key("KeyV", down=True)
    assert helm.tick(1 / 60).press("wave").began
    helm.enter("m")
    helm.retune(profile_from_text(TEXT))
    with pytest.raises(WendonicError, match='no mode "third"'):
        helm.enter("third")


def test_a_shorter_queue_keeps_the_goals_that_fit():
    head = 'format = "wendonic-profile"\nversion = 1\n'
    steer = f"{head}[mode.foot]\nsteer = {{ frame = 'goto', queue = %d }}\n"
    helm = Helm(profile_from_text(steer % 8))
    for x in range(6):
        helm.go_to(float(x), 1.0, 0.0)
        helm.tick(1 / 60)
    helm.retune(profile_from_text(steer % 2))
    arrived = [intent.position()[0] for intent in (helm.tick(1 / 60) for _ in range(300)) if intent.arrived]
    assert arrived == pytest.approx([0.0, 1.0, 2.0], abs=0.1)
