"""Profiles side by side, and the probes that they are tried with."""

import itertools
import json
import math
import tomllib

import numpy as np
import pytest
from matplotlib.backends.backend_agg import FigureCanvasAgg

from few_of_many import few_of
from shelf_jumper import SHELF_JUMPER
from wendonic import Event, Recording, WendonicError, shape
from wendonic.cli.main import app
from wendonic.demo import FOLDER, RECORDINGS, demo_profile
from wendonic.pictures import draw_comparison, draw_timeline, save_picture
from wendonic.profile.load import load_profile, profile_from_text
from wendonic.study.feel_sheet import measure
from wendonic.study.motion import steps_m
from wendonic.study.probes.by_name import PROBES, probe_of
from wendonic.study.solve.compare import (
    Setting,
    compare,
    inputs_named,
    numbers_on,
    settings_that_differ,
    traces_of,
)

BASE = (FOLDER / "beekeeper.toml").read_text()
SLOW = BASE.replace("accel_m_s2 = 22 ", "accel_m_s2 = 9 ").replace('diagonal = "cap"', 'diagonal = "free"')


@pytest.mark.long
def test_only_differences_are_reported_in_the_given_order(beekeeper):
    slow = profile_from_text(SLOW)
    compared = compare(
        {"quick": beekeeper, "slow": slow, "again": beekeeper}, {"quarter_turn": None}, engine="interpreted"
    )
    assert compared.names == ("quick", "slow", "again")
    assert compared.sheets == (*(measure(profile, engine="interpreted") for profile in (beekeeper, slow, beekeeper)),)
    assert compared.settings == (
        Setting("mode.foot.move.diagonal", ("cap", "free", "cap")),
        Setting("gait.walk.accel_m_s2", (22.0, 9.0, 22.0)),
    )
    assert [
        name for name in ("reach90_s", "diagonal_ratio", "stop_distance_m", "first_tilt") if compared.differs(name)
    ] == [
        "reach90_s",
        "diagonal_ratio",
    ]
    # The same input for all: a corner at the same moment.
    first, second, third = compared.traces["quarter_turn"]
    assert first.equals(third)
    assert len(first) == len(second)
    assert second["pos_x"].iloc[-1] < first["pos_x"].iloc[-1]
    assert settings_that_differ([beekeeper, demo_profile("cart")])
    # A gait that one file uses without writing it has its numbers all the same.
    walks = 'format = "wendonic-profile"\nversion = 1\n[[mode.m.move.bind]]\nstick = "pad.left_stick"\n'
    brisk = profile_from_text(f"{walks}[gait.walk]\naccel_m_s2 = 30\n")
    assert settings_that_differ([profile_from_text(walks), brisk]) == (("gait.walk.accel_m_s2", (22.0, 30.0)),)


def test_printed_a_comparison_lists_what_differs_in_the_games_own_unit():
    world = '[world]\nright = "+x"\nforward = "-y"\nunit = "px"\nunits_per_m = 50\n'
    keys = '[[mode.foot.move.bind]]\nkeys = { forward = ["KeyW"] }\n'
    gait = "[gait.walk]\ntop_speed_u_s = 200\naccel_u_s2 = 1000\nbrake_u_s2 = 1000\n"
    text = 'format = "wendonic-profile"\nversion = 1\n' + world + keys + gait
    before = profile_from_text(text)
    both = compare({"before": before, "after": before.changed({"gait.walk.brake_u_s2": 500})}, {})
    said = [line.split() for line in str(both).splitlines()]
    assert said[0] == ["before", "after"]
    # v² / 2b, and a t² / 2 + (a t)² / 2b.
    assert ["stop_distance_u", "20", "40", "px"] in said
    assert ["tap_distance_u", "10", "15", "px"] in said
    assert said[-1] == ["gait.walk.brake_u_s2", "1000", "500"]
    assert not {"reach90_s", "gait.walk.accel_u_s2"} & {name for name, *_ in said}
    assert str(compare({"before": before, "after": before}, {})) == "no differences"
    # In a shell numbers show themselves, and not NumPy's names.
    assert "np." not in repr(both.sheets)


