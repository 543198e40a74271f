"""Exported source: the same numbers in every language, plain to read, and nothing of the reader's overwritten."""

import ast
import functools
import math
import os
import pickle
import random
import re
import shutil
import subprocess
import sys
import types
from dataclasses import dataclass, replace
from pathlib import Path

import pytest

from every_export import random_profile, words_known
from few_of_many import few_of
from test_carried_movement import EVERYTHING, equal_modes
from test_command_line import called as run
from test_seats import TEXT as TWO_PLAYERS
from wendonic import Helm, WendonicError
from wendonic.compiler.read import SourceMissingError
from wendonic.compiler.steps import Step, mark_step
from wendonic.compiler.trees import give_names
from wendonic.demo import demo_course, demo_profile, profile_names
from wendonic.devices.controls import CONTROLS
from wendonic.devices.event import checked_event
from wendonic.devices.sampler import Sampler
from wendonic.devices.sources.base import Source
from wendonic.devices.sources.mode import ModeSources
from wendonic.devices.sources.stick import StickSource
from wendonic.devices.state import DeviceState
from wendonic.export.build import take_out_unread
from wendonic.export.export import exported, packaged, write_export
from wendonic.export.folder import write_files
from wendonic.export.guide import guide
from wendonic.export.inputs import inputs_of
from wendonic.export.languages.python import PythonPackage, PythonPrinter
from wendonic.export.languages.reserved import WORDS
from wendonic.export.languages.scopes import Scopes
from wendonic.export.made_ground import GROUND
from wendonic.export.naming import snake
from wendonic.export.play_events import Hands, controls_of
from wendonic.export.program import Function
from wendonic.export.reported import reported_by
from wendonic.export.targets import TARGETS
from wendonic.export.tools import tried
from wendonic.export.vectors import Vectors, vectors_of
from wendonic.kernels.body.ground import NO_COURSE
from wendonic.profile.load import profile_from_text
from wendonic.profile.sources import mode_sources
from wendonic.runtime.mode_run import ModeRun

TOOLS = {"c99": "gcc", "javascript": "node", "csharp": "mcs", "lua": "lua5.4", "python": "python3"}
ALL_TOOLS = os.environ.get("WENDONIC_ALL_TOOLS") == "1"
WORLDS = {
    "y down": {"world": {"right": "+x", "forward": "-y"}},
    "z up": {"world": {"right": "+y", "forward": "+x", "up": "+z"}},
    "pixels": {"world": {"right": "+x", "forward": "-y", "units_per_m": 50, "unit": "px"}},
}
KEYS_ONLY = """
format = "wendonic-profile"
version = 1
[[mode.foot.move.bind]]
keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }
"""
PAD_ONLY = """
format = "wendonic-profile"
version = 1
[[mode.foot.move.bind]]
stick = "pad.left_stick"
"""
PROFILES = [
    pytest.param("crates", "push", marks=pytest.mark.long),
    ("scout", "fly"),
    pytest.param("orchard", "round", marks=pytest.mark.long),
    pytest.param("headset", "point", marks=pytest.mark.long),
    # These are tried in every language by every_export.py as well.
    pytest.param("headset", "foot", marks=pytest.mark.long),
    pytest.param("smoker", "barrow", marks=pytest.mark.long),
]


def needs(language):
    if shutil.which(TOOLS[language]) is None and not ALL_TOOLS:
        pytest.skip(f"{TOOLS[language]} is not installed")


@functools.cache
def made(name, *modes):
    return packaged(equal_modes(name) if name in EVERYTHING else demo_profile(name), name, modes)


@functools.cache
def vectors(name, *modes):
    package = made(name, *modes)
    return {one.mode: vectors_of(one, package, least_ticks=240, episodes=12) for one in package.modes}


def space_of(package):
    space = {"__name__": "exported"}
    exec(compile(PythonPackage(package).text(), package.stem, "exec"), space)
    return space


def class_of(space, package, mode, kind):
    return space[("".join(part.capitalize() for part in mode.split("_")) if package.many else "") + kind]


@pytest.mark.parametrize("language", TARGETS)
def test_a_profile_runs_alike_in_every_language(language, tmp_path):
    needs(language)
    found = exported(made("beekeeper"), language, vectors=vectors("beekeeper"))
    write_export(found, tmp_path / "out")
    runs = tried(language, "beekeeper", tmp_path / "out", ["-O0"])
    assert [run.well for run in runs] == [True] * len(runs), [run.said for run in runs]
    ticks = len(vectors("beekeeper")["foot"].rows)
    assert all(re.fullmatch(rf"{ticks} ticks, worst difference \d\.\de[-+]\d+", run.said) for run in runs)


