"""The README, the examples and the docstrings do what they say."""

import ast
import contextlib
import doctest
import importlib
import inspect
import io
import linecache
import pkgutil
import re
import runpy
import subprocess
import sys
from pathlib import Path
from unittest import mock

import pytest

import wendonic
from test_command_line import called
from wendonic import Helm
from wendonic.demo import copy_inputs
from wendonic.demo.starter import write_starter
from wendonic.profile.load import profile_from_text
from wendonic.study.checking import check

TOP = Path(__file__).parent.parent
README = (TOP / "README.md").read_text(encoding="utf-8")
MODULES = [
    name for _, name, _ in pkgutil.walk_packages(wendonic.__path__, "wendonic.") if not name.endswith("__main__")
]


def source_of(name):
    place = TOP.joinpath("src", *name.split("."))
    return (place / "__init__.py" if place.is_dir() else place.with_suffix(".py")).read_text(encoding="utf-8")


GUIDES = TOP / "docs" / "guides"


def blocks(language, page=README):
    return re.findall(rf"```{language}\n(.*?)```", page, re.DOTALL)


def python(*words, folder):
    done = subprocess.run(
        [sys.executable, *map(str, words)], check=False, cwd=folder, capture_output=True, text=True, timeout=120
    )
    assert done.returncode == 0, done.stderr
    return done.stdout


def example(name, *words, folder):
    """Run an example as it stands, in this process; return what it prints."""
    out = io.StringIO()
    script = str(TOP / "examples" / name)
    with (
        contextlib.chdir(folder),
        mock.patch.object(sys, "argv", [script, *words]),
        contextlib.redirect_stdout(out),
    ):
        runpy.run_path(script, run_name="__main__")
    return out.getvalue()


def test_every_module_can_be_imported():
    for name in MODULES:
        importlib.import_module(name)


@pytest.mark.parametrize("name", [name for name in MODULES if ">>>" in source_of(name)])
def test_docstring_examples_run(name, monkeypatch):
    # The debugger that a doctest makes ready looks at every file read so far, whatever the module.
    monkeypatch.setattr(linecache, "checkcache", lambda *_: None)
    found = doctest.testmod(importlib.import_module(name))
    assert found.failed == 0 < found.attempted


def test_doctests_are_there_to_fail():
    """Every kernel shows a runnable example, but for the parts that the tick is put together from."""
    without = {
        f"{path.stem}.{node.name}"
        for path in (TOP / "src" / "wendonic" / "kernels").rglob("*.py")
        for node in ast.parse(path.read_text()).body
        if isinstance(node, ast.FunctionDef) and ">>>" not in (ast.get_docstring(node) or "")
    }
    parts = {
        "tick": "tick_part without_lost_keys axes_output standing",
        "tick_record": "tick_at_rest",
        "hitch": "sample_share later_sample joined",
        "steer_in_parts": "request_within steer_within requested steer goals_now slowed_near_goal",
        "steer_part": "steer_part facing_after on_course",
        "head": "out_of_wall pointed",
        "move": "all_sources",
    }
    assert without == {f"{module}.{name}" for module, names in parts.items() for name in names.split()}


def test_the_two_commands_are_complete():
    """Making an environment needs a package index; the rest is to be typed as it is."""
    main_job, tests = (block.strip().split(" && ") for block in blocks("sh"))
    for command in (main_job, tests):
        assert command[0] == "python3 -m venv .venv"
        assert command[1].startswith(".venv/bin/python -m pip install")
    # What that does is tried in test_command_line.py.
    assert main_job[2] == ".venv/bin/wendonic demo --out demo-out"
    assert tests[2] == ".venv/bin/python -m pytest"
    windows = [
        line.replace("\\", "/").replace("Scripts", "bin") for block in blocks("bat") for line in block.split("\n")
    ]
    assert [line.replace("py -m venv", "python3 -m venv") for line in windows if line] == [
        " && ".join(main_job),
        " && ".join(tests),
    ]


def test_the_example_prints_what_it_says(tmp_path):
    (example,) = blocks("python")
    assert len([line for line in example.splitlines() if line]) <= 10
    write_starter(tmp_path / "beekeeper.toml")
    assert python("-c", example, folder=tmp_path) == blocks("text")[0]


