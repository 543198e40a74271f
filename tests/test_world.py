"""The game's own axes, views from any camera, ground that is not level, and bodies that lean: against SciPy."""

import itertools
import math
import pickle

import numpy as np
import pytest
from hypothesis import assume, example, given, settings
from hypothesis import strategies as st
from scipy.spatial.transform import Rotation, Slerp

from wendonic import Helm, View, WendonicError, on_slope
from wendonic.kernels.body.lean import leaned
from wendonic.kernels.vector import Vec3
from wendonic.kernels.view_axes import level_forward
from wendonic.profile.load import profile_from_text
from wendonic.profile.schema.world import World
from wendonic.world_axes import PLAN_AXES, WorldAxes

SIGNED = [
    tuple(sign + letter for sign, letter in zip(signs, letters, strict=True))
    for letters in itertools.permutations("xyz")
    for signs in itertools.product("+-", repeat=3)
]
FLAT = [
    tuple(sign + letter for sign, letter in zip(signs, letters, strict=True))
    for letters in itertools.permutations("xy")
    for signs in itertools.product("+-", repeat=2)
]
number = st.floats(-100.0, 100.0)
vectors = st.tuples(number, number, number)


def matrix(names):
    """The game's axes as columns, written down independently: game = matrix @ plan."""
    columns = np.zeros((len(names), len(names)))
    for column, name in enumerate(names):
        columns["xyz".index(name[1]), column] = 1.0 if name[0] == "+" else -1.0
    return columns


def world_helm(right, forward, up, steer='{ frame = "camera", slope = {} }'):
    world = f'[world]\nright = "{right}"\nforward = "{forward}"\nup = "{up}"\n'
    keys = '[[mode.m.move.bind]]\nkeys = { forward = ["KeyW"], right = ["KeyD"] }\n'
    return Helm(
        profile_from_text(f'format = "wendonic-profile"\nversion = 1\n{world}[mode.m]\nsteer = {steer}\n{keys}')
    )


@pytest.mark.parametrize("names", SIGNED, ids="".join)
def test_every_triple_goes_there_and_back_with_its_handedness(names):
    assert len(set(SIGNED)) == 48
    axes, turned = WorldAxes(*names), matrix(names)
    plan = (1.0, 2.0, 3.0)
    assert axes.from_plan(*plan) == tuple(turned @ plan)
    assert axes.to_plan(*axes.from_plan(*plan)) == plan
    assert axes.right_handed == (np.linalg.det(turned) > 0.0)
    words = World(right=names[0], forward=names[1], up=names[2]).sentence()
    hand = "right-handed" if axes.right_handed else "left-handed"
    assert (
        words == f"{hand}, {names[2][1]} {'up' if names[2][0] == '+' else 'down'}; "
        f"forward is {names[1]}, right is {names[0]}"
    )


@pytest.mark.parametrize("names", FLAT, ids="".join)
def test_every_pair_is_a_game_from_above_or_from_the_side(names):
    above, side = WorldAxes(*names), WorldAxes(names[0], None, names[1])
    assert above.from_plan(1.0, 2.0, 9.0) == side.from_plan(1.0, 9.0, 2.0) == tuple(matrix(names) @ (1.0, 2.0))
    assert above.to_plan(*above.from_plan(1.0, 2.0)) == (1.0, 2.0, 0.0)
    assert side.to_plan(*side.from_plan(1.0, 0.0, 2.0)) == (1.0, 0.0, 2.0)
    assert above.right_handed is side.right_handed is None
    for axes in (above, side):
        with pytest.raises(WendonicError, match="no quaternions"):
            View.from_quaternion(0.0, 0.0, 0.0, 1.0, axes)
        with pytest.raises(WendonicError, match="no basis; allowed: yaw_deg"):
            View(30.0).basis(axes)


@pytest.mark.parametrize(
    "names", [("+x", None), ("+x", "-x", "+y"), ("x", "+y", "+z"), ("+x", "+w", "+z"), ("+x", "+z"), ("+x", "")]
)
def test_invalid_axes_are_refused(names):
    with pytest.raises(WendonicError, match="allowed: signed axes"):
        WorldAxes(*names)


