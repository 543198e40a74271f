"""Everything that has a name is found by it: on the pages, in the terminal, in the editor."""

import importlib
import json
import os
import re
import subprocess
import sys
import tomllib
from pathlib import Path

import pytest
from jsonschema import Draft202012Validator

import wendonic.pictures
from few_of_many import few_of
from wendonic import ProfileError, WendonicError
from wendonic.batch import shape
from wendonic.batch.column_words import COLUMNS, column_words
from wendonic.cli.main import HEADINGS, app
from wendonic.demo import FOLDER, RECORDINGS, demo_profile, demo_recording, profile_names
from wendonic.demo.starter import write_starter
from wendonic.devices.controls import CONTROLS
from wendonic.devices.other_names import OTHER_NAMES, PAD_NAMES, control_meant, key_meant
from wendonic.errors import did_you_mean
from wendonic.profile.load import profile_from_text
from wendonic.profile.trade_words import FIELDS_MEANT, TRADE_WORDS
from wendonic.reference.controls import control_groups, control_line
from wendonic.reference.explain import explain, known_words
from wendonic.reference.find_fields import find_fields
from wendonic.reference.json_schema import json_schema, schema_line
from wendonic.reference.own_words import OWN_WORDS
from wendonic.reference.tables import course_tables, profile_tables
from wendonic.study.findings import FINDINGS
from wendonic.study.quantities import QUANTITIES
from wendonic.study.thresholds import THRESHOLDS

DOCS = Path(__file__).parent.parent / "docs"
HEAD = 'format = "wendonic-profile"\nversion = 1\n'
PIXELS = 'world = { right = "+x", forward = "-y", units_per_m = 50 }\n'
PRESS = "[mode.foot.press]\njump = { bind = %s }\n"
STICK = '[[mode.foot.move.bind]]\nstick = "pad.left_stick"\n'


@pytest.fixture(scope="module")
def written():
    sys.path.insert(0, str(DOCS))
    try:
        yield importlib.import_module("write_reference")
    finally:
        sys.path.remove(str(DOCS))


NAMES = "profile course controls presses frames formulas quantities findings columns recordings errors commands"
NAMES += " trade_words"


# What each finding measures takes as long as all other pages together.
@pytest.mark.parametrize("name", few_of(NAMES.split(), set(NAMES.split()) - {"findings"}))
def test_every_page_of_the_reference_is_as_the_definitions_are(written, name):
    assert set(written.PAGES) == set(NAMES.split())
    page = written.PAGES[name]()
    assert (DOCS / "reference" / f"{name}.md").read_text(encoding="utf-8") == page
    assert ">>>" not in page


def test_the_guide_counts_the_quantities_that_there_are():
    guide = (DOCS / "guides" / "feel.md").read_text(encoding="utf-8")
    assert [int(count) for count in re.findall(r"\[(\d+)\s+quantities\]", guide)] == [len(QUANTITIES)]


def test_a_type_checker_knows_every_picture(written):
    (stub,) = (path for path in written.FILES if path.suffix == ".pyi")
    assert stub.read_text(encoding="utf-8") == written.FILES[stub]()
    for name in wendonic.pictures.__all__:
        assert re.search(rf"\b{name}$|\b{name}:", stub.read_text(encoding="utf-8"), re.MULTILINE), name


@pytest.mark.usefixtures("written")
def test_no_name_is_on_no_page():
    pages = "\n".join(path.read_text(encoding="utf-8") for path in (DOCS / "reference").glob("*.md"))
    fields = {field.name for table in (*profile_tables(), *course_tables()) for field in table.fields}
    words = {word for table in profile_tables() for field in table.fields for word, _ in field.words}
    for name in (*fields, *words, *QUANTITIES, *FINDINGS, *COLUMNS, *THRESHOLDS._fields):
        assert re.search(rf"`[^`\n]*\b{re.escape(name)}\b[^`\n]*`|\[{re.escape(name)}\]", pages), name
    for name in CONTROLS:
        plain = re.sub(r"(^|\.)pad0?(?=\.|$)|^pad\d", r"\1pad", name.removeprefix("key."))
        assert f"`{plain}`" in pages, name
    # Each fault is there with what was measured, and each that has a fix with that.
    cases = importlib.import_module("pages.finding_cases").CASES
    assert list(cases) == list(FINDINGS)
    sections = re.findall(
        r"^## (\S+) \{#\1\}$", (DOCS / "reference" / "findings.md").read_text("utf-8"), re.MULTILINE
    )
    assert sections == list(FINDINGS)


