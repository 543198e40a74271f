"""Profiles: defaults, and every fault at once in words that teach."""

import itertools
import math

import pytest

from few_of_many import few_of
from wendonic import ProfileError, load_profile
from wendonic.demo import PROFILE_PATH
from wendonic.kernels.frames.steer import FRAME_CAMERA, FRAME_MAP
from wendonic.kernels.move.diagonal import DIAGONAL_CAP, DIAGONAL_FREE, DIAGONAL_UNIT
from wendonic.kernels.source.curve import CURVE_LINEAR, CURVE_POWER
from wendonic.kernels.source.opposites import OPPOSITES_CANCEL
from wendonic.kernels.source.source import SOURCE_KEYS, SOURCE_STICK
from wendonic.profile.load import profile_from_text
from wendonic.profile.sources import mode_sources
from wendonic.profile.tuning import mode_tuning
from wendonic.study.checking import check

HEAD = 'format = "wendonic-profile"\nversion = 1\n'
PAD = '[[mode.foot.move.bind]]\nstick = "pad.left_stick"\n'

CURVE = "curve = {{ form = 'points', points = [{}] }}\n"
MOVE = "[mode.foot.move]\n"
PACES = "paces = [{{ above = {}, amount = {} }}, {{ above = {}, amount = {} }}]\n"
LOOK = "[[mode.foot.look.bind]]\n"
PRESS = '[mode.foot.press]\nstroll = { bind = ["ShiftLeft"] }\n'


def faults(text):
    with pytest.raises(ProfileError) as caught:
        profile_from_text(text, "bee.toml")
    return caught.value.faults


def test_four_lines_are_a_whole_profile():
    profile = profile_from_text(HEAD + PAD)
    tuning = mode_tuning(profile, "foot").tick
    (source,) = tuning.move.sources
    zone, curve = source.stick.dead_zone, source.stick.curve
    assert (source.kind, zone.inner, zone.outer) == (SOURCE_STICK, 0.14, 0.96)
    assert (curve.form, curve.exponent) == (CURVE_POWER, 1.6)
    (gait,) = tuning.gaits
    assert (gait.top_speed_m_s, gait.accel_m_s2, gait.brake_m_s2) == (3.2, 22.0, 30.0)
    assert (tuning.max_dt_s, tuning.move.half_life_s) == (0.1, 0.0)
    assert (tuning.frame.frame, tuning.frame.turn_rate) == (FRAME_CAMERA, pytest.approx(math.radians(540.0)))


@pytest.mark.parametrize(("word", "code"), [("cap", DIAGONAL_CAP), ("unit", DIAGONAL_UNIT), ("free", DIAGONAL_FREE)])
def test_every_number_of_the_file_reaches_the_tick(word, code):
    profile = profile_from_text(
        HEAD
        + f"""
        max_dt_s = 0.25
        [mode.cart]
        gait = "roll"
        steer = {{ frame = "map", face = "travel", turn_deg_s = 90 }}
        [mode.cart.move]
        diagonal = "{word}"
        half_life_s = 0.5
        [[mode.cart.move.bind]]
        keys = {{ right = ["KeyL", "Numpad6"], back = ["KeyK"] }}
        rise_s = 0.7
        fall_s = 0.8
        [[mode.cart.move.bind]]
        stick = "pad.right_stick"
        dead_zone = {{ inner = 0.3, outer = 0.9 }}
        curve = {{ form = "linear" }}
        [gait.roll]
        top_speed_m_s = 5
        accel_m_s2 = 6
        brake_m_s2 = 7
        """
    )
    tuning = mode_tuning(profile, "cart").tick
    assert (tuning.max_dt_s, tuning.move.diagonal, tuning.move.half_life_s) == (0.25, code, 0.5)
    first, second = tuning.move.sources
    assert (first.kind, first.keys) == (SOURCE_KEYS, (OPPOSITES_CANCEL, 1, 0, 0, 0.7, 0.8))
    assert (second.kind, second.stick.curve.form) == (SOURCE_STICK, CURVE_LINEAR)
    assert (second.stick.dead_zone.inner, second.stick.dead_zone.outer) == (0.3, 0.9)
    assert (tuning.frame.frame, tuning.frame.turn_rate) == (FRAME_MAP, pytest.approx(math.pi / 2))
    (gait,) = tuning.gaits
    assert (gait.top_speed_m_s, gait.accel_m_s2, gait.brake_m_s2) == (5.0, 6.0, 7.0)
    keys, stick = mode_sources(profile, "cart").move
    assert (keys.right, keys.back, keys.left, keys.forward) == (("KeyL", "Numpad6"), ("KeyK",), (), ())
    assert stick.control == "pad.right_stick"