@pytest.mark.long
@pytest.mark.parametrize(
    ("seat", "key", "stick"),
    few_of(
        [("one", "w", "left_stick"), ("two", "arrow_up", "pad1_left_stick")], [("two", "arrow_up", "pad1_left_stick")]
    ),
)
def test_a_seat_exports_what_that_player_has_and_nothing_else(seat, key, stick, tmp_path, caplog):
    profile = profile_from_text(TWO_PLAYERS)
    package = packaged(profile, "yard", seat=seat)
    assert caplog.messages == []
    assert package.title == f"yard, seat {seat}"
    fields = {field.name for field in package.modes[0].program.inputs}
    own = {f"key_{key}", f"{stick}_x", *({"call_down"} if seat == "one" else {"mouse_dx"})}
    others = {"key_w", "key_arrow_up", "left_stick_x", "pad1_left_stick_x", "call_down", "mouse_dx"} - own
    assert own | {"key_i", "puff_down", "pause_down"} <= fields
    assert not others & fields
    write_export(exported(package, "python"), tmp_path / "out")
    assert [run.well for run in tried("python", "yard", tmp_path / "out")] == [True]
    space, helm = space_of(package), Helm(profile, seat=seat)
    state, given, result = space["State"](), space["Input"](), space["Result"]()
    setattr(given, f"key_{key}", 1.0)
    for code in ("KeyW", "ArrowUp"):
        helm.key(code, down=True)
    for _ in range(30):
        space["step"](state, given, 1 / 60, result)
        intent = helm.tick(1 / 60)
    assert result.game_position_y == pytest.approx(intent.motion.pos_y)
    assert result.game_position_y > 1.0
    with pytest.raises(WendonicError, match='unknown seat "tow"'):
        packaged(profile, "yard", seat="tow")
    packaged(profile, "yard")
    assert caplog.messages == [
        "the profile has seats one and two, and without --seat every control counts for everybody"
    ]


ODD_NAMES = """
format = "wendonic-profile"
version = 1
title = '''Bees */ "C:\\Users\\new" /* & <b>'''
[mode."à pied"]
gait = "2nd gear!"
press_gaits = { "a&b" = "2nd gear?" }
leave_to = ["a & <b> */"]
[[mode."à pied".move.bind]]
keys = { forward = ["KeyW"], back = ["ArrowDown"], left = ["KeyA"], right = ["KeyD"] }
opposites = "latest"
[[mode."à pied".move.bind]]
dpad = "pad.dpad"
[mode."à pied".press]
"a&b" = { bind = ["ShiftLeft"] }
"a b" = { bind = ["Space"] }
"a_b" = { bind = ["KeyQ"], style = "toggle" }
"*/" = { bind = ["KeyE"] }
"2" = { bind = ["KeyR"] }
"räuchern" = { bind = ["mouse.left"] }
"row1" = { bind = ["Digit1"] }
"row_1" = { bind = ["Digit2"], style = "long" }
"dpad" = { bind = ["KeyZ"] }
"key arrow" = { bind = ["KeyX"] }
"output" = { bind = ["KeyC"], style = "double" }
[mode."a & <b> */"]
like = "à pied"
leave_to = ["à pied"]
[gait."2nd gear!"]
top_speed_m_s = 4
[gait."2nd gear?"]
top_speed_m_s = 6
"""


@functools.cache
def oddly_named():
    package = packaged(profile_from_text(ODD_NAMES), "à 2")
    return package, {one.mode: vectors_of(one, package, least_ticks=60, episodes=1) for one in package.modes}


@pytest.mark.long
@pytest.mark.parametrize("language", few_of(TARGETS, ["javascript"]))
def test_names_that_no_language_has_run_alike(language, tmp_path):
    """Not ASCII, not a word, two that look alike once they are, a control's or a function's, ends of comments."""
    needs(language)
    package, found = oddly_named()
    for one in package.modes:
        presses = [name for name in one.inputs.fields if name.endswith("_edges")]
        assert len(presses) == len(one.profile.press_names) == 11
        assert {"dpad_down", "press_dpad_down", "key_arrow_down", "press_key_arrow_down"} <= one.inputs.fields.keys()
    write_export(exported(package, language, vectors=found), tmp_path / "out")
    runs = tried(language, package.stem, tmp_path / "out", ["-O0"])
    assert [run.well for run in runs] == [True] * len(runs), [run.said for run in runs]


SOFT = """
format = "wendonic-profile"
version = 1
[mode.foot]
steer = { frame = "camera", sectors = 4, sector_tie = "later" }
[mode.foot.move]
half_life_s = 0.02
[[mode.foot.move.bind]]
keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }
rise_s = 0.06
fall_s = 0.04
[[mode.foot.move.bind]]
stick = "pad.left_stick"
"""


@pytest.mark.long
@pytest.mark.parametrize(
    "changes",
    [
        {"gait.walk.turn_loss": 0.5},
        pytest.param({}, marks=pytest.mark.long),
        pytest.param({"mode.foot.move.half_life_s": 0.0}, marks=pytest.mark.long),
    ],
)
def test_a_request_that_changes_within_a_tick_does_so_in_every_language(changes, tmp_path):
    """Ramps, smoothing and what follows them, in Python and in C."""
    package = packaged(profile_from_text(SOFT).changed(changes), "soft")
    found = {one.mode: vectors_of(one, package, least_ticks=400, episodes=12) for one in package.modes}
    for language in ("python", "c99"):
        needs(language)
        folder = tmp_path / language
        write_export(exported(package, language, vectors=found), folder)
        for one in tried(language, package.stem, folder, ["-O0"]):
            assert one.well, (language, one.said[:300])


