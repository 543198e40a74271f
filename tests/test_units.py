"""A game in a unit of its own: the same game in metres is the authority; what is told is in the file's words."""

import math
import re
import tomllib

import pytest
import tomlkit
from typer.testing import CliRunner

from few_of_many import few_of
from wendonic import (
    Event,
    Helm,
    ProfileError,
    Recording,
    WendonicError,
    load_profile,
    profile_from_text,
    save_profile,
    shape,
)
from wendonic.cli.main import app
from wendonic.demo import FOLDER, profile_names
from wendonic.length_unit import LengthUnit
from wendonic.pictures import draw_comparison, draw_diagonals, draw_feel, draw_path, draw_sweep, draw_timeline
from wendonic.profile.schema.world import World
from wendonic.profile.value_at import limits_of, value_at
from wendonic.study.checking import check
from wendonic.study.feel_sheet import measure
from wendonic.study.solve.compare import compare
from wendonic.study.solve.fit import fit
from wendonic.study.solve.sweep import sweep
from wendonic.testing import assert_feel

METRES = """format = "wendonic-profile"
version = 1
[world]
right = "+x"
forward = "-y"

[mode.yard]
steer = { frame = "goto", arrival_m = 0.1, slow_down_m = 1 }
[[mode.yard.move.bind]]
keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }

[mode.tiles]
like = "yard"
steer = { frame = "grid", square_m = 0.64, origin_m = [0.64, 0] }

[gait.walk]
top_speed_m_s = 4
accel_m_s2 = 30
brake_m_s2 = 40

[budget]
stop_distance_m = { max = 2 }
"""
PIXELS = (
    METRES.replace('forward = "-y"', 'forward = "-y"\nunit = "px"\nunits_per_m = 50')
    .replace("arrival_m = 0.1, slow_down_m = 1", "arrival_u = 5, slow_down_u = 50")
    .replace("square_m = 0.64, origin_m = [0.64, 0]", "square_u = 32, origin_u = [32, 0]")
    .replace("top_speed_m_s = 4", "top_speed_u_s = 200    # as the tiles are 32")
    .replace("accel_m_s2 = 30", "accel_u_s2 = 1500")
    .replace("brake_m_s2 = 40", "brake_u_s2 = 2000")
    .replace("stop_distance_m = { max = 2 }", "stop_distance_u = { max = 100 }")
)


def both():
    return Helm(profile_from_text(METRES)), Helm(profile_from_text(PIXELS))


def vectors(intent):
    goal = [intent.goal] if intent.goal else []
    return [intent.position(), intent.velocity(), intent.velocity(top_speed_m_s=3.0), *goal]


def test_what_a_game_hands_in_and_gets_back_is_in_its_own_unit():
    metres, pixels = both()
    assert metres.profile.gait == pixels.profile.gait

    def reported(what, *numbers, **named):
        smaller = {name: [number / 50 for number in given] for name, given in named.items()}
        getattr(metres, what)(*[number / 50 for number in numbers], **smaller)
        getattr(pixels, what)(*numbers, **named)

    reported("place", 320.0, 200.0, velocity=(10.0, -30.0))
    for step, act in enumerate(
        [
            lambda: reported("go_to", 100.0, 350.0),
            lambda: reported("push", 60.0, 0.0),
            lambda: [helm.key("KeyD", down=True) for helm in (metres, pixels)],
            lambda: reported("aim_at", 5.0, 5.0),
            lambda: reported("restart", 64.0, 32.0),
            lambda: [helm.enter("tiles") for helm in (metres, pixels)],
        ]
    ):
        act()
        for _ in range(40):
            first, second = metres.tick(1 / 60), pixels.tick(1 / 60)
            for small, large in zip(vectors(first), vectors(second), strict=True):
                assert large == pytest.approx([50 * part for part in small], abs=1e-9), step
            assert second.motion == first.motion
            assert second.distance_m == pytest.approx(first.distance_m) if first.distance_m else not second.distance_m
            assert second.facing() == pytest.approx(first.facing())
            assert second.direction() == pytest.approx(first.direction())
            assert second.step == first.step
    # A direction has no unit.
    for helm in (metres, pixels):
        helm.restart(0.0, 0.0, facing=(3.0, 0.0))
        helm.contact(0.0, 7.0)
    assert metres.tick(0.01).contact == pixels.tick(0.01).contact == (0.0, 1.0)
    assert pixels.tick(0.01).face_deg == metres.tick(0.01).face_deg