def test_all_faults_are_reported_at_once_in_the_order_of_their_lines():
    text = HEAD + (
        "[world]\nright = '+x'\nforward = '-x'\n"
        "[mode.foot]\ngait = 'wlk'\nleave_to = ['cart']\nsteer = { frame = 'gird' }\n"
        "[mode.foot.look]\nbind = 3\n"
        "[mode.foot.move]\ndiagnal = 'cap'\nhalf_life_s = -1\n"
        "[[mode.foot.move.bind]]\nkeys = { forward = ['KeyWW'] }\nrise_s = nan\n"
        "[[mode.foot.move.bind]]\nstick = 'pad.left_stik'\ncurve = { form = 'pover' }\n"
    )
    expected = [
        (3, "world", "found +x, -x; allowed: a different letter for each"),
        (7, "mode.foot.gait", 'no gait "wlk"; did you mean "walk"?'),
        (8, "mode.foot.leave_to", 'no mode "cart"; there are: foot'),
        (9, "mode.foot.steer.frame", '"hands"; did you mean "grid"?'),
        (11, "mode.foot.look.bind", "found 3; allowed: a list"),
        (13, "mode.foot.move.diagnal", 'unknown key; did you mean "diagonal"?'),
        (14, "mode.foot.move.half_life_s", "found -1; allowed: 0 to 10"),
        (16, "mode.foot.move.bind[0].keys.forward[0]", 'unknown key code "KeyWW"; did you mean "KeyW"?'),
        (17, "mode.foot.move.bind[0].rise_s", "found nan; allowed: a finite number"),
        (19, "mode.foot.move.bind[1].stick", 'did you mean "pad.left_stick"?'),
        (
            20,
            "mode.foot.move.bind[1].curve.form",
            'found "pover"; allowed: "linear", "power", "expo"',
        ),
    ]
    found = faults(text)
    assert [(fault.line, fault.where) for fault in found] == [(line, where) for line, where, _ in expected]
    for fault, (_, _, words) in zip(found, expected, strict=True):
        assert words in fault.what


WHOLE = (
    HEAD + "[seat.one]\nkeys = ['KeyW']\n[seat.two]\nkeys = ['KeyW']\n"
    "[mode.foot]\nsteer = {{ frame = 'camera', face = 'turn'{steer} }}\n[mode.foot.move]\n{move}"
    "[[mode.foot.move.bind]]\nstick = 'pad.left_stick'\n{bind}"
    "[mode.foot.press]\nhop = {{ bind = [{control}'key.KeyH'] }}\nwave = {{ bind = ['key.KeyH'] }}\n"
)
SLIPS = {
    "steer.turn_deg_s": ("steer", ", turn_deg_s = -1"),
    "steer.fce": ("steer", ", fce = 'travel'"),
    "move.half_life_s": ("move", "half_life_s = 'soft'\n"),
    "move.bind[0].gat": ("bind", "gat = 'square'\n"),
    "move.bind[0].dead_zone": ("bind", "dead_zone = 3\n"),
    "press.hop.bind[0]": ("control", "'key.KeyQQ', "),
}


@pytest.mark.parametrize("slips", [(), *itertools.combinations(SLIPS, 1), tuple(SLIPS)], ids=" ".join)
def test_no_fault_hides_behind_another(slips):
    """Two seats share a key, a channel is not bound, two presses share a control: all of it beside any slip."""
    filled = dict.fromkeys(("steer", "move", "bind", "control"), "")
    for place, text in (SLIPS[name] for name in slips):
        filled[place] += text
    wrong = {f"mode.foot.{name}" for name in slips}
    shared = "mode.foot.press.wave.bind[0]"
    assert {fault.where for fault in faults(WHOLE.format(**filled))} == {
        "seat.two.keys",
        "mode.foot.steer.face",
        shared,
        *wrong,
    }