def test_axes_are_equal_by_their_names_and_their_unit():
    names = ("+x", "-z", "+y")
    axes = WorldAxes(*names, 50.0, "px")
    assert axes == WorldAxes(*names, 50.0, "px") == pickle.loads(pickle.dumps(axes))
    assert hash(axes) == hash(WorldAxes(*names, 50.0, "px"))
    others = [WorldAxes(*names), WorldAxes(*names, 50.0, "u"), WorldAxes(*names, 50.0000001, "px")]
    assert axes not in [*others, WorldAxes("+x", "+y", "-z", 50.0, "px"), repr(axes)]


def test_a_vector_of_the_wrong_length_is_refused():
    with pytest.raises(WendonicError, match="2 numbers; allowed: 3"):
        WorldAxes("+x", "-z", "+y").to_plan(1.0, 2.0)


@pytest.mark.parametrize("names", SIGNED, ids="".join)
def test_a_walk_to_the_right_forward_goes_right_and_forward_in_every_world_and_the_body_stands_that_way(names):
    """Velocity and orientation against the matrix of the axes and SciPy's rotations, on a slope."""
    helm, turned = world_helm(*names), matrix(names)
    helm.ground(True, normal=turned @ (0.0, -0.3, 1.0) * 7.0)
    helm.key("KeyW", down=True)
    helm.key("KeyD", down=True)
    for _ in range(120):
        intent = helm.tick(1 / 60, view=View(yaw_deg=15.0))
    heading = np.array([math.sin(math.radians(60.0)), math.cos(math.radians(60.0))])
    rise = 0.3 * heading[1]
    expected = np.array([*heading, rise]) / math.sqrt(1.0 + rise * rise)
    assert intent.direction() == pytest.approx(turned @ expected, abs=1e-9)
    assert intent.velocity() == pytest.approx(turned @ expected * 3.2, abs=1e-6)
    stands = Rotation.from_quat(intent.orientation())
    up = np.array([0.0, -0.3, 1.0]) / math.hypot(0.3, 1.0)
    assert stands.apply(turned @ (0.0, 0.0, 1.0)) == pytest.approx(turned @ up, abs=1e-6)
    # The shortest turn from level to the slope, after the turn to the face; both told in the plan frame.
    lean = Rotation.align_vectors([up, [1.0, 0.0, 0.0]], [[0.0, 0.0, 1.0], [1.0, 0.0, 0.0]])[0]
    forward = lean.apply([*heading, 0.0])
    assert stands.apply(turned @ (0.0, 1.0, 0.0)) == pytest.approx(turned @ forward, abs=1e-6)


angles = st.floats(-math.pi, math.pi)


@given(st.sampled_from(SIGNED), angles, st.floats(-1.55, 1.55), st.floats(0.01, 50.0), st.floats(0.01, 50.0))
def test_a_view_is_the_same_from_angles_a_basis_or_a_quaternion(names, yaw, pitch, forward_length, up_length):
    """The camera turned by SciPy about the plan's axes, told in the game's."""
    axes, turned = WorldAxes(*names), matrix(names)
    camera = Rotation.from_euler("ZX", [-yaw, pitch])
    forward, up = camera.apply([0.0, 1.0, 0.0]), camera.apply([0.0, 0.0, 1.0])
    view = View.from_basis(turned @ forward * forward_length, turned @ up * up_length, axes)
    assert math.remainder(math.radians(view.yaw_deg) - yaw, math.tau) == pytest.approx(0.0, abs=1e-7)
    assert math.radians(view.pitch_deg) == pytest.approx(pitch, abs=1e-7)
    x, y, z, w = camera.as_quat()
    hand = 1.0 if axes.right_handed else -1.0
    same = View.from_quaternion(*(turned @ (x, y, z) * hand * 3.0), w * 3.0, axes)
    assert same == View.from_quaternion((*(turned @ (x, y, z) * hand * 3.0), w * 3.0), axes)
    assert math.remainder(same.yaw_deg - view.yaw_deg, 360.0) == pytest.approx(0.0, abs=1e-5)
    assert same.pitch_deg == pytest.approx(view.pitch_deg, abs=1e-5)
    # And back again.
    right = camera.apply([1.0, 0.0, 0.0])
    for made, vector in zip(view.basis(axes), (right, forward, up), strict=True):
        assert made == pytest.approx(turned @ vector, abs=1e-7)
    reported = np.array([*(turned @ (x, y, z) * hand), w])
    assert abs(np.dot(view.quaternion(axes), reported)) == pytest.approx(1.0, abs=1e-9)


