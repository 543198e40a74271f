"""Movement that a mode takes over: as if there had been one mode all along."""

import pytest

from wendonic import Helm, profile_from_text
from wendonic.demo import demo_profile
from wendonic.profile.load import ProfileError

HEAD = 'format = "wendonic-profile"\nversion = 1\n'
KEYS = """
[[mode.{name}.move.bind]]
keys = {{ forward = ["KeyW"], right = ["KeyD"], back = ["KeyS"] }}
rise_s = 0.4
fall_s = 0.3
"""
STICK = '[[mode.{name}.move.bind]]\nstick = "pad.left_stick"\ndead_zone = {{ form = "none" }}\n'
THROTTLE = """
[[mode.{name}.throttle.bind]]
keys = {{ forward = ["KeyI"], back = ["KeyK"] }}
rise_s = 0.5
"""
MODES = {
    "smoothed": "[mode.{name}.move]\nhalf_life_s = 0.2\n" + KEYS + STICK,
    "one euro": "[mode.{name}.move]\none_euro = {{ min_cutoff_hz = 1.0, beta = 0.1 }}\n" + STICK + KEYS,
    "throttle": KEYS + THROTTLE,
}


def profile(walk, aim, movement="carry"):
    return profile_from_text(
        HEAD + walk.format(name="walk") + aim.format(name="aim") + f'[mode.aim]\nmovement = "{movement}"\n'
        f'[mode.walk]\nmovement = "{movement}"\n'
    )


def played(helm, swaps):
    """Return what the body and the intent do while keys and a stick go to and fro, and modes are swapped."""
    found = []
    for tick in range(240):
        if tick % 40 == 5:
            helm.key("KeyW", down=tick % 80 == 5)
        if tick % 30 == 7:
            helm.key("KeyI", down=tick % 60 == 7)
        if tick % 25 == 11:
            helm.stick("pad.left_stick", 0.9 if tick % 50 == 11 else 0.0, -0.3 if tick % 75 == 11 else 0.0)
        if tick % 7 == 3 and swaps:
            helm.enter("aim" if helm.mode == "walk" else "walk")
        intent = helm.tick(1 / 60)
        found.append((intent.local, intent.amount, intent.throttle, intent.motion))
    return found


@pytest.mark.parametrize("mode", MODES)
def test_two_equal_modes_swapped_seven_times_a_second_are_one_to_the_last_bit(mode):
    straight = played(Helm(profile(MODES[mode], MODES[mode])), swaps=False)
    assert played(Helm(profile(MODES[mode], MODES[mode])), swaps=True) == straight
    assert played(Helm(profile(MODES[mode], MODES[mode], "drop")), swaps=True) != straight


def test_entries_in_another_order_are_known_by_their_controls():
    straight = played(Helm(profile(KEYS + STICK, KEYS + STICK)), swaps=False)
    assert played(Helm(profile(KEYS + STICK, STICK + KEYS)), swaps=True) == straight


def test_a_key_without_a_ramp_is_wholly_down_where_it_gets_one():
    ramped = "[mode.{name}.move]\nhalf_life_s = 0.0\n" + KEYS
    crisp = ramped.replace("rise_s = 0.4", "rise_s = 0.0").replace("fall_s = 0.3", "fall_s = 0.0")
    helm = Helm(profile(crisp, ramped))
    helm.key("KeyW", down=True)
    helm.key("KeyD", down=True)
    for _ in range(60):
        before = helm.tick(1 / 60)
    helm.enter("aim")
    assert helm.tick(0.0).amount == before.amount
    assert helm.tick(1 / 60).local == pytest.approx(before.local, abs=1e-12)
    helm.key("KeyD", down=False)
    # Half of the way down the ramp of 0.3 s, forward at full: 1, to the right 0.5.
    for _ in range(9):
        after = helm.tick(1 / 60)
    assert after.local[0] / after.local[1] == pytest.approx(0.5, abs=1e-9)


def test_info_tells_and_a_misspelling_is_told():
    says = "ramps and smoothing go on as it is entered, if both modes have them"
    plain = demo_profile("harvest")
    assert not any(says in line for line in plain.sentences())
    assert any(says in line for line in plain.changed({"mode.barrow.movement": "carry"}).sentences())
    with pytest.raises(ProfileError, match=r'mode\.barrow.movement: found "cary".*did you mean "carry"'):
        plain.changed({"mode.barrow.movement": "cary"})
