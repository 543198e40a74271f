"""`check` finds what is mirrored by trying it."""

import contextlib
import itertools
import json
import math
import os
import random
import subprocess
import sys

import pytest
import typer

from few_of_many import few_of
from wendonic import Helm, ProfileError, WendonicError
from wendonic.cli.main import app
from wendonic.demo import FOLDER, RECORDINGS, demo_profile
from wendonic.profile.load import profile_from_text
from wendonic.profile.save import saved_text
from wendonic.profile.schema.budget import quantity_names
from wendonic.profile.value_at import value_at
from wendonic.study.checking import check, fixed
from wendonic.study.quantities import QUANTITIES
from wendonic.testing import assert_feel

HEAD = 'format = "wendonic-profile"\nversion = 1\n'
GOOD = (
    HEAD
    + """
[world]
right = "+x"
forward = "-z"
up = "+y"
[mode.foot]
leave_to = ["cart"]
[[mode.foot.move.bind]]
keys = { forward = ["KeyW", "ArrowUp", "Numpad8"], back = ["KeyS", "ArrowDown", "Numpad2"], \
left = ["KeyA", "ArrowLeft", "Numpad4"], right = ["KeyD", "ArrowRight", "Numpad6"] }
[[mode.foot.move.bind]]
axes = { x = "pad.left_stick.x", y = "pad.left_stick.y" }
[[mode.foot.look.bind]]
mouse = "mouse.move"
[[mode.foot.look.bind]]
stick = "pad.right_stick"
[[mode.foot.look.bind]]
gyro = "pad.gyro"
[[mode.foot.look.bind]]
touch_drag = "right half"
[mode.cart]
steer = { frame = "drive" }
[[mode.cart.throttle.bind]]
keys = { forward = ["KeyI"], back = ["KeyK"] }
[[mode.cart.turn.bind]]
keys = { right = ["KeyL"], left = ["KeyJ"] }
"""
)


def slugs(text):
    return [(finding.slug, finding.where) for finding in check(profile_from_text(text), "interpreted", prove=False)]


SHIPPED = {
    # Shown on purpose: a free diagonal, the key pressed last or first, a stick without a dead zone.
    "store_room": ["diagonal-too-fast", "opposites-do-not-cancel"],
    "scout": ["opposites-do-not-cancel", "opposites-do-not-cancel", "rim-out-of-reach", "dead-zone-small"],
    "crates": ["opposites-do-not-cancel", "opposites-do-not-cancel"],
    "lookout": ["rim-out-of-reach"],
}


@pytest.mark.parametrize(
    ("name", "prove"),
    few_of(
        list(itertools.product(sorted(set(RECORDINGS.values())), (False, True))),
        {(name, False) for name in ("beekeeper", "lookout")},
    ),
)
def test_of_the_shipped_profiles_only_what_is_shown_on_purpose_is_found(name, prove):
    found = check(demo_profile(name), "interpreted", prove=prove)
    assert [finding.slug for finding in found] == SHIPPED.get(name, [])


PAD = '[[mode.foot.move.bind]]\nstick = "pad.left_stick"\n'
LOOK = '[[mode.foot.look.bind]]\nstick = "pad.right_stick"\n'
KEYS = '[[mode.foot.move.bind]]\nkeys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }\n'
MOUSE = '[[mode.foot.look.bind]]\nmouse = "mouse.move"\ndpi = 800\n'


