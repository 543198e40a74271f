"""What `docs/adding.md` shows is done here to a copy of the library, as it stands there, and the copy is used; the
stand-in and the live page's reader are told of there and not shown.
"""

import json
import os
import re
import shutil
import subprocess
import sys
import textwrap
from pathlib import Path

import pytest

from wendonic.kernels.frames import steer
from wendonic.kernels.press import press
from wendonic.kernels.source import dead_zone

TOP = Path(__file__).parents[1]
ADDING = (TOP / "docs" / "adding.md").read_text(encoding="utf-8")
NEW = re.findall(r"- new: `(src/[^`]+)`", ADDING)


def test_the_files_that_adding_names_are_there_or_still_to_be_made():
    named = set(re.findall(r"`(src/[^`]+\.py)`", ADDING))
    assert len(NEW) == 7
    for path in named - set(NEW):
        assert (TOP / path).is_file(), path
    for path in NEW:
        assert (TOP / path).parent.is_dir(), path
        assert not (TOP / path).exists(), path


@pytest.mark.parametrize(("name", "kernel"), [("ZONE", dead_zone), ("STYLE", press), ("FRAME", steer)])
def test_an_integer_that_adding_gives_is_the_next_free_one(name, kernel):
    (given,) = re.findall(rf"^\s*{name}_[A-Z]+ = (\d+)$", ADDING, re.MULTILINE)
    assert int(given) == 1 + max(number for one, number in vars(kernel).items() if one.startswith(f"{name}_"))


def shown(path):
    """The code that is shown for a file, from the only item about it."""
    _, item = ADDING.split(f": `{path}`", 1)
    indented = re.search(r"```python\n(.*?)```", item, re.DOTALL).group(1)
    return textwrap.dedent("  " + indented.lstrip(" "))


def squeezed(code):
    """Code without its spaces and line ends."""
    return "".join(code.split())


class Copy:
    """A copy of the library that is changed."""

    def __init__(self, folder):
        self.top = folder
        shutil.copytree(TOP / "src", folder / "src", ignore=shutil.ignore_patterns("__pycache__", "*.egg-info"))

    def make(self, path):
        """Make a new file of what is shown for it."""
        (self.top / path).write_text(shown(path), encoding="utf-8")

    def put(self, path, code, before):
        """Put code that is shown for a file before a text that it has once."""
        file = self.top / path
        text = file.read_text(encoding="utf-8")
        assert text.count(before) == 1, (path, before)
        assert squeezed(code) in squeezed(shown(path)), (path, code)
        file.write_text(text.replace(before, code + before), encoding="utf-8")

    def imports(self, path, *lines):
        """Import what code that is shown needs, as an editor does."""
        file = self.top / path
        text = file.read_text(encoding="utf-8")
        at = text.index("\nfrom ")
        file.write_text(text[:at] + "".join(f"\n{line}" for line in lines) + text[at:], encoding="utf-8")

    def run(self, *arguments):
        """Run the copy, and give back what it prints."""
        own = {**os.environ, "PYTHONPATH": str(self.top / "src"), "XDG_CACHE_HOME": str(self.top / "cache")}
        done = subprocess.run(
            [sys.executable, *arguments],
            cwd=self.top,
            env=own,
            capture_output=True,
            text=True,
            timeout=300,
            check=False,
        )
        assert done.returncode == 0, done.stderr
        return done.stdout


@pytest.fixture(scope="module")
def copy(tmp_path_factory):
    """A copy with everything that the page adds."""
    made = Copy(tmp_path_factory.mktemp("adding"))
    for path in NEW:
        if "standins" not in path:
            made.make(path)
    kernels, schema = "src/wendonic/kernels", "src/wendonic/profile/schema"

    path = f"{kernels}/source/dead_zone.py"
    made.put(path, "ZONE_SOFT = 6\n", "ZONE_CUT = 5\n")
    soft = """\
            if form == ZONE_SOFT:
                # u² (3 - 2 u): no kink at either edge.
                length = length * length * (3.0 - 2.0 * length)
"""
    made.put(path, soft, "            # A stick that has left")
    path = f"{schema}/dead_zone.py"
    made.imports(path, "from wendonic.kernels.source.dead_zone import ZONE_SOFT")
    made.put(path, shown(path).strip()[1:-2] + ",\n", '    Word("none"')

    path = f"{kernels}/press/press.py"
    made.put(path, "STYLE_RELEASE = 7\n", "STYLE_REPEAT = 6\n")
    release = """\
            if style == STYLE_RELEASE and not by_loss:
                ons += 1.0
                offs += 1.0
"""
    made.put(path, release, "            if style == STYLE_TAP and down_s")
    path = f"{schema}/press.py"
    made.imports(path, "from wendonic.kernels.press.press import STYLE_RELEASE")
    made.put(path, shown(path).strip()[1:-2] + ",\n", '    Word("hold"')

    path = f"{kernels}/frames/steer.py"
    made.imports(path, "from wendonic.kernels.frames.oblique import steer_oblique")
    made.put(path, "FRAME_OBLIQUE = 8\n", "FRAME_HANDS = 7\n")
    called = """\
    if tuning.frame == FRAME_OBLIQUE:
        return steer_oblique(tuning, gait, course, state, body, request, dt)
"""
    made.put(path, called, "    return steer_map(")
    path = f"{kernels}/frames/frame.py"
    made.put(path, "\n    oblique: float\n", "\n\nclass FrameState")
    made.put(path, ", 0.0", ")\nFRAME_AT_REST")
    path = f"{schema}/steer/any_steer.py"
    made.imports(path, "from wendonic.profile.schema.steer.oblique import ObliqueSteer")
    made.put(path, shown(path), '    | Annotated[HandsSteer, Tag("hands")]')

    path = f"{schema}/axis_binds.py"
    made.imports(path, "from typing import Literal", "from pydantic import Field")
    made.imports(path, "from wendonic.devices.sources.wheel import WheelSource")
    wheel, _ = shown(path).split("ThrottleBind = ")
    made.put(path, wheel, "class Triggers(Table):")
    made.put(
        path,
        '\n    | Annotated[WheelBind, Tag("wheel")]',
        ',\n    Discriminator(by_key("keys", "axis", "triggers")),\n]\nTurnBind',
    )
    made.put(path, ', "wheel"', ")),\n]\nTurnBind")
    return made