@pytest.mark.parametrize("names", SIGNED)
@settings(max_examples=8)
@given(yaw_deg=st.floats(-179.0, 179.0))
def test_the_engines_own_yaw_turns_about_its_own_axis(names, yaw_deg):
    """A quaternion about the axis that `up` names, by the engine's angle, looks the same way."""
    axes = WorldAxes(*names)
    engine_deg = View(yaw_deg, 10.0).engine_yaw_deg(axes)
    half = math.radians(engine_deg) / 2.0
    about = [math.sin(half) * (letter == names[2][1]) for letter in "xyz"]
    assert View.from_quaternion(*about, math.cos(half), axes).yaw_deg == pytest.approx(yaw_deg, abs=1e-6)
    assert View.from_engine_yaw(engine_deg, axes, 10.0) == (pytest.approx(yaw_deg), 10.0)
    with pytest.raises(WendonicError, match="2-D"):
        View().engine_yaw_deg(WorldAxes("+x", "-y"))


@pytest.mark.long
@settings(max_examples=15)
@given(angles, st.floats(-math.pi / 2, math.pi / 2))
def test_looking_further_down_until_straight_down_never_turns_what_is_forward(yaw, roll):
    """Without roll the heading is the yaw at every pitch, the poles included; with roll it turns by no jump."""
    last = None
    for pitch in np.linspace(-math.pi / 2, math.pi / 2, 721):
        level = Rotation.from_euler("ZX", [-yaw, pitch])
        x, y = level_forward(*level.apply([0.0, 1.0, 0.0]), *level.apply([0.0, 0.0, 1.0]))
        assert (x, y) == pytest.approx((math.sin(yaw), math.cos(yaw)), abs=1e-7)
        rolled = Rotation.from_euler("ZXY", [-yaw, pitch, roll * 0.7])
        now = level_forward(*rolled.apply([0.0, 1.0, 0.0]), *rolled.apply([0.0, 0.0, 1.0]))
        assert math.hypot(*now) == pytest.approx(1.0)
        if last is not None:
            assert math.dist(now, last) < 0.2
        last = now


def test_a_zero_view_is_refused():
    for wrong in (
        {"forward": (0.0, 0.0, 0.0), "up": (0.0, 0.0, 1.0)},
        {"forward": (math.nan, 0.0, 1.0), "up": (0, 1, 0)},
    ):
        with pytest.raises(WendonicError, match="finite vectors that are not zero"):
            View.from_basis(**wrong, axes=PLAN_AXES)
    for wrong in ((0.0, 0.0, 0.0, 0.0), (math.inf, 0.0, 0.0, 1.0), (math.nan, 0.0, 0.0, 1.0)):
        with pytest.raises(WendonicError, match="four finite numbers, not all zero"):
            View.from_quaternion(*wrong, PLAN_AXES)
    for wrong in ((), (1.0,), ((1.0, 0.0, 0.0),), (0.0, 0.0, 0.0, 1.0, 0.0)):
        with pytest.raises(WendonicError, match="four finite numbers, not all zero"):
            View.from_quaternion(*wrong, axes=PLAN_AXES)
    with pytest.raises(WendonicError, match="found 'turned'; allowed: numbers"):
        View.from_quaternion("turned", PLAN_AXES)
    with pytest.raises(WendonicError, match="axes are missing; allowed: the game's own"):
        View.from_quaternion(0.0, 0.0, 0.0, 1.0)
    for view in (View(math.nan, 0.0), View(0.0, math.inf)):
        for asked in (view.quaternion, view.basis):
            with pytest.raises(WendonicError, match="finite angles"):
                asked(PLAN_AXES)


# ---- slopes ------------------------------------------------------------------------------------------------------


