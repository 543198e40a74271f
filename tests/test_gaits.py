"""Gaits against closed forms and SciPy: drag, coasting, reversal, turns, air, jumps; walls and steps of a course."""

import itertools
import math
import random

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import solve_ivp

from conftest import HEAD, KEYS
from wendonic import Event, Helm, ProfileError, Recording, shape
from wendonic.course.course import Course
from wendonic.kernels.body.fall import NO_FALL, FallTuning, fallen
from wendonic.kernels.body.gait import COAST_ENDS_M_S, PLAIN_GAIT, against_drag, coasting, stride, with_forms
from wendonic.kernels.vector import ZERO3, Vec3
from wendonic.profile.load import profile_from_text
from wendonic.study.feel_sheet import measure

TOP, GRAVITY = 4.0, 20.0
SHARP = "[mode.m.move]\nhalf_life_s = 0\n[[mode.m.move.bind]]\n" + KEYS + "\nrise_s = 0\nfall_s = 0\n"
JUMPS = '[mode.m.press]\njump = { bind = ["key.Space"], buffer_s = 0.1, grace_s = 0.1 }\n'
HOP = "top_speed_m_s = 4\naccel_m_s2 = 1e5\nbrake_m_s2 = 1e5\ngravity_m_s2 = 20\n"


def profile_with(gait, mode="", presses="", steer='{ frame = "map" }', more=""):
    mode = f'[mode.m]\ngait = "own"\nsteer = {steer}\n{mode}\n'
    return profile_from_text(f"{HEAD}{mode}{SHARP}{presses}[gait.own]\n{gait}\n{more}")


def course_of(**content):
    return Course.model_validate({"format": "wendonic-course", "version": 1, **content})


def flat(back_m, forward_m, height_m):
    return {
        "form": "flat",
        "left_m": -9,
        "right_m": 9,
        "back_m": back_m,
        "forward_m": forward_m,
        "height_m": height_m,
    }


def run(helm, seconds, hz=100):
    for _ in range(round(seconds * hz)):
        intent = helm.tick(1.0 / hz)
    return intent


part = st.floats(-9.0, 9.0)
vector = st.tuples(part, part, part)


@given(vector, vector, st.floats(0.1, 20.0), st.floats(0.001, 2.0))
def test_drag_is_the_solution_of_its_equation(vel, wanted, drag, dt):
    def slope(_, state):
        return [*state[3:], *(drag * (want - now) for want, now in zip(wanted, state[3:], strict=True))]

    solved = solve_ivp(slope, (0.0, dt), [0.0, 0.0, 0.0, *vel], rtol=1e-9, atol=1e-11).y[:, -1]
    after = against_drag(Vec3(*vel), Vec3(*wanted), drag, dt)
    assert (*after.displacement, *after.velocity) == pytest.approx(tuple(solved), abs=1e-6)


@given(vector, st.floats(0.05, 2.0), st.lists(st.floats(0.001, 0.5), min_size=1, max_size=6))
def test_coasting_goes_equally_far_however_its_time_is_cut_and_ends(vel, half_life_s, dts):
    rest = (0.0, 0.0, 0.0)
    vel = Vec3(*vel)
    whole = coasting(vel, ZERO3, half_life_s, sum(dts))
    now, moved = vel, np.zeros(3)
    for dt in dts:
        after = coasting(now, ZERO3, half_life_s, dt)
        now, moved = after.velocity, moved + after.displacement
    assert now == pytest.approx(whole.velocity, abs=1e-9)
    assert tuple(moved) == pytest.approx(whole.displacement, abs=1e-9)
    speed = math.dist(vel, rest)
    all_of_it = coasting(vel, ZERO3, half_life_s, 100.0 * half_life_s)
    assert all_of_it.velocity == rest
    # v half_life / ln 2 from the speed where it stands still.
    expected = max(speed - COAST_ENDS_M_S, 0.0) * half_life_s / math.log(2.0)
    assert math.dist(all_of_it.displacement, rest) == pytest.approx(expected, abs=1e-9)


@given(vector, vector, st.floats(0.0, 1.0), st.booleans(), st.floats(0.0001, 0.5))
def test_no_gait_ever_speeds_up_beyond_what_it_has_or_wants(vel, wanted, loss, in_air, dt):
    rest = (0.0, 0.0, 0.0)
    for forms in (
        PLAIN_GAIT._replace(loses=1, turn_loss=loss),
        PLAIN_GAIT._replace(loses=1, turn_loss=loss, drags=1, drag_per_s=4.0),
        PLAIN_GAIT._replace(loses=1, turn_loss=loss, coasts=1, coast_half_life_s=0.2),
    ):
        after = stride(with_forms(forms), in_air, Vec3(*vel), Vec3(*wanted), dt)
        assert math.dist(after.velocity, rest) <= max(math.dist(vel, rest), math.dist(wanted, rest)) + 1e-9


@pytest.mark.parametrize(
    "forms",
    [
        {"reverses": 1, "reverse_m_s2": 45.0},
        {"reverses": 1, "reverse_m_s2": 3.0},
        {"keeps": 1},
        {"keeps": 1, "reverses": 1, "reverse_m_s2": 45.0},
    ],
)
@given(vector, vector, st.lists(st.floats(0.001, 0.5), min_size=2, max_size=6))
def test_a_turn_goes_the_same_way_however_its_time_is_cut(forms, vel, wanted, dts):
    gait = with_forms(PLAIN_GAIT._replace(brake_m_s2=12.0, accel_m_s2=8.0, **forms))
    whole = stride(gait, False, Vec3(*vel), Vec3(*wanted), sum(dts))
    now, moved = Vec3(*vel), np.zeros(3)
    for dt in dts:
        after = stride(gait, False, now, Vec3(*wanted), dt)
        now, moved = after.velocity, moved + after.displacement
    assert now == pytest.approx(whole.velocity, abs=1e-6)
    assert tuple(moved) == pytest.approx(whole.displacement, abs=1e-6)