def test_start_here_works_as_it_stands(tmp_path):
    """Every command but those that make an environment, wait for a browser, or are tried elsewhere; then the game."""
    page = (TOP / "docs" / "index.md").read_text(encoding="utf-8")
    commands = [line for block in blocks("sh", page) for line in block.strip().split("\n")]
    assert [line.split()[:2] for line in commands[1:]] == [
        ["wendonic", word] for word in ("demo", "live", "new", "draw", "compare", "check")
    ]
    copy_inputs(tmp_path / "demo-out")
    for command in commands[3:]:
        done = called(*command.split()[1:], folder=tmp_path)
        assert done.returncode == 0, done.stderr
    (game,) = blocks("python", page)
    assert python("-c", game, folder=tmp_path).startswith("(")
    assert "0.1707" in called("measure", "bee.toml", "--of", "stop_distance_m", folder=tmp_path).stdout
    profile = (tmp_path / "bee.toml").read_text(encoding="utf-8").replace("brake_m_s2 = 30", "brake_m_s2 = 4")
    (tmp_path / "bee.toml").write_text(profile, encoding="utf-8")
    # What the page says that the slider does.
    assert "0.1707 → 1.28 m" in page
    assert " 1.28 " in called("measure", "bee.toml", "--of", "stop_distance_m", folder=tmp_path).stdout


def test_the_bench_works_in_python_as_the_guide_shows_it(tmp_path):
    (example,) = blocks("python", (GUIDES / "feel.md").read_text(encoding="utf-8"))
    write_starter(tmp_path / "beekeeper.toml")
    shown = python("-c", example, folder=tmp_path)
    assert re.search(r"^reach90_s +0\.1309 s$", shown, re.MULTILINE)
    # v² / 2b, and what the smoothing adds.
    stops = [float(line.split()[-1]) for line in shown.splitlines() if re.match(r"\d +\d+\.0 ", line)]
    assert stops == pytest.approx([3.2 * 3.2 / (2.0 * brake) for brake in (10.0, 20.0, 40.0)], abs=0.006)
    assert (tmp_path / "feel.png").stat().st_size > 10_000
    assert "accel_m_s2 = 24.0          # rate" in (tmp_path / "beekeeper.toml").read_text(encoding="utf-8")


def test_the_profiles_of_the_guides_are_sound():
    presses, joystick = blocks("toml", (GUIDES / "bindings.md").read_text(encoding="utf-8"))
    (gait,) = blocks("toml", (GUIDES / "body.md").read_text(encoding="utf-8"))
    head = 'format = "wendonic-profile"\nversion = 1\n'
    profile = profile_from_text(f"{head}{presses}")
    assert profile.press_names == ("jump", "sprint", "smoke", "up", "close")
    walks = '[[mode.foot.move.bind]]\nstick = "pad.left_stick"\n'
    runs = profile_from_text(f"{head}{walks}{presses}{gait}{joystick}")
    assert [mapping.name for mapping in runs.joysticks] == ["Barrow stick"]
    assert runs.gaits_of("foot")["run"].top_speed_m_s == 5.6
    assert [finding.slug for finding in check(runs, "interpreted")] == []
    (side,) = blocks("toml", (GUIDES / "steering.md").read_text(encoding="utf-8"))
    jumps = '[mode.run.press]\njump = { bind = ["Space"] }\n[gait.walk]\njump = { press = "jump", height_m = 1 }\n'
    hops = profile_from_text(f"{head}{side}{jumps}")
    assert [finding.slug for finding in check(hops, "interpreted")] == []
    helm = Helm(hops)
    helm.key("KeyD", True)
    helm.key("Space", True)
    across, down = helm.tick(0.1).position()
    assert across > 0.05
    assert down < -0.2


@pytest.mark.parametrize(
    "page", [TOP / "README.md", *sorted((TOP / "docs").rglob("*.md"))], ids=lambda path: str(path.relative_to(TOP))
)
def test_every_link_leads_somewhere(page):
    links = re.findall(r"\]\(([^)#:]+)[^)]*\)", page.read_text(encoding="utf-8"))
    # The site's own pictures are drawn when it is built.
    drawn = ("../pictures/", "pictures/")
    assert [link for link in links if not link.startswith(drawn) and not (page.parent / link).exists()] == []


