"""Settings solved for against closed forms, many profiles measured at once, and the pictures of both."""

import math
import re
import shlex
import subprocess
import sys

import numpy as np
import pandas as pd
import pytest
import typer

from wendonic import ProfileError, WendonicError
from wendonic.cli.main import app
from wendonic.demo import FOLDER, PROFILE_PATH, demo_profile
from wendonic.pictures import draw_feel, draw_sweep
from wendonic.profile.load import load_profile, profile_from_text
from wendonic.profile.save import saved_text
from wendonic.profile.schema.profile import Profile
from wendonic.profile.value_at import limits_of
from wendonic.study import check
from wendonic.study.feel_sheet import measure
from wendonic.study.solve.fit import fit as fit_profile
from wendonic.study.solve.fit import targets_of
from wendonic.study.solve.pools import NO_PROCESS
from wendonic.study.solve.sweep import over_of, summary, sweep

HEAD = 'format = "wendonic-profile"\nversion = 1\n'
CRISP = (
    HEAD + "[mode.m.move]\nhalf_life_s = 0\n[[mode.m.move.bind]]\n"
    'keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }\nrise_s = 0\nfall_s = 0\n'
)
GAIT = "[gait.walk]\ntop_speed_m_s = 4   # brisk\naccel_m_s2 = 8      # from rest\nbrake_m_s2 = 16\n"


def fit(text, targets, free):
    """Fit the compiled way: the numbers are the same, and come sooner."""
    return fit_profile(profile_from_text(text), targets, free, engine="compiled")


def test_a_fit_agrees_with_the_closed_form():
    """0.9 v / a and v² / 2b: both rates are known beforehand."""
    found = fit(
        CRISP + GAIT, {"reach90_s": 0.12, "stop_distance_m": 0.3}, ["gait.walk.accel_m_s2", "gait.walk.brake_m_s2"]
    )
    assert found.reached
    accel, brake = (setting.after for setting in found.settings)
    assert (accel, brake) == (pytest.approx(0.9 * 4.0 / 0.12, rel=0.02), pytest.approx(16.0 / 0.6, rel=0.02))
    text = saved_text(found.profile, CRISP + GAIT)
    assert f"accel_m_s2 = {accel:g}" in text
    # Comments stay, each in its column.
    columns = {line.index("#") for line in text.splitlines() if "#" in line}
    assert columns == {20}
    assert measure(found.profile).stop_distance_m == pytest.approx(0.3, rel=0.01)
    # A dead zone of a share s of the disc has a radius of sqrt(s).
    stick = HEAD + '[[mode.m.move.bind]]\nstick = "pad.left_stick"\n'
    shares = fit(stick, {"dead_share": 0.04}, ["mode.m.move.bind[0].dead_zone.inner"])
    assert shares.settings[0].after == pytest.approx(0.2, abs=2e-3)