@pytest.mark.parametrize("turn_deg", [30, 90, 135, 180])
def test_kept_speed_falls_only_against_a_request_that_points_backwards(turn_deg):
    """Half a tilt turns a body of 4 m/s on an arc of v² / a = 2 m; from behind it first takes what is against it."""
    bind = 'stick = "pad.left_stick"\ndead_zone = { form = "none" }\ncurve = { form = "linear" }\n'
    mode = f"[mode.m]\nsteer = {{ frame = 'map' }}\n[mode.m.move]\nhalf_life_s = 0\n[[mode.m.move.bind]]\n{bind}"
    gait = "[gait.walk]\ntop_speed_m_s = 4\naccel_m_s2 = 8\nbrake_m_s2 = 8\nkeeps_speed = true\n"
    helm = Helm(profile_from_text(HEAD + mode + gait))
    helm.stick("pad.left_stick", 0.0, -1.0)
    begins = run(helm, 1.0, 60).motion
    turn = math.radians(turn_deg)
    helm.stick("pad.left_stick", 0.5 * math.sin(turn), -0.5 * math.cos(turn))
    # On the line from (0, 4) to the request, the point at right angles to it; the request is what it gets at least.
    backwards = max(-8.0 * math.cos(turn), 0.0)
    square = backwards / (4.0 + backwards)
    left = math.hypot(square * 2.0 * math.sin(turn), 4.0 + square * (2.0 * math.cos(turn) - 4.0))
    after = run(helm, 4.0, 60).motion
    assert math.hypot(*after[3:5]) == pytest.approx(max(left, 2.0), abs=1e-9)
    assert math.degrees(math.atan2(after.vel_x, after.vel_y)) == pytest.approx(turn_deg, abs=1e-6)
    if turn_deg <= 90:
        # r sin ahead on the arc, then straight on for the rest of the time.
        arc_s = turn * 4.0 / 8.0
        ahead = 2.0 * math.sin(turn) + 4.0 * math.cos(turn) * (4.0 - arc_s)
        assert after.pos_y - begins.pos_y == pytest.approx(ahead, abs=1e-6)


@pytest.mark.parametrize(
    ("gait", "seconds", "expected"),
    [
        # thrust / drag (1 - exp(-drag t))
        ("thrust_m_s2 = 12\ndrag_per_s = 3", 0.5, TOP * (1.0 - math.exp(-1.5))),
        ("top_speed_m_s = 4\naccel_m_s2 = 5", 0.5, 2.5),
        ("top_speed_m_s = 4\naccel_m_s2 = 5", 2.0, TOP),
    ],
)
def test_speeding_up(gait, seconds, expected):
    helm = Helm(profile_with(gait))
    helm.key("KeyW", down=True)
    for hz in (30, 144):
        assert run(helm, seconds, hz).motion.vel_y == pytest.approx(expected)
        helm.enter(helm.mode)
        helm = Helm(helm.profile)
        helm.key("KeyW", down=True)


@pytest.mark.parametrize(
    ("gait", "keys", "after_s", "expected"),
    [
        ("brake_m_s2 = 10\nreverse_m_s2 = 40", "", 0.05, 3.5),
        ("brake_m_s2 = 10\nreverse_m_s2 = 40", "KeyS", 0.05, 2.0),
        ("coast_half_life_s = 0.1", "", 0.1, 2.0),
        # A reversal brakes, whatever else coasts.
        ("coast_half_life_s = 0.1\nbrake_m_s2 = 10", "KeyS", 0.1, 3.0),
    ],
)
def test_slowing_down(gait, keys, after_s, expected):
    helm = Helm(profile_with(f"top_speed_m_s = 4\naccel_m_s2 = 1000\n{gait}"))
    helm.key("KeyW", down=True)
    assert run(helm, 1.0).motion.vel_y == TOP
    helm.key("KeyW", down=False)
    if keys:
        helm.key(keys, down=True)
    assert run(helm, after_s).motion.vel_y == pytest.approx(expected)


@pytest.mark.parametrize("loss", [0.0, 0.5, 0.9, 1.0])
@pytest.mark.parametrize("turn_deg", [45.0, 90.0, 180.0])
def test_a_turn_costs_its_share_of_speed_once_at_every_tick_rate(loss, turn_deg):
    """By hand: (1 - loss) to the power of the angle over half a turn; whether it comes at once or bit by bit."""
    expected = TOP * max(1.0 - loss, 1e-3) ** (turn_deg / 180.0)
    slow = "top_speed_m_s = 4\naccel_m_s2 = 0.001\nbrake_m_s2 = 0.001\n"
    stick = 'stick = "pad.left_stick"\ndead_zone = { form = "none" }\n'
    bind = f"[[mode.m.move.bind]]\n{stick}"
    profile = profile_with(f"{slow}turn_loss = {loss}", presses=bind)
    for hz, slowly in itertools.product((30, 60, 144), (False, True)):
        helm = Helm(profile)
        helm.stick("pad.left_stick", 0.0, -1.0)
        helm.place(0.0, 0.0, 0.0, velocity=helm.axes.from_plan(0.0, TOP))
        helm.tick(1 / hz)
        steps = hz if slowly else 1
        for step in range(1, steps + 1):
            angle = math.radians(turn_deg * step / steps)
            helm.stick("pad.left_stick", math.sin(angle), -math.cos(angle))
            helm.tick(1 / hz)
        speed = math.hypot(*run(helm, 0.5, hz).motion[3:5])
        assert speed == pytest.approx(expected, abs=0.01)


