"""The command line as a user runs it: another process, its exit status, and what it says where."""

import contextlib
import io
import json
import re
import shutil
import struct
import subprocess
import sys
from pathlib import Path
from unittest import mock

import numpy as np
import pandas as pd
import pytest
from matplotlib.image import imread

from wendonic import Event, Recording, __version__, load_profile, shape
from wendonic.cli.main import main
from wendonic.demo import FOLDER, PROFILE_PATH, demo_profile, profile_names
from wendonic.reference.json_schema import json_schema

KEYS = FOLDER / "beekeeper_keys.jsonl"
PAD = FOLDER / "beekeeper_pad.jsonl"


def run(*words, folder=None, script=False):
    command = [str(Path(sys.executable).parent / "wendonic")] if script else [sys.executable, "-m", "wendonic"]
    command += map(str, words)
    return subprocess.run(command, check=False, cwd=folder, capture_output=True, text=True, timeout=120)


def called(*words, folder=None):
    """Do what `run` does in this process: the same words and the same end, without starting anew each time."""
    out, error = io.StringIO(), io.StringIO()
    words = ["wendonic", *map(str, words)]
    with (
        contextlib.chdir(folder or Path.cwd()),
        mock.patch.object(sys, "argv", words),
        contextlib.redirect_stdout(out),
        contextlib.redirect_stderr(error),
        pytest.raises(SystemExit) as end,
    ):
        main()
    return subprocess.CompletedProcess(words, end.value.code or 0, out.getvalue(), error.getvalue())


def test_both_ways_to_call_it_say_the_version(tmp_path):
    for script in (True, False):
        done = run("--version", folder=tmp_path, script=script)
        assert (done.returncode, done.stdout) == (0, f"wendonic {__version__}\n")


@pytest.mark.parametrize("encoding", ["ascii", "cp437"])
@pytest.mark.parametrize("words", [("schema",), ("controls", "pad"), ("measure", PROFILE_PATH, "--of", "reach90_s")])
def test_characters_that_a_terminal_cannot_show_are_escaped(words, encoding):
    """Terminals and pipes of Windows know a few hundred letters; a superscript is not always among them."""
    shown = io.TextIOWrapper(io.BytesIO(), encoding=encoding, write_through=True)
    argv = mock.patch.object(sys, "argv", ["wendonic", *map(str, words)])
    with argv, contextlib.redirect_stdout(shown), pytest.raises(SystemExit) as end:
        main()
    text = shown.buffer.getvalue().decode("ascii" if words == ("schema",) else encoding)
    assert end.value.code in (None, 0)
    assert text.count("\n") > 1
    if words == ("schema",):
        assert json.loads(text) == json_schema("profile")


TERRACES, COURSE = FOLDER / "terraces.toml", FOLDER / "terraces_course.toml"
COMMANDS = [
    "",
    "check",
    "demo",
    "new",
    "shape",
    "info",
    "convert",
    "record",
    "units",
    "measure",
    "draw",
    "cut",
    "join",
]
COMMANDS += [f"draw {picture}" for picture in ("stick", "curve", "diagonals", "look", "timeline", "path", "frame")]
COMMANDS += ["draw devices", "draw feel", "draw calibration", "compare", "calibrate", "fit", "sweep", "cut", "join"]


@pytest.mark.parametrize("words", COMMANDS)
def test_every_help_has_an_example(words):
    done = called(*words.split(), "--help")
    assert done.returncode == 0
    example = "Begin with: wendonic demo" if not words else f"Example: wendonic {words}"
    assert example in " ".join(done.stdout.split())
    # Values are named by what they are, not by their type in Python.
    assert not re.search(r"<\w|list\[|\{\w", done.stdout)


