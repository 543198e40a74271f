"""Comfort in a headset: vignette, snap turns, room to walk in, and the way out of a wall."""

import math

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from wendonic import Helm, View
from wendonic.course import Course
from wendonic.kernels.body.comfort import NO_COMFORT, room_meets_wall, vignetted
from wendonic.kernels.body.landing import landing
from wendonic.kernels.vector import ZERO3, Vec3
from wendonic.profile.load import profile_from_text

HEAD = 'format = "wendonic-profile"\nversion = 1\n'
WALL = {"left_m": 3.0, "back_m": -5.0, "right_m": 6.0, "forward_m": 5.0}
FORMAT = {"format": "wendonic-course", "version": 1}


def headset(rest="", course=None, move='stick = "hand.left.stick"\ncurve = { form = "linear" }\n'):
    text = f'{HEAD}[mode.m]\nsteer = {{ frame = "hands" }}\n{rest}\n[[mode.m.move.bind]]\n{move}'
    return Helm(profile_from_text(text), course=course)


def head_at(helm, x, z, turned=(0.0, 0.0, 0.0, 1.0)):
    helm.pose("head.pose", (x, 1.7, z), turned)


def ticks(helm, count, hz=50):
    for _ in range(count):
        intent = helm.tick(1.0 / hz)
    return intent


@given(st.floats(0.0, 20.0), st.floats(-5.0, 5.0), st.lists(st.floats(0.001, 0.2), min_size=1, max_size=8))
def test_the_vignette_runs_to_its_share_by_half_lives_however_time_is_cut(accel, turn, dts):
    tuning = NO_COMFORT._replace(
        full_accel_m_s2=10.0, full_turn_rate=2.0, close_half_life_s=0.1, open_half_life_s=0.4
    )
    share = max(accel / 10.0, abs(turn) / 2.0)
    wanted = min(share, 1.0)
    for begin in (0.0, 1.0):
        vignette = begin
        for dt in dts:
            vignette = vignetted(tuning, vignette, accel, turn, dt)
        # Beyond full it closes the quicker, so that a leap counts for what it is.
        half_life_s = 0.1 / max(share, 1.0) if wanted > begin else 0.4
        assert vignette == pytest.approx(wanted + (begin - wanted) * 0.5 ** (sum(dts) / half_life_s))


def test_turning_and_speeding_up_close_the_vignette_and_a_steady_walk_opens_it():
    helm = headset("[mode.m.comfort]\nvignette = { full_accel_m_s2 = 22, close_half_life_s = 0.02 }")
    assert helm.tick(0.02).comfort.vignette == 0.0
    helm.stick("hand.left.stick", 0.0, -1.0)
    assert ticks(helm, 6).comfort.vignette > 0.9
    assert ticks(helm, 300).comfort.vignette < 0.001
    for step in range(1, 30):
        # 180 deg/s, the usual full turn rate.
        intent = helm.tick(0.02, view=View(3.6 * step))
    assert intent.comfort.vignette == pytest.approx(1.0, abs=0.01)


SNAPS = '[[mode.m.look.bind]]\nstick = "hand.right.stick"\nsnap_deg = 45\nsnap_at = 0.6\nrearm_at = 0.2\n'


@pytest.mark.parametrize("hz", [30, 144])
def test_a_snap_turns_once_until_the_stick_was_back(hz):
    helm = headset(SNAPS)
    yaws = []
    for x in (0.3, 0.75, 0.95, 0.5, 0.9, 0.1, 0.9, -0.9, 0.0, -0.9):
        helm.stick("hand.right.stick", x, 0.4 * x)
        yaws.append(ticks(helm, 5, hz).view.yaw_deg)
    # From one side to the other it turns at once, however quick the thumb was.
    assert yaws == pytest.approx([0, 45, 45, 45, 45, 45, 90, 45, 45, 0])
    assert helm.tick(1 / hz).view.pitch_deg == 0.0


@pytest.mark.parametrize("curve", ["linear", "expo"])
def test_a_snap_is_made_at_a_tilt_whatever_the_curve(curve):
    helm = headset(f"{SNAPS}dead_zone = {{ inner = 0.3 }}\ncurve = {{ form = '{curve}' }}\n")
    yaws = []
    for x in (0.59, 0.61, 0.21, 0.9, 0.19, 0.61):
        helm.stick("hand.right.stick", x, 0.0)
        yaws.append(helm.tick(1 / 60).view.yaw_deg)
    assert yaws == pytest.approx([0, 45, 45, 45, 45, 90])


@pytest.mark.parametrize("hz", [20, 30, 72, 144])
def test_a_snap_closes_the_vignette_alike_at_every_rate(hz):
    """45 deg at the usual full rate of 180 deg/s are a quarter second of closing."""
    helm = headset(f"[mode.m.comfort]\nvignette = {{ close_half_life_s = 0.2 }}\n{SNAPS}")
    helm.stick("hand.right.stick", 1.0, 0.0)
    assert helm.tick(1 / hz).comfort.vignette == pytest.approx(1.0 - 0.5 ** (0.25 / 0.2))