@pytest.mark.parametrize("loss", [0.0, 0.5, 0.9, 1.0])
@pytest.mark.parametrize(
    "steer", ['{ frame = "map" }', '{ frame = "camera", slope = {} }', '{ frame = "fly" }', '{ frame = "goto" }']
)
def test_a_straight_reversal_costs_speed_at_once(steer, loss):
    """By hand: what is left of the speed is braked away, then comes top speed back; the loss takes no time."""
    kept = max(1.0 - loss, 1e-3) * TOP
    expected = kept**2 / 16.0 - TOP**2 / 16.0 - TOP * (1.0 - kept / 8.0 - TOP / 8.0)
    for hz in (20, 30, 60, 144):
        gait = f"top_speed_m_s = 4\naccel_m_s2 = 8\nbrake_m_s2 = 8\nturn_loss = {loss}"
        helm = Helm(profile_with(gait, steer=steer))
        helm.key("KeyW", down=True)
        begun = run(helm, 1.0, hz).motion.pos_y
        helm.key("KeyW", down=False)
        helm.key("KeyS", down=True)
        assert run(helm, 1.0, hz).motion.pos_y - begun == pytest.approx(expected, abs=1e-9)


@pytest.mark.parametrize("loses", ["walk", "run"])
def test_a_turn_made_in_another_gait_costs_nothing_later(loses):
    """Who sprinted to the right, and walks ahead now, makes no turn by sprinting ahead."""
    gaits = {"walk": "top_speed_m_s = 4\n", "run": "top_speed_m_s = 6\n"}
    gaits[loses] += "turn_loss = 0.5\n"
    profile = profile_from_text(
        f"{HEAD}[mode.m]\nsteer = {{ frame = 'map' }}\ngait = 'walk'\npress_gaits = {{ sprint = 'run' }}\n"
        f"press.sprint = {{ bind = ['ShiftLeft'] }}\n[[mode.m.move.bind]]\n{KEYS}\n"
        f"[gait.walk]\n{gaits['walk']}[gait.run]\n{gaits['run']}"
    )
    speeds = []
    for before in ((), ("KeyD", "ShiftLeft"), ("KeyD",)):
        helm = Helm(profile)
        for down in (True, False):
            for name in before:
                helm.key(name, down=down)
            run(helm, 1.0)
        helm.key("KeyW", down=True)
        run(helm, 1.0)
        helm.key("ShiftLeft", down=True)
        speeds.append([math.hypot(*helm.tick(1 / 60).motion[3:5]) for _ in range(5)])
    assert speeds[0] == speeds[1] == speeds[2] == sorted(speeds[0])


@pytest.mark.parametrize("half_life_s", [1e-9, 0.005, 0.02])
@pytest.mark.parametrize(
    ("gait", "ramps"),
    [
        ("coast_half_life_s = 0.1\n", "rise_s = 0.05\nfall_s = 0.1\n"),
        ("accel_m_s2 = 1000\nbrake_m_s2 = 2\n", "fall_s = 0.1\n"),
        ("keeps_speed = true\n", 'rise_s = 0.02\nfall_s = 0.1\nreversal = "at_once"\n'),
    ],
)
def test_a_request_that_changes_within_a_tick_makes_no_body_faster(gait, ramps, half_life_s):
    """Ramps behind smoothing, released and pressed at random, in ticks of any length."""
    rng = random.Random(4)
    bind = f"[mode.m.move]\nhalf_life_s = {half_life_s}\n[[mode.m.move.bind]]\n{KEYS}\n{ramps}"
    text = f"{HEAD}[mode.m]\nsteer = {{ frame = 'facing', face = 'travel' }}\n{bind}[gait.walk]\n{gait}"
    helm = Helm(profile_from_text(text))
    for _ in range(400):
        if rng.random() < 0.2:
            helm.key(f"Key{rng.choice('WASD')}", down=rng.random() < 0.6)
        motion = helm.tick(rng.choice([1 / 144, 1 / 60, 1 / 30, 0.09, rng.uniform(0.0, 0.1)])).motion
        assert math.hypot(motion.vel_x, motion.vel_y) <= 3.2 * (1.0 + 1e-9)


def test_a_cart_loses_speed_by_its_lock():
    cart = profile_with("top_speed_m_s = 4\nturn_loss = 0.25", steer='{ frame = "drive" }')
    helm = Helm(cart)
    helm.key("KeyW", down=True)
    helm.key("KeyD", down=True)
    # Steering takes nothing from the throttle by itself.
    assert math.hypot(*run(helm, 3.0).velocity()) == pytest.approx(TOP * (1.0 - 0.25))


# ---- weight --------------------------------------------------------------------------------------------------------


@given(
    st.floats(-20.0, 20.0),
    st.floats(1.0, 50.0),
    st.floats(1.0, 50.0),
    st.floats(1.0, 30.0),
    st.lists(st.floats(0.001, 1.0), min_size=1, max_size=8),
)
def test_a_fall_is_the_same_however_its_time_is_cut(vel_z, rising, falling, terminal, dts):
    tuning = FallTuning(1, rising, falling, terminal, 0.0, 1.0)
    now, way = vel_z, 0.0
    for dt in dts:
        now, moved = fallen(tuning, now, dt)
        way += moved
    assert (now, way) == pytest.approx(fallen(tuning, vel_z, sum(dts)), abs=1e-6)
    assert now >= min(-terminal, vel_z) - 1e-9


HEIGHTS = [
    ("jump = { height_m = 1.25 }", 1.25, math.sqrt(2 * 1.25 / GRAVITY)),
    ("jump = { height_m = 1.2, apex_s = 0.4 }", 1.2, 0.4),
    ("jump = { speed_m_s = 6, apex_s = 0.3 }", 0.9, 0.3),
    ("jump = { speed_m_s = 6 }", 36.0 / 2.0 / GRAVITY, 0.3),
]