WRONG = [
    ('[mode.foot.move]\ndiagonal = "free"\n' + KEYS, "diagonal-too-fast", "move.diagonal", "1.41 of top speed"),
    (
        '[mode.foot.move]\ndiagonal = "factor"\ndiagonal_factor = 0.8\n' + KEYS,
        "diagonal-too-fast",
        "move.diagonal",
        # 0.8 sqrt(2)
        "1.13 of top speed",
    ),
    (
        KEYS + 'opposites = "latest"\n',
        "opposites-do-not-cancel",
        "move.bind[0].opposites",
        "together give 1.00",
    ),
    # Half of a step is there after one half-life.
    ("[mode.foot.move]\nhalf_life_s = 0.12\n" + PAD, "slow-answer", "move.half_life_s", "by 120 ms"),
    (PAD + "dead_zone = { inner = 0.25 }\n", "dead-zone-large", "move.bind[0].dead_zone.inner", "tilt of 0.25"),
    (
        PAD + 'dead_zone = { form = "cut", inner = 0.15 }\ncurve = { form = "linear" }\n',
        "jump-at-dead-zone",
        "move.bind[0].dead_zone",
        "gives 15 % of full speed at once",
    ),
    (
        PAD + 'curve = { form = "linear", floor = 0.3 }\n',
        "jump-at-dead-zone",
        "move.bind[0].curve.floor",
        "gives 30 % of full speed at once",
    ),
    (
        PAD + "dead_zone = { outer = 1 }\n",
        "rim-out-of-reach",
        "move.bind[0].dead_zone.outer",
        "tilt of 1.00",
    ),
    (
        PAD + 'curve = { form = "points", points = [[0, 0], [0.2, 0.3], [0.6, 0.3], [1, 1]] }\n',
        "curve-flat",
        "move.bind[0].curve",
        "changes by 0.000",
    ),
    # 0.051 / 0.85 of 600 deg/s
    (
        LOOK + 'yaw_deg_s = 600\ncurve = { form = "linear" }\n',
        "look-too-fast-to-aim",
        "look.bind[0].curve",
        "turns at 36 deg/s",
    ),
    # (0.03, -0.02) and 3 x 0.004 of noise, over a dead zone of 0.02: 0.028 / 0.93
    (
        PAD + 'dead_zone = { inner = 0.02 }\ncurve = { form = "linear" }\n',
        "dead-zone-small",
        "move.bind[0].dead_zone.inner",
        "requests 3 % of full speed",
    ),
    (
        LOOK + "dead_zone = { inner = 0.02 }\n",
        "dead-zone-small",
        "look.bind[0].dead_zone.inner",
        "% of the fastest turn",
    ),
    (MOUSE + "cm_per_turn = 34\nhalf_life_s = 0.1\n", "slow-answer", "look.bind[0].half_life_s", "100 ms"),
    # 3.2² / 4 = 2.56 m, with ramps of 40 ms to fall.
    (KEYS + "[gait.walk]\nbrake_m_s2 = 2\n", "slides-on", None, "5.1 body lengths"),
    (
        "[mode.foot.move]\nnotches = 3\nnotch_pull = 1\n" + PAD,
        "no-mirror-image",
        "move",
        "forward and back differ by",
    ),
    (
        KEYS
        + '[mode.foot.press]\njump = { bind = ["key.Space"], buffer_s = 0.4 }\n'
        + "[gait.walk]\njump = { speed_m_s = 2 }\ngravity_m_s2 = 20\n",
        "jumps-by-itself",
        "press.jump.buffer_s",
        "counts for 0.40 s, and a jump is in the air for 0.20 s",
    ),
    (
        "[mode.foot]\npress_gaits = { sprint = 'run' }\n"
        + KEYS
        + '[mode.foot.press]\njump = { bind = ["key.Space"] }\nsprint = { bind = ["key.ShiftLeft"] }\n'
        + "[gait.walk]\ngravity_m_s2 = 20\njump = { press = 'jump', height_m = 1 }\n[gait.run]\ngravity_m_s2 = 20\n",
        "jump-lost-in-gait",
        None,
        "while sprint is held, jump does nothing: gait run has no jump",
    ),
    (
        "[mode.foot]\npress_gaits = { sprint = 'run' }\n"
        + KEYS
        + '[mode.foot.press]\nsprint = { bind = ["key.ShiftLeft"], style = "tap" }\n',
        "held-for-a-tick",
        "press.sprint.style",
        "sprint is on for one tick at most, and gait run counts for no longer",
    ),
    (
        "[mode.foot]\n[mode.foot.move]\npress_amounts = { creep = 0.4 }\n"
        + KEYS
        + '[mode.foot.press]\ncreep = { bind = [{ wheel = "towards" }] }\n',
        "held-for-a-tick",
        "press.creep.bind",
        "creep is on for one tick at most, and its factor counts for no longer",
    ),
    (
        KEYS + '[mode.foot.press]\ndash = { bind = ["key.KeyA", "key.KeyD"], style = "double", shared = true }\n',
        "double-of-two",
        "press.dash.bind",
        "KeyA and KeyD within 0.3 s of each other are a double press of dash",
    ),
    (KEYS + "[gait.run]\ntop_speed_m_s = 5\n", "gait-unused", None, "no mode uses gait run; in use: walk"),
    (
        "[seat.one]\nkeys = ['KeyW', 'KeyS', 'KeyA', 'KeyD', 'Space']\n[seat.two]\n"
        + KEYS
        + PAD
        + "[mode.foot.press]\njump = { bind = ['key.Space'] }\npause = { bind = ['key.Escape'] }\n"
        + "call = { bind = ['key.KeyC'], seat = 'one' }\n",
        "press-of-one-player",
        "press.jump",
        "seat one has a control for it, and seat two has none",
    ),
    (
        "[mode.foot]\nsteer = { frame = 'drive' }\ngait = 'cart'\n"
        + "[[mode.foot.throttle.bind]]\nkeys = { forward = ['KeyW'], back = ['KeyS'] }\n",
        "direction-missing",
        "turn",
        "it drives, and nothing turns it",
    ),
    (
        # Nothing of it can be held.
        "[mode.foot]\nsteer = { frame = 'drive' }\n[[mode.foot.move.bind]]\nhands = ['hand.left', 'hand.right']\n",
        "direction-missing",
        "turn",
        "it drives, and nothing turns it",
    ),
    (
        KEYS + "[gait.walk]\ntop_speed_m_s = 200\naccel_m_s2 = 2000\nbrake_m_s2 = 2000\n",
        "unit-mistaken",
        None,
        "a top speed of 200 m/s is 400 widths of the body a second",
    ),
    (
        KEYS + "[budget]\nstop_distance_m = { max = 0.1 }\ndiagonal_ratio = { min = 0.9, max = 1.1 }\n",
        "over-budget",
        None,
        "stop_distance_m: 0.1707 m; allowed: at most 0.1 m",
    ),
    (MOUSE + "cm_per_turn = 200\n", "mouse-turn", "look.bind[0]", "takes 200.0 cm of mouse"),
    (
        "[mode.foot]\nsteer = { sectors = 4, sector_margin_deg = 0 }\n" + PAD,
        "facing-flickers",
        "steer.sector_margin_deg",
        "times a minute",
    ),
    (
        PAD + '[[mode.foot.turn.bind]]\naxis = "pad.left_stick.x"\nshared = true\n',
        "control-on-two-channels",
        "turn.bind[0]",
        "pad.left_stick.x is also bound to move",
    ),
    (
        KEYS + '[[mode.foot.look.bind]]\nkeys = { right = ["ArrowLeft"], up = ["ArrowUp"], down = ["ArrowDown"] }\n',
        "mirrored-keys",
        "look.bind[0].keys.right",
        "ArrowLeft is left of the others and goes right",
    ),
    (
        '[mode.foot]\nsteer = { frame = "facing" }\n'
        + KEYS
        + '[[mode.foot.turn.bind]]\nkeys = { right = ["KeyE"], left = ["KeyQ"] }\n',
        "turn-unused",
        "steer.face",
        'the body faces "view", so turn does not turn it',
    ),
    (
        KEYS + "[mode.cart]\nleave_to = []\n" + KEYS.replace("foot", "cart"),
        "mode-without-a-way-out",
        None,
        "leads to no other mode",
    ),
    (
        "[mode.foot]\nleave_to = ['cart']\n"
        + "".join(f"[mode.{name}]\nleave_to = ['foot']\n" for name in ("cart", "boat"))
        + "".join(KEYS.replace("foot", name) for name in ("foot", "cart", "boat")),
        "mode-without-a-way-in",
        None,
        "no other mode leads to it",
    ),
]


