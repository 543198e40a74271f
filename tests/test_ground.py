"""Ground that gets steep, walls told as ground, thin kerbs, and what a climb costs: closed forms and bounds."""

import itertools
import math
import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from few_of_many import few_of
from wendonic import Helm, profile_from_text
from wendonic.course.course import Course
from wendonic.kernels.body.walls import stopped_by_walls

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
def test_no_ground_makes_a_body_faster_than_requested(normals, keys):
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
@pytest.mark.parametrize("frame", ["map", "drive"])
@pytest.mark.parametrize(("steepest_deg", "climb_deg"), [(45.0, 30.0), (40.0, 40.0), (45.0, 0.0)])
def test_a_climb_leaves_its_share_of_speed(steepest_deg, climb_deg, frame, hz):
    """1 - (1 - ratio) tan(climb) / tan(steepest), straight up; all of it across and down."""
    helm = helm_with(f"{{ steepest_deg = {steepest_deg}, uphill_ratio = 0.4 }}", frame=frame)
    angle = math.radians(climb_deg)
    helm.ground(True, (0.0, -math.sin(angle), math.cos(angle)))
    expected = 1.0 - 0.6 * math.tan(angle) / math.tan(math.radians(steepest_deg))
    # A vehicle backs at half speed, and turns where a body on foot goes across.
    ways = (
        [("KeyW", expected), ("KeyS", 1.0), ("KeyD", 1.0)] if frame == "map" else [("KeyW", expected), ("KeyS", 0.5)]
    )
    for code, share in ways:
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


@pytest.mark.parametrize("ahead_m", [0.1, 0.8, 2.0])
@pytest.mark.parametrize("frame", ["map", "drive"])
@pytest.mark.parametrize("hz", [20, 60, 144])
def test_how_far_ahead_a_bank_is_felt_is_a_setting(ahead_m, frame, hz):
    """It brakes where the bank is that far ahead, and stops after v² / 2b, or at its foot, and stays there."""
    bank = {"form": "ramp", "left_m": -9, "right_m": 9, "back_m": 3, "forward_m": 9}
    bank |= {"from_height_m": 0, "to_height_m": 18, "up": "forward"}
    course = Course.model_validate({"format": "wendonic-course", "version": 1, "piece": [bank]})
    helm = helm_with(f"{{ ahead_m = {ahead_m} }}", frame=frame, course=course)
    helm.key("KeyW", True)
    intent, seen = run(helm, 3.0, hz)
    assert {(after.motion.pos_y, after.footing) for after in seen[-hz:]} == {(intent.motion.pos_y, (True, False))}
    assert intent.motion.pos_y == pytest.approx(min(3.0, 3.0 - ahead_m + 5.0**2 / 40.0), abs=5.0 / 60.0)
    assert intent.footing.refused


def course_of(*pieces, walls=()):
    return Course(format="wendonic-course", version=1, piece=list(pieces), wall=list(walls))


def flat(back_m, forward_m, height_m, left_m=-5000.0, right_m=5000.0):
    edges = {"left_m": left_m, "right_m": right_m, "back_m": back_m, "forward_m": forward_m}
    return {"form": "flat", **edges, "height_m": height_m}


def gait_of(top_m_s, gravity=True):
    weight = "gravity_m_s2 = 20\n" if gravity else ""
    return f"top_speed_m_s = {top_m_s}\naccel_m_s2 = {10 * top_m_s}\n{weight}"


@pytest.mark.parametrize("keys", [("KeyW",), ("KeyW", "KeyD")])
@pytest.mark.parametrize("top_m_s", few_of([0.5, 10.0, 40.0, 200.0], [200.0]))
@pytest.mark.parametrize("step_m", [0.0, 0.2, 0.35])
@pytest.mark.parametrize("gravity", [False, True])
def test_a_step_is_as_high_for_a_fast_body_as_for_a_slow_one(keys, top_m_s, step_m, gravity):
    """Half a centimetre less than the step is climbed, half a centimetre more is not: at any speed and rate, also a
    kerb wide enough to stand on, and one after another in one tick.
    """
    for hz, excess in itertools.product((20, 144), (-0.005, 0.005)):
        if step_m + excess <= 0.0:
            continue
        height = step_m + excess
        course = course_of(flat(2.0, 2.2, height), flat(2.2, 2.4, 2 * height), flat(2.4, 5000.0, 3 * height))
        helm = helm_with(f"{{ step_m = {step_m} }}", gait_of(top_m_s, gravity), course=course)
        for key in keys:
            helm.key(key, True)
        last, _ = run(helm, 1.0 + 10.0 / top_m_s, hz)
        assert (last.motion.pos_y > 2.4) == (excess < 0.0), (hz, excess, last.motion)
        assert last.motion.pos_z == pytest.approx(0.0 if excess > 0.0 else 3 * height)