USED = """
from wendonic import Helm
from wendonic.demo import demo_profile

profile = demo_profile()
turned = {"mode.foot.steer": {"frame": "oblique", "forward_deg": 30.0}}
helm = Helm(profile.changed(turned))
helm.key("KeyW", down=True)
print(helm.tick(0.25))
no_curve = {"mode.foot.move.bind[1].curve": {"form": "linear"}}
soft = {"mode.foot.move.bind[1].dead_zone": {"form": "soft", "inner": 0.2, "outer": 0.8}}
helm = Helm(profile.changed({**soft, **no_curve}))
helm.stick("pad.left_stick", 0.0, -0.35)
print(f"{helm.tick(1.0).amount:.6f}")
helm = Helm(profile.changed({"mode.foot.press.jump.style": "release"}))
helm.key("Space", down=True)
print(helm.tick(0.01).press("jump").began)
helm.key("Space", down=False)
print(*helm.tick(0.01).press("jump")[:3])
helm = Helm(demo_profile("cart").changed({"mode.cart.throttle.bind": [{"wheel": "mouse.wheel", "notches": 4}]}))
helm.wheel(-3.0)
print(f"{helm.tick(0.01).throttle:.3f} {helm.tick(0.01).throttle:.3f}")
"""


@pytest.mark.long
def test_a_dead_zone_a_press_style_a_frame_and_a_device_do_what_they_say(copy):
    """By hand: u = 0.15 / 0.6, and u² (3 - 2 u) is 0.15625; three notches of four."""
    assert copy.run("-c", USED).splitlines() == [
        "tick 1, 0.250 s, foot: amount 1.00, heading  30.0 deg, facing  30.0 deg, 3.20 m/s",
        "0.156250",
        "False",
        "False True True",
        "0.750 0.750",
    ]


@pytest.mark.long
def test_a_quantity_a_finding_and_a_picture_are_there_as_soon_as_their_file_is(copy):
    demo = TOP / "src" / "wendonic" / "demo"
    sheet = json.loads(copy.run("-m", "wendonic", "measure", str(demo / "beekeeper.toml"), "--json"))
    assert sheet["values"]["reverse_speed_m_s"]["value"] == pytest.approx(3.2)
    text = (demo / "beekeeper.toml").read_text(encoding="utf-8")
    steep = text.replace("pitch_deg_s = 140", "pitch_deg_s = 400")
    (copy.top / "steep.toml").write_text(steep, encoding="utf-8")
    assert copy.run("-m", "wendonic", "check", "steep.toml").splitlines() == [
        "steep.toml: 1 finding",
        "notice: pitch-outruns-yaw, mode.foot.look.bind[1].pitch_deg_s",
        "  full tilt turns 400 deg/s up and down, 230 deg/s to the side",
        "  Small slips of the thumb tilt the view; aiming along the horizon is hard.",
        "  fix: mode.foot.look.bind[1].pitch_deg_s = 138.0",
    ]
    drawn = ("draw", "presses", "steep.toml", str(demo / "beekeeper_keys.jsonl"), "-o", "held.png")
    assert copy.run("-m", "wendonic", *drawn) == "wrote held.png\n"


@pytest.mark.long
def test_new_files_as_they_are_shown_pass_the_project_s_own_rules(copy):
    made = [str(copy.top / path) for path in NEW if "standins" not in path]
    copy.run("-m", "ruff", "check", "--config", str(TOP / "pyproject.toml"), *made)
    copy.run("-m", "ruff", "format", "--check", "--config", str(TOP / "pyproject.toml"), *made)