@pytest.mark.parametrize("number", few_of(range(101, 109), (101,)))
def test_a_random_profile_runs_alike_in_c(number, tmp_path):
    """The first mode of a shipped profile of which many numbers and some words are others."""
    needs("c99")
    stem, profile = random_profile(random.Random(number), words_known())
    package = packaged(profile, stem, list(profile.mode)[:1])
    found = {one.mode: vectors_of(one, package, least_ticks=200, episodes=6) for one in package.modes}
    write_export(exported(package, "c99", vectors=found), tmp_path)
    (run,) = tried("c99", package.stem, tmp_path, ["-O0"])
    assert run.well, run.said


def walked(language, folder):
    """What the example of a language prints."""
    match language:
        case "c99":
            command = ["gcc", "-std=c99", "-Wall", "-Werror", "-I.", "walk.c", "beekeeper.c", "-o", "walk", "-lm"]
            subprocess.run(command, cwd=folder, check=True)
            command = [str(folder / "walk")]
        case "csharp":
            subprocess.run(["mcs", "-out:walk.exe", "Walk.cs", "Beekeeper.cs"], cwd=folder, check=True)
            command = ["mono", "walk.exe"]
        case "javascript":
            command = ["node", "walk.js"]
        case "lua":
            command = ["lua5.4", "walk.lua"]
        case _:
            command = [sys.executable, "walk.py"]
    return subprocess.run(command, cwd=folder, check=True, capture_output=True, text=True).stdout.splitlines()


@pytest.mark.parametrize("language", TARGETS)
def test_the_example_of_each_language_walks_as_the_helm_does(language, tmp_path):
    needs(language)
    for name, text in TARGETS[language].sources(made("beekeeper")).items():
        (tmp_path / name).write_text(text, encoding="utf-8")
    if language == "javascript":
        (tmp_path / "package.json").write_text('{ "type": "module" }')
    for path in (Path(__file__).parent.parent / "examples" / "export").iterdir():
        shutil.copy(path, tmp_path)
    helm, wanted = Helm(demo_profile()), []
    for tick in range(1, 121):
        helm.key("KeyW", tick <= 60)
        helm.key("KeyD", 30 < tick <= 90)
        helm.button("mouse.left", 45 < tick <= 55)
        intent = helm.tick(1 / 60)
        if intent.press("smoke").began:
            wanted.append(f"{tick / 60:.2f} s: smoke")
        x, *rest = intent.position()
        if x > 2.0:
            helm.place(2.0, *rest, velocity=(0.0, *intent.velocity()[1:]))
        if tick % 15 == 0:
            place = " ".join(f"{number:.3f}" for number in (min(x, 2.0), *rest))
            speed = math.hypot(*intent.velocity())
            wanted.append(f"{tick / 60:.2f} s: at {place}, {speed:.3f} m/s, facing {intent.face_deg:.1f} deg")
    assert walked(language, tmp_path) == wanted


@pytest.mark.parametrize(("name", "mode"), PROFILES)
def test_c_replays_every_steer_frame(name, mode, tmp_path):
    needs("c99")
    write_export(exported(made(name, mode), "c99", vectors=vectors(name, mode)), tmp_path)
    (run,) = tried("c99", name, tmp_path, ["-O0"])
    assert run.well, run.said


def test_a_wrong_number_is_found(tmp_path):
    needs("c99")
    write_export(exported(made("beekeeper"), "c99", vectors=vectors("beekeeper")), tmp_path)
    source = tmp_path / "beekeeper.c"
    source.write_text(source.read_text().replace("WALK_ACCEL_M_S2 = 22.0", "WALK_ACCEL_M_S2 = 22.0000001"))
    (run,) = tried("c99", "beekeeper", tmp_path, ["-O0"])
    assert not run.well
    assert "wanted" in run.said


def doubled(text):
    """Give what stands in two pairs of brackets of which one would do."""
    starts = []
    for place, letter in enumerate(text):
        if letter == "(":
            starts.append(place)
        elif letter == ")" and starts:
            start = starts.pop()
            if text[start - 1] == "(" and text[place + 1] == ")":
                yield text[start - 20 : place + 2]


@pytest.mark.parametrize("language", TARGETS)
def test_the_source_is_plain_to_read(language):
    files = exported(made("beekeeper"), language, vectors=vectors("beekeeper")).files
    for name, text in files.items():
        if name.endswith((".c", ".h", ".js", ".cs", ".lua", ".py")) and "unner" not in name:
            assert max(map(len, text.splitlines())) <= 120, name
            assert not list(doubled(text)), name
    source = next(
        text
        for name, text in files.items()
        if name.lower() in [f"beekeeper.{end}" for end in ("c", "js", "cs", "lua", "py")]
    )
    assert "gait.walk.accel_m_s2" in source
    assert "m/s²" in source
    # Over each step its kernel, what it does, and its formula; what points into the library is left out.
    assert re.search(r"\bcurve_amount: [^\n]+\n[^\w\n]*u\^exponent for a tilt u", source)
    assert re.search(r"\bgained: how much of a change of velocity has been made", source)
    assert re.findall(r"[^\n]*\bsee `?\w+", source) == []


def test_a_copy_in_a_branch_of_another_step_begins_none():
    """A copy sinks to where it is read, and took the comment of its step along."""
    body = ast.parse("if moving:\n    face = was\n    turned = abs(face)\n").body
    branch = body[0].body
    mark_step(branch[:1], Step("steer", "Return what the body does."))
    mark_step(branch[1:], Step("turned_towards", "Return how far it turned."))
    mark_step(body, Step("face_after", "Return where it faces."))
    printed = PythonPrinter([]).body(body, Scopes(Function("tick", ["moving", "was"], body, 0)), "")
    assert [line.strip() for line in printed] == [
        "# face_after: where it faces.",
        "if moving:",
        "face = was",
        "# turned_towards: how far it turned.",
        "turned = abs(face)",
    ]