@pytest.mark.parametrize("top_m_s", [1.0, 10.0, 60.0])
def test_a_body_leaves_the_ground_at_every_edge_and_at_no_slope(top_m_s):
    """Off a terrace it takes sqrt(2 h / g) to land, however far one tick takes it; a slope of 40 degrees is walked
    down, and one of 70 degrees up where that is allowed.
    """
    for hz in (20, 60):
        terrace = course_of(flat(-50.0, 1.0, 0.6))
        helm = helm_with(gait=gait_of(top_m_s), course=terrace)
        helm.place(0.0, 0.0, 0.6)
        helm.key("KeyW", True)
        _, seen = run(helm, 1.0 + 3.0 / top_m_s, hz)
        airtime_s = sum(not intent.motion.grounded for intent in seen) / hz
        assert airtime_s == pytest.approx(math.sqrt(2 * 0.6 / 20), abs=1.01 / hz)
        ends = {"left_m": -50, "right_m": 50, "back_m": 1, "forward_m": 500}
        tangent = math.tan(math.radians(40.0))
        down = {"form": "ramp", "up": "back", **ends, "from_height_m": 0, "to_height_m": 499 * tangent}
        helm = helm_with(gait=gait_of(top_m_s), course=course_of(flat(-50.0, 1.0, 499 * tangent), down))
        helm.place(0.0, 0.0, 499 * tangent)
        helm.key("KeyW", True)
        last, seen = run(helm, 1.0 + 3.0 / top_m_s, hz)
        assert last.motion.pos_z < 499 * tangent - 0.5
        assert all(intent.motion.grounded for intent in seen)
        up = {"form": "ramp", "up": "forward", **ends, "from_height_m": 0, "to_height_m": 900}
        helm = helm_with("{ step_m = 0, steepest_deg = 80 }", gait_of(top_m_s), course=course_of(up))
        helm.key("KeyW", True)
        last, _ = run(helm, 1.0 + 3.0 / top_m_s, hz)
        assert last.motion.pos_y > 1.2
        assert speed(last) == pytest.approx(top_m_s)


@pytest.mark.parametrize("frame", ["map", "drive"])
@pytest.mark.parametrize("top_m_s", [3.0, 40.0])
def test_a_bank_that_is_too_steep_holds_a_body_that_runs_into_it(frame, top_m_s):
    ramp = {"form": "ramp", "up": "forward", "left_m": -50, "right_m": 50, "back_m": 6, "forward_m": 10}
    course = course_of({**ramp, "from_height_m": 0, "to_height_m": 12})
    for hz in (20, 60, 144):
        helm = helm_with("{ steepest_deg = 45, ahead_m = 0 }", gait_of(top_m_s, False), frame, course)
        helm.key("ArrowUp" if frame == "drive" else "KeyW", True)
        _, seen = run(helm, 4.0, hz)
        assert 5.95 < max(intent.motion.pos_y for intent in seen) < 6.04, hz


@pytest.mark.parametrize("frame", ["map", "drive"])
def test_in_the_air_speed_changes_at_the_rates_of_the_air(frame):
    """Off the ground after half a second at 8 m/s², it gains 2 m/s², and loses 1 m/s² once nothing is held."""
    gait = "top_speed_m_s = 9\naccel_m_s2 = 8\nbrake_m_s2 = 20\ngravity_m_s2 = 10\n"
    helm = helm_with(gait=f"{gait}airborne = {{ accel_m_s2 = 2, brake_m_s2 = 1 }}\n", frame=frame)
    helm.key("KeyW", True)
    run(helm, 0.5)
    helm.ground(False)
    assert run(helm, 0.5)[0].motion.vel_y == pytest.approx(5.0)
    helm.key("KeyW", False)
    assert run(helm, 0.5)[0].motion.vel_y == pytest.approx(4.5)


@pytest.mark.parametrize("keys", [("KeyW",), ("KeyW", "KeyD")])
@pytest.mark.parametrize("gravity", [False, True])
@pytest.mark.parametrize("hz", [30, 60, 144])
def test_a_body_that_runs_into_a_bank_stops_at_it_once(hz, gravity, keys):
    """Not a sample in front of it, to go on in the next tick: a game would hear it bump into it twice."""
    for at_m in (2.0, 2.013, 2.3 / 1.1):
        helm = helm_with(gait=gait_of(3.2, gravity), course=course_of(flat(at_m, 9.0, 1.0)))
        for key in keys:
            helm.key(key, True)
        _, seen = run(helm, 2.0, hz)
        first = next(number for number, intent in enumerate(seen) if intent.contact)
        assert seen[first].motion.pos_y == pytest.approx(at_m, abs=1e-3)
        assert all(intent.contact for intent in seen[first:])
        assert all(intent.motion.vel_y == pytest.approx(0.0, abs=1e-9) for intent in seen[first:])
        assert all(intent.motion.pos_y <= at_m for intent in seen)