def test_unreachable_presses_and_idle_settings_are_reported():
    free = ["gait.walk.accel_m_s2", "gait.walk.brake_m_s2"]
    found = fit(CRISP + GAIT, {"reach90_s": 1e-5}, free)
    assert not found.reached
    assert [(setting.idle, setting.at_limit) for setting in found.settings] == [(False, True), (True, False)]
    assert found.trades == ()
    assert found.settings[1].after == 16.0
    assert found.targets[0].after < 0.01
    # Where another number stands in the way, its fault is told.
    released = (
        HEAD + '[[mode.m.move.bind]]\nstick = "pad.left_stick"\ndead_zone = { inner = 0.3, release = 0.20004 }\n'
    )
    zone = fit_profile(profile_from_text(released), {"first_tilt": 0.1}, ["mode.m.move.bind[0].dead_zone.inner"])
    assert zone.settings[0].after == pytest.approx(0.20004, abs=1e-5)
    assert "inner goes no further: mode.m.move.bind[0].dead_zone: release 0.20004 is above inner 0.19" in str(zone)
    for targets, settings, words in (
        ({"reach_s": 1.0}, free, 'no quantity of the feel sheet "reach_s"'),
        ({"jump_height_m": 1.0}, free, "this mode has no jump_height_m"),
        ({"reach90_s": 1.0}, ["gait.walk.acel_m_s2"], 'did you mean "accel_m_s2"'),
        ({"reach90_s": 1.0}, ["mode.m.move.merge"], 'mode.m.move.merge is not a number: found "strongest"'),
        ({"reach90_s": 1.0}, ["gait.walk"], "gait.walk is not a number: found a table; in it: top_speed_m_s, "),
        (
            {"reach90_s": 1.0},
            ["mode.m.move.bind.0.rise_s"],
            r"mode.m.move.bind is a list; allowed: mode.m.move.bind\[0\]",
        ),
        ({"reach90_s": 1.0}, ["mode.m.move.notches"], "notches: whole numbers only; try their values in a sweep"),
        ({}, free, "a fit needs a target"),
    ):
        with pytest.raises(WendonicError, match=words):
            fit(CRISP + GAIT, targets, settings)
    with pytest.raises(WendonicError, match="reach90_s=fast: allowed: QUANTITY=NUMBER"):
        targets_of(["reach90_s=fast"])
    for word, words in (
        ("reach90_s=3:1", "lower end first"),
        ("reach90_s<=inf", "a finite number"),
        ("reach90_s", "allowed"),
    ):
        with pytest.raises(WendonicError, match=words):
            targets_of([word])
    with pytest.raises(WendonicError, match="has a target already"):
        targets_of(["reach90_s>=1", "reach90_s<=2"])


@pytest.mark.long
@pytest.mark.parametrize("target", [pytest.param(1e-5, marks=pytest.mark.long), 0.01])
def test_a_target_far_out_of_reach_is_missed_by_what_can_be_measured(target):
    """However far it is, a gait too slow to be measured at all is no better: what is left is the ramp of the keys."""
    beekeeper = demo_profile().changed({"mode.foot.move.bind[0].rise_s": 0.03})
    found = fit_profile(beekeeper, {"reach90_s": target}, "gait.walk.accel_m_s2", engine="compiled")
    at_once = measure(beekeeper.changed({"gait.walk.accel_m_s2": 100_000.0}), only="reach90_s").reach90_s
    assert not found.reached
    assert found.targets[0].after == pytest.approx(at_once, rel=0.01)
    assert found.settings[0].after > 22.0


def test_limits_and_ranges_are_met_by_the_nearest_answer():
    free = ["gait.walk.accel_m_s2", "gait.walk.brake_m_s2"]
    # Both hold already: nothing is changed.
    met = fit(CRISP + GAIT, {"reach90_s": (None, 0.5), "stop_distance_m": (0.4, 0.6)}, free)
    assert met.reached
    assert [setting.after for setting in met.settings] == [8.0, 16.0]
    assert met.profile == profile_from_text(CRISP + GAIT)
    assert saved_text(met.profile, CRISP + GAIT) == CRISP + GAIT
    # The nearest acceleration that is quick enough is the one that just is, and the brake stays.
    found = fit(CRISP + GAIT, {"reach90_s": (None, 0.3), "stop_distance_m": (0.4, 0.6)}, free)
    assert found.reached
    assert found.settings[0].after == pytest.approx(0.9 * 4.0 / 0.3, rel=0.02)
    assert found.settings[1].after == pytest.approx(16.0, rel=1e-3)