@given(vectors, vectors, st.sampled_from(SIGNED))
@example((1.0, 0.0, 0.0), (5e-324, 1.0, 0.0), SIGNED[0])
def test_on_a_slope_a_direction_keeps_its_length_and_its_heading_and_lies_in_the_ground(direction, normal, names):
    assume(normal[2] >= 0.0 and max(map(abs, normal)) > 1e-6)
    axes, turned = WorldAxes(*names), matrix(names)
    laid = turned.T @ on_slope(turned @ direction, turned @ normal, axes)
    length = math.hypot(direction[0], direction[1])
    assert np.linalg.norm(laid) == pytest.approx(length, rel=1e-9)
    assert laid @ normal == pytest.approx(0.0, abs=1e-9 * (1.0 + length) * np.linalg.norm(normal))
    # On the plan it points where it did, be the ground as steep as it may.
    assert laid[0] * direction[1] == pytest.approx(laid[1] * direction[0], abs=1e-6)
    assert laid[0] * direction[0] + laid[1] * direction[1] >= 0.0


@given(number, number, st.floats(1e-300, 1e300))
def test_level_ground_changes_not_a_bit(x, y, length):
    assert on_slope((x, y, 5.0), (0.0, 0.0, length)) == (x, y, 0.0)


@pytest.mark.parametrize("normal", [(0.0, 0.0, 0.0), (0.0, 0.1, -1.0), (math.nan, 0.0, 1.0), (0.0, 0.0, math.inf)])
def test_an_invalid_normal_is_refused(normal):
    with pytest.raises(WendonicError, match="a finite vector that points up"):
        on_slope((1.0, 0.0, 0.0), normal)
    with pytest.raises(WendonicError, match=r"normal: found .*; allowed: (a finite vector that points up|finite)"):
        world_helm("+x", "+y", "+z").ground(True, normal)


@given(st.floats(0.0, 1.5), angles, st.floats(0.0, 1.0), st.lists(st.floats(0.001, 0.2), min_size=1, max_size=6))
def test_leaning_is_the_shortest_arc_by_half_lives_however_time_is_cut(tilt, towards, half_life_s, dts):
    """Against SciPy's spherical interpolation."""
    normal = Vec3(math.sin(tilt) * math.sin(towards), math.sin(tilt) * math.cos(towards), math.cos(tilt))
    up = Vec3(0.0, 0.0, 1.0)
    for dt in dts:
        up = leaned(up, normal, half_life_s, dt)
    gone = 1.0 if half_life_s == 0.0 else 1.0 - 0.5 ** (sum(dts) / half_life_s)
    axis = np.cross([0.0, 0.0, 1.0], normal)
    ends = Rotation.from_rotvec([[0, 0, 0], axis / max(np.linalg.norm(axis), 1e-300) * tilt])
    assert up == pytest.approx(Slerp([0.0, 1.0], ends)(gone).apply([0.0, 0.0, 1.0]), abs=1e-7)


def test_too_steep_a_bank_refuses_the_way_up_lets_slide_and_the_air_is_level():
    helm = world_helm("+x", "+y", "+z", '{ frame = "map", slope = { steepest_deg = 40, slide_m_s = 2 } }')
    helm.key("KeyW", down=True)
    for tangent, refused in ((math.tan(math.radians(39.9)), False), (math.tan(math.radians(40.1)), True)):
        helm.ground(True, normal=(0.0, -tangent, 1.0))
        for _ in range(60):
            intent = helm.tick(1 / 60)
        assert tuple(intent.footing) == (refused, refused)
        speed = math.hypot(*intent.velocity())
        assert speed == pytest.approx(2.0 if refused else 3.2)
        assert (intent.velocity()[2] < 0.0, intent.amount == 0.0) == (refused, refused)
    # Across the bank he may go, sliding.
    helm.key("KeyD", down=True)
    for _ in range(60):
        intent = helm.tick(1 / 60)
    assert intent.move == pytest.approx((math.sqrt(0.5), 0.0))
    helm.ground(False)
    for _ in range(60):
        intent = helm.tick(1 / 60)
    assert (tuple(intent.footing), intent.motion.grounded) == ((False, False), False)
    assert intent.velocity() == pytest.approx((3.2 * math.sqrt(0.5), 3.2 * math.sqrt(0.5), 0.0))