@pytest.mark.parametrize(("text", "slug", "where", "measured"), few_of(WRONG, WRONG[::3]))
def test_each_fault_is_measured_and_found_and_nothing_else(text, slug, where, measured):
    profile = profile_from_text(HEAD + text)
    found = check(profile, "interpreted")
    if '"cut"' in text:
        # The raw tilt passes, so everything is asked for at the very rim.
        assert found.pop().slug == "rim-out-of-reach"
    (finding,) = found
    assert finding.slug == slug
    assert measured in finding.measured
    if where is not None:
        assert finding.where == f"mode.foot.{where}"
    # A fix is all of it needed: nothing is set to what it is.
    for path, value in finding.changes.items():
        with contextlib.suppress(WendonicError):
            assert value_at(profile, path) != value, path


SIGN_FAULTS = [
    (
        '"KeyA", "ArrowLeft", "Numpad4"], right = ["KeyD", "ArrowRight"',
        '"KeyD", "ArrowLeft", "Numpad4"], right = ["KeyA", "ArrowRight"',
        [
            ("mirrored-keys", "mode.foot.move.bind[0].keys.left"),
            ("mirrored-keys", "mode.foot.move.bind[0].keys.right"),
        ],
    ),
    (
        '"ArrowUp", "Numpad8"], back = ["KeyS", "ArrowDown"',
        '"ArrowDown", "Numpad8"], back = ["KeyS", "ArrowUp"',
        2,
    ),
    (
        '"Numpad4"], right = ["KeyD", "ArrowRight", "Numpad6"]',
        '"Numpad6"], right = ["KeyD", "ArrowRight", "Numpad4"]',
        2,
    ),
    (
        'x = "pad.left_stick.x", y = "pad.left_stick.y"',
        'x = "pad.left_stick.y", y = "pad.left_stick.x"',
        [("crossed-axes", "mode.foot.move.bind[1].axes.x"), ("crossed-axes", "mode.foot.move.bind[1].axes.y")],
    ),
    (
        'mouse = "mouse.move"',
        'mouse = "mouse.move"\ninvert_yaw = true',
        [("mirrored-look", "mode.foot.look.bind[0].invert_yaw")],
    ),
    (
        '"pad.right_stick"',
        '"pad.right_stick"\ninvert_yaw = true',
        [("mirrored-look", "mode.foot.look.bind[1].invert_yaw")],
    ),
    ('"pad.gyro"', '"pad.gyro"\ninvert_yaw = true', [("mirrored-look", "mode.foot.look.bind[2].invert_yaw")]),
    ('"right half"', '"right half"\ninvert_yaw = true', [("mirrored-look", "mode.foot.look.bind[3].invert_yaw")]),
    ('right = ["KeyL"], left = ["KeyJ"]', 'right = ["KeyJ"], left = ["KeyL"]', 2),
    ('forward = ["KeyI"], back = ["KeyK"]', 'forward = ["KeyK"], back = ["KeyI"]', 2),
    ('right = "+x"', 'right = "-x"', [("left-handed-axes", "world")]),
    ('forward = "-z"', 'forward = "+z"', [("left-handed-axes", "world")]),
    ('right = "+x"', 'right = "-x"\nhanded = "left"', []),
    ('mouse = "mouse.move"', 'mouse = "mouse.move"\ninvert_pitch = true', []),
]


@pytest.mark.parametrize(("old", "new", "expected"), few_of(SIGN_FAULTS, SIGN_FAULTS[::3]))
def test_each_sign_fault_is_found_where_it_is(old, new, expected):
    assert GOOD.count(old) == 1
    found = slugs(GOOD.replace(old, new))
    assert len(found) == expected if isinstance(expected, int) else found == expected


def test_nothing_is_wrong_with_the_signs_that_are_turned():
    assert slugs(GOOD) == []


