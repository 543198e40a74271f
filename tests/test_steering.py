"""Steer frames: what "forward" means on foot, in the cart, in the air, on squares, by pointing and by hands."""

import itertools
import math
import random
import re

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from scipy.integrate import solve_ivp
from scipy.spatial.transform import Rotation

from few_of_many import few_of
from wendonic import Event, Helm, ProfileError, Recording, View, WendonicError, shape
from wendonic.demo import demo_course, demo_profile
from wendonic.devices.standins import HandsStandIn
from wendonic.kernels.axis_channel import AxisOutput
from wendonic.kernels.body.body import BODY_AT_REST
from wendonic.kernels.body.facing import FACE_TRAVEL, FACE_TURN, FACE_VIEW, Aim
from wendonic.kernels.body.gait import PLAIN_GAIT, walked, walked_in_space, with_forms
from wendonic.kernels.body.ground import NO_COURSE
from wendonic.kernels.frames.drive import driven, steer_drive, throttle_speed
from wendonic.kernels.frames.drive_tuning import DriveTuning
from wendonic.kernels.frames.frame import FRAME_AT_REST, PLAIN_FRAME
from wendonic.kernels.frames.goal import GoalInput, GotoTuning
from wendonic.kernels.frames.squares import NO_GRID
from wendonic.kernels.frames.steer import FRAME_CAMERA, FRAME_DRIVE, FRAME_FACING, FRAME_FLY, FRAME_GOTO, FRAME_GRID
from wendonic.kernels.move.diagonal import DIAGONAL_FREE
from wendonic.kernels.move.move import NO_MOVE
from wendonic.kernels.request import NO_REQUEST
from wendonic.kernels.sample import EMPTY_SAMPLE
from wendonic.kernels.source.opposites import OPPOSITES_CANCEL, OPPOSITES_EARLIEST, OPPOSITES_LATEST
from wendonic.kernels.source.source import PLAIN_SOURCE
from wendonic.kernels.steer_in_parts import steer
from wendonic.kernels.tick_record import tick_at_rest
from wendonic.kernels.tuning import PLAIN_TUNING
from wendonic.kernels.vector import Vec3
from wendonic.profile.load import profile_from_text

HEAD = 'format = "wendonic-profile"\nversion = 1\n'
KEYS = 'keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }\n'
AT_ONCE = PLAIN_GAIT._replace(accel_m_s2=1e5, brake_m_s2=1e5)
CART = DriveTuning(2.0, 1.0, 0, 1.0, 0.5, 0, 0, 0.0)
unit = st.floats(-1.0, 1.0)
speeds = st.floats(-20.0, 20.0)


def tuned(gait=PLAIN_GAIT, **frame):
    """A mode with that gait and frame, whose ticks are cut where the direction turns."""
    turning = int(frame.get("frame") != FRAME_GRID)
    move = NO_MOVE._replace(sources=(PLAIN_SOURCE,), diagonal=DIAGONAL_FREE)
    return PLAIN_TUNING._replace(
        max_dt_s=10.0, move=move, frame=PLAIN_FRAME._replace(**frame), gaits=(gait,), turning=turning
    )


def after(tuning, request, dts, memory=None, goal=None, course=NO_COURSE):
    """Return the memory after some ticks of a request."""
    memory = memory or tick_at_rest(tuning).memory
    sample = EMPTY_SAMPLE._replace(goal=GoalInput(1.0, *goal)) if goal else EMPTY_SAMPLE
    sample = sample._replace(move=((request.right, request.forward),))
    axes = [AxisOutput(0.0, value, value, 0.0) for value in (request.rise, request.throttle, request.turn)]
    for dt in dts:
        if dt > 0.0:
            found = steer(tuning, tuning.gaits[0], (), course, memory, sample, request, axes, (), dt)[2]
            memory = memory._replace(body=found.body, fall=found.fall, up=found.up, frame=found.frame)
    return memory


def helm_with(steer, binds="", window="", course=None, move=KEYS):
    moves = f"[[mode.m.move.bind]]\n{move}" if move else ""
    return Helm(profile_from_text(f"{HEAD}{window}[mode.m]\nsteer = {steer}\n{moves}{binds}"), course=course)


def run(helm, seconds, hz=60, **tick):
    for _ in range(round(seconds * hz)):
        intent = helm.tick(1.0 / hz, **tick)
    return intent


# ---- every frame -------------------------------------------------------------------------------------------------

TUNINGS = {
    "map": tuned(AT_ONCE),
    "camera": tuned(AT_ONCE, frame=FRAME_CAMERA, face=FACE_VIEW),
    "facing by keys": tuned(AT_ONCE, frame=FRAME_FACING, face=FACE_TURN, turn_rate=1.5),
    "facing its travel": tuned(AT_ONCE, frame=FRAME_FACING, face=FACE_TRAVEL, turn_rate=1.5),
    "drive": tuned(frame=FRAME_DRIVE, drive=CART._replace(circles=1)),
    "fly": tuned(frame=FRAME_FLY, level=0),
    "grid": tuned(frame=FRAME_GRID, grid=NO_GRID._replace(diagonals=1, eased=1)),
    "goto": tuned(frame=FRAME_GOTO, goto=GotoTuning(0.1, 0.8, 1, 0, 0, 0)),
}
REQUEST = NO_REQUEST._replace(right=0.5, forward=0.7, yaw=0.9, pitch=0.4, look_yaw=0.9)
REQUEST = REQUEST._replace(rise=0.4, turn=-0.6, throttle=0.2)
UNEVEN = [0.003, 0.05, 0.0007, 0.09, 0.0163, 0.04] * 10


@pytest.mark.parametrize("frame", TUNINGS)
def test_a_request_leads_to_the_same_place_at_every_tick_rate(frame):
    """Two seconds at 30, 60, 144 Hz and uneven ticks: within 1 % of the way, and of a turn."""
    tuning = TUNINGS[frame]
    request, goal = (NO_REQUEST, (3.0, -2.0)) if frame == "goto" else (REQUEST, None)
    total = sum(UNEVEN)
    ways = [[total / count] * count for count in (60, 120, 288, 2000)] + [UNEVEN, [total]]
    bodies = [after(tuning, request, dts, goal=goal).body for dts in ways]
    way_m = math.hypot(*bodies[3].position)
    assert way_m > 0.5
    for body in bodies:
        assert math.dist(body.position, bodies[3].position) <= 0.01 * way_m
        assert math.cos(body.face - bodies[3].face) > math.cos(math.radians(3.6))


@pytest.mark.long
@given(
    st.sampled_from(sorted(TUNINGS)),
    st.tuples(*[unit] * 5),
    st.tuples(st.floats(-50, 50), st.floats(-1.57, 1.57)),
    st.lists(st.one_of(st.sampled_from([0.0, 5e-324]), st.floats(1e-300, 1e-3), st.floats(1e-3, 40.0)), max_size=6),
    st.tuples(speeds, speeds, speeds),
)
def test_nothing_is_ever_stuck_or_lost(frame, axes, view, dts, velocity):
    right, forward, rise, turn, throttle = axes
    request = REQUEST._replace(
        right=right, forward=forward, rise=rise, turn=turn, throttle=throttle, yaw=view[0], pitch=view[1]
    )._replace(aim=Aim(1.0, 0.0, 0.0))
    body = BODY_AT_REST._replace(velocity=Vec3(*velocity))
    start = tick_at_rest(TUNINGS[frame]).memory._replace(body=body)
    state = after(TUNINGS[frame], request, dts, start, goal=(right, forward))
    numbers = [state.body.face, *state.body.position, *state.body.velocity, *state.up, *state.frame.grid.step]
    assert all(map(math.isfinite, numbers))
    assert -math.pi <= state.body.face <= math.pi
    if not dts or max(dts) == 0.0:
        assert state.body == body


# ---- drive -------------------------------------------------------------------------------------------------------


@given(st.floats(0.2, 1.0), st.floats(-1.0, 1.0), st.lists(st.floats(0.001, 0.3), min_size=1, max_size=8))
def test_a_steady_cart_goes_round_a_circle_however_its_time_is_cut(throttle, turn, dts):
    """Closed form: an arc of speed / turn rate, wherever it is cut."""
    speed = throttle * 4.0
    rate = turn * (2.0 - throttle)
    assume(abs(rate) > 1e-3)
    body = BODY_AT_REST._replace(velocity=Vec3(0.0, speed, 0.0))
    gait = PLAIN_GAIT._replace(top_speed_m_s=4.0)
    for dt in dts:
        body = driven(CART, gait, False, body, speed, turn, dt)
    angle, radius = rate * sum(dts), speed / rate
    assert math.remainder(body.face - angle, math.tau) == pytest.approx(0.0, abs=1e-9)
    assert body.position.x == pytest.approx(radius * (1.0 - math.cos(angle)), abs=1e-9)
    assert body.position.y == pytest.approx(radius * math.sin(angle), abs=1e-9)


@pytest.mark.parametrize("face_deg", [30.0, 120.0, 210.0, 300.0])
@pytest.mark.parametrize("throttle", [1.0, -1.0])
def test_the_velocity_of_a_cart_has_the_right_signs_in_all_four_quadrants(face_deg, throttle):
    face = math.radians(face_deg)
    speed = throttle_speed(CART, 4.0, throttle)
    assert speed == (4.0 if throttle > 0 else -2.0)
    body = driven(CART, AT_ONCE, False, BODY_AT_REST._replace(face=face), speed, 0.0, 1.0)
    assert body.velocity[:2] == pytest.approx((speed * math.sin(face), speed * math.cos(face)))


def test_a_cart_turns_by_its_speed_and_on_the_spot_only_if_it_may():
    def faces(steer, throttle, turn, seconds=1.0):
        helm = helm_with(f'{{ frame = "drive", turn_deg_s = 90, {steer} }}', axes, move="")
        helm.button("pad.right_trigger" if throttle > 0 else "pad.left_trigger", abs(throttle))
        run(helm, 2.0)
        helm.stick("pad.left_stick", turn, 0.0)
        return run(helm, seconds).face_deg

    linear = 'dead_zone = { form = "none" }\ncurve = { form = "linear" }\n'
    pair = '{ forward = "pad.right_trigger", back = "pad.left_trigger" }'
    throttles = f"[[mode.m.throttle.bind]]\ntriggers = {pair}\n{linear}"
    axes = f'{throttles}[[mode.m.turn.bind]]\naxis = "pad.left_stick.x"\n{linear}'
    assert faces("turn_radius_m = 1", 0.0, 1.0) == 0.0
    assert faces("on_the_spot = true", 0.0, 1.0) == pytest.approx(90.0)
    # Top speed 3.2 m/s; a circle of 4 m radius bounds the rate to 45.8 deg/s, half of the speed to half of it.
    assert faces("turn_radius_m = 4", 1.0, 1.0) == pytest.approx(math.degrees(3.2 / 4.0))
    assert faces("turn_radius_m = 4", 0.5, 1.0) == pytest.approx(math.degrees(1.6 / 4.0))
    assert faces("turn_radius_m = 0.01, fast_turn_deg_s = 30", 1.0, 1.0) == pytest.approx(30.0)
    assert faces("turn_radius_m = 0.01, fast_turn_deg_s = 30", 0.5, 1.0) == pytest.approx(60.0)
    assert faces('turn_radius_m = 0.01, reverse = "keeps"', -1.0, 0.5) == pytest.approx(45.0)
    assert faces('turn_radius_m = 0.01, reverse = "flips"', -1.0, 0.5) == pytest.approx(315.0)