def test_a_game_seen_from_the_side_is_compared_by_its_jumps():
    """Of four jumps two are held; the length is that of the way through the air, once."""
    both = {"low": profile_from_text(SHELF_JUMPER), "high": profile_from_text(SHELF_JUMPER.replace("96", "144"))}
    compared = compare(both, engine="interpreted")
    on = numbers_on(both, compared.traces)["figure_of_eight"]
    assert [walk.presses for walk in on.walks] == [4, 4]
    path, _, height = draw_comparison(compared)[:3]
    low, high = (f"{48.0 * walk.distance_m:.1f}" for walk in on.walks)
    assert path.get_title(loc="left").endswith(f"{low} to {high} px")
    for trace, walk, line, tall in zip(
        compared.traces["figure_of_eight"], on.walks, height.lines, (2.0, 3.0), strict=False
    ):
        # From the origin on.
        steps = np.hypot(np.diff(trace["pos_x"], prepend=0.0), np.diff(trace["pos_z"], prepend=0.0))
        assert walk.distance_m == pytest.approx(steps.sum(), rel=1e-9)
        assert max(line.get_ydata()) == pytest.approx(tall, rel=2e-3)
    over_time = draw_timeline(compared.traces["figure_of_eight"][0], probe_of(both["low"], "figure_of_eight"))
    assert [axes.get_ylabel().split()[0] for axes in over_time[1:]] == ["right", "height", "amount", "speed"]
    assert over_time[0].get_title(loc="left").startswith("Figure of eight: ")


def test_a_picture_shows_each_profile_on_each_input(beekeeper):
    traces = compare(
        {"a": beekeeper, "b": profile_from_text(SLOW)}, {"tap": None, "quarter_turn": None}, engine="interpreted"
    )
    axes = draw_comparison(traces)
    assert [ax.get_title(loc="left").split(":")[0] for ax in axes[::3]] == ["tap", "quarter turn"]
    for row, both in enumerate(traces.traces.values()):
        path, speed, heading = axes[3 * row : 3 * row + 3]
        for name, trace in zip("ab", both, strict=True):
            (line,) = (line for line in path.lines if line.get_label() == name)
            np.testing.assert_array_equal(line.get_xydata(), trace[["pos_x", "pos_y"]])
        assert len(speed.lines) == len(heading.lines) == 2
        assert speed.get_xlim() == heading.get_xlim()


def test_a_walk_of_a_few_centimetres_is_drawn_without_a_word(beekeeper, caplog, tmp_path):
    compared = compare({"a": beekeeper, "b": profile_from_text(SLOW)}, {"tap": None}, engine="interpreted")
    path, *_ = axes = draw_comparison(compared)
    save_picture(axes, tmp_path / "tap.png")
    assert np.ptp(path.get_xlim()) == np.ptp(path.get_ylim()) == pytest.approx(1.0)
    assert not caplog.records


def test_probes_are_exactly_what_they_say(beekeeper):
    circle = shape(probe_of(beekeeper, "circle_60"), beekeeper, hz=120)
    tilt = np.hypot(circle["raw_x"], circle["raw_y"])[10:470]
    assert tilt.to_numpy() == pytest.approx(np.full(len(tilt), 0.6))
    tapped = [event for event in probe_of(beekeeper, "tap") if event.control == "key.KeyW"]
    assert tapped[1].t - tapped[0].t == pytest.approx(0.08)
    turned = shape(probe_of(beekeeper, "swipe"), beekeeper)["look_yaw_deg"].sum()
    assert turned == pytest.approx(measure(beekeeper).mouse_deg_per_10cm, rel=1e-3)
    eight = shape(probe_of(beekeeper, "figure_of_eight"), beekeeper)
    # Two circles of 4 s each, one to either side, back where it began; the second one by diagonals.
    asked = eight[["local_x", "local_y"]].to_numpy()
    assert asked[100:200] == pytest.approx(np.tile([0.0, 1.0], (100, 1)))
    assert asked[300:400] == pytest.approx(np.full((100, 2), math.sqrt(0.5)))
    radius = 3.2 * 4.0 / math.tau
    assert eight["pos_x"].max() == pytest.approx(2.0 * radius, rel=0.05)
    assert eight["pos_x"].min() == pytest.approx(-2.0 * radius, rel=0.05)
    assert math.hypot(eight["pos_x"].iloc[-1], eight["pos_y"].iloc[-1]) < 0.5