def test_of_more_settings_than_targets_the_answer_nearest_to_the_start_is_taken_and_that_is_told():
    """v² / 2b: speed and brake may both give; in logarithms the least change is along (2, -1)."""
    free = ["gait.walk.top_speed_m_s", "gait.walk.brake_m_s2"]
    found = fit(CRISP + GAIT, {"stop_distance_m": 0.25}, free)
    assert found.reached
    assert [setting.undetermined for setting in found.settings] == [True, True]
    share = math.log(0.25 / 0.5) / 5.0
    assert found.settings[0].after == pytest.approx(4.0 * math.exp(2.0 * share), rel=0.02)
    assert found.settings[1].after == pytest.approx(16.0 * math.exp(-share), rel=0.02)
    one = fit(CRISP + GAIT, {"stop_distance_m": 0.25, "top_speed_m_s": 4.0}, free)
    assert one.reached
    assert [setting.undetermined for setting in one.settings] == [False, False]


def test_quantities_in_steps_and_settings_that_the_file_lacks():
    stick = HEAD + '[[mode.m.move.bind]]\nstick = "pad.left_stick"\ncurve = { form = "power", exponent = 1.2 }\n'
    steps = fit(stick, {"quarter_steps_8bit": 60}, ["mode.m.move.bind[0].curve.exponent"])
    assert steps.targets[0].after == 60
    added = fit(CRISP + GAIT, {"reversal_s": 0.55}, ["gait.walk.reverse_m_s2"])
    # 4 / r back to rest, and 0.45 s to 90 % again.
    assert added.settings[0].before is None
    assert added.settings[0].after == pytest.approx(4.0 / (0.55 - 0.45), rel=0.03)
    assert added.profile.gait["walk"].reverse_m_s2 == added.settings[0].after
    assert added.reached
    # A gait that the mode uses, and the file does not write: 0.9 v / a.
    unwritten = fit(CRISP, {"reach90_s": 0.18}, ["gait.walk.accel_m_s2"])
    assert (unwritten.settings[0].before, unwritten.settings[0].after) == (
        22.0,
        pytest.approx(0.9 * 3.2 / 0.18, rel=0.02),
    )
    assert saved_text(unwritten.profile, CRISP).count("[gait.walk]") == 1
    # An entry that a mode has from the one that it begins as becomes its own.
    stick += '[mode.aim]\nlike = "m"  # finer\n'
    path = "mode.aim.move.bind[0].curve.exponent"
    finer = fit_profile(profile_from_text(stick), {"amount_at_tilt": 0.25}, [path], mode="aim", engine="interpreted")
    assert measure(finer.profile, "aim").amount_at_tilt == pytest.approx(0.25, abs=1e-3)
    assert finer.profile.mode["m"] == profile_from_text(stick).mode["m"]
    assert saved_text(finer.profile, stick).startswith(stick)
    for path, words in (
        (
            "gait.walk.jump.height_m",
            r"gait.walk.jump is not set; write that table first, such as jump = \{ height_m = 1.6 \}",
        ),
        ("gait.run.accel_m_s2", 'no entry "run"; there are: walk'),
    ):
        with pytest.raises(WendonicError, match=words):
            limits_of(profile_from_text(CRISP), path)


@pytest.mark.long
def test_conflicting_targets_are_reported_with_the_cost():
    """One brake cannot stop in 0.1 s and in 0.5 m: 4 / 0.1 is 40 m/s², 4² / (2 0.5) is 16."""
    found = fit(CRISP + GAIT, {"stop_time_s": 0.1, "stop_distance_m": 0.5}, ["gait.walk.brake_m_s2"])
    assert not found.reached
    (trade,) = [one for one in found.trades if one.quantity == "stop_time_s"]
    assert trade.reachable_alone
    assert trade.others["stop_distance_m"] == pytest.approx(4.0 * 4.0 / (2.0 * 40.0), rel=0.03)
    said = str(found)
    assert re.search(r"^stop_time_s +\S+ +0\.1 +\S+ s  not reached$", said, re.MULTILINE)
    assert re.search(r"^gait\.walk\.brake_m_s2 +\S+ +\S+$", said, re.MULTILINE)
    assert "\nstop_time_s can be reached alone: 0.1 s, at the cost of stop_distance_m 0.2" in said
    # What does not depend on any of them is said so; the scan ends, though only one target changes sides.
    other = fit(CRISP + GAIT, {"reach90_s": 0.33, "stop_distance_m": 0.8}, ["gait.walk.accel_m_s2"])
    assert other.settings[0].after == pytest.approx(0.9 * 4.0 / 0.33, rel=0.01)
    assert [one.idle for one in other.trades] == [True]
    assert str(other).endswith("\nstop_distance_m depends on none of the free settings")
    never = fit(CRISP + GAIT, {"stop_time_s": 1e-7, "reach90_s": 0.45}, ["gait.walk.brake_m_s2"])
    assert [(one.quantity, one.reachable_alone) for one in never.trades] == [("stop_time_s", False)]


