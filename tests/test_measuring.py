"""Every device and every frame has a sheet: by closed forms, and what is missing says why."""

import json
import math
import re

import pytest
from scipy.optimize import brentq

from few_of_many import few_of
from wendonic import WendonicError
from wendonic.cli.main import app
from wendonic.demo import FOLDER, RECORDINGS, demo_profile
from wendonic.profile.load import profile_from_text
from wendonic.study.checking import check
from wendonic.study.feel_sheet import measure
from wendonic.study.quantities import QUANTITIES
from wendonic.study.thresholds import THRESHOLDS
from wendonic.study.unmeasured import NotHere, Unmeasured

HEAD = 'format = "wendonic-profile"\nversion = 1\n'
GAIT = "[gait.walk]\ntop_speed_m_s = 4\naccel_m_s2 = 8\nbrake_m_s2 = 16\n"
ZONE = 'dead_zone = { form = "none" }\ncurve = { form = "linear" }\n'
AT_ONCE = "rise_s = 0\nfall_s = 0\n"
BIND = "[mode.m.move]\nhalf_life_s = 0\n[[mode.m.move.bind]]\n"
REACH90_S, STOP_M = 0.9 * 4.0 / 8.0, 4.0**2 / 32.0


def measured(text, **asked):
    return measure(profile_from_text(HEAD + text + GAIT), engine="interpreted", **asked)


@pytest.mark.parametrize(
    ("by", "mode", "goes_back"),
    [
        ("keys", f"{BIND}keys = {{ left = ['KeyA'], right = ['KeyD'] }}\n{AT_ONCE}", True),
        ("keys", f"{BIND}keys = {{ forward = ['KeyW'], back = ['KeyS'] }}\n{AT_ONCE}", True),
        ("keys", f"{BIND}keys = {{ forward = ['KeyW'] }}\n{AT_ONCE}", False),
        ("pad.dpad", f"{BIND}dpad = 'pad.dpad'\n{AT_ONCE}", True),
        ("pad.left_stick", f"{BIND}stick = 'pad.left_stick'\n{ZONE}", True),
        ("axes", f"{BIND}axes = {{ x = 'pad.left_stick.x', y = 'pad.right_stick.y' }}\n{ZONE}", True),
        ("axes", f"{BIND}axes = {{ x = 'pad.left_stick.x', y = 'pad.right_trigger' }}\n{ZONE}", False),
        ("touch_zones", f"{BIND}touch_zones = {{ left = ['left edge'], right = ['right edge'] }}\n{AT_ONCE}", True),
        ("touch_stick", f"{BIND}touch_stick = 'left half'\n{ZONE}", True),
        ("pointer", f"{BIND}pointer = 'pointer.at'\n{ZONE}", True),
        (
            "keys",
            f"[mode.m]\nsteer = {{ frame = 'drive' }}\n[[mode.m.throttle.bind]]\n"
            f"keys = {{ forward = ['KeyW'] }}\n{AT_ONCE}",
            False,
        ),
        (
            "triggers",
            f"[mode.m]\nsteer = {{ frame = 'drive', reverse_ratio = 1 }}\n[[mode.m.throttle.bind]]\n"
            f"triggers = {{ forward = 'pad.right_trigger', back = 'pad.left_trigger' }}\n{ZONE}",
            True,
        ),
        (
            "pad.left_stick.y",
            f"[mode.m]\nsteer = {{ frame = 'drive', reverse_ratio = 1 }}\n[[mode.m.throttle.bind]]\n"
            f"axis = 'pad.left_stick.y'\n{ZONE}[[mode.m.turn.bind]]\naxis = 'pad.left_stick.x'\n{ZONE}",
            True,
        ),
        ("keys", f"[mode.m]\nsteer = {{ frame = 'fly' }}\n{BIND}keys = {{ forward = ['KeyW'] }}\n{AT_ONCE}", False),
    ],
)
def test_whatever_the_device_and_whichever_directions_it_has_the_gait_is_the_same(by, mode, goes_back):
    sheet = measured(mode)
    assert sheet.by == by
    assert sheet.reach90_s == pytest.approx(REACH90_S, abs=1.1e-3)
    assert sheet.stop_distance_m == pytest.approx(STOP_M, abs=1.1e-3)
    assert sheet.top_speed_m_s == pytest.approx(4.0)
    if goes_back:
        assert sheet.reversal_s == pytest.approx(4.0 / 16.0 + REACH90_S, abs=1.1e-3)
    else:
        assert isinstance(sheet.reasons["reversal_s"], NotHere)


@pytest.mark.parametrize(
    "name",
    few_of(sorted(set(RECORDINGS.values())), {"cart"}),
)
def test_every_quantity_has_a_value_or_a_reason_in_every_shipped_mode(name):
    profile = demo_profile(name)
    for mode in profile.mode:
        sheet = measure(profile, mode, engine="interpreted")
        assert set(sheet.reasons) == {quantity for quantity, value in sheet.items() if value is None}
        listed = [quantity for group in sheet.missing().values() for quantity in group]
        assert sorted(listed) == sorted(sheet.reasons)
        known = len(QUANTITIES) - len(listed)
        assert known >= 3 or not profile.mode[mode].bound_channels
        assert all(math.isfinite(value) and value >= 0.0 for value in sheet.values() if value is not None)
        assert (sheet.tick_dependence or 0.0) < 0.01
        assert sheet.reach90_s is None or profile.mode[mode].steer.frame != "grid"