def test_unread_results_are_not_returned():
    """A call that stays for what it writes into a struct gives nothing that its caller has no use for."""
    turn = Function("turn", ["yaw"], ast.parse("out_yaw = yaw\nreturn yaw + 1.0").body, 1)
    tick = Function("tick", ["yaw"], ast.parse("after = turn(yaw)\nif 1.0 > 2.0:\n    out_far = after").body, 0)
    for one in (turn, tick):
        give_names(one.body, {"out_yaw": "out.yaw", "out_far": "out.far"})
    take_out_unread([turn, tick], {})
    assert turn.results == 0
    assert [ast.unparse(statement) for statement in tick.body] == ["() = turn(yaw)"]
    # What a function is handed and writes before it reads it is not handed over, nor given by the one that made it.
    far = Function("far", ["yaw"], ast.parse("out_far = yaw\nreturn yaw * 3.0").body, 1)
    face = Function("face", ["yaw", "heading"], ast.parse("heading = yaw * 2.0\nreturn heading + 1.0").body, 1)
    tick = Function("tick", ["yaw"], ast.parse("heading = far(yaw)\nout_yaw = face(yaw, heading) * 2.0").body, 0)
    for one in (far, tick):
        give_names(one.body, {"out_yaw": "out.yaw", "out_far": "out.far"})
    take_out_unread([far, face, tick], {})
    assert (face.parameters, far.results) == (["yaw"], 0)


ALIKE = """
format = "wendonic-profile"
version = 1
[mode.ground]
steer = { frame = "camera", face = "travel", turn_deg_s = 540, slope = { steepest_deg = 40, ahead_m = 0.2 } }
[[mode.ground.move.bind]]
keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }
[mode.foot]
like = "ground"
"""


@pytest.mark.long
@pytest.mark.parametrize("language", few_of(list(TARGETS), ["c99"]))
def test_functions_that_modes_share_are_printed_once_and_no_name_means_two_things(language, tmp_path):
    needs(language)
    package = packaged(profile_from_text(ALIKE), "laid")
    found = exported(
        package,
        language,
        vectors={one.mode: vectors_of(one, package, least_ticks=60, episodes=1) for one in package.modes},
    )
    source = "\n".join(TARGETS[language].sources(package).values()).lower().replace("_", "")
    # "ground_at" might be a function of mode "ground", and "laid_on_slope" one of the whole package.
    assert {function.name for function, _ in package.common} >= {"against_wall", "wrapped_angle"}
    assert not {"ground_at", "laid_on_slope"} & {function.name for function, _ in package.common}
    assert source.count("againstwall(") == 5
    assert [mode for mode in ("ground", "foot") if f"{mode}againstwall(" in source] == []
    write_export(found, tmp_path / "out")
    runs = tried(language, "laid", tmp_path / "out", ["-O0"])
    assert [run.said for run in runs if not run.well] == []
    assert runs
    alone = packaged(profile_from_text(ALIKE), "laid", ["foot"])
    assert not alone.common
    assert {function.name for function in alone.own_functions(alone.modes[0])} > {"against_wall", "wrapped_angle"}


@pytest.mark.long
@pytest.mark.parametrize("name", few_of(["harvest", "headset", "orchard"], ["harvest"]))
def test_the_page_on_feeding_it_says_what_each_reported_number_is(name):
    package = packaged(demo_profile(name), name)
    for one in package.modes:
        rows = {row.name: (row.struct, row.what) for row in reported_by(one)}
        fields = {
            "state": {field.name for field in one.program.state},
            "result": {field.name for field in one.program.results},
        }
        assert all(field in fields[struct] for field, (struct, _) in rows.items())
        assert fields["result"] <= set(rows)
        assert rows["amount"] == ("result", "length of the request, in shares of top speed")
        for press, word in zip(demo_profile(name).press_names, one.press_words, strict=True):
            if f"{word}_began" in rows:
                assert rows[f"{word}_began"][1] == f"whether press {press} began in this tick, 0 or 1"
        page = guide(replace(package, modes=[one], crossings=[]), TARGETS["lua"], {one.mode: Vectors([], [])})
        assert ("or use these functions:\n\n- `" in page) == bool(one.door.feeds)
        assert page.count("\n\n\n") == 0


def test_the_guide_shows_what_is_written():
    page = (Path(__file__).parent.parent / "docs" / "guides" / "another_language.md").read_text(encoding="utf-8")
    source = "\n".join(TARGETS["c99"].sources(made("beekeeper")).values())
    pieces = re.findall(r"```c\n(.*?)```", page, re.DOTALL)
    assert len(pieces) == 4
    assert [piece for piece in pieces if piece not in source + "\n"] == []


def test_no_function_of_c_is_long_and_the_whole_is_short():
    files = exported(made("beekeeper"), "c99", vectors=vectors("beekeeper")).files
    both = re.sub(r"/\*.*?\*/", "", files["beekeeper.c"] + files["beekeeper.h"], flags=re.DOTALL)
    lines = [line for line in both.splitlines() if line.strip()]
    assert len(lines) <= 700
    starts = [number for number, line in enumerate(lines) if line and not line[0].isspace() and line.endswith("{")]
    ends = [number for number, line in enumerate(lines) if line == "}"]
    assert max(min(end for end in ends if end >= start) - start for start in starts if lines[start][0] != "t") < 80