@pytest.mark.parametrize("hz", [20, 60, 144])
@pytest.mark.parametrize("grip", [0.1, 0.4, 0.9])
def test_a_cart_that_slips_goes_where_its_equations_lead(grip, hz):
    """u' = gait + r w and w' = -r u - k w along and across its face, by SciPy: a start, and a bend both ways."""
    top, radius, lose = 18.0, 3.0, -10.0 * math.log(1.0 - grip)
    low, high = math.radians(140.0), math.radians(70.0)
    mode = "[mode.m]\nsteer = { frame = 'drive', turn_deg_s = 140, fast_turn_deg_s = 70, turn_radius_m = 3, "
    mode += f"grip = {grip} }}\n"
    for channel, keys in (("throttle", "forward = ['KeyW']"), ("turn", "right = ['KeyD'], left = ['KeyA']")):
        mode += f"[[mode.m.{channel}.bind]]\nkeys = {{ {keys} }}\n"
    gait = "[gait.walk]\ntop_speed_m_s = 18\naccel_m_s2 = 9\nbrake_m_s2 = 20\n"
    helm = Helm(profile_from_text(HEAD + mode + gait))
    state = np.zeros(5)
    for seconds, key, turn in ((1.0, "KeyW", 0.0), (2.0, "KeyD", 1.0), (1.0, "KeyA", -1.0)):

        def rates(_, now, turn=turn):
            face, _, _, u, w = now
            rate = turn * min(low + (high - low) * min(u / top, 1.0), abs(u) / radius)
            sine, cosine = math.sin(face), math.cos(face)
            gained = min(max(1e3 * (top - u), -20.0), 9.0)
            return [rate, sine * u + cosine * w, cosine * u - sine * w, gained + rate * w, -rate * u - lose * w]

        state = solve_ivp(rates, (0.0, seconds), state, method="LSODA", rtol=1e-8, atol=1e-10).y[:, -1]
        helm.key("KeyD", down=False)
        helm.key(key, down=True)
        after = run(helm, seconds, hz=hz).motion
        assert math.dist(after[:2], state[1:3]) < 1e-3 * 18.0 * seconds
    assert math.radians(helm.tick(0.0).face_deg) == pytest.approx(state[0] % math.tau, abs=0.01)


@pytest.mark.parametrize("hz", [20, 60, 144])
def test_less_grip_glides_on_where_the_cart_went(hz):
    """Turning steadily by w, the speed sideways over that ahead is w over the rate at which grip takes it."""
    turn = math.radians(40.0)
    for grip in (0.9, 0.6, 0.3):
        text = f"{HEAD}[mode.m]\nsteer = {{ frame = 'drive', turn_deg_s = 40, on_the_spot = true, grip = {grip} }}\n"
        for channel, keys in (("throttle", "forward = ['KeyW']"), ("turn", "right = ['KeyD']")):
            text += f"[[mode.m.{channel}.bind]]\nkeys = {{ {keys} }}\nrise_s = 0\nfall_s = 0\n"
        helm = Helm(profile_from_text(text))
        helm.key("KeyW", down=True)
        run(helm, 1.0, hz=hz)
        helm.key("KeyD", down=True)
        after = run(helm, 4.0, hz=hz).motion
        face = math.radians(helm.tick(0.0).face_deg)
        along = after.vel_x * math.sin(face) + after.vel_y * math.cos(face)
        across = after.vel_x * math.cos(face) - after.vel_y * math.sin(face)
        assert across / along == pytest.approx(turn * 0.1 / math.log(1.0 - grip), rel=2e-3)
        assert along == pytest.approx(3.2, rel=2e-3)
    # Without any, a turn takes nothing of what goes across, and adds nothing to it.
    helm = Helm(profile_from_text(text.replace("grip = 0.3", "grip = 0")))
    helm.push(3.0, 0.0, 0.0)
    helm.key("KeyD", down=True)
    for _ in range(hz):
        intent = helm.tick(1 / hz)
    assert intent.face_deg == pytest.approx(40.0)
    assert math.hypot(*intent.motion[3:5]) < 3.0
    assert intent.motion.pos_x > 1.0


def test_a_cart_keeps_its_speed_along_a_slope_and_rolls_back_down_a_bank():
    helm = helm_with('{ frame = "drive", slope = { steepest_deg = 40, slide_m_s = 1.5 } }')
    helm.key("KeyW", down=True)
    helm.ground(True, normal=(0.0, -0.6, 0.8))
    assert run(helm, 2.0).velocity() == pytest.approx((0.0, 3.2 * 0.8, 3.2 * 0.6))
    helm.ground(True, normal=(0.0, -0.8, 0.6))
    intent = run(helm, 2.0)
    assert intent.velocity() == pytest.approx((0.0, -1.5 * 0.6, -1.5 * 0.8))
    assert intent.velocity(3.2) == pytest.approx(intent.velocity())
    assert (tuple(intent.footing), intent.amount) == ((True, True), 0.0)
    # Across the bank it holds its place.
    across = helm_with('{ frame = "drive", slope = { steepest_deg = 40 } }')
    across.ground(True, normal=(-0.8, 0.0, 0.6))
    across.key("KeyW", down=True)
    assert run(across, 2.0).velocity() == pytest.approx((0.0, 3.2, 0.0))


@pytest.mark.parametrize(("rule", "share"), [("", 1.0), ('diagonal = "cap"', math.sqrt(0.5))])
def test_steering_by_keys_takes_nothing_from_the_throttle_unless_a_rule_says_so(rule, share):
    drive = "frame = 'drive', turn_deg_s = 90, turn_radius_m = 3, slope = {}"
    for frame in (f"{{ {drive} }}", f"{{ {drive}, grip = 0.99 }}"):
        helm = Helm(
            profile_from_text(f"{HEAD}[mode.m]\nsteer = {frame}\n[mode.m.move]\n{rule}\n[[mode.m.move.bind]]\n{KEYS}")
        )
        helm.key("KeyW", down=True)
        straight = math.hypot(*run(helm, 2.0).velocity())
        helm.key("KeyD", down=True)
        turning = run(helm, 2.0)
        before = turning.face_deg
        assert math.hypot(*turning.velocity()) == pytest.approx(share * straight, rel=0.02)
        turned_deg = (helm.tick(1 / 60).face_deg - before) % 360.0
        # The smallest circle: v / r.
        assert turned_deg * 60.0 == pytest.approx(share * math.degrees(share * straight / 3.0), rel=0.02)


RISE = '[[mode.m.rise.bind]]\nkeys = { up = ["Space"] }\n'


@pytest.mark.parametrize(
    ("frame", "channel", "held"),
    [
        ("'fly'", RISE, ("KeyW", "Space")),
        ("'fly', level = false", RISE, ("KeyW", "Space")),
        ("'drive'", "", ("KeyW",)),
        ("'drive'", '[[mode.m.throttle.bind]]\nkeys = { forward = ["KeyT"] }\n', ("KeyT",)),
        ("'goto'", "", ()),
    ],
)
def test_a_press_that_scales_slows_every_way_of_moving(frame, channel, held):
    text = f"{HEAD}[mode.m]\nsteer = {{ frame = {frame} }}\n[mode.m.move]\npress_amounts = {{ slow = 0.25 }}\n"
    text += f"[[mode.m.move.bind]]\n{KEYS}{channel}[mode.m.press]\nslow = {{ bind = ['key.ShiftLeft'] }}\n"
    velocities = []
    for slow in (False, True):
        helm = Helm(profile_from_text(text))
        if "goto" in frame:
            helm.go_to(0.0, 90.0, 0.0)
        for code in (*held, *(("ShiftLeft",) if slow else ())):
            helm.key(code, down=True)
        velocities.append(run(helm, 2.0, view=View(0.0, 40.0)).velocity())
    full, quarter = velocities
    assert math.hypot(*full) > 1.9
    assert quarter == pytest.approx([0.25 * part for part in full], abs=1e-9)


@pytest.mark.parametrize("frame", ["'fly'", "'fly', level = false", "'drive'", "'camera'"])
@pytest.mark.parametrize("slow", [0.25, 0.0])
def test_a_press_that_scales_is_smoothed_as_everything_is(frame, slow):
    text = f"{HEAD}[mode.m]\nsteer = {{ frame = {frame} }}\n[mode.m.move]\nhalf_life_s = 0.1\n"
    text += f"press_amounts = {{ slow = {slow} }}\n"
    text += f"[[mode.m.move.bind]]\n{KEYS}[mode.m.press]\nslow = {{ bind = ['key.ShiftLeft'] }}\n"
    helm = Helm(profile_from_text(text))
    helm.key("KeyW", down=True)
    run(helm, 3.0)
    helm.key("ShiftLeft", down=True)
    for tick in range(1, 30):
        expected = slow + (1.0 - slow) * 0.5 ** (tick / 60.0 / 0.1)
        assert helm.tick(1 / 60).amount == pytest.approx(expected, abs=1e-6)
    helm.key("ShiftLeft", down=False)
    expected = 1.0 + (expected - 1.0) * 0.5 ** (1 / 60.0 / 0.1)
    assert helm.tick(1 / 60).amount == pytest.approx(expected, abs=1e-6)


def test_a_press_that_scales_leaves_the_lock_of_a_vehicle():
    """At half of the speed the same lock is the same circle, once the smallest circle is all that limits it."""
    text = f"{HEAD}[mode.m]\nsteer = {{ frame = 'drive', turn_deg_s = 900 }}\n"
    text += "[mode.m.move]\npress_amounts = { slow = 0.5 }\n"
    text += f"[[mode.m.move.bind]]\n{KEYS}[mode.m.press]\nslow = {{ bind = ['key.ShiftLeft'] }}\n"
    helm = Helm(profile_from_text(text))
    for code in ("KeyW", "KeyD", "ShiftLeft"):
        helm.key(code, down=True)
    before = run(helm, 2.0)
    after = helm.tick(1 / 60)
    speed = math.hypot(*after.velocity())
    assert speed == pytest.approx(1.6)
    assert math.radians((after.face_deg - before.face_deg) % 360.0) * 60.0 == pytest.approx(speed / 2.0)


# ---- fly ---------------------------------------------------------------------------------------------------------


@given(st.tuples(*[speeds] * 4), st.floats(0.0, math.pi), st.floats(0.001, 2.0))
def test_flying_in_a_plane_is_walking_in_it(vectors, tilt, dt):
    vel_x, vel_y, wanted_x, wanted_y = vectors
    flat = walked(vel_x, vel_y, wanted_x, wanted_y, 7.0, 11.0, dt)
    sine, cosine = math.sin(tilt), math.cos(tilt)
    velocity = Vec3(vel_x, vel_y * cosine, vel_y * sine)
    found = walked_in_space(velocity, Vec3(wanted_x, wanted_y * cosine, wanted_y * sine), 7.0, 11.0, dt)
    tilted = (*found.velocity, *found.displacement)
    expected = (flat[0], flat[1] * cosine, flat[1] * sine, flat[2], flat[3] * cosine, flat[3] * sine)
    assert tilted == pytest.approx(expected, abs=1e-9)


def test_a_bee_climbs_by_its_rise_and_with_the_view_only_if_it_may():
    rise = '[[mode.m.rise.bind]]\nkeys = { up = ["Space"] }\n[gait.walk]\nrise_m_s = 2\n'
    for level, pitch_deg, expected in (("true", -60.0, (0.0, 3.2, 0.0)), ("false", -60.0, (0.0, 1.6, -2.771281))):
        helm = helm_with(f'{{ frame = "fly", level = {level}  }}', rise)
        helm.key("KeyW", down=True)
        intent = run(helm, 1.0, view=View(0.0, pitch_deg))
        assert intent.velocity() == pytest.approx(expected, abs=1e-6)
        assert intent.velocity(3.2) == pytest.approx(expected, abs=1e-6)
    helm = helm_with('{ frame = "fly" }', rise)
    helm.key("Space", down=True)
    assert run(helm, 1.0).velocity() == (0.0, 0.0, 2.0)
    helm.key("KeyW", down=True)
    # Both at once: each 1 / sqrt(2) of its own full speed.
    assert run(helm, 1.0).velocity() == pytest.approx((0.0, 3.2 / math.sqrt(2.0), math.sqrt(2.0)))


