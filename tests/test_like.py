"""Modes that begin as another one: what they come to, what is told of them, and that changing one keeps the rest."""

import math

import pytest

from wendonic import Helm, ProfileError, load_profile, profile_from_text, save_profile
from wendonic.demo import demo_recording
from wendonic.profile.save import saved_text
from wendonic.study.calibration.apply import calibrated_profile
from wendonic.study.calibration.calibrate import calibrate
from wendonic.study.checking import check, fixed

TEXT = """format = "wendonic-profile"
version = 1

[mode.foot]
steer = { frame = "camera", face = "view" }
leave_to = ["aim", "cart"]

[mode.foot.move]
half_life_s = 0.05
[[mode.foot.move.bind]]
keys = { forward = ["KeyW"], right = ["KeyD"] }
rise_s = 0.1

[[mode.foot.look.bind]]
mouse = "mouse.move"
cm_per_turn = 34
dpi = 800

[mode.foot.press]
jump = { bind = ["Space"], buffer_s = 0.1 }

[mode.aim]                       # half as fast to turn, and no jump waits
like = "foot"
leave_to = ["foot"]
[mode.aim.move]
one_euro = { min_cutoff_hz = 2, beta = 1 }
[mode.aim.press]
jump = { style = "toggle" }
shoot = { bind = ["mouse.left"] }

[mode.cart]
like = "aim"
steer = { frame = "drive" }
"""


def test_a_mode_inherits_everything_that_it_does_not_contain():
    foot, aim, cart = profile_from_text(TEXT).mode.values()
    assert aim.steer == foot.steer
    assert aim.move.bind == foot.move.bind == cart.move.bind
    assert (foot.move.half_life_s, foot.move.one_euro) == (0.05, None)
    assert aim.move.one_euro.min_cutoff_hz == 2.0
    assert (aim.press["jump"].buffer_s, aim.press["jump"].style) == (0.1, "toggle")
    assert list(cart.press) == ["jump", "shoot"]
    assert (aim.leave_to, cart.leave_to) == (("foot",), ("foot",))
    # Another frame is another table: nothing of the camera's facing is taken over.
    assert cart.steer.frame == "drive"
    helm = Helm(profile_from_text(TEXT))
    helm.key("KeyW", down=True)
    for name in ("foot", "aim"):
        if helm.mode != name:
            helm.enter(name)
        for _ in range(60):
            intent = helm.tick(1 / 60)
        assert intent.amount == pytest.approx(1.0, abs=1e-3)
        assert math.hypot(*intent.motion[3:5]) == pytest.approx(3.2, abs=0.01)


def test_changing_the_other_mode_changes_it_too_but_not_what_it_says_itself():
    profile = profile_from_text(TEXT)
    changed = profile.changed({"mode.foot.move.bind[0].rise_s": 0.3, "mode.foot.press.jump.style": "hold"})
    assert [mode.move.bind[0].rise_s for mode in changed.mode.values()] == [0.3, 0.3, 0.3]
    assert [mode.press["jump"].style for mode in changed.mode.values()] == ["hold", "toggle", "toggle"]
    # In a list that it has from the other: from now on it has a list of its own.
    own = profile.changed({"mode.aim.look.bind[0].cm_per_turn": 60}).changed({"mode.foot.look.bind[0].dpi": 1600})
    assert [mode.look.bind[0].cm_per_turn for mode in own.mode.values()] == [34.0, 60.0, 60.0]
    assert [mode.look.bind[0].dpi for mode in own.mode.values()] == [1600.0, 800.0, 800.0]
    # Taken out again, the other's counts.
    again = own.changed({"mode.aim.look": None, "mode.aim.press.jump": None})
    assert again.mode["aim"].look == again.mode["foot"].look
    assert again.mode["aim"].press["jump"].style == "hold"