@pytest.mark.parametrize(("jump", "height_m", "apex_s"), HEIGHTS)
@pytest.mark.parametrize("ratio", [1.0, 2.25])
@pytest.mark.parametrize("hz", [60, 1000])
def test_a_jump_is_as_high_and_as_long_as_it_says(jump, height_m, apex_s, ratio, hz):
    """Held on: up in apex_s, down in apex_s / sqrt(ratio), both parabolas."""
    profile = profile_with(f"{HOP}fall = {{ gravity_ratio = {ratio} }}\n{jump}", presses=JUMPS)
    recording = Recording([Event(0.0, "key.Space", 1.0), Event(3.0, "mark", "end")])
    trace = shape(recording, profile, hz=hz)
    in_air = trace[~trace["grounded"]]
    whole_s = apex_s * (1.0 + 1.0 / math.sqrt(ratio))
    assert len(in_air) / hz == pytest.approx(whole_s, abs=1.01 / hz)
    # Between two ticks it may be higher by g dt² / 8.
    assert trace["pos_z"].max() == pytest.approx(height_m, abs=GRAVITY * 2.0 / hz**2 / 8.0 + 1e-9)
    assert trace["pos_z"].iloc[-1] == 0.0
    assert trace["jump_began"].sum() == 1


def test_a_jump_released_early_is_cut_short():
    profile = profile_with(f"{HOP}jump = {{ speed_m_s = 6, early_release_ratio = 0.5 }}", presses=JUMPS)
    for held_s in (0.1, 0.2):
        steps = [Event(0.0, "key.Space", 1.0), Event(held_s, "key.Space", 0.0), Event(2.0, "mark", "end")]
        trace = shape(Recording(steps), profile, hz=1000)
        speed = 6.0 - GRAVITY * held_s
        expected = held_s * (6.0 + speed) / 2.0 + (0.5 * speed) ** 2 / (2.0 * GRAVITY)
        assert trace["pos_z"].max() == pytest.approx(expected, abs=0.01)


LEDGE = {"piece": [{"form": "flat", "left_m": -9, "back_m": -9, "right_m": 9, "forward_m": 2, "height_m": 3}]}


@pytest.mark.parametrize(
    ("pressed_s", "jumps"), [(-0.2, True), (0.08, True), (0.13, False), (0.40, False), (0.48, True), (0.60, True)]
)
def test_jumps_over_the_edge_and_before_the_ground(pressed_s, jumps):
    """He walks off a ledge 3 m high: 0.1 s of grace after the edge, and 0.1 s of buffer before the landing."""
    profile = profile_with(f"{HOP}jump = {{ speed_m_s = 5 }}", presses=JUMPS)
    edge_s, fall_s = 2.0 / TOP, math.sqrt(2.0 * 3.0 / GRAVITY)
    steps = [Event(0.0, "key.KeyW", 1.0), Event(edge_s + pressed_s, "key.Space", 1.0), Event(2.0, "mark", "end")]
    trace = shape(Recording(steps), profile, hz=100, course=course_of(**LEDGE))
    helm, began = Helm(profile, course=course_of(**LEDGE)), []
    for _, events in Recording(steps).ticks(100):
        for event in events:
            helm.apply(event)
        began.append(helm.tick(0.01).press("jump").began)
    assert began == trace["jump_began"].tolist()
    before = trace[trace["t"] < edge_s - 0.21]
    assert set(before["pos_z"]) == {3.0}
    assert (trace["jump_began"].sum() == 1) == jumps
    if not jumps:
        in_air = trace[~trace["grounded"]]
        assert len(in_air) / 100 == pytest.approx(fall_s, abs=0.025)
    if pressed_s == 0.48:
        # Asked for in the air, given on the ground.
        began = trace[trace["jump_began"]].iloc[0]
        assert began["t"] == pytest.approx(edge_s + fall_s, abs=0.04)
    assert trace["pos_z"].iloc[-1] == 0.0 or not trace["grounded"].iloc[-1]


def test_in_the_air_the_air_rates_count():
    gait = "top_speed_m_s = 4\naccel_m_s2 = 1000\ngravity_m_s2 = 20\nairborne = { accel_m_s2 = 2, brake_m_s2 = 0 }\n"
    helm = Helm(profile_with(f"{gait}jump = {{ speed_m_s = 6 }}", presses=JUMPS))
    helm.key("Space", down=True)
    helm.tick(0.001)
    helm.key("KeyD", down=True)
    assert run(helm, 0.25).motion.vel_x == pytest.approx(0.5)
    helm.key("KeyD", down=False)
    assert run(helm, 0.25).motion.vel_x == pytest.approx(0.5)
    assert run(helm, 0.5).motion[3:] == (0.0, 0.0, 0.0, True)


@pytest.mark.parametrize(
    ("gait", "keys", "speed"),
    [
        ("coast_half_life_s = 0.4", "", 4.0 * 2.0 ** (-0.1 / 0.4)),
        ("coast_half_life_s = 0.4\nairborne = { accel_m_s2 = 3 }", "", 4.0 * 2.0 ** (-0.1 / 0.4)),
        ("reverse_m_s2 = 5", "KeyS", 4.0 - 0.1 * 5.0),
        ("reverse_m_s2 = 5\nairborne = { brake_m_s2 = 3 }", "KeyS", 4.0 - 0.1 * 3.0),
        ("coast_half_life_s = 0.4\nairborne = { brake_m_s2 = 3 }", "", 4.0 - 0.1 * 3.0),
    ],
)
def test_in_the_air_a_body_slows_as_on_the_ground_unless_it_has_a_brake_there(gait, keys, speed):
    helm = Helm(profile_with(f"top_speed_m_s = 4\n{gait}\njump = {{ height_m = 3 }}\n", presses=JUMPS))
    helm.key("KeyW", down=True)
    run(helm, 1.0)
    helm.key("Space", down=True)
    helm.tick(0.01)
    helm.key("KeyW", down=False)
    if keys:
        helm.key(keys, down=True)
    assert run(helm, 0.1).motion[4::2] == (pytest.approx(speed), False)


