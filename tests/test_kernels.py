"""Every step of the tick against a closed form or an outside authority."""

import itertools
import math

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from scipy.integrate import solve_ivp
from scipy.signal import lfilter
from scipy.spatial.transform import Rotation

from wendonic.kernels.angles import wrapped_angle
from wendonic.kernels.body.facing import turned_towards
from wendonic.kernels.body.gait import walked
from wendonic.kernels.half_life import half_life_factor
from wendonic.kernels.move.diagonal import DIAGONAL_CAP, DIAGONAL_FREE, DIAGONAL_UNIT, diagonal_scale
from wendonic.kernels.source.curve import CURVE_LINEAR, CURVE_POWER, LINEAR, curve_amount
from wendonic.kernels.source.dead_zone import round_dead_zone
from wendonic.kernels.source.ramp import ramp, ramp_begin, ramp_run
from wendonic.kernels.vector import turned
from wendonic.kernels.view_axes import STEEP, pose_forward

unit = st.floats(-1.0, 1.0)
angle = st.floats(-math.pi, math.pi)
seconds = st.floats(1e-6, 0.5)
ramp_s = st.one_of(st.just(0.0), st.floats(0.005, 0.5))
speed = st.floats(-10.0, 10.0)
rate = st.floats(0.5, 100.0)


@given(tilt=st.floats(0.0, 2.0), inner=st.floats(0.0, 0.9), width=st.floats(0.01, 1.0))
def test_dead_zone_is_linear_interpolation_between_its_edges(tilt, inner, width):
    assert round_dead_zone(tilt, inner, inner + width) == pytest.approx(
        np.interp(tilt, [inner, inner + width], [0.0, 1.0]), abs=1e-12
    )


@given(inner=st.floats(0.0, 0.8), width=st.floats(0.05, 1.0), gap=st.floats(1e-9, 1e-6))
def test_dead_zone_has_no_jump_at_either_edge(inner, width, gap):
    outer = inner + width
    assert round_dead_zone(inner, inner, outer) == 0.0
    assert 0.0 <= round_dead_zone(inner + gap, inner, outer) <= gap / width + 1e-9
    assert round_dead_zone(outer, inner, outer) == 1.0
    assert 1.0 - gap / width - 1e-9 <= round_dead_zone(outer - gap, inner, outer) <= 1.0


@pytest.mark.parametrize("form", [CURVE_LINEAR, CURVE_POWER])
@given(tilts=st.tuples(st.floats(0.0, 1.0), st.floats(0.0, 1.0)), exponent=st.floats(0.1, 10.0))
def test_curves_are_monotone_and_keep_their_ends(form, tilts, exponent):
    curve = LINEAR._replace(form=form, exponent=exponent)
    low, high = (curve_amount(curve, (), tilt) for tilt in sorted(tilts))
    assert 0.0 <= low <= high <= 1.0
    assert (curve_amount(curve, (), 0.0), curve_amount(curve, (), 1.0)) == (0.0, 1.0)


def test_power_curve_is_a_power():
    tilts = np.linspace(0.0, 1.0, 101)
    curve = LINEAR._replace(form=CURVE_POWER, exponent=1.6)
    assert [curve_amount(curve, (), tilt) for tilt in tilts] == pytest.approx(np.power(tilts, 1.6))


@given(value=unit, target=st.sampled_from([-1.0, 0.0, 1.0]), rise_s=ramp_s, fall_s=ramp_s, dt=seconds)
def test_ramp_follows_the_straight_lines_through_zero(value, target, rise_s, fall_s, dt):
    """Times and values of the whole way, laid out as a polyline."""
    through_zero = value * target < 0.0 or target == 0.0
    stop = 0.0 if through_zero else value
    fall_end = abs(value - stop) * fall_s
    rise_end = fall_end + abs(target - stop) * rise_s
    if min(abs(dt - fall_end), abs(dt - rise_end)) < 1e-9:
        return
    expected = value + (stop - value) * dt / fall_end if dt < fall_end else stop
    if fall_end < dt:
        expected = stop + (target - stop) * (dt - fall_end) / (rise_end - fall_end) if dt < rise_end else target
    assert ramp(value, target, rise_s, fall_s, dt) == pytest.approx(expected, abs=1e-12)