def test_demo_does_the_whole_way(tmp_path):
    # Whoever changed a number, as it says, does not lose it to a second run.
    profile = tmp_path / "demo-out" / "beekeeper.toml"
    profile.parent.mkdir()
    changed = PROFILE_PATH.read_text().replace("3.2", "4.1")
    profile.write_text(changed)
    done = called("demo", "-o", "demo-out", folder=tmp_path)
    assert done.returncode == 0, done.stderr
    assert profile.read_text() == changed
    assert f"kept your changes in {Path('demo-out', 'beekeeper.toml')}" in done.stdout
    rows = {
        cells[0].strip(): [cell.strip() for cell in cells[1:]]
        for line in done.stdout.splitlines()
        if len(cells := line.strip("│").split("│")) == 4
    }
    assert rows["ticks"] == ["2160", "2160", "1021"]
    assert rows["top amount (1 is full)"] == ["1.000"] * 3
    assert rows["straight speed (m/s)"] == ["3.200"] * 3
    assert [float(cell) for cell in rows["diagonal speed (m/s)"]] == pytest.approx([3.2] * 3, abs=0.01)
    assert rows["rest drift (m/min)"] == ["0.000"] * 3
    out = tmp_path / "demo-out"
    devices = ("keys", "pad", "mouse")
    pictures = {f"beekeeper_{device}_{picture}.png" for device in devices for picture in ("timeline", "path")}
    pictures |= {"beekeeper_mouse_devices.png"}
    assert {path.name for path in out.glob("*.png")} == {"stick.png"} | pictures
    assert len(pd.read_csv(out / "beekeeper_pad.csv")) == 2160
    # What it says to do next works as it stands.
    done = called(*done.stdout.splitlines()[-1].split()[1:], folder=tmp_path)
    assert done.stdout == "wrote beekeeper_keys-timeline.png\n", done.stderr


def test_new_writes_a_profile_that_works_and_refuses_to_overwrite(tmp_path):
    path = tmp_path / "scout.toml"
    assert called("new", path).returncode == 0
    assert load_profile(path).title == "scout"
    shipped = PROFILE_PATH.read_text()
    assert path.read_text().replace('"scout"', '"Beekeeper on the terraces"') == shipped
    path.write_text("mine")
    done = called("new", path)
    assert (done.returncode, path.read_text()) == (2, "mine")
    assert "already exists; name another file, or overwrite it with --force" in done.stderr
    assert called("new", path, "--force").returncode == 0
    assert load_profile(path).title == "scout"


@pytest.mark.parametrize("ending", ["csv", "parquet", "jsonl"])
def test_shape_writes_what_the_library_gives(tmp_path, ending):
    path = tmp_path / f"walk.{ending}"
    done = called("shape", PROFILE_PATH, KEYS, "-o", path, "--hz", "30")
    first, second = done.stdout.splitlines()
    assert first == f"wrote {path}: 1080 ticks, 41 columns", done.stderr
    assert second.startswith("top amount 1.000, straight 3.200 m/s, diagonal 3.200 m/s, walked 8")
    reader = {"csv": pd.read_csv, "parquet": pd.read_parquet, "jsonl": lambda file: pd.read_json(file, lines=True)}
    expected = shape(Recording.read(KEYS), load_profile(PROFILE_PATH), hz=30)
    assert reader[ending](path)["pos_y"].to_numpy() == pytest.approx(expected["pos_y"].to_numpy(), abs=1e-9)


def test_shape_walks_on_a_course(tmp_path):
    words = [TERRACES, FOLDER / "terraces_walk.jsonl", "--course", COURSE, "-o", tmp_path / "walk.csv"]
    assert called("shape", *words).returncode == 0
    heights = pd.read_csv(tmp_path / "walk.csv")["pos_z"]
    assert (heights.min(), heights.max()) == (0.0, 4.0)


def test_shape_prints_a_table_that_fits_80_columns():
    done = run("shape", PROFILE_PATH, PAD)
    assert done.returncode == 0, done.stderr
    lines = [line.rstrip() for line in done.stdout.splitlines()]
    assert lines[0] == "1 tick of 87, 2160 in all; -o FILE.csv writes them all with every column"
    assert max(map(len, lines[:-1])) <= 80
    assert lines[-1].endswith("walked 57.8 m, rest drift 0.000 m/min")
    assert "…" not in done.stdout
    row = next(line.split() for line in lines if line.split()[0] == "18.85")
    assert row[1] == "pad"
    idle = called("shape", FOLDER / "rounds.toml", FOLDER / "lookout_devices.jsonl", "--to", "2").stdout.split("\n")
    assert {line.split()[1] for line in idle if line.startswith("1.")} == {"-"}
    assert row[9] == "3.20"
    driven = called("shape", FOLDER / "cart.toml", FOLDER / "cart_ride.jsonl").stdout.split("\n")
    assert driven[2].split() == "(s) device throttle turn amount (deg) (deg) (m/s) (m) (m)".split()
    assert driven[4].split()[:4] == ["1.35", "keys", "1.00", "0.00"]