def test_every_picture_that_is_kept_is_linked_and_there_are_few():
    kept = {path.name for path in (TOP / "docs" / "screenshots").iterdir()}
    assert kept == set(re.findall(r"docs/screenshots/(\w+\.png)", README))
    assert len(kept) < 20


@pytest.mark.parametrize(
    ("guide", "example"), [("pygame", "window_to_helm"), ("pyglet", "window_pyglet"), ("glfw", "window_glfw")]
)
def test_the_guide_of_a_library_shows_its_example(guide, example):
    (shown,) = blocks("python", (GUIDES / f"{guide}.md").read_text(encoding="utf-8"))
    assert shown == (TOP / "examples" / f"{example}.py").read_text(encoding="utf-8")


def test_first_steps(tmp_path):
    out = example("first_steps.py", folder=tmp_path).splitlines()
    assert out[0] == "1 s, KeyW: heading 90 deg, velocity (3.20, 0.00, 0.00) m/s"
    assert out[1] == "2 s, KeyD + KeyW: heading 135 deg, velocity (2.26, 0.00, 2.26) m/s"
    assert out[2] == "3 s, hands off: at rest, velocity (0.00, 0.00, 0.00) m/s"
    assert len((TOP / "examples" / "first_steps.py").read_text().splitlines()) <= 22


def test_shape_a_recording(tmp_path):
    out = example("shape_a_recording.py", folder=tmp_path)
    assert "walking for 25.0 s of 36.0 s" in out
    assert (tmp_path / "beekeeper_pad_timeline.png").stat().st_size > 20_000


def test_look_and_jump(tmp_path):
    out = example("look_and_jump.py", folder=tmp_path).splitlines()
    assert out == [
        "sprint: on",
        "8.5 cm of mouse turn the camera by 90.0 deg, to a yaw of 90.0 deg",
        "Space came 4 ticks before the ground: the jump begins on tick 5",
    ]


def test_jump_and_run(tmp_path):
    out = example("jump_and_run.py", folder=tmp_path).splitlines()
    assert out[1:3] == ["walking, held:     1.10 m high, 1.95 m far", "running, held:     1.30 m high, 3.64 m far"]
    assert out[3].startswith("the terrace is too high to step on: 6.00 m forward")
    assert out[4].endswith("0.9 m up")


def test_yard_with_walls(tmp_path):
    untold, reported, rebound = example("yard_with_walls.py", folder=tmp_path).splitlines()
    # Told nothing, the helm has 4 m/s to lose first, and the key its own way from right to left.
    assert untold.startswith("3 s against the fence at x 7.67 m, helm reports nothing")
    assert int(reported.split()[-1]) == 1
    assert int(untold.split()[-1]) > 5
    assert rebound == "key.ArrowLeft for left: -4.00 m/s along x"


def test_the_pixel_game_stops_at_walls_pauses_and_changes_its_settings_while_it_runs(tmp_path):
    lines = example("pixel_yard.py", folder=tmp_path).splitlines()
    wall, off, pause, menu, back, new_key, half = (
        (line[32:37].strip(), *map(float, re.findall(r"-?\d+\.\d+", line)), int(line.split()[-1])) for line in lines
    )
    # Ten pixels of body from the wall at 288; half a second of 200 px/s back, but for getting there.
    assert wall[1] == pytest.approx(278.0, abs=200 / 60)
    assert 60.0 < wall[1] - off[1] < 100.0
    assert (pause[0], pause[1:]) == ("menu", off[1:])
    # At once, after 0.4 s, and every 0.1 s from there on, up to 1 s.
    assert menu[3] == 8
    assert (back[0], back[1:]) == ("yard", menu[1:])
    assert new_key[1] < back[1] - 60.0
    # 0.55 of the stick's way, past its dead zone, in proportion: about half of 200 px/s for half a second.
    assert 20.0 < half[1] - new_key[1] < 50.0


def test_the_platform_game_jumps_late_early_and_once_in_the_air(tmp_path):
    lines = example("hive_hop.py", "--picture", folder=tmp_path).splitlines()
    happened = [line.split(" m  ")[-1] for line in lines]
    assert happened == [
        "jump off the ground",
        "jump off the ground",
        "land",
        "jump",
        "land",
        "fall, and a new life",
    ]
    # Right after landing, by a press that came before it: 0.12 s is how long it waits.
    assert float(lines[3].split(" s")[0]) - float(lines[2].split(" s")[0]) == pytest.approx(1 / 60, abs=0.006)
    assert (tmp_path / "hive_hop.png").stat().st_size > 10_000