def test_every_word_of_a_field_says_what_it_does():
    held = [
        (table.title, field.name, word)
        for table in profile_tables()
        for field in table.fields
        for word in field.words
    ]
    assert len(held) > 150
    for title, field, (word, meaning) in held:
        assert re.fullmatch(r"[A-Z][^\n]{7,119}\.", meaning), (title, field, word)


def test_every_control_has_a_line_and_every_other_name_means_a_control():
    for name in CONTROLS:
        group, line = control_line(name)
        assert line in group.lines
    named = [name for group in control_groups() for line in group.lines for name in line.names]
    assert len(named) == len(set(named))
    for other, name in PAD_NAMES.items():
        assert control_meant(f"pad3.{other}") == f"pad3.{name}"
        assert f"pad.{name}" in CONTROLS
    assert set(OTHER_NAMES.values()) <= set(CONTROLS)
    for code in ("w", "W", "7", "left shift", "Up", "f5", "esc", "Ctrl"):
        assert f"key.{key_meant(code)}" in CONTROLS
    for name, meant in (
        ("pads", "pad"),
        ("lb", "pad.left_bumper"),
        ("pad2.r3", "pad.right_stick_press"),
        ("shift", "ShiftLeft"),
    ):
        with pytest.raises(WendonicError, match=f'no device or control "{name}"; did you mean "{meant}"'):
            control_groups(name)
    for name, *found in (("pad1.dpad_u", "pad.dpad_up"), ("key.KeyW", "KeyW"), ("Shift", "ShiftLeft", "ShiftRight")):
        assert [one for group in control_groups(name) for line in group.lines for one in line.names] == found


@pytest.mark.parametrize("name", sorted(RECORDINGS))
def test_every_column_of_a_trace_is_described(name):
    trace = shape(demo_recording(name), demo_profile(RECORDINGS[name]), engine="interpreted")
    assert [column for column in trace.columns if column_words(column) is None] == []


@pytest.mark.parametrize("word", [*OWN_WORDS, *TRADE_WORDS, *FIELDS_MEANT])
def test_words_lead_to_what_exists(word):
    found = OWN_WORDS.get(word) or TRADE_WORDS.get(word)
    if found is not None:
        assert explain(word).things[0].says == found.means
        for path in found.fields:
            assert any(find_fields(path)), path
        for name in found.see:
            command = name.removeprefix("wendonic ")
            assert explain(name).things if command == name else command in sum(HEADINGS.values(), ())
    else:
        for name in FIELDS_MEANT[word]:
            assert any(find_fields(name)), name


@pytest.mark.long
def test_every_known_word_is_explained():
    for word in known_words():
        found = explain(word)
        assert found.things or any(found.fields), word


def test_slips_are_guessed_and_what_others_call_a_thing_is_known():
    for slip, right in (("coyote-tyme", "coyote time"), ("reach80_s", "reach90_s"), ("Dead-Zones", "dead_zone")):
        with pytest.raises(WendonicError, match=f'did you mean "{right}"'):
            explain(slip)
    # A word that is part of one word of the trade alone is that one.
    assert explain("Coyote") == explain("coyote time")
    # A field is found by its name without the unit, and by what others call it.
    for said, names in (
        ("top speed", {"top_speed_m_s"}),
        ("step", {"step_s", "step_m"}),
        ("invert y", {"invert_pitch"}),
    ):
        assert {one.field.name for one in explain(said).fields.fields} == names
    for said, quantity in (
        ("turn round", "turn_round_s"),
        ("Reach-90", "reach90_s"),
        ("rest drift", "rest_drift_m_per_min"),
    ):
        assert explain(said).things[0].name == quantity
    assert explain("a round dead zone") == explain("dead zone")
    assert explain("swim") == explain("swimming")
    assert [thing.name for thing in explain("distance_m").things] == ["distance_m"] * 2
    with pytest.raises(WendonicError, match=r'nothing is called "zzz"\. All fields: wendonic fields'):
        explain("zzz")