@pytest.mark.long
def test_shape_shows_the_view_of_a_player_who_only_looks_and_late_clocks_from_their_start(tmp_path):
    """34 cm a turn at 800 dpi; 24 counts to the right in every tick, by a clock that started in 1970."""
    turn_deg = 24 * 360.0 * 2.54 / (34.0 * 800.0)
    start_s = 1764500000.0
    looks = [Event(start_s + n / 60, "mouse.move", (24.0, 0.0)) for n in range(61)]
    Recording(looks).write(tmp_path / "look.jsonl")
    done = run("shape", PROFILE_PATH, tmp_path / "look.jsonl")
    lines = [line.rstrip() for line in done.stdout.splitlines()]
    assert lines[0].startswith("1 tick of 3, 60 in all; t counts from 1764500000 s; "), done.stderr
    assert lines[2].split() == "(s) device (deg/s) (deg/s) (deg) (deg)".split()
    # The first tick has the counts of both its ends.
    shown = [float(word) if word != "mouse" else word for word in lines[-2].split()]
    assert shown == [1.0, "mouse", round(turn_deg * 60, 1), 0.0, pytest.approx(61 * turn_deg % 360, abs=0.05), 0.0]
    assert lines[-1] == f"top amount 0.000, walked 0.0 m, view turned {61 * turn_deg:.0f} deg, rest drift 0.000 m/min"
    outside = run("shape", PROFILE_PATH, tmp_path / "look.jsonl", "--to", "3").stderr
    assert outside.endswith("nothing before 3 s; the recording runs from 1764500000 s to 1764500001 s\n")


def test_a_jump_seen_from_the_side_has_a_height_and_no_speed_up(tmp_path):
    path = tmp_path / "hop.toml"
    keys = 'keys = { left = ["KeyA"], right = ["KeyD"] }\n[mode.m.press]\njump = { bind = ["Space"] }\n'
    gait = "[gait.walk]\ntop_speed_m_s = 4\njump = { press = 'jump', height_m = 2 }\n"
    head = 'format = "wendonic-profile"\nversion = 1\n[mode.m]\nsteer = { frame = "map", side_view = true }\n'
    path.write_text(f"{head}[[mode.m.move.bind]]\n{keys}{gait}", newline="\n")
    hops = [Event(0.0, "key.KeyD", 1), Event(1.0, "key.Space", 1), Event(2.5, "mark", "end")]
    Recording(hops).write(tmp_path / "hop.jsonl")
    lines = run("shape", path, tmp_path / "hop.jsonl").stdout.splitlines()
    rows = [line.split() for line in lines[4:-2]]
    assert lines[1].split()[-1] == "up"
    assert {row[9] for row in rows if float(row[0]) > 0.5} == {"4.00"}
    assert max(float(row[-1]) for row in rows) == pytest.approx(2.0, abs=0.2)
    assert lines[-2] == "presses that began: jump 1"
    assert lines[-1].startswith("top amount 1.000, straight 4.000 m/s")


def test_draw_stick_and_path_write_pictures(tmp_path):
    cases = [
        ["stick", PROFILE_PATH, PAD],
        ["path", TERRACES, FOLDER / "terraces_walk.jsonl", "--course", FOLDER / "terraces_course.toml"],
        ["frame", PROFILE_PATH, KEYS, "--at", "3", "--at", "17.5"],
        ["diagonals", FOLDER / "store_room.toml", "--mode", "ladder"],
        ["look", PROFILE_PATH, FOLDER / "lookout.toml"],
    ]
    for words in cases:
        done = called("draw", *words, "-o", tmp_path / "picture.png")
        assert done.stdout == f"wrote {tmp_path / 'picture.png'}\n", done.stderr
        assert imread(tmp_path / "picture.png").shape[:2] == (800, 1280)
        (tmp_path / "picture.png").unlink()


