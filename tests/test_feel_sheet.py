"""The feel sheet against closed forms."""

import functools
import json
import math

import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from few_of_many import few_of
from wendonic import Helm
from wendonic.cli.main import app
from wendonic.demo import FOLDER, demo_profile
from wendonic.pictures import draw_stick
from wendonic.profile.load import profile_from_text
from wendonic.study.feel_sheet import FeelSheet, measure
from wendonic.study.quantities import QUANTITIES
from wendonic.study.unmeasured import NotHere, Unmeasured

HEAD = 'format = "wendonic-profile"\nversion = 1\n'
KEYS = 'keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }\n'
GAIT = "[gait.walk]\ntop_speed_m_s = 4\naccel_m_s2 = 8\nbrake_m_s2 = 16\n"
CRISP = HEAD + f"[mode.m.move]\nhalf_life_s = 0\n[[mode.m.move.bind]]\n{KEYS}rise_s = 0\nfall_s = 0\n"


def measured(profile, mode=None):
    """Measure interpreted: the numbers are the same, and nothing has to be compiled."""
    return measure(profile, mode, engine="interpreted")


def test_without_shaping_the_answers_are_those_of_the_gait():
    """v = a t, v² / 2b, and both one after the other."""
    sheet = measured(profile_from_text(CRISP + GAIT))
    assert sheet.first_response_s == 0.0
    assert sheet.reach90_s == pytest.approx(0.9 * 4.0 / 8.0, abs=1e-9)
    assert sheet.stop_time_s == pytest.approx((4.0 - 0.001) / 16.0, abs=1e-9)
    assert sheet.stop_distance_m == pytest.approx(4.0**2 / 32.0, abs=1e-9)
    assert sheet.reversal_s == pytest.approx(4.0 / 16.0 + 0.9 * 4.0 / 8.0, abs=1e-9)
    assert sheet.diagonal_ratio == pytest.approx(1.0)
    assert sheet.speed_spread_keys == pytest.approx(0.0, abs=1e-9)
    assert sheet.tick_dependence == pytest.approx(0.0, abs=1e-9)
    assert sheet.top_speed_m_s == pytest.approx(4.0)
    # Speeding up for 0.1 s, then braking: a t² / 2, and (a t)² / 2b.
    assert sheet.tap_distance_m == pytest.approx(0.5 * 8.0 * 0.01 + 0.8**2 / 32.0, abs=1e-9)
    assert sheet.tap_dependence == pytest.approx(0.0, abs=1e-9)
    # What the profile does not have.
    names = "speed_spread_stick dead_share first_tilt quarter_steps_8bit mouse_deg_per_10cm look_first_tilt".split()
    assert [getattr(sheet, name) for name in names] == [None] * 6
    assert all(isinstance(sheet.reasons[name], NotHere) for name in names)