@pytest.mark.parametrize("gate", ["circle", "square"])
def test_a_calibrated_stick_is_measured_from_where_it_rests(gate):
    """A dead zone of 0.1 about a rest 0.094 off: it lies still, and points where it is pushed."""
    stick = f"{BIND}stick = 'pad.left_stick'\ngate = '{gate}'\ncentre = [0.08, -0.05]\n"
    stick += "dead_zone = { inner = 0.1, outer = 0.9 }\ncurve = { form = 'linear' }\n"
    sheet = measured(stick)
    assert sheet.rest_drift_m_per_min == 0.0
    assert sheet.direction_error_deg == pytest.approx(0.0, abs=1e-6)
    assert sheet.speed_spread_stick == pytest.approx(0.0, abs=1e-6)
    assert sheet.dead_share < 0.013
    if gate == "square":
        return
    without = measured(stick.replace("[0.08, -0.05]", "[0, 0]").replace("inner = 0.1", "inner = 0.03"))
    # A usual worn stick lies 0.036 off; at its edges the noise of 0.004 goes both ways.
    assert without.rest_drift_m_per_min == pytest.approx((0.0361 - 0.03) / 0.87 * 4.0 * 60.0, rel=0.25)


@pytest.mark.parametrize("ceiling", few_of([1.0, 0.51, 0.45], [0.51]))
@pytest.mark.parametrize("source", ["stick = 'pad.left_stick'\ndead_zone = { form = 'none' }\n", "keys"])
def test_the_delay_is_that_of_half_the_answer_however_large_that_is(source, ceiling):
    if source == "keys":
        text = f"{BIND}keys = {{ forward = ['KeyW'] }}\n{AT_ONCE}"
    else:
        text = f"{BIND}{source}curve = {{ form = 'linear', ceiling = {ceiling} }}\n"
    sheet = measured(text.replace("half_life_s = 0\n", "half_life_s = 0.03\n"))
    assert sheet.smoothing_delay_s == pytest.approx(0.03, abs=2e-6)


@pytest.mark.parametrize(("rise_s", "half_life_s"), [(0.0, 0.0), (0.15, 0.0), (0.03, 0.008)])
def test_the_delay_has_nothing_of_the_ticks_it_is_measured_with(rise_s, half_life_s):
    """A ramp and a half-life one after the other, solved by SciPy: (t - tau (1 - exp(-t / tau))) / rise = 1/2."""
    shaping = AT_ONCE.replace("rise_s = 0\n", f"rise_s = {rise_s}\n")
    text = f"{BIND}keys = {{ forward = ['KeyW'] }}\n{shaping}"
    sheet = measured(text.replace("half_life_s = 0\n", f"half_life_s = {half_life_s}\n"))
    tau = half_life_s / math.log(2.0)
    wanted = rise_s / 2.0
    if tau:
        wanted = brentq(lambda t: (t - tau * (1.0 - math.exp(-t / tau))) / rise_s - 0.5, 0.0, rise_s)
    assert sheet.smoothing_delay_s == pytest.approx(wanted, abs=2e-6)
    if rise_s == 0.0:
        assert sheet.first_response_s == 0.0


@pytest.mark.parametrize(("hz", "half_life_s", "ticks"), [(60, 0.0, 1), (30, 0.0, 1), (60, 0.04, 3), (144, 0.04, 6)])
def test_the_delay_of_the_chain_is_whole_ticks_less_half_a_tick(hz, half_life_s, ticks):
    """What is pressed within a tick counts for all of it, so half is there after ceil(half_life hz) ticks' ends."""
    text = f"{BIND}keys = {{ forward = ['KeyW'] }}\n{AT_ONCE}".replace(
        "half_life_s = 0\n", f"half_life_s = {half_life_s}\n"
    )
    found = measured(text, thresholds=THRESHOLDS._replace(hz=hz), only=["chain_delay_s"]).chain_delay_s
    assert found == pytest.approx((ticks - 0.5) / hz, abs=1e-5)


@pytest.mark.parametrize("source", ["stick = 'pad.left_stick'\n" + ZONE, "keys"])
def test_the_smallest_circle_of_a_body_that_turns_as_it_goes_sideways(source):
    """v / w is its radius, whatever it is driven by."""
    keys = f"keys = {{ forward = ['KeyW'], right = ['KeyD'] }}\n{AT_ONCE}"
    steer = "[mode.m]\nsteer = { frame = 'facing', face = 'travel', turn_deg_s = 90 }\n"
    sheet = measured(steer + BIND + (keys if source == "keys" else source))
    assert sheet.turn_circle_m == pytest.approx(2.0 * 4.0 / math.radians(90.0), rel=1e-3)
    assert sheet.full_turn_s == pytest.approx(4.0, abs=0.01)