@pytest.mark.parametrize(
    ("words", "shown"),
    [
        ("--factor 0.9 --hz 30", "half-life of times 0.9 each frame 0.21929 s"),
        ("--share 0.1 --hz 30", "half-life of covering 0.1 of the rest each frame 0.21929 s"),
        ("--per-frame-squared 0.2 --hz 30 --unit px", "0.2 px/frame² 180 px/s²"),
        ("--per-frame 3 --hz 30 --unit deg", "3 deg/frame 90 deg/s"),
        ("--factor 1.1", "factor: found 1.1; allowed: above 0 and below 1"),
        ("--share 1", "share: found 1.0; allowed: above 0 and below 1"),
        ("--per-frame 3 --hz 0", "hz: found 0.0; allowed: a finite number above 0"),
        ("--per-frame nan", "per_frame: found nan; allowed: a finite number"),
    ],
)
def test_numbers_of_a_frame_become_numbers_of_a_second(words, shown):
    done = called("units", *words.split())
    assert shown in " ".join((done.stdout + done.stderr).split())
    assert "full turn" not in done.stdout


def test_look_units_convert_between_each_other():
    reported = called("units", "--counts-per-turn", "7200", "--dpi", "1600", "--rate-deg-s", "90").stdout
    for words, value in (
        ("mouse for a full turn", "11.43"),
        ("hand for 90 deg/s", "2.8575"),
        ("mouse for 90", "1800"),
    ):
        assert any(words in line and value in line for line in reported.splitlines()), reported
    assert reported.endswith("in a profile: deg_per_count = 0.05\n")
    done = called("units", "--counts-per-turn", "7200", "--cm-per-turn", "30")
    assert (done.returncode, "allowed: one of them" in done.stderr) == (2, True)


@pytest.mark.parametrize(
    ("shipped", "first"),
    [
        ("beekeeper.toml", 'Profile "Beekeeper on the terraces"'),
        ("yard_course.toml", 'Course "The yard behind the extractor shed"'),
        ("beekeeper_keys.jsonl", 'Recording "Beekeeper with keys, once round the hives"'),
    ],
)
@pytest.mark.parametrize("ending", ["", ".txt", ".toml"])
def test_info_goes_by_what_a_file_says_that_it_is(shipped, first, ending, tmp_path):
    shutil.copy(FOLDER / shipped, tmp_path / f"copy{ending}")
    assert called("info", tmp_path / f"copy{ending}").stdout.splitlines()[0] == first


def test_info_tells_in_words():
    assert "down 5 times" in run("info", KEYS).stdout
    words = called("info", PAD).stdout
    assert "3983 events" in words
    assert 'mark at 30.00 s: "hands off"' in words
    assert "  axes: right-handed, y up; forward is -z, right is +x\n" in called("info", PROFILE_PATH).stdout
    assert (
        "ramp: x -5 to 40 m, y 9 to 10.5 m, from 2 to 4 m up forward, a slope of 53.1 deg"
        in called("info", COURSE).stdout
    )


def test_a_stretch_is_cut_and_walks_as_it_did_within_the_whole(tmp_path):
    whole, stretch, both = Recording.read(KEYS), tmp_path / "dodge.jsonl", tmp_path / "both.parquet"
    done = called("cut", KEYS, "-o", stretch, "--from", "26.5", "--to", "29.25")
    assert done.stdout == f"wrote {stretch}: {len(Recording.read(stretch))} events from 26.50 s to 29.25 s\n"
    part = Recording.read(stretch)
    assert (part.start_s, part.start_s + part.duration_s) == (26.5, 29.25)
    profile = load_profile(PROFILE_PATH)
    # From its second tenth of a second on, when ramps have run, as in the whole.
    alone, within = (shape(found, profile, hz=60) for found in (part, whole))
    alone = alone.iloc[6:]
    within = within.iloc[np.searchsorted(within["t"] + 1e-6, alone["t"])]
    np.testing.assert_allclose(alone["amount"], within["amount"], atol=0.02)
    done = called("join", stretch, stretch, "-o", both, "--pause", "2")
    twice = Recording.read(both)
    assert done.stdout == f"wrote {both}: 2 recordings, {len(twice)} events, 7.50 s\n"
    walked = shape(twice, profile)
    pause = walked[(walked["t"] > 3.0) & (walked["t"] < 4.7)]
    assert (pause["amount"] == 0.0).all()
    at_s = [event.t for event in twice if event.control == "mark" and event.value == part.title]
    assert at_s == [0.0, 4.75]
    second = [(event.t - 4.75, event.control) for event in twice if event.t >= 4.75]
    begins = [(0.0, "body.restart"), (0.0, "mark")]
    assert second == begins + [(pytest.approx(event.t - 26.5), event.control) for event in part]
    for words, said in (
        (
            ("cut", stretch, "-o", tmp_path / "x.jsonl", "--from", "40"),
            "nothing after 40 s; the recording runs from 26.5 s",
        ),
        (
            ("cut", stretch, "-o", tmp_path / "x.jsonl", "--from", "29", "--to", "28"),
            "allowed: the end after the start",
        ),
        (("cut", stretch, "-o", tmp_path / "x.jsonl", "--to", "nan"), "allowed: finite times"),
        (("cut", stretch, "-o", tmp_path / "x.jsonl"), "give --from, or --to, or both"),
        (("cut", stretch, "-o", stretch, "--to", "28"), "is what this reads"),
        (("join", stretch, "-o", tmp_path / "x.jsonl"), "two or more to join"),
        (("join", stretch, stretch, "-o", tmp_path / "x.jsonl", "--pause", "-1"), "allowed: 0 to 3600 s"),
    ):
        failed = called(*words)
        assert failed.returncode == 2
        assert said in " ".join(failed.stderr.split()), failed.stderr
    assert not (tmp_path / "x.jsonl").exists()