@pytest.mark.long
def test_a_jump_is_fitted():
    jump = '[mode.m.press]\njump = { bind = ["key.Space"] }\n'
    text = CRISP + jump + GAIT + "jump = { height_m = 1.0, apex_s = 0.3 }\n"
    free = ["gait.walk.jump.height_m", "gait.walk.jump.apex_s"]
    found = fit(text, {"jump_height_m": 1.5, "jump_airtime_s": 0.8}, free)
    assert found.reached
    assert found.settings[0].after == pytest.approx(1.5, rel=0.01)


def test_a_sweep_measures_every_combination_as_one_by_one():
    profile = profile_from_text(CRISP + GAIT)
    over = {"gait.walk.top_speed_m_s": [2.0, 4.0], "gait.walk.brake_m_s2": [8.0, 16.0, 32.0]}
    reported = []
    frame = sweep(
        profile, over, ["stop_distance_m", "jump_height_m"], progress=lambda *done: reported.append(done), workers=2
    )
    assert list(frame.columns) == [*over, "stop_distance_m", "jump_height_m", "error"]
    expected = frame["gait.walk.top_speed_m_s"] ** 2 / (2.0 * frame["gait.walk.brake_m_s2"])
    assert frame["stop_distance_m"].to_numpy() == pytest.approx(expected.to_numpy(), abs=1e-4)
    assert frame["jump_height_m"].isna().all()
    assert reported[-1] == (6, 6)
    assert frame[list(over)].to_numpy().tolist() == [
        [top, brake] for top in (2.0, 4.0) for brake in (8.0, 16.0, 32.0)
    ]
    # One value and one quantity may stand without a list, and NumPy's numbers are numbers.
    brakes = (16.0, range(16, 17), np.array([16.0]), np.float32(16.0))
    assert len({sweep(profile, {"gait.walk.brake_m_s2": one}, "stop_distance_m").to_json() for one in brakes}) == 1
    # Settings that do not go together are no row of numbers.
    stick = profile_from_text(HEAD + '[[mode.m.move.bind]]\nstick = "pad.left_stick"\n')
    zones = sweep(stick, {"mode.m.move.bind[0].dead_zone.inner": [0.2, 0.98]}, ["first_tilt"])
    assert zones["first_tilt"].round(3).tolist()[0] == 0.2
    assert math.isnan(zones["first_tilt"][1])
    assert zones["error"].isna().tolist() == [True, False]
    assert zones["error"][1].startswith("mode.m.move.bind[0].dead_zone: inner 0.98 is not below outer 0.96")
    assert set(frame["error"]) == {"jump_height_m: no press jumps or waits for the ground"}
    assert summary(zones, ["first_tilt"]).startswith("2 profiles, 1 not fully measured: mode.m.move.bind[0]")
    with pytest.raises(
        WendonicError, match="none of the 6 profiles could be measured: jump_height_m: no press jumps"
    ):
        summary(frame, ["jump_height_m"])
    for words, settings, quantities in (
        ("no quantity", over, ["stop_m"]),
        ("no field", {"gait.walk.stop": [1.0]}, ["reach90_s"]),
        ("a sweep needs", {}, ["reach90_s"]),
        ("mode.m.move.notches: found 6.5; allowed: whole", {"mode.m.move.notches": [6, 6.5]}, ["reach90_s"]),
        ("brake_m_s2: found '8:40:5'; allowed: a list of numbers", {"gait.walk.brake_m_s2": "8:40:5"}, ["reach90_s"]),
        ("a sweep needs", {"gait.walk.brake_m_s2": []}, ["reach90_s"]),
        ("1,000,000 profiles", dict.fromkeys(over, np.ones(1000)), ["reach90_s"]),
    ):
        with pytest.raises(WendonicError, match=words):
            sweep(profile, settings, quantities)
    for word in ("8:40", "8:40:1", "8:inf:3", "nan:40:3", "8:40:2.5", "circle,square"):
        with pytest.raises(WendonicError, match="allowed: SETTING=FROM:TO:COUNT"):
            over_of([f"gait.walk.accel_m_s2={word}"])
    # Directions n of a compass that pulls by a half are at most half of 180 / n off.
    stick = profile_from_text(HEAD + '[[mode.m.move.bind]]\nstick = "pad.left_stick"\n')
    pulled = sweep(stick, over_of(["mode.m.move.notches=4:12:3"]), ["direction_error_deg"])
    assert pulled["mode.m.move.notches"].tolist() == [4, 8, 12]
    assert pulled["direction_error_deg"].to_numpy() == pytest.approx([22.5, 11.25, 7.5], abs=0.05)
    with pytest.raises(WendonicError, match="has values already; allowed: each setting once"):
        over_of(["gait.walk.accel_m_s2=8:40:3", "gait.walk.accel_m_s2=8:20:3"])