@pytest.mark.parametrize("flipped", list(itertools.product("+-", repeat=3)), ids="".join)
def test_no_sign_among_the_axes_can_be_wrong_unseen(flipped):
    """Told to be right-handed, a world with an odd number of signs flipped is refused."""
    right, forward, up = flipped
    text = GOOD.replace('right = "+x"', f'right = "{right}x"').replace('forward = "-z"', f'forward = "{forward}z"')
    text = text.replace('up = "+y"', f'up = "{up}y"\nhanded = "right"')
    odd = [right != "+", forward != "-", up != "+"].count(True) % 2 == 1
    if odd:
        with pytest.raises(
            ProfileError, match=r'world.handed: "right" does not fit: .* left-handed; one of the signs'
        ):
            profile_from_text(text)
    else:
        assert slugs(text) == []


def test_a_jump_seen_from_the_side_needs_an_axis_that_points_up():
    """A screen seen from above has no axis for height; a game with its own gravity, or jumps from above, is right."""
    head = 'format = "wendonic-profile"\nversion = 1\n[world]\nright = "+x"\nforward = "-y"\n'
    keys = 'keys = { left = ["KeyA"], right = ["KeyD"] }\n'
    side = '[mode.hop.steer]\nframe = "map"\nside_view = true\n'
    mode = f'[[mode.hop.move.bind]]\n{keys}[mode.hop.press]\njump = {{ bind = ["Space"] }}\n'
    jumps = '[gait.walk]\njump = { press = "jump", height_m = 1 }\n'

    def found(text):
        return [one for one in check(profile_from_text(text)) if one.slug == "height-unseen"]

    wrong = head + side + mode + jumps
    (one,) = found(wrong)
    assert (one.severity, one.where, one.fix) == ("fault", "world.up", 'world.up = "-y", and world.forward removed')
    right = profile_from_text(wrong).changed(one.changes)
    assert not [one for one in check(right) if one.slug == "height-unseen"]
    helm = Helm(right)
    helm.key("Space", True)
    assert helm.tick(0.1).position()[1] < -0.1
    assert found(head + side + mode) == found(head + mode + jumps) == found(wrong.replace("forward =", "up =")) == []
    (mixed,) = found(wrong + '[mode.map]\ngait = "none"\n[[mode.map.move.bind]]\nstick = "pad.left_stick"\n')
    assert (mixed.changes, mixed.advice) == ({}, "give [world] all three axes: right, forward and up")


def test_progress_is_reported_mode_by_mode_then_finding_by_finding():
    profile = profile_from_text(
        HEAD
        + "".join(f'[[mode.{mode}.look.bind]]\nmouse = "mouse.move"\ncm_per_turn = 2\n' for mode in ("far", "near"))
    )
    told = []
    findings = check(profile, "interpreted", progress=lambda *so_far: told.append(so_far))
    assert [finding.slug for finding in findings] == ["mouse-turn"] * 2
    assert told == [
        ("mode far", 0, 2),
        ("mode near", 1, 2),
        ("fixes for mouse-turn", 0, 2),
        ("fixes for mouse-turn", 1, 2),
    ]
    told.clear()
    check(profile, "interpreted", prove=False, progress=lambda *so_far: told.append(so_far))
    assert [what for what, _, _ in told] == ["mode far", "mode near"]


def test_on_a_terminal_a_bar_goes_to_stderr_only_and_disappears(tmp_path):
    pty = pytest.importorskip("pty")
    (tmp_path / "turns.toml").write_text(HEAD + '[[mode.m.look.bind]]\nmouse = "mouse.move"\ncm_per_turn = 2\n')
    command = [sys.executable, "-m", "wendonic", "check", "turns.toml", "--fix", "--dry-run"]
    terminal, its_end = pty.openpty()
    environment = {**os.environ, "TERM": "xterm", "COLUMNS": "100"}
    with subprocess.Popen(command, cwd=tmp_path, stdout=subprocess.PIPE, stderr=its_end, env=environment) as run:
        os.close(its_end)
        drawn = b""
        # A terminal whose other end is closed is an error to read from.
        with contextlib.suppress(OSError):
            while more := os.read(terminal, 4096):
                drawn += more
        said = run.communicate(timeout=60)[0].decode()
    os.close(terminal)
    assert said.startswith("turns.toml: would fix mouse-turn: mode.m.look.bind[0].cm_per_turn = 34.0\n")
    assert "turns.toml: no findings left" in said
    assert "turns.toml: mode m " in drawn.decode()
    # It clears its line, and shows the cursor again.
    assert drawn.rstrip().endswith(b"\x1b[2K")
    assert drawn.rfind(b"\x1b[?25h") > drawn.rfind(b"\x1b[?25l")


def test_the_command_prints_measurements_and_exits_with_1_for_faults(tmp_path, capsys):
    mirrored, sided = tmp_path / "mirrored.toml", tmp_path / "left.toml"
    mirrored.write_text(GOOD.replace('mouse = "mouse.move"', 'mouse = "mouse.move"\ninvert_yaw = true'))
    sided.write_text(GOOD.replace('right = "+x"', 'right = "-x"'))

    def run(*words):
        with pytest.raises(SystemExit) as end:
            app([str(word) for word in words], prog_name="wendonic")
        return end.value.code, capsys.readouterr().out

    assert run("check", FOLDER / "beekeeper.toml") == (0, f"{FOLDER / 'beekeeper.toml'}: no findings\n")
    code, out = run("check", mirrored, sided)
    assert code == 1
    assert "mirrored.toml: 1 finding\nfault: mirrored-look, mode.foot.look.bind[0].invert_yaw\n" in out
    assert "a turn of the hand to the right turns the view to the left (-1.3 deg)" in out
    assert "notice: left-handed-axes, world" in out
    assert run("check", sided)[0] == 0
    assert run("check", "--strict", sided)[0] == 1
    code, out = run("check", "--json", mirrored, sided)
    content = json.loads(out)
    assert (content["format"], content["command"]) == ("wendonic-values", "check")
    found = content["findings"]
    assert [(entry["slug"], entry["severity"]) for entry in found] == [
        ("mirrored-look", "fault"),
        ("left-handed-axes", "notice"),
    ]
    assert set(found[0]) == {*("profile", "slug", "severity", "where", "measured", "why", "fix", "changes", "advice")}
    assert found[0]["changes"] == {"mode.foot.look.bind[0].invert_yaw": False}
    assert found[0]["fix"] == "mode.foot.look.bind[0].invert_yaw = false"