@pytest.mark.parametrize(
    ("text", "line", "words"),
    [
        ("", None, "is empty"),
        (
            HEAD + PAD + "[gait.'run.fast']\n",
            None,
            "gait: found the name 'run.fast'; allowed: printable characters except",
        ),
        (
            HEAD + PAD + "[mode.foot.press]\n'a, b' = { bind = ['KeyQ'] }\n",
            5,
            "mode.foot.press: found the name 'a, b'",
        ),
        (HEAD + PAD + "[seat.1]\nkeys = ['KeyW']\n[seat.2]\nkeys = ['KeyW']\n", 8, "seat.2.keys"),
        (HEAD + PAD.replace("foot", "2") + "[mode.2]\ngait = 'wlk'\n", 6, 'mode.2.gait: no gait "wlk"'),
        ("format = 'wendonic-profile'\nversion = 1\n", None, "mode: is missing"),
        ("version = 1\n" + PAD, None, 'format: is missing, such as format = "wendonic-profile"'),
        # A field in the wrong table is sent to the table that has it, rather than to a name that looks like it.
        (HEAD + PAD + "diagonal_factor = 0.7\n", 5, 'key; "diagonal_factor" belongs in mode.foot.move; allowed'),
        (HEAD + PAD + "rise_s = 0.1\n", 5, 'unknown key; "rise_s" goes with keys, dpad, touch_zones; allowed here'),
        (HEAD + PAD + "invert_pitch = true\n", 5, '"invert_pitch" belongs in mode.foot.look.bind[]; allowed'),
        (
            HEAD + PAD + "[mode.foot]\ngait = 'walk'\nframe = 'map'\n",
            7,
            '"frame" belongs in mode.foot.steer; allowed',
        ),
        (HEAD + PAD + "[mode.foot.steer]\nframe = 'map'\ninner = 0.1\n", 7, "throttle.bind[].dead_zone and 2 more;"),
        (HEAD + "accel_m_s2 = 3\n" + PAD, 3, '"accel_m_s2" belongs in gait.NAME, gait.NAME.airborne; allowed'),
        (
            HEAD + PAD + "[gait.walk]\ngait = 'run'\n",
            6,
            '"gait" belongs in the top level of the file, mode.NAME; allowed',
        ),
        (HEAD + "name = 'Yard'\n" + PAD, 3, 'unknown key; did you mean "title"?'),
        (HEAD + "[mode]\n", 3, "at least 1"),
        (HEAD + "[mode.foot]\n", 3, "mode.foot: binds nothing; give it [[….move.bind]]"),
        (HEAD + "[mode.foot]\nmove = 3\n", 4, "found 3; allowed: a table"),
        (HEAD + "[mode.foot.move]\nbind = []\n", 4, "found none; allowed: at least 1"),
        (
            HEAD + "[mode.foot.move]\nbind = [1]\n",
            4,
            'found 1; allowed: entries such as { stick = "pad.left_stick" }',
        ),
        ("format = 'wendonic-profil'\nversion = 1\n" + PAD, 1, 'did you mean "wendonic-profile"'),
        ("format = 'wendonic-profile'\nversion = 2\n" + PAD, 2, "found 2; allowed: 1"),
        (HEAD + PAD + "dead_zone = { inner = 0.9, outer = 0.5 }\n", 5, "inner 0.9 is not below outer 0.5"),
        (HEAD + PAD + "[budget]\nstop_distance_m = 1\n", 6, "found 1; allowed: a table"),
        (HEAD + "[mode.foot.steer]\nframe = 'drive'\nturn_degs = 9\n" + PAD, 5, 'did you mean "turn_deg_s"?'),
        (HEAD + "[mode.foot.steer]\nframe = 'map'\nface = 'turn'\n" + PAD, 5, "which this mode does not bind"),
        (
            HEAD + "[mode.foot.steer]\nframe = 'drive'\n[[mode.foot.rise.bind]]\naxis = 'pad.left_stick.y'\n",
            4,
            '"drive" needs the channel throttle, or move',
        ),
        (
            HEAD + "[mode.foot.steer]\nframe = 'goto'\n[[mode.foot.goal.bind]]\ntouch = 'window'\n" + PAD,
            5,
            "points into the window, but [window.plan] does not say which part of the plan it shows",
        ),
        (
            HEAD + "[world]\nright = '+x'\nup = '-y'\n" + PAD,
            None,
            'the world has no forward; allowed: frame "map" or "goto" with side_view = true',
        ),
        (HEAD + "[world]\nright = '+x'\n" + PAD, 3, "found +x alone; seen from above a game also needs forward"),
        (
            HEAD
            + "[mode.foot.steer]\nframe = 'map'\nside_view = true\n"
            + "[[mode.foot.move.bind]]\nkeys = { forward = ['KeyW'] }\n",
            7,
            "does nothing in a side view; up and down are a press there",
        ),
        (HEAD + PAD + "dead_zone = { form = 'cut', release = 0.2 }\n", 5, "release 0.2 is above inner 0.14"),
        (
            HEAD + PAD + "curve = { form = 's', floor = 0.5, ceiling = 0.5 }\n",
            5,
            "floor 0.5 is not below ceiling 0.5",
        ),
        (HEAD + PAD + "curve = { form = 'knee', at = [0.5, 1] }\n", 5, "found 1; allowed: above 0, below 1"),
        (HEAD + PAD + "centre = [0.1, 0.9]\n", 5, "found 0.9; allowed: -0.5 to 0.5"),
        (HEAD + PAD + "curve = { exponent = 2 }\n", 5, 'form is missing; allowed: "linear", "power"'),
        (HEAD + PAD + "curve = { form = 'power', exponent = true }\n", 5, "found true; allowed: a number, above 0"),
        (
            HEAD + "[mode.foot.move]\nbind = [{ stick = 3 }]\n",
            4,
            'found 3; allowed: the name of a stick, such as "pad.left_stick"',
        ),
        (
            HEAD + PAD + "[mode.foot.press]\njump = { bind = [4] }\n",
            6,
            'found 4; allowed: entries such as "key.Space"',
        ),
        (
            HEAD + PAD + "[mode.foot.press]\ncrouch = { bind = ['key.KeyC', { unless = ['key.ControlLeft'] }] }\n",
            6,
            'found unless; "unless" belongs in mode.foot.press.crouch; allowed as a source of crouch: '
            "a control's name, control, zone",
        ),
        (HEAD + PAD + "keys = { forward = ['KeyW'] }\n", 4, "a source has one device"),
        (
            HEAD + "[[mode.foot.move.bind]]\nmouse = 'mouse.move'\n",
            3,
            "found mouse; allowed as a source of move: keys, dpad, stick, axes, touch_zones",
        ),
        (
            HEAD + PAD + "[[mode.foot.turn.bind]]\nstick = 'pad.right_stick'\n",
            5,
            'found stick; did you mean axis = "pad.right_stick.x"? allowed as a source of turn: keys, axis, triggers',
        ),
        (HEAD + "[[mode.foot.move.bind]]\nstick = 'pad.south'\n", 4, "pad.south is not a stick"),
        (
            HEAD + "[[mode.foot.move.bind]]\nkeys = {}\n",
            4,
            "nothing in any list; give at least one of forward",
        ),
        (
            HEAD + "[[mode.foot.move.bind]]\nhands = ['hand.left', 'hand.left']\n",
            4,
            "is listed twice; a hand swings once",
        ),
        (
            HEAD + "[[mode.foot.move.bind]]\nkeys = { left = ['KeyA'], right = ['KeyA'] }\n",
            4,
            "a key has one direction",
        ),
        (HEAD + "[world]\nright = '+x'\nforward = '-z'\n" + PAD, 3, "a 2-D game uses x and y"),
        (HEAD + "max_dt_s = inf\n" + PAD, 3, "found inf; allowed: a finite number"),
        (
            HEAD + PAD + CURVE.format("[0, 0], [0.5, 0.6], [0.7, 0.5], [1, 1]"),
            5,
            "from [0.5, 0.6] to [0.7, 0.5]",
        ),
        (HEAD + PAD + CURVE.format("[0, 0], [0.5, 0.2], [0.5, 0.5], [1, 1]"), 5, "does not rise from [0.5, 0.2] to"),
        (HEAD + PAD + CURVE.format("[0, 0.1], [1, 1]"), 5, "run from [0, 0.1] to [1, 1]; allowed: from [0, 0]"),
        (HEAD + PAD + CURVE.format("[0, 0], [1.5, 1]"), 5, "found 1.5; allowed: 0 to 1"),
        (HEAD + PAD + "gate = 'measured'\n", 3, 'rim: is missing; gate "measured" needs its lengths'),
        (HEAD + PAD + "gate = 'measured'\nrim = [1, 1, 0, 1]\n", 6, "found 0; allowed: 0.25 to 1.5"),
        (HEAD + MOVE + "half_life_s = 0\none_euro = {}\n" + PAD, 4, "half_life_s: found together with one_euro"),
        (
            HEAD + MOVE + PACES.format(0.2, 0.5, 0.1, 1) + PAD,
            4,
            "paces[1].above: 0.1 is not above the 0.2",
        ),
        (
            HEAD + MOVE + PACES.format(0, 0.5, 0.1, 0.4) + PAD,
            4,
            "paces[1].amount: 0.4 is not above the 0.5",
        ),
        (
            HEAD + MOVE + "press_amounts = { strol = 0.5 }\n" + PAD + PRESS,
            4,
            'no press in this mode "strol"; did you mean "stroll"?',
        ),
        (HEAD + "[mode.foot]\nsteer = { sectors = 5 }\n" + PAD, 4, "found 5; allowed: 2, 4, 8, 16"),
        (
            HEAD + "[mode.foot]\nsteer = { sectors = 16, sector_margin_deg = 12 }\n" + PAD,
            4,
            "12 is half a sector or more; allowed: below 11.25",
        ),
        (
            HEAD + LOOK + 'mouse = "mouse.move"\ndeg_per_count = 1\ndpi = 800\n',
            3,
            "cm_per_turn or dpi; allowed: one of them",
        ),
        (
            HEAD + LOOK + 'mouse = "mouse.move"\ndeg_per_count = 1\nhand_gain = {}\n',
            6,
            "needs dpi together with",
        ),
        (
            HEAD + LOOK + 'mouse = "mouse.move"\nhand_gain = { slow = 2, fast = 1 }\n',
            5,
            "slow 2 is above fast 1; a faster hand must not turn less",
        ),
        (HEAD + LOOK + 'gyro = "pad.gyro"\npause_press = "aim"\n' + PRESS, 5, 'no press in this mode "aim"'),
        (HEAD + "[mode.foot.look]\nzoom = { press = 'aim' }\n" + LOOK + 'gyro = "pad.gyro"\n', 4, "there are: none"),
        (
            HEAD
            + f"[mode.foot.look]\nzoom = {{ press = 'stroll', fov_deg = 180 }}\n{LOOK}gyro = 'pad.gyro'\n{PRESS}",
            4,
            "found 180; allowed: above 0, below 180",
        ),
        # What stands in a table's or a list's place goes into it, with what has to be beside it.
        (HEAD + PAD + "curve = 2\n", 5, 'such as { form = "power", exponent = 2 }'),
        (HEAD + PAD + "dead_zone = 0.15\n", 5, "such as { inner = 0.15 }"),
        (HEAD + "[mode.foot.look]\nzoom = 2\n" + LOOK + 'gyro = "pad.gyro"\n', 4, "such as { press = "),
        (HEAD + PAD + "[budget]\nstop_distance_m = 0.5\n", 6, "such as { max = 0.5 }"),
        (HEAD + "[[mode.foot.move.bind]]\nkeys = 'wasd'\n", 4, 'left = ["KeyA"], right = ["KeyD"] }'),
        (HEAD + "[[mode.foot.move.bind]]\nkeys = { forward = 'W' }\n", 4, 'a list, such as ["KeyW"]'),
        (HEAD + "[seat.one]\nkeys = 'wasd'\n" + PAD, 4, 'a list, such as ["KeyW", "KeyA", "KeyS", "KeyD"]'),
        (HEAD + "[[mode.foot.move.bind]]\nkeys = { up = ['KeyW'] }\n", 4, 'did you mean "forward"?'),
        (HEAD + PAD + "[gait.walk]\njump_height = 2\n", 6, 'did you mean "jump"?'),
        (HEAD + PAD + "[mode.foot.press]\nhop = { bnd = ['KeyH'] }\n", 6, 'unknown key; did you mean "bind"?'),
        # What would only follow from a slip is not reported: with it put right, the cart has its throttle.
        (
            HEAD
            + "[mode.cart]\nsteer = { frame = 'drive' }\n[[mode.cart.throttle.bind]]\naxi = 'pad.left_trigger'\n",
            5,
            "found axi; allowed as a source of throttle",
        ),
        (
            HEAD
            + "[mode.cart]\nsteer = { frame = 'drive' }\n[[mode.cart.throtle.bind]]\naxis = 'pad.left_trigger'\n",
            3,
            'did you mean "throttle"?',
        ),
        (HEAD + "[mode.foot\n", 3, "is not valid TOML"),
        (HEAD + "version = 1\n", 3, "is not valid TOML"),
    ],
)
def test_one_fault_names_its_line_and_what_is_allowed(text, line, words):
    (fault,) = faults(text)
    assert fault.line == line
    assert words in str(fault)