def test_the_games_own_word_of_the_ground_counts():
    helm = Helm(profile_with(f"{HOP}jump = {{ speed_m_s = 6 }}", presses=JUMPS))
    helm.place(0.0, 0.0, 7.0)
    helm.ground(True)
    assert run(helm, 0.5).motion.pos_z == 7.0
    helm.key("Space", down=True)
    # The game has not moved the body yet and says that it stands: the jump is not cut short by that.
    assert run(helm, 0.2).motion.vel_z == pytest.approx(6.0 - GRAVITY * 0.2)
    helm.ground(False)
    assert run(helm, 0.5).motion.vel_z == pytest.approx(6.0 - GRAVITY * 0.7)
    helm.ground(True)
    assert run(helm, 0.1).motion[5:] == (0.0, True)


def test_held_presses_switch_gaits_and_usual_ones_need_no_writing():
    presses = '[mode.m.press]\ndash = { bind = ["key.ShiftLeft"] }\nsneak = { bind = ["key.KeyC"] }\n'
    profile = profile_with("", mode='press_gaits = { dash = "run", sneak = "stroll" }', presses=presses)
    helm = Helm(profile)
    helm.key("KeyW", down=True)
    speeds = []
    for code, down in (("KeyW", True), ("ShiftLeft", True), ("KeyC", True), ("ShiftLeft", False), ("KeyC", False)):
        helm.key(code, down=down)
        speeds.append(run(helm, 1.0).motion.vel_y)
    # Of two, the one that stands last in the table.
    assert speeds == pytest.approx([3.2, 5.6, 1.4, 1.4, 3.2])
    again = profile_with(
        "",
        mode='press_gaits = { dash = "run", sneak = "stroll", back = "run" }',
        presses=presses + 'back = { bind = ["key.KeyX"] }\n',
    )
    helm = Helm(again)
    for code in ("KeyW", "KeyC", "KeyX"):
        helm.key(code, down=True)
    assert run(helm, 1.0).motion.vel_y == pytest.approx(5.6)
    assert profile_with("", more="[gait.run]\naccel_m_s2 = 9\n").gait["run"].top_speed_m_s == 5.6


FAULTS = [
    ("jump = {}", "", "height_m: found neither; allowed: either height_m or speed_m_s"),
    ("jump = { height_m = 1, speed_m_s = 2 }", "", "height_m: found both"),
    ("jump = { height_m = 1 }", "", 'gait.own.jump.press: mode "m" has no press "jump"; bind it there'),
    ("drag_per_s = 3", "", "drag_per_s: does nothing without thrust_m_s2"),
    ("thrust_m_s2 = 3", "", "thrust_m_s2: does nothing without drag_per_s"),
    ("thrust_m_s2 = 12\ndrag_per_s = 3\ntop_speed_m_s = 5", "", "and the rates; remove top_speed_m_s"),
    ("rise_m_s = 2", "", "rise_m_s: does nothing here"),
    ("gravity_m_s2 = 9", 'press_gaits = { dash = "walk" }', '"own" has weight and "walk" has none'),
    ("", 'press_gaits = { dash = "wlak" }', 'press_gaits.dash: no gait "wlak"; did you mean "walk"'),
    ("", 'press_gaits = { dahs = "run" }', 'press_gaits.dahs: no press in this mode "dahs"'),
]


@pytest.mark.parametrize(("gait", "mode", "words"), FAULTS)
def test_an_impossible_gait_is_refused(gait, mode, words):
    presses = '[mode.m.press]\ndash = { bind = ["key.ShiftLeft"] }\n'
    with pytest.raises(ProfileError) as caught:
        profile_with(gait, mode=mode, presses=presses)
    assert words in str(caught.value)


def test_a_body_that_walks_to_a_goal_has_to_be_able_to_stop():
    words = 'gait.own.keeps_speed: does not go with mode "m": under frame "goto" the body has to stop at its goal'
    with pytest.raises(ProfileError, match=words):
        profile_with("keeps_speed = true", steer='{ frame = "goto" }')


def test_weight_and_jumps_of_a_gait_bind_only_the_modes_that_use_it():
    """Squares, a menu, and a mode that wants directions only stand beside a gait that jumps."""
    jumping = "[gait.walk]\ngravity_m_s2 = 9\njump = { press = 'jump', height_m = 1 }\n"
    foot = f"[mode.foot]\n{SHARP.replace('mode.m.', 'mode.foot.')}[mode.foot.press]\njump = {{ bind = ['Space'] }}\n"
    others = (
        f"[mode.room]\nsteer = {{ frame = 'grid' }}\n{SHARP.replace('mode.m.', 'mode.room.')}"
        f"[mode.aim]\ngait = 'none'\n{SHARP.replace('mode.m.', 'mode.aim.')}"
        "[mode.menu.press]\nclose = { bind = ['Escape'] }\n"
    )
    helm = Helm(profile_from_text(f"{HEAD}{foot}{others}{jumping}"))
    assert [helm.profile.mode[name].gait for name in helm.profile.mode] == ["walk", "none", "none", "none"]
    helm.key("Space", down=True)
    assert helm.tick(0.1).motion[5] > 0.0
    for mode in ("menu", "aim", "room"):
        helm.enter(mode)
        assert helm.tick(0.1).motion[5] == 0.0
    others = others.replace("'none'", "'walk'")
    with pytest.raises(ProfileError, match='no press "jump"; bind it there'):
        profile_from_text(f"{HEAD}{foot}{others}{jumping}")


@pytest.mark.parametrize("frame", ["fly", "hands"])
def test_nothing_falls_where_nothing_can(frame):
    text = f'{HEAD}[mode.m]\nsteer = {{ frame = "{frame}" }}\n{SHARP}[gait.walk]\ngravity_m_s2 = 9\n'
    with pytest.raises(ProfileError, match="has no weight"):
        profile_from_text(text)


# ---- walls and steps -----------------------------------------------------------------------------------------------