@pytest.mark.parametrize("rise_m_s", [0.7, 3.2, 5.0])
@pytest.mark.parametrize("pitch_deg", [-90.0, -50.0, 0.0, 30.0, 45.0, 80.0, 90.0])
def test_no_way_of_flying_is_faster_than_its_fastest_part(rise_m_s, pitch_deg):
    keys = 'keys = { up = ["Space"], down = ["KeyC"] }'
    rise = f"[[mode.m.rise.bind]]\n{keys}\n[gait.walk]\ntop_speed_m_s = 3.2\nrise_m_s = {rise_m_s}\n"
    helm = helm_with('{ frame = "fly", level = false }', rise)
    fastest = max(3.2, rise_m_s)
    for held in itertools.product(("KeyW", "KeyS", ""), ("KeyA", "KeyD", ""), ("Space", "KeyC", "")):
        for code in filter(None, held):
            helm.key(code, down=True)
        speed = math.hypot(*run(helm, 1.0, view=View(20.0, pitch_deg)).velocity())
        for code in filter(None, held):
            helm.key(code, down=False)
        assert speed <= fastest * (1.0 + 1e-9)
        run(helm, 1.0)
    # Up with the view and up by its rise at once is no slower than the slower of them.
    helm.key("KeyW", down=True)
    helm.key("Space", down=True)
    assert run(helm, 1.0, view=View(0.0, 90.0)).velocity()[2] >= min(3.2, rise_m_s)


# ---- grid --------------------------------------------------------------------------------------------------------


def squares_of(helm, seconds, hz=60):
    """Squares that were stepped to, in order."""
    seen = []
    for _ in range(round(seconds * hz)):
        step = helm.tick(1.0 / hz).step
        if not seen or seen[-1] != (step.x, step.y):
            seen.append((step.x, step.y))
    return seen


@pytest.mark.parametrize("hz", [13, 30, 60, 144])
def test_a_held_direction_takes_its_squares_at_their_own_times_and_ends_on_one(hz):
    """A step of 0.2 s, the second one 0.5 s after the press, then one every 0.25 s: exact at every tick rate."""
    helm = helm_with('{ frame = "grid", square_m = 2, step_s = 0.2, delay_s = 0.5, repeat_s = 0.25 }')
    helm.key("KeyW", down=True)
    starts = [0.0, 0.5, 0.75, 1.0, 1.25]
    for tick in range(1, round(1.3 * hz)):
        intent = helm.tick(1.0 / hz)
        t = tick / hz
        done = sum(min(max((t - start) / 0.2, 0.0), 1.0) for start in starts)
        assert intent.motion.pos_y == pytest.approx(2.0 * done, abs=1e-9)
        assert (intent.step.x, intent.motion.pos_x) == (0, 0.0)
        # At the very ends of a step it may be either.
        if abs(done - round(done)) > 1e-6:
            assert intent.motion.vel_y == pytest.approx(10.0)
        elif all(abs(t - start) > 1e-6 for start in starts):
            assert (intent.motion.vel_y, intent.motion.pos_y) == (0.0, 2.0 * round(done))
    helm.key("KeyW", down=False)
    rested = run(helm, 1.0, hz)
    assert rested.motion.pos_y == 2.0 * round(rested.motion.pos_y / 2.0)
    assert (rested.step.stepping, rested.amount, rested.motion.vel_y) == (False, 0.0, 0.0)


def test_presses_are_buffered_taps_between_ticks_are_seen_and_a_loss_is_no_tap():
    helm = helm_with('{ frame = "grid", step_s = 0.2, repeats = false }')
    helm.key("KeyD", down=True)
    helm.key("KeyD", down=False)
    assert helm.tick(1 / 60).step[:2] == (1, 0)
    helm.key("KeyW", down=True)
    helm.tick(1 / 60)
    helm.key("KeyW", down=False)
    assert squares_of(helm, 1.0) == [(1, 0), (1, 1)]
    # Held on, without repeats: one square a press.
    helm.key("KeyA", down=True)
    assert squares_of(helm, 1.0) == [(0, 1)]
    helm.key("KeyW", down=True)
    helm.lose("focus")
    assert squares_of(helm, 1.0) == [(0, 1)]


@pytest.mark.parametrize(
    ("choice", "expected"), [(OPPOSITES_LATEST, 1), (OPPOSITES_EARLIEST, 0), (OPPOSITES_CANCEL, 0)]
)
def test_of_two_held_ways_opposites_says_which_wins(choice, expected):
    word = {OPPOSITES_LATEST: "latest", OPPOSITES_EARLIEST: "earliest", OPPOSITES_CANCEL: "cancel"}[choice]
    helm = helm_with('{ frame = "grid", step_s = 0.1 }', move=f'{KEYS}opposites = "{word}"\n')
    helm.key("KeyD", down=True)
    run(helm, 0.2)
    helm.key("KeyW", down=True)
    was = run(helm, 0.1).step
    now = run(helm, 0.5).step
    assert ((now.y - was.y) > 0, (now.x - was.x) > 0) == (expected == 1, expected == 0)
    # Once the winner is let go, the other one goes on.
    helm.key("KeyW" if expected else "KeyD", down=False)
    last = run(helm, 0.5).step
    assert ((last.y - now.y) > 0, (last.x - now.x) > 0) == (expected == 0, expected == 1)


def test_a_blocked_square_refuses_the_step_says_so_and_is_faced():
    helm = helm_with('{ frame = "grid", step_s = 0.1, diagonals = true }')
    helm.block([(2, 0), (1, 1)])
    helm.key("KeyD", down=True)
    intent = run(helm, 0.5)
    assert (intent.step, intent.motion.pos_x) == ((1, 0, 1, 0, 0.0, (2, 0), False, False), 1.0)
    assert intent.face_deg == 90.0
    # A diagonal step squeezes between two squares; one of them is blocked.
    helm.key("KeyW", down=True)
    helm.key("KeyD", down=False)
    assert run(helm, 0.5).step.refused == (1, 1)
    helm.key("KeyA", down=True)
    assert run(helm, 0.5).step.refused == (0, 1)
    for wrong in ((1.5, 0), (1, 2, 3)):
        with pytest.raises(WendonicError, match="two whole numbers"):
            helm.block([wrong])
    helm.block([])
    assert run(helm, 0.15).step.refused is None
    helm.lose()
    assert run(helm, 0.5).step.refused is None


@pytest.mark.parametrize("forward", [1.0, -1.0])
def test_of_a_stick_pulled_onto_a_diagonal_both_sides_step_alike(forward):
    """Both axes are equal there but for rounding, which has no say in which of them counts as pressed later."""
    stick = 'stick = "pad.left_stick"\ndead_zone = { form = "none" }\n'
    squares = set()
    for size, side in itertools.product((0.71, 0.8, 0.913, 1.0), (1.0, -1.0)):
        helm = helm_with('{ frame = "grid" }', "[mode.m.move]\nnotches = 8\nnotch_pull = 1\n", move=stick)
        helm.stick("pad.left_stick", side * size * math.sin(0.7), -forward * size * math.cos(0.7))
        step = helm.tick(0.05).step
        squares.add((side * step.x, step.y))
    assert squares == {(1.0, 0.0)}


def test_a_vehicle_coasts_alike_whichever_side_is_requested():
    """A request to the side that comes through notches is neither forward nor back: the cart coasts."""
    text = "[mode.m.move]\nnotches = 8\n[gait.walk]\ntop_speed_m_s = 5\ncoast_half_life_s = 0.8\nreverse_m_s2 = 20\n"
    for code in ("KeyD", "KeyA"):
        helm = helm_with('{ frame = "drive", turn_deg_s = 90 }', text)
        helm.key("KeyW", True)
        run(helm, 2.0)
        helm.key("KeyW", False)
        helm.key(code, True)
        motion = run(helm, 0.8).motion
        assert math.hypot(motion.vel_x, motion.vel_y) == pytest.approx(2.5)


def test_a_throttle_and_a_request_back_that_cancel_but_for_rounding_let_a_vehicle_coast():
    """0.1 + 0.2 against 0.3 is 5.6e-17, at which a body that coasts would be braked, or driven."""
    coasts = with_forms(PLAIN_GAIT._replace(coasts=1, coast_half_life_s=0.5, top_speed_m_s=4.0))
    rolling = BODY_AT_REST._replace(velocity=Vec3(0.0, 2.0, 0.0))
    for throttle, forward in ((0.1 + 0.2, -0.3), (-0.1 - 0.2, 0.3)):
        request = NO_REQUEST._replace(throttle=throttle, forward=forward)
        _, body, _ = steer_drive(PLAIN_FRAME, coasts, NO_COURSE, FRAME_AT_REST, rolling, request, 0.5)
        assert body.velocity.y == pytest.approx(1.0)


@pytest.mark.parametrize("sign", [1.0, -1.0])
@pytest.mark.parametrize(
    ("throttle", "forward", "scale", "full"),
    [(1.0, 1.0, 1.0, 1.0), (0.7, 0.6, 1.0, 1.0), (0.3, 0.2, 1.0, 0.5), (1.0, 0.4, 0.4, 0.4), (0.0, 0.4, 0.4, 0.4)],
)
def test_a_throttle_and_a_request_ahead_add_up_to_full_speed_at_most(throttle, forward, scale, full, sign):
    """Both together drive no faster than either; a press that scales has scaled the request already."""
    request = NO_REQUEST._replace(throttle=sign * throttle, forward=sign * forward, scale=scale)
    _, body, wanted = steer_drive(PLAIN_FRAME, PLAIN_GAIT, NO_COURSE, FRAME_AT_REST, BODY_AT_REST, request, 9.0)
    speed = full * throttle_speed(PLAIN_FRAME.drive, PLAIN_GAIT.top_speed_m_s, sign)
    assert body.velocity.y == pytest.approx(speed)
    assert wanted.move_y == pytest.approx(speed / PLAIN_GAIT.top_speed_m_s)


def test_a_diagonal_step_is_no_faster_and_easing_arrives_at_rest():
    helm = helm_with('{ frame = "grid", step_s = 0.2, diagonals = true, eased = true, repeats = false }')
    helm.key("KeyW", down=True)
    helm.key("KeyD", down=True)
    speeds_m_s, t = [], 0.0
    while (intent := helm.tick(1 / 1000)).step.stepping:
        speeds_m_s.append(math.hypot(*intent.motion[3:5]))
        t = intent.t
    assert t == pytest.approx(0.2 * math.sqrt(2.0), abs=2e-3)
    assert np.mean(speeds_m_s) == pytest.approx(5.0, rel=0.01)
    assert (speeds_m_s[0] < 0.2, speeds_m_s[-1] < 0.2, max(speeds_m_s)) == (True, True, pytest.approx(7.5, rel=1e-3))
    assert tuple(intent.motion[:2]) == (1.0, 1.0)


# ---- goto --------------------------------------------------------------------------------------------------------