@pytest.mark.parametrize(
    ("gait", "budget"),
    [
        ("brake_m_s2 = 16", "stop_distance_m = { max = 0.2 }"),
        pytest.param("accel_m_s2 = 8", "reach90_s = { min = 0.6, max = 0.7 }", marks=pytest.mark.long),
        pytest.param("coast_half_life_s = 0.3", "stop_time_s = { max = 1 }", marks=pytest.mark.long),
        pytest.param("thrust_m_s2 = 4\ndrag_per_s = 1", "stop_distance_m = { max = 2 }", marks=pytest.mark.long),
        pytest.param("thrust_m_s2 = 4\ndrag_per_s = 1", "reach90_s = { max = 1.1 }", marks=pytest.mark.long),
        ("accel_m_s2 = 8", "reach90_s = { max = 0.3, press = 'sprint', by = 'keys' }"),
    ],
)
def test_the_advice_for_a_missed_budget_meets_it(gait, budget, tmp_path, capsys):
    path, new = tmp_path / "slow.toml", tmp_path / "new.toml"
    text = CRISP.replace("[mode.m.move]", "[mode.m]\npress_gaits = { sprint = 'run' }\n[mode.m.move]", 1)
    text += "[mode.m.press]\nsprint = { bind = ['key.ShiftLeft'] }\n[gait.run]\ntop_speed_m_s = 6\n"
    path.write_text(f"{text}accel_m_s2 = 8\n[gait.walk]\n{gait}\n[budget]\n{budget}\n", newline="\n")
    profile = load_profile(path)
    (missed,) = (one for one in check(profile, prove=False) if one.slug == "over-budget")
    words = shlex.split(missed.advice.replace("PROFILE", str(path)))
    with pytest.raises(SystemExit) as end:
        app([*words[1:], "-o", str(new)], prog_name=words[0])
    assert end.value.code == 0, capsys.readouterr().err
    fitted = load_profile(new)
    assert not [one for one in check(fitted, prove=False) if one.slug == "over-budget"]
    assert fitted.gait["walk"].top_speed_m_s == pytest.approx(profile.gait["walk"].top_speed_m_s, rel=2e-3)