def test_a_press_that_nothing_reaches_is_found_whatever_its_style():
    """A second press that may come 0 s after the first never comes; every other style can be reached."""
    styles = {
        "a": 'bind = ["key.Space", "pad.south"]',
        "b": 'bind = ["key.KeyE"], style = "tap"',
        "c": 'bind = ["key.KeyF"], style = "long", long_s = 1.5',
        "d": 'bind = ["key.KeyG"], style = "double"',
        "e": 'bind = [{ control = "pad.right_trigger", above = 0.9, release = 0.1 }]',
        "f": 'bind = [{ zone = "right half" }]',
        "g": 'bind = [{ wheel = "away" }]',
        "h": 'bind = ["ControlLeft+KeyC"], style = "toggle"',
    }
    presses = "[mode.foot.press]\n" + "".join(f"{name} = {{ {words} }}\n" for name, words in styles.items())
    assert slugs(HEAD + KEYS + presses) == []
    hidden = "[mode.foot.press]\ntrip = { bind = ['ControlLeft+KeyE'], style = 'double', double_s = 0.0 }\n"
    assert slugs(HEAD + KEYS + hidden) == [("press-out-of-reach", "mode.foot.press.trip.bind")]
    itself = HEAD + KEYS + "[mode.foot.press]\ntrip = { bind = ['KeyF'], unless = ['KeyF'] }\n"
    (found,) = check(profile_from_text(itself), "interpreted")
    assert found.changes == {"mode.foot.press.trip.unless": None}


def test_a_budget_holds_a_profile_to_its_feel():
    good = profile_from_text(HEAD + KEYS)
    assert_feel(good, stop_distance_m=(0.1, 0.35), tick_dependence=(None, 0.01))
    with pytest.raises(AssertionError) as missed:
        assert_feel(good, reach90_s=(None, 0.1), stop_distance_m=(0.3, 0.4), jump_height_m=(1.0, None))
    assert str(missed.value).splitlines() == [
        "mode foot: reach90_s 0.1309 s; allowed: at most 0.1 s",
        "stop_distance_m 0.1707 m; allowed: at least 0.3 m and at most 0.4 m",
        "jump_height_m no value (no press jumps or waits for the ground); allowed: at least 1 m",
    ]
    with pytest.raises(WendonicError, match='no quantity of the feel sheet "stop_m"'):
        assert_feel(good, stop_m=(None, 1.0))
    assert_feel(FOLDER / "cart.toml", mode="cart", turn_circle_m=(None, 20.0))
    with pytest.raises(ProfileError) as refused:
        profile_from_text(HEAD + KEYS + "[budget]\nstop_distanec_m = { max = 1 }\nreach90_s = {}\n")
    assert 'did you mean "stop_distance_m"' in str(refused.value)
    assert "says neither min nor max" in str(refused.value)


def test_the_quantities_of_a_budget_are_those_of_the_feel_sheet():
    assert sorted(quantity_names()) == sorted(QUANTITIES)


SHIP = (
    "[mode.foot]\nsteer = { frame = 'facing', face = 'turn' }\n[[mode.foot.move.bind]]\n"
    "keys = { forward = ['ArrowUp'], back = ['ArrowDown'] }\n"
    "[[mode.foot.turn.bind]]\nkeys = { right = ['ArrowRight'], left = ['ArrowLeft'] }\n"
)
FLAT_GAIT = "[gait.walk]\ntop_speed_m_s = 4\naccel_m_s2 = 20\n"


@pytest.mark.long
def test_a_body_turned_by_the_channel_turn_may_roll_out_against_drag():
    ship = f"{HEAD}{SHIP}[gait.walk]\nthrust_m_s2 = 3.2\ndrag_per_s = 0.8\n"
    assert check(profile_from_text(ship), "interpreted") == []
    slow = check(profile_from_text(ship.replace("0.8", "0.3")), "interpreted", prove=False)
    assert {(one.slug, one.where) for one in slow} == {
        ("slides-on", "gait.walk.drag_per_s"),
        ("slow-start", "gait.walk.drag_per_s"),
    }