@given(
    value=unit,
    target=st.sampled_from([-1.0, 0.0, 1.0]),
    rise_s=ramp_s,
    fall_s=ramp_s,
    dt=seconds,
    part=st.floats(0.0, 1.0),
)
def test_cutting_a_tick_in_two_does_not_change_a_ramp(value, target, rise_s, fall_s, dt, part):
    halfway = ramp(value, target, rise_s, fall_s, dt * part)
    # With a time of 0 s the value is there at once, but not when no time passes at all.
    assume(0.0 < part < 1.0)
    assert ramp(halfway, target, rise_s, fall_s, dt - dt * part) == pytest.approx(
        ramp(value, target, rise_s, fall_s, dt), abs=1e-9
    )


@given(value=unit, target=st.sampled_from([-1.0, 0.0, 1.0]), rise_s=ramp_s, fall_s=ramp_s, dt=st.floats(1e-3, 0.5))
def test_a_straight_run_in_place_of_a_ramp_has_its_mean(value, target, rise_s, fall_s, dt):
    """The area under the ramp, a polyline, by the trapezoidal rule between its corners."""
    through_zero = value * target < 0.0 or target == 0.0
    corners = [abs(value) * fall_s, abs(value) * fall_s + rise_s] if through_zero else [abs(target - value) * rise_s]
    times = [0.0, *sorted({corner for corner in corners if 0.0 < corner < dt}), dt]
    area = 0.0
    for before, after in itertools.pairwise(times):
        # Just after and just before each corner: without a time a ramp leaps there.
        inside = [before + share * (after - before) for share in (1e-9, 1.0 - 1e-9)]
        first, last = (ramp(value, target, rise_s, fall_s, t) for t in inside)
        area += 0.5 * (first + last) * (after - before)
    begin, end = ramp_begin(value, target, rise_s, fall_s), ramp(value, target, rise_s, fall_s, dt)
    run_s = ramp_run(value, target, end, rise_s, fall_s, dt)
    assert end * dt + (begin - end) * run_s / 2.0 == pytest.approx(area, abs=1e-7)
    assert 0.0 <= run_s <= (dt if fall_s <= rise_s else 2.0 * dt) + 1e-12


@given(half_life_s=st.floats(0.001, 1.0), dt=seconds, part=st.floats(0.0, 1.0))
def test_half_life_halves_and_its_parts_multiply(half_life_s, dt, part):
    assert half_life_factor(half_life_s, half_life_s) == 0.5
    parts = half_life_factor(half_life_s, dt * part) * half_life_factor(half_life_s, dt - dt * part)
    assert parts == pytest.approx(half_life_factor(half_life_s, dt), abs=1e-9)


def test_smoothing_is_the_first_order_filter_of_signal_processing():
    """SciPy's lfilter with the pole at 2^(-dt/half-life) is the same exponential smoothing."""
    noise = np.random.default_rng(5).normal(size=400)
    left = half_life_factor(0.03, 1 / 60)
    value, ours = 0.0, []
    for raw in noise:
        value = raw + (value - raw) * left
        ours.append(value)
    pole = math.exp(-math.log(2.0) / 60 / 0.03)
    assert ours == pytest.approx(lfilter([1.0 - pole], [1.0, -pole], noise), abs=1e-12)


@given(length=st.one_of(st.floats(0.0, 1.5), st.just(5e-324)))
def test_diagonal_rules(length):
    assert length * diagonal_scale(length, DIAGONAL_CAP) == pytest.approx(min(length, 1.0))
    assert length * diagonal_scale(length, DIAGONAL_UNIT) == pytest.approx(1.0 if length > 1e-9 else length)
    assert length * diagonal_scale(length, DIAGONAL_FREE) == length


@given(right=unit, forward=unit, yaw=st.floats(-20.0, 20.0))
def test_camera_frame_turns_like_a_rotation_about_up(right, forward, yaw):
    """Yaw is clockwise from above, SciPy's rotations are counter-clockwise."""
    expected = Rotation.from_euler("z", -yaw).apply([right, forward, 0.0])
    assert turned(right, forward, yaw) == pytest.approx(expected[:2], abs=1e-12)


@given(turns=st.floats(-1e6, 1e6))
def test_wrapped_angle_is_the_same_direction_in_range(turns):
    wrapped = wrapped_angle(turns)
    assert -math.pi < wrapped <= math.pi
    difference = math.remainder(wrapped - turns, math.tau)
    assert difference == pytest.approx(0.0, abs=1e-9)
    assert wrapped_angle(wrapped) == wrapped