def test_the_chase_camera_stays_behind_and_aiming_makes_no_dip(tmp_path):
    *lines, back = example("chase_camera.py", folder=tmp_path).splitlines()
    ahead, right, aiming, cart, _, out = (list(map(float, re.findall(r"-?\d+\.\d+", line))) for line in lines)
    # At x and z, the speed, and the camera 4 m behind.
    assert ahead[2:] == [3.2, 0.0, 0.0, pytest.approx(ahead[1] + 4.0, abs=0.011)]
    assert right[:2] == pytest.approx([ahead[0] + 2.96, ahead[1] - 0.24], abs=0.011)
    for moment in (right, aiming, cart, out):
        assert moment[3] == pytest.approx(moment[0] - 4.0, abs=0.011)
    # Half a second of strolling covers what the stroll's speed says, and a little more for slowing down to it.
    assert 0.5 * aiming[2] <= aiming[0] - right[0] < 0.5 * aiming[2] + 0.2
    assert (cart[2], out[2]) == (4.5, 3.2)
    assert "yaw_deg=90.0" in back


def test_two_players_share_a_keyboard_and_then_have_pads(tmp_path):
    lines = example("two_players.py", folder=tmp_path).splitlines()
    places = [list(map(float, re.findall(r"[+-]\d+\.\d+", line))) for line in lines]
    assert places[0][0] == -places[0][2] > 1.0
    assert places[3][1] == -places[3][3] < -1.0
    # The other one goes on while a pad is pulled out, and comes to rest himself.
    assert places[4][1] < places[3][1] - 1.4
    assert places[4][3] - places[3][3] < 0.2
    assert places[5][2] > places[4][2] + 1.0
    assert [line.split(" m  ")[-1] for line in lines if ": " in line.split(" m  ")[-1]] == [
        "till: puff",
        "rose: pause, till: pause",
        "rose: puff",
    ]


def test_keep_the_feel(tmp_path):
    out = example("keep_the_feel.py", folder=tmp_path).splitlines()
    assert out == ["the feel is kept", "mode foot: stop_distance_m 0.8533 m; allowed: at most 0.35 m"]


def test_a_window_steers_a_helm(tmp_path):
    pytest.importorskip("pygame")
    out = python(TOP / "examples" / "window_to_helm.py", "--dummy", folder=tmp_path).splitlines()
    assert re.fullmatch(r"keys: tick 61, .* foot: amount 1.00, heading   0.0 deg, .* 3.20 m/s", out[-1])


STEERING = {
    "map": [
        "KeyW        heading   0 deg, on the screen (+0.00, -1.00), up",
        "KeyW + KeyD heading  45 deg, on the screen (+0.71, -0.71), up",
        "on the ledge: heading 270 deg, the sprite looks left",
    ],
    "camera": [
        "looking down 80:    heading  90 deg, 2.60 m/s, height +0.00 m/s",
        "straight down:      heading  90 deg, 2.60 m/s, height +0.00 m/s",
        "by quaternion:      heading  90 deg, 2.60 m/s, height +0.00 m/s",
        "up a slope, east:   heading  90 deg, 2.60 m/s, height +1.56 m/s",
        "up a bank, east:    refused        , 2.50 m/s, height -2.00 m/s",
        "laid on the slope:  (0.80, 0.60, 0.00)",
    ],
    "facing": [
        "2.00 s: faces 180 deg, goes  89 deg, at (-2.4, 2.9) m",
        "guarding: goes 270 deg, faces 49 deg, to the bee",
    ],
    "drive": [
        "KeyD        faces   0 deg, velocity (+0.0, +0.0) m/s, at (0.0, 0.0) m",
        "KeyW + KeyD faces 105 deg, velocity (+4.8, -1.3) m/s, at (6.6, 12.3) m",
        "KeyS + KeyD faces  55 deg, velocity (-1.6, -1.1) m/s, at (6.5, 11.7) m",
        "grip 0.3: it faces 50 deg and goes 36 deg",
        "the stick   faces 140 deg, velocity (+0.0, +0.0) m/s, at (2.2, 12.4) m",
    ],
    "fly": [
        "Space         3.00 m/s,   0.0 m east,  12.2 m north,  4.9 m up",
        "KeyW + Space  4.74 m/s,   0.0 m east,  19.7 m north,  9.3 m up",
    ],
    "grid": ["KeyD for 0.60 s: on square (5, -3), (6, -3) is blocked", ".....#oo#.", "..oooooo#."],
    "goto": [
        "144 Hz: 15 m in 5.51 s, arrived at (8.91, -11.88) m",
        "clicked: goal (8.0, -4.5) m, 6.4 m to go, heading 61 deg",
        "by hand: goal None, heading 270 deg",
    ],
    "hands": [
        "a snap turn: the view is at 30 deg, and the walk with it",
        "released: teleported True, now at x 3.1, z -14.8 m",
    ],
}