@pytest.mark.parametrize(
    ("path", "groups", "fields"),
    [
        ("dead_zone", ["mode.NAME.move.bind[].dead_zone"], []),
        ("mode.foot.look", ["mode.NAME.look"], []),
        ("mode.foot.look.bind[1].curve.exponent", [], ["exponent"]),
        ("gait.walk", ["gait.NAME"], []),
        ("gait", ["gait.NAME"], ["gait"]),
        ("walk", None, None),
        ("drive", ["mode.NAME.steer"], []),
        ("turn.bind", ["mode.NAME.turn.bind[]"], []),
        ("axis", ["mode.NAME.rise.bind[]"], []),
        ("steer.turn_deg_s", [], ["turn_deg_s", "turn_deg_s"]),
        ("press.jump.bind", ["mode.NAME.press.NAME.bind[]"], []),
        ("mode.look", ["mode.NAME.look"], []),
        ("gait.jump", ["gait.NAME.jump"], []),
        ("gait.accel_m_s2", [], ["accel_m_s2"]),
        ("gait.NAME.fall", ["gait.NAME.fall"], []),
        ("mode.foot.press.bind", ["mode.NAME.press.NAME.bind[]"], []),
        ("blocked", [], ["blocked"]),
        ("foot.look", None, None),
        ("", None, None),
    ],
)
def test_fields_are_found_by_a_path_or_its_end(path, groups, fields):
    if groups is None:
        with pytest.raises(WendonicError, match="All of them: wendonic fields"):
            find_fields(path)
        return
    found = find_fields(path)
    assert [group.place for group in found.groups] == groups
    assert [one.field.name for one in found.fields] == fields


# The schemas of the files.

PROFILES = Draft202012Validator(json_schema("profile"))
COURSES = Draft202012Validator(json_schema("course"))
LINES = Draft202012Validator(json_schema("recording"))


def test_the_schemas_are_schemas_and_take_every_shipped_file(tmp_path):
    for schema in (PROFILES, COURSES, LINES):
        schema.check_schema(schema.schema)
        # Examples in Python are for those who read Python.
        assert ">>>" not in json.dumps(schema.schema)
    for path in FOLDER.glob("*.toml"):
        kind = "course" if path.name.endswith("_course.toml") else "profile"
        text = path.read_text(encoding="utf-8")
        assert text.startswith(schema_line(kind) + "\n")
        PROFILES.validate(tomllib.loads(text)) if kind == "profile" else COURSES.validate(tomllib.loads(text))
    for name in RECORDINGS:
        lines = (FOLDER / f"{name}.jsonl").read_text(encoding="utf-8").splitlines()
        for line in (*lines[:40], *lines[-5:]):
            LINES.validate(json.loads(line))
    # What a starter points to is written beside it.
    for like in profile_names():
        write_starter(tmp_path / f"{like}.toml", like=like)
        content = tomllib.loads((tmp_path / f"{like}.toml").read_text(encoding="utf-8"))
        PROFILES.validate(content)
    beside = json.loads((tmp_path / schema_line("profile").rpartition("/")[2]).read_text(encoding="utf-8"))
    assert beside == PROFILES.schema


def texts_in(values):
    """Go through every profile's text that the parameters of a test hold, with or without its first two lines."""
    if isinstance(values, str):
        if "[mode." in values:
            yield values if "wendonic-profile" in values else HEAD + values
    elif isinstance(values, list | tuple):
        for value in values:
            yield from texts_in(value)
    elif isinstance(getattr(values, "values", None), tuple):
        yield from texts_in(values.values)


def faulty_texts():
    """Return the text of every faulty profile that the tests are parametrised with, with its faults."""
    found = {}
    for path in sorted(Path(__file__).parent.glob("test_*.py")):
        if path.stem == "test_reference":
            continue
        module = importlib.import_module(path.stem)
        marks = [
            mark
            for one in vars(module).values()
            for mark in getattr(one, "pytestmark", ())
            if mark.name == "parametrize"
        ]
        for text in texts_in([mark.args[1] for mark in marks]):
            try:
                tomllib.loads(text)
                profile_from_text(text)
            except ProfileError as error:
                found[text] = error.faults
            except tomllib.TOMLDecodeError:
                continue
    return found


SEEN_BY_A_SCHEMA = re.compile(
    r"unknown (key|control|axis|seat)|is missing($|, such)|found .*; allowed: "
    r"(a |an |above|below|up to|at |-?[\d.]+ (to|or)|\")"
)