@pytest.mark.parametrize("language", TARGETS)
def test_reserved_names_get_an_underscore(language):
    target = TARGETS[language]
    package = made("beekeeper")
    text = "\n".join(target.sources(package).values())
    words = WORDS[language] - {"tick", "time", "math", "string", "table", "type", "next", "min", "max", "M", "_"}
    assigned = re.findall(r"(?m)^\s+(?:const |let |local |double |bool |int |)+(\w+) =", text)
    assert assigned
    assert not set(assigned) & words


POINTED = (
    'format = "wendonic-profile"\nversion = 1\nwindow = { aspect_ratio = 1.6 }\n[[mode.foot.move.bind]]\n'
    'pointer = "pointer.at"\nwhile_held = ["mouse.left", "KeyE"]\nreach = 0.35\n'
)


@pytest.mark.parametrize(
    "name", ["beekeeper", "lookout", "orchard", "headset", "scout", "cart", "harvest", "tablet", ""]
)
def test_fields_say_what_the_devices_say(name):
    """The named inputs make the sample that the door makes of the same events, and hold what the devices sent."""
    profile = demo_profile(name) if name else profile_from_text(POINTED)
    rng = random.Random(7)
    asked = 0
    for mode in profile.mode:
        sources = mode_sources(profile, mode)
        inputs = inputs_of(sources, profile.press_names, profile.world.axes)
        bound = {name for name, binds in zip(profile.press_names, sources.presses, strict=True) if binds}
        assert {one.removesuffix("_edges") for one in inputs.fields if one.endswith("_edges")} == bound
        sampler, state = Sampler(sources), DeviceState()
        row = sampler.row()
        sampler.begin(state)
        controls = controls_of(sources)
        hands = Hands(controls, (0.5,), (), rng)
        for number in range(200):
            for event in hands.events([control.name for control in controls], number / 60, 1 / 60):
                state.apply(event)
            sampler.fill(state, row)
            values = inputs.values_from(row)
            assert inputs.row_from(values) == pytest.approx(row, abs=1e-15)
            for control in controls:
                stick = control.kind == "stick" and f"{snake(control.name)}_y" in values
                if stick and not math.isclose(values[f"{snake(control.name)}_y"], state.value(control.name)[1]):
                    pytest.fail(f"{control.name}: {values}")
                asked += stick
                if control.name == "pointer.at" and "pointer_x" in values and any(row[:2]):
                    asked += 1
                    assert (values["pointer_x"], values["pointer_y"]) == pytest.approx(state.value("pointer.at"))
                if control.kind == "rates":
                    asked += 1
                    names = [f"{snake(control.name)}_{axis}" for axis in "xyz"]
                    assert tuple(values[one] for one in names) == state.value(control.name)
    assert asked or name in ("tablet", "orchard")


def test_a_source_that_names_no_control_is_tried_by_what_its_reader_follows():
    class Reader:
        watched = (CONTROLS["mouse.wheel"].slot,)
        begin = take = read = print

    @dataclass
    class Lever(Source):
        def reader(self, start):
            return Reader() if start == 0 else None

    lever = Lever()
    assert [control.name for control in controls_of(ModeSources(throttle=(lever,)))] == ["mouse.wheel"]
    both = ModeSources(move=(StickSource("pad.left_stick"),), throttle=(lever,))
    assert [control.name for control in controls_of(both)] == ["pad.left_stick", "mouse.wheel"]


def test_whatever_is_used_and_left_alone_in_whatever_order_has_a_value():
    keys = [CONTROLS[f"key.Key{letter}"] for letter in "ABCDEF"]
    controls = [*keys, CONTROLS["pad.left_stick"], CONTROLS["pad.right_trigger"]]
    for seed in range(400):
        rng = random.Random(seed)
        hands = Hands(controls, (0.5,), (), rng)
        for tick in range(8):
            used = [control.name for control in controls if rng.random() < 0.2]
            events = list(hands.events(used, tick / 60, 1 / 60))
            assert all(checked_event(*event).value == event.value for event in events)
            assert {event.control for event in events} >= set(used)


