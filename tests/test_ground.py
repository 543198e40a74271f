"""Ground that gets steep, walls told as ground, thin kerbs, and what a climb costs: closed forms and bounds."""

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wendonic import Helm, profile_from_text
from wendonic.course.course import Course

HEAD = 'format = "wendonic-profile"\nversion = 1\n[world]\nright = "+x"\nforward = "+y"\nup = "+z"\n'
KEYS = '[[mode.m.move.bind]]\nkeys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }\n'
DRIVE = KEYS + '[[mode.m.throttle.bind]]\nkeys = { forward = ["ArrowUp"] }\n'


def helm_with(slope="{}", gait="top_speed_m_s = 5\naccel_m_s2 = 20\nbrake_m_s2 = 20\n", frame="map", course=None):
    binds = DRIVE if frame == "drive" else KEYS
    text = f'{HEAD}[mode.m]\nsteer = {{ frame = "{frame}", slope = {slope} }}\n{binds}[gait.walk]\n{gait}'
    return Helm(profile_from_text(text), course=course)


def run(helm, seconds, hz=60):
    seen = [helm.tick(1.0 / hz) for _ in range(round(seconds * hz))]
    return seen[-1], seen


def speed(intent):
    return math.hypot(*intent.motion[3:6])


@pytest.mark.parametrize("frame", ["map", "drive"])
@pytest.mark.parametrize("steep_deg", [30.0, 60.0, 85.0, 89.999, 90.0])
@pytest.mark.parametrize("towards", [1.0, -1.0])
def test_ground_that_gets_steep_makes_nobody_faster(frame, steep_deg, towards):
    """At full speed onto a bank that rises, or falls, at any angle: no faster than before, and finite."""
    helm = helm_with(frame=frame)
    helm.key("KeyW", True)
    run(helm, 2.0)
    angle = math.radians(steep_deg)
    helm.ground(True, (0.0, -towards * math.sin(angle), math.cos(angle)))
    for intent in run(helm, 2.0)[1]:
        assert speed(intent) <= 5.0 + 1e-9
        assert all(map(math.isfinite, intent.motion[:6]))
        if steep_deg > 88.0 and towards > 0.0 and frame == "map":
            # A wall's normal is a wall.
            assert speed(intent) <= 1e-9


@given(
    normals=st.lists(st.tuples(*[st.floats(-1.0, 1.0)] * 2, st.floats(0.0, 1.0)), min_size=1, max_size=6),
    keys=st.lists(st.sampled_from(["KeyW", "KeyA", "KeyS", "KeyD"]), min_size=1, max_size=6),
)
def test_no_ground_makes_anybody_faster_than_he_wants_to_be(normals, keys):
    helm = helm_with("{ slide_m_s = 3 }")
    for normal, code in itertools.zip_longest(normals, keys):
        if normal and any(normal):
            helm.ground(True, normal)
        if code:
            helm.key(code, True)
        for intent in run(helm, 0.2)[1]:
            # A slide adds to what he wants himself.
            assert speed(intent) <= 8.0 + 1e-9


@pytest.mark.parametrize("hz", [30, 144])
@pytest.mark.parametrize(("steepest_deg", "climb_deg"), [(45.0, 30.0), (40.0, 40.0), (45.0, 0.0)])
def test_a_climb_leaves_its_share_of_speed(steepest_deg, climb_deg, hz):
    """1 - (1 - ratio) tan(climb) / tan(steepest), straight up; all of it across and down."""
    helm = helm_with(f"{{ steepest_deg = {steepest_deg}, uphill_ratio = 0.4 }}")
    angle = math.radians(climb_deg)
    helm.ground(True, (0.0, -math.sin(angle), math.cos(angle)))
    expected = 1.0 - 0.6 * math.tan(angle) / math.tan(math.radians(steepest_deg))
    for code, share in (("KeyW", expected), ("KeyS", 1.0), ("KeyD", 1.0)):
        helm.key(code, True)
        intent = run(helm, 2.0, hz)[0]
        assert speed(intent) == pytest.approx(5.0 * share)
        assert math.hypot(*intent.velocity(5.0)) == pytest.approx(5.0 * share)
        helm.key(code, False)
        run(helm, 1.0, hz)


def kerb(height_m, wide_m, at_m=3.0):
    piece = {"form": "flat", "left_m": -9, "right_m": 900, "back_m": at_m, "forward_m": at_m + wide_m}
    piece |= {"height_m": height_m}
    return Course.model_validate({"format": "wendonic-course", "version": 1, "piece": [piece]})


@pytest.mark.parametrize("top_m_s", [3.0, 40.0, 400.0])
@pytest.mark.parametrize("hz", [30, 60, 144])
def test_nobody_gets_past_a_raised_piece_of_ground_however_thin_and_however_fast(top_m_s, hz):
    gait = f"top_speed_m_s = {top_m_s}\naccel_m_s2 = 1000\nbrake_m_s2 = 1000\n"
    for wide_m in (0.05, 2.0):
        helm = helm_with(gait=gait, course=kerb(1.0, wide_m))
        helm.key("KeyW", True)
        assert run(helm, 2.0, hz)[0].motion.pos_y <= 3.0
        # Along it he slides.
        helm.key("KeyD", True)
        assert run(helm, 1.0, hz)[0].motion.pos_x > 1.0


@pytest.mark.parametrize(("step_m", "height_m", "climbs"), [(0.35, 0.3, True), (0.35, 0.5, False), (0.6, 0.5, True)])
def test_how_high_a_step_is_walked_up_is_a_setting(step_m, height_m, climbs):
    helm = helm_with(f"{{ step_m = {step_m} }}", course=kerb(height_m, 50.0))
    helm.key("KeyW", True)
    intent = run(helm, 3.0)[0]
    assert (intent.motion.pos_y > 4.0) == climbs
    assert intent.motion.pos_z == (height_m if climbs else 0.0)


@pytest.mark.parametrize("ahead_m", [0.1, 0.8])
def test_how_far_ahead_a_bank_is_felt_is_a_setting(ahead_m):
    bank = {"form": "ramp", "left_m": -9, "right_m": 9, "back_m": 3, "forward_m": 9}
    bank |= {"from_height_m": 0, "to_height_m": 18, "up": "forward"}
    course = Course.model_validate({"format": "wendonic-course", "version": 1, "piece": [bank]})
    helm = helm_with(f"{{ ahead_m = {ahead_m} }}", course=course)
    helm.key("KeyW", True)
    assert run(helm, 3.0)[0].motion.pos_y == pytest.approx(3.0 - ahead_m, abs=0.75)