def tapped(profile, hz, axis="pos_y"):
    """Return how far a tap of 0.1 s goes (m) under a helm that ticks `hz` times a second."""
    helm = Helm(profile)
    for tick in range(3 * hz):
        if tick in (0, hz // 10):
            helm.key("KeyW", down=tick == 0)
        intent = helm.tick(1.0 / hz)
    return getattr(intent.motion, axis)


def test_a_tap_goes_as_far_as_with_the_helm_and_its_tick_dependence_is_reported():
    profile = profile_from_text(CRISP.replace("rise_s = 0\nfall_s = 0", "rise_s = 0.06\nfall_s = 0.04") + GAIT)
    smooth = profile.changed({"mode.m.move.half_life_s": 0.01})
    for one, least, most in ((profile, 0.0, 1e-9), (smooth, 1e-4, 0.05)):
        sheet = measured(one)
        assert sheet.tap_distance_m == pytest.approx(tapped(one, 20_000), rel=0.01)
        distances = [tapped(one, hz) for hz in (30, 70, 160)]
        assert sheet.tap_dependence == pytest.approx(1.0 - min(distances) / max(distances), abs=1e-9)
        assert least <= sheet.tap_dependence <= most


def tapped_in_small_steps(rise_s, fall_s, half_life_s, speed_after, dt=5e-5):
    """Return how far a tap of 0.1 s goes (m), by an independent simulation of key, smoothing and body."""
    key = smooth = speed = way = 0.0
    for step in range(round(3.0 / dt)):
        held = step < round(0.1 / dt)
        time_s = rise_s if held else fall_s
        key = float(held) if time_s == 0.0 else min(max(key + (dt if held else -dt) / time_s, 0.0), 1.0)
        smooth += (key - smooth) * (1.0 - 0.5 ** (dt / half_life_s) if half_life_s else 1.0)
        wanted = 3.2 * (smooth if held or smooth > 1e-3 else 0.0)
        now = speed_after(speed, wanted, dt)
        way += 0.5 * (speed + now) * dt
        speed = now
    return way


def rates(speed, wanted, dt):
    return min(speed + 22.0 * dt, wanted) if wanted > speed else max(speed - 30.0 * dt, wanted)


def slow_rates(speed, wanted, dt):
    return min(speed + 4.0 * dt, wanted) if wanted > speed else max(speed - 9.0 * dt, wanted)


def drag(speed, wanted, dt):
    return wanted + (speed - wanted) * math.exp(-6.25 * dt)


@pytest.mark.parametrize(("gait", "speed_after"), [("", rates), ("thrust_m_s2 = 20\ndrag_per_s = 6.25", drag)])
@pytest.mark.parametrize(
    ("rise_s", "fall_s", "half_life_s", "share"),
    [
        (0.06, 0.04, 0.0, 5e-4),
        pytest.param(0.06, 0.0, 0.0, 5e-4, marks=pytest.mark.long),
        pytest.param(0.0, 0.04, 0.0, 5e-4, marks=pytest.mark.long),
        (0.3, 0.2, 0.0, 5e-4),
        # A half-life bends what is taken as two straight runs.
        (0.0, 0.0, 0.02, 0.03),
        (0.06, 0.04, 0.02, 0.03),
    ],
)
def test_a_tap_goes_equally_far_at_every_tick_rate_through_ramps_and_smoothing(
    gait, speed_after, rise_s, fall_s, half_life_s, share
):
    text = f"{HEAD}[mode.m.move]\nhalf_life_s = {half_life_s}\n[[mode.m.move.bind]]\n{KEYS}rise_s = {rise_s}\n"
    profile = profile_from_text(f"{text}fall_s = {fall_s}\n[gait.walk]\n{gait}\n")
    expected = tapped_in_small_steps(rise_s, fall_s, half_life_s, speed_after)
    share = min(share, 1e-3) if speed_after is drag else share
    for hz in (20, 30, 60, 140, 1000):
        assert tapped(profile, hz) == pytest.approx(expected, rel=share), hz


def cornered(profile, hz):
    """Return where a body ends (m) that goes back for 0.2 s, then left for 0.2 s, and comes to rest."""
    helm = Helm(profile)
    for tick in range(hz):
        for key, first_s, last_s in (("KeyS", 0.0, 0.2), ("KeyA", 0.2, 0.4)):
            if tick in (round(first_s * hz), round(last_s * hz)):
                helm.key(key, down=tick == round(first_s * hz))
        motion = helm.tick(1.0 / hz).motion
    return motion.pos_x, motion.pos_y


@functools.cache
def cornered_in_small_steps(rise_s, fall_s, half_life_s, accel_m_s2, brake_m_s2, dt=5e-5):
    """Return the same (m) by an independent simulation: the velocity heads for what is wanted, at its two rates."""
    keys, smooth, velocity, place = 0j, 0j, 0j, 0j
    share = 1.0 - 0.5 ** (dt / half_life_s) if half_life_s else 1.0

    def ramped(key, held):
        ramp_s, left = rise_s if held else fall_s, held - key
        return key + min(max(left, -dt / ramp_s), dt / ramp_s) if ramp_s else held

    for step in range(round(1.0 / dt)):
        t = step * dt
        keys = complex(ramped(keys.real, -float(0.2 <= t < 0.4)), ramped(keys.imag, -float(t < 0.2)))
        smooth += (keys / max(abs(keys), 1.0) - smooth) * share
        way = 4.0 * smooth * (t < 0.4 or abs(smooth) > 1e-3) - velocity
        rate_m_s2 = brake_m_s2 if (velocity.conjugate() * way).real < 0.0 else accel_m_s2
        place += velocity * dt
        velocity += way * min(1.0, rate_m_s2 * dt / abs(way)) if way else 0.0
    return place.real, place.imag


@pytest.mark.parametrize(
    ("rise_s", "fall_s", "half_life_s"), [(0.06, 0.04, 0.0), (0.147, 0.093, 0.0), (0.0, 0.0, 0.05)]
)
@pytest.mark.parametrize("frame", ["camera", "facing"])
def test_a_corner_is_walked_alike_at_every_tick_rate_through_ramps_and_smoothing(frame, rise_s, fall_s, half_life_s):
    text = f"{HEAD}[mode.m]\nsteer = {{ frame = '{frame}' }}\n[mode.m.move]\nhalf_life_s = {half_life_s}\n"
    text += f"[[mode.m.move.bind]]\n{KEYS}rise_s = {rise_s}\nfall_s = {fall_s}\n"
    profile = profile_from_text(f"{text}[gait.walk]\ntop_speed_m_s = 4\naccel_m_s2 = 14\nbrake_m_s2 = 20\n")
    expected = cornered_in_small_steps(rise_s, fall_s, half_life_s, 14.0, 20.0)
    for hz in (30, 60, 70, 140, 1000):
        assert cornered(profile, hz) == pytest.approx(expected, abs=4e-3), hz


@pytest.mark.parametrize(
    ("frame", "channel", "sides", "axis"),
    [("drive", "throttle", ("forward", "back"), "pos_y"), ("fly", "rise", ("up", "down"), "pos_z")],
)
@pytest.mark.parametrize(("gait", "speed_after"), [("", rates), ("accel_m_s2 = 4\nbrake_m_s2 = 9", slow_rates)])
def test_a_tap_of_a_channel_that_ramps_goes_equally_far_at_every_tick_rate(
    frame, channel, sides, axis, gait, speed_after
):
    one, other = sides
    keys = f"keys = {{ {one} = ['KeyW'], {other} = ['KeyS'] }}\nrise_s = 0.15\nfall_s = 0.1\n"
    steer = f"[mode.m]\nsteer = {{ frame = '{frame}' }}\n"
    gait += "\nrise_m_s = 3.2" if channel == "rise" else ""
    profile = profile_from_text(f"{HEAD}{steer}[[mode.m.{channel}.bind]]\n{keys}[gait.walk]\n{gait}\n")
    expected = tapped_in_small_steps(0.15, 0.1, 0.0, speed_after)
    for hz in (20, 30, 60, 70, 140, 1000):
        assert tapped(profile, hz, axis) == pytest.approx(expected, rel=4e-3), hz


@pytest.mark.parametrize("hz", [20, 30, 60, 70, 160, 1000])
def test_a_landing_counts_from_its_moment_at_every_tick_rate(hz):
    """Slowly in the air, quickly from the landing on: a t² / 2, and v t + a t² / 2."""
    gait = "top_speed_m_s = 12\naccel_m_s2 = 20\nairborne = { accel_m_s2 = 4 }\ngravity_m_s2 = 20\n"
    text = f"{HEAD}[mode.m.press]\njump = {{ bind = ['Space'] }}\n[[mode.m.move.bind]]\n{KEYS}"
    helm = Helm(profile_from_text(f"{text}[gait.walk]\n{gait}jump = {{ height_m = 1 }}\n"))
    helm.key("KeyW", down=True)
    helm.key("Space", down=True)
    for _ in range(hz):
        motion = helm.tick(1.0 / hz).motion
    air_s = 2.0 * math.sqrt(2.0 * 20.0) / 20.0
    ground_s = 1.0 - air_s
    expected = 2.0 * air_s**2 + 4.0 * air_s * ground_s + 10.0 * ground_s**2
    assert motion.pos_y == pytest.approx(expected, abs=7e-3)
    assert motion.pos_z == 0.0


@pytest.mark.parametrize(
    ("gait", "distance_m"),
    [
        ("", 2.2 * 0.05 + 2.2**2 / 60.0),
        ("accel_m_s2 = 300\nbrake_m_s2 = 200", 3.2 * 0.1 - 3.2**2 / 600.0 + 3.2**2 / 400.0),
        ("thrust_m_s2 = 20\ndrag_per_s = 4", 20.0 / 4.0 * 0.1),
        ("coast_half_life_s = 0.1", 2.2 * 0.05 + (2.2 - 0.02) * 0.1 / math.log(2.0)),
    ],
)
@pytest.mark.parametrize("hz", [20, 30, 60, 140, 1000])
def test_by_default_a_tap_goes_equally_far_at_every_tick_rate(gait, distance_m, hz):
    """Speeding up for 0.1 s, then slowing down: by rates; against drag thrust / drag; by a half-life to 2 cm/s."""
    profile = profile_from_text(f"{HEAD}[[mode.m.move.bind]]\n{KEYS}[gait.walk]\n{gait}\n")
    # What drag leaves after three seconds is exp(-11.6) of it.
    assert tapped(profile, hz) == pytest.approx(distance_m, rel=1e-5)


TIMES_S = st.sampled_from([0.0, 0.02, 0.05, 0.1, 0.3])
GAITS = [
    "",
    "accel_m_s2 = 5",
    "brake_m_s2 = 100",
    "coast_half_life_s = 0.1",
    "reverse_m_s2 = 5",
    "keeps_speed = true",
]


SMOOTHING = ["", "half_life_s = 0.005", "half_life_s = 0.01", "half_life_s = 0.05"]
SMOOTHING += [f"one_euro = {{ min_cutoff_hz = {hz}, beta = 0.1, d_cutoff_hz = 1 }}" for hz in (1, 10)]


@settings(max_examples=40, deadline=None)
@pytest.mark.long
@example(rise_s=0.05, fall_s=0.0, smoothing="half_life_s = 0.01", gait="")
@example(rise_s=0.0, fall_s=0.0, smoothing=SMOOTHING[-1], gait="")
@given(rise_s=TIMES_S, fall_s=TIMES_S, smoothing=st.sampled_from(SMOOTHING), gait=st.sampled_from(GAITS))
def test_no_ramp_and_no_smoothing_makes_a_tap_depend_on_ticks_by_more_than_the_guide_says(
    rise_s, fall_s, smoothing, gait
):
    text = f"{HEAD}[mode.m.move]\n{smoothing}\n[[mode.m.move.bind]]\n{KEYS}rise_s = {rise_s}\n"
    profile = profile_from_text(f"{text}fall_s = {fall_s}\n[gait.walk]\n{gait}\n")
    assert (measure(profile, engine="interpreted", only=["tap_dependence"]).tap_dependence or 0.0) < 0.08


def test_a_cart_is_measured_by_its_throttle_as_fast_back_as_it_goes():
    cart = (
        "[mode.m]\nsteer = { frame = 'drive', reverse_ratio = 0.5 }\n"
        "[[mode.m.throttle.bind]]\nkeys = { forward = ['KeyW'], back = ['KeyS'] }\nrise_s = 0\nfall_s = 0\n"
        "[[mode.m.turn.bind]]\nkeys = { right = ['KeyD'], left = ['KeyA'] }\n"
    )
    sheet = measured(profile_from_text(HEAD + cart + GAIT))
    assert sheet.reach90_s == pytest.approx(0.9 * 4.0 / 8.0, abs=2e-4)
    assert sheet.stop_distance_m == pytest.approx(4.0**2 / 32.0, abs=1e-4)
    assert sheet.reversal_s == pytest.approx(4.0 / 16.0 + 0.9 * 2.0 / 8.0, abs=2e-4)
    assert sheet.tick_dependence < 0.01
    assert sheet.diagonal_ratio is None


@pytest.mark.parametrize("gate", ["circle", "square"])
def test_a_stick_at_its_rim_is_as_fast_in_the_corners_of_a_square_gate(gate):
    stick = f'[[mode.m.move.bind]]\nstick = "pad.left_stick"\ngate = "{gate}"\n'
    assert measured(profile_from_text(HEAD + stick)).speed_spread_stick == pytest.approx(0.0, abs=1e-9)


@pytest.mark.parametrize("frame", few_of(["map", "goto"], ["map"]))
def test_seen_from_the_side_the_sheet_is_that_of_walking_forward(frame):
    """Right for forward, left for back: what has a meaning there is the same, the rest is missing."""
    stick = '[[mode.m.move.bind]]\nstick = "pad.left_stick"\n'
    two = 'keys = { right = ["KeyD"], left = ["KeyA"] }\n'
    move = "[mode.m.move]\nhalf_life_s = 0.03\n[[mode.m.move.bind]]\n"
    side = f'[mode.m]\nsteer = {{ frame = "{frame}", side_view = true, sectors = 2 }}\n{move}{two}{stick}{GAIT}'
    seen = measured(profile_from_text(f'{HEAD}[world]\nright = "+x"\nup = "-y"\n{side}'))
    level = measured(profile_from_text(f'{HEAD}[mode.m]\nsteer = {{ frame = "map" }}\n{move}{KEYS}{stick}{GAIT}'))
    needs_a_plane = {"diagonal_ratio", "speed_spread_keys", "speed_spread_stick", "direction_error_deg"}
    needs_a_plane |= {"facing_lag_deg", "tick_dependence", "dead_share", "sector_flicker_per_min", "turn_round_s"}
    # Of two frames, one goes to places.
    needs_a_plane |= {name for name in QUANTITIES if name.startswith("goal_")}
    for name in QUANTITIES.keys() - needs_a_plane:
        assert seen[name] == pytest.approx(level[name]), name
    assert [name for name in sorted(needs_a_plane) if seen[name] is not None and not name.startswith("goal_")] == [
        "dead_share",
        "sector_flicker_per_min",
        "tick_dependence",
        "turn_round_s",
    ]
    assert seen.sector_flicker_per_min == 0.0
    assert seen.tick_dependence < 0.01
    # Upright within a wedge of its own the stick asks for nothing either: the disc's share of |x| <= 0.14 |y|, at
    # least, beside the middle.
    assert seen.dead_share == pytest.approx(level.dead_share + 2.0 * math.atan(0.14) / math.pi, abs=0.02)


@pytest.mark.parametrize(
    ("above", "paces", "first", "begins"),
    [(0.0, "[{ above = 0, amount = 0.45 }, { above = 0.7, amount = 1 }]", 0.14, 0.7)],
)
def test_paces_leave_a_stick_no_quarter_of_speed_and_no_slope(above, paces, first, begins):
    stick = '[[mode.m.move.bind]]\nstick = "pad.left_stick"\ndead_zone = { inner = 0.14, outer = 0.96 }\n'
    text = f"{HEAD}[mode.m.move]\npaces = {paces}\n{stick}curve = {{ form = 'linear' }}\n"
    sheet = measured(profile_from_text(text))
    assert (sheet.quarter_steps_8bit, sheet.quarter_steps_16bit, sheet.small_tilt_slope) == (None, None, None)
    assert sheet.first_tilt == pytest.approx(first + above, abs=1e-6)
    *_, curve, _ = draw_stick(profile_from_text(text))
    tilt = first + begins * 0.82
    assert curve.get_title(loc="left").split() == f"0.45 from tilt 0.14, 1 from tilt {tilt:.2f}".split()


@pytest.mark.long
def test_a_slow_gait_is_waited_for_and_one_that_is_too_slow_says_so():
    slow = measured(profile_from_text(CRISP + GAIT.replace("= 4", "= 900").replace("= 8", "= 2")))
    assert slow.reach90_s == pytest.approx(0.9 * 900.0 / 2.0, rel=1e-3)
    assert slow.diagonal_ratio == pytest.approx(1.0, abs=1e-6)
    never = measured(profile_from_text(CRISP + GAIT.replace("= 4", "= 900").replace("= 8", "= 0.5")))
    names = ("reach90_s", "stop_distance_m", "reversal_s", "diagonal_ratio")
    assert [never[name] for name in names] == [None] * 4
    for name in names:
        assert type(never.reasons[name]) is Unmeasured
        assert "held for 600 s" in str(never.reasons[name])


def test_a_free_diagonal_is_41_percent_faster_and_spreads():
    sheet = measured(profile_from_text(CRISP.replace("half_life_s", 'diagonal = "free"\nhalf_life_s') + GAIT))
    assert sheet.diagonal_ratio == pytest.approx(math.sqrt(2.0))
    mean = (1.0 + math.sqrt(2.0)) / 2.0
    assert sheet.speed_spread_keys == pytest.approx(math.sqrt(2.0) / mean - 1.0)


def test_a_ramp_and_a_half_life_cost_their_time():
    """A ramp of 0.2 s asks for v t / 0.2, faster than the gait speeds up; half a step takes a half-life."""
    text = CRISP.replace("rise_s = 0", "rise_s = 0.2") + GAIT.replace("accel_m_s2 = 8", "accel_m_s2 = 1000")
    assert measured(profile_from_text(text)).reach90_s == pytest.approx(0.9 * 0.2, abs=2e-3)
    stick = HEAD + '[mode.m.move]\nhalf_life_s = 0.08\n[[mode.m.move.bind]]\nstick = "pad.left_stick"\n'
    assert measured(profile_from_text(stick)).smoothing_delay_s == pytest.approx(0.08, abs=2e-6)


def test_a_stick_is_measured_on_its_disc():
    """A linear curve from 0.2 to 0.9."""
    zone = "dead_zone = { inner = 0.2, outer = 0.9 }\ncurve = { form = 'linear' }\n"
    text = HEAD + f'[[mode.m.move.bind]]\nstick = "pad.left_stick"\n{zone}'
    text += f'[[mode.m.look.bind]]\nstick = "pad.right_stick"\nyaw_deg_s = 140\n{zone}'
    text += '[[mode.m.look.bind]]\nmouse = "mouse.move"\ncm_per_turn = 20\ndpi = 400\n'
    sheet = measured(profile_from_text(text))
    assert sheet.dead_share == pytest.approx(0.2**2, rel=0.03)
    assert sheet.first_tilt == pytest.approx(0.2)
    assert sheet.small_tilt_slope == pytest.approx(1.0 / 0.7)
    for steps, found in ((127, sheet.quarter_steps_8bit), (32767, sheet.quarter_steps_16bit)):
        tilts = np.arange(1, steps + 1) / steps
        assert found == ((tilts > 0.2) & (tilts <= 0.2 + 0.25 * 0.7)).sum()
    assert sheet.look_deg_s_half_tilt == pytest.approx(140.0 * 0.3 / 0.7)
    assert (sheet.look_deg_s_full_tilt, sheet.look_first_tilt) == (140.0, pytest.approx(0.2))
    assert sheet.mouse_deg_per_10cm == pytest.approx(180.0)
    assert sheet.speed_spread_stick == pytest.approx(0.0, abs=1e-9)


def test_the_command_prints_and_writes_what_the_library_measures(tmp_path, capsys):
    def run(*words):
        with pytest.raises(SystemExit) as end:
            app([str(word) for word in words], prog_name="wendonic")
        return end.value.code, capsys.readouterr().out

    path = FOLDER / "beekeeper.toml"
    sheet = measure(demo_profile())
    code, out = run("measure", path, "--json")
    assert code == 0
    content = json.loads(out)
    assert (content["format"], content["version"], content["mode"], content["by"]) == (
        "wendonic-values",
        1,
        "foot",
        "keys",
    )
    assert FeelSheet({name: one["value"] for name, one in content["values"].items()}) == sheet
    for name, one in content["values"].items():
        assert (one["unit"], one["definition"]) == (QUANTITIES[name].unit, QUANTITIES[name].definition)
        assert ("missing" in one) == (one["value"] is None)
    assert content["values"]["climb_m_s"]["missing"] == {"reason": "nothing flies", "in_mode": False}
    assert run("measure", path, "-o", tmp_path / "sheet.json")[1].endswith(f"\nwrote {tmp_path / 'sheet.json'}\n")
    assert json.loads((tmp_path / "sheet.json").read_text()) == content
    table = run("measure", path)[1]
    for name in QUANTITIES:
        assert name in table
    assert f"{sheet.reach90_s:.4g}" in table


STICK = '[[mode.m.move.bind]]\nstick = "pad.left_stick"\n'
EVEN = STICK + 'dead_zone = { form = "none" }\ncurve = { form = "linear" }\n'


DIRECTIONS = [
    # Pulled all the way to 8 directions, what lies between two of them is off by half a step.
    ("half_life_s = 0\nnotches = 8\nnotch_pull = 1", "{}", "direction_error_deg", 22.5),
    ("half_life_s = 0\nnotches = 5\nnotch_pull = 1", "{}", "direction_error_deg", 36.0),
    ("half_life_s = 0", "{}", "direction_error_deg", 0.0),
    # A low pass of first order lags by atan(w tau), tau = half-life / ln 2, w = pi rad/s.
    ("half_life_s = 0.1", "{}", "facing_lag_deg", math.degrees(math.atan(math.pi * 0.1 / math.log(2.0)))),
    ("half_life_s = 0.02", "{}", "facing_lag_deg", math.degrees(math.atan(math.pi * 0.02 / math.log(2.0)))),
    ("half_life_s = 0", "{}", "facing_lag_deg", 0.0),
    # 90 deg/s cannot follow 180.
    ("", "{ turn_deg_s = 90 }", "facing_lag_deg", 180.0),
    # Each of the 8 steps of 45 deg takes 45 / w: 45² / 2w of arrears in each quarter of a second.
    (
        "notches = 8\nnotch_pull = 1\nnotch_margin_deg = 0",
        "{ turn_deg_s = 900 }",
        "facing_lag_deg",
        45.0**2 / 1800.0 / 0.25,
    ),
    ("", '{ frame = "fly" }', "facing_lag_deg", 0.0),
    ("", '{ face = "hold" }', "facing_lag_deg", None),
    ("", "{ sectors = 8 }", "sector_flicker_per_min", 0.0),
    ("", "{}", "sector_flicker_per_min", None),
    # A stick that rests at (0.03, 0.02) walks off at that share of 4 m/s.
    ("", "{}", "rest_drift_m_per_min", math.hypot(0.03, 0.02) * 4.0 * 60.0),
]


@pytest.mark.parametrize(("move", "steer", "row", "expected"), few_of(DIRECTIONS, DIRECTIONS[::2]))
def test_directions_lags_and_drift(move, steer, row, expected):
    profile = profile_from_text(f"{HEAD}[mode.m]\nsteer = {steer}\n[mode.m.move]\n{move}\n{EVEN}{GAIT}")
    found = getattr(measured(profile), row)
    # Nothing is 0, not what rounding leaves of it.
    within = 0.0 if expected == 0.0 else 1e-6
    assert found is None if expected is None else found == pytest.approx(expected, rel=1e-3, abs=within)


def test_a_facing_without_a_margin_flickers():
    profile = profile_from_text(f"{HEAD}[mode.m]\nsteer = {{ sectors = 4, sector_margin_deg = 0 }}\n{EVEN}{GAIT}")
    assert measured(profile).sector_flicker_per_min > 200.0


@pytest.mark.parametrize(
    ("steer", "expected"),
    [
        # Twice the radius, or twice speed over turn rate where that is wider.
        ("turn_radius_m = 3, turn_deg_s = 360", 6.0),
        ("turn_radius_m = 0.1, turn_deg_s = 90", 2.0 * 4.0 / math.radians(90.0)),
        ("turn_radius_m = 0.1, turn_deg_s = 90, fast_turn_deg_s = 45", 2.0 * 4.0 / math.radians(45.0)),
    ],
)
def test_the_circle_of_a_cart(steer, expected):
    cart = (
        f"[mode.m]\nsteer = {{ frame = 'drive', {steer} }}\n"
        "[[mode.m.throttle.bind]]\nkeys = { forward = ['KeyW'], back = ['KeyS'] }\n"
        "[[mode.m.turn.bind]]\nkeys = { right = ['KeyD'], left = ['KeyA'] }\n"
    )
    assert measured(profile_from_text(HEAD + cart + GAIT)).turn_circle_m == pytest.approx(expected, rel=1e-3)


def test_a_jump_is_measured_as_its_numbers_make_it():
    presses = '[mode.m.press]\njump = { bind = ["key.Space"], buffer_s = 0.12, grace_s = 0.08 }\n'
    gait = GAIT + "gravity_m_s2 = 20\nfall = { gravity_ratio = 4 }\njump = { height_m = 1.6 }\n"
    sheet = measured(profile_from_text(CRISP + presses + gait))
    assert sheet.jump_height_m == pytest.approx(1.6, abs=1e-4)
    # v / g up, and half of that down under four times the gravity.
    assert sheet.jump_airtime_s == pytest.approx(1.5 * math.sqrt(2.0 * 1.6 / 20.0), abs=1e-4)
    assert (sheet.jump_buffer_s, sheet.jump_grace_s) == (pytest.approx(0.12, abs=1e-3), pytest.approx(0.08, abs=1e-3))
    assert sheet.jump_apex_s == pytest.approx(math.sqrt(2.0 * 1.6 / 20.0), abs=1e-3)
    # A jump in the air is neither early nor late.
    twice = measured(profile_from_text(CRISP + presses.replace("buffer_s", "air_jumps = 1, buffer_s") + gait))
    assert (twice.jump_buffer_s, twice.jump_grace_s) == (sheet.jump_buffer_s, sheet.jump_grace_s)
    bare = presses.replace("buffer_s = 0.12, grace_s = 0.08", "air_jumps = 2")
    bare = measured(profile_from_text(CRISP + bare + gait))
    assert (bare.jump_buffer_s, bare.jump_grace_s, bare.jump_height_m) == (0.0, 0.0, sheet.jump_height_m)
    # One that counts when it is released is cut short at once: half of the speed is a quarter of the height.
    tapped = measured(profile_from_text(CRISP + presses.replace("buffer_s", 'style = "tap", buffer_s') + gait))
    assert tapped.jump_height_m == pytest.approx(1.6 / 4.0, abs=1e-3)
    without = measured(profile_from_text(CRISP + presses + GAIT))
    assert (without.jump_height_m, without.jump_airtime_s) == (None, None)
    assert without.jump_buffer_s == pytest.approx(0.12, abs=1e-3)


@pytest.mark.parametrize(
    ("gait", "reach90_s", "stop_distance_m"),
    [
        # ln 10 / drag, and v / drag to rest.
        ("thrust_m_s2 = 12\ndrag_per_s = 3", math.log(10.0) / 3.0, 4.0 / 3.0),
        ("top_speed_m_s = 4\naccel_m_s2 = 1e5\ncoast_half_life_s = 0.2", 3.6e-5, 3.98 * 0.2 / math.log(2.0)),
    ],
)
def test_gaits_of_other_forms_are_measured_by_their_closed_forms(gait, reach90_s, stop_distance_m):
    sheet = measured(profile_from_text(f"{CRISP}[gait.walk]\n{gait}\n"))
    assert sheet.reach90_s == pytest.approx(reach90_s, abs=3e-5)
    assert sheet.stop_distance_m == pytest.approx(stop_distance_m, abs=1e-4)
