"""`check` finds what is mirrored by trying it."""

import itertools
import json

import pytest

from wendonic import ProfileError
from wendonic.cli.main import app
from wendonic.demo import FOLDER, RECORDINGS, demo_profile
from wendonic.profile.load import profile_from_text
from wendonic.study.check import check

HEAD = 'format = "wendonic-profile"\nversion = 1\n'
GOOD = (
    HEAD
    + """
[world]
right = "+x"
ahead = "-z"
up = "+y"
[mode.foot]
leave_to = ["cart"]
[[mode.foot.move.bind]]
keys = { ahead = ["KeyW", "ArrowUp", "Numpad8"], back = ["KeyS", "ArrowDown", "Numpad2"], \
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
keys = { ahead = ["KeyI"], back = ["KeyK"] }
[[mode.cart.turn.bind]]
keys = { right = ["KeyL"], left = ["KeyJ"] }
"""
)


def slugs(text):
    return [(finding.slug, finding.where) for finding in check(profile_from_text(text))]


@pytest.mark.parametrize("name", sorted(set(RECORDINGS.values())))
def test_the_shipped_profiles_have_no_findings(name):
    assert check(demo_profile(name)) == []


@pytest.mark.parametrize(
    ("old", "new", "expected"),
    [
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
        ('ahead = ["KeyI"], back = ["KeyK"]', 'ahead = ["KeyK"], back = ["KeyI"]', 2),
        ('right = "+x"', 'right = "-x"', [("left-handed-axes", "world")]),
        ('ahead = "-z"', 'ahead = "+z"', [("left-handed-axes", "world")]),
        ('right = "+x"', 'right = "-x"\nhanded = "left"', []),
        ('mouse = "mouse.move"', 'mouse = "mouse.move"\ninvert_pitch = true', []),
    ],
)
def test_each_sign_fault_is_found_where_it_is(old, new, expected):
    assert slugs(GOOD) == []
    assert GOOD.count(old) == 1
    found = slugs(GOOD.replace(old, new))
    assert len(found) == expected if isinstance(expected, int) else found == expected


@pytest.mark.parametrize("flipped", list(itertools.product("+-", repeat=3)), ids="".join)
def test_no_sign_among_the_axes_can_be_wrong_unseen(flipped):
    """Told to be right-handed, a world with an odd number of signs flipped is refused."""
    right, ahead, up = flipped
    text = GOOD.replace('right = "+x"', f'right = "{right}x"').replace('ahead = "-z"', f'ahead = "{ahead}z"')
    text = text.replace('up = "+y"', f'up = "{up}y"\nhanded = "right"')
    odd = [right != "+", ahead != "-", up != "+"].count(True) % 2 == 1
    if odd:
        with pytest.raises(
            ProfileError, match=r'world.handed: "right" does not fit: .* left-handed; one of the signs'
        ):
            profile_from_text(text)
    else:
        assert slugs(text) == []


def test_the_command_says_what_was_measured_and_ends_with_1_for_faults(tmp_path, capsys):
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
    found = json.loads(out)
    assert [(entry["slug"], entry["severity"]) for entry in found] == [
        ("mirrored-look", "fault"),
        ("left-handed-axes", "notice"),
    ]
    assert set(found[0]) == {"profile", "slug", "severity", "where", "measured", "why", "mend"}