@pytest.mark.parametrize(
    ("text", "slug", "path"),
    [
        (KEYS + FLAT_GAIT + "brake_m_s2 = 2     # icy\n", "slides-on", "gait.walk.brake_m_s2"),
        pytest.param(
            KEYS + FLAT_GAIT + "coast_half_life_s = 2\n",
            "slides-on",
            "gait.walk.coast_half_life_s",
            marks=pytest.mark.long,
        ),
        pytest.param(
            KEYS + "[gait.walk]\nthrust_m_s2 = 2\ndrag_per_s = 0.5\n",
            "slides-on",
            "gait.walk.drag_per_s",
            marks=pytest.mark.long,
        ),
        pytest.param(
            "[mode.foot]\npress_gaits = { sprint = 'run' }\n"
            + KEYS
            + "[mode.foot.press]\nsprint = { bind = ['key.ShiftLeft'] }\n"
            + "[gait.run]\ntop_speed_m_s = 8\naccel_m_s2 = 30\nbrake_m_s2 = 1.7\n",
            "slides-on",
            "gait.run.brake_m_s2",
            marks=pytest.mark.long,
        ),
        (
            "[mode.foot.move]\none_euro = { min_cutoff_hz = 0.6, beta = 3 }\n"
            + KEYS
            + "[gait.walk]\nbrake_m_s2 = 4\nreverse_m_s2 = 60\n",
            "depends-on-ticks",
            "mode.foot.move.one_euro",
        ),
        pytest.param(
            KEYS + '[[mode.foot.rise.bind]]\nkeys = { up = ["KeyR"], down = ["KeyF"] }\nrise_s = 0.5\n',
            "slow-answer",
            "mode.foot.rise.bind[0].rise_s",
            marks=pytest.mark.long,
        ),
        pytest.param(
            "[mode.foot.move]\nhalf_life_s = 0.15\n" + KEYS,
            "slow-answer",
            "mode.foot.move.half_life_s",
            marks=pytest.mark.long,
        ),
        (KEYS + FLAT_GAIT.replace("20", "1.5"), "slow-start", "gait.walk.accel_m_s2"),
        pytest.param(
            SHIP + "[gait.walk]\nthrust_m_s2 = 1.2\ndrag_per_s = 0.3\n",
            "slides-on",
            "gait.walk.drag_per_s",
            marks=pytest.mark.long,
        ),
        pytest.param(
            KEYS + "fall_s = 3\n" + FLAT_GAIT, "slides-on", "mode.foot.move.bind[0].fall_s", marks=pytest.mark.long
        ),
        # However slow a request is, it is full in the end.
        pytest.param(
            "[mode.foot.move]\nhalf_life_s = 2\n" + KEYS + FLAT_GAIT,
            "slides-on",
            "mode.foot.move.half_life_s",
            marks=pytest.mark.long,
        ),
        pytest.param(
            "[mode.foot.move]\nhalf_life_s = 0.4\n" + KEYS + FLAT_GAIT,
            "slides-on",
            "mode.foot.move.half_life_s",
            marks=pytest.mark.long,
        ),
        pytest.param(
            KEYS + FLAT_GAIT + "brake_m_s2 = 20\nreverse_m_s2 = 5\n",
            "reversing-brakes-less",
            "gait.walk.reverse_m_s2",
            marks=pytest.mark.long,
        ),
        pytest.param(
            "[mode.foot]\nsteer = { frame = 'map', turn_deg_s = 20 }\n" + KEYS,
            "turns-slowly",
            "mode.foot.steer.turn_deg_s",
            marks=pytest.mark.long,
        ),
        pytest.param(
            '[mode.foot.move]\ndiagonal = "factor"\ndiagonal_factor = 0.07\n' + KEYS,
            "diagonal-too-slow",
            "mode.foot.move.diagonal",
            marks=pytest.mark.long,
        ),
        (
            KEYS.replace('["KeyA"]', '["KeyD"]').replace('right = ["KeyD"]', 'right = ["KeyA"]'),
            "mirrored-keys",
            "mode.foot.move.bind[0].keys.left",
        ),
        pytest.param(
            "[mode.foot]\nsteer = { frame = 'fly' }\n"
            + KEYS
            + "[[mode.foot.rise.bind]]\nkeys = { up = ['ArrowDown'], down = ['ArrowUp'] }\n",
            "mirrored-keys",
            "mode.foot.rise.bind[0].keys.up",
            marks=pytest.mark.long,
        ),
        (
            KEYS
            + "[mode.foot.press]\njump = { bind = ['key.Space'], grace_s = 0.9 }\n"
            + FLAT_GAIT
            + "jump = { height_m = 1 }\nbrake_m_s2 = 20\n",
            "grace-long",
            "mode.foot.press.jump.grace_s",
        ),
        pytest.param(
            KEYS
            + "[mode.foot.press]\njump = { bind = ['key.Space'] }\n"
            + FLAT_GAIT
            + "jump = { height_m = 12 }\nbrake_m_s2 = 20\n",
            "jump-high",
            "gait.walk.jump.height_m",
            marks=pytest.mark.long,
        ),
        pytest.param(
            PAD + 'curve = { form = "power", exponent = 1.6, ceiling = 0.5 }\n',
            "full-input-too-little",
            "mode.foot.move.bind[0].curve.ceiling",
            marks=pytest.mark.long,
        ),
        pytest.param(
            "[mode.foot.move]\npace_margin = 0\npaces = [{ above = 0, amount = 0.3 }, { above = 0.5, amount = 1 }]\n"
            + PAD,
            "chatters",
            "mode.foot.move.pace_margin",
            marks=pytest.mark.long,
        ),
        (
            "[mode.foot]\nsteer = { frame = 'grid', margin_deg = 0 }\n" + PAD,
            "chatters",
            "mode.foot.steer.margin_deg",
        ),
        pytest.param(
            PAD + "[[mode.foot.press.fire.bind]]\ncontrol = 'pad.right_trigger'\nabove = 0.5\nrelease = 0.499\n",
            "press-trembles",
            "mode.foot.press.fire.bind[0].release",
            marks=pytest.mark.long,
        ),
        pytest.param(
            "[mode.foot.move]\npaces = [{ above = 0, amount = 1 }]\n" + PAD,
            "analogue-lost",
            "mode.foot.move.paces",
            marks=pytest.mark.long,
        ),
        pytest.param(
            '[[mode.foot.move.bind]]\ndpad = "pad.dpad"\nopposites = "latest"\n',
            "opposites-do-not-cancel",
            "mode.foot.move.bind[0].opposites",
            marks=pytest.mark.long,
        ),
    ],
)
def test_a_reported_fix_works_and_is_written_with_comments_kept(text, slug, path):
    done = fixed(profile_from_text(HEAD + text), engine="interpreted")
    assert slug in {one.slug for one in done.fixes}
    assert path in {where for one in done.fixes for where in one.changes} | {one.where for one in done.fixes}
    assert done.left == ()
    assert check(done.profile, "interpreted", prove=False) == []
    assert ("# icy" in saved_text(done.profile, HEAD + text)) == ("# icy" in text)
    # What is told has been measured, not guessed: the same findings without their fixes are there before.
    before = check(profile_from_text(HEAD + text), "interpreted", prove=False)
    assert slug in {one.slug for one in before}
    assert all(not one.changes for one in before)