@pytest.mark.parametrize(
    ("row", "words"),
    [
        ("x = .5", "begins with a digit: 0.5"),
        ("x = [1, -.5]", "begins with a digit: -0.5"),
        ("x = 5.", "ends with a digit: 5.0"),
        ("x = 1,5", "decimals take a point: 1.5"),
        ("x = 01", 'found "01"; numbers do not begin with 0'),
        ("x = 0.2s", 'found "0.2s"; the unit belongs in the name of the key'),
        ("x = 60 %", 'found "60%"; the unit belongs'),
        ("x = False", 'found "False"; allowed: false'),
        ("x = none", "TOML has no such value"),
        ("x = cap", 'text goes in quotes: "cap"'),
        ("x = { form = round }", 'text goes in quotes: "round"'),
        ("x = “W”", 'quotes are straight: "W"'),
        ('x = "a', "the closing quote is missing"),
        ("x =   # later", "a key without a value"),
        ("x: 5", 'joined by "="'),
        ("x = 1; # why", "lines need none"),
        ("x = 1 // why", 'a comment begins with "#"'),
        ("x = 1 y = 2", "two settings on one line"),
        ("x = { a = 1, }", "no comma after the last one"),
        ("x = { a = 1", "in braces ends on the same line"),
        ("[mode.foot", '"]" is missing: [mode.foot]'),
        ("version = 2", "version is written twice; keep one"),
        ("[a]\n[a]", "[a] is written twice; put both into one"),
        ("[a]\n[a", '"]" is missing: [a]'),
        ("x = 1 ~ 2", "Expected newline"),
    ],
)
def test_a_slip_in_the_format_is_reported_with_what_was_meant(row, words):
    (fault,) = faults(f"{HEAD}{row}\n")
    assert fault.line == HEAD.count("\n") + 1 + row.count("\n")
    assert "is not valid TOML: " in str(fault)
    assert words in str(fault)