SHED = {"left_m": -2, "back_m": 3, "right_m": 2, "forward_m": 5, "height_m": 2}
FAST = "top_speed_m_s = 1000\naccel_m_s2 = 1e5\nbrake_m_s2 = 1e5\nbody_m = 1"


@pytest.mark.parametrize("hz", [10, 60, 1000])
def test_a_wall_stops_a_body_at_its_edge_however_fast_it_is(hz):
    helm = Helm(profile_with(FAST), course=course_of(wall=[SHED]))
    helm.key("KeyW", down=True)
    motion = run(helm, 1.0, hz).motion
    assert (motion.pos_x, motion.pos_y, motion.vel_y) == (0.0, 2.5, 0.0)


def test_a_body_slides_along_a_wall_and_round_its_corner():
    """North-east against the shed: it keeps its eastern speed, and past the corner goes on north-east."""
    helm = Helm(profile_with("top_speed_m_s = 2\nbody_m = 1"), course=course_of(wall=[SHED]))
    helm.place(-2.0, 0.0, 0.0)
    for code in ("KeyW", "KeyD"):
        helm.key(code, down=True)
    along = []
    for _ in range(500):
        motion = helm.tick(0.01).motion
        along.append((motion.pos_x, motion.pos_y, motion.vel_x))
    xs, ys, speeds = np.array(along).T
    slides = (ys == 2.5) & (xs < 2.5)
    assert slides.sum() > 10
    assert speeds[50:] == pytest.approx(np.full(450, math.sqrt(2.0)))
    assert xs[-1] > 2.5 < ys[-1]
    inside = (np.abs(xs) < 2.5 - 1e-9) & (ys > 2.5 + 1e-9) & (ys < 5.5)
    assert not inside.any()


@given(
    st.lists(st.tuples(st.sampled_from("WASD"), st.booleans()), max_size=20),
    st.sampled_from([2.0, 30.0, 400.0]),
    st.sampled_from([30, 144]),
)
def test_nobody_ever_stands_in_a_wall_or_leaves_the_bounds(strokes, speed, hz):
    bounds = {"left_m": -4, "back_m": -3, "right_m": 4, "forward_m": 8}
    course = course_of(wall=[SHED, {**SHED, "left_m": 3, "right_m": 3.5}], bounds=bounds)
    helm = Helm(profile_with(f"top_speed_m_s = {speed}\nbody_m = 0.5"), course=course)
    for letter, down in strokes:
        helm.key(f"Key{letter}", down=down)
        for _ in range(12):
            x, y = helm.tick(1.0 / hz).motion[:2]
            assert -3.75 <= x <= 3.75
            assert -2.75 <= y <= 7.75
            assert not (-2.25 < x < 2.25 and 2.75 < y < 5.25)


def test_a_body_that_is_high_enough_passes_over_a_wall_and_can_stand_on_it():
    gait = "top_speed_m_s = 4\naccel_m_s2 = 1000\ngravity_m_s2 = 20\njump = { speed_m_s = 12 }"
    helm = Helm(profile_with(gait, presses=JUMPS), course=course_of(wall=[{**SHED, "forward_m": 9}]))
    helm.key("Space", down=True)
    run(helm, 0.2)
    helm.key("KeyW", down=True)
    motion = run(helm, 1.2).motion
    assert (motion.pos_z, motion.grounded) == (2.0, True)
    assert 3.0 < motion.pos_y < 9.0


@pytest.mark.parametrize(("height_m", "stops"), [(0.3, False), (0.5, True)])
def test_a_step_up_is_taken_or_is_a_wall(height_m, stops):
    terrace = {"form": "flat", "left_m": -9, "back_m": 1, "right_m": 9, "forward_m": 9, "height_m": height_m}
    helm = Helm(profile_with("gravity_m_s2 = 20"), course=course_of(piece=[terrace]))
    helm.key("KeyW", down=True)
    motion = run(helm, 1.0).motion
    assert (motion.pos_y < 1.001) == stops
    assert motion.pos_z == (0.0 if stops else height_m)
    assert NO_FALL.falls == 0


@pytest.mark.parametrize("hz", [20, 60, 144])
@pytest.mark.parametrize(("jump_m", "climbs"), [(0.3, False), (0.9, False), (1.2, True)])
def test_a_hop_climbs_no_terrace_that_is_higher_than_it(hz, jump_m, climbs):
    """A terrace of 1 m; and uphill a jump lands where the ground comes up to it."""
    gait = f"gravity_m_s2 = 10\njump = {{ height_m = {jump_m} }}\n"
    sides = {"left_m": -9, "right_m": 9, "back_m": -20, "forward_m": 20}
    terrace = course_of(piece=[{"form": "flat", **sides, "back_m": 2, "height_m": 1}])
    hill = course_of(piece=[{"form": "ramp", **sides, "up": "forward", "to_height_m": 20}])

    def jumped(course):
        helm = Helm(profile_with(gait, presses=JUMPS), course=course)
        helm.key("KeyW", down=True)
        run(helm, 1.0, hz)
        helm.key("Space", down=True)
        return [helm.tick(1.0 / hz).motion for _ in range(2 * hz)]

    heights = [motion.pos_z for motion in jumped(terrace)]
    assert (heights[-1] == 1.0) is climbs
    # Nothing lifts a body but its jump, v dt a tick, and the small step that is always taken.
    most = math.sqrt(2.0 * 10.0 * jump_m) / hz + 0.05 + 1e-9
    assert max(after - before for before, after in itertools.pairwise(heights)) <= most
    for motion in jumped(hill):
        assert motion.pos_z >= hill.ground(motion.pos_x, motion.pos_y).height - 1e-9