@pytest.mark.parametrize("frame", ["facing", "map"])
def test_a_body_that_the_channel_turn_turns_circles_where_it_goes_ahead(frame):
    """Thrust a along a nose that turns at w, against a drag d, gives a steady speed a / hypot(d, w)."""
    text = f"{HEAD}[mode.m]\nsteer = {{ frame = '{frame}', face = 'turn', turn_deg_s = 180 }}\n"
    text += f"{BIND}keys = {{ forward = ['KeyW'], left = ['KeyA'], right = ['KeyD'] }}\n"
    text += "[[mode.m.turn.bind]]\nkeys = { right = ['KeyE'], left = ['KeyQ'] }\n"
    sheet = measure(profile_from_text(text + "[gait.walk]\nthrust_m_s2 = 6\ndrag_per_s = 1.5\n"))
    assert sheet.full_turn_s == pytest.approx(2.0, abs=1e-6)
    if frame == "map":
        assert isinstance(sheet.reasons["turn_circle_m"], NotHere)
    else:
        speed_m_s = 6.0 / math.hypot(1.5, math.pi)
        assert sheet.turn_circle_m == pytest.approx(2.0 * speed_m_s / math.pi, rel=1e-3)


@pytest.mark.parametrize("turn_deg_s", few_of([20.0, 5.0, 1.0, 1e-5], [1.0]))
@pytest.mark.parametrize("steer", ["frame = 'map'", "frame = 'facing', face = 'turn'", "frame = 'drive'"])
def test_a_body_that_turns_ever_slower_is_always_found(steer, turn_deg_s):
    """A turn that lasts longer than it is watched has no value, and is no less slow for that."""
    text = f"{HEAD}[mode.m]\nsteer = {{ {steer}, turn_deg_s = {turn_deg_s} }}\n"
    text += f"{BIND}keys = {{ forward = ['KeyW'], back = ['KeyS'] }}\n" if "drive" not in steer else ""
    if "map" not in steer:
        text += "[[mode.m.turn.bind]]\nkeys = { right = ['KeyD'], left = ['KeyA'] }\n"
    if "drive" in steer:
        text += "[[mode.m.throttle.bind]]\nkeys = { forward = ['KeyW'], back = ['KeyS'] }\n"
    text += "[gait.walk]\naccel_m_s2 = 20\nbrake_m_s2 = 20\n"
    quantity, whole_deg = ("turn_round_s", 175.0) if "map" in steer else ("full_turn_s", 360.0)
    sheet = measure(profile_from_text(text), only=[quantity])
    if whole_deg / turn_deg_s < 60.0:
        assert sheet[quantity] == pytest.approx(whole_deg / turn_deg_s, abs=0.01)
    else:
        assert re.search(r"^after [\d.]+ s .*(still turning round|not come round)$", str(sheet.reasons[quantity]))
    (found,) = [one for one in check(profile_from_text(text)) if one.slug == "turns-slowly"]
    assert found.changes


def test_a_cart_in_circles_at_full_and_at_half_speed():
    """Turn rate falls evenly from turn_deg_s at rest to fast_turn_deg_s at top speed."""
    steer = "{ frame = 'drive', turn_deg_s = 120, fast_turn_deg_s = 60, turn_radius_m = 0.1 }"
    text = f"[mode.m]\nsteer = {steer}\n[[mode.m.throttle.bind]]\nkeys = {{ forward = ['KeyW'] }}\n"
    text += f"[[mode.m.turn.bind]]\nkeys = {{ right = ['KeyD'], left = ['KeyA'] }}\n{AT_ONCE}"
    sheet = measured(text)
    assert sheet.turn_circle_m == pytest.approx(2.0 * 4.0 / math.radians(60.0), rel=1e-3)
    assert sheet.turn_circle_half_m == pytest.approx(2.0 * 2.0 / math.radians(90.0), rel=1e-3)
    assert sheet.full_turn_s == pytest.approx(6.0, abs=0.01)
    assert isinstance(sheet.reasons["turn_round_s"], NotHere)


def test_turning_round_takes_what_the_turn_rate_says():
    keys = f"keys = {{ forward = ['KeyW'], back = ['KeyS'] }}\n{AT_ONCE}"
    sheet = measured(f"[mode.m]\nsteer = {{ frame = 'map', turn_deg_s = 250 }}\n{BIND}{keys}")
    assert sheet.turn_round_s == pytest.approx((180.0 - THRESHOLDS.within_deg) / 250.0, abs=1e-9)
    # Seen from the side a body turns at once.
    keys = f"keys = {{ left = ['KeyA'], right = ['KeyD'] }}\n{AT_ONCE}"
    sheet = measured(f"[mode.m]\nsteer = {{ frame = 'map', side_view = true, sectors = 2 }}\n{BIND}{keys}")
    assert sheet.turn_round_s == 0.0


