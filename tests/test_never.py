"""What must never happen: work overwritten, a terminal commanded, a machine stuck, a number out of nothing."""

import json
import logging
import math
import time

import pytest
from typer.testing import CliRunner

from wendonic import Event, Helm, Recording, WendonicError, next_control, profile_from_text, shape
from wendonic.cli.main import app
from wendonic.demo import FOLDER, demo_profile
from wendonic.live.record import RecordSession
from wendonic.pictures import draw_curve
from wendonic.study import fit

HEAD = 'format = "wendonic-profile"\nversion = 1\n'
KEYS = '[[mode.m.move.bind]]\nkeys = { forward = ["KeyW"] }\n'


@pytest.fixture
def files(tmp_path, monkeypatch):
    for name in ("beekeeper.toml", "beekeeper_keys.jsonl", "beekeeper_pad.jsonl", "yard_course.toml"):
        (tmp_path / name).write_bytes((FOLDER / name).read_bytes())
    Recording.read(tmp_path / "beekeeper_pad.jsonl").write(tmp_path / "pad.parquet")
    monkeypatch.chdir(tmp_path)
    return tmp_path


@pytest.mark.parametrize(
    ("command", "words"),
    [
        ("shape beekeeper.toml beekeeper_keys.jsonl -o beekeeper_keys.jsonl", "is what this reads"),
        (
            "shape beekeeper.toml beekeeper_keys.jsonl -o ./beekeeper_pad.jsonl",
            "is a recording, and would become a trace",
        ),
        ("shape beekeeper.toml beekeeper_keys.jsonl -o pad.parquet", "is a recording"),
        ("measure beekeeper.toml -o beekeeper.toml", "is what this reads"),
        ("measure beekeeper.toml -o yard_course.toml", "is a course, and would become a feel sheet"),
        ("measure beekeeper.toml -o sheet.png", 'found ending ".png"; allowed: .json'),
        ("schema -o schema.toml", 'found ending ".toml"; allowed: .json'),
        ("convert beekeeper_keys.jsonl beekeeper.toml", "is a profile"),
        ("convert beekeeper_keys.jsonl beekeeper_keys.jsonl", "is what this reads"),
        ("convert beekeeper_keys.jsonl keys.xyz", 'found ending ".xyz"; allowed: .jsonl, .csv, .parquet'),
        ("draw timeline beekeeper.toml beekeeper_keys.jsonl -o beekeeper.toml", "is what this reads"),
        ("draw stick beekeeper.toml -o yard_course.toml", "is a course, and would become a picture"),
        ("new beekeeper_keys.jsonl --force", "is a recording, and would become a profile"),
        ("new yard_course.toml --force", "is a course, and would become a profile"),
        ("new mine.txt", 'found ending ".txt"; allowed: .toml'),
        ("compare beekeeper.toml beekeeper.toml -o beekeeper.toml", "is what this reads"),
        (
            "fit beekeeper.toml --target reach90_s=0.2 --free gait.walk.accel_m_s2 -o beekeeper.toml",
            "is what this reads",
        ),
        (
            "sweep beekeeper.toml --over gait.walk.accel_m_s2=8:9:2 --of reach90_s -o beekeeper_keys.jsonl",
            "is a recording",
        ),
    ],
)
def test_no_command_overwrites_what_it_reads_or_a_thing_of_another_kind(command, words, files):
    before = {path.name: path.read_bytes() for path in files.iterdir()}
    outcome = CliRunner().invoke(app, command.split())
    assert isinstance(outcome.exception, WendonicError)
    assert words in str(outcome.exception)
    assert {path.name: path.read_bytes() for path in files.iterdir()} == before


@pytest.mark.usefixtures("files")
def test_a_thing_of_the_same_kind_may_be_written_anew():
    for command in (
        "shape beekeeper.toml beekeeper_keys.jsonl -o trace.csv",
        "convert beekeeper_keys.jsonl beekeeper_pad.jsonl",
        "measure beekeeper.toml -o sheet.json",
    ):
        for _ in range(2):
            assert CliRunner().invoke(app, command.split()).exit_code == 0
    assert len(Recording.read("beekeeper_pad.jsonl")) == len(Recording.read("beekeeper_keys.jsonl"))


def test_text_of_a_file_cannot_control_the_terminal(tmp_path):
    evil = "\x1b[2J\x1b[31mred\x07\u202e"
    profile = tmp_path / "evil.toml"
    profile.write_text(f'{HEAD}title = {json.dumps(evil)}\n{KEYS}[mode.m.press]\njump = {{ bind = ["Space"] }}\n')
    recording = tmp_path / "evil.jsonl"
    Recording([Event(0.0, "mark", evil), Event(1.0, "key.KeyW", 1.0)], title=evil).write(recording)
    for command in (["info", profile], ["info", recording], ["check", profile], ["shape", profile, recording]):
        out = CliRunner().invoke(app, list(map(str, command))).output
        assert not set(out) & set("\x1b\x07\u202e")
    said = CliRunner().invoke(app, ["info", str(profile)]).output
    assert r"\x1b[2J\x1b[31mred\x07\u202e" in said
    # A name that nobody can read is none.
    for table in (f"[mode.{json.dumps(evil)}]\n", f"[mode.m.press.{json.dumps(evil)}]\nbind = ['KeyE']\n"):
        with pytest.raises(WendonicError, match="printable characters"):
            profile_from_text(
                HEAD
                + KEYS
                + table.replace("[mode.", "[mode.", 1)
                + ("" if "press" in table else "press = { a = { bind = ['KeyQ'] } }\n")
            )


