"""No number of a profile does nothing without saying so, whatever the steer frame and the gait."""

import pytest

from wendonic import ProfileError
from wendonic.compiler.ready import ready
from wendonic.devices.sampler import Sampler
from wendonic.profile.flat_settings import flat_settings
from wendonic.profile.load import profile_from_text
from wendonic.profile.sources import mode_sources
from wendonic.profile.tuning import mode_tuning
from wendonic.study.checking import check

SPRITE = "sectors = 8, sector_margin_deg = 5"
FACE = "turn_deg_s = 300, face_above = 0.1, diagonal_hold_s = 0.05"
SLOPE = (
    "slope = { steepest_deg = 40, slide_m_s = 1.5, lean_half_life_s = 0.1, step_m = 0.3, ahead_m = 0.25, "
    "uphill_ratio = 0.6 }"
)
DRIVE = "turn_deg_s = 100, fast_turn_deg_s = 60, turn_radius_m = 2.5, reverse_ratio = 0.4, grip = 0.6"
SQUARES = (
    "square_m = 1.1, step_s = 0.3, delay_s = 0.4, repeat_s = 0.35, above = 0.6, release = 0.45, margin_deg = 5, "
    "turn_first_s = 0.1, eased = true, sectors = 4, sector_margin_deg = 5"
)
FRAMES = {
    "map": (SPRITE, FACE, SLOPE),
    "camera": (SPRITE, 'face = "view", turn_deg_s = 300', SLOPE),
    "facing": (SPRITE, "turn_deg_s = 200", SLOPE),
    "drive": (SPRITE, DRIVE, SLOPE),
    "fly": (FACE, "level = false"),
    "grid": (FACE, SQUARES),
    "goto": (SPRITE, FACE, SLOPE, "arrival_m = 0.2, slow_down_m = 0.8, queue = 3"),
    "hands": (SPRITE, FACE, SLOPE, 'teleport = { press = "go", speed_m_s = 6 }'),
}
RATES = "top_speed_m_s = 3\naccel_m_s2 = 20\nbrake_m_s2 = 25\nreverse_m_s2 = 28\n"
GAITS = {
    "rates": RATES,
    "thrust": "thrust_m_s2 = 9\ndrag_per_s = 2\n",
    "coast": "top_speed_m_s = 3\naccel_m_s2 = 20\ncoast_half_life_s = 0.3\nreverse_m_s2 = 28\n",
    "keeps": f"{RATES}keeps_speed = true\n",
}
WEIGHT = """gravity_m_s2 = 18
airborne = { accel_m_s2 = 6, brake_m_s2 = 3 }
fall = { gravity_ratio = 1.4, top_speed_m_s = 20 }
jump = { height_m = 1.2, early_release_ratio = 0.4 }
"""
MODE = """format = "wendonic-profile"
version = 1
[mode.m.press]
jump = { bind = ["Space"], buffer_s = 0.1, grace_s = 0.08, air_jumps = 1 }
tapped = { bind = ["KeyT"], style = "tap", tap_s = 0.15 }
long = { bind = ["KeyL"], style = "long", long_s = 0.4 }
twice = { bind = ["KeyO"], style = "double", double_s = 0.25 }
again = { bind = ["KeyR"], style = "repeat", repeat_delay_s = 0.3, repeat_interval_s = 0.08 }
go = { bind = ["hand.right.lower"] }
slow = { bind = ["KeyZ"] }
[mode.m.look]
pitch_limits_deg = [-60, 70]
zoom = { press = "slow", fov_deg = 80, zoom_fov_deg = 40, match_at = 0.2 }
[[mode.m.look.bind]]
mouse = "mouse.move"
cm_per_turn = 30
dpi = 1000
half_life_s = 0.01
hand_gain = { slow = 0.8, fast = 1.4, from_cm_s = 5, to_cm_s = 40 }
[[mode.m.look.bind]]
stick = "pad.right_stick"
dead_zone = { inner = 0.11, outer = 0.95, release = 0.09 }
curve = { form = "expo", amount = 0.4, floor = 0.05, ceiling = 0.9 }
yaw_deg_s = 200
pitch_deg_s = 120
ease_s = 0.1
hold_s = 0.2
rim_boost = 0.5
[mode.m.move]
diagonal = "factor"
diagonal_factor = 0.8
paces = [{ above = 0, amount = 0.4 }, { above = 0.6, amount = 1 }]
pace_margin = 0.06
press_amounts = { slow = 0.5 }
notches = 8
notch_pull = 0.6
half_life_s = 0.03
[[mode.m.move.bind]]
keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }
rise_s = 0.06
fall_s = 0.05
[[mode.m.move.bind]]
stick = "pad.left_stick"
dead_zone = { inner = 0.11, outer = 0.95, release = 0.09 }
curve = { form = "power", exponent = 1.5, floor = 0.04, ceiling = 0.95 }
"""
HANDS = """[[mode.m.move.bind]]
hands = ["hand.left", "hand.right"]
full_swing_m_s = 2
both_boost = 1.4
steady_half_life_s = 0.05
release_half_life_s = 0.15
dead_zone = { inner = 0.15, outer = 0.98 }
"""
USUAL = {("map", "rates")}
"""The other pairs take long."""