@pytest.mark.parametrize(
    ("steer", "first", "repeat", "rate"),
    [
        ("step_s = 0.2", 0.0, 0.2, 5.0),
        ("step_s = 0.2, delay_s = 0.5, repeat_s = 0.25", 0.0, 0.5, 4.0),
        ("step_s = 0.2, repeats = false", 0.0, None, None),
        ("step_s = 0.2, eased = true", 0.0, 0.2, 5.0),
        ("step_s = 0.0777, turn_first_s = 0.1373", 0.1373, 0.1373 + 0.0777, 1.0 / 0.0777),
    ],
)
def test_squares(steer, first, repeat, rate):
    sheet = measured(
        f"[mode.m]\nsteer = {{ frame = 'grid', {steer} }}\n{BIND}keys = {{ right = ['KeyD'] }}\n{AT_ONCE}"
    )
    assert sheet.press_to_step_s == pytest.approx(first, abs=1e-9)
    for found, expected in ((sheet.first_repeat_s, repeat), (sheet.steps_per_s, rate)):
        assert found is None if expected is None else found == pytest.approx(expected, rel=1e-6)
    assert str(sheet.reasons["reach90_s"]) == "on squares there are steps and no speeds"


@pytest.mark.parametrize(("arrival_m", "far_m"), [(0.1, 5.0), (0.25, 8.0)])
def test_a_place_that_is_pointed_at(arrival_m, far_m):
    """Without slowing down a body speeds up, goes on, and brakes to rest on its place: v / 2a + d / v + v / 2b."""
    text = f"[mode.m]\nsteer = {{ frame = 'goto', arrival_m = {arrival_m}, slow_down_m = 0 }}\n"
    sheet = measured(text, thresholds=THRESHOLDS._replace(goal_m=far_m))
    full_s = 4.0 / 16.0 + far_m / 4.0 + 4.0 / 32.0
    # It counts as arrived that far before: the last part of v² / 2b takes sqrt(2 d / b).
    assert sheet.goal_time_s == pytest.approx(full_s - math.sqrt(2.0 * arrival_m / 16.0), abs=2e-4)
    assert sheet.goal_overshoot_m == pytest.approx(0.0, abs=1e-9)
    assert 0.0 <= sheet.goal_error_m <= arrival_m + 1e-6
    assert str(sheet.reasons["reach90_s"]) == "no control that can be held moves the body"


@pytest.mark.parametrize("middle", ["landing", "zone"])
@pytest.mark.parametrize(("past_rim", "drift"), [("stay", 0.0), ("drag", 0.2)])
def test_a_thumb_on_the_glass(past_rim, drift, middle):
    zone = "dead_zone = { inner = 0.1, outer = 0.8 }\ncurve = { form = 'linear' }\n"
    sheet = measured(
        f"{BIND}touch_stick = 'left half'\nradius = 0.2\npast_rim = '{past_rim}'\nmiddle = '{middle}'\n{zone}"
    )
    assert sheet.thumb_travel == pytest.approx(0.8 * 0.2, abs=1e-6)
    assert sheet.thumb_drift == pytest.approx(drift, abs=1e-6)
    assert sheet.first_tilt == pytest.approx(0.1)
    assert sheet.quarter_steps_8bit is None


@pytest.mark.long
def test_hands_walk_by_their_fastest_and_a_tremor_by_its_size():
    """Swinging at 1 m/s on the mean, hands are pi / 2 times as fast in the middle of a swing, and that stays."""
    hands = (
        "hands = ['hand.left', 'hand.right']\nfull_swing_m_s = 3\nsteady_half_life_s = 0\nrelease_half_life_s = 1\n"
    )
    steer = "[mode.m]\nsteer = { frame = 'hands' }\n"
    sheet = measured(steer + BIND + hands + ZONE)
    assert sheet.by == "hands"
    # The arc of an arm is a little slower in its middle than a straight line would be.
    assert sheet.swing_gain == pytest.approx(4.0 * (math.pi / 2.0) / 3.0, rel=0.05)
    assert sheet.swing_delay_s < 0.1
    assert sheet.swing_dip < 0.1
    assert sheet.swing_tremor_mm < 0.1
    calm = measured(steer + BIND + hands + 'dead_zone = { inner = 0.3 }\ncurve = { form = "linear" }\n')
    # A tremor of s mm about 9 Hz is about 2 pi 9 s mm/s fast; the fastest of five seconds is a few times that.
    fastest = 0.3 * 3.0 / (math.tau * 9.0)
    assert fastest / 8.0 < calm.swing_tremor_mm / 1000.0 < fastest


@pytest.mark.parametrize("coast_half_life_s", few_of([0.7, 2.3, 4.0, 7.0], [2.3]))
def test_a_gait_that_answers_at_once_is_measured_exactly_beside_one_that_rolls_out_for_minutes(coast_half_life_s):
    """What rolls out for long is looked at less often, but still between two ticks where something changes."""
    text = BIND + f"keys = {{ forward = ['KeyW'], back = ['KeyS'] }}\n{AT_ONCE}"
    text = f"[mode.m]\ngait = 'ice'\n{text}[mode.m.press]\nedge = {{ bind = ['ShiftLeft'] }}\n[mode.m.press_gaits]\n"
    text += f"edge = 'walk'\n[gait.ice]\ntop_speed_m_s = 7\naccel_m_s2 = 3\ncoast_half_life_s = {coast_half_life_s}\n"
    names = ("top_speed_m_s", "reach90_s", "stop_time_s", "stop_distance_m", "tap_distance_m")
    ice, edge = measured(text), measured(text, held="edge")
    rolls_m = (7.0 - 0.02) * coast_half_life_s / math.log(2.0)
    rolls_s = coast_half_life_s * math.log2(7.0 / 0.02)
    # A tap of 0.1 s: 0.3 m/s and 15 mm, then the same decay.
    tapped_m = 0.015 + (0.3 - 0.02) * coast_half_life_s / math.log(2.0)
    assert [ice[name] for name in names] == pytest.approx([7.0, 2.1, rolls_s, rolls_m, tapped_m], rel=1e-3)
    assert [edge[name] for name in names] == pytest.approx([4.0, REACH90_S, 0.25, STOP_M, 0.04 + 0.02], rel=1e-3)


