"""What all tests share: Hypothesis settings, the beekeeper's profile, and profiles from a few words."""

import gc
import os
import sys

import pytest
from hypothesis import settings

from wendonic import Profile
from wendonic.demo import demo_profile
from wendonic.profile.load import profile_from_text

# Where bytecode is not kept, every command that a test starts compiles all that it imports anew.
os.environ.pop("PYTHONDONTWRITEBYTECODE", None)
sys.dont_write_bytecode = False
# Trees of syntax grow by the million nodes, none of them garbage.
gc.set_threshold(50_000, 20, 50)

# New examples every time here; in CI the same ones, so that a change is green or not by itself.
settings.register_profile("wendonic", deadline=None, max_examples=25, derandomize=bool(os.environ.get("CI")))
# For a night: pytest --hypothesis-profile=thorough
settings.register_profile("thorough", deadline=None, max_examples=1000)
settings.load_profile("wendonic")

HEAD = 'format = "wendonic-profile"\nversion = 1\n'
KEYS = 'keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }'


@pytest.fixture(scope="session")
def beekeeper() -> Profile:
    return demo_profile()


@pytest.fixture(scope="session")
def foot_profile():
    """A maker of profiles with keys and left stick on foot, with lines of one's own in move, keys, stick, steer."""

    def make(move: str = "", keys: str = "", pad: str = "", steer: str = "{}", rest: str = "") -> Profile:
        return profile_from_text(
            f"{HEAD}[mode.foot]\nsteer = {steer}\n[mode.foot.move]\n{move}\n"
            f"[[mode.foot.move.bind]]\n{KEYS}\n{keys}\n"
            f'[[mode.foot.move.bind]]\nstick = "pad.left_stick"\n{pad}\n{rest}\n'
        )

    return make