CHANNELS = {
    "facing": ("turn",),
    "drive": ("throttle", "turn"),
    "fly": ("rise",),
}
SIDES = {"turn": 'right = ["KeyX"], left = ["KeyV"]', "throttle": 'forward = ["KeyI"], back = ["KeyK"]'}
SIDES["rise"] = 'up = ["KeyU"], down = ["KeyN"]'


def everything(frame, gait):
    parts = [MODE]
    if frame == "hands":
        parts.append(HANDS)
    for channel, axis in zip(CHANNELS.get(frame, ()), "xy", strict=False):
        parts.append(f"[[mode.m.{channel}.bind]]\nkeys = {{ {SIDES[channel]} }}\nrise_s = 0.1\nfall_s = 0.08\n")
        parts.append(f'[[mode.m.{channel}.bind]]\naxis = "pad1.left_stick.{axis}"\ndead_zone = {{ inner = 0.1 }}\n')
    if frame == "goto":
        parts.append('[[mode.m.goal.bind]]\npointer = "pointer.at"\n')
        parts.append("[window.plan]\nleft_m = -8\nright_m = 8\nforward_m = 5\nback_m = -5\n")
    parts.append(f'[mode.m]\ngait = "g"\nsteer = {{ frame = "{frame}", {", ".join(FRAMES[frame])} }}\n')
    parts.append(f"[gait.g]\n{GAITS[gait]}turn_loss = 0.2\nbody_m = 0.4\n")
    if frame == "fly":
        parts.append("rise_m_s = 2.5\n")
    elif frame not in ("hands", "grid"):
        parts.append(WEIGHT)
    return "".join(parts)


def what_runs(profile):
    """The tick function, the numbers that it reads, and what it samples."""
    numbers = mode_tuning(profile, "m", on_course=True)
    sources = mode_sources(profile, "m", None)
    made = ready(numbers.tick, Sampler(sources).layout.sample)
    return made.text, made.numbers(numbers.tick), tuple(numbers.tables), repr(sources), numbers.tick.max_dt_s


@pytest.mark.parametrize(
    ("frame", "gait"),
    [
        pytest.param(frame, gait, marks=[] if (frame, gait) in USUAL else [pytest.mark.long])
        for frame in FRAMES
        for gait in GAITS
        if (frame, gait) != ("goto", "keeps")
    ],
)
def test_each_number_counts_or_check_says_that_it_does_nothing(frame, gait):
    profile = profile_from_text(everything(frame, gait))
    before, tried = what_runs(profile), 0
    idle = tuple(found.where for found in check(profile, prove=False) if found.slug == "idle-number")
    # A gait that nothing walks by is idle as a whole.
    idle += ("gait.",) if "mode.m.gait" in idle else ()
    for path, number in flat_settings(profile.file_content()).items():
        if (
            path == "version"
            or isinstance(number, bool)
            or not isinstance(number, int | float)
            or path.startswith(idle)
        ):
            continue
        for other in (number + 1,) if isinstance(number, int) else (1.1 * number + 0.01, 0.9 * number):
            try:
                changed = profile.changed({path: other})
            except ProfileError:
                continue
            tried += 1
            assert what_runs(changed) != before, path
            break
    assert tried > 50