def test_a_probe_is_made_of_the_controls_of_the_player_for_whom_it_is(tmp_path, monkeypatch, capsys):
    """Two players, one with WASD and a tapping right hand, the other with arrows and a stick of her own."""
    path = tmp_path / "couch.toml"
    path.write_text("""
        format = "wendonic-profile"
        version = 1
        [seat.anna]
        keys = ["KeyW", "KeyA", "KeyS", "KeyD", "KeyE", "ControlLeft"]
        [seat.bela]
        keys = ["ArrowUp", "ArrowLeft", "ArrowDown", "ArrowRight", "Enter"]
        [mode.yard]
        [[mode.yard.move.bind]]
        keys = { forward = ["KeyW", "ArrowUp"], back = ["KeyS", "ArrowDown"], left = ["KeyA", "ArrowLeft"], right = ["KeyD", "ArrowRight"] }
        [[mode.yard.move.bind]]
        stick = "pad.left_stick"
        seat = "bela"
        [mode.yard.press]
        jump = { bind = ["ControlLeft+KeyE", { control = "pad.right_trigger", above = 0.3 }], buffer_s = 0.1 }
        [gait.walk]
        gravity_m_s2 = 20
        jump = { press = "jump", height_m = 1 }
        """)  # noqa: E501
    profile = load_profile(path)
    expected = {
        (None, "tap"): {"key.KeyW"},
        ("anna", "tap"): {"key.KeyW"},
        ("bela", "tap"): {"key.ArrowUp"},
        ("bela", "circle_60"): {"pad1.left_stick"},
        ("pad2", "circle_60"): {"pad2.left_stick"},
        ("anna", "jump_hold"): {"key.ControlLeft", "key.KeyE"},
        ("bela", "jump_hold"): {"pad1.right_trigger"},
    }
    for (seat, probe), controls in expected.items():
        recording = probe_of(profile, probe, seat=seat)
        assert {event.control for event in recording} - {"mark"} == controls
        trace = shape(recording, profile, seat=seat)
        assert np.ptp(trace["pos_z"] if probe == "jump_hold" else trace["pos_y"]) > 0.05, (seat, probe)
    with pytest.raises(WendonicError, match='probe circle_60, mode "yard", seat "anna": this mode has no stick'):
        probe_of(profile, "circle_60", seat="anna")
    monkeypatch.chdir(tmp_path)
    for seat in ("anna", "bela"):
        app(["shape", "couch.toml", "each_direction", "--seat", seat], standalone_mode=False)
        # Eight directions for a second each, at 22 m/s² up to 3.2 m/s, and a way to stop at 30 m/s².
        assert f"walked {8 * (3.2 - 3.2**2 / 44 + 3.2**2 / 60):.1f} m" in capsys.readouterr().out


@pytest.mark.parametrize("side_view", [False, True])
def test_a_body_that_only_goes_to_places_has_probes_and_is_compared_by_default(side_view):
    """At 2 m/s and at once: places a second apart, eight of them round an octagon, or to and fro."""

    def walker(arrival_m):
        return profile_from_text(f"""
            format = "wendonic-profile"
            version = 1
            [window]
            plan = {{ left_m = -9, right_m = 9, forward_m = 5, back_m = -5 }}
            [mode.m]
            steer = {{ frame = "goto", arrival_m = {arrival_m}, slow_down_m = 0{", side_view = true" * side_view} }}
            [[mode.m.goal.bind]]
            pointer = "pointer.at"
            [gait.walk]
            top_speed_m_s = 2
            accel_m_s2 = 1e5
            brake_m_s2 = 1e5
            """)

    profile = walker(0.001)
    walked = shape(probe_of(profile, "each_direction"), profile, hz=100)
    corners = walked[walked["arrived"].astype(bool)][["pos_x", "pos_y"]].to_numpy()
    slant = math.sqrt(2.0)
    octagon = [(0, 2), (slant, 2 + slant), (2 + slant, 2 + slant), (2 + 2 * slant, 2), (2 + 2 * slant, 0)]
    expected = [(2, 0), (4, 0), (2, 0)] if side_view else octagon
    assert corners[: len(expected)] == pytest.approx(np.array(expected), abs=0.01)
    assert corners[-1] == pytest.approx([0.0, 0.0], abs=0.01)
    back = shape(probe_of(profile, "reversal"), profile, hz=100)
    assert max(back["pos_x" if side_view else "pos_y"]) == pytest.approx(2.0, abs=0.05)
    if not side_view:
        headings = shape(probe_of(profile, "quarter_turn"), profile, hz=100)["heading_deg"]
        assert (headings[50], headings[200]) == pytest.approx((0.0, 90.0), abs=1.0)
    compared = compare({"one": profile, "other": walker(0.3)}, engine="interpreted")
    one, other = compared.traces["figure_of_eight"]
    assert math.hypot(one["pos_x"].iloc[-1], one["pos_y"].iloc[-1]) < 0.01
    assert steps_m(one).sum() > steps_m(other).sum() > 6.0