@pytest.mark.parametrize("frame", STEERING)
def test_an_example_for_each_steer_frame(frame, tmp_path):
    script = TOP / "examples" / f"steer_{frame}.py"
    out = example(script.name, folder=tmp_path).splitlines()
    assert [line for line in STEERING[frame] if line not in out] == []
    assert len(script.read_text().splitlines()) < 60


def test_a_whole_game_is_played(tmp_path):
    pytest.importorskip("pygame")
    script = TOP / "examples" / "orchard_game.py"
    assert re.fullmatch(
        r"4 of 4 jars in 2\d\.\d s, 4\d\.\d m walked", python(script, "--dummy", folder=tmp_path).splitlines()[-1]
    )
    assert len(script.read_text().splitlines()) < 60


def test_public_names_are_there_and_importing_loads_nothing_heavy():
    for name in wendonic.__all__:
        assert getattr(wendonic, name).__doc__
    with pytest.raises(AttributeError, match="no attribute 'Helmet'"):
        wendonic.Helmet  # noqa: B018
    heavy = "numpy scipy pandas matplotlib numba typer rich pydantic"
    code = f"import wendonic, sys; print([name for name in {heavy.split()} if name in sys.modules])"
    assert python("-c", code, folder=TOP) == "[]\n"
    code = (
        "from wendonic import Helm; import sys; print([n for n in 'numpy pandas typer'.split() if n in sys.modules])"
    )
    assert python("-c", code, folder=TOP) == "[]\n"
    # What a profile says in words is asked for after every change.
    profile = TOP / "src" / "wendonic" / "demo" / "beekeeper.toml"
    code = (
        f"from wendonic.cli.info import info; from pathlib import Path; import sys; info(Path({str(profile)!r}))\n"
        f"print([name for name in {heavy.split()} if name in sys.modules])"
    )
    assert python("-c", code, folder=TOP).splitlines()[-1] == "['typer', 'pydantic']"


def examples_of(thing):
    return "\n".join(re.findall(r"^\s*(?:>>>|\.\.\.) (.*)$", thing.__doc__ or "", re.MULTILINE))


def test_all_that_the_python_page_lists_has_an_example():
    """A call has one that runs; a method is at least called in another one of its class."""
    page = (TOP / "docs" / "reference" / "python.md").read_text(encoding="utf-8")
    listed = re.findall(r"^::: (\S+)\.(\w+)$", page, re.MULTILINE)
    assert len(listed) > 50
    # Rows of what is returned, and what needs a machine without a screen.
    bare = {"StickCalibration", "Target", "FreeSetting", "DeviceError"}
    without = []
    for module, name in listed:
        thing = getattr(importlib.import_module(module), name)
        examples = examples_of(thing)
        calls = {}
        for kind in inspect.getmro(thing) if inspect.isclass(thing) else ():
            # What pydantic and a table of a file bring along is not listed.
            if kind.__module__.startswith("wendonic") and kind.__name__ != "Table":
                for call, value in vars(kind).items():
                    if not call.startswith(("_", "model_")) and callable(getattr(kind, call)):
                        calls.setdefault(call, getattr(value, "__func__", value))
        examples += "\n".join(map(examples_of, calls.values()))
        without += [] if examples or name in bare else [name]
        without += [f"{name}.{call}" for call in calls if not re.search(rf"\b{call}\(", examples)]
    assert without == []