@pytest.mark.parametrize(
    ("content", "words"),
    [(b"\xff\xfe\x00rubbish", "line 1: is not UTF-8 text"), (None, "cannot be read"), ("", "is a folder")],
)
def test_files_that_are_no_text(tmp_path, content, words):
    path = tmp_path / "bee.toml"
    if content == "":
        path.mkdir()
    elif content is not None:
        path.write_bytes(content)
    with pytest.raises(ProfileError, match=words):
        load_profile(path)


def test_a_profile_says_in_words_what_it_holds():
    words = "\n".join(load_profile(PROFILE_PATH).sentences())
    for part in (
        'Profile "Beekeeper on the terraces"',
        "axes: right-handed, y up; forward is -z, right is +x",
        "mode foot (starts here)",
        "forward KeyW ArrowUp",
        "pad.left_stick: nothing up to tilt 0.14, full from tilt 0.96, released at 0.11; power",
        # 3.2² / (2 · 30) = 0.1707
        "stops from top speed in 0.17 m",
    ):
        assert part in words


def test_every_kind_of_binding_is_described_in_words(everything):
    words = "\n".join(everything("latest").sentences())
    for part in (
        "window: 1.6 times as wide as high",
        'zone "smoker": 0.8 to 1 of the width, 0.5 to 1 of the height from the top',
        "move: the latest of 4 sources, diagonals capped at full speed",
        "none 0.02 s after a release; the later wins",
        'thumb landing in "left half": full at 0.12 of the window\'s height from where it landed; past that the',
        "axes: right pad.left_stick.x, forward pad1.left_stick.y: nothing up to tilt 0.14, full from tilt 0.96, ",
        "full from tilt 0.96, released at 0.126; knee",
        "nothing up to tilt 0.3, then the raw tilt (a jump), released at 0.15; s curve, amount 0.7, from",
        "each axis by itself; square gate; rest point 0.05, -0.1",
        "nothing up to tilt 0.2, directions within 11 deg of an axis go along it, full from tilt 0.96; expo",
        "hand.left and hand.right swung while squeezed, full at 1.8 m/s, 1.5 times as much with both, slowing",
        "rise: the sum of 2 sources",
        "keys: up KeyR, down KeyF; full input 0.03 s after a press, none 0.02 s after a release; the earlier wins",
        "triggers: up pad.right_trigger, down pad.left_trigger: nothing up to tilt 0.05, full from tilt 1, ",
        "full from tilt 1, released at 0.045; linear",
        "look: 4 sources, added, pitch -75 to 75 deg",
        "mouse: 34 cm per turn at 800 dpi (0.03362 deg per count), pitch 0.5 of yaw; pitch inverted",
        'finger dragged from "right half": 180 deg per window width',
        "pad.gyro: turns the view 1.5 times as far as the pad",
        'press hold: key.Space, pad.south, a finger in "smoker"; on while held',
        "press toggle: key.ShiftLeft; switched by each press",
        "press tap: key.KeyE; released within 0.2 s",
        "press long: key.KeyE; on after 0.5 s",
        "press double: pad1.left_trigger from 0.5 until 0.2; on from the second press within 0.3 s",
        "press chord: key.ControlLeft with key.KeyC",
        "press notch: a wheel notch towards the user",
        "press jump: mouse.left; on while held; waits 0.1 s for the ground, counts 0.1 s after leaving it",
        "pad.dpad; full input 0.03 s after a press",
        'touch zones: forward "upper part", left "left edge", right "right edge"',
        "pointer from the window's middle while mouse.left is held, full at 0.4 of its height",
        "held presses end as it is entered, and count again once released",
        "one of 8 facings, each lasting 5 deg past its border",
        "both axes of a diagonal multiplied by 0.8, paces 0.3 above 0, 0.7 above 0.4, 1 above 0.8, each lasting 0.05",
        "times 0.5 while hold is held, times 0.25 while toggle is held, pulled to 8 directions by 0.7, one-euro",
        "cutoff 3 Hz and 0.8 Hz more per 1/s of speed, speed estimate with 2 Hz",
        "none 0.02 s after a release, the opposite direction at once; the later wins",
        "curve through 4 points, from 0.1 to 0.9; measured gate of 5 lengths",
        "times 0.3036 while toggle is held (from 90 to 30 deg of view, matched at 0.7 of the way to the edge)",
        "mouse: 0.1 deg per count, gain from 0.5 at 3 cm/s to 2 at 30 cm/s of hand speed, half-life 0.05 s",
        "deg/s pitch at full tilt, eased in over 0.3 s, plus 50 % after 0.2 s at the rim; nothing up to tilt 0.2",
        "fading out below 20 deg/s, bias measured while it lies still within 3 deg/s, paused while hold is held",
        '"right half": 180 deg per window width, half-life 0.1 s',
    ):
        assert part in words, part