@pytest.mark.parametrize("name", few_of(sorted(set(RECORDINGS.values())), {"beekeeper", "headset"}))
def test_every_probe_suits_a_mode_or_says_what_is_missing(name):
    profile, said = demo_profile(name), []
    for mode in profile.mode:
        for probe in PROBES:
            try:
                recording = probe_of(profile, probe, mode)
            except WendonicError as error:
                said.append(str(error).startswith(f'probe {probe}, mode "{mode}": this mode has no '))
                continue
            assert recording.duration_s > 0.5
            trace = shape(recording, profile, mode=mode)
            assert np.isfinite(trace[["pos_x", "pos_y", "pos_z"]]).all(axis=None)
    assert all(said)


def test_many_profiles_are_compared_in_tables_that_fit_the_terminal(tmp_path, capsys, monkeypatch):
    monkeypatch.setenv("COLUMNS", "80")
    paths = [tmp_path / f"orchard_in_late_summer_{number:02d}.toml" for number in range(5)]
    for number, path in enumerate(paths):
        path.write_text(BASE.replace("accel_m_s2 = 22 ", f"accel_m_s2 = {10 + number} "))
    with pytest.raises(SystemExit):
        app(["compare", *map(str, paths), "--on", "tap"], prog_name="wendonic")
    out = capsys.readouterr().out
    assert "…" not in out
    assert max(map(len, out.splitlines())) <= 80
    cells = [cell for line in out.splitlines() if "reach90_s" in line for cell in line.split() if "." in cell]
    assert [float(cell) for cell in cells] == pytest.approx(
        [0.9 * 3.2 / (10 + number) for number in range(5)], rel=1e-3
    )
    # Each heads a column of each of the three tables; the first one is what the others are held against, too.
    assert [out.count(path.stem) for path in paths[1:]] == [3] * 4