@pytest.mark.long
def test_a_pad_that_is_turned():
    text = f"{BIND}stick = 'pad.left_stick'\n{ZONE}[[mode.m.look.bind]]\ngyro = 'pad.gyro'\nturn_ratio = 3\n"
    sheet = measured(text)
    assert sheet.gyro_ratio == pytest.approx(3.0, rel=2e-3)
    assert abs(sheet.gyro_slow_loss) < 0.02
    assert sheet.gyro_drift_deg_per_min < 1.0
    # Without finding its bias, 0.5 deg/s turn the view by 0.5 * 60 * 3 a minute; a slow turn fades out if told to.
    kept = measured(text + "still_deg_s = 0\nsteady_below_deg_s = 4\n")
    assert kept.gyro_slow_loss > 0.2
    assert measured(text + "still_deg_s = 0\n").gyro_drift_deg_per_min == pytest.approx(90.0, rel=0.02)


@pytest.mark.long
def test_a_source_that_turns_only_up_and_down_is_measured_up_and_sideways_comes_first():
    """By hand: half a tilt gives half the pitch rate, 10 cm of a mouse the pitch ratio's share of a turn, and
    a pad and a key their own numbers, though no view can be turned up that far.
    """
    upright = """stick = 'pad.right_stick'\npitch_deg_s = 120
    dead_zone = { form = 'round', inner = 0.2, outer = 1 }\ncurve = { form = 'linear' }
    [[mode.m.look.bind]]\nmouse = 'mouse.move'\ncm_per_turn = 40\npitch_ratio = 0.5
    [[mode.m.look.bind]]\ngyro = 'pad.gyro'\nturn_ratio = 3\ninvert_pitch = true
    [[mode.m.look.bind]]\nkeys = { up = ['KeyR'], down = ['KeyF'], right = ['KeyG'] }\npitch_deg_s = 90
    """.replace("\n    [", "\nturns = 'pitch'\n[")
    text = f"{BIND}stick = 'pad.left_stick'\n{ZONE}[[mode.m.look.bind]]\n{upright}turns = 'pitch'\n"
    names = ("look_deg_s_full_tilt", "look_deg_s_half_tilt", "look_first_tilt")
    names += ("mouse_deg_per_10cm", "gyro_ratio", "look_deg_s_keys")
    values = [120.0, 45.0, 0.2, 45.0, -3.0, 90.0]
    sheet = measured(text)
    assert [sheet[name] for name in names] == pytest.approx(values, rel=2e-3)
    later = measured(
        text + "[[mode.m.look.bind]]\nmouse = 'mouse.move'\ncm_per_turn = 20\nturns = 'yaw'\nshared = true\n"
    )
    assert later.mouse_deg_per_10cm == pytest.approx(180.0)


@pytest.mark.long
@pytest.mark.parametrize(
    "style", ["hold", *(pytest.param(style, marks=pytest.mark.long) for style in ("toggle", "double", "tap"))]
)
def test_a_pad_that_turns_the_view_only_with_a_press_is_measured_with_it(style):
    text = f"{BIND}stick = 'pad.left_stick'\n{ZONE}[[mode.m.look.bind]]\ngyro = 'pad.gyro'\nturn_ratio = 3\n"
    text += "while_press = 'aim'\n[mode.m.look.zoom]\npress = 'near'\nfov_deg = 90\nzoom_fov_deg = 30\n"
    text += (
        f"[mode.m.press]\naim = {{ bind = ['pad.left_trigger'], style = '{style}' }}\nnear = {{ bind = ['KeyZ'] }}\n"
    )
    sheet = measured(text)
    if style == "tap":
        assert sheet.gyro_ratio is None
        assert "cannot be held" in str(sheet.reasons["gyro_ratio"])
        return
    assert sheet.gyro_ratio == pytest.approx(3.0, rel=2e-3)
    scale = math.tan(math.radians(15.0)) / math.tan(math.radians(45.0))
    assert measured(text, held="near").gyro_ratio == pytest.approx(3.0 * scale, rel=2e-3)