@pytest.mark.long
def test_a_window_shows_what_the_whole_came_to_there(tmp_path):
    trace, whole = tmp_path / "part.csv", shape(Recording.read(KEYS), load_profile(PROFILE_PATH))
    done = called("shape", PROFILE_PATH, KEYS, "--from", "26", "--to", "30.5", "-o", trace)
    assert done.returncode == 0, done.stderr
    part = pd.read_csv(trace)
    within = whole[(whole["t"] > 26.0 + 1e-9) & (whole["t"] - whole["dt"] < 30.5 - 1e-9)]
    np.testing.assert_allclose(part[["t", "pos_x", "pos_y"]], within[["t", "pos_x", "pos_y"]])
    windows = ["--from", "26", "--to", "30.5"]
    for words in (
        ("draw", "frame", PROFILE_PATH, KEYS),
        ("draw", "stick", PROFILE_PATH, PAD),
        ("compare", PROFILE_PATH, TERRACES, "--on", KEYS, "--course", COURSE, "--seat", "pad1"),
    ):
        done = called(*words, *windows, "-o", tmp_path / "picture.png")
        assert done.returncode == 0, done.stderr
        assert done.stdout.endswith(f"wrote {tmp_path / 'picture.png'}\n")
    assert called("draw", "frame", PROFILE_PATH, KEYS, "--from", "900", "-o", tmp_path / "x.png").returncode == 2


def test_every_shipped_profile_is_there_to_begin_with(tmp_path):
    shown = called("new", "--help").stdout
    for name in profile_names():
        done = called("new", "mine.toml", "--like", name, "--force", folder=tmp_path)
        mine, theirs = load_profile(tmp_path / "mine.toml"), demo_profile(name)
        assert mine.title == "mine"
        assert mine.changed({"title": theirs.title}) == theirs
        assert name in shown
        if name in ("orchard", "crates"):
            # What it says to do next works.
            assert called(*done.stdout.split("wendonic ")[1].split(), folder=tmp_path).returncode == 0
    slip = called("new", "x.toml", "--like", "crate")
    assert 'no shipped profile "crate"; did you mean "crates"?' in slip.stderr


def test_convert_goes_round_and_the_other_commands_take_what_comes_out(tmp_path):
    for source, target in ((PAD, "walk.parquet"), ("walk.parquet", "walk.csv"), ("walk.csv", "walk.jsonl")):
        done = called("convert", source, target, folder=tmp_path)
        assert done.stdout == f"wrote {target}: 3983 events, 36.00 s\n", done.stderr
    assert list(Recording.read(tmp_path / "walk.jsonl")) == list(Recording.read(PAD))
    assert "3983 events" in called("info", "walk.csv", folder=tmp_path).stdout
    assert "walked 57.8 m" in called("shape", PROFILE_PATH, "walk.parquet", folder=tmp_path).stdout