def test_the_schema_refuses_every_faulty_profile_of_the_tests_that_it_can(monkeypatch):
    monkeypatch.syspath_prepend(str(Path(__file__).parent))
    faulty = faulty_texts()
    assert len(faulty) > 50
    can = {text for text, faults in faulty.items() if any(SEEN_BY_A_SCHEMA.search(one.what) for one in faults)}
    assert len(can) > 12
    assert [faulty[text] for text in can if PROFILES.is_valid(tomllib.loads(text))] == []


@pytest.mark.parametrize(
    ("text", "valid"),
    [
        (STICK, True),
        (STICK + "curve = { form = 'linear', exponent = 2 }\n", True),
        (STICK + "curve = { form = 'linear', exponnt = 2 }\n", False),
        (
            'world = { right = "+x", forward = "-y", units_per_m = 50 }\n'
            + STICK
            + "[gait.walk]\ntop_speed_u_s = 200\n",
            True,
        ),
        (STICK + "[mode.aim]\nlike = 'foot'\nmove = { half_life_s = 0.05 }\n", True),
        (STICK + "[mode.aim]\nmove = { half_life_s = 0.05 }\n", False),
        (STICK + "[mode.aim]\nlike = 'foot'\nmove = { half_lif_s = 0.05 }\n", False),
        (PIXELS + STICK + "[budget]\nstop_distance_u = { max = 3 }\n", True),
        (STICK + "[budget]\nstop_distnce_m = { max = 3 }\n", False),
        ('[[mode.foot.move.bind]]\nstick = "pad.lft_stick"\n', False),
        ('[[mode.foot.move.bind]]\nstick = "pad0.left_stick"\n', True),
        (
            STICK + PRESS % '["ControlLeft + KeyC", "pad2.south", { wheel = "away" }]',
            True,
        ),
        (STICK + PRESS % '["ControlLeft+KeyCC"]', False),
    ],
)
def test_the_schema_says_of_a_profile_what_loading_says(text, valid):
    if valid:
        profile_from_text(HEAD + text)
    else:
        with pytest.raises(ProfileError):
            profile_from_text(HEAD + text)
    assert PROFILES.is_valid(tomllib.loads(HEAD + text)) == valid


# Messages that name what was meant.


@pytest.mark.parametrize(
    ("text", "words"),
    [
        (STICK + PRESS % '["pad.a"]', 'did you mean "pad.south"?'),
        (STICK + PRESS % '["pad.lb"]', 'did you mean "pad.left_bumper"?'),
        (STICK + PRESS % '["W"]', 'did you mean "KeyW"?'),
        (STICK + PRESS % '["Up"]', 'did you mean "ArrowUp"?'),
        (STICK + PRESS % '["mouse.wheel"]', 'presses as { wheel = "towards" }'),
        (
            STICK + PRESS % '["pad.left_stick"]',
            '{ stick = "pad.left_stick", towards = "up" }',
        ),
        (
            STICK + PRESS % '["pad.trigger"]',
            '"pad.left_trigger" or "pad.right_trigger"?',
        ),
        (STICK + '[mode.foot.press]\njump = "Space"\n', 'such as { bind = ["Space"] }'),
        (STICK + PRESS % '"Space"', 'a list, such as ["Space"]'),
        ('[[mode.m.move.bind]]\nhands = "both"\n', 'allowed: a list of "hand.left" and "hand.right"'),
        (STICK + '[mode.foot.press]\njump = { bind = ["Space"], coyote_time = 1 }\n', 'did you mean "grace_s"?'),
        ('world = { right = "x", forward = "-y" }\n' + STICK, 'did you mean "+x"?'),
        ('[mode.foot.move.bind]\nstick = "pad.left_stick"\n', "in double brackets: [[mode.foot.move.bind]]"),
        (STICK + 'curve = "expo"\n', 'such as { form = "expo" }'),
        (STICK + "dead_zone = 0.1\n", "such as { inner = 0.1 }"),
        (STICK + '[mode.foot]\nsteer = "drive"\n', 'such as { frame = "drive" }'),
        (STICK + "[gait.walk]\nmax_speed = 4\n", 'did you mean "top_speed_m_s"?'),
        (
            STICK + '[[mode.foot.turn.bind]]\naxis = "pad.left_stick"\n',
            "pad.left_stick.x to the right, pad.left_stick.y",
        ),
        ('[[mode.foot.move.bind]]\nmouse = "mouse.move"\n', "allowed as a source of move: keys, dpad, stick"),
    ],
)
def test_a_slip_is_answered_with_what_was_meant(text, words):
    with pytest.raises(ProfileError) as refused:
        profile_from_text(HEAD + text)
    assert words in str(refused.value)