def test_the_command_compares(tmp_path, capsys):
    slow = tmp_path / "slow.toml"
    slow.write_text(SLOW)

    def run(*words):
        with pytest.raises(SystemExit) as end:
            app([str(word) for word in words], prog_name="wendonic")
        return end.value.code, capsys.readouterr().out

    quick, picture = FOLDER / "beekeeper.toml", tmp_path / "both.png"
    code, out = run("compare", quick, slow, "--on", FOLDER / "beekeeper_keys.jsonl", "--on", "tap", "-o", picture)
    assert code == 0
    assert f"wrote {picture}" in out
    assert "* reach90_s" in out
    assert "  stop_distance_m" in out
    assert "gait.walk.accel_m_s2" in out
    assert picture.exists()
    content = json.loads(run("compare", quick, slow, "--json")[1])
    assert list(content["profiles"]) == ["beekeeper", "slow"]
    assert content["profiles"]["slow"]["values"]["diagonal_ratio"]["value"] == pytest.approx(math.sqrt(2.0))
    accel = content["settings"]["gait.walk.accel_m_s2"]
    assert (accel["unit"], list(accel["values"].values())) == ("m/s²", [22.0, 9.0])
    assert "settings: the same" in run("compare", quick, quick)[1]
    # A probe that does not suit is said after the tables, and every probe is named under --help.
    with pytest.raises(SystemExit):
        app(["compare", "--help"], prog_name="wendonic")
    reported = " ".join(capsys.readouterr().out.split())
    assert ", ".join(PROBES) in reported
    with pytest.raises(WendonicError, match='probe jump_tap, mode "room": this mode has no press that jumps'):
        app(["compare", str(quick), str(FOLDER / "store_room.toml"), "--on", "jump_tap"], standalone_mode=False)
    reported = capsys.readouterr().out
    assert "* stop_time_s" in reported
    assert reported.count("mode.shelves") == 1
    with pytest.raises(WendonicError, match="neither a recording nor a probe; probes: each_direction"):
        inputs_named(["tapp"])
    # What only looks is compared by its sheet; there is no walk to draw.
    for name, cm in (("slow", 40), ("quick", 30)):
        look = f'[[mode.m.look.bind]]\nmouse = "mouse.move"\ncm_per_turn = {cm}\n'
        (tmp_path / f"{name}.toml").write_text(f'format = "wendonic-profile"\nversion = 1\n{look}')
    looks = {name: load_profile(tmp_path / f"{name}.toml") for name in ("slow", "quick")}
    compared = compare(looks)
    assert (dict(compared.traces), compared.differs("mouse_deg_per_10cm")) == ({}, True)
    words = ["compare", *(str(tmp_path / f"{name}.toml") for name in looks)]
    with pytest.raises(WendonicError, match="no walk to draw; wendonic draw look shows how they turn the view"):
        app([*words, "-o", str(tmp_path / "look.png")], standalone_mode=False)
    assert "* mouse_deg_per_10cm" in capsys.readouterr().out
    with pytest.raises(WendonicError, match="two or more"):
        compare({"one": demo_profile()})


def test_the_numbers_of_an_input_are_those_of_its_traces_and_of_their_differences(beekeeper):
    profiles = {"a": beekeeper, "b": profile_from_text(SLOW), "again": beekeeper}
    traces = traces_of(profiles, {"each_direction": None}, engine="interpreted")
    found = numbers_on(profiles, traces)["each_direction"]
    for walk, trace in zip(found.walks, traces["each_direction"], strict=True):
        assert walk.end_x_m == trace["pos_x"].iloc[-1]
    none, slow, same = found.differences
    assert none is None
    assert same.most_apart_m == 0.0
    assert same.parts_s is None
    # 22 and 9 m/s² are so far apart after half of 13 m/s² t²: 50 mm, from the first press on.
    assert slow.parts_s == pytest.approx(math.sqrt(2.0 * 0.05 / 13.0), abs=0.04)


def test_views_that_turn_differently_part_as_well(beekeeper):
    """10 cm of a mouse in half a second: 36 / 34 and 36 / 45 of 100 deg, the one 25.9 deg further than the other."""
    profiles = {"quick": beekeeper, "slow": beekeeper.changed({"mode.foot.look.bind[0].cm_per_turn": 45})}
    found = numbers_on(profiles, traces_of(profiles, {"swipe": None}, engine="interpreted"))["swipe"]
    assert [walk.turned_deg for walk in found.walks] == pytest.approx([3600.0 / 34.0, 3600.0 / 45.0], rel=1e-3)
    apart = found.differences[1]
    assert (apart.most_apart_m, apart.heading_rms_deg) == (0.0, None)
    assert apart.view_apart_deg == pytest.approx(3600.0 / 34.0 - 3600.0 / 45.0, rel=1e-3)
    # They are a degree apart after 1 / 25.9 of the swipe.
    assert apart.parts_s == pytest.approx(0.5 / apart.view_apart_deg, abs=1.0 / 120.0)


def test_settings_are_written_as_a_profile_writes_them(beekeeper):
    other = beekeeper.changed(
        {
            "mode.foot.look.bind[1].invert_pitch": True,
            "mode.foot.press.smoke.bind": ["KeyF", {"control": "pad.left_trigger", "above": 0.7, "release": 0.5}],
        }
    )
    found = compare({"ours": beekeeper, "theirs": other}, {}, engine="interpreted")
    shown = {path: values for path, *values in map(found.setting_words, found.settings)}
    assert shown["mode.foot.look.bind[1].invert_pitch"] == ["false", "true"]
    ours, theirs = shown["mode.foot.press.smoke.bind"]
    assert ours.startswith("mouse.left, {")
    key, _, table = theirs.partition(", ")
    assert key == "key.KeyF"
    assert tomllib.loads(f"bind = {table}")["bind"] == {"control": "pad.left_trigger", "above": 0.7, "release": 0.5}