@given(
    st.floats(0.3, 20.0),
    st.floats(0.0, 360.0),
    st.floats(5.0, 150.0),
    st.floats(0.05, 0.5),
    st.floats(0.0, 3.0),
    st.floats(1.0, 12.0),
    st.floats(0.0, 1.0),
    st.sampled_from(["brakes", "coasts", "drags"]),
    st.floats(0.3, 20.0),
)
@settings(max_examples=40)
def test_a_goal_is_reached_without_overshoot_or_jitter(
    far_m, heading_deg, hz, arrival_m, slow_down_m, top_speed, hurry, stops, fade_per_s
):
    """However fast he runs to it at first, as long as what slows him can still stop him."""
    assume(far_m > arrival_m)
    gait = PLAIN_GAIT._replace(top_speed_m_s=top_speed)
    if stops != "brakes":
        numbers = {"drag_per_s": fade_per_s, "coast_half_life_s": math.log(2.0) / fade_per_s}
        gait = with_forms(gait._replace(**{stops: 1}, **numbers))
    tuning = tuned(gait, frame=FRAME_GOTO, goto=GotoTuning(arrival_m, slow_down_m, 1, 0, 0, 0))
    x, y = far_m * math.sin(math.radians(heading_deg)), far_m * math.cos(math.radians(heading_deg))
    most = math.sqrt(2.0 * gait.brake_m_s2 * far_m) if stops == "brakes" else fade_per_s * far_m
    speed = hurry * most
    body = BODY_AT_REST._replace(velocity=Vec3(speed * x / far_m, speed * y / far_m, 0.0))
    state = tick_at_rest(tuning).memory._replace(body=body)
    state = after(tuning, NO_REQUEST, [1e-9], state, goal=(x, y))
    left, ticks = far_m, 0
    while state.frame.goal.there > 0.0:
        state = after(tuning, NO_REQUEST, [1.0 / hz], state)
        now = math.dist((x, y), state.body.position[:2])
        assert now <= left + 1e-9
        left, ticks = now, ticks + 1
        assert ticks < hz * (far_m / top_speed + 20.0 + 20.0 / fade_per_s)
    assert left <= arrival_m + 1e-9
    assert state.frame.arrived == 1.0
    # What is left of the way brakes and never leaves the goal again.
    still = after(tuning, NO_REQUEST, [1.0 / hz] * int(2 * hz), state)
    assert math.dist((x, y), still.body.position[:2]) <= arrival_m + 1e-9
    if stops == "brakes":
        assert (*still.body.velocity, still.frame.arrived) == (0.0, 0.0, 0.0, 0.0)


def test_time_goes_with_the_distance():
    times = []
    for far_m in (10.0, 20.0, 40.0):
        helm = helm_with('{ frame = "goto" }')
        helm.go_to(0.0, far_m, 0.0)
        while not helm.tick(1 / 120).arrived:
            pass
        times.append(helm.tick(0.0).t)
    assert times[1] - times[0] == pytest.approx(10.0 / 3.2, abs=0.02)
    assert times[2] - times[1] == pytest.approx(20.0 / 3.2, abs=0.02)


@pytest.mark.parametrize("hz", [20, 30, 144])
@pytest.mark.parametrize("by", ["request", "velocity"])
@pytest.mark.parametrize(
    "gait", ["top_speed_m_s = 3", "top_speed_m_s = 3\ncoast_half_life_s = 0.4", "thrust_m_s2 = 6\ndrag_per_s = 2"]
)
def test_a_game_that_moves_its_body_by_itself_arrives_under_every_gait(gait, by, hz):
    """What rolls out requests nothing, and what has braked to rest within a tick has no velocity: neither may leave
    the game's own body a hair away for ever.
    """
    text = f'{HEAD}[mode.m]\ngait = "walk"\nsteer = {{ frame = "goto" }}\n[gait.walk]\n{gait}\n'
    profile = profile_from_text(text)
    for far_m in (0.15, 0.3096, 1.7, 4.2482, 5.625):
        helm, x, y, ticks = Helm(profile, prepare="first"), 0.0, 0.0, 0
        goal_x, goal_y = 0.6 * far_m, -0.8 * far_m
        helm.go_to(goal_x, goal_y, 0.0)
        while not (intent := helm.tick(1 / hz)).arrived:
            vel_x, vel_y, _ = intent.velocity(top_speed_m_s=3.0) if by == "request" else intent.velocity()
            x, y, ticks = x + vel_x / hz, y + vel_y / hz, ticks + 1
            helm.place(x, y, 0.0)
            assert ticks < 6 * hz
        assert math.hypot(x - goal_x, y - goal_y) <= 0.1


def test_a_fading_stick_makes_no_body_faster_on_the_way_to_a_goal():
    """The request of the channel fades within the tick in which a goal is given; that of the goal does not."""
    gait = "[gait.walk]\nthrust_m_s2 = 900\ndrag_per_s = 300\n"
    stick = '[[mode.m.move.bind]]\nstick = "pad.left_stick"\n'
    head = f'{HEAD}[mode.m]\ngait = "walk"\nsteer = {{ frame = "goto" }}\n[mode.m.move]\nhalf_life_s = 0.01\n'
    helm = Helm(profile_from_text(head + stick + gait))
    helm.stick("pad.left_stick", 0.0, -1.0)
    run(helm, 0.5)
    helm.stick("pad.left_stick", 0.0, 0.0)
    helm.go_to(9.0, 0.0, 0.0)
    assert max(math.hypot(*helm.tick(1 / 60).motion[3:5]) for _ in range(20)) <= 3.0 * (1.0 + 1e-9)


def test_a_tick_that_covers_no_distance_at_all_goes_on():
    text = f'{HEAD}[mode.m]\ngait = "walk"\nsteer = {{ frame = "goto" }}\n[gait.walk]\ntop_speed_m_s = 0.25\n'
    helm = Helm(profile_from_text(text))
    helm.go_to(3.0, 0.0, 0.0)
    assert helm.tick(5e-324).motion[:3] == (0.0, 0.0, 0.0)
    assert run(helm, 1.0).motion.vel_x == pytest.approx(0.25)


PLAN = "[window.plan]\nleft_m = -8\nright_m = 8\nback_m = -4\nforward_m = 5\n"
PLAN_Y_DOWN = PLAN.replace("-4", "4").replace("5", "-5")
POINTED = '[[mode.m.goal.bind]]\npointer = "pointer.at"\n[[mode.m.goal.bind]]\ntouch = "right half"\n'


def test_a_goal_is_pointed_at_changed_on_the_way_and_dropped_by_hand():
    helm = helm_with('{ frame = "goto" }', POINTED, PLAN)
    helm.pointer(0.75, 0.0)
    assert helm.tick(1 / 60).goal is None
    helm.button("mouse.left", True)
    helm.button("mouse.left", False)
    intent = helm.tick(1 / 60)
    assert (intent.goal, intent.device) == ((4.0, 5.0, 0.0), "mouse")
    assert intent.distance_m == pytest.approx(math.hypot(4.0, 5.0), abs=0.01)
    assert intent.heading_deg == pytest.approx(math.degrees(math.atan2(4.0, 5.0)), abs=0.1)
    helm.touch(0, 0.25, 0.5)  # outside its zone
    assert helm.tick(1 / 60).goal == (4.0, 5.0, 0.0)
    helm.touch(1, 1.0, 1.0)
    intent = helm.tick(1 / 60)
    assert (intent.goal, intent.device) == ((8.0, -4.0, 0.0), "touch")
    helm.key("KeyA", down=True)
    intent = run(helm, 0.2)
    assert (intent.goal, intent.distance_m, intent.heading_deg) == (None, None, 270.0)
    helm.key("KeyA", down=False)
    intent = run(helm, 1.0)
    assert intent.goal is None
    helm.go_to(*intent.position())
    intent = helm.tick(1 / 60)
    assert (intent.goal, intent.arrived) == (None, True)


@pytest.mark.parametrize(
    ("axes", "place"),
    [
        ('right = "+x"\nforward = "-y"\nunit = "px"\nunits_per_m = 32', lambda right, forward: (right, forward)),
        ('right = "-x"\nforward = "+y"', lambda right, forward: (right, forward)),
        ('right = "-y"\nforward = "-x"', lambda right, forward: (forward, right)),
        ('right = "+x"\nforward = "-z"\nup = "+y"', lambda right, forward: (right, 0.0, forward)),
    ],
)
def test_edges_of_the_window_are_places_of_the_game(axes, place):
    """A point in the window lies between what the file says of its edges, whatever the axes."""
    ends = {"right": (-3.0, 13.0), "forward": (-2.0, 7.0)}
    ends = {side: pair[:: -1 if f'{side} = "-' in axes else 1] for side, pair in ends.items()}
    (left, right), (back, forward) = ends["right"], ends["forward"]
    end = "u" if "px" in axes else "m"
    edges = {"left": left, "right": right, "back": back, "forward": forward}
    plan = "[window.plan]\n" + "".join(f"{name}_{end} = {at}\n" for name, at in edges.items())
    mode = '[mode.m]\nsteer = { frame = "goto" }\n[[mode.m.goal.bind]]\npointer = "pointer.at"\n'
    helm = Helm(profile_from_text(f'format = "wendonic-profile"\nversion = 1\n[world]\n{axes}\n{plan}{mode}'))
    helm.button("mouse.left", True)
    helm.pointer(0.75, 0.125)
    goal = helm.tick(1 / 60).goal
    assert goal == pytest.approx(place(left + 0.75 * (right - left), forward + 0.125 * (back - forward)))
    swapped = plan.replace("left_", "x_").replace("right_", "left_").replace("x_", "right_")
    axis = axes.split('"')[1]
    expected = f"left_{end} {'above' if axis[0] == '-' else 'below'} right_{end}, because right is {axis}"
    with pytest.raises(ProfileError, match=re.escape(f"window.plan: shows nothing; allowed: {expected}")):
        profile_from_text(f'format = "wendonic-profile"\nversion = 1\n[world]\n{axes}\n{swapped}{mode}')


def test_a_plan_window_that_scrolls_shows_other_places():
    helm = helm_with('{ frame = "goto" }', POINTED, PLAN)
    helm.button("mouse.left", True)
    helm.pointer(0.5, 0.5)
    assert helm.tick(1 / 60).goal == (0.0, 0.5, 0.0)
    helm.scroll_plan(30.0, -20.0, 0.0)
    # The pointer stays where it is, and points again once it moves.
    assert helm.tick(1 / 60).goal == (0.0, 0.5, 0.0)
    helm.pointer(0.75, 0.5)
    assert helm.tick(1 / 60).goal == (34.0, -19.5, 0.0)
    helm.touch(3, 0.75, 0.5)
    assert helm.tick(1 / 60).goal == (34.0, -19.5, 0.0)
    # What the game itself names is where it is.
    helm.go_to(1.0, 2.0, 0.0)
    assert helm.tick(1 / 60).goal == (1.0, 2.0, 0.0)


def test_a_goal_set_just_after_a_key_was_released_counts():
    helm = helm_with('{ frame = "goto" }', move=KEYS + "fall_s = 0.1\n")
    helm.key("KeyW", down=True)
    run(helm, 0.5)
    helm.key("KeyW", down=False)
    assert helm.tick(1 / 60).amount > 0.5
    helm.go_to(5.0, 0.0, 0.0)
    assert helm.tick(1 / 60).goal == (5.0, 0.0, 0.0)
    assert run(helm, 0.1).goal == (5.0, 0.0, 0.0)


def test_no_goal_is_taken_while_a_stick_steers_or_two_keys_change_under_the_cap():
    """However the stick moves, and whatever rounding makes of a length of 1."""
    helm = helm_with('{ frame = "goto" }', move='stick = "pad.left_stick"\n')
    for tick in range(12):
        helm.stick("pad.left_stick", 0.0, -0.9 + 0.05 * tick)
        helm.go_to(5.0, 0.0, 0.0)
        assert helm.tick(1 / 60).goal is None
    helm.stick("pad.left_stick", 0.0, -0.05)
    helm.go_to(5.0, 0.0, 0.0)
    assert helm.tick(1 / 60).goal == (5.0, 0.0, 0.0)
    helm = helm_with('{ frame = "goto" }', move=KEYS + 'opposites = "latest"\nrise_s = 0.2\nfall_s = 0.15\n')
    helm.key("KeyW", down=True)
    helm.key("KeyD", down=True)
    run(helm, 0.4)
    helm.key("KeyA", down=True)
    for _ in range(30):
        helm.go_to(5.0, 0.0, 0.0)
        assert helm.tick(1 / 60).goal is None