STEER, STICK = HEAD + "[mode.foot.steer]\n", HEAD + PAD
STROLL = "[mode.foot.press.stroll]\nbind = ['ShiftLeft']\n"
HANDS = "[[mode.foot.move.bind]]\nhands = ['hand.left']\n"
IDLE = [
    (STEER + "face = 'hold'\nturn_deg_s = 9\n" + PAD, "steer.turn_deg_s", 'does nothing under face "hold"'),
    (STEER + "frame = 'grid'\nslope = {}\n" + PAD, "steer.slope", 'does nothing under frame "grid"; it goes with'),
    (STEER + "square_m = 2\n" + PAD, "steer.square_m", 'under frame "camera"; it goes with frame "grid"'),
    (STEER + "frame = 'drive'\non_the_spot = true\nturn_radius_m = 2\n" + PAD, "steer.turn_radius_m", "no smallest"),
    (STEER + "frame = 'grid'\nrepeats = false\ndelay_s = 0.2\n" + PAD, "steer.delay_s", "under repeats = false"),
    (STEER + "frame = 'goto'\nqueue = 3\nretarget = false\n" + PAD, "steer.retarget", "does nothing with a queue"),
    (STEER + "sector_margin_deg = 5\n" + PAD, "steer.sector_margin_deg", "does nothing without sectors"),
    (STEER + "sectors = 8\nsector_tie = 'upright'\n" + PAD, "steer.sector_tie", "with 8 sectors; it goes with 4"),
    (HEAD + "[mode.foot]\ngait = 'walk'\nsteer = { frame = 'grid' }\n" + PAD, "gait", "have a time of their own"),
    (HEAD + "[[mode.foot.goal.bind]]\npointer = 'pointer.at'\n" + PAD, "goal", 'it goes with frame "goto"'),
    (HEAD + MOVE + "diagonal_factor = 0.5\n" + PAD, "move.diagonal_factor", 'does nothing under diagonal "cap"'),
    (HEAD + MOVE + "pace_margin = 0.1\n" + PAD, "move.pace_margin", "does nothing without paces"),
    (HEAD + MOVE + "notch_pull = 0.1\n" + PAD, "move.notch_pull", "does nothing without notches"),
    (HEAD + HANDS + "both_boost = 2\n", "move.bind[0].both_boost", "does nothing with one hand"),
    (
        STICK + "dead_zone = { form = 'none', inner = 0.1 }\n",
        "move.bind[0].dead_zone.inner",
        'goes with form "round"',
    ),
    (
        STICK + "dead_zone = { form = 'wedge', release = 0.1 }\n",
        "move.bind[0].dead_zone.release",
        'under form "wedge"',
    ),
    (
        STICK + "curve = { form = 'linear', exponent = 2 }\n",
        "move.bind[0].curve.exponent",
        'it goes with form "power"',
    ),
    (STICK + "rim = [1, 1, 1, 1]\n", "move.bind[0].rim", 'does nothing under gate "circle"; it goes with gate "meas'),
    (STICK + STROLL + "tap_s = 0.1\n", "press.stroll.tap_s", 'under style "hold"; it goes with style "tap"'),
    (STICK + STROLL + "[mode.foot]\npress_gaits = { stroll = 'walk' }\n", "press_gaits", '"walk" is the gait of'),
    (STICK + STROLL + "enter_at = 'end'\n", "press.stroll.enter_at", "does nothing without enter"),
    (HEAD + LOOK + 'stick = "pad.right_stick"\nhold_s = 1\n', "look.bind[0].hold_s", "without rim_boost"),
    (
        HEAD + LOOK + 'stick = "pad.right_stick"\nsnap_deg = 30\nease_s = 1\n',
        "look.bind[0].ease_s",
        "with snap_deg",
    ),
    (
        HEAD + LOOK + 'stick = "pad.right_stick"\ndead_zone = { release = 0.1 }\n',
        "look.bind[0].dead_zone.release",
        "does nothing unless the turn starts with a jump",
    ),
]
IDLE_GAITS = [
    ("thrust_m_s2 = 12\ndrag_per_s = 3\nreverse_m_s2 = 5", "reverse_m_s2", "does nothing under thrust and drag"),
    ("fall = { gravity_ratio = 2 }", "fall", "does nothing without gravity_m_s2 or a jump"),
    ("keeps_speed = true\ncoast_half_life_s = 1", "coast_half_life_s", "does nothing under keeps_speed"),
]