def test_convert_takes_other_logs_and_says_what_it_guessed(tmp_path):
    records = [(3, 0, -32768), (0, 0, 0), (3, 0, 32767), (0, 0, 0), (1, 17, 1), (0, 0, 0)]
    (tmp_path / "event3").write_bytes(b"".join(struct.pack("<qqHHi", 9, 250_000, *record) for record in records))
    done = called("convert", "event3", "pad.csv", "--format", "linux-input", folder=tmp_path)
    assert done.stdout == "wrote pad.csv: 3 events, 0.00 s\n", done.stderr
    assert done.stderr == "wendonic: event3: range of the sticks guessed as -32768 to 32767\n"
    assert Recording.read(tmp_path / "pad.csv")[1].value == (1.0, 0.0)
    reported = ["--format", "linux-input", "--stick-range", "-65534", "65534"]
    done = called("convert", "event3", "pad.csv", *reported, folder=tmp_path)
    assert done.stderr == ""
    assert Recording.read(tmp_path / "pad.csv")[1].value[0] == pytest.approx(0.5, abs=1e-4)
    (tmp_path / "pad.log").write_text('{"timestamp": 5, "axes": [0, 1], "buttons": [1]}')
    done = called("convert", "pad.log", "pad.jsonl", "--format", "gamepad-api", folder=tmp_path)
    assert done.stdout == "wrote pad.jsonl: 2 events, 0.00 s\n", done.stderr
    wrong = called("convert", "event3", "pad.csv", "--format", "linux-input", "--layout", "32", folder=tmp_path)
    assert wrong.returncode == 2
    assert "try layout 64" in wrong.stderr


THREE_FAULTS = """format = "wendonic-profile"
version = 1
[mode.foot.move]
diagonal = "capp"
half_life_s = -0.02
[[mode.foot.move.bind]]
stick = "pad.leftstick"
"""


@pytest.fixture
def yard(tmp_path):
    """A folder full of trouble."""
    (tmp_path / "folder.toml").mkdir()
    (tmp_path / "folder.jsonl").mkdir()
    (tmp_path / "empty.toml").touch()
    (tmp_path / "empty.jsonl").touch()
    (tmp_path / "rubbish.toml").write_bytes(bytes(range(256)))
    (tmp_path / "rubbish.jsonl").write_bytes(bytes(range(256)))
    (tmp_path / "three.toml").write_text(THREE_FAULTS)
    (tmp_path / "good.toml").write_text(PROFILE_PATH.read_text())
    (tmp_path / "good.jsonl").write_text(KEYS.read_text())
    (tmp_path / "seats.toml").write_text(
        'format = "wendonic-profile"\nversion = 1\n[seat.one]\nkeys = ["KeyW"]\n[seat.two]\npad = "pad"\n'
        "[[mode.yard.move.bind]]\nkeys = { forward = ['KeyW'] }\n"
        "[[mode.yard.move.bind]]\nstick = 'pad.left_stick'\nseat = 'two'\n"
    )
    return tmp_path