def test_a_game_may_say_every_tick_where_the_body_is_on_its_squares():
    helm = helm_with('{ frame = "grid", step_s = 0.2 }')
    helm.key("KeyW", down=True)
    for _ in range(60):
        helm.place(*helm.tick(1 / 60).position())
    assert helm.tick(0.0).step[:2] == (0, 6)
    helm.place(7.1, -2.9, 0.0)
    intent = run(helm, 0.1)
    assert intent.step[:4] == (7, -2, 7, -3)
    assert intent.motion[:2] == pytest.approx((7.0, -2.5))


def test_locked_until_arrival_another_goal_waits():
    helm = helm_with('{ frame = "goto", retarget = false }')
    helm.go_to(3.0, 0.0, 0.0)
    helm.tick(1 / 60)
    helm.go_to(0.0, 9.0, 0.0)
    assert run(helm, 0.1).goal == (3.0, 0.0, 0.0)
    # Of several the newest one waits.
    helm.go_to(1.0, 1.0, 0.0)
    helm.go_to(0.0, 7.0, 0.0)
    while not (intent := helm.tick(1 / 60)).arrived:
        pass
    assert intent.goal == (0.0, 7.0, 0.0)
    assert intent.position()[0] == pytest.approx(3.0, abs=0.1)
    while not (intent := helm.tick(1 / 60)).arrived:
        pass
    assert intent.goal is None
    assert intent.position()[1] == pytest.approx(7.0, abs=0.1)


@pytest.mark.parametrize("units", [1.0, 50.0, 0.02])
@pytest.mark.parametrize("hz", [4.0, 30.0, 60.0, 144.0])
def test_every_goal_is_arrived_at_by_a_game_that_moves_the_body(units, hz):
    """Thirty goals, the first one underfoot: `arrived` where the game's own body really is within the radius."""
    rng = random.Random(4)
    world = f'[world]\nright = "+x"\nforward = "-y"\nunit = "px"\nunits_per_m = {units}\n'
    head = 'format = "wendonic-profile"\nversion = 1\n'
    steer = '[mode.m]\nsteer = { frame = "goto", slow_down_m = 0.5 }\n[[mode.m.goal.bind]]\npointer = "pointer.at"\n'
    helm = Helm(profile_from_text(f"{head}{world}{PLAN_Y_DOWN}{steer}"))
    at = (0.0, 0.0)
    for number in range(30):
        goal = (0.0, 0.0) if number == 0 else tuple(units * rng.uniform(-6, 6) for _ in range(2))
        helm.go_to(*goal)
        for _ in range(round(20 * hz)):
            helm.place(*at)
            intent = helm.tick(1.0 / hz)
            if intent.arrived:
                break
            at = tuple(place + speed / hz for place, speed in zip(at, intent.velocity(3.2), strict=True))
        assert intent.arrived, (number, goal, at)
        assert math.dist(at, goal) <= 0.1 * units * (1.0 + 1e-9)


@pytest.mark.parametrize("hz", [10.0, 60.0, 144.0])
@pytest.mark.parametrize("own", [True, False])
def test_goals_that_wait_are_walked_to_without_stopping(hz, own):
    """A square of 4 m sides: 16 m and four corners, at 3.2 m/s throughout until the last goal."""
    helm = helm_with('{ frame = "goto", queue = 8, slow_down_m = 2 }')
    corners = [(4.0, 0.0), (4.0, 4.0), (0.0, 4.0), (0.0, 0.0)]
    for corner in corners:
        helm.go_to(*corner, 0.0)
    at, path, arrivals, speeds = (0.0, 0.0), [], 0, []
    for _ in range(round(12 * hz)):
        if not own:
            helm.place(*at, 0.0)
        intent = helm.tick(1.0 / hz)
        arrivals += intent.arrived
        if own:
            at = intent.position()[:2]
        else:
            at = tuple(place + speed / hz for place, speed in zip(at, intent.velocity(3.2)[:2], strict=True))
        path.append(at)
        speeds.append(intent.amount)
    assert arrivals == 4
    for corner in corners:
        assert min(math.dist(corner, place) for place in path) <= max(0.1, 3.2 / hz)
    assert math.dist(path[-1], (0.0, 0.0)) <= 0.1
    # Full speed until the last two metres.
    full = speeds[: round(12.5 / 3.2 * hz)]
    assert min(full) > 0.999
    # More than wait: the newest takes the last one's place.
    helm = helm_with('{ frame = "goto", queue = 2 }')
    for x in (1.0, 2.0, 3.0, 4.0):
        helm.go_to(x, 0.0, 0.0)
    seen, waits = [], []
    for _ in range(400):
        intent = helm.tick(1 / 60)
        waits.append([x for x, *_ in intent.waiting_goals])
        seen += [intent.goal[0]] if intent.goal and intent.goal[0] not in seen else []
    assert seen == [1.0, 2.0, 4.0]
    assert [waits[tick] for tick in (0, 1, 2, 3, -1)] == [[], [2.0], [2.0, 3.0], [2.0, 4.0], []]


def test_a_stick_that_lies_just_below_its_border_drops_no_goal():
    helm = helm_with('{ frame = "goto" }', '[[mode.m.move.bind]]\nstick = "pad.left_stick"\n')
    helm.stick("pad.left_stick", 0.5, 0.0)
    run(helm, 0.2)
    helm.stick("pad.left_stick", 0.13, 0.0)
    run(helm, 0.5)
    assert helm.tick(1 / 60).heading_deg == pytest.approx(90.0)
    helm.go_to(0.0, 3.0, 0.0)
    assert run(helm, 2.0).position()[1] == pytest.approx(3.0, abs=0.1)


def test_keys_beside_goals_steer_by_the_camera_where_that_is_asked_for():
    for forward, heading in (("map", 0.0), ("camera", 90.0)):
        helm = helm_with(f'{{ frame = "goto", forward = "{forward}" }}')
        helm.key("KeyW", down=True)
        assert run(helm, 0.2, view=View(yaw_deg=90.0)).heading_deg == pytest.approx(heading)


SIDE_WORLDS = {
    "2-D, y down": ('right = "+x"\nup = "-y"\nunit = "px"\nunits_per_m = 50', lambda x, up: (50 * x, -50 * up)),
    "3-D, on a plane": ('right = "+x"\nforward = "-z"\nup = "+y"', lambda x, up: (x, up, -7.5)),
}


@pytest.mark.parametrize("own", [True, False])
@pytest.mark.parametrize("hz", [20.0, 144.0])
@pytest.mark.parametrize("world", SIDE_WORLDS)
def test_seen_from_the_side_a_goal_of_any_height_is_walked_to_right_or_left(world, hz, own):
    """Goals that the game alone gives, under and over the body, whose height is the game's business."""
    axes, at = SIDE_WORLDS[world]
    steer = '{ frame = "goto", side_view = true, sectors = 2, queue = 1 }'
    helm = Helm(profile_from_text(f"{HEAD}[world]\n{axes}\n[mode.m]\nsteer = {steer}\n"))
    rng, x = random.Random(6), 0.0
    aside = [3.0] if world.startswith("3-D") else []
    helm.place(*at(x, 2.0))
    for number in range(12):
        goal = x if number == 0 else rng.uniform(-6.0, 6.0)
        to_right = goal > x
        helm.go_to(*at(goal, rng.uniform(-3.0, 9.0))[:2], *aside)
        began = x
        for _ in range(round(6.0 * hz)):
            if not own:
                helm.place(*at(x, rng.uniform(0.0, 4.0)))
            intent = helm.tick(1.0 / hz)
            if own:
                x = intent.motion.pos_x
            else:
                moved = helm.axes.place_to_plan(*intent.velocity(3.2))
                assert moved[1:] == (0.0, 0.0)
                x += moved[0] / hz
            if intent.goal is not None:
                assert intent.distance_m == pytest.approx(abs(goal - x), abs=5.0 / hz)
            if intent.arrived:
                break
        assert intent.arrived
        assert abs(x - goal) <= 0.1 + 1e-9
        if abs(goal - began) > 0.1:
            assert intent.sector == (0 if to_right else 1)
    # Depth and height stay where the game has them.
    if own:
        assert intent.position() == pytest.approx(at(x, 2.0))
    # Two goals in a row: the first is passed at full speed, straight on.
    for far in (2.0, 6.0):
        helm.go_to(*at(x + far, 0.0)[:2], *aside)
    for _ in range(round(hz) if own else 1):
        intent = helm.tick(1.0 / hz)
        assert intent.amount > 0.999
        assert intent.move.y == 0.0


@pytest.mark.parametrize("own", [True, False])
@pytest.mark.parametrize("hz", [20.0, 60.0, 144.0])
def test_the_way_into_a_goal_gets_slower_tick_by_tick(hz, own):
    """Of slow_down_m = 0.6 the request falls with the distance, and its last tick is no lurch."""
    helm, x = helm_with('{ frame = "goto" }'), 0.0
    helm.go_to(3.0, 0.0, 0.0)
    amounts = []
    while not amounts or amounts[-1] > 0.0:
        if not own:
            helm.place(x, 0.0, 0.0)
        intent = helm.tick(1.0 / hz)
        x += intent.velocity(3.2)[0] / hz
        amounts.append(intent.amount)
    slowing = amounts[amounts.index(max(amounts)) :]
    assert max(amounts) > 0.99
    assert all(after <= before + 1e-9 for before, after in itertools.pairwise(slowing))
    assert slowing[-2] < 0.35


@pytest.mark.parametrize(
    "ramps",
    [
        "rise_s = 0\nfall_s = 0",
        "rise_s = 0.03\nfall_s = 0.02",
        "rise_s = 0.2\nfall_s = 0.1",
        "rise_s = 0.1\nfall_s = 0",
        "rise_s = 0.05\nfall_s = 0.01",
        "rise_s = 0.01\nfall_s = 0.13",
    ],
)
def test_a_ramp_of_an_axis_that_ends_within_a_tick_goes_as_far_at_every_rate(ramps):
    """Up for a second and down for one, at 3 m/s: s = 3 (1 - rise / 2), and back by as much less the fall."""
    keys = f'[[mode.m.rise.bind]]\nkeys = {{ up = ["KeyE"], down = ["KeyQ"] }}\n{ramps}\n'
    gait = f"gait = 'own'\n{keys}[gait.own]\naccel_m_s2 = 1e5\nbrake_m_s2 = 1e5\nrise_m_s = 3\n"
    rise_s, fall_s = (float(line.split("=")[1]) for line in ramps.splitlines())
    for hz in (10, 20, 30, 60, 144):
        helm = Helm(profile_from_text(f"{HEAD}[mode.m]\nsteer = {{ frame = 'fly' }}\n{gait}"))
        helm.key("KeyE", down=True)
        up = run(helm, 1.0, hz).motion.pos_z
        assert up == pytest.approx(3.0 * (1.0 - rise_s / 2.0), abs=0.002)
        helm.key("KeyE", down=False)
        helm.key("KeyQ", down=True)
        down = run(helm, 1.0, hz).motion.pos_z - up
        expected = -3.0 * (1.0 - fall_s - rise_s / 2.0) + 3.0 * fall_s / 2.0
        # What falls more slowly than it rises is not quite itself in the tick in which it goes through zero.
        inexact_m = 3.0 * min(max(fall_s - rise_s, 0.0), 1.0 / hz) / 4.0
        assert down == pytest.approx(expected, abs=0.002 + inexact_m)