def test_a_wanted_velocity_takes_either_unit_and_not_both():
    _, pixels = both()
    pixels.key("KeyD", down=True)
    for _ in range(60):
        intent = pixels.tick(1 / 60)
    assert intent.velocity(top_speed_u_s=120.0) == pytest.approx((120.0, 0.0))
    assert intent.velocity(top_speed_m_s=2.4) == pytest.approx((120.0, 0.0))
    assert intent.velocity() == pytest.approx((200.0, 0.0))
    with pytest.raises(WendonicError, match="allowed: one of them"):
        intent.velocity(top_speed_m_s=2.4, top_speed_u_s=120.0)


def test_caps_made_for_metres_are_scaled_and_told_in_the_files_own_words():
    # 100,000 m/s² are 5,000,000 px/s².
    profile_from_text(PIXELS.replace("accel_u_s2 = 1500", "accel_u_s2 = 4900000"))
    for right, wrong, fault in (
        (
            "accel_u_s2 = 1500",
            "accel_u_s2 = 6e6",
            "gait.walk.accel_u_s2: found 6000000.0; allowed: above 0, up to 5000000",
        ),
        ("slow_down_u = 50", "slow_down_u = 'far'", 'mode.yard.steer.slow_down_u: found "far"; allowed: a number'),
        ("accel_u_s2", "acel_u_s2", 'gait.walk.acel_u_s2: unknown key; did you mean "accel_u_s2"?'),
        (
            "brake_u_s2 = 2000",
            "brake_u_s2 = 2000\nthrust_u_s2 = 600\ndrag_per_s = 2",
            "thrust_u_s2: with drag_per_s it gives the top speed (thrust / drag) and the rates; "
            "remove top_speed_u_s, accel_u_s2, brake_u_s2",
        ),
        (
            "brake_u_s2 = 2000",
            "brake_u_s2 = 2000\njump = { height_u = 60, speed_u_s = 200 }",
            "gait.walk.jump.height_u: found both; allowed: either height_u or speed_u_s",
        ),
        ("brake_u_s2 = 2000", "brake_u_s2 = 2000\ndrag_per_s = 2", "drag_per_s: does nothing without thrust_u_s2"),
        ("units_per_m = 50", "units_per_m = -3", "world.units_per_m: found -3; allowed: above 0"),
        (
            "brake_u_s2 = 2000",
            "brake_u_s2 = 2000\nbrake_m_s2 = 9",
            "brake_u_s2: allowed with units_per_m in [world], ",
        ),
        ("brake_u_s2 = 2000", "brake_px_s2 = 2000", 'gait.walk.brake_px_s2: unknown key; did you mean "brake_u_s2"?'),
        (
            "stop_distance_u",
            "stop_distance_px",
            'budget.stop_distance_px: unknown key; did you mean "stop_distance_u"?',
        ),
        ('unit = "px"\nunits_per_m = 50', 'unit = "px"', "unit: does nothing without units_per_m"),
        ('unit = "px"', 'unit = "m"', 'unit: found "m" for a unit of which 50 are a metre; allowed: any other name'),
        ('unit = "px"\nunits_per_m = 50', "", "top_speed_u_s: allowed with units_per_m in [world]"),
    ):
        assert right in PIXELS
        with pytest.raises(ProfileError) as found:
            profile_from_text(PIXELS.replace(right, wrong))
        assert fault in str(found.value), str(found.value)


def test_a_unit_without_a_name_is_not_called_a_metre():
    nameless = profile_from_text(PIXELS.replace('unit = "px"\n', ""))
    assert nameless.world.length == LengthUnit("u", 50.0)
    assert nameless.world.axes.unit == "u"
    assert "; 50 u per metre" in "\n".join(nameless.sentences())
    # One unit to the metre is the metre, unless it has another name.
    for world, name in (({}, "m"), ({"units_per_m": 1}, "m"), ({"units_per_m": 1, "unit": "yd"}, "yd")):
        assert World(right="+x", forward="-y", **world).length.name == name


def test_paths_take_the_spelling_of_the_file(tmp_path):
    path = tmp_path / "yard.toml"
    path.write_text(PIXELS)
    profile = load_profile(path)
    assert value_at(profile, "gait.walk.top_speed_u_s") == 200.0
    assert limits_of(profile, "gait.walk.accel_u_s2")[1] == 5e6
    faster = profile.changed({"gait.walk.top_speed_u_s": 300, "mode.tiles.steer.square_u": 16})
    assert faster.gait["walk"].top_speed_m_s == 6.0
    assert faster.mode["tiles"].steer.square_m == 0.32
    save_profile(faster, path)
    assert load_profile(path) == faster
    assert "top_speed_u_s = 300    # as the tiles are 32" in path.read_text()
    assert "_m_s" not in path.read_text()
    with pytest.raises(ProfileError, match=r"gait\.walk\.top_speed_u_s: .*without top_speed_m_s beside it"):
        profile.changed({"gait.walk.top_speed_m_s": 3.0})
    helm = Helm(profile)
    helm.retune(faster)
    helm.apply(Event(0.0, "key.KeyD", 1.0))
    for _ in range(60):
        intent = helm.tick(1 / 60)
    assert intent.velocity()[0] == pytest.approx(300.0)