@pytest.mark.long
@pytest.mark.parametrize("name", few_of(["smoker", "store_room", *EVERYTHING], ["jumps"]))
def test_modes_are_entered_as_the_helm_enters_them(name):
    package = made(name)
    profile = equal_modes(name) if name in EVERYTHING else demo_profile(name)
    space = space_of(package)
    by_mode = {one.mode: one for one in package.modes}
    rows = []

    def listened(run):
        part = run.part
        run.part = lambda record, row, dt: (rows.append(list(row)), part(record, row, dt))[1]

    rng = random.Random(3)
    for _ in range(4):
        helm = Helm(profile)
        for run_of_mode in helm._runs.values():
            listened(run_of_mode)
        controls = {control.name: control for one in package.modes for control in controls_of(one.sources)}
        hands = Hands(list(controls.values()), (0.5,), (), rng)
        state, given, result = (class_of(space, package, helm.mode, kind)() for kind in ("State", "Input", "Result"))

        def enter(new, old, state=None, result=None, given=None):
            state = space[f"enter_{new}_from_{old}"](state, result, given)
            return state, *(class_of(space, package, new, kind)() for kind in ("Input", "Result"))

        for number in range(110):
            used = [control for control in controls if rng.random() < 0.9]
            for event in hands.events(used, number / 60, 1 / 60):
                helm.state.apply(event)
            exits = [one for one in package.crossings if one.old == helm.mode]
            if number in (40, 75) and exits:
                to = rng.choice(exits)
                helm.enter(to.new)
                state, given, result = enter(to.new, to.old, state, result, given)
            mode = helm.mode
            intent = helm.tick(1 / 60)
            one = by_mode[mode]
            for field, value in one.inputs_from(rows[-1]).items():
                if hasattr(given, field):
                    setattr(given, field, value)
            more = [NO_COURSE] if "course" in one.program.tick.context else []
            space[(f"{mode}_" if package.many else "") + "step"](state, given, *more, 1 / 60, result)
            outcome = intent.reader.outcome(intent.record)
            wanted = [*package.axes.place_from_plan(*outcome.body.position), *map(math.degrees, outcome.view)]
            letters = "xyz"[: len(wanted) - 2]
            found = [getattr(result, f"game_position_{letter}") for letter in letters]
            assert [*found, result.view_yaw_deg, result.view_pitch_deg] == pytest.approx(wanted, abs=1e-9)
            if helm.mode != mode:
                state, given, result = enter(helm.mode, mode, state, result, given)


def corrections(rng, axes, unit):
    """What a game may say of the body in one tick."""

    def vector(size):
        return [rng.uniform(-size, size) if rng.random() < 0.8 else 0.0 for _ in range(axes)]

    found = {}
    if rng.random() < 0.3:
        found["place"] = vector(2 * unit)
    if rng.random() < 0.3:
        found["set_velocity"] = vector(3 * unit) if rng.random() < 0.7 else [0.0] * axes
    if rng.random() < 0.2:
        found["set_facing"] = [1e-3 if number == 0.0 else number for number in vector(1.0)]
    return found


@pytest.mark.parametrize(
    ("name", "world"),
    [
        ("beekeeper", "y down"),
        pytest.param("crates", "pixels", marks=pytest.mark.long),
        *(pytest.param(name, "z up", marks=pytest.mark.long) for name in ("scout", "harvest", "headset")),
    ],
)
def test_what_a_game_says_of_the_body_counts_as_the_helm_takes_it(name, world):
    """Places, velocities and facings in the game's own axes, in between the ticks of every mode."""
    profile = demo_profile(name).changed(WORLDS[world])
    package = packaged(profile, name)
    space, rng = space_of(package), random.Random(11)
    unit, axes = package.axes.units_per_m, len(package.axes.from_plan(0.0, 0.0, 0.0))
    for one in package.modes:
        controls = controls_of(one.sources)
        prefix, more = package.prefix(one), [NO_COURSE] if "course" in one.program.tick.context else []
        rows, counted = [], 0
        helm = Helm(profile)
        if one.mode != helm.mode:
            helm.enter(one.mode)
        running = helm._run
        part = running.part
        running.part = lambda record, row, dt, part=part, rows=rows: (rows.append(list(row)), part(record, row, dt))[
            1
        ]
        hands = Hands(controls, (0.5,), (), rng)
        state, given, result = (class_of(space, package, one.mode, kind)() for kind in ("State", "Input", "Result"))
        for number in range(150):
            used = [control.name for control in controls if rng.random() < 0.7]
            for event in hands.events(used, number / 60, 1 / 60):
                helm.state.apply(event)
            said = corrections(rng, axes, unit)
            words = {"set_velocity": "velocity", "set_facing": "facing"}
            helm.place(*said.get("place", ()), **{words[of]: said[of] for of in words if of in said})
            for of, vector in said.items():
                if f"{prefix}{of}" in space:
                    space[f"{prefix}{of}"](state, *vector)
                    counted += 1
            intent = helm.tick(1 / 60)
            if helm.mode != one.mode:
                break
            for field, value in one.inputs_from(rows[-1]).items():
                if hasattr(given, field):
                    setattr(given, field, value)
            space[f"{prefix}step"](state, given, *more, 1 / 60, result)
            body = intent.reader.outcome(intent.record).body
            wanted = [*package.axes.place_from_plan(*body.position), *package.axes.place_from_plan(*body.velocity)]
            found = [getattr(result, f"game_{of}_{axis}") for of in ("position", "velocity") for axis in "xyz"[:axes]]
            assert found == pytest.approx(wanted, abs=1e-9 * unit), (one.mode, number, said)
            assert math.radians(result.face_deg) == pytest.approx(body.face, abs=1e-12)
        assert counted > 3


@pytest.mark.parametrize("world", WORLDS)
def test_results_come_in_the_games_own_axes(world):
    profile = profile_from_text(KEYS_ONLY).changed(WORLDS[world])
    package = packaged(profile, "beekeeper")
    space = space_of(package)
    state, given, result = space["State"](), space["Input"](), space["Result"]()
    helm = Helm(profile)
    given.key_d = given.key_w = 1.0
    for code in ("KeyD", "KeyW"):
        helm.key(code, True)
    for _ in range(40):
        space["step"](state, given, 1 / 60, result)
        intent = helm.tick(1 / 60)
    said = {"velocity": intent.velocity(), "position": intent.position(), "facing": intent.facing()}
    letters = "xyz"[: len(said["facing"])]
    for name, wanted in said.items():
        found = [getattr(result, f"game_{name}_{letter}") for letter in letters]
        assert found == pytest.approx(wanted, abs=1e-12), name