def test_a_setting_that_does_not_go_with_the_others_is_not_solved_for():
    drags = profile_from_text(CRISP + "[gait.walk]\nthrust_m_s2 = 4\ndrag_per_s = 1\n")
    with pytest.raises(
        WendonicError, match=r"^cannot solve for gait\.walk\.accel_m_s2: gait\.walk\.thrust_m_s2: with"
    ):
        fit_profile(drags, {"reach90_s": 1.0}, ["gait.walk.accel_m_s2"])


def test_limits_are_those_of_the_format_and_values_are_checked():
    profile = demo_profile()
    assert limits_of(profile, "gait.walk.turn_loss") == (0.0, 1.0)
    assert limits_of(profile, "gait.walk.accel_m_s2") == (0.0, 100_000.0)
    assert limits_of(profile, "mode.foot.move.bind[1].dead_zone.inner") == (0.0, 1.0)
    content = {
        "format": "wendonic-profile",
        "version": 1,
        "mode": {"m": {"move": {"bind": [{"stick": "pad.left_stick"}]}}},
    }
    with pytest.raises(ProfileError, match=r"inner 0\.99 is not below outer"):
        Profile.from_content(content, {"mode.m.move.bind[0].dead_zone.inner": 0.99})
    assert "dead_zone" not in content["mode"]["m"]["move"]["bind"][0]


def test_a_map_has_its_settings_as_axes_and_marks_what_is_missing():
    rows = [(a, b, a * b) for a in (1.0, 2.0, 3.0) for b in (10.0, 20.0)]
    frame = pd.DataFrame(rows, columns=["gait.walk.accel_m_s2", "gait.walk.brake_m_s2", "stop_distance_m"])
    ax = draw_sweep(frame, "stop_distance_m")
    assert (ax.get_xlabel(), ax.get_ylabel()) == ("gait.walk.brake_m_s2", "gait.walk.accel_m_s2")
    assert ax.get_title(loc="left") == "stop_distance_m: 10 to 60 m"
    assert any(text.get_text().endswith(" m") for text in ax.texts)
    frame.loc[3, "stop_distance_m"] = math.nan
    marks = [line for line in draw_sweep(frame, "stop_distance_m").lines if line.get_label() == "not measured"]
    assert marks[0].get_xydata().tolist() == [[20.0, 2.0]]
    line = draw_sweep(frame[["gait.walk.accel_m_s2", "stop_distance_m"]], "stop_distance_m")
    assert line.get_ylabel() == "stop_distance_m (m)"
    for words, wrong in (
        ("did not measure", frame.drop(columns="stop_distance_m")),
        ("could not be measured", frame.assign(stop_distance_m=math.nan)),
        ("everywhere", frame.assign(stop_distance_m=1.0)),
        ("found 3 settings", frame.assign(more=1.0)),
    ):
        with pytest.raises(WendonicError, match=words):
            draw_sweep(wrong, "stop_distance_m")


def test_the_feel_picture_marks_what_the_sheet_says():
    rolls = CRISP + GAIT.replace("brake_m_s2 = 16", "coast_half_life_s = 1.2")
    profiles = {
        "quick": profile_from_text(CRISP + GAIT),
        "shipped": demo_profile(),
        "rolls": profile_from_text(rolls),
    }
    press, released, back = draw_feel(profiles)
    for name, profile in profiles.items():
        sheet = measure(profile)
        (words,) = (line.get_label() for line in press.lines if line.get_label().startswith(name))
        assert (
            f"first {sheet.first_response_s * 1000.0:.0f} ms,\n90 % after {sheet.reach90_s * 1000.0:.0f} ms" in words
        )
        (words,) = (line.get_label() for line in released.lines if line.get_label().startswith(name))
        assert f"over {sheet.stop_distance_m:.3g} m" in words
        marks = [line.get_xdata()[0] for line in back.lines if line.get_marker() == "D"]
        assert any(at_s == pytest.approx(sheet.reversal_s) for at_s in marks)
    with pytest.raises(WendonicError, match=r"crates: .* no speed to draw: on squares there are steps"):
        draw_feel({"crates": demo_profile("crates")})
    with pytest.raises(WendonicError, match=r"headset: mode .* no control that can be held moves"):
        draw_feel({"headset": demo_profile("headset")})


