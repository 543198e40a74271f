"""The feel sheet against closed forms."""

import json
import math

import numpy as np
import pytest

from wendonic.cli.main import app
from wendonic.demo import FOLDER, RECORDINGS, demo_profile
from wendonic.profile.load import profile_from_text
from wendonic.study.feel_sheet import DEFINITIONS, FeelSheet, measure

HEAD = 'format = "wendonic-profile"\nversion = 1\n'
KEYS = 'keys = { ahead = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }\n'
GAIT = "[gait.walk]\ntop_speed_m_s = 4\naccel_m_s2 = 8\nbrake_m_s2 = 16\n"
CRISP = HEAD + f"[mode.m.move]\nhalf_life_s = 0\n[[mode.m.move.bind]]\n{KEYS}rise_s = 0\nfall_s = 0\n"


def test_without_shaping_the_answers_are_those_of_the_gait():
    """v = a t, v² / 2b, and both one after the other."""
    sheet = measure(profile_from_text(CRISP + GAIT))
    assert sheet.first_response_s == pytest.approx(0.0, abs=1.1e-3)
    assert sheet.reach90_s == pytest.approx(0.9 * 4.0 / 8.0, abs=2e-4)
    assert sheet.stop_time_s == pytest.approx(4.0 / 16.0, abs=2e-4)
    assert sheet.stop_distance_m == pytest.approx(4.0**2 / 32.0, abs=1e-4)
    assert sheet.reversal_s == pytest.approx(4.0 / 16.0 + 0.9 * 4.0 / 8.0, abs=2e-4)
    assert sheet.diagonal_ratio == pytest.approx(1.0)
    assert sheet.speed_spread_keys == pytest.approx(0.0, abs=1e-9)
    assert sheet.tick_dependence == pytest.approx(0.0, abs=1e-9)
    # What the profile does not have.
    names = "speed_spread_stick dead_share first_tilt quarter_steps_8bit mouse_deg_per_10cm look_first_tilt".split()
    assert [getattr(sheet, name) for name in (*names, "smoothing_delay_s")] == [None] * 7


def test_a_cart_is_measured_by_its_throttle_as_fast_back_as_it_goes():
    cart = (
        "[mode.m]\nsteer = { frame = 'drive', reverse_ratio = 0.5 }\n"
        "[[mode.m.throttle.bind]]\nkeys = { ahead = ['KeyW'], back = ['KeyS'] }\nrise_s = 0\nfall_s = 0\n"
        "[[mode.m.turn.bind]]\nkeys = { right = ['KeyD'], left = ['KeyA'] }\n"
    )
    sheet = measure(profile_from_text(HEAD + cart + GAIT))
    assert sheet.reach90_s == pytest.approx(0.9 * 4.0 / 8.0, abs=2e-4)
    assert sheet.stop_distance_m == pytest.approx(4.0**2 / 32.0, abs=1e-4)
    assert sheet.reversal_s == pytest.approx(4.0 / 16.0 + 0.9 * 2.0 / 8.0, abs=2e-4)
    assert sheet.tick_dependence < 0.01
    assert sheet.diagonal_ratio is None


def test_a_gait_too_slow_for_its_top_speed_to_be_seen_is_not_measured_wrongly():
    sheet = measure(profile_from_text(CRISP + GAIT.replace("= 4", "= 900").replace("= 8", "= 2")))
    assert (sheet.reach90_s, sheet.stop_distance_m, sheet.reversal_s) == (None, None, None)


def test_a_free_diagonal_is_41_percent_faster_and_spreads():
    sheet = measure(profile_from_text(CRISP.replace("half_life_s", 'diagonal = "free"\nhalf_life_s') + GAIT))
    assert sheet.diagonal_ratio == pytest.approx(math.sqrt(2.0))
    mean = (1.0 + math.sqrt(2.0)) / 2.0
    assert sheet.speed_spread_keys == pytest.approx(math.sqrt(2.0) / mean - 1.0)