@pytest.mark.parametrize("low_deg", [-30.0, -80.0])
def test_a_bee_climbs_sinks_and_dives(low_deg):
    text = f"[mode.m]\nsteer = {{ frame = 'fly', level = false }}\n{BIND}stick = 'pad.left_stick'\n{ZONE}"
    text += f"[[mode.m.rise.bind]]\nkeys = {{ up = ['KeyE'] }}\n[mode.m.look]\npitch_limits_deg = [{low_deg}, 80]\n"
    text += "[[mode.m.look.bind]]\nmouse = 'mouse.move'\n"
    sheet = measure(profile_from_text(HEAD + text + GAIT + "rise_m_s = 1.5\n"), engine="interpreted")
    assert sheet.climb_m_s == pytest.approx(1.5)
    assert str(sheet.reasons["sink_m_s"]) == "nothing goes down"
    assert sheet.dive_m_s == pytest.approx(4.0 * math.sin(math.radians(-low_deg)))


@pytest.mark.parametrize(
    ("rule", "amount", "speed"),
    [
        ("diagonal = 'unit'", 1.0, 4.0),
        ("diagonal = 'cap'", 0.5, 2.0),
        ("paces = [{ above = 0, amount = 0.3 }, { above = 0.4, amount = 0.8 }]", 0.8, 3.2),
    ],
)
def test_a_tilt_is_what_it_is_after_all_rules(rule, amount, speed):
    stick = f"stick = 'pad.left_stick'\n{ZONE}"
    if "paces" in rule:
        sheet = measured(BIND.replace("half_life_s", f"{rule}\nhalf_life_s") + stick)
    else:
        sheet = measured(BIND + stick + f"{rule}\n")
    assert sheet.amount_at_tilt == pytest.approx(amount)
    assert sheet.speed_at_tilt_m_s == pytest.approx(speed)
    assert sheet.quarter_steps_8bit == {"unit": 0, "cap": 31}.get(rule[12:-1])


PRESSES = """
[mode.m.press]
sprint = { bind = ["key.ShiftLeft"], style = "toggle" }
creep = { bind = ["key.KeyC"] }
slow = { bind = ["key.KeyX"], style = "long", long_s = 0.4 }
wave = { bind = ["key.KeyV"], style = "tap" }
spyglass = { bind = ["key.KeyZ"] }
[gait.run]
top_speed_m_s = 9
accel_m_s2 = 20
brake_m_s2 = 16
[gait.crawl]
top_speed_m_s = 1
"""
BOTH = (
    "[mode.m]\npress_gaits = { sprint = 'run', creep = 'crawl' }\n[mode.m.move]\nhalf_life_s = 0\n"
    f"press_amounts = {{ slow = 0.25 }}\n[[mode.m.move.bind]]\nstick = 'pad.left_stick'\n{ZONE}"
    f"[[mode.m.move.bind]]\nkeys = {{ forward = ['KeyW'], back = ['KeyS'], left = ['KeyA'], right = ['KeyD'] }}\n"
    "[mode.m.look]\nzoom = { press = 'spyglass', fov_deg = 80, zoom_fov_deg = 40 }\n"
    "[[mode.m.look.bind]]\nmouse = 'mouse.move'\n" + PRESSES
)


@pytest.mark.parametrize(
    ("held", "top_speed_m_s", "reach90_s"),
    [(None, 4.0, 0.45), ("sprint", 9.0, 0.405), ("creep", 1.0, None), ("slow", 1.0, 0.9 / 8.0)],
)
@pytest.mark.parametrize("by", few_of(["keys", "pad", "pad.left_stick"], ["pad"]))
def test_by_which_device_and_while_what_is_held(held, by, top_speed_m_s, reach90_s):
    sheet = measured(BOTH, held=held, by=by)
    assert sheet.by == ("keys" if by == "keys" else "pad.left_stick")
    assert sheet.top_speed_m_s == pytest.approx(top_speed_m_s)
    if reach90_s is not None:
        assert sheet.reach90_s == pytest.approx(reach90_s, abs=1e-9)
    assert (sheet.diagonal_ratio is None) == (by != "keys")
    assert sheet.tick_dependence < 0.01


def test_held_controls_count_for_the_view_as_well():
    plain, zoomed = (measured(BOTH, held=held, by="mouse.move").mouse_deg_per_10cm for held in (None, "spyglass"))
    assert zoomed / plain == pytest.approx(math.tan(math.radians(20.0)) / math.tan(math.radians(40.0)))
    assert measured(BOTH, by="mouse.move").reach90_s is None


@pytest.mark.parametrize(
    ("asked", "words"),
    [
        ({"by": "pad.left_stik"}, "pad.left_stick"),
        ({"by": "touch_stick"}, "keys"),
        ({"held": "sprnt"}, "sprint"),
        ({"held": "wave"}, 'cannot be held (style "tap")'),
    ],
)
def test_an_unknown_device_or_press_is_reported_with_the_existing_ones(asked, words):
    with pytest.raises(WendonicError) as reported:
        measured(BOTH, **asked)
    assert words in str(reported.value)


def test_where_the_game_moves_the_body_there_are_requests_and_no_speeds():
    text = f"[mode.m]\ngait = 'none'\n{BIND}stick = 'pad.left_stick'\n{ZONE}".replace(
        "half_life_s = 0\n", "half_life_s = 0.05\n"
    )
    sheet = measured(text)
    assert sheet.smoothing_delay_s == pytest.approx(0.05, abs=6e-4)
    assert sheet.amount_at_tilt == 0.5
    for name in ("reach90_s", "stop_distance_m", "rest_drift_m_per_min", "speed_at_tilt_m_s", "tick_dependence"):
        assert str(sheet.reasons[name]) == 'gait "none": the game moves the body'