@pytest.mark.parametrize("style", ["hold", "toggle", "tap", "double", "repeat"])
def test_a_spinning_wheel_does_not_hang_a_game(style):
    presses = f'[mode.m.press]\nzoom = {{ bind = [{{ wheel = "away" }}], style = "{style}" }}\n'
    profile = profile_from_text(HEAD + KEYS + presses)
    helm = Helm(profile)
    began = time.monotonic()
    for _ in range(100):
        helm.wheel(-1e9)
    assert helm.tick(1 / 60).press("zoom").began_count <= 10_000
    assert helm.health["clamped"] == {"mouse.wheel": 100}
    mad = [Event(0.1 * number, "mouse.wheel", -1e9) for number in range(100)]
    assert len(shape(Recording(mad), profile)) > 500
    assert time.monotonic() - began < 20.0


def test_milliseconds_in_place_of_seconds_are_counted_and_logged_once(caplog):
    helm = Helm(demo_profile())
    helm.key("KeyW", True)
    with caplog.at_level(logging.WARNING, "wendonic"):
        for _ in range(3):
            helm.tick(16.7)
        helm.tick(0.3)
        helm.tick(1 / 60)
    assert helm.health["hitches"] == {"ticks": 4, "beyond a second": 3}
    (message,) = caplog.messages
    assert "16.7 s" in message
    assert "milliseconds" in message


@pytest.mark.parametrize(
    ("text", "words"),
    [
        (
            "[mode.m.move]\npress_amounts = { carry = 1.5 }\n",
            "press_amounts.carry: found 1.5; allowed: 0 to 1",
        ),
        ("[mode.m.move]\nhalf_life_s = 1e-310\n", "half_life_s: found 1e-310; allowed: 0, or 1e-09 and more"),
        ("[gait.walk]\naccel_m_s2 = 1e-300\n", "accel_m_s2: found 1e-300; allowed: 1e-09 and more"),
        ("[gait.walk]\ndrag_per_s = 1e-300\n", "drag_per_s: found 1e-300; allowed: 1e-09 and more"),
    ],
)
def test_numbers_that_no_game_has_are_refused_with_their_range(text, words):
    with pytest.raises(WendonicError) as caught:
        profile_from_text(f"{HEAD}{text}{KEYS}[mode.m.press]\ncarry = {{ bind = ['KeyC'] }}\n")
    assert words in str(caught.value)


def test_one_key_cannot_stop_and_mark(tmp_path):
    with pytest.raises(WendonicError, match="allowed: two keys"):
        RecordSession(tmp_path / "r.jsonl", stop_key="F9")


BRAKE = ["gait.walk.brake_m_s2"]


@pytest.mark.parametrize(
    ("call", "words"),
    [
        (
            lambda: Helm(demo_profile()).key(None, down=True),
            r'found None; allowed: the name of a control, such as "KeyW"',
        ),
        (lambda: Helm(demo_profile()).stick(None, 0.0, 0.0), "found None; allowed: the name of a control"),
        (lambda: Helm(demo_profile()).apply(Event(0.0, None, 1.0)), "found None; allowed: the name of a control"),
        (lambda: Helm(demo_profile()).button("pad.south", "down"), "pad.south: found 'down'; allowed: a number"),
        (lambda: Helm(demo_profile()).mouse(10**400, 0), "mouse.move: found .*; allowed: two numbers"),
        (lambda: next_control(None), r"found None; allowed: an Event\(t, control, value\)"),
        (
            lambda: Recording([None, Event(0.0, "key.W", 1)]),
            r"2 faults\n.*event 0: found None.*\n.*event 1: .*key\.KeyW",
        ),
        (lambda: Recording([Event(0.0, "key.KeyW", 1), None]), r"event 1: found None; allowed: an Event\(t, control"),
        (lambda: Recording([(0.0, "key.KeyW")]), r"event 0: found \(0.0, 'key.KeyW'\); allowed: an Event"),
        (
            lambda: fit(demo_profile(), {"reach90_s": math.nan}, BRAKE),
            "reach90_s: found nan; allowed: a finite number",
        ),
        (
            lambda: fit(demo_profile(), {"reach90_s": (0.1,)}, BRAKE),
            r"found \(0.1,\); allowed: .* the least and the most",
        ),
        (lambda: draw_curve({}), "there is no profile to draw"),
    ],
)
def test_a_value_of_a_wrong_type_is_reported_in_plain_words(call, words):
    with pytest.raises(WendonicError, match=words):
        call()