def test_a_file_keeps_what_each_mode_says(tmp_path):
    path = tmp_path / "mine.toml"
    path.write_text(TEXT)
    changes = {"mode.foot.move.half_life_s": 0.2, "mode.aim.look.bind[0].cm_per_turn": 60, "mode.cart.gait": "cart"}
    profile = load_profile(path).changed(changes)
    save_profile(profile, path)
    assert load_profile(path) == profile
    text = path.read_text()
    assert "# half as fast to turn" in text
    assert text.count("rise_s") == 1
    assert text.count("cm_per_turn") == 2
    save_profile(profile, tmp_path / "new.toml")
    assert load_profile(tmp_path / "new.toml") == profile
    assert (tmp_path / "new.toml").read_text().count("like =") == 2


def test_info_shows_the_resulting_mode():
    lines = profile_from_text(TEXT).sentences()
    aim = lines.index("  mode aim")
    assert lines[aim + 1].strip() == "a copy of mode foot, with its own changes:"
    assert any("one euro" in line or "Hz" in line for line in lines[aim:])
    assert (
        "    press jump: key.Space; switched by each press; waits 0.1 s for the ground, counts 0 s after leaving it"
        in lines
    )


@pytest.mark.parametrize(
    ("wrong", "right", "faults"),
    [
        ('like = "feet"', 'like = "foot"', ['line 23, mode.aim.like: no mode "feet"; there are: foot, aim, cart']),
        ('like = "cart"', 'like = "foot"', ["mode.aim.like: begins as itself: aim like cart like aim"]),
        # A fault of the first is told once, where it stands; one of its own at its own line.
        ("rise_s = -1", "rise_s = 0.1", ["line 12, mode.foot.move.bind[0].rise_s: found -1"]),
        ('style = "togle"', 'style = "toggle"', ["line 28, mode.aim.press.jump.style"]),
        (
            'steer = { frame = "drive" }\n[mode.cart.press]\nshoot = { enter = "aim" }',
            'steer = { frame = "drive" }',
            ["by leave_to: foot, copied from mode aim by like; write mode.cart.leave_to as well"],
        ),
        (
            'shoot = { bind = ["mouse.left"], enter = "cart" }',
            'shoot = { bind = ["mouse.left"] }',
            [
                'mode.aim.press.shoot.enter: found "cart"; allowed by leave_to: foot',
                '"cart" is the mode itself; allowed: another one, or "none"; it is copied from mode aim by like',
            ],
        ),
    ],
)
def test_faults_are_reported_at_their_places(wrong, right, faults):
    assert right in TEXT
    with pytest.raises(ProfileError) as found:
        profile_from_text(TEXT.replace(right, wrong))
    reported = str(found.value)
    for fault in faults:
        assert fault in reported
    assert len(found.value.faults) == len(faults) + (wrong == 'like = "cart"'), reported


STICK = """format = "wendonic-profile"
version = 1

[mode.foot]
leave_to = ["swim"]
[[mode.foot.move.bind]]
stick = "pad.left_stick"
dead_zone = { inner = 0.01 }

[mode.swim]
like = "foot"
leave_to = ["foot"]
[mode.swim.move]
half_life_s = 0.02
"""


@pytest.mark.long
def test_a_fault_of_an_inherited_entry_is_reported_and_fixed_where_the_file_has_it():
    findings = check(profile_from_text(STICK))
    assert [(one.slug, one.where) for one in findings] == [
        ("dead-zone-small", "mode.foot.move.bind[0].dead_zone.inner")
    ]
    done = fixed(profile_from_text(STICK))
    assert (len(done.fixes), done.left) == (1, ())
    assert saved_text(done.profile, STICK).count("inner = 0.01") == 0


def test_a_calibration_goes_where_the_file_has_the_stick():
    found = calibrate(demo_recording("lookout_devices"))
    calibrated, paths, _ = calibrated_profile(profile_from_text(STICK), found)
    assert {path.partition(".bind")[0] for path in paths} == {"mode.foot.move"}
    one, other = (calibrated.mode[name].move.bind for name in ("foot", "swim"))
    assert one == other
    assert one[0].centre != (0.0, 0.0)