def test_recordings_of_one_stem_are_kept_apart(beekeeper, tmp_path):
    paths = []
    for number in range(2):
        path = tmp_path / f"day {number}" / "walk.jsonl"
        path.parent.mkdir()
        probe_of(beekeeper, "tap").write(path)
        paths.append(str(path))
    assert list(inputs_named([*paths, "tap"])) == ["day 0/walk", "day 1/walk", "tap"]


@pytest.mark.long
def test_twelve_inputs_have_room(beekeeper, tmp_path, recwarn):
    names = ["tap", "each_direction", "reversal", "quarter_turn", "circle_30", "circle_60", "circle_90", "jump_tap"]
    probe_of(beekeeper, "tap").write(tmp_path / "walk.jsonl")
    probe_of(beekeeper, "reversal").write(tmp_path / "back.jsonl")
    own = [str(tmp_path / "walk.jsonl"), str(tmp_path / "back.jsonl")]
    inputs = inputs_named([*own, *names, "swipe", "figure_of_eight"])
    assert len(inputs) == 12
    both = {"a": beekeeper, "b": profile_from_text(SLOW)}
    axes = draw_comparison(compare(both, inputs, engine="interpreted"))
    save_picture(axes, tmp_path / "twelve.png")
    assert not [str(warning.message) for warning in recwarn if "layout" in str(warning.message)]
    figure = axes[0].figure
    renderer = FigureCanvasAgg(figure).get_renderer()
    boxes = [ax.get_tightbbox(renderer) for ax in axes[::3]]
    assert all(lower.y1 <= upper.y0 for upper, lower in itertools.pairwise(boxes))


def test_looking_round_is_compared_by_where_the_view_points(beekeeper):
    """34 and 17 cm a turn: the same swipes turn the view twice as far, and at twice the rate."""
    fast = beekeeper.changed({"mode.foot.look.bind[0].cm_per_turn": 17})
    swipes = Recording([Event(n / 120, "mouse.move", (10.0, -4.0)) for n in range(241)])
    compared = compare({"slow": beekeeper, "fast": fast}, {"swipes": swipes}, engine="interpreted")
    view, rate, yaw = draw_comparison(compared)
    far_deg = 241 * math.hypot(10.0, 4.0) * 360.0 * 2.54 / (34.0 * 800.0)
    assert view.get_title(loc="left") == f"swipes: view turned {far_deg:.0f} to {2 * far_deg:.0f} deg"
    for panel in (view, rate, yaw):
        slow, fast_line = (line.get_xydata()[:, 1] for line in panel.lines if len(line.get_xydata()) > 1)
        assert fast_line == pytest.approx(2.0 * slow)
    assert "deg/s" in rate.get_ylabel()