def test_a_turn_goes_round_the_head_not_round_the_middle_of_the_room():
    helm = headset(f"[mode.m.comfort]\n{SNAPS}")
    head_at(helm, 0.6, -0.8)
    before = helm.tick(0.02).comfort
    assert before.offset[:2] == pytest.approx((0.6, 0.8))
    helm.stick("hand.right.stick", 1.0, 0.0)
    after = helm.tick(0.02).comfort
    assert after.head == pytest.approx(before.head)
    sine = math.sqrt(0.5)
    assert after.offset[:2] == pytest.approx((0.6 * sine + 0.8 * sine, 0.8 * sine - 0.6 * sine))
    assert math.dist(after.head[:2], helm.tick(0.02).motion[:2]) == pytest.approx(1.0)


def test_a_head_inside_a_wall_is_brought_back_after_its_time_and_stepping_out_cancels_it():
    room = "[mode.m.comfort]\nroom = { width_m = 2, depth_m = 2, return_s = 1 }\n"
    helm = headset(room, Course(**FORMAT, wall=[WALL]))
    helm.stick("hand.left.stick", 0.7, 0.0)
    while (intent := helm.tick(0.02)).comfort.head[0] < 2.4:
        pass
    helm.stick("hand.left.stick", 0.0, 0.0)
    intent = ticks(helm, 30)
    # Within a metre of the wall a corner of the room would be inside it.
    assert intent.comfort.safe[0] == pytest.approx(2.0, abs=0.05)
    assert intent.motion.pos_x > 2.4
    there = intent.motion.pos_x
    head_at(helm, 0.9, 0.0)
    halfway = ticks(helm, 25).comfort
    assert (halfway.inside_wall, halfway.returned) == (True, False)
    assert halfway.returns_in_s == pytest.approx(0.5)
    assert halfway.vignette == pytest.approx(0.5, abs=0.01)
    head_at(helm, 0.0, 0.0)
    out = ticks(helm, 1).comfort
    assert (out.inside_wall, out.returns_in_s) == (False, None)
    assert ticks(helm, 100).motion.pos_x == there
    head_at(helm, 0.9, 0.0)
    ticks(helm, 49)
    back = helm.tick(0.02)
    assert (back.comfort.returned, back.comfort.vignette) == (True, 1.0)
    assert back.motion[:5] == (back.comfort.safe[0], back.comfort.safe[1], 0.0, 0.0, 0.0)
    assert helm.tick(0.0).comfort.returned is False
    assert helm.tick(0.02).comfort.returned is False


HOUSE = {"left_m": -5.0, "back_m": 4.0, "right_m": 5.0, "forward_m": 6.0, "height_m": 2.5}
TERRACE = {"form": "flat", "left_m": -5.0, "back_m": -5.0, "right_m": 5.0, "forward_m": 3.0, "height_m": 2.0}
LEANS = [(0.0, 0.0), (0.0, 1.2), (0.5, -0.9)]
"""Where the head is in the play space, right and forward."""


@pytest.mark.parametrize("comfort", ["[mode.m.comfort]\n", ""])
@pytest.mark.parametrize("hz", [4, 20, 60, 144])
@pytest.mark.parametrize(("right", "forward"), LEANS)
def test_it_is_the_head_that_a_wall_stops(comfort, hz, right, forward):
    helm = headset(comfort, Course(**FORMAT, wall=[HOUSE]))
    head_at(helm, right, -forward)
    helm.stick("hand.left.stick", 0.0, -1.0)
    intent = ticks(helm, 6 * hz, hz)
    # Half a body of 0.5 m before the wall, and off it at once.
    assert intent.motion.pos_y + forward == pytest.approx(3.75)
    assert (intent.motion.pos_x, intent.contact) == (0.0, (0.0, -1.0, 0.0))
    if intent.comfort:
        assert intent.comfort.head[:2] == pytest.approx((right, 3.75))
        assert intent.comfort.vignette < 0.01
    # Leaning into it moves nobody on, whatever is asked for; leaning back does.
    head_at(helm, right, -forward - 0.5)
    assert ticks(helm, hz, hz).motion.pos_y == pytest.approx(intent.motion.pos_y)
    head_at(helm, right, -forward)
    helm.stick("hand.left.stick", 0.0, 1.0)
    assert ticks(helm, hz, hz).motion.pos_y < intent.motion.pos_y - 1.0