def test_a_ramp_and_a_half_life_cost_their_time():
    """A ramp of 0.2 s asks for v t / 0.2, faster than the gait speeds up; half a step takes a half-life."""
    text = CRISP.replace("rise_s = 0", "rise_s = 0.2") + GAIT.replace("accel_m_s2 = 8", "accel_m_s2 = 1000")
    assert measure(profile_from_text(text)).reach90_s == pytest.approx(0.9 * 0.2, abs=2e-3)
    stick = HEAD + '[mode.m.move]\nhalf_life_s = 0.08\n[[mode.m.move.bind]]\nstick = "pad.left_stick"\n'
    assert measure(profile_from_text(stick)).smoothing_delay_s == pytest.approx(0.08, abs=6e-4)


def test_a_stick_is_measured_on_its_disc():
    """A linear curve from 0.2 to 0.9."""
    zone = "dead_zone = { inner = 0.2, outer = 0.9 }\ncurve = { form = 'linear' }\n"
    text = HEAD + f'[[mode.m.move.bind]]\nstick = "pad.left_stick"\n{zone}'
    text += f'[[mode.m.look.bind]]\nstick = "pad.right_stick"\nyaw_deg_s = 140\n{zone}'
    text += '[[mode.m.look.bind]]\nmouse = "mouse.move"\ncm_per_turn = 20\ndpi = 400\n'
    sheet = measure(profile_from_text(text))
    assert sheet.dead_share == pytest.approx(0.2**2, rel=0.03)
    assert sheet.first_tilt == pytest.approx(0.2)
    assert sheet.small_tilt_slope == pytest.approx(1.0 / 0.7)
    for steps, found in ((127, sheet.quarter_steps_8bit), (32767, sheet.quarter_steps_16bit)):
        tilts = np.arange(1, steps + 1) / steps
        assert found == ((tilts > 0.2) & (tilts <= 0.2 + 0.25 * 0.7)).sum()
    assert sheet.look_deg_s_half_tilt == pytest.approx(140.0 * 0.3 / 0.7)
    assert (sheet.look_deg_s_full_tilt, sheet.look_first_tilt) == (140.0, pytest.approx(0.2))
    assert sheet.mouse_deg_per_10cm == pytest.approx(180.0)
    assert sheet.speed_spread_stick == pytest.approx(0.0, abs=1e-9)


@pytest.mark.parametrize("name", sorted(set(RECORDINGS.values())))
def test_every_mode_of_every_shipped_profile_is_measured(name):
    profile = demo_profile(name)
    for mode in profile.mode:
        sheet = measure(profile, mode)
        known = {key: value for key, value in sheet._asdict().items() if value is not None}
        assert all(math.isfinite(value) and value >= 0.0 for value in known.values())
        assert (sheet.tick_dependence or 0.0) < 0.01
        if profile.mode[mode].steer.frame == "grid":
            assert sheet.reach90_s is None


def test_the_command_prints_and_writes_what_the_library_measures(tmp_path, capsys):
    def run(*words):
        with pytest.raises(SystemExit) as end:
            app([str(word) for word in words], prog_name="wendonic")
        return end.value.code, capsys.readouterr().out

    path = FOLDER / "beekeeper.toml"
    sheet = measure(demo_profile())
    code, out = run("measure", path, "--json", "-")
    assert (code, FeelSheet(**json.loads(out))) == (0, sheet)
    assert run("measure", path, "--json", tmp_path / "sheet.json")[1] == f"wrote {tmp_path / 'sheet.json'}\n"
    assert FeelSheet(**json.loads((tmp_path / "sheet.json").read_text())) == sheet
    table = run("measure", path)[1]
    assert set(DEFINITIONS) == set(FeelSheet._fields)
    for name in FeelSheet._fields:
        assert name in table
    assert f"{sheet.reach90_s:.4g}" in table
