"""Gates, dead zones and curves of every form: closed forms, and what must hold for all of them together."""

import itertools
import math
import random
from typing import NamedTuple

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from scipy.interpolate import PchipInterpolator, PPoly

from few_of_many import few_of
from wendonic import Helm
from wendonic.kernels.source.curve import (
    CURVE_EXPO,
    CURVE_KNEE,
    CURVE_LINEAR,
    CURVE_POINTS,
    CURVE_POWER,
    CURVE_S,
    LINEAR,
    CurveTuning,
    curve_amount,
)
from wendonic.kernels.source.dead_zone import (
    JUST_OUT,
    ZONE_AXES,
    ZONE_CUT,
    ZONE_NONE,
    ZONE_ROUND,
    ZONE_ROUND_WEDGE,
    ZONE_WEDGE,
    DeadZoneTuning,
    dead_zone_output,
)
from wendonic.kernels.source.gate import GATE_CIRCLE, GATE_MEASURED, GATE_SQUARE, gated
from wendonic.kernels.source.stick import PLAIN_STICK, StickTuning, stick_output
from wendonic.kernels.vector import Vec2
from wendonic.profile.load import profile_from_text
from wendonic.profile.schema.curve import PointsCurve, curve_pieces
from wendonic.profile.schema.number_rows import NumberRows

ZONES = [ZONE_NONE, ZONE_ROUND, ZONE_AXES, ZONE_WEDGE, ZONE_ROUND_WEDGE, ZONE_CUT]
CURVES = [CURVE_LINEAR, CURVE_POWER, CURVE_EXPO, CURVE_S, CURVE_KNEE, CURVE_POINTS]
RIMS = [(1.0, 0.9) * 4, (0.97, 0.85, 0.9, 0.85) * 4, (0.9,) * 4]  # as alike on all sides as the forms are
HEAD = 'format = "wendonic-profile"\nversion = 1\n[mode.foot.move]\nhalf_life_s = 0\ndiagonal = "free"\n'


def rising_points(draw, most=8):
    """Points of a curve from [0, 0] to [1, 1], nothing but rising."""
    gaps = draw(st.lists(st.floats(0.05, 1.0), min_size=1, max_size=most))
    rises = draw(st.lists(st.one_of(st.just(0.0), st.floats(0.01, 1.0)), min_size=len(gaps), max_size=len(gaps)))
    rises[-1] += 0.1
    tilts = [sum(gaps[:k]) / sum(gaps) for k in range(len(gaps) + 1)]
    values = [sum(rises[:k]) / sum(rises) for k in range(len(gaps) + 1)]
    return (*zip(tilts[:-1], values[:-1], strict=True), (1.0, 1.0))