SHARED = (
    HEAD
    + """
[world]
right = "+x"
forward = "-y"
units_per_m = 32
[mode.foot]
leave_to = ["aim"]
[[mode.foot.move.bind]]
keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }
opposites = "latest"
[[mode.foot.look.bind]]
mouse = "mouse.move"
cm_per_turn = 2
[mode.aim]
leave_to = ["foot"]
[mode.aim.move]
half_life_s = 0.06
[[mode.aim.move.bind]]
stick = "pad.right_stick"
[gait.walk]
brake_m_s2 = 3
"""
)


@pytest.mark.long
def test_modes_that_a_fix_does_not_touch_need_not_be_tried_again(monkeypatch):
    profile = profile_from_text(SHARED)
    found = check(profile, "interpreted")
    assert {finding.where.split(".")[1] for finding in found if finding.changes} == {"foot", "aim", "walk"}
    monkeypatch.setattr("wendonic.study.checking._seen_alike", lambda *_: False)
    assert check(profile, "interpreted") == found


def test_a_finding_without_a_fix_lists_what_was_tried_and_missing_numbers_are_reported():
    one_way = KEYS.replace('right = ["KeyD"]', "right = []")
    (missing,) = check(profile_from_text(HEAD + one_way), "interpreted")
    assert (missing.slug, missing.changes, missing.advice) == ("direction-missing", {}, "bind a key for right")
    # A stick is no way back for somebody at the keyboard, nor are another player's keys.
    stick = '[[mode.foot.move.bind]]\nstick = "pad.left_stick"\n'
    (missing,) = check(profile_from_text(HEAD + one_way + stick), "interpreted")
    assert missing.measured == "there is a key for left and none for right"
    seats = '[seat.one]\nkeys = ["KeyA", "KeyW", "KeyS", "KeyD"]\n[seat.two]\nkeys = ["KeyI", "KeyK", "KeyJ"]\n'
    shared = KEYS
    for code, other in (("KeyW", "KeyI"), ("KeyS", "KeyK"), ("KeyA", "KeyJ")):
        shared = shared.replace(f'"{code}"', f'"{code}", "{other}"')
    (missing,) = check(profile_from_text(HEAD + seats + shared + stick), "interpreted")
    assert missing.measured == "seat two: there is a key for left and none for right"
    assert not check(
        profile_from_text(
            HEAD + seats.replace('"KeyJ"', '"KeyJ", "KeyL"') + shared.replace('"KeyD"', '"KeyD", "KeyL"') + stick
        ),
        "interpreted",
    )
    # What flies level needs something that moves it up and down; what follows the view's pitch does not.
    flies = HEAD + '[mode.foot]\nsteer = { frame = "fly" }\n' + KEYS
    (level,) = check(profile_from_text(flies), "interpreted")
    assert (level.slug, level.where) == ("direction-missing", "mode.foot.rise")
    assert not check(profile_from_text(flies.replace('"fly"', '"fly", level = false')), "interpreted")
    slow = KEYS + FLAT_GAIT.replace("top_speed_m_s = 4", "top_speed_m_s = 900").replace("20", "0.4")
    (never,) = [one for one in check(profile_from_text(HEAD + slow), "interpreted") if one.slug == "not-measured"]
    assert "held for 600 s its speed is still changing" in never.measured
    assert never.fix == ""


def test_the_command_fixes_a_file_or_shows_what_it_would(tmp_path, capsys):
    def run(*words):
        with pytest.raises(SystemExit) as end:
            app([str(word) for word in words], prog_name="wendonic")
        return end.value.code, capsys.readouterr().out

    path = tmp_path / "free.toml"
    text = HEAD + "# ours\n" + '[mode.foot.move]\ndiagonal = "free"   # oops\n' + KEYS + 'opposites = "latest"\n'
    path.write_text(text)
    code, out = run("check", "--fix", "--dry-run", path)
    assert code == 0
    assert '-diagonal = "free"   # oops' in out
    assert '+diagonal = "cap"    # oops' in out
    assert path.read_text() == text
    code, out = run("check", "--fix", "--only", "diagonal-too-fast,curve-flat", path)
    assert (code, f"wrote {path}" in out) == (0, True)
    assert f"{path}: 1 finding left\nnotice: opposites-do-not-cancel" in out
    assert path.read_text() == text.replace('"free"   #', '"cap"    #')
    assert "no findings left" in run("check", "--fix", path)[1]
    assert run("check", "--fix", "--dry-run", path)[1] == f"{path}: no findings left\n"
    for words, reported in ((("--dry-run",), "goes with --fix"), (("--fix", "--only", "slides"), "slides-on")):
        with pytest.raises((SystemExit, WendonicError, typer.BadParameter)) as refused:
            app(["check", str(path), *words], standalone_mode=False)
        assert reported in str(refused.value)