@pytest.mark.parametrize("hz", [20, 72, 144])
@pytest.mark.parametrize(("right", "forward"), LEANS)
def test_the_ground_is_felt_under_the_head_and_an_edge_is_a_fall_in_time(hz, right, forward):
    """2 m at 20 m/s² are 0.447 s, and the picture closes in; from below the terrace is a wall."""
    helm = headset("[mode.m.comfort]\n", Course(**FORMAT, piece=[TERRACE]))
    head_at(helm, right, -forward)
    assert ticks(helm, 1, hz).motion.pos_z == 2.0
    helm.stick("hand.left.stick", 0.0, -0.7)
    seen = [helm.tick(1.0 / hz) for _ in range(4 * hz)]
    fell = [intent for intent in seen if 0.0 < intent.motion.pos_z < 2.0]
    assert fell[0].comfort.head[1] == pytest.approx(3.0, abs=6.5 / hz)
    assert (len(fell) + 1) / hz == pytest.approx(math.sqrt(2.0 * 2.0 / 20.0), abs=1.1 / hz)
    assert max(intent.comfort.vignette for intent in fell) > 0.9
    assert seen[-1].motion[2:6:3] == (0.0, 0.0)
    helm.stick("hand.left.stick", 0.0, 1.0)
    below = ticks(helm, 3 * hz, hz)
    assert below.comfort.head[1] == pytest.approx(3.0, abs=0.05)
    assert below.motion.pos_z == 0.0
    # Over the terrace by leaning is inside of it, until the player is brought back.
    helm.stick("hand.left.stick", 0.0, 0.0)
    ticks(helm, hz, hz)
    head_at(helm, right, -forward + 0.5)
    inside = ticks(helm, hz // 2, hz)
    assert (inside.comfort.inside_wall, inside.motion.pos_z) == (True, 0.0)
    back = ticks(helm, 2 * hz, hz)
    assert not back.comfort.inside_wall
    assert back.motion.pos_z == Course(**FORMAT, piece=[TERRACE]).ground(*back.comfort.head[:2]).height


def test_a_body_placed_on_a_terrace_stands_on_it():
    helm = headset("[mode.m.comfort]\n", Course(**FORMAT, piece=[TERRACE]))
    helm.place(0.0, 7.0, 0.0)
    assert ticks(helm, 1).motion[:3] == (0.0, 7.0, 0.0)
    helm.place(0.0, 0.0, 0.0)
    intent = ticks(helm, 1)
    assert (intent.motion.pos_z, intent.comfort.inside_wall) == (2.0, False)


def test_no_place_on_a_slope_or_at_an_edge_is_safe():
    ramp = {
        "form": "ramp",
        "left_m": -9,
        "back_m": 2,
        "right_m": 9,
        "forward_m": 8,
        "up": "forward",
        "to_height_m": 3,
    }
    helm = headset("[mode.m.comfort]\nroom = { level_m = 0.2 }", Course(**FORMAT, piece=[ramp]))
    helm.stick("hand.left.stick", 0.0, -1.0)
    safe = [helm.tick(0.02).comfort.safe[1] for _ in range(90)]
    # The corners of the room, a metre forward, are 0.2 m up from 2.4 m on.
    assert max(safe) == pytest.approx(1.4, abs=0.07)


def test_the_arc_runs_up_a_slope_but_into_no_terrace_and_no_steep_bank():
    def course(*pieces):
        return Course(**FORMAT, piece=pieces).numbers

    edges = {"left_m": -50, "right_m": 50, "back_m": 4, "forward_m": 50}
    flat = {"form": "flat", **edges, "height_m": 1}
    ramp = {"form": "ramp", **edges, "up": "forward", "to_height_m": 23}
    forward_up = Vec3(0.0, math.sqrt(0.5), math.sqrt(0.5))
    # Level ground: the range of a throw from the ground is v² / g.
    assert landing(course(), ZERO3, forward_up, 7.0, 1.0).place.y == pytest.approx(49.0 / 9.81, abs=1e-6)
    # On a ramp of slope 1/2 from y = 4 on: y - g y² / v² = (y - 4) / 2.
    up = landing(course(ramp), ZERO3, forward_up, 7.0, 1.0).place
    assert up.y - 9.81 * up.y**2 / 49.0 == pytest.approx((up.y - 4.0) / 2.0, abs=1e-6)
    assert up.z == pytest.approx((up.y - 4.0) / 2.0)
    assert landing(course(ramp), ZERO3, forward_up, 7.0, 0.4).there == 0.0
    # 0.73 m up at the terrace's edge, which is 1 m high.
    assert landing(course(flat), ZERO3, forward_up, 7.0, 1.0).there == 0.0
    assert landing(course(flat), Vec3(0.0, 0.0, 0.5), forward_up, 7.0, 1.0).place.z == 1.0
    assert landing(course(), ZERO3, Vec3(0.0, 0.0, 1.0), 99.0, 1.0).there == 0.0


@given(
    st.tuples(st.floats(-3.0, 3.0), st.floats(0.5, 5.0), st.sampled_from([0.05, 0.3, 2.0]), st.floats(0.2, 3.0)),
    st.floats(-1.2, 1.2),
    st.floats(-0.8, 0.8),
    st.floats(2.0, 12.0),
    st.booleans(),
)
def test_the_arc_meets_walls_and_raised_ground_however_thin(box, yaw, pitch, speed_m_s, is_wall):
    """Against the arc at every tenth of a millisecond."""
    # No arc along an edge.
    x, y, thick_m, height_m = (round(number, 3) + 0.00037 for number in box)
    edges = {"left_m": x, "right_m": x + 1.0, "back_m": y, "forward_m": y + thick_m, "height_m": height_m}
    thing = {"wall": [edges]} if is_wall else {"piece": [{"form": "flat", **edges}]}
    course = Course(**FORMAT, **thing).numbers
    hand = Vec3(0.0, 0.0, 1.3)
    direction = Vec3(math.sin(yaw) * math.cos(pitch), math.cos(yaw) * math.cos(pitch), math.sin(pitch))
    t = np.arange(0.0, 4.0, 1e-4)
    at_x, at_y = hand.x + direction.x * speed_m_s * t, hand.y + direction.y * speed_m_s * t
    at_z = hand.z + direction.z * speed_m_s * t - 0.5 * 9.81 * t * t
    over = (x < at_x) & (at_x < x + 1.0) & (y < at_y) & (at_y < y + thick_m)
    # Neither a corner nor an upper edge is only grazed, for less than what the ground is looked at.
    for grazed in (over, over & (at_z <= height_m)):
        assume(not 0 < np.count_nonzero(grazed) * 1e-4 * speed_m_s * math.cos(pitch) < 0.042)
    down = at_z <= np.where(over & (not is_wall), height_m, 0.0)
    blocked = over & (at_z < height_m) & is_wall
    first = int(np.argmax(down | blocked))
    into_a_side = not is_wall and over[first] and not over[first - 1]
    assume(not into_a_side or height_m - at_z[first] > 0.02)
    found = landing(course, hand, direction, speed_m_s, 1.0)
    assert (found.there > 0.0) == bool(down[first] and not blocked[first] and not into_a_side)
    if found.there > 0.0:
        assert found.after_s == pytest.approx(t[first], abs=2e-4)


def test_a_thin_wall_inside_the_play_space_holds_nobody_and_leaves_no_place_safe():
    """A wall narrower than the room: all four corners are out of it, and yet the head gets into it."""
    thin = {"left_m": 0.3, "right_m": 0.5, "back_m": -4.0, "forward_m": 4.0}
    helm = headset("[mode.m.comfort]\nroom = { width_m = 2.4, return_s = 0.5 }", Course(**FORMAT, wall=[thin]))
    head_at(helm, 0.0, 0.0)
    assert ticks(helm, 10).comfort.safe[:2] == (0.0, 0.0)
    for step in range(1, 41):
        head_at(helm, 0.01 * step, 0.0)
        inside = ticks(helm, 1).comfort
        assert inside.head[0] == pytest.approx(0.01 * step)
    back = [ticks(helm, 1) for _ in range(60)]
    assert any(intent.comfort.returned for intent in back)
    assert not back[-1].comfort.inside_wall
    assert back[-1].comfort.head[0] <= 0.3
    # Ahead along the wall it is not safe anywhere.
    helm.stick("hand.left.stick", 0.0, -1.0)
    assert ticks(helm, 50).comfort.safe[:2] == (0.0, 0.0)


@given(st.floats(-2.0, 2.0), st.floats(-2.0, 2.0), st.floats(-3.2, 3.2), st.floats(0.05, 1.5), st.floats(0.05, 1.5))
def test_a_wall_reaches_into_the_room_if_any_of_its_points_does(x, y, yaw, half_x, half_y):
    """Against a grid of points of the wall, each asked whether it is in the room."""
    room = NO_COMFORT._replace(half_width_m=1.2, half_depth_m=0.7)
    wall = (0.0, 1.0, 8.0, x - half_x, y - half_y, x + half_x, y + half_y, 3.0, 0.0)
    across, along = np.linspace(-half_x, half_x, 81), np.linspace(-half_y, half_y, 81)
    at_x, at_y = np.meshgrid(x + across, y + along)
    right = at_x * math.cos(yaw) - at_y * math.sin(yaw)
    ahead = at_x * math.sin(yaw) + at_y * math.cos(yaw)
    past = np.maximum(np.abs(right) - 1.2, np.abs(ahead) - 0.7).min()
    if abs(past) > 0.05:
        assert room_meets_wall(room, wall, 0.0, 0.0, yaw, 0.0) == (past < 0.0)