@st.composite
def shapes(
    draw,
    gates=(GATE_CIRCLE, GATE_SQUARE, GATE_MEASURED),
    zones=tuple(ZONES),
    per_axis=(0, 1),
    curves=tuple(CURVES),
    floors=(0.0, 0.15),
    exponents=(0.3, 4.0),
):
    """What `formed` takes besides the position and whether it was out; and its tables."""
    tables = NumberRows()
    points = curve_pieces(PointsCurve(form="points", points=rising_points(draw)))
    rim = draw(st.sampled_from(RIMS))
    places = {"points": tables.add(len(points) // 5, points), "rim": tables.add(len(rim), list(rim))}
    inner = draw(st.floats(0.02, 0.4))
    floor = draw(st.sampled_from(floors))
    zone, releases = draw(st.sampled_from(zones)), draw(st.integers(0, 1))
    zone = DeadZoneTuning(zone, releases, inner, draw(st.floats(inner + 0.2, 1.0)), 0.5 * inner)
    if zone.form == ZONE_NONE:
        zone = zone._replace(inner=0.0, outer=1.0)
    curve = CurveTuning(
        draw(st.sampled_from(curves)),
        places["points"],
        1,
        draw(st.sampled_from(per_axis)),
        draw(st.floats(*exponents)),
        draw(st.floats(0.05, 0.95)),
        draw(st.floats(0.05, 0.95)),
        floor,
        draw(st.floats(floor + 0.1, 1.0)),
    )
    tuning = PLAIN_STICK._replace(gate=draw(st.sampled_from(gates)), rim=places["rim"], dead_zone=zone, curve=curve)
    return Case(tuning, tuple(tables.numbers))


class Case(NamedTuple):
    """A shape with its tables."""

    tuning: StickTuning
    tables: tuple

    def at(self, x, y, was_out=0):
        length, right, forward = stick_output(self.tuning, self.tables, Vec2(x * was_out, y * was_out), x, y)
        assert length == pytest.approx(math.hypot(right, forward), abs=1e-9)
        return right, forward


angle = st.floats(-math.pi, math.pi)
out = st.sampled_from([0, 1])


def length_at(shape, heading, tilt, was_out=0):
    return math.hypot(*shape.at(tilt * math.sin(heading), tilt * math.cos(heading), was_out))


@given(shape=shapes(), x=st.floats(-1.2, 1.2), y=st.floats(-1.2, 1.2), was_out=out)
def test_every_form_is_finite_bounded_and_mirrors_the_stick(shape, x, y, was_out):
    right, forward = shape.at(x, y, was_out)
    assert all(map(math.isfinite, (right, forward)))
    assert max(abs(right), abs(forward)) <= 1.0 + 1e-12
    assert right * x >= 0.0
    assert forward * y >= 0.0
    assert shape.at(-x, y, was_out) == pytest.approx((-right, forward))
    assert shape.at(x, -y, was_out) == pytest.approx((right, -forward))
    assert shape.at(y, x, was_out) == pytest.approx((forward, right))


@given(shape=shapes(), heading=angle, one=st.floats(0.0, 1.3), other=st.floats(0.0, 1.3), was_out=out)
def test_more_tilt_never_asks_for_less(shape, heading, one, other, was_out):
    low, high = sorted((one, other))
    assert length_at(shape, heading, low, was_out) <= length_at(shape, heading, high, was_out) + 1e-9


@given(
    # A power below 1 is infinitely steep at 0, and so is a floor; points may lie steeply.
    shape=shapes(
        zones=(ZONE_NONE, ZONE_ROUND, ZONE_AXES, ZONE_WEDGE, ZONE_ROUND_WEDGE),
        curves=[form for form in CURVES if form != CURVE_POINTS],
        floors=(0.0,),
        exponents=(1.0, 4.0),
    ),
    heading=angle,
    tilt=st.floats(0.0, 1.2),
)
def test_nothing_jumps_but_a_cut_and_a_floor(shape, heading, tilt):
    """A millionth more tilt, or of a turn, changes the amount by less than any curve's steepest part allows."""
    zone, curve = shape.tuning.dead_zone, shape.tuning.curve
    knee = min(curve.knee_tilt, 1.0 - curve.knee_tilt)
    steepest = 1e-6 * 40.0 * max(curve.exponent, 1.0) / (zone.outer - zone.inner) ** 2 / knee
    there = length_at(shape, heading, tilt)
    assert abs(length_at(shape, heading, tilt + 1e-6) - there) <= steepest
    assert abs(length_at(shape, heading + 1e-6, tilt) - there) <= steepest


@given(
    shape=shapes(gates=(GATE_CIRCLE,), zones=(ZONE_NONE, ZONE_ROUND, ZONE_CUT), per_axis=(0,)),
    heading=angle,
    tilt=st.floats(0.01, 1.0),
)
def test_round_forms_keep_the_direction(shape, heading, tilt):
    right, forward = shape.at(tilt * math.sin(heading), tilt * math.cos(heading))
    assume(math.hypot(right, forward) > 1e-6)
    assert math.remainder(math.atan2(right, forward) - heading, math.tau) == pytest.approx(0.0, abs=1e-9)


@given(heading=angle, length=st.floats(0.01, 1.2), rim=st.lists(st.floats(0.5, 1.2), min_size=4, max_size=40))
def test_a_measured_gate_makes_a_circle_of_what_was_measured(heading, length, rim):
    """NumPy's periodic interpolation is the authority; on the rim the length is 1, and the direction stays."""
    at_deg = [360.0 * k / len(rim) for k in range(len(rim))]
    reach = float(np.interp(math.degrees(heading), at_deg, rim, period=360.0))
    x, y = gated(length * math.sin(heading), length * math.cos(heading), GATE_MEASURED, (float(len(rim)), *rim), 0)
    assert math.hypot(x, y) == pytest.approx(length / reach, rel=1e-9)
    assert math.remainder(math.atan2(x, y) - heading, math.tau) == pytest.approx(0.0, abs=1e-9)


@given(data=st.data())
def test_a_curve_through_points_is_scipys_own(data):
    """Everywhere, not only at samples; monotone wherever the points are, and through each of them."""
    points = rising_points(data.draw, most=31)
    spline = PchipInterpolator(*zip(*points, strict=True))
    pieces = curve_pieces(PointsCurve(form="points", points=points))
    tables = (99.0, len(pieces) / 5.0, *pieces)

    def value(tilt):
        return curve_amount(LINEAR._replace(form=CURVE_POINTS, points=1), tables, tilt)

    tilts = np.linspace(1e-6, 1.0, 500)
    found = [value(tilt) for tilt in tilts.tolist()]
    assert np.abs(np.array(found) - spline(tilts)).max() < 1e-12
    assert min(np.diff(found), default=0.0) >= -1e-15
    assert [value(tilt) for tilt, _ in points[1:]] == pytest.approx([amount for _, amount in points[1:]])


def test_a_square_gate_makes_a_circle_of_a_square_rim():
    for step in range(64):
        heading = math.tau * step / 64
        rim = 1.0 / max(abs(math.sin(heading)), abs(math.cos(heading)))
        x, y = gated(rim * math.sin(heading), rim * math.cos(heading), GATE_SQUARE, (), 0)
        assert (math.hypot(x, y), math.atan2(x, y)) == pytest.approx((1.0, math.remainder(heading, math.tau)))


def zoned(at, form, was_out=0.0, inner=0.2, outer=1.0):
    """Position of a stick with a dead zone taken off."""
    zone = DeadZoneTuning(form, 1, inner, outer, 0.1)
    length, x, y, norm = dead_zone_output(zone, Vec2(at[0] * was_out, at[1] * was_out), *at)
    return (x * length / norm, y * length / norm) if length else (0.0, 0.0)


@pytest.mark.parametrize(
    ("zone", "at", "expected"),
    [
        (ZONE_NONE, (0.05, 0.0), (0.05, 0.0)),
        (ZONE_NONE, (3.0, 4.0), (0.6, 0.8)),
        (ZONE_ROUND, (0.3, 0.4), (0.6 * 0.375, 0.8 * 0.375)),
        (ZONE_AXES, (0.6, 0.2), (0.5, 0.0)),
        # Within atan(0.2) = 11.3 degrees of an axis it is put on it, its length kept.
        (ZONE_WEDGE, (0.9, 0.18), (math.hypot(0.9, 0.18), 0.0)),
        (ZONE_WEDGE, (-0.3, 0.3), (-0.3, 0.3)),
        # 0.6 - 0.2 0.3 to 0.3 - 0.2 0.6 is 3 to 1.
        (ZONE_WEDGE, (0.6, 0.3), (math.hypot(0.6, 0.3) * 3 / 10**0.5, math.hypot(0.6, 0.3) / 10**0.5)),
        (ZONE_ROUND_WEDGE, (0.0, 0.6), (0.0, 0.5)),
        (
            ZONE_ROUND_WEDGE,
            (0.48, 0.36),
            (0.5 * 0.408 / math.hypot(0.408, 0.264), 0.5 * 0.264 / math.hypot(0.408, 0.264)),
        ),
        (ZONE_CUT, (0.19, 0.0), (0.0, 0.0)),
        (ZONE_CUT, (0.0, -0.21), (0.0, -0.21)),
    ],
)
def test_dead_zones_by_hand(zone, at, expected):
    assert zoned(at, zone) == pytest.approx(expected, abs=1e-12)


@pytest.mark.parametrize("zone", [ZONE_ROUND, ZONE_CUT, ZONE_AXES])
def test_a_stick_that_is_out_stays_out_until_it_is_back_at_its_release(zone):
    assert zoned((0.15, 0.0), zone) == (0.0, 0.0)
    assert zoned((0.15, 0.0), zone, was_out=1.0) == pytest.approx((0.15 if zone == ZONE_CUT else JUST_OUT, 0.0))
    assert zoned((0.1, 0.0), zone, was_out=1.0) == (0.0, 0.0)


@given(tilt=st.floats(0.001, 1.0), a=st.floats(0.0, 1.0), knee=st.floats(0.05, 0.95), value=st.floats(0.05, 0.95))
def test_curves_are_the_polynomials_they_say(tilt, a, knee, value):
    """SciPy's piecewise polynomials are the authority."""
    expo = PPoly([[a], [0.0], [1.0 - a], [0.0]], [0.0, 1.0])
    s = PPoly([[-2.0 * a], [3.0 * a], [1.0 - a], [0.0]], [0.0, 1.0])
    broken = PPoly([[value / knee, (1.0 - value) / (1.0 - knee)], [0.0, value]], [0.0, knee, 1.0])
    knees = LINEAR._replace(form=CURVE_KNEE, amount=value, knee_tilt=knee)
    assert curve_amount(LINEAR._replace(form=CURVE_EXPO, amount=a), (), tilt) == pytest.approx(float(expo(tilt)))
    assert curve_amount(LINEAR._replace(form=CURVE_S, amount=a), (), tilt) == pytest.approx(float(s(tilt)))
    assert curve_amount(knees, (), tilt) == pytest.approx(float(broken(tilt)))
    ends = knees._replace(ends=1, floor=0.25, ceiling=0.75)
    assert curve_amount(ends, (), tilt) == pytest.approx(0.25 + 0.5 * float(broken(tilt)))


@given(heading=angle, zone=st.sampled_from([ZONE_ROUND, ZONE_WEDGE, ZONE_ROUND_WEDGE]), inner=st.floats(0.001, 0.5))
def test_full_tilt_is_full_speed_in_every_direction(heading, zone, inner):
    at = math.sin(heading), math.cos(heading)
    assert math.hypot(*zoned(at, zone, inner=inner, outer=0.9)) == pytest.approx(1.0)


STICK = '[[mode.foot.move.bind]]\nstick = "pad.left_stick"\n'


@pytest.mark.parametrize(
    ("lines", "steps", "expected"),
    [
        # The centre is where the device rests, in its own numbers: y towards the player.
        ("centre = [0.1, -0.2]\ndead_zone = { form = 'none' }", [(0.1, -0.2), (0.6, -0.2)], [(0.0, 0.0), (0.5, 0.0)]),
        (
            "gate = 'square'\ndead_zone = { form = 'none' }",
            [(1.0, -1.0), (1.0, 0.0)],
            [(math.sqrt(0.5), math.sqrt(0.5)), (1.0, 0.0)],
        ),
        (
            "dead_zone = { form = 'cut', inner = 0.3, release = 0.2 }",
            [(0.25, 0.0), (0.31, 0.0), (0.25, 0.0), (0.2, 0.0), (0.25, 0.0)],
            [(0.0, 0.0), (0.31, 0.0), (0.25, 0.0), (0.0, 0.0), (0.0, 0.0)],
        ),
        (
            "dead_zone = { inner = 0.2, outer = 1.0, release = 0.1 }\ncurve = { form = 'linear', floor = 0.3 }",
            [(0.15, 0.0), (0.6, 0.0), (0.15, 0.0), (0.1, 0.0)],
            [(0.0, 0.0), (0.65, 0.0), (0.3, 0.0), (0.0, 0.0)],
        ),
        (
            "dead_zone = { form = 'axes', inner = 0.2, outer = 1.0 }\ncurve = { form = 'power', exponent = 2, "
            "per_axis = true }",
            [(0.6, -0.6), (1.0, -1.0)],
            [(0.25, 0.25), (1.0, 1.0)],
        ),
    ],
)
def test_a_profile_gets_what_it_writes(lines, steps, expected):
    curve = "" if "curve" in lines else "curve = { form = 'linear' }\n"
    helm = Helm(profile_from_text(HEAD + STICK + curve + lines + "\n"))
    found = []
    for x, y in steps:
        helm.stick("pad.left_stick", x, y)
        found.append(tuple(helm.tick(0.1).local))
    assert found == [pytest.approx(pair, abs=1e-9) for pair in expected]


@pytest.mark.parametrize("kept", [1.0, 0.05], ids=["white", "slow"])
@pytest.mark.parametrize(
    ("zone", "frame"),
    few_of(
        list(itertools.product(("round", "round+wedge", "axes", "cut"), ("map", "camera", "fly"))),
        [("round", "map"), ("round+wedge", "camera"), ("axes", "camera"), ("cut", "fly")],
    ),
)
def test_a_tilt_that_trembles_on_the_border_has_one_heading_while_it_is_held(zone, frame, kept):
    """Ten seconds at a tilt of inner, trembling by 0.004: white, and slow as a hand is."""
    shown = {}
    for release in (", release = 0.14", "", ", release = 0.13"):
        lines = f"dead_zone = {{ form = '{zone}', inner = 0.14{release} }}\n"
        text = HEAD + f"[mode.foot]\nsteer = {{ frame = '{frame}' }}\n" + STICK + lines
        helm, noise, tremble = Helm(profile_from_text(text)), random.Random(5), 0.0
        helm.stick("pad.left_stick", 0.3, -0.4)
        helm.tick(1 / 60)
        at = []
        for _ in range(600):
            tremble += kept * (noise.uniform(-0.004, 0.004) - tremble)
            tilt = 0.14 + tremble
            x, y = (tilt, -tilt) if zone == "axes" else (0.6 * tilt, -0.8 * tilt)
            helm.stick("pad.left_stick", x, y)
            at.append(helm.tick(1 / 60))
        shown[release] = {intent.amount > 0.0 for intent in at}
        if release != ", release = 0.14" and zone in ("round", "cut"):
            assert [one.heading_deg for one in at] == pytest.approx([36.87] * 600, abs=0.01)
    assert list(shown.values()) == [{True, False}, {True}, {True}]
    helm.stick("pad.left_stick", 0.06, -0.08)
    assert [helm.tick(1 / 60).amount for _ in range(60)][-1] == 0.0


def test_a_look_stick_has_every_form_too():
    look = (
        '[mode.foot.look]\n[[mode.foot.look.bind]]\nstick = "pad.right_stick"\nyaw_deg_s = 100\npitch_deg_s = 100\n'
    )
    shape = "dead_zone = { form = 'axes', inner = 0.2, outer = 1.0 }\ncurve = { form = 'expo', amount = 1 }\n"
    helm = Helm(profile_from_text(HEAD.split("[mode", maxsplit=1)[0] + look + shape))
    helm.stick("pad.right_stick", 0.6, -0.1)
    assert helm.tick(1.0).look == pytest.approx((12.5, 0.0))