@pytest.mark.parametrize(("rise_s", "fall_s"), [(0.1, 0.0), (0.1, 0.02), (0.06, 0.05), (0.1, 0.1)])
@pytest.mark.parametrize("hz", [20, 30, 60, 144])
def test_a_reversal_through_zero_turns_a_cart_and_takes_a_walker_as_far_at_every_rate(rise_s, fall_s, hz):
    """The area under the key: it falls for `fall_s` and rises for `rise_s` before it is back at 1."""
    keys = f"{{ right = ['KeyD'], left = ['KeyA'] }}\nrise_s = {rise_s}\nfall_s = {fall_s}\n"
    gait = "[gait.own]\ntop_speed_m_s = 4\naccel_m_s2 = 1e5\nbrake_m_s2 = 1e5\n"
    throttle = "[[mode.m.throttle.bind]]\nkeys = { forward = ['KeyW'] }\n"
    walks = f"[mode.m]\ngait = 'own'\nsteer = {{ frame = 'map' }}\n[[mode.m.move.bind]]\nkeys = {keys}{gait}"
    steer = "steer = { frame = 'drive', turn_deg_s = 100 }\n"
    drives = f"[mode.m]\ngait = 'own'\n{steer}{throttle}[[mode.m.turn.bind]]\nkeys = {keys}{gait}"
    there, back = 0.5 - rise_s / 2.0, 0.5 - 1.5 * fall_s - rise_s / 2.0
    turned = (drives, lambda intent: ((intent.face_deg + 180.0) % 360.0 - 180.0) / 100.0)
    for text, of in ((walks, lambda intent: intent.motion.pos_x / 4.0), turned):
        helm = Helm(profile_from_text(HEAD + text))
        helm.key("KeyW", down=True)
        helm.key("KeyD", down=True)
        assert of(run(helm, 0.5, hz)) == pytest.approx(there, abs=5e-4)
        helm.key("KeyD", down=False)
        helm.key("KeyA", down=True)
        assert of(run(helm, 0.5, hz)) == pytest.approx(there - back, abs=5e-4)


@pytest.mark.parametrize(("rise_s", "fall_s"), [(0.1, 0.05), (0.1, 0.02), (0.06, 0.06)])
@pytest.mark.parametrize("hz", [20, 30, 60])
def test_from_one_keyboard_to_the_other_it_is_as_far_at_every_rate(rise_s, fall_s, hz):
    """D is released as ArrowRight is pressed: what falls and what rises add up, to 1 at most."""
    times = np.linspace(0.0, 0.3, 300_001)
    together = np.maximum(1.0 - times / fall_s, 0.0) + np.minimum(times / rise_s, 1.0)
    expected = float(np.minimum(together, 1.0).mean()) * 0.3
    hands = (("KeyA", "KeyD"), ("ArrowLeft", "ArrowRight"))
    entries = [
        f"keys = {{ left = ['{left}'], right = ['{right}'] }}\nrise_s = {rise_s}\nfall_s = {fall_s}\n"
        for left, right in hands
    ]
    gait = "[gait.own]\ntop_speed_m_s = 4\naccel_m_s2 = 1e5\nbrake_m_s2 = 1e5\n"
    walks = "[mode.m]\ngait = 'own'\nsteer = { frame = 'map' }\n"
    drives = "[mode.m]\ngait = 'own'\nsteer = { frame = 'drive', turn_deg_s = 100 }\n"
    drives += "[[mode.m.throttle.bind]]\nkeys = { forward = ['KeyW'] }\n"
    cases = (
        (walks, "move", lambda intent: intent.motion.pos_x / 4.0),
        (drives, "turn", lambda intent: intent.face_deg / 100.0),
    )
    for text, channel, of in cases:
        binds = "".join(f"[[mode.m.{channel}.bind]]\n{entry}" for entry in entries)
        helm = Helm(profile_from_text(HEAD + text + binds + gait))
        helm.key("KeyW", down=True)
        helm.key("KeyD", down=True)
        before = of(run(helm, 0.5, hz))
        helm.key("KeyD", down=False)
        helm.key("ArrowRight", down=True)
        assert of(run(helm, 0.3, hz)) - before == pytest.approx(expected, abs=5e-4)


@pytest.mark.parametrize("slow_down_m", [0.0, 2.0])
def test_a_game_that_moves_the_body_itself_says_where_it_is(slow_down_m):
    """A body moved by `velocity(top)` at 10 Hz walks into the goal and stands there."""
    helm = helm_with(f'{{ frame = "goto", slow_down_m = {slow_down_m} }}')
    helm.go_to(0.0, 7.0, 0.0)
    y, ys = 0.0, []
    for _ in range(100):
        helm.place(0.0, y, 0.0)
        intent = helm.tick(0.1)
        y += intent.velocity(3.2)[1] * 0.1
        ys.append(y)
    assert ys == sorted(ys)
    assert 6.9 <= ys[-1] <= 7.0
    assert ys[-1] == ys[-30]
    with pytest.raises(WendonicError, match=r"place: .*finite numbers"):
        helm.place(0.0, math.nan, 0.0)


# ---- facing ------------------------------------------------------------------------------------------------------


def test_along_its_own_heading_a_body_that_turns_goes_in_a_circle():
    """Closed form: strafing at v with a turn rate w goes round v / w."""
    helm = helm_with('{ frame = "facing", face = "turn", turn_deg_s = 90 }', TURN_KEYS + "rise_s = 0.2\n")
    helm.key("KeyW", down=True)
    helm.key("KeyE", down=True)
    run(helm, 1.0, hz=50)
    places = [run(helm, 1.0, hz=50).motion[:2] for _ in range(4)]
    radius = 3.2 / math.radians(90.0)
    # The gait could turn four times as quickly.
    for first, second in zip(places, places[2:], strict=False):
        assert math.dist(first, second) / 2.0 == pytest.approx(radius, abs=1e-6)
    # Of the ramp of 0.2 s a half is lost.
    assert helm.tick(0.0).face_deg == pytest.approx((90.0 * (5.0 - 0.2 / 2.0)) % 360.0, abs=1e-9)


TURN_KEYS = '[[mode.m.turn.bind]]\nkeys = { right = ["KeyE"], left = ["KeyQ"] }\n'


@pytest.mark.parametrize("face", ["travel", "view", "aim", "hold"])
@pytest.mark.parametrize("frame", few_of(["map", "camera", "facing", "goto", "fly"], ["map", "fly"]))
def test_a_face_turns_the_short_way_and_stops_exactly_behind(frame, face):
    """At 180 deg it turns to one side, arrives, and stays; it never swings to and fro."""
    rate = "" if face == "hold" else ", turn_deg_s = 100"
    helm = helm_with(f'{{ frame = "{frame}", face = "{face}"{rate} }}')
    helm.aim_at(0.0, -1000.0, 0.0)
    helm.key("KeyS", down=True)
    faces = []
    for _ in range(150):
        intent = helm.tick(1 / 60, view=View(180.0 if face == "view" else 0.0))
        faces.append(intent.face_deg)
    turned = [(b - a + 180.0) % 360.0 - 180.0 for a, b in zip([0.0, *faces], faces, strict=False)]
    held = face == "hold" or (frame, face) == ("facing", "travel")
    if held:
        assert faces == [0.0] * 150
    else:
        assert faces[-1] == pytest.approx(180.0, abs=0.5)
        assert all(-0.01 <= step <= 100.0 / 60.0 + 1e-9 for step in turned)
        assert max(map(abs, turned[-30:])) < 0.01


@pytest.mark.parametrize(
    ("tie", "facings"),
    [
        ("sideways", {"WD": 1, "SD": 1, "SA": 3, "WA": 3}),
        ("upright", {"WD": 0, "SD": 2, "SA": 2, "WA": 0}),
        ("later", {"WD": 1, "SD": 1, "SA": 3, "WA": 3}),
    ],
)
@pytest.mark.parametrize("turn_deg_s", [540, 100000])
def test_of_four_facings_two_keys_in_one_tick_show_the_one_that_the_rule_names(tie, facings, turn_deg_s):
    """The same to the left as to the right, and upright as upside down; of two in one tick the side is shown."""
    frame = f'frame = "map", sectors = 4, turn_deg_s = {turn_deg_s}, sector_tie = "{tie}"'
    for keys, facing in facings.items():
        helm = helm_with(f"{{ {frame} }}")
        for letter in keys:
            helm.key(f"Key{letter}", True)
        sector = run(helm, 1.0).sector
        assert sector == facing, keys
    # One after the other, the later key shows its picture, and it stays, wherever the body faced before, also while
    # it still turns to the first one, and once both are released.
    for start, (first, second), gap_s in itertools.product("WDSA", ("WD", "DW", "SA", "AS"), (1 / 60, 5 / 60, 0.5)):
        helm = helm_with(f"{{ {frame} }}")
        helm.key(f"Key{start}", True)
        run(helm, 0.5)
        helm.key(f"Key{start}", False)
        run(helm, 0.1)
        helm.key(f"Key{first}", True)
        run(helm, gap_s)
        helm.key(f"Key{second}", True)
        seen = [run(helm, 0.5).sector, run(helm, 0.1).sector]
        helm.key(f"Key{first}", False)
        helm.key(f"Key{second}", False)
        seen.append(run(helm, 0.1).sector)
        side, upright = {"D": 1, "A": 3}, {"W": 0, "S": 2}
        wins = {"sideways": first + second, "upright": first + second, "later": second}[tie]
        names = upright if tie == "upright" else side if tie == "sideways" else side | upright
        assert seen == [names[next(key for key in wins if key in names)]] * 3, (start, first, second, gap_s)


@pytest.mark.parametrize("shown", ["face", "heading"])
@pytest.mark.parametrize(
    ("hold_s", "smoothing", "sector"),
    [
        (0.0, "half_life_s = 0", 0),
        (0.0, "", 0),
        (0.06, "half_life_s = 0", 1),
        (0.06, "", 1),
        (0.06, "half_life_s = 0.1", 1),
    ],
)
def test_a_diagonal_released_key_by_key_stays_one_while_it_is_held(hold_s, sector, smoothing, shown):
    """Two keys released two ticks apart, as thumbs do, whatever ramps and smoothing leave; held for longer, the one
    that is left counts.
    """
    held = f"diagonal_hold_s = {hold_s}"
    steer = f'{{ frame = "map", sectors = 8, turn_deg_s = 100000, sector_by = "{shown}", {held} }}'
    helm = helm_with(steer, window=f"[mode.m.move]\n{smoothing}\n")
    for code in ("KeyW", "KeyD"):
        helm.key(code, True)
    assert run(helm, 0.5).sector == 1
    helm.key("KeyD", False)
    run(helm, 2 / 60)
    helm.key("KeyW", False)
    assert run(helm, 0.5).sector == sector
    for code in ("KeyW", "KeyD"):
        helm.key(code, True)
    run(helm, 0.5)
    helm.key("KeyD", False)
    intent = run(helm, 0.5)
    assert (intent.sector, intent.heading_deg) == (0, pytest.approx(0.0, abs=2.0))


def test_a_sprite_by_heading_turns_round_without_the_pictures_between():
    for by, count in (("face", 4), ("heading", 1)):
        helm = helm_with(f'{{ frame = "map", sectors = 8, sector_by = "{by}", turn_deg_s = 540 }}')
        helm.key("KeyW", True)
        run(helm, 0.5)
        helm.key("KeyW", False)
        helm.key("KeyS", True)
        seen = [helm.tick(1 / 60).sector for _ in range(40)]
        changes = sum(before != after for before, after in itertools.pairwise([0, *seen]))
        assert (changes, seen[-1]) == (count, 4)