def test_adjustable_numbers_are_fields_and_the_same_as_in_a_changed_profile():
    path = "gait.walk.accel_m_s2"
    package = packaged(demo_profile(), "beekeeper", adjustable=[path, "mode.foot.look.bind[0].cm_per_turn"])
    space = space_of(package)
    settings = space["Settings"]()
    assert set(settings.__slots__) == {"walk_accel_m_s2", "look_mouse_yaw", "look_mouse_pitch"}
    settings.walk_accel_m_s2 = 9.0
    state, given, result = space["State"](), space["Input"](), space["Result"]()
    helm = Helm(demo_profile().changed({path: 9.0}))
    given.key_w = 1.0
    helm.key("KeyW", True)
    for _ in range(20):
        space["step"](state, given, settings, 1 / 60, result)
        assert state.velocity_y == helm.tick(1 / 60).motion.vel_y


@pytest.mark.long
def test_a_number_left_at_its_default_has_its_place_too_and_may_be_adjustable():
    text = 'format = "wendonic-profile"\nversion = 1\n'
    text += "[world]\nright = '+x'\nforward = '-y'\nunit = 'px'\nunits_per_m = 50\n"
    text += "[mode.m]\nsteer = { frame = 'drive' }\n"
    for channel, axis in (("throttle", "right_trigger"), ("turn", "left_stick.x")):
        text += f"[[mode.m.{channel}.bind]]\naxis = 'pad.{axis}'\n"
    radius = "mode.m.steer.turn_radius_u"
    package = packaged(profile_from_text(text), "rover", adjustable=[radius])
    numbers = package.modes[0].program.numbers
    assert [number.name for number in numbers if number.adjustable] == ["DRIVE_TURN_RADIUS_M"]
    assert all(number.paths for number in numbers)
    found = vectors_of(package.modes[0], package)
    # A trigger has no way back, and what one channel of two gives is never both.
    assert found.share >= 0.93, found.one_way + found.not_come_to
    source = "".join(TARGETS["c99"].sources(package).values())
    assert "/* m, 0.02 times mode.m.steer.turn_radius_u */" in source


def test_vectors_take_nearly_every_branch_of_the_starter_profile():
    package = made("beekeeper")
    told = []
    found = vectors_of(package.modes[0], package, progress=lambda *so_far: told.append(so_far))
    taken = [taken for _, taken, _ in told]
    assert taken == sorted(taken)
    assert (set(told[0]) & {"foot", 0, found.branches}, taken[-1]) == ({"foot", 0, found.branches}, found.reached)
    assert len(found.rows) >= 2000
    assert found.share >= 0.98, found.one_way + found.not_come_to
    left = [*found.one_way, *found.not_come_to, *found.by_a_hair]
    assert len(left) == found.branches - found.reached
    run_of_mode = ModeRun(demo_profile(), "foot", None, GROUND.numbers, package.axes, False)
    record = run_of_mode.record_at_rest
    at = found.inputs.index("key_w")
    column = len(found.inputs) + found.results.index("position_y")
    rest = {name: one.rest for name, one in package.modes[0].inputs.fields.items()}
    begins = [number for number, row in enumerate(found.rows) if row[0] > 0.0]
    assert begins[0] == 0
    for row in found.rows[: begins[1]]:
        given = rest | dict(zip(found.inputs[2:], row[2:], strict=False))
        sample = package.modes[0].row_from(given)
        tick = run_of_mode.part if row[1] <= 0.1 else run_of_mode.tick
        record = tick(record, sample, row[1]) if row[1] > 0.0 else run_of_mode.standing(record)
        assert run_of_mode.reader.position(record)[1] == row[column]
    assert {row[at] for row in found.rows} == {0.0, 1.0}


@pytest.mark.long
def test_vectors_come_to_where_a_body_that_rolls_for_half_a_minute_comes_to_rest():
    text = "format = 'wendonic-profile'\nversion = 1\n[[mode.m.move.bind]]\nstick = 'pad.left_stick'\n"
    package = packaged(profile_from_text(f"{text}[gait.walk]\ntop_speed_m_s = 7\ncoast_half_life_s = 4\n"), "pond")
    found = vectors_of(package.modes[0], package)
    assert not [branch for branch in found.one_way + found.not_come_to if branch.startswith("coasting")]
    assert found.share >= 0.98, found.one_way + found.not_come_to


MODES = [(name, mode) for name in profile_names() for mode in demo_profile(name).mode]


@pytest.mark.long
@pytest.mark.parametrize(("name", "mode"), MODES)
def test_vectors_take_nearly_every_branch_of_a_shipped_mode(name, mode):
    package = packaged(demo_profile(name), name, [mode])
    found = vectors_of(package.modes[0], package)
    assert len(found.rows) >= 2000
    assert found.share >= 0.98, found.one_way + found.not_come_to