@pytest.mark.parametrize("hz", [20, 60, 144, 1000])
def test_a_jump_beside_a_terrace_is_as_high_as_on_level_ground(hz):
    """Pressed against its side, a body rises past the edge at full height and lands on top when it comes down."""
    gait = "gravity_m_s2 = 20\njump = { height_m = 1.2 }\n"
    flights = []
    for height_m in (1.0, 0.0):
        helm = Helm(profile_with(gait, presses=JUMPS), course=course_of(piece=[flat(2, 20, height_m)]))
        helm.key("KeyW", down=True)
        run(helm, 1.0, hz)
        helm.key("Space", down=True)
        flights.append([helm.tick(1.0 / hz).motion for _ in range(hz)])
    beside, level = flights
    landed = next(index for index, motion in enumerate(beside) if motion.grounded)
    assert [motion.pos_z for motion in beside[:landed]] == [motion.pos_z for motion in level[:landed]]
    assert beside[landed].pos_z == 1.0 > level[landed].pos_z
    assert level[landed].vel_z < 0.0


@pytest.mark.parametrize("hz", [30, 60, 240])
@pytest.mark.parametrize(("riser_m", "tread_m"), [(0.18, 0.3), (0.3, 0.4), (0.1, 0.25), (0.03, 0.3)])
def test_a_jump_on_stairs_keeps_the_run(riser_m, tread_m, hz):
    """Wherever on a step it begins or ends: what is walked up from the ground below is no wall in the air."""
    stairs = [flat(1 + tread_m * n, 40, riser_m * (n + 1)) for n in range(30)]
    profile = profile_with("gravity_m_s2 = 20\njump = { height_m = 1 }\n", presses=JUMPS)
    course = course_of(piece=stairs)
    for begin in range(12):
        helm = Helm(profile, course=course)
        helm.key("KeyW", down=True)
        helm.tick(0.5 + 0.01 * begin)
        helm.key("Space", down=True)
        flight = [helm.tick(1.0 / hz).motion for _ in range(hz)]
        assert min(motion.vel_y for motion in flight) == max(motion.vel_y for motion in flight) > 1.0
        below = flight[0].pos_z - flight[0].vel_z / hz
        assert max(motion.pos_z for motion in flight) - below > 0.9
        assert flight[-1].grounded


@pytest.mark.parametrize("hz", [20, 60, 240])
@pytest.mark.parametrize(
    ("riser_m", "step_m", "falls"), [(0.18, 0.35, False), (0.34, 0.35, False), (0.36, 0.35, True), (0.18, 0.1, True)]
)
def test_stairs_are_walked_down_like_they_are_walked_up(riser_m, step_m, falls, hz):
    stairs = [flat(-9, 1 + 0.4 * n, riser_m * (9 - n)) for n in range(9)]
    steer = f'{{ frame = "map", slope = {{ step_m = {step_m} }} }}'
    helm = Helm(profile_with("top_speed_m_s = 3\ngravity_m_s2 = 20\n", steer=steer), course=course_of(piece=stairs))
    helm.key("KeyW", down=True)
    walked = [helm.tick(1.0 / hz).motion for _ in range(2 * hz)]
    assert any(not motion.grounded for motion in walked) is falls
    assert (walked[0].pos_z, walked[-1].pos_z, walked[-1].grounded) == (pytest.approx(9 * riser_m), 0.0, True)


@pytest.mark.parametrize("near_m", [0.25, 0.2, 0.01, 0.0])
def test_a_body_that_begins_close_to_a_wall_does_not_get_through_it(near_m):
    helm = Helm(profile_with(""), course=course_of(wall=[SHED]))
    helm.place(0.0, 3.0 - near_m, 0.0)
    helm.key("KeyW", down=True)
    assert run(helm, 1.0).motion.pos_y == pytest.approx(3.0 - near_m)
    helm.key("KeyW", down=False)
    helm.key("KeyS", down=True)
    assert run(helm, 1.0).motion.pos_y < 1.0


def test_a_body_that_leaves_a_slope_falls_from_rest_and_is_not_thrown_up():
    helm = Helm(profile_with("top_speed_m_s = 4\ngravity_m_s2 = 20", steer='{ frame = "map", slope = {} }'))
    helm.key("KeyW", down=True)
    helm.ground(True, normal=(0.0, -0.6, 0.8))
    assert run(helm, 0.5).motion.vel_z == pytest.approx(4.0 * 0.6)
    helm.ground(False)
    assert helm.tick(0.01).motion.vel_z == pytest.approx(-0.2)


def test_other_presses_wait_for_the_ground_too_and_a_jump_always_does():
    """Asked for in the air, a stomp comes with the landing; a jump without a buffer comes from the ground only."""
    presses = '[mode.m.press]\njump = { bind = ["key.Space"] }\nstomp = { bind = ["key.KeyE"], buffer_s = 0.3 }\n'
    profile = profile_with(f"{HOP}jump = {{ speed_m_s = 6 }}", presses=presses)
    times = {"key.Space": (0.1, 0.3, 0.5), "key.KeyE": (0.55,)}
    downs = [Event(t, control, 1.0) for control, some in times.items() for t in some]
    ups = [event._replace(t=event.t + 0.15, value=0.0) for event in downs if event.control == "key.Space"]
    events = sorted([*downs, *ups, Event(1.5, "mark", "end")], key=lambda event: event.t)
    trace = shape(Recording(events), profile, hz=100)
    assert trace["jump_began"].sum() == 1
    began = trace[trace["stomp_began"]]
    landed = trace.index[trace["grounded"] & ~trace["grounded"].shift(fill_value=True)]
    assert began.index.tolist() == [landed[0] + 1]
    helm = Helm(profile)
    for row, (_, some) in enumerate(Recording(events).ticks(100)):
        for event in some:
            helm.apply(event)
        assert helm.tick(0.01).press("stomp").began == trace["stomp_began"][row]