@pytest.mark.parametrize("frame", ["camera", "map", "goto", "fly"])
def test_a_body_that_faces_the_view_is_there_at_once_unless_a_rate_is_written(frame):
    for rate, faces_deg in (("", 170.0), (", turn_deg_s = 600", 10.0)):
        helm = helm_with(f'{{ frame = "{frame}", face = "view"{rate} }}')
        assert helm.tick(1 / 60, View(170.0)).face_deg == pytest.approx(faces_deg)


@pytest.mark.parametrize("frame", ["map", "camera"])
def test_a_reversal_turns_by_the_right_at_every_heading_and_tick_rate(frame):
    """Sixty yaws and a bit of rounding: the body is on the right-hand side half-way through, at 30, 60 and 144 Hz."""
    for yaw_deg, hz in itertools.product(range(0, 360, 6), (30.0, 60.0, 144.0)):
        helm = helm_with(f'{{ frame = "{frame}", turn_deg_s = 360 }}', move='stick = "pad.left_stick"\n')
        x, y = math.sin(math.radians(yaw_deg)), math.cos(math.radians(yaw_deg))
        helm.stick("pad.left_stick", x, -y)
        began_deg = run(helm, 0.6, hz).face_deg
        helm.stick("pad.left_stick", -x, y)
        half_deg = run(helm, 0.25, hz).face_deg
        assert 0.0 < (half_deg - began_deg) % 360.0 < 180.0, (yaw_deg, hz)


@pytest.mark.parametrize(
    ("pitch_deg", "forward", "rise", "amount", "heading_deg"),
    [
        (-90.0, 1.0, 0.0, 1.0, None),
        (90.0, 1.0, 0.0, 1.0, None),
        (-60.0, 1.0, 0.0, 1.0, 0.0),
        (0.0, 0.0, 1.0, 1.0, None),
        (0.0, 0.0, -0.5, 0.5, None),
        (0.0, 1.0, 1.0, 1.0, 0.0),
    ],
)
def test_the_amount_of_a_flight_is_the_length_of_the_whole_request(pitch_deg, forward, rise, amount, heading_deg):
    """With the same speed up as along, a dive asks for as much as level flight."""
    axes = '[mode.m.move]\nhalf_life_s = 0\n[[mode.m.rise.bind]]\naxis = "pad.right_stick.y"\n'
    plain = 'dead_zone = { form = "none" }\ncurve = { form = "linear" }\n'
    stick = f'stick = "pad.left_stick"\n{plain}'
    speed = "[gait.walk]\ntop_speed_m_s = 4\nrise_m_s = 4\n"
    helm = helm_with('{ frame = "fly", level = false }', f"{axes}{plain}{speed}", move=stick)
    helm.stick("pad.left_stick", 0.0, -forward)
    helm.stick("pad.right_stick", 0.0, -rise)
    intent = run(helm, 1.0, view=View(0.0, pitch_deg))
    assert intent.amount == pytest.approx(amount)
    assert intent.heading_deg == heading_deg
    assert math.hypot(*intent.velocity(4.0)) == pytest.approx(4.0 * amount)
    assert math.hypot(*intent.velocity()) == pytest.approx(4.0 * amount)


@pytest.mark.parametrize(("face_above", "flips"), [(0.0, True), (0.3, False), (0.2, True)])
def test_a_stick_that_springs_back_turns_the_body_round_only_below_the_amount(face_above, flips):
    """A stick let go at full tilt overshoots its middle by 0.25 for 50 ms."""
    frame = f'frame = "map", turn_deg_s = 100000, face_above = {face_above}'
    dead_zone = 'dead_zone = { form = "none" }\ncurve = { form = "linear" }\n'
    helm = Helm(
        profile_from_text(
            f"""format = "wendonic-profile"\nversion = 1\n[mode.m]\nsteer = {{ {frame} }}
            [mode.m.move]\nhalf_life_s = 0\n[[mode.m.move.bind]]\nstick = "pad.left_stick"\n{dead_zone}"""
        )
    )
    seen = []
    for x, ticks in ((1.0, 10), (-0.25, 3), (0.0, 10)):
        helm.stick("pad.left_stick", x, 0.0)
        seen += [helm.tick(1 / 60) for _ in range(ticks)]
    assert {intent.face_deg for intent in seen} == ({90.0, 270.0} if flips else {90.0})
    # The request itself is what it was.
    assert min(intent.move.x for intent in seen) == pytest.approx(-0.25)


def test_a_side_view_has_one_axis_and_its_sprite_turns_at_once_and_keeps_its_side():
    profile = profile_from_text(
        HEAD + '[world]\nright = "+x"\nup = "-y"\n[mode.m]\n'
        'steer = { frame = "map", side_view = true, sectors = 2 }\n'
        '[[mode.m.move.bind]]\nkeys = { right = ["KeyD"], left = ["KeyA"] }\n'
        '[[mode.m.move.bind]]\nstick = "pad.left_stick"\n'
    )
    helm = Helm(profile)
    helm.stick("pad.left_stick", -0.68, 0.74)
    intent = run(helm, 0.5)
    # A full tilt is one, whatever its direction; of it counts what goes sideways, a little less than its share.
    across, along = 0.68 - 0.14 * 0.74, 0.74 - 0.14 * 0.68
    assert intent.amount == pytest.approx(across / math.hypot(across, along))
    assert (intent.move.y, intent.sector, intent.velocity()[1]) == (0.0, 1, 0.0)
    # A thumb that pushes upright trembles across, and asks for nothing.
    for x in (0.05, -0.1, 0.1):
        helm.stick("pad.left_stick", x, 0.9)
        assert (run(helm, 0.5).sector, run(helm, 0.1).amount) == (1, 0.0)
    helm.stick("pad.left_stick", 0.9, 0.0)
    assert helm.tick(1 / 60).sector == 0


# ---- hands -------------------------------------------------------------------------------------------------------


def quaternion(yaw_deg):
    """A pose of WebXR that looks to the right by so much: about y, the opposite way."""
    half = -math.radians(yaw_deg) / 2.0
    return 0.0, math.sin(half), 0.0, math.cos(half)


@pytest.mark.parametrize(
    ("forward", "poses", "expected"),
    [
        ("head", {"head": 30.0, "hand.left": 90.0}, 30.0),
        ("hand.left", {"head": 30.0, "hand.left": 90.0}, 90.0),
        ("hand.right", {"head": 30.0, "hand.right": 300.0}, 300.0),
        ("hands", {"head": 200.0, "hand.left": 350.0, "hand.right": 30.0}, 10.0),
        ("hands", {"head": 40.0, "hand.left": 90.0, "hand.right": 270.0}, 40.0),
        ("hands", {"head": 40.0, "hand.left": 90.0}, 40.0),
        ("hand.right", {"head": 40.0}, 40.0),
        ("head", {}, 0.0),
    ],
)
@pytest.mark.parametrize("view_deg", [0.0, -75.0])
def test_forward_is_where_head_or_hands_point_on_top_of_the_view(forward, poses, expected, view_deg):
    helm = helm_with(f'{{ frame = "hands", forward = "{forward}" }}', move='stick = "hand.left.stick"\n')
    for thing, yaw_deg in poses.items():
        helm.pose(f"{thing}.pose", (0.0, 1.5, 0.0), quaternion(yaw_deg))
    helm.stick("hand.left.stick", 0.0, -1.0)
    intent = run(helm, 0.2, view=View(view_deg))
    assert intent.heading_deg == pytest.approx((expected + view_deg) % 360.0, abs=1e-6)
    # What is lost points where it did.
    helm.lose("head")
    assert run(helm, 0.2).heading_deg == pytest.approx((expected + view_deg) % 360.0, abs=1e-6)


def test_in_a_headset_the_face_goes_with_the_head_wherever_the_hands_point():
    helm = helm_with('{ frame = "hands", forward = "hands", face = "view" }', move='stick = "hand.left.stick"\n')
    for thing, yaw_deg in (("head", 50.0), ("hand.left", 120.0), ("hand.right", 120.0)):
        helm.pose(f"{thing}.pose", (0.0, 1.5, 0.0), quaternion(yaw_deg))
    helm.stick("hand.left.stick", 0.0, -1.0)
    intent = run(helm, 1.0, view=View(10.0))
    assert (intent.heading_deg, intent.face_deg) == (pytest.approx(130.0), pytest.approx(60.0))


@pytest.mark.parametrize("comfort", ["", "[mode.m.comfort]\nvignette = {}\n"])
def test_after_a_teleport_the_head_is_where_the_arc_landed_wherever_it_is_in_the_play_space(comfort):
    """Worked out with SciPy's rotations: hand and head stand about the middle of the play space, which is turned."""
    steer = '{ frame = "hands", teleport = { press = "go", speed_m_s = 6 } }'
    press = '[mode.m.press.go]\nbind = ["hand.right.lower"]\n'
    helm = helm_with(steer, press + comfort, move='stick = "hand.left.stick"\n')
    head, hand, yaw_deg = np.array([0.4, 1.7, -0.3]), np.array([0.1, 1.2, -0.6]), 70.0
    points = Rotation.from_euler("YX", [-20.0, 25.0], degrees=True)
    helm.button("hand.right.lower", True)
    helm.pose("head.pose", head, (0.0, 0.0, 0.0, 1.0))
    helm.pose("hand.right.pose", hand, points.as_quat())
    pointing = helm.tick(0.01, view=View(yaw_deg))
    x, y, _ = pointing.position()
    # In the play space -z is ahead; on the plan that is +y, and a turn to the right is clockwise.
    turned = Rotation.from_euler("Y", -yaw_deg, degrees=True)
    (from_x, from_up, from_z), (to_x, to_up, to_z) = turned.apply(hand), 6.0 * turned.apply(points.apply([0, 0, -1]))
    airtime_s = (to_up + math.sqrt(to_up**2 + 2.0 * 9.81 * from_up)) / 9.81
    lands = np.array([x + from_x + to_x * airtime_s, y - from_z - to_z * airtime_s])
    assert pointing.landing[:2] == pytest.approx(lands, abs=1e-9)
    helm.button("hand.right.lower", False)
    there = np.array(helm.tick(0.01).position()[:2])
    head_x, _, head_z = turned.apply(head)
    assert there + np.array([head_x, -head_z]) == pytest.approx(lands, abs=1e-9)


def test_a_pointing_hand_teleports_on_release_unless_it_is_lost():
    def pointing():
        helm = Helm(demo_profile("headset"), course=demo_course("yard"))
        helm.pose("hand.right.pose", (0.0, 4.905, 0.0), (0.0, 0.0, 0.0, 1.0))
        helm.button("hand.right.lower", True)
        return helm, helm.tick(1 / 60)

    helm, intent = pointing()
    # Level, 4.905 m up: it falls for a second, at 7 m/s.
    assert intent.landing == pytest.approx((0.0, 0.0, -7.0), abs=1e-9)
    # The profile's world: y up, -z forward.
    assert intent.arc(3) == [
        pytest.approx((0.0, 4.905, 0.0)),
        pytest.approx((0.0, 4.905 * 0.75, -3.5)),
        pytest.approx((0.0, 0.0, -7.0), abs=1e-9),
    ]
    helm.button("hand.right.lower", False)
    intent = helm.tick(1 / 60)
    assert (intent.teleported, intent.landing) == (True, None)
    assert intent.motion.pos_y == pytest.approx(7.0)
    helm, _ = pointing()
    helm.lose("hand.right")
    intent = helm.tick(1 / 60)
    assert (intent.teleported, intent.motion.pos_y) == (False, 0.0)
    assert intent.arc() == []
    # Into the shed's wall there is no landing.
    helm, _ = pointing()
    helm.place(0.0, 0.0, -12.0)
    intent = helm.tick(1 / 60)
    assert (intent.landing, len(intent.arc())) == (None, 24)
    with pytest.raises(WendonicError, match="points: found 1; allowed: 2 or more"):
        intent.arc(1)