@pytest.mark.long
def test_no_guess_is_the_mirror_image_of_what_was_written():
    """Whatever letter is left out of a control's name, the guess is never its opposite alone."""
    mirrors = (("left", "right"), ("up", "down"), ("forward", "back"), ("north", "south"), ("east", "west"))
    for name in [one for one in CONTROLS if one.startswith(("pad.", "mouse.", "hand."))]:
        for place in range(len(name)):
            guess = did_you_mean(name[:place] + name[place + 1 :], CONTROLS)
            named = re.findall(r'"([^"]+)"', guess)
            for one, other in mirrors:
                wrong = name.replace(one, other) if one in name else name.replace(other, one)
                assert wrong == name or wrong not in named or name in named, (name, guess)


# The command line.


def run(capsys, *words):
    with pytest.raises(SystemExit) as end:
        app([str(word) for word in words], prog_name="wendonic")
    assert end.value.code == 0
    return capsys.readouterr().out


def test_the_commands_print_it_in_the_terminal(capsys, tmp_path, monkeypatch):
    monkeypatch.setenv("COLUMNS", "100")
    assert "inner      number (tilt), 0 or more, below 1; default 0.14." in re.sub(
        r" {7,}", "      ", run(capsys, "fields", "dead_zone")
    )
    listed = run(capsys, "fields")
    assert all(table.places[0] in listed for table in profile_tables())
    assert "lower button of the right-hand four" in run(capsys, "controls", "pad")
    out = run(capsys, "explain", "coyote", "time")
    assert "grace_s, in mode.NAME.press.NAME" in out
    assert not [line for line in out.splitlines() if line != line.rstrip()]
    path = tmp_path / "profile.schema.json"
    assert f"#:schema ./{path.name}" in run(capsys, "schema", "-o", path)
    assert json.loads(path.read_text(encoding="utf-8")) == PROFILES.schema
    assert json.loads(run(capsys, "schema", "--of", "course")) == COURSES.schema


def test_help_is_plain_and_lists_every_command_under_its_heading(capsys):
    out = run(capsys, "--help")
    assert not set("╭│╰") & set(out)
    places = [out.index(f"\n{heading}:\n") for heading in HEADINGS]
    assert places == sorted(places)
    commands = sum(HEADINGS.values(), ())
    names = {command.name or command.callback.__name__ for command in app.registered_commands}
    assert sorted(commands) == sorted([*names, "draw"])
    assert "Sticks at rest and round their rims, with the dead zone and the gate" in " ".join(
        run(capsys, "draw", "--help").split()
    )


COMPLETED = [
    ("wendonic ex", ["explain", "export"]),
    ("wendonic measure lookout.toml --mode ", ["foot", "log"]),
    ("wendonic measure --of jump_a", ["jump_airtime_s", "jump_apex_s"]),
    ("wendonic fit beekeeper.toml --free gait.walk.b", ["gait.walk.brake_m_s2", "gait.walk.body_m"]),
    ("wendonic compare beekeeper.toml --by k", ["keys"]),
    ("wendonic measure harvest.toml --while s", ["sprint"]),
    ("wendonic measure missing.toml --mode ", []),
]


@pytest.mark.parametrize(("words", "offered"), few_of(COMPLETED, COMPLETED[:4]))
def test_a_shell_completes_modes_settings_and_quantities(words, offered):
    place = len(words.split()) - (not words.endswith(" "))
    asked = {"_WENDONIC_COMPLETE": "complete_bash", "COMP_WORDS": words, "COMP_CWORD": str(place)}
    done = subprocess.run(
        [Path(sys.executable).with_name("wendonic")],
        check=False,
        cwd=FOLDER,
        env={**os.environ, **asked},
        capture_output=True,
        text=True,
        timeout=60,
    )
    assert done.stdout.split() == offered
    assert done.stderr == ""