@pytest.mark.long
def test_budgets_limits_and_findings_are_in_the_games_own_unit():
    profile = profile_from_text(PIXELS.replace("brake_u_s2 = 2000", "brake_u_s2 = 60"))
    stops_m = measure(profile, engine="interpreted", only=["stop_distance_m"]).stop_distance_m
    assert_feel(profile, stop_distance_u=(None, 51.0 * stops_m))
    with pytest.raises(AssertionError, match="stop_distance"):
        assert_feel(profile, stop_distance_u=(None, 49.0 * stops_m))
    found = {finding.slug: finding for finding in check(profile, "interpreted")}
    assert found["over-budget"].where == "budget.stop_distance_u"
    both = compare({"now": profile, "loose": profile.changed({"budget.stop_distance_u.max": 1250.0})}, {})
    words = [both.setting_words(setting) for setting in both.settings]
    assert words == [("budget.stop_distance_u.max", "100", "1250")]
    slides = found["slides-on"]
    assert slides.where == "gait.walk.brake_u_s2"
    idle = profile_from_text(PIXELS.replace("brake_u_s2 = 2000", "brake_u_s2 = 2000\nairborne = { accel_u_s2 = 9 }"))
    assert "does nothing without gravity_u_s2 or a jump" in {one.measured for one in check(idle, "interpreted")}
    # What is proposed goes into the file as it is, and cures it.
    ((path, number),) = slides.changes.items()
    assert slides.fix == f"{path} = {number}"
    cured = profile.changed(slides.changes)
    assert "slides-on" not in {finding.slug for finding in check(cured, "interpreted")}
    assert math.isclose(cured.gait["walk"].brake_m_s2 * 50.0, float(number))


def test_the_unit_is_said():
    assert (
        "  axes: 2-D from above; forward is -y, right is +x; 50 px per metre" in profile_from_text(PIXELS).sentences()
    )


@pytest.fixture(scope="module")
def files(tmp_path_factory):
    """The same game in metres and in pixels, and a walk in it."""
    folder = tmp_path_factory.mktemp("units")
    (folder / "metres.toml").write_text(METRES.replace("max = 2", "max = 0.02"))
    (folder / "pixels.toml").write_text(PIXELS.replace("max = 100", "max = 1"))
    small = METRES.replace('forward = "-y"', 'forward = "-y"\nunit = "dot"\nunits_per_m = 20000')
    (folder / "dots.toml").write_text(small.replace("max = 2", "max = 0.02"))
    keys = [(0.5, "KeyW", 1), (1.5, "KeyD", 1), (2.5, "KeyW", 0), (3.0, "KeyD", 0), (4.0, "KeyF", 1)]
    Recording([Event(t, f"key.{code}", down) for t, code, down in keys]).write(folder / "walk.jsonl")
    return folder


LENGTHS = re.compile(r"(-?\d+\.?\d*(?:e-?\d+)?) +(dot|m|px)(/s²|/s|/min)?(?![\w/])")


@pytest.mark.parametrize(
    "command",
    few_of(
        [["info", "F"], ["measure", "F"], ["check", "F"], ["shape", "F", "walk.jsonl"], ["compare", "F", "F"]],
        [["info", "F"], ["measure", "F"], ["shape", "F", "walk.jsonl"]],
    ),
    ids=lambda command: command[0],
)
def test_tables_and_sentences_say_the_same_lengths_in_the_games_own_unit(command, files, monkeypatch):
    """Every length that the game in metres is told, the others are told as so many of their own, in plain digits."""
    monkeypatch.chdir(files)
    runner = CliRunner()
    said = {}
    for name, unit in (("metres", "m"), ("pixels", "px"), ("dots", "dot")):
        out = runner.invoke(
            app, [f"{name}.toml" if word == "F" else word for word in command], env={"COLUMNS": "200"}
        )
        assert out.exit_code in (0, 1), out.output
        text = re.sub(r"50 px per metre|20000 dot per metre", "", out.output)
        assert "e+" not in text
        found = LENGTHS.findall(text)
        assert {of for _, of, _ in found} <= {unit}
        said[name] = [float(number) for number, _, _ in found]
        # Of tables whose heads carry the unit, the first length of the second row from the end will do.
        said[name] += [
            float(row.split()[-1]) for row in out.output.splitlines()[5:] if command[0] == "shape" and " keys " in row
        ]
    for name, per_m in (("pixels", 50.0), ("dots", 20000.0)):
        assert len(said[name]) == len(said["metres"]) > 0
        assert said[name] == pytest.approx([per_m * number for number in said["metres"]], rel=0.06, abs=0.06 * per_m)