ALL_IDLE = [
    *((text, f"mode.foot.{where}", words) for text, where, words in IDLE),
    *((f"{HEAD}[gait.walk]\n{gait}\n{PAD}", f"gait.walk.{where}", words) for gait, where, words in IDLE_GAITS),
]


@pytest.mark.parametrize(("text", "where", "words"), few_of(ALL_IDLE, ALL_IDLE[::5]))
def test_an_idle_setting_is_reported_and_counts_again_under_another_word(text, where, words):
    """A word is tried without deleting lines: it is the profile without them, and nothing of the file is lost."""
    profile = profile_from_text(text)
    (found,) = [finding for finding in check(profile, prove=False) if finding.slug == "idle-number"]
    assert (found.severity, found.where) == ("notice", where)
    assert words in found.measured
    without = profile.changed({where: None})
    for mode in profile.mode:
        assert mode_tuning(profile, mode) == mode_tuning(without, mode)
    assert profile.sentences() == without.sentences()
    assert not [finding for finding in check(without, prove=False) if finding.slug == "idle-number"]


def test_profiles_are_equal_whatever_the_order_of_what_does_nothing():
    """A frame that was tried leaves fields of two others; what is written back need not have them in that order."""
    parts = ("forward = 'head'", "teleport = true", "square_m = 2")
    first, second = (
        profile_from_text(f"{HEAD}{PAD}[mode.foot.steer]\nframe = 'drive'\n" + "\n".join(order))
        for order in (parts, parts[::-1])
    )
    assert first == second
    assert len(first.mode["foot"].steer.idle) == 3


def test_a_form_is_tried_and_changed_back():
    profile = profile_from_text(HEAD + PAD + "curve = { form = 'power', exponent = 2.5 }\n")
    tried = profile.changed({"mode.foot.move.bind[0].curve.form": "linear"})
    back = tried.changed({"mode.foot.move.bind[0].curve.form": "power"})
    assert back.mode["foot"].move.bind[0].curve.exponent == 2.5
    # A slip of the pen is still one, of a name that goes with another form too.
    for one in (profile, tried):
        with pytest.raises(ProfileError, match='did you mean "exponent"'):
            one.changed({"mode.foot.move.bind[0].curve.exponnt": 2.0})