def test_the_commands_fit_and_sweep(tmp_path, capsys):
    def run(*words):
        with pytest.raises(SystemExit) as end:
            app([str(word) for word in words], prog_name="wendonic")
        return end.value.code, capsys.readouterr().out

    new, table, picture = tmp_path / "new.toml", tmp_path / "table.csv", tmp_path / "map.png"
    target = ("--target", "stop_distance_m=0.3", "--free", "gait.walk.brake_m_s2")
    code, out = run("fit", PROFILE_PATH, *target, "-o", new)
    assert code == 0
    assert "reached" in out
    assert f"wrote {new}" in out
    assert measure(profile_from_text(new.read_text())).stop_distance_m == pytest.approx(0.3, rel=0.01)
    both = ("--target", "reach90_s=0.2, stop_distance_m<=0.1", "--free", "gait.walk.accel_m_s2,gait.walk.brake_m_s2")
    assert run("fit", PROFILE_PATH, *both, "-o", new)[0] == 0
    gait = profile_from_text(new.read_text()).gait["walk"]
    # v² / 2b and 0.9 v / a.
    assert (gait.brake_m_s2, gait.accel_m_s2) == (pytest.approx(51.2, rel=0.01), pytest.approx(14.4, rel=0.01))
    assert run("fit", PROFILE_PATH, "--target", "first_tilt=0.9", *target[2:], "-o", new)[0] == 1
    spans = (
        "--over",
        "gait.walk.brake_m_s2=10:30:2",
        "--over",
        "gait.walk.top_speed_m_s=2:4:2",
        "--of",
        "stop_distance_m",
    )
    swept = run("sweep", PROFILE_PATH, *spans, "-o", table, "--workers", 1)
    # Nothing of the progress bar.
    assert swept == (0, f"wrote {table}: 4 profiles\n")
    assert len(pd.read_csv(table)) == 4
    assert run("sweep", PROFILE_PATH, *spans, "-o", picture, "--workers", 1)[0] == 0
    assert run("draw", "feel", PROFILE_PATH, FOLDER / "terraces.toml", "-o", tmp_path / "feel.png")[0] == 0
    assert picture.exists()
    with pytest.raises(WendonicError, match=r"allowed: \.csv, \.parquet, \.jsonl, \.png"):
        app(["sweep", str(PROFILE_PATH), *spans, "-o", "map.bmp"], standalone_mode=False)
    with pytest.raises(typer.BadParameter, match="--on plays recordings as they are"):
        app(["sweep", str(PROFILE_PATH), *spans, "--on", ".", "--by", "keys", "-o", "a.csv"], standalone_mode=False)


UNGUARDED = """
from wendonic.demo import demo_profile
from wendonic.study import sweep

over = {"gait.walk.brake_m_s2": [10.0 + step for step in range(50)]}
print(len(sweep(demo_profile(), over, "stop_distance_m", workers=WORKERS)))
"""


@pytest.mark.long
@pytest.mark.parametrize(("workers", "says"), [("1", "50\n"), ("2", f"WendonicError: {NO_PROCESS}\n")])
def test_a_script_can_sweep_and_is_told_what_several_processes_need(workers, says, tmp_path):
    script = tmp_path / "script.py"
    script.write_text(UNGUARDED.replace("WORKERS", workers))
    done = subprocess.run([sys.executable, script], capture_output=True, text=True, timeout=200, check=False)
    # Processes that failed to begin print words of their own, at times after these.
    assert says in done.stdout + done.stderr
    assert ("50" in done.stdout) == (done.returncode == 0) == (workers == "1")