def test_along_a_step_no_wall_is_entered():
    """A terrace in front and a wall that begins beside it: sliding along one never leads into the other."""
    wall = {"left_m": 1.0, "right_m": 1.3, "back_m": -2.0, "forward_m": 2.5, "height_m": 3}
    course = course_of(flat(2.0, 2.2, 1.0), walls=[wall])
    for top_m_s, hz in itertools.product((3.0, 40.0, 200.0), (20, 60, 0)):
        helm = helm_with(gait=gait_of(top_m_s), course=course)
        helm.place(0.8, 1.9, 0.0)
        for number in range(120):
            helm.key("KeyW", number % 7 != 3)
            helm.key("KeyD", number % 5 != 2)
            at = helm.tick(1.0 / hz if hz else (0.004, 0.03, 0.1)[number % 3]).motion
            assert at.pos_y <= 2.0 + 1e-9
            assert at.pos_x <= 1.0


@pytest.mark.parametrize("hz", [30, 60, 240])
def test_from_level_ground_onto_a_slope_the_speed_stays_what_it_was(hz):
    """Half a tilt onto 40 degrees: without a tick that is faster."""
    ends = {"left_m": -50, "right_m": 50, "back_m": 2, "forward_m": 60}
    course = course_of({"form": "ramp", "up": "forward", **ends, "from_height_m": 0, "to_height_m": 48.7})
    stick = '[[mode.m.move.bind]]\nstick = "pad.left_stick"\ndead_zone = { form = "none" }\n'
    text = f'{HEAD}[mode.m]\nsteer = {{ frame = "map", slope = {{}} }}\n{stick}[gait.walk]\ntop_speed_m_s = 8\n'
    helm = Helm(profile_from_text(text), course=course)
    helm.stick("pad.left_stick", 0.0, -0.5)
    last, seen = run(helm, 2.0, hz)
    assert last.motion.pos_z > 1.0
    assert max(map(speed, seen)) == pytest.approx(speed(last), rel=1e-6)


@pytest.mark.parametrize("rise_m_s", [3.0, 90.0])
@pytest.mark.parametrize("hz", [20, 144])
def test_a_body_that_flies_is_held_by_ground_by_walls_and_by_their_tops(rise_m_s, hz):
    wall = {"left_m": -5, "right_m": 5, "back_m": 3, "forward_m": 6, "height_m": 2}
    course = course_of(flat(8.0, 12.0, 3.0), walls=[wall])
    rise = '[[mode.m.rise.bind]]\nkeys = { up = ["KeyR"], down = ["KeyF"] }\n'
    text = f'{HEAD}[mode.m]\nsteer = {{ frame = "fly" }}\n{KEYS}{rise}[gait.walk]\nrise_m_s = {rise_m_s}\n'
    helm = Helm(profile_from_text(text), course=course)
    for y, top in ((0.0, 0.0), (4.5, 2.0), (10.0, 3.0)):
        helm.place(0.0, y, top + 7.0)
        helm.key("KeyF", True)
        last, seen = run(helm, 4.0, hz)
        assert min(intent.motion.pos_z for intent in seen) == top
        assert (last.motion.pos_z, last.motion.vel_z) == (top, 0.0)
        helm.key("KeyF", False)
        helm.key("KeyR", True)
        assert run(helm, 0.5, hz)[0].motion.pos_z > top + 0.5
        helm.key("KeyR", False)
    helm.restart(0.0, 6.9, 1.0)
    helm.key("KeyW", True)
    assert run(helm, 3.0, hz)[0].motion.pos_y == pytest.approx(8.0, abs=0.05)


def made_up_ground(rng):
    """Flat pieces, ramps, mounds and flights of stairs that overlap anyhow, and walls."""
    pieces, walls = [], []
    for _ in range(rng.randint(2, 7)):
        left, back = rng.uniform(-5.0, 4.0), rng.uniform(-5.0, 4.0)
        right, forward = left + rng.uniform(0.4, 4.0), back + rng.uniform(0.4, 4.0)
        sides = {"left_m": left, "right_m": right, "back_m": back, "forward_m": forward}
        riser, tread = rng.choice((0.1, 0.18, 0.3)), rng.choice((0.25, 0.4))
        steps = [
            {
                "form": "flat",
                **sides,
                "back_m": back + tread * n,
                "forward_m": back + 10 * tread,
                "height_m": riser * (n + 1),
            }
            for n in range(8)
        ]
        up = rng.choice(("forward", "back", "left", "right"))
        ramp = {"form": "ramp", **sides, "up": up, "to_height_m": rng.choice((0.5, 1.0, 3.0))}
        mound = {"form": "mound", "at": [left, back], "radius_m": right - left, "height_m": rng.uniform(0.2, 2.0)}
        flat = {"form": "flat", **sides, "height_m": rng.choice((0.1, 0.3, 0.9, 2.0))}
        pieces += rng.choice((steps, [ramp], [mound], [flat]))
        begun_in = left < 0.0 < left + 0.8 and back < 0.0 < forward
        if rng.random() < 0.3 and not begun_in:
            walls.append({**sides, "right_m": left + 0.8, "height_m": rng.choice((0.3, 0.8, 3.0))})
    return Course(format="wendonic-course", version=1, piece=pieces, wall=walls), walls