def test_walking_by_hands_follows_the_head():
    helm = Helm(demo_profile("headset"))
    for event in HandsStandIn(cadence_hz=0.9, amplitude_m=0.28, seed=6).walk(0.0, 3.0):
        helm.apply(event)
        intent = helm.tick(1 / 270)
    assert intent.motion.pos_y > 4.0
    assert abs(intent.motion.pos_x) < 1e-9


# ---- the batch, and everything at once ----------------------------------------------------------------------------

EVERY_FRAME = (
    HEAD
    + PLAN
    + "".join(
        f"[mode.{name}]\nsteer = {steer}\n{binds.replace('M.', f'mode.{name}.')}"
        f"[[mode.{name}.move.bind]]\n{KEYS}opposites = '{opposites}'\n"
        f"[[mode.{name}.move.bind]]\nstick = 'pad.left_stick'\n"
        f"[[mode.{name}.look.bind]]\nstick = 'pad.right_stick'\n{look}"
        for name, steer, opposites, binds, look in (
            ("strafe", '{ frame = "facing", slope = {} }', "latest", "", ""),
            ("stroll", '{ frame = "facing", face = "travel" }', "cancel", "", ""),
            ("aim", '{ frame = "map", face = "aim", sectors = 8 }', "cancel", "", ""),
            ("barrow", '{ frame = "camera", face = "hold", slope = { steepest_deg = 20 } }', "cancel", "", ""),
            (
                "cart",
                '{ frame = "drive", slope = {} }',
                "cancel",
                "[[M.turn.bind]]\naxis = 'pad1.left_stick.x'\n",
                "",
            ),
            (
                "bee",
                '{ frame = "fly", level = false }',
                "cancel",
                "[[M.rise.bind]]\naxis = 'pad1.left_stick.y'\n",
                "",
            ),
            ("crates", '{ frame = "grid", step_s = 0.03, diagonals = true, eased = true }', "earliest", "", ""),
            ("errand", '{ frame = "goto", slope = {} }', "latest", POINTED.replace("mode.m.", "M."), ""),
            (
                "headset",
                '{ frame = "hands", forward = "hands", teleport = { press = "beam" } }',
                "cancel",
                "[M.comfort]\nroom = { return_s = 0.1 }\n[M.press]\nbeam = { bind = ['hand.right.lower'] }\n"
                "[[M.move.bind]]\nhands = ['hand.left', 'hand.right']\n",
                "snap_deg = 45\n",
            ),
        )
    )
)
EVERY_FRAME += f"""
[mode.hopper]
gait = "hop"
press_gaits = {{ dash = "run", sneak = "icy" }}
steer = {{ frame = "camera", slope = {{}} }}
[[mode.hopper.move.bind]]
{KEYS}
[[mode.hopper.move.bind]]
stick = 'pad.left_stick'
[mode.hopper.press]
jump = {{ bind = ["key.Space"], buffer_s = 0.05, grace_s = 0.05 }}
stomp = {{ bind = ["mouse.left"], buffer_s = 0.3 }}
dash = {{ bind = ["key.ShiftLeft"] }}
sneak = {{ bind = ["key.KeyC"] }}
[mode.sled]
gait = "sled"
steer = {{ frame = "facing", face = "travel" }}
[[mode.sled.move.bind]]
{KEYS}
[[mode.sled.move.bind]]
stick = 'pad.left_stick'
[mode.moth]
gait = "moth"
steer = {{ frame = "fly", level = false }}
[[mode.moth.move.bind]]
{KEYS}
[[mode.moth.rise.bind]]
axis = 'pad1.left_stick.y'
[gait.hop]
airborne = {{ accel_m_s2 = 5, brake_m_s2 = 0 }}
reverse_m_s2 = 60
fall = {{ gravity_ratio = 1.5, top_speed_m_s = 9 }}
jump = {{ height_m = 1.2, early_release_ratio = 0.3 }}
[gait.run]
jump = {{ speed_m_s = 6, apex_s = 0.3 }}
[gait.icy]
coast_half_life_s = 0.3
gravity_m_s2 = 20
[gait.sled]
thrust_m_s2 = 12
drag_per_s = 3
[gait.moth]
turn_loss = 0.6
coast_half_life_s = 0.2
"""
FRAMES = ("hopper", "sled", "moth", "strafe", "stroll", "aim", "barrow", "cart", "bee", "crates", "errand", "headset")


def column(trace, name):
    return trace[name].to_numpy(float)


@pytest.mark.parametrize(
    ("mode", "engine"),
    few_of(
        [*((mode, "interpreted") for mode in FRAMES), *((mode, "compiled") for mode in ("hopper", "cart", "moth"))],
        {(mode, "interpreted") for mode in ("hopper", "cart", "bee", "crates", "headset")},
    ),
)
def test_the_batch_and_the_helm_agree_in_every_frame_on_a_course(mode, engine):
    """A second of everything at once, at random but fixed, on the terraces."""
    random = np.random.default_rng(len(mode))
    controls = (
        "key.KeyW key.KeyS key.KeyA key.KeyD pad.left_stick pad.right_stick pad1.left_stick pointer.at mouse.left "
        "touch.0 goal aim head.pose hand.left.pose hand.right.pose hand.left.squeeze hand.right.squeeze "
        "hand.right.lower key.Space key.ShiftLeft key.KeyC lost.hand.left lost.focus view"
    ).split()
    widths = {"stick": 2, "pointer.at": 2, "goal": 2, "aim": 2, "view": 2, "pose": 7, "touch": 3}
    events = []
    for k in range(400):
        control = controls[random.integers(len(controls) - (3 if k % 10 else 0))]
        width = next((width for words, width in widths.items() if words in control), 1)
        value = random.uniform(-1.0, 1.0, width) * (8.0 if control in ("goal", "aim") else 1.0)
        if width == 1:
            value = np.round(np.abs(value))
        elif control in ("pointer.at", "touch.0"):
            value = np.abs(value)
        elif control == "view":
            value = value * 180.0
        elif control.endswith(".pose"):
            value[:3] *= 0.3
        events.append(Event(k * 0.01, control, tuple(value.tolist()) if width > 1 else float(value[0])))
    recording, profile, course = Recording(events), profile_from_text(EVERY_FRAME), demo_course("terraces")
    trace = shape(recording, profile, hz=45, mode=mode, engine=engine, course=course)
    helm, rows = Helm(profile, course=course, mode=mode, prepare="first"), []
    helm.enter(mode)
    for _, some in recording.ticks(45):
        for event in some:
            helm.apply(event)
        intent = helm.tick(1 / 45)
        flags = [float(flag) for name in ("jump", "stomp") for flag in intent.press(name)[:3]]
        rows.append([*intent.motion, intent.face_deg, intent.amount, *intent.move, *flags])
    names = (
        "pos_x pos_y pos_z vel_x vel_y vel_z grounded face_deg amount move_x move_y jump_held jump_began jump_ended "
        "stomp_held stomp_began stomp_ended"
    ).split()
    for name, values in zip(names, np.array(rows).T, strict=True):
        difference = column(trace, name) - values
        if name == "face_deg":
            difference = (difference + 180.0) % 360.0 - 180.0
        assert np.abs(difference).max() < 1e-9, name
    assert np.isfinite(np.array(rows)).all()
    assert np.ptp(column(trace, "pos_x")) + np.ptp(column(trace, "pos_y")) > 0.1


def test_a_body_keeps_its_place_and_speed_from_mode_to_mode():
    helm = Helm(profile_from_text(EVERY_FRAME))
    helm.enter("bee")
    helm.stick("pad1.left_stick", 0.0, -1.0)
    helm.key("KeyW", down=True)
    assert run(helm, 1.0).motion.pos_z > 1.0
    for mode in ("errand", "cart", "headset", "crates", "strafe", "barrow", "stroll", "aim", "bee"):
        before = run(helm, 0.3).motion
        helm.enter(mode)
        assert helm.tick(0.0).motion[:5] == before[:5]
    helm.lose()
    run(helm, 1.0)
    # On squares it goes to the middle of the one it is in.
    before = helm.tick(0.0).motion
    helm.enter("crates")
    now = run(helm, 0.1).motion
    assert now[:2] == (math.floor(before.pos_x + 0.5), math.floor(before.pos_y + 0.5))


number = st.floats(-20.0, 20.0)
NORMALS = [(0, 0, 1), (0, -0.6, 0.8), (0.9, 0.1, 0.1), (1, 0, 0)]
OPERATIONS = st.one_of(
    st.tuples(st.just("enter"), st.sampled_from(FRAMES)),
    st.tuples(st.just("place"), number, number, number),
    st.tuples(st.just("go_to"), number, number, number),
    st.tuples(st.just("aim_at"), number, number, number),
    st.tuples(st.just("view"), st.floats(-400.0, 400.0), st.floats(-90.0, 90.0)),
    st.tuples(
        st.just("ground"), st.booleans(), st.sampled_from([(0, 0, 1), (0, -0.6, 0.8), (0.9, 0.1, 0.1), (1, 0, 0)])
    ),
    st.tuples(st.just("block"), st.lists(st.tuples(st.integers(-3, 3), st.integers(-3, 3)), max_size=6)),
    st.tuples(st.just("key"), st.sampled_from(["KeyW", "KeyA", "KeyS", "KeyD", "Space", "ShiftLeft"]), st.booleans()),
    st.tuples(st.just("stick"), st.sampled_from(["pad.left_stick", "pad.right_stick"]), unit, unit),
    st.tuples(st.just("button"), st.sampled_from(["hand.left.squeeze", "hand.right.lower"]), st.booleans()),
    st.tuples(
        st.just("pose"),
        st.sampled_from(["head.pose", "hand.left.pose", "hand.right.pose"]),
        st.tuples(unit, unit, unit),
        st.tuples(unit, unit, unit, unit),
    ),
    st.tuples(st.just("lose"), st.sampled_from(["focus", "hand.right", "head", "pad"])),
    st.tuples(st.just("tick"), st.one_of(st.floats(0.0, 0.1), st.floats(0.1, 20.0), st.just(5e-324))),
)


@settings(max_examples=25)
@given(st.lists(OPERATIONS, min_size=5, max_size=50), st.booleans())
def test_whatever_a_game_does_in_whatever_order_the_helm_holds(operations, on_course):
    """Modes in and out, bodies put elsewhere, squares blocked, hands lost, hitches: finite, in range, never stuck."""
    helm = Helm(profile_from_text(EVERY_FRAME), course=demo_course("terraces") if on_course else None)
    for name, *words in [*operations, ("lose", "focus"), ("tick", 0.5), ("tick", 4.0)]:
        if name == "ground":
            helm.ground(words[0], normal=words[1])
            continue
        done = getattr(helm, name)(*words)
        if name == "tick":
            numbers = [*done.motion[:6], *done.move, done.amount, done.face_deg, *done.orientation(), *done.view]
            assert all(map(math.isfinite, numbers))
            assert 0.0 <= done.amount <= 1.0
            assert 0.0 <= done.face_deg < 360.0
            assert math.hypot(*done.orientation()) == pytest.approx(1.0)
            assert done.goal is None or helm.mode == "errand"
            assert done.step is None or helm.mode == "crates"
    # Everything is let go: what moves now only slides down a bank, or goes where it was sent.
    helm.ground(True)
    helm.tick(6.0)
    if done.goal is None and not done.footing.slides and not on_course:
        assert helm.tick(0.5).amount == 0.0