def test_speed_that_is_kept_never_stops_and_says_so():
    sheet = measured(f"{BIND}keys = {{ forward = ['KeyW'] }}\n{AT_ONCE}", only=["stop_distance_m"])
    assert sheet.stop_distance_m == pytest.approx(STOP_M, abs=1e-3)
    kept = measure(
        profile_from_text(HEAD + f"{BIND}keys = {{ forward = ['KeyW'] }}\n{AT_ONCE}" + GAIT + "keeps_speed = true\n"),
        engine="interpreted",
    )
    for name in ("stop_distance_m", "stop_time_s", "tap_distance_m"):
        assert type(kept.reasons[name]) is Unmeasured


def test_definitions_name_every_threshold_that_they_depend_on():
    for one in QUANTITIES.values():
        assert "{" not in one.definition
        moved = one.defined(THRESHOLDS._replace(**{name: value * 1.7 for name, value in one.thresholds.items()}))
        assert (moved != one.definition) == bool(one.thresholds), one.name


def run(capsys, *words):
    with pytest.raises(SystemExit) as end:
        app([str(word) for word in words], prog_name="wendonic")
    assert end.value.code == 0
    return capsys.readouterr().out


def test_the_command_measures_what_is_asked_for(capsys):
    harvest = FOLDER / "harvest.toml"
    words = ("--by", "pad", "--while", "sprint", "--tilt", 0.3, "--of", "speed_at_tilt_m_s, top_speed_m_s")
    content = json.loads(run(capsys, "measure", harvest, *words, "--json"))
    assert (content["by"], content["while"]) == ("pad.left_stick", "sprint")
    assert sorted(content["values"]) == ["speed_at_tilt_m_s", "top_speed_m_s"]
    tilted = content["values"]["speed_at_tilt_m_s"]
    assert tilted["thresholds"] == {"tilt": 0.3}
    assert tilted["definition"] == "steady speed at a tilt of 0.3 straight ahead"
    assert content["values"]["top_speed_m_s"]["value"] == pytest.approx(5.6)
    assert tilted["value"] == pytest.approx(5.6 * ((0.3 - 0.14) / 0.82) ** 1.6, rel=1e-3)
    shown = run(capsys, "measure", harvest, *words)
    assert shown.startswith(f"{harvest}, mode foot, by pad.left_stick, sprint held")
    assert "diagonal_ratio" not in shown
    with pytest.raises(WendonicError, match=r"tilt: found 1\.5; allowed: 0 to 1"):
        app(["measure", str(harvest), "--tilt", "1.5"], standalone_mode=False)


def test_every_command_that_prints_numbers_has_one_layout_of_json(tmp_path, capsys):
    def numbers(content):
        if isinstance(content, dict):
            if "value" in content:
                yield content
            for part in content.values():
                yield from numbers(part)
        elif isinstance(content, list):
            for part in content:
                yield from numbers(part)

    beekeeper, harvest = FOLDER / "beekeeper.toml", FOLDER / "harvest.toml"
    pad = FOLDER / "beekeeper_pad.jsonl"
    for words, least in (
        (("measure", beekeeper, "--json"), 50),
        (("compare", beekeeper, harvest, "--json"), 100),
        (("calibrate", pad, "--json"), 4),
        (("info", pad, "--json"), 4),
    ):
        content = json.loads(run(capsys, *words))
        assert (content["format"], content["version"], content["command"]) == ("wendonic-values", 1, words[0])
        found = list(numbers(content))
        assert len(found) >= least
        for one in found:
            assert {"value", "unit", "definition"} <= set(one)
            if "interval" in one:
                assert one["interval"]["low"] <= one["value"] <= one["interval"]["high"]
    over = ("--over", "gait.walk.accel_m_s2=9:18:2", "--of", "reach90_s", "-o", tmp_path / "x.csv")
    swept = json.loads(run(capsys, "sweep", beekeeper, *over, "--json"))
    assert swept["columns"]["reach90_s"] == {"unit": "s", "definition": QUANTITIES["reach90_s"].definition}
    assert [row["gait.walk.accel_m_s2"] for row in swept["rows"]] == [9.0, 18.0]


def test_a_budget_is_held_by_the_device_and_the_press_that_it_names():
    budget = "[budget]\nreach90_s = { max = 0.3, by = 'pad', press = 'sprint' }\n"
    budget += "top_speed_m_s = { max = 2, press = 'slow' }\n"
    budget += "stop_time_s = { max = 9, by = 'touch' }\n"
    found = [
        one for one in check(profile_from_text(HEAD + BOTH + GAIT + budget), prove=False) if one.slug == "over-budget"
    ]
    assert [one.where for one in found] == ["budget.reach90_s", "budget.stop_time_s"]
    assert "0.405" in found[0].measured
    assert 'no such device in mode "m": "touch"' in found[1].measured