@pytest.mark.parametrize("heir", ["", '[mode.swim]\nlike = "foot"\n'])
def test_a_place_with_two_faults_reports_both_once_for_all_modes_that_inherit_it(heir):
    crossed = '[[mode.foot.move.bind]]\nkeys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyD", "KeyE"], '
    found = check(
        profile_from_text(HEAD + crossed + 'right = ["KeyA", "KeyQ"] }\n' + heir), "interpreted", prove=False
    )
    reported = [finding.measured.split()[0] for finding in found if finding.slug == "mirrored-keys"]
    assert sorted(reported) == ["KeyA", "KeyD", "KeyE", "KeyQ"]


@pytest.mark.long
def test_hands_that_are_held_still_do_not_walk_once_check_has_fixed_it():
    """Four seconds at 90 poses a second, each with 5 mm of white noise on every axis."""

    def walked_m(profile):
        helm, rng = Helm(profile), random.Random(3)
        for hand in ("hand.left", "hand.right"):
            helm.button(f"{hand}.squeeze", 1.0)
        for _ in range(4 * 90):
            for hand, x in (("hand.left", -0.2), ("hand.right", 0.2)):
                place = tuple(rng.gauss(at, 0.005) for at in (x, 1.0, -0.3))
                helm.pose(f"{hand}.pose", place, (0.0, 0.0, 0.0, 1.0))
            motion = helm.tick(1 / 90).motion
        return math.hypot(motion.pos_x, motion.pos_y)

    hands = '[[mode.foot.move.bind]]\nhands = ["hand.left", "hand.right"]\ndead_zone = { inner = 0.05 }\n'
    restless = profile_from_text(HEAD + "[mode.foot.steer]\nframe = 'hands'\n" + hands)
    (found,) = check(restless, "interpreted")
    assert (found.slug, found.where) == ("hands-tremble", "mode.foot.move.bind[0].dead_zone.inner")
    assert walked_m(restless) > 0.3
    for sound in (restless.changed(found.changes), demo_profile("headset")):
        assert walked_m(sound) < 0.02


@pytest.mark.parametrize("per_axis", ["false", "true"])
def test_corners_of_a_stick_that_keeps_below_full_speed_are_faster_only_without_a_cap(per_axis):
    free = profile_from_text(
        HEAD
        + '[mode.foot.move]\ndiagonal = "free"\n'
        + PAD
        + 'dead_zone = { form = "axes", inner = 0.12, outer = 0.85 }\n'
        f'curve = {{ form = "linear", ceiling = 0.6, per_axis = {per_axis} }}\n'
    )
    fast, slow = check(free, "interpreted")
    # sqrt(2) (sqrt(1/2) - 0.12) / (0.85 - 0.12)
    assert fast.slug == "diagonal-too-fast"
    assert "1.14 times what a straight line gives" in fast.measured
    assert slow.slug == "full-input-too-little"
    capped = free.changed(fast.changes)
    assert [finding.slug for finding in check(capped, "interpreted")] == ["full-input-too-little"]
    assert_feel(capped, speed_spread_stick=(None, 1e-9))


def test_findings_name_what_a_channel_gives_in_full():
    """A steering axis without a dead zone turns, and does not walk; a look stick turns the view."""
    head = 'format = "wendonic-profile"\nversion = 1\n[mode.race]\nsteer = { frame = "drive" }\n'
    linear = 'curve = { form = "linear" }\n'
    turn = f'[[mode.race.turn.bind]]\naxis = "pad.left_stick.x"\ndead_zone = {{ inner = 0.02, outer = 1 }}\n{linear}'
    throttle = (
        '[[mode.race.throttle.bind]]\ntriggers = { forward = "pad.right_trigger", back = "pad.left_trigger" }\n'
    )
    look = (
        f'[[mode.race.look.bind]]\nstick = "pad.right_stick"\ndead_zone = {{ form = "cut", inner = 0.2 }}\n{linear}'
    )
    profile = profile_from_text(head + throttle + turn + look)
    shown = {(finding.slug, finding.where.split(".")[2]): finding.measured for finding in check(profile, prove=False)}
    assert "% of the full turn rate" in shown["dead-zone-small", "turn"]
    assert shown["rim-out-of-reach", "turn"] == "the full turn rate needs a tilt of 1.00"
    jump = shown["jump-at-dead-zone", "look"]
    assert jump == "leaving the dead zone gives 20 % of the fastest turn of the view at once"


def test_a_wedge_that_lets_a_worn_stick_walk_stays_a_wedge():
    wedge = profile_from_text(HEAD + PAD + 'dead_zone = { form = "wedge", inner = 0.2 }\n')
    zone = fixed(wedge, engine="interpreted").profile.mode["foot"].move.bind[0].dead_zone
    assert (zone.form, zone.inner) == ("round+wedge", 0.14)