def test_a_jump_that_waits_for_the_ground_is_not_lost_in_a_hitch():
    """Pressed 62 ms before landing: whether half a second then comes at once or in small ticks, the body jumps."""
    profile = profile_with(f"{HOP}jump = {{ speed_m_s = 6 }}", presses=JUMPS)
    places = []
    for dts in ([0.5], [0.01] * 50):
        helm = Helm(profile)
        helm.key("Space", down=True)
        run(helm, 0.53)
        # It lands after 0.6 s in the air; let go and pressed again in time.
        helm.key("Space", down=False)
        helm.tick(0.008)
        helm.key("Space", down=True)
        began = [helm.tick(dt).press("jump").began for dt in dts]
        assert sum(began) == 1
        places.append(helm.tick(1e-6).motion.pos_z)
    # 6 t - 10 t² of 0.4 s and of 0.43 s: the hitch's parts are 0.1 s long.
    assert places == pytest.approx([0.8, 0.731], abs=0.01)


def test_a_press_that_waits_for_the_ground_may_switch_the_gait():
    """Pressed in the air, a sprint begins where the body lands, and only there the body is faster."""
    presses = f'{JUMPS}sprint = {{ bind = ["key.ShiftLeft"], buffer_s = 0.4 }}\n'
    fast = "[gait.fast]\ntop_speed_m_s = 8\naccel_m_s2 = 1e5\nbrake_m_s2 = 1e5\ngravity_m_s2 = 20\n"
    mode = 'press_gaits = { sprint = "fast" }'
    profile = profile_with(f"{HOP}jump = {{ speed_m_s = 6 }}", presses=presses, more=fast, mode=mode)
    helm = Helm(profile)
    helm.key("KeyW", down=True)
    helm.key("Space", down=True)
    run(helm, 0.4)
    helm.key("ShiftLeft", down=True)
    flying = helm.tick(0.01)
    assert not flying.press("sprint").held
    assert flying.motion.vel_y == pytest.approx(4.0)
    landed = run(helm, 0.4)
    assert landed.press("sprint").held
    assert landed.motion.vel_y == pytest.approx(8.0)


@pytest.mark.parametrize("hz", [30, 60, 144])
def test_a_tap_sets_a_speed_that_stays_until_another_direction_is_requested(hz):
    """With the usual ramps and smoothing, which fade slowly, and take nothing with them."""
    bind = 'keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }\n'
    text = (
        f"{HEAD}[mode.m]\nsteer = {{ frame = 'map' }}\n[[mode.m.move.bind]]\n{bind}[gait.walk]\nkeeps_speed = true\n"
    )
    helm = Helm(profile_from_text(f"{text}accel_m_s2 = 400\nbrake_m_s2 = 400\n"))

    def tapped(code, seconds=0.25):
        helm.key(code, down=True)
        for _ in range(round(seconds * hz)):
            helm.tick(1 / hz)
        helm.key(code, down=False)
        for _ in range(5 * hz):
            intent = helm.tick(1 / hz)
        return intent.motion[3:5], intent.face_deg

    velocity, face_deg = tapped("KeyD")
    assert velocity == (pytest.approx(3.2, abs=0.005), 0.0)
    assert face_deg == pytest.approx(90.0)
    velocity, face_deg = tapped("KeyW")
    assert velocity == pytest.approx((0.0, 3.2), abs=0.03)
    assert math.hypot(*velocity) == pytest.approx(3.2, abs=0.005)
    assert tapped("KeyS")[0] == pytest.approx((0.0, -3.2), abs=0.03)
    # A wall or the game takes it, and nothing brings it back by itself.
    helm.stop()
    assert helm.tick(1.0).motion[3:5] == (0.0, 0.0)
    # The sheet says that it never stops, rather than how far it got.
    sheet = measure(profile_from_text(text), engine="interpreted", only=["stop_time_s", "stop_distance_m"])
    assert (sheet.stop_time_s, sheet.stop_distance_m) == (None, None)


def test_the_gravity_of_a_gait_is_reported_idle_beside_a_jump_with_its_own():
    """2 h / t² = 12.5 m/s², whatever the gait says beside it."""
    gait = "gravity_m_s2 = 30\njump = { height_m = 1, apex_s = 0.4 }"
    profile = profile_with(gait, presses='[mode.m.press]\njump = { bind = ["key.Space"] }\n')
    assert profile.gait["own"].idle[0][0] == "gravity_m_s2"
    helm = Helm(profile)
    helm.key("Space", down=True)
    rises = [helm.tick(0.01).motion.vel_z for _ in range(20)]
    assert np.diff(rises)[1:] == pytest.approx(-0.125)
    line = str(helm.tick(0.01))
    assert line.endswith("0.00 m/s, +2.38 m/s up"), line


DRIVEN = """
gait = "cart"
steer = { frame = "drive" }
press_gaits = { handbrake = "skid" }
[gait.cart]
top_speed_m_s = 8
[gait.skid]
brake_m_s2 = 20
"""


@pytest.mark.parametrize(
    ("channel", "more"),
    [
        ('[[mode.m.throttle.bind]]\nkeys = { forward = ["KeyW"], back = ["KeyS"] }\n', "top_speed_m_s = 0.01\n"),
        (
            f"[mode.m.move]\npress_amounts = {{ handbrake = 0 }}\n[[mode.m.move.bind]]\n{KEYS}\n",
            "top_speed_m_s = 8\n",
        ),
    ],
)
def test_a_handbrake_stops_a_cart_whose_throttle_is_held(channel, more):
    """v / b: from 8 m/s at 20 m/s² in 0.4 s, in both ways that the trade word names."""
    head, gaits = DRIVEN.split("[gait.cart]", 1)
    press = '[mode.m.press]\nhandbrake = { bind = ["key.Space"] }\n'
    helm = Helm(profile_from_text(f"{HEAD}[mode.m]{head}{channel}{press}[gait.cart]{gaits}{more}"))
    helm.key("KeyW", down=True)
    assert run(helm, 10.0).motion.vel_y == pytest.approx(8.0)
    helm.key("Space", down=True)
    assert run(helm, 0.39).motion.vel_y == pytest.approx(0.2)
    assert run(helm, 0.02).motion.vel_y == pytest.approx(0.0, abs=0.011)