@pytest.mark.long
def test_pictures_count_in_the_games_own_unit(files):
    """The same picture, with fifty times the numbers on its axes."""
    walk = Recording.read(files / "walk.jsonl")
    ticks = {}
    for name in ("metres", "pixels"):
        profile = load_profile(files / f"{name}.toml")
        trace = shape(walk, profile)
        drawn = [
            draw_path(trace, profile=profile),
            draw_timeline(trace, walk, length=profile.world.length)[-1],
            draw_diagonals(profile),
            draw_feel({name: profile})[0],
            draw_comparison(compare({name: profile, "other": profile}))[0],
        ]
        unit = "m" if name == "metres" else "px"
        for ax in drawn:
            ax.figure.canvas.draw()
            assert f"({unit}" in ax.get_ylabel()
        ticks[name] = [
            [(tick, label.get_text()) for tick, label in zip(ax.get_yticks(), ax.get_yticklabels(), strict=True)]
            for ax in drawn
        ]
    for of_metres, of_pixels in zip(ticks["metres"], ticks["pixels"], strict=True):
        assert all(float(label.replace("\N{MINUS SIGN}", "-")) == pytest.approx(tick) for tick, label in of_metres)
        assert all(
            float(label.replace("\N{MINUS SIGN}", "-")) == pytest.approx(50.0 * tick) for tick, label in of_pixels
        )
        assert max(tick for tick, _ in of_pixels) == pytest.approx(max(tick for tick, _ in of_metres), rel=0.5)


def test_targets_sweeps_and_limits_take_the_games_own_unit():
    pixels = profile_from_text(PIXELS)
    fitted = fit(pixels, {"stop_distance_u": 20.0}, ["gait.walk.brake_u_s2"])
    assert fitted.reached
    after = measure(fitted.profile).stop_distance_m
    assert after == pytest.approx(20.0 / 50.0, rel=0.01)
    over = {"gait.walk.brake_u_s2": [500.0, 2000.0]}
    frame = sweep(pixels, over, ["stop_distance_u", "stop_distance_m", "reach90_s"])
    assert frame["stop_distance_u"].tolist() == pytest.approx(50.0 * frame["stop_distance_m"])
    ax = draw_sweep(
        frame[["gait.walk.brake_u_s2", "stop_distance_m"]], "stop_distance_m", length=LengthUnit("px", 50.0)
    )
    same = draw_sweep(
        frame[["gait.walk.brake_u_s2", "stop_distance_u"]], "stop_distance_u", length=LengthUnit("px", 50.0)
    )
    assert ax.get_title(loc="left") == same.get_title(loc="left")
    assert ax.get_ylabel() == "stop_distance_u (px)"
    for unknown in ("stop_distanc_u", "reach90_u"):
        with pytest.raises(WendonicError, match="no quantity of the feel sheet"):
            fit(pixels, {unknown: 1.0}, ["gait.walk.brake_u_s2"])
    # A game in metres has no other unit.
    with pytest.raises(WendonicError, match='did you mean "stop_distance_m"'):
        fit(profile_from_text(METRES), {"stop_distance_u": 1.0}, ["gait.walk.brake_m_s2"])


def test_a_tick_is_printed_in_the_games_own_unit():
    world = '[world]\nright = "+x"\nforward = "-y"\nunit = "px"\nunits_per_m = 50\n'
    walks = '[[mode.m.move.bind]]\nkeys = { right = ["KeyD"] }\n[gait.walk]\ntop_speed_u_s = 200\n'
    helm = Helm(profile_from_text(f'format = "wendonic-profile"\nversion = 1\n{world}{walks}'))
    helm.key("KeyD", down=True)
    for _ in range(60):
        intent = helm.tick(1 / 60)
    assert str(intent).endswith(", 200.00 px/s")


@pytest.mark.parametrize("name", profile_names())
def test_a_profile_describes_itself_in_the_games_own_unit(name):
    content = tomllib.loads((FOLDER / f"{name}.toml").read_text(encoding="utf-8"))
    world = content.get("world", {"right": "+x", "forward": "+y", "up": "+z"})
    content["world"] = {**world, "unit": "ell", "units_per_m": 0.8}
    said = "\n".join(profile_from_text(tomlkit.dumps(content)).sentences())
    # Hands swing in the room of the player, not in the game.
    said = re.sub(r"full at [\d.]+ m/s", "", said)
    assert re.findall(r"\d m(?:/s²?)?(?![\w/])", said) == []
    assert "ell/s" in said