@pytest.mark.long
@pytest.mark.parametrize(
    ("name", "mode", "course"),
    [("terraces", "foot", "terraces"), ("terraces", "barrow", "terraces"), ("harvest", "foot", "harvest")],
)
def test_on_a_course_they_do_too_whatever_that_course_has(name, mode, course):
    """Steps, banks, edges and walls are met on ground made up for it."""
    package = packaged(demo_profile(name), name, [mode], demo_course(course))
    found = vectors_of(package.modes[0], package)
    assert found.share >= 0.98, found.one_way + found.not_come_to


def test_the_command_writes_checks_and_overwrites_only_its_own(tmp_path):
    needs("lua")
    folder = tmp_path / "out"
    profile = tmp_path / "pad.toml"
    profile.write_text(PAD_ONLY, encoding="utf-8")
    done = run("export", profile, "--as", "lua", "--out", folder, "--check")
    assert done.returncode == 0, done.stderr
    assert re.search(r"lua5\.4: \d+ ticks, worst difference", done.stdout)
    again = run("export", profile, "--as", "lua", "--out", folder)
    assert again.returncode == 2
    assert "not empty" in again.stderr
    (folder / "mine.txt").write_text("mine")
    (folder / "pad.lua").write_text("broken")
    assert run("export", profile, "--as", "lua", "--out", folder, "--force").returncode == 0
    assert (folder / "mine.txt").read_text() == "mine"
    assert "local M = {}" in (folder / "pad.lua").read_text()
    with pytest.raises(WendonicError, match="no export wrote"):
        write_files(folder, {"mine.txt": "theirs"})
    assert (folder / "mine.txt").read_text() == "mine"


@pytest.mark.long
def test_single_precision_guards_half_a_turn_by_some_of_its_own_steps():
    """1e-9 is less than a step of such numbers at pi, where rounding would choose the side to turn to."""
    for float32, guard in ((False, "PI - 1e-09)"), (True, "PI - 3e-06f)")):
        package = packaged(demo_profile(), "walk", ["foot"], float32=float32)
        assert guard in "".join(TARGETS["c99"].sources(package).values())


@pytest.mark.long
def test_squares_are_no_matter_for_single_precision():
    with pytest.raises(WendonicError, match='mode "push" looks up blocked squares'):
        packaged(demo_profile("crates"), "crates", ["push"], float32=True)


@pytest.mark.parametrize(
    ("words", "said"),
    [
        (["--as", "c98"], 'no language "c98"; did you mean "c99"?'),
        (["--as", "lua", "--mode", "fot"], 'no mode "fot"; did you mean "foot"?'),
        (["--as", "lua", "--float32"], "--float32 goes with --as c99"),
        (["--as", "lua", "--adjustable", "gait.walk.accel"], 'no field behind a number "gait.walk.accel"'),
        (
            ["--as", "lua", "--adjustable", "mode.foot.move.half_life_s"],
            "mode.foot.move.half_life_s is 0 and has no number in the source",
        ),
        (["--as", "lua", "--recording", "hands.jsonl"], 'has nothing of what mode "foot" binds'),
    ],
)
def test_an_impossible_export_is_reported(words, said, tmp_path):
    profile = tmp_path / "pad.toml"
    profile.write_text(PAD_ONLY, encoding="utf-8")
    (tmp_path / "hands.jsonl").write_text(
        '{"format":"wendonic-recording","version":1,"title":""}\n{"t":0.1,"c":"key.KeyQ","v":1}\n'
    )
    done = run("export", profile, *words, "--out", tmp_path / "out", folder=tmp_path)
    assert done.returncode == 2
    assert said in done.stderr.replace("\n", " ")
    assert not (tmp_path / "out").exists()


def test_a_frozen_game_runs_on_tick_functions_that_were_exported(monkeypatch):
    profile = profile_from_text(KEYS_ONLY)
    text = exported(packaged(profile, "keys"), "python", vectors={"foot": Vectors([], [])}).files[
        "keys_tick_functions.py"
    ]
    assert set(re.findall(r"(?m)^\s*(?:import|from) (\w+)", text)) <= {"math"}
    assert max(map(len, text.splitlines())) <= 120
    module = types.ModuleType("keys_tick_functions")
    exec(compile(text, "keys_tick_functions.py", "exec"), vars(module))
    usual = Helm(profile)

    def hidden(*_):
        raise SourceMissingError("frozen")

    monkeypatch.setattr("wendonic.compiler.ready._from_disk", hidden)
    monkeypatch.setattr("wendonic.compiler.ready._made", hidden)
    frozen = Helm(profile, tick_functions=module)
    for helm in (usual, frozen):
        helm.key("KeyW", True)
    monkeypatch.setitem(sys.modules, module.__name__, module)
    for tick in range(30):
        assert usual.tick(1 / 60).record == frozen.tick(1 / 60).record
        if tick == 20:
            frozen = pickle.loads(pickle.dumps(frozen))
    assert "Exported" in frozen.tick_function()
    with pytest.raises(WendonicError, match="export the profile as it is now"):
        Helm(profile.changed({"mode.foot.steer": {"frame": "drive"}}), tick_functions=module)
    with pytest.raises(WendonicError, match="wendonic export wrote"):
        Helm(profile, tick_functions=math)
    module.WENDONIC = "0.0.1"
    with pytest.raises(WendonicError, match=r"of Wendonic 0\.0\.1"):
        Helm(profile, tick_functions=module)