EVERYTHING = (
    HEAD
    + """
[window]
aspect_ratio = 1.6
zone."smoker" = { left = 0.8, top = 0.5, right = 1.0, bottom = 1.0 }
[mode.all]
steer = { frame = "camera" }
[mode.all.move]
merge = "MERGE"
half_life_s = 0.008
[[mode.all.move.bind]]
keys = { forward = ["KeyW", "ArrowUp"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }
opposites = "latest"
rise_s = 0.03
fall_s = 0.02
[[mode.all.move.bind]]
touch_stick = "left half"
past_rim = "drag"
[[mode.all.move.bind]]
axes = { x = "pad.left_stick.x", y = "pad1.left_stick.y" }
curve = { form = "knee", at = [0.6, 0.2] }
[[mode.all.move.bind]]
hands = ["hand.left", "hand.right"]
[mode.all.look]
[[mode.all.look.bind]]
mouse = "mouse.move"
invert_pitch = true
pitch_ratio = 0.5
[[mode.all.look.bind]]
stick = "pad.right_stick"
dead_zone = { form = "round+wedge", inner = 0.2 }
curve = { form = "expo", amount = 0.55 }
[[mode.all.look.bind]]
touch_drag = "right half"
[[mode.all.look.bind]]
gyro = "pad.gyro"
turn_ratio = 1.5
[mode.all.rise]
merge = "sum"
[[mode.all.rise.bind]]
keys = { up = ["KeyR"], down = ["KeyF"] }
opposites = "earliest"
rise_s = 0.03
fall_s = 0.02
[[mode.all.rise.bind]]
triggers = { up = "pad.right_trigger", down = "pad.left_trigger" }
[[mode.all.turn.bind]]
axis = "pad1.left_stick.x"
[[mode.all.throttle.bind]]
triggers = { forward = "pad1.right_trigger" }
[mode.all.press]
hold = { bind = ["key.Space", "pad.south", { zone = "smoker" }] }
toggle = { bind = ["ShiftLeft"], style = "toggle" }
tap = { bind = ["KeyE"], style = "tap" }
long = { bind = ["KeyE"], style = "long", shared = true }
double = { bind = [{ control = "pad1.left_trigger", above = 0.5, release = 0.2 }], style = "double" }
chord = { bind = ["ControlLeft+KeyC"] }
notch = { bind = [{ wheel = "towards" }] }
jump = { bind = ["mouse.left"], buffer_s = 0.1, grace_s = 0.1 }
hop = { bind = ["mouse.right"], air_jumps = 2 }
[mode.all.press.page]
bind = [{ stick = "pad.left_stick", towards = "left" }, "KeyE"]
style = "repeat"
unless = ["ControlLeft"]
shared = true
[mode.rest]
held_presses = "drop"
[mode.rest.move]
merge = "MERGE"
half_life_s = 0.008
[[mode.rest.move.bind]]
dpad = "pad.dpad"
opposites = "earliest"
rise_s = 0.03
fall_s = 0.02
[[mode.rest.move.bind]]
touch_zones = { left = ["left edge"], right = ["right edge"], forward = ["upper part"] }
rise_s = 0.03
fall_s = 0.02
[[mode.rest.move.bind]]
pointer = "pointer.at"
while_held = ["mouse.left"]
[[mode.rest.move.bind]]
stick = "hand.left.stick"
gate = "square"
centre = [0.05, -0.1]
dead_zone = { form = "cut", inner = 0.3, release = 0.15 }
curve = { form = "s", amount = 0.7, floor = 0.1, ceiling = 0.9, per_axis = true }
[[mode.rest.look.bind]]
mouse = "mouse.move"
invert_pitch = true
pitch_ratio = 0.5
[mode.rest.press]
hold = { bind = ["key.Space"] }
toggle = { bind = ["ShiftLeft"], style = "toggle" }
horn = { bind = ["KeyE", "pad.south"] }
[mode.fine]
steer = { frame = "map", sectors = 8, sector_margin_deg = 5 }
[mode.fine.move]
merge = "MERGE"
diagonal = "factor"
diagonal_factor = 0.8
paces = [{ above = 0, amount = 0.3 }, { above = 0.4, amount = 0.7 }, { above = 0.8, amount = 1 }]
pace_margin = 0.05
press_amounts = { hold = 0.5, toggle = 0.25 }
notches = 8
notch_pull = 0.7
one_euro = { min_cutoff_hz = 3, beta = 0.8, d_cutoff_hz = 2 }
[[mode.fine.move.bind]]
keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }
opposites = "latest"
rise_s = 0.03
fall_s = 0.02
reversal = "at_once"
[[mode.fine.move.bind]]
stick = "pad.left_stick"
gate = "measured"
rim = [1, 0.9, 0.95, 0.85, 1.1]
dead_zone = { form = "round+wedge", inner = 0.2, release = 0.1 }
curve = { form = "points", points = [[0, 0], [0.3, 0.05], [0.6, 0.6], [1, 1]], floor = 0.1, ceiling = 0.9 }
[mode.fine.look]
zoom = { press = "toggle", fov_deg = 90, zoom_fov_deg = 30, match_at = 0.7 }
[[mode.fine.look.bind]]
mouse = "mouse.move"
deg_per_count = 0.1
dpi = 400
hand_gain = { from_cm_s = 3, slow = 0.5, to_cm_s = 30, fast = 2 }
half_life_s = 0.05
[[mode.fine.look.bind]]
stick = "pad.right_stick"
dead_zone = { form = "cut", inner = 0.2 }
curve = { form = "points", points = [[0, 0], [0.5, 0.2], [1, 1]] }
ease_s = 0.3
rim_boost = 0.5
hold_s = 0.2
[[mode.fine.look.bind]]
gyro = "pad.gyro"
levelled = true
steady_below_deg_s = 20
still_deg_s = 3
pause_press = "hold"
invert_yaw = true
[[mode.fine.look.bind]]
touch_drag = "right half"
half_life_s = 0.1
[mode.fine.throttle]
[[mode.fine.throttle.bind]]
axis = "pad1.left_stick.y"
curve = { form = "points", points = [[0, 0], [0.5, 0.2], [1, 1]] }
[mode.fine.press]
hold = { bind = ["key.Space"] }
toggle = { bind = ["ShiftLeft"], style = "toggle" }
"""
)


@pytest.fixture(scope="session")
def everything():
    """A maker of a profile with every kind of binding in its two modes, under a merge rule."""

    def make(merge: str = "strongest") -> Profile:
        return profile_from_text(EVERYTHING.replace("MERGE", merge))

    return make


def pytest_collection_finish() -> None:
    """What has been imported stays: a search for garbage need not go through it again and again."""
    gc.freeze()