@pytest.mark.long
def test_a_probe_is_drawn_and_shaped_by_its_name(tmp_path, capsys, monkeypatch):
    monkeypatch.chdir(tmp_path)

    def run(*words):
        with pytest.raises(SystemExit) as end:
            app([str(word) for word in words], prog_name="wendonic")
        return end.value.code, capsys.readouterr().out

    beekeeper = FOLDER / "beekeeper.toml"
    for picture in ("path", "timeline", "frame", "stick"):
        assert run("draw", picture, beekeeper, "each_direction", "-o", f"{picture}.png")[0] == 0
        assert (tmp_path / f"{picture}.png").stat().st_size > 1000
    code, out = run("shape", beekeeper, "each_direction", "-o", "walk.csv")
    assert (code, "wrote walk.csv: 960 ticks" in out) == (0, True)
    # Where other commands need --on, it may stand here, too.
    for words in (("--on", "each_direction", beekeeper), (beekeeper, "--hz", 60, "--on=each_direction")):
        assert run("shape", *words, "-o", "same.csv")[0] == 0
        assert (tmp_path / "same.csv").read_text() == (tmp_path / "walk.csv").read_text()
    with pytest.raises(SystemExit) as end:
        app(["shape", str(beekeeper), "--on"])
    assert (end.value.code, "Missing argument 'RECORDING|PROBE'" in capsys.readouterr().err) == (2, True)
    with pytest.raises(WendonicError, match="eech_direction is neither a recording nor a probe"):
        app(["shape", str(beekeeper), "eech_direction"], standalone_mode=False)
    both = ("compare", beekeeper, FOLDER / "harvest.toml", "--on", "tap")
    assert "on tap, at 30 ticks a second" in run(*both, "--hz", 30)[1]
    content = json.loads(run("compare", beekeeper, FOLDER / "harvest.toml", "--on", "tap", "--json")[1])
    values = content["on"]["tap"]["harvest"]["values"]
    assert values["differs.speed_rms_m_s"]["unit"] == "m/s"
    assert "differs.parts_s" not in content["on"]["tap"]["beekeeper"]["values"]


@pytest.mark.parametrize("width", few_of([80, 110, 160], [80]))
def test_settings_stand_side_by_side_with_paths_that_can_be_copied(width, capsys, monkeypatch):
    monkeypatch.setenv("COLUMNS", str(width))
    with pytest.raises(SystemExit):
        app(["compare", str(FOLDER / "beekeeper.toml"), str(FOLDER / "harvest.toml")], prog_name="wendonic")
    lines = capsys.readouterr().out.splitlines()
    assert max(map(len, lines)) <= width
    (head,) = (line for line in lines if line.split()[:1] == ["setting"])
    assert head.split() == ["setting", "beekeeper", "harvest"]
    rows = [line.split() for line in lines[lines.index(head) :]]
    for path, one, other in (
        ("mode.foot.move.bind[1].dead_zone.release", "0.11", "-"),
        ("mode.foot.look.bind[0].invert_pitch", "false", "-"),
        ("mode.foot.steer.frame", "camera", "map"),
    ):
        assert [path, one, other] in rows


@pytest.mark.long
def test_a_recording_of_another_device_or_player_is_said_to_do_nothing_and_no_other_is(tmp_path, caplog, monkeypatch):
    monkeypatch.chdir(tmp_path)
    beekeeper, cart = FOLDER / "beekeeper.toml", FOLDER / "cart.toml"
    hands, pad = FOLDER / "headset_walk.jsonl", FOLDER / "beekeeper_pad.jsonl"

    def warned(*words):
        caplog.clear()
        with pytest.raises(SystemExit) as end:
            app([str(word) for word in words], prog_name="wendonic")
        assert end.value.code == 0
        return caplog.messages

    said = "nothing in the recording has an effect in mode foot"
    (of_hands,) = warned("shape", beekeeper, hands)
    assert of_hands == f"{said}: its controls are hand.left.squeeze, hand.right.squeeze, head.pose and 5 more"
    assert warned("draw", "path", beekeeper, hands, "-o", "a.png") == [of_hands]
    assert warned("shape", beekeeper, pad, "--seat", "pad1") == [
        f"{said} of seat pad1: its controls are pad.left_stick"
    ]
    both = warned("compare", beekeeper, cart, "--on", hands)
    assert [one.split(":")[0] for one in both] == ["beekeeper, headset_walk", "cart, headset_walk"]
    # Fingers at rest, a press alone, a look alone, and notes alone are no such thing.
    events = {
        "rest": [Event(0.0, "pad.left_stick", (0.01, 0.0)), Event(1.0, "pad.left_stick", (0.02, 0.0))],
        "press": [Event(0.0, "key.Space", 1), Event(1.0, "key.Space", 0)],
        "look": [Event(0.0, "mouse.move", (30.0, 0.0)), Event(1.0, "mouse.move", (-30.0, 0.0))],
        "notes": [Event(0.0, "mark", "begin"), Event(1.0, "mark", "end")],
    }
    for name, content in events.items():
        Recording(content).write(tmp_path / f"{name}.jsonl")
        assert warned("shape", beekeeper, f"{name}.jsonl") == [], name