@given(face=angle, heading=angle, turn_rate=st.floats(0.1, 30.0), dt=st.floats(0.0, 0.5))
def test_facing_turns_the_short_way_at_its_rate_and_never_past(face, heading, turn_rate, dt):
    short = math.remainder(heading - face, math.tau)
    turned = math.remainder(turned_towards(face, heading, turn_rate, dt) - face, math.tau)
    assume(abs(short) < math.pi - 1e-9)
    assert turned == pytest.approx(math.copysign(min(abs(short), turn_rate * dt), short), abs=1e-9)


def test_facing_exactly_behind_turns_right_and_does_not_dither():
    face, headings = 0.0, []
    for _ in range(10):
        face = turned_towards(face, math.pi, 1.0, 0.25)
        headings.append(face)
    assert headings == pytest.approx([0.25 * step for step in range(1, 11)])


@given(velocity=st.tuples(speed, speed), wanted=st.tuples(speed, speed), accel=rate, brake=rate, dt=seconds)
def test_gait_is_the_integral_of_its_acceleration(velocity, wanted, accel, brake, dt):
    """SciPy integrates speed along the straight line from one velocity to the other."""
    start, end = np.array(velocity), np.array(wanted)
    step = float(np.linalg.norm(end - start))
    assume(step > 1e-3)
    along = (end - start) / step
    fall = min(max(-float(start @ along), 0.0), step)
    times = np.array([fall / brake, fall / brake + (step - fall) / accel])
    # Between the two corners everything is a polynomial, which the integrator then solves to rounding.
    corners = [0.0, *sorted(min(time, dt) for time in times), dt]
    state = np.array([0.0, 0.0])
    for index, (a, b) in enumerate(itertools.pairwise(corners)):
        if b > a:
            pull = (brake, accel, 0.0)[index]
            state = solve_ivp(lambda _, y, pull=pull: [y[1], pull], (a, b), state, rtol=1e-10, atol=1e-12).y[:, -1]
    vel_x, vel_y, moved_x, moved_y = walked(*velocity, *wanted, accel, brake, dt)
    assert (vel_x, vel_y) == pytest.approx(start + along * state[1], abs=1e-7)
    assert (moved_x, moved_y) == pytest.approx(start * dt + along * state[0], abs=1e-7)


@given(velocity=st.tuples(speed, speed), wanted=st.tuples(speed, speed), accel=rate, brake=rate, dt=seconds)
def test_gait_does_not_depend_on_how_time_is_cut(velocity, wanted, accel, brake, dt):
    whole = walked(*velocity, *wanted, accel, brake, dt)
    first = walked(*velocity, *wanted, accel, brake, dt * 0.3)
    second = walked(first[0], first[1], *wanted, accel, brake, dt * 0.7)
    parts = (second[0], second[1], first[2] + second[2], first[3] + second[3])
    assert parts == pytest.approx(whole, abs=1e-9)


def test_gait_stops_where_school_says():
    """From v, braking at b: v / b seconds and v² / 2b metres."""
    assert walked(3.2, 0.0, 0.0, 0.0, 22.0, 30.0, 1.0) == pytest.approx((0.0, 0.0, 3.2**2 / 60.0, 0.0))
    # A reversal: the same way out and, after as much time as speeding up needs, the way back.
    vel_x, _, moved_x, _ = walked(3.2, 0.0, -3.2, 0.0, 22.0, 30.0, 3.2 / 30.0 + 3.2 / 22.0)
    assert (vel_x, moved_x) == pytest.approx((-3.2, 3.2**2 / 60.0 - 3.2**2 / 44.0))


@given(st.tuples(*[st.floats(-2.0, 2.0)] * 4).filter(lambda parts: math.hypot(*parts) > 0.1))
def test_a_pose_points_on_the_plan_where_its_rotation_says(quaternion):
    pose = Rotation.from_quat(quaternion)
    ahead, top = pose.apply([0.0, 0.0, -1.0]), pose.apply([0.0, 1.0, 0.0])
    # Of a view less than 80 deg steep what is above it has no say.
    share = np.clip((abs(ahead[1]) - STEEP) / (1.0 - STEEP), 0.0, 1.0)
    share *= share * (3.0 - 2.0 * share)
    plan = (1.0 - share) * ahead - np.sign(ahead[1]) * share * top
    assume(math.hypot(plan[0], plan[2]) > 1e-3)
    expected = np.array([plan[0], -plan[2]]) / math.hypot(plan[0], plan[2])
    assert pose_forward(*quaternion) == pytest.approx(expected, abs=1e-9)