@pytest.mark.parametrize(
    ("words", "said"),
    [
        ("shape none.toml good.jsonl", "none.toml: cannot be read: No such file or directory"),
        ("shape good.toml none.jsonl", "none.jsonl: cannot be read: No such file or directory"),
        ("info folder.toml", "folder.toml: is a folder; name a profile file in it"),
        ("info folder.jsonl", "folder.jsonl: is a folder; name a recording file in it"),
        ("draw stick empty.toml", 'empty.toml: is empty; "wendonic new" writes a profile to begin with'),
        ("info empty.jsonl", "empty.jsonl: is empty; a recording begins with a header line"),
        ("info rubbish.toml", "rubbish.toml: line 2: is not UTF-8 text; a profile is a TOML file"),
        ("draw path good.toml rubbish.jsonl", "rubbish.jsonl: line 1: is not text"),
        ("shape three.toml good.jsonl -o out.csv", "three.toml: 3 faults\n  line 4, mode.foot.move.diagonal: found"),
        ("shape good.toml good.jsonl -o none/out.csv", "cannot write none/out.csv: there is no folder none"),
        (
            "shape good.toml good.jsonl -o good.toml/out.csv",
            "cannot write good.toml/out.csv: there is no folder good.toml",
        ),
        ("shape good.toml good.jsonl -o folder.toml", 'found ending ".toml"; allowed: .csv, .parquet, .jsonl'),
        ("draw stick good.toml -o folder.png/none.png", "cannot write folder.png/none.png"),
        ("draw stick good.toml -o out.bmp", 'found ending ".bmp"; allowed: .png, .svg, .pdf'),
        ("demo --out good.toml", "cannot write into good.toml: File exists"),
        ("new folder.toml", "cannot write folder.toml: it is a folder; name a file in it"),
        ("shape good.toml good.jsonl --hz 0", "hz: found 0; allowed: above 0, up to 10000 ticks a second"),
        ("shape good.toml good.jsonl --hz nan -o out.csv", "hz: found nan; allowed: above 0"),
        ("shape good.toml good.jsonl --hz -60", "hz: found -60"),
        ("shape good.toml good.jsonl --hz 1e12", "hz: found 1e+12"),
        ("shape good.toml good.jsonl --hz fast", "Invalid value for '--hz'"),
        ("shape good.toml good.jsonl --mode cart", 'no mode "cart"; there are: foot'),
        ("draw stick seats.toml --seat one", 'seat one: mode "yard" has no stick under move.bind; there is nothing'),
        ("draw stick seats.toml --seat three", 'unknown seat "three"; seats: one, two'),
        ("draw stick good.toml --mode foto", 'no mode "foto"; did you mean "foot"? there are: foot'),
        (
            "draw timeline good.toml good.jsonl --from 9 --to 5",
            "from 9 s to 5 s; allowed: the end after the start",
        ),
        ("draw timeline good.toml good.jsonl --from nan", "from nan s to "),
        ("draw timeline good.toml", "Missing argument"),
        ("draw frame good.toml good.jsonl --at 99", "moments: found 99; allowed: 1 to 12 from 0.02 to 36.00 s"),
        ("draw path good.toml good.jsonl --course good.toml", "good.toml: is a profile, where a course belongs"),
        ("shape good.jsonl good.toml", "good.jsonl: is a recording, where a profile belongs"),
        ("shape good.toml good.toml", "good.toml: is a profile, where a recording belongs"),
        ("compare good.toml good.toml good.jsonl", "good.jsonl: is a recording, where a profile belongs"),
        ("shape good.toml good.jsonl --course none.toml", "none.toml: cannot be read: No such file or directory"),
        ("convert good.jsonl none/out.csv", "cannot write none/out.csv: there is no folder none"),
        ("convert rubbish.jsonl out.csv", "rubbish.jsonl: line 1: is not text; a Linux input capture is read by"),
        # What takes long is not computed for nothing.
        ("compare good.toml good.toml -o out.bmp", 'found ending ".bmp"; allowed: .png, .svg, .pdf'),
        ("corpus . --profile good.toml --profile good.toml --picture none/out.png", "there is no folder none"),
        (
            "corpus . --profile good.toml --profile good.toml -o none/out.csv",
            "cannot write none/out.csv: there is no",
        ),
        (
            "fit good.toml --target stop_distance_m=0.3 --free gait.walk.brake_m_s2 -o none/out.toml",
            "there is no folder none",
        ),
        ("fly good.toml", "No such command"),
    ],
)
def test_bad_input_is_said_in_plain_words_and_leaves_nothing(yard, words, said):
    before = {path: path.stat().st_mtime_ns for path in yard.rglob("*")}
    done = called(*words.split(), folder=yard)
    assert done.returncode == 2, done.stdout + done.stderr
    assert said in done.stderr
    assert "Traceback" not in done.stderr
    assert done.stdout == ""
    assert {path: path.stat().st_mtime_ns for path in yard.rglob("*")} == before


def test_all_three_faults_are_reported(yard):
    lines = called("info", "three.toml", folder=yard).stderr.splitlines()
    assert lines[0] == "wendonic: three.toml: 3 faults"
    assert [line.split(":")[0].strip() for line in lines[1:]] == [
        "line 4, mode.foot.move.diagonal",
        "line 5, mode.foot.move.half_life_s",
        "line 7, mode.foot.move.bind[0].stick",
    ]
    assert all("allowed" in line or "did you mean" in line for line in lines[1:])


def test_a_crashed_recording_is_used_with_a_warning(yard):
    path = yard / "good.jsonl"
    path.write_bytes(path.read_bytes()[:-9])
    done = run("info", "good.jsonl", folder=yard)
    assert done.returncode == 0
    assert "712 events" in done.stdout
    assert done.stderr == "wendonic: good.jsonl: line 714: cut off, and ignored\n"


def test_a_closed_pipe_causes_no_traceback():
    command = f'"{sys.executable}" -m wendonic shape "{PROFILE_PATH}" "{KEYS}" | head -1'
    done = subprocess.run(["/bin/sh", "-c", command], check=False, capture_output=True, text=True, timeout=120)
    assert "Traceback" not in done.stderr
    assert done.stdout.startswith("1 tick of 87")