@pytest.mark.parametrize("seed", range(16))
def test_on_any_ground_nobody_is_in_it_and_no_jump_is_cut_short(seed):
    """A body is on the ground or above it and in no wall, and lands while it rises only where the ground comes up
    faster; what lifts it is its jump, its climb, or one step.
    """
    rng = random.Random(f"ground {seed}")
    step_m, top_m_s, jump_m = rng.choice((0.0, 0.35)), rng.choice((3.2, 8.0)), rng.choice((0.4, 1.1))
    slope, jump = f"{{ step_m = {step_m} }}", f"jump = {{ height_m = {jump_m} }}\ngravity_m_s2 = 18\n"
    presses = '[mode.m.press]\njump = { bind = ["Space"], buffer_s = 0.1 }\n'
    course, walls = made_up_ground(rng)
    gait = f"top_speed_m_s = {top_m_s}\naccel_m_s2 = 25\nbrake_m_s2 = 30\n{jump}{presses}"
    helm, held = helm_with(slope, gait, course=course), set()
    was = helm.tick(1.0 / 60.0).motion
    most_m = max(step_m, top_m_s / 60.0) + math.sqrt(2.0 * 18.0 * jump_m) / 60.0 + 0.05
    for _ in range(800):
        if rng.random() < 0.15:
            code = rng.choice(("KeyW", "KeyA", "KeyS", "KeyD", "Space", "Space", "Space", "Space"))
            held ^= {code}
            helm.key(code, code in held)
        motion = helm.tick(1.0 / 60.0).motion
        x, y, z = motion[:3]
        ground = course.ground(x, y)
        assert z >= ground.height - 1e-9
        assert z - was.pos_z <= most_m
        assert not any(
            wall["left_m"] < x < wall["right_m"]
            and wall["back_m"] < y < wall["forward_m"]
            and z < wall["height_m"] - 1e-9
            for wall in walls
        )
        if motion.grounded and not was.grounded:
            climb_m_s = -(ground.normal.x * motion.vel_x + ground.normal.y * motion.vel_y) / ground.normal.z
            assert was.vel_z - 18.0 / 60.0 <= max(climb_m_s, 0.0) + 0.3
        was = motion


def crept(boxes, radius_m, x, y, z, to_x, to_y):
    """Return how far a body gets that goes in steps of a millimetre, along x, then along y, until it is inside a box
    that is wider by its radius."""

    def inside(x, y):
        return any(
            left - radius_m < x < right + radius_m and back - radius_m < y < front + radius_m and z < top
            for left, back, right, front, top in boxes
        )

    for axis, goal in enumerate((to_x, to_y)):
        at = [x, y]
        count = max(1, round(abs(goal - at[axis]) * 1000))
        for number in range(1, count + 1):
            to = list(at)
            to[axis] = at[axis] + (goal - at[axis]) * number / count
            if inside(*to):
                break
            x, y = to
    return x, y


def test_walls_stop_a_body_that_creeps_towards_them():
    rng, stopped = random.Random(2), 0
    for _ in range(400):
        boxes = []
        for _ in range(rng.randrange(1, 5)):
            left, back = rng.uniform(-3.0, 2.0), rng.uniform(-3.0, 2.0)
            boxes.append(
                (left, back, left + rng.uniform(0.1, 2.0), back + rng.uniform(0.1, 2.0), rng.choice((0.5, 2.0)))
            )
        radius_m, z = rng.uniform(0.1, 0.5), rng.choice((0.0, 1.0))
        row = (0.0, float(len(boxes)), 3.0 + 5.0 * len(boxes), *(number for box in boxes for number in box))
        x, y, to_x, to_y = (rng.uniform(-3.0, 3.0) for _ in range(4))
        if any(
            box[0] - radius_m < x < box[2] + radius_m and box[1] - radius_m < y < box[3] + radius_m for box in boxes
        ):
            continue
        found = stopped_by_walls(row, radius_m, x, y, z, to_x, to_y)
        assert found == pytest.approx(crept(boxes, radius_m, x, y, z, to_x, to_y), abs=2e-3)
        stopped += found != (to_x, to_y)
    assert stopped > 50