@pytest.mark.long
def test_how_the_view_answers():
    """By hand: half of a swipe after one half-life, whatever its gain; a rate that eases in over 0.3 s is at 90 % of
    itself after 0.27 s, and in half of that where a stick gives half at most; the rim adds a quarter.
    """
    stick = f"stick = 'pad.right_stick'\n{ZONE}yaw_deg_s = 200\npitch_deg_s = 50\n"
    mouse = "mouse = 'mouse.move'\ncm_per_turn = 40\npitch_ratio = 0.2\nhalf_life_s = 0.08\n"
    gain = "hand_gain = { from_cm_s = 5, slow = 0.5, to_cm_s = 50, fast = 2 }\n"
    finger = "touch_drag = 'left half'\ndeg_per_width = 140\nhalf_life_s = 0.03\n"
    look = "[[mode.m.look.bind]]\n"
    text = f"{BIND}stick = 'pad.left_stick'\n{ZONE}"
    for ceiling in (1.0, 0.5):
        eased = f"{stick}ease_s = 0.3\nrim_boost = 0.25\ncurve = {{ form = 'linear', ceiling = {ceiling} }}\n"
        sheet = measured(text + look + eased.replace(ZONE, "dead_zone = { form = 'none' }\n") + look + mouse + gain)
        assert sheet.swipe_delay_s == pytest.approx(0.08, abs=1e-6)
        assert sheet.look_reach90_s == pytest.approx(0.27 * ceiling, abs=1e-6)
        assert sheet.look_deg_s_rim == pytest.approx(250.0 * ceiling)
        assert sheet.look_pitch_ratio == pytest.approx(0.2)
    shortest = measured(text + look + mouse.replace("0.08", "1e-9") + look + stick + "ease_s = 1e-9\n")
    assert (shortest.swipe_delay_s, shortest.look_reach90_s) == (pytest.approx(0.0, abs=1e-8),) * 2
    sheet = measured(text + look + finger + look + stick)
    assert (sheet.swipe_delay_s, sheet.finger_deg_per_width) == (pytest.approx(0.03, abs=1e-6), 140.0)
    assert (sheet.look_reach90_s, sheet.look_deg_s_rim, sheet.look_pitch_ratio) == (0.0, None, pytest.approx(0.25))
    keys = "keys = { right = ['KeyE'], left = ['KeyQ'] }\nturns = 'yaw'\nease_s = 0.2\n"
    sheet = measured(text + look + keys)
    assert (sheet.look_reach90_s, sheet.look_pitch_ratio) == (pytest.approx(0.18, abs=1e-6), None)


def test_a_tapped_jump_and_steering_in_the_air():
    """v² / 2g of a jump of 1.6 m under 20 m/s²; after 0.1 s of it a quarter of the speed is left. In the air 0.9 of
    4 m/s at 6 m/s², and 4 m/s at 2.5 m/s²; where nothing moves it there, that is said.
    """
    jump = "jump = { press = 'jump', height_m = 1.6, early_release_ratio = 0.25 }\n"
    press = "[mode.m.press]\njump = { bind = ['Space'] }\n"
    gait = f"[gait.hop]\ntop_speed_m_s = 4\ngravity_m_s2 = 20\n{jump}"
    text = f"[mode.m]\ngait = 'hop'\n{BIND}keys = {{ forward = ['KeyW'], back = ['KeyS'] }}\n{press}{gait}"
    start = math.sqrt(2.0 * 20.0 * 1.6)
    risen, left = start * 0.1 - 10.0 * 0.1**2, 0.25 * (start - 2.0)
    sheet = measured(text + "airborne = { accel_m_s2 = 6, brake_m_s2 = 2.5 }\n")
    assert sheet.jump_height_m == pytest.approx(1.6, abs=1e-4)
    assert sheet.jump_tap_height_m == pytest.approx(risen + left**2 / 40.0, abs=1e-3)
    assert (sheet.air_reach90_s, sheet.air_stop_time_s) == (
        pytest.approx(0.9 * 4.0 / 6.0, abs=1e-6),
        pytest.approx((4.0 - 1e-3) / 2.5, abs=1e-6),
    )
    # However it begins, it is released as long after that, to a tick of 1 ms; what a release does not end is not cut.
    for style, height_m in (("long", sheet.jump_tap_height_m), ("double", sheet.jump_tap_height_m), ("toggle", 1.6)):
        styled = measured(text.replace("['Space']", f"['Space'], style = '{style}'"), only=["jump_tap_height_m"])
        assert styled.jump_tap_height_m == pytest.approx(height_m, abs=6e-3), style
    kept = measured(text + "airborne = { accel_m_s2 = 0, brake_m_s2 = 0 }\n")
    assert str(kept.reasons["air_reach90_s"]) == "in the air it does not get that fast"
    assert str(kept.reasons["air_stop_time_s"]) == "in the air it does not come to rest"
    same = measured(text.replace("early_release_ratio", "apex_s = 0.4, early_release_ratio").replace("0.25", "1"))
    assert same.jump_tap_height_m == pytest.approx(same.jump_height_m)
    assert str(same.reasons["air_reach90_s"]) == "in the air a body steers as on the ground"
