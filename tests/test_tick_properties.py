"""What must hold for every profile and every input, tick by tick."""

import math

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from wendonic.compiler.layout import flat
from wendonic.kernels.body.gait import PLAIN_GAIT
from wendonic.kernels.body.ground import NO_COURSE
from wendonic.kernels.frames.frame import PLAIN_FRAME
from wendonic.kernels.frames.steer import FRAME_CAMERA, FRAME_MAP
from wendonic.kernels.move.diagonal import DIAGONAL_CAP, DIAGONAL_FACTOR, DIAGONAL_FREE, DIAGONAL_UNIT
from wendonic.kernels.move.merge import MERGE_LATEST, MERGE_STRONGEST, MERGE_SUM
from wendonic.kernels.move.move import (
    NO_MOVE,
    SMOOTHING_HALF_LIFE,
    SMOOTHING_NONE,
    SMOOTHING_ONE_EURO,
)
from wendonic.kernels.move.one_euro import OneEuroTuning
from wendonic.kernels.move.paces import PaceTuning
from wendonic.kernels.sample import EMPTY_SAMPLE, ViewInput
from wendonic.kernels.source.curve import CURVE_LINEAR, CURVE_POWER, LINEAR
from wendonic.kernels.source.dead_zone import JUST_OUT, NO_DEAD_ZONE, ZONE_ROUND
from wendonic.kernels.source.keys import NO_KEYS
from wendonic.kernels.source.opposites import OPPOSITES_CANCEL, OPPOSITES_EARLIEST, OPPOSITES_LATEST
from wendonic.kernels.source.source import PLAIN_SOURCE, SOURCE_AXES, SOURCE_KEYS, SOURCE_STICK
from wendonic.kernels.source.stick import PLAIN_STICK
from wendonic.kernels.tick import MOST_PARTS, standing, tick, tick_part
from wendonic.kernels.tick_record import tick_at_rest
from wendonic.kernels.tuning import PLAIN_TUNING

ramp_s = st.one_of(st.just(0.0), st.floats(0.01, 0.3))
key = st.sampled_from([0.0, 1.0])
ONLY_STICKS = (SOURCE_STICK,)
OPPOSITES = [OPPOSITES_CANCEL, OPPOSITES_LATEST, OPPOSITES_EARLIEST]
MOST_SOURCES = 6
axis = st.floats(-1.0, 1.0)
dts = st.one_of(st.floats(1e-4, 0.1), st.floats(0.1, 3.0), st.sampled_from([5e-324, 1e-9]))


def keys_source(rise_s, fall_s, opposites=OPPOSITES_CANCEL, at_once=0):
    ramps = int(rise_s + fall_s > 0.0)
    keys = NO_KEYS._replace(opposites=opposites, ramps=ramps, at_once=at_once, rise_s=rise_s, fall_s=fall_s)
    return PLAIN_SOURCE._replace(kind=SOURCE_KEYS, keys=keys)


def stick_source(inner, outer, kind=SOURCE_STICK, form=CURVE_LINEAR, exponent=1.0):
    zone = NO_DEAD_ZONE._replace(form=ZONE_ROUND, inner=max(inner, JUST_OUT), outer=outer)
    stick = PLAIN_STICK._replace(dead_zone=zone, curve=LINEAR._replace(form=form, exponent=exponent))
    return PLAIN_SOURCE._replace(kind=kind, stick=stick)


def mode_of(move, frame=FRAME_MAP, turn_rate=9.0, gait=PLAIN_GAIT, max_dt_s=0.1):
    steer = PLAIN_FRAME._replace(frame=frame, turn_rate=turn_rate)
    return PLAIN_TUNING._replace(max_dt_s=max_dt_s, move=move, frame=steer, gaits=(gait,))


def walk_of(*sources, half_life_s=0.0):
    smoothing = SMOOTHING_HALF_LIFE if half_life_s else SMOOTHING_NONE
    gait = PLAIN_GAIT._replace(top_speed_m_s=2.0, accel_m_s2=20.0, brake_m_s2=20.0)
    move = NO_MOVE._replace(sources=sources, smoothing=smoothing, half_life_s=half_life_s)
    return mode_of(move, gait=gait)


@st.composite
def sources(draw, kinds):
    """Any number of sources of any kind."""
    chosen = []
    for _ in range(draw(st.integers(1, MOST_SOURCES))):
        if kinds != ONLY_STICKS and draw(st.booleans()):
            rules = draw(st.sampled_from(OPPOSITES)), draw(st.integers(0, 1))
            chosen.append(keys_source(draw(ramp_s), draw(ramp_s), *rules))
        else:
            inner = draw(st.floats(0.0, 0.5))
            form = draw(st.sampled_from([CURVE_LINEAR, CURVE_POWER]))
            outer = draw(st.floats(inner + 0.1, 1.0))
            chosen.append(stick_source(inner, outer, draw(st.sampled_from(kinds)), form, draw(st.floats(0.3, 4.0))))
    return tuple(chosen)


@st.composite
def ruled(draw, move):
    """Steps 7 to 10 in every combination."""
    above = sorted(draw(st.lists(st.floats(0.0, 0.9), max_size=6, unique=True)))
    amounts = sorted(draw(st.tuples(*[st.floats(0.05, 1.0)] * len(above))))
    if draw(st.booleans()):
        one_euro = OneEuroTuning(draw(st.floats(0.1, 20.0)), draw(st.floats(0.0, 20.0)), draw(st.floats(0.1, 20.0)))
        move = move._replace(smoothing=SMOOTHING_ONE_EURO, one_euro=one_euro)
    return move._replace(
        diagonal_factor=draw(st.floats(0.1, 1.0)),
        paces=tuple(map(PaceTuning, above, amounts)),
        pace_margin=draw(st.floats(0.0, 0.3)),
        notches=draw(st.sampled_from([0, 2, 4, 8, 16])),
        notch_pull=draw(st.floats(0.0, 1.0)),
        cuts_ramps=1,
    )


@st.composite
def tunings(
    draw,
    diagonal=(DIAGONAL_CAP, DIAGONAL_UNIT, DIAGONAL_FREE, DIAGONAL_FACTOR),
    frame=(FRAME_CAMERA, FRAME_MAP),
    merge=(MERGE_STRONGEST, MERGE_SUM, MERGE_LATEST),
    kinds=(SOURCE_STICK, SOURCE_AXES),
    rules=True,
):
    half_life_s = draw(st.one_of(ramp_s, st.just(1e-9)))
    move = NO_MOVE._replace(
        sources=draw(sources(kinds)),
        merge=draw(st.sampled_from(merge)),
        diagonal=draw(st.sampled_from(diagonal)),
        smoothing=SMOOTHING_HALF_LIFE if half_life_s else SMOOTHING_NONE,
        half_life_s=half_life_s,
    )
    if move.diagonal == DIAGONAL_FACTOR or (rules and draw(st.booleans())):
        move = draw(ruled(move))
    top_speed, accel, brake = draw(st.floats(0.1, 20.0)), draw(st.floats(0.5, 200.0)), draw(st.floats(0.5, 200.0))
    gait = PLAIN_GAIT._replace(top_speed_m_s=top_speed, accel_m_s2=accel, brake_m_s2=brake)
    turn_rate, max_dt_s = draw(st.floats(0.5, 30.0)), draw(st.floats(0.01, 0.2))
    return mode_of(move, draw(st.sampled_from(frame)), turn_rate, gait, max_dt_s)


@st.composite
def samples(draw, tuning):
    """Raw numbers that fit the tuning's sources."""
    rows = []
    for source in tuning.move.sources:
        if source.kind == SOURCE_KEYS:
            ordered = draw(st.booleans())
            rows.append(draw(st.permutations([0.0, 0.0, 1.0, 2.0])) if ordered else [draw(key) for _ in range(4)])
        else:
            rows.append([draw(axis), draw(axis)])
    view = ViewInput(1.0, draw(st.floats(-50.0, 50.0)), draw(st.floats(-1.5, 1.5)))
    return EMPTY_SAMPLE._replace(move=tuple(map(tuple, rows)), view=view)


@st.composite
def runs(draw, **limits):
    """A tuning and some ticks for it: (sample, dt)."""
    tuning = draw(tunings(**limits))
    return tuning, [(draw(samples(tuning)), draw(dts)) for _ in range(draw(st.integers(1, 12)))]


def played(tuning, steps):
    now, results = tick_at_rest(tuning), []
    for sample, dt in steps:
        now = tick(tuning, (), NO_COURSE, now, sample, dt)
        results.append(now.outcome)
    return results


@settings(max_examples=15)
@given(run=runs())
def test_every_number_is_finite_and_in_its_range(run):
    tuning, steps = run
    for outcome in played(tuning, steps):
        assert all(map(math.isfinite, flat(outcome)))
        assert outcome.amount == pytest.approx(math.hypot(*outcome.move), abs=1e-9)
        assert outcome.amount == pytest.approx(math.hypot(*outcome.local), abs=1e-9)
        # Under a sum every source may add its diagonal.
        sum_of = len(tuning.move.sources) if tuning.move.merge == MERGE_SUM else 1
        uncapped = tuning.move.diagonal in (DIAGONAL_FREE, DIAGONAL_FACTOR)
        most = sum_of * math.sqrt(2.0) + 1e-12 if uncapped else 1.0
        assert 0.0 <= outcome.amount <= most
        assert math.hypot(*outcome.body.velocity) <= most * tuning.gaits[0].top_speed_m_s * (1.0 + 1e-9)
        assert -math.pi <= outcome.body.face <= math.pi


@settings(max_examples=8)
@given(run=runs(frame=(FRAME_CAMERA,)), turn=st.floats(-3.0, 3.0))
def test_camera_and_path_turn_together(run, turn):
    """Turn every view by the same angle, and everything that came out turns by it."""
    tuning, steps = run
    turned = [(sample._replace(view=sample.view._replace(yaw=sample.view.yaw + turn)), dt) for sample, dt in steps]
    cosine, sine = math.cos(turn), math.sin(turn)
    for one, other in zip(played(tuning, steps), played(tuning, turned), strict=True):
        assert (other.source, other.raw, other.local) == (one.source, one.raw, one.local)
        for before, after in (
            (one.move, other.move),
            (one.body.velocity, other.body.velocity),
            (one.body.position, other.body.position),
        ):
            expected = before[0] * cosine + before[1] * sine, before[1] * cosine - before[0] * sine
            # Where a request only turns, rounding decides between accelerating and braking: 200 m/s² in 1e-9 s.
            assert after[:2] == pytest.approx(expected, abs=2e-7 + 1e-9 * math.hypot(*before))


@given(
    run=runs(
        frame=(FRAME_MAP,),
        kinds=ONLY_STICKS,
        diagonal=(DIAGONAL_CAP, DIAGONAL_UNIT, DIAGONAL_FREE),
        rules=False,
    ),
    turn=st.floats(-3.0, 3.0),
)
def test_a_turned_stick_gives_a_turned_intent(run, turn):
    tuning, steps = run
    cosine, sine = math.cos(turn), math.sin(turn)

    def turned(sample):
        return sample._replace(move=tuple((x * cosine + y * sine, y * cosine - x * sine) for x, y in sample.move))

    def nudged(sample, factor, all_of_them):
        return sample._replace(
            move=tuple(
                (x * factor, y * factor) if all_of_them or not number else (x, y)
                for number, (x, y) in enumerate(sample.move)
            )
        )

    others = played(tuning, [(turned(sample), dt) for sample, dt in steps])
    beside = [
        played(tuning, [(nudged(sample, factor, all_of_them), dt) for sample, dt in steps])
        for factor in (1.0 - 1e-9, 1.0 + 1e-9)
        for all_of_them in (False, True)
    ]
    for one, other, *near in zip(played(tuning, steps), others, *beside, strict=True):
        # Rounding may tip a stick over the very edge of its dead zone, or one of two equal sticks over the other.
        assume(all(abs(one.amount - this.amount) < 1e-6 and one.source == this.source for this in near))
        assert (other.amount, other.source) == (pytest.approx(one.amount, abs=1e-6), one.source)
        expected = one.move.x * cosine + one.move.y * sine, one.move.y * cosine - one.move.x * sine
        assert other.move == pytest.approx(expected, abs=1e-6)


@given(tuning=tunings(), held=st.lists(key, min_size=4, max_size=4), dt=st.floats(0.001, 5.0))
def test_opposite_keys_together_give_exactly_nothing(tuning, held, dt):
    keys = keys_source(0.05, 0.02)
    tuning = tuning._replace(move=tuning.move._replace(sources=(keys, keys)))
    # Right with left, forward with back: both or neither.
    rows = (held[0], held[0], held[1], held[1]), (held[2], held[2], held[3], held[3])
    (outcome,) = played(tuning, [(EMPTY_SAMPLE._replace(move=rows), dt)])
    assert (*outcome.raw, outcome.amount, *outcome.body.velocity) == (0.0,) * 6


@settings(max_examples=8)
@given(run=runs())
def test_no_time_changes_nothing(run):
    tuning, steps = run
    now = tick_at_rest(tuning)
    for sample, dt in steps:
        now = tick(tuning, (), NO_COURSE, now, sample, dt)
        assert standing(now) == now._replace(outcome=now.outcome._replace(look=(0.0, 0.0)))


@given(run=runs(), dt=st.floats(0.3, 5.0))
def test_a_hitch_is_its_equal_parts_one_after_another(run, dt):
    tuning, steps = run
    sample, _ = steps[0]
    parts = math.ceil(dt / tuning.max_dt_s)
    # Where rounding leaves a part a hair too long, ticked by itself it would be a hitch again.
    assume(dt / parts <= tuning.max_dt_s)
    now = tick_at_rest(tuning)
    for _ in range(parts):
        now = tick(tuning, (), NO_COURSE, now, sample, dt / parts)
    assert tick(tuning, (), NO_COURSE, tick_at_rest(tuning), sample, dt) == now


FORWARD = EMPTY_SAMPLE._replace(move=((0.0, 0.0, 1.0, 0.0),))


def test_a_night_asleep_is_cut_into_a_limited_number_of_parts_and_still_adds_up():
    tuning = walk_of(keys_source(0.0, 0.0), half_life_s=0.02)
    night_s = 8 * 3600.0
    assert night_s / 0.1 > MOST_PARTS
    now = tick(tuning, (), NO_COURSE, tick_at_rest(tuning), FORWARD, night_s)
    body = now.outcome.body
    # Smoothing to a half-life of 0.02 s and speeding up cost a few centimetres at the start, no more.
    assert body.position.y == pytest.approx(2.0 * night_s, abs=2.0 * night_s / MOST_PARTS)
    assert body.velocity.y == 2.0
    last = tick_at_rest(tuning)
    for _ in range(MOST_PARTS):
        last = tick_part(tuning, (), NO_COURSE, last, FORWARD, night_s / MOST_PARTS)
    assert now == last


@given(tilt=st.floats(0.05, 1.0), heading=st.floats(-3.0, 3.0), gap=st.floats(1e-9, 1e-5), edge=st.booleans())
def test_amount_has_no_jump_at_either_edge_of_the_dead_zone(tilt, heading, gap, edge):
    inner, outer = min(tilt, 0.4), max(tilt, 0.6)
    tuning = walk_of(stick_source(inner, outer))

    def amount(length):
        row = (length * math.sin(heading), length * math.cos(heading))
        return played(tuning, [(EMPTY_SAMPLE._replace(move=(row,)), 0.01)])[0].amount

    at = inner if edge else outer
    assert abs(amount(at + gap) - amount(at - gap)) <= 2.0 * gap / (outer - inner) + 1e-9


def test_rest_comes_ten_half_lives_after_release_and_a_faint_request_is_no_rest():
    tuning = walk_of(stick_source(0.2, 1.0), half_life_s=0.02)

    def amounts(now, tilt, ticks):
        results = []
        for _ in range(ticks):
            now = tick(tuning, (), NO_COURSE, now, EMPTY_SAMPLE._replace(move=((0.0, tilt),)), 0.01)
            results.append(now.outcome.amount)
        return now, results

    # 0.0004 of full speed is below the threshold of rest, yet somebody requests it.
    faint = 0.2 + 0.8 * 0.0004
    now, seen = amounts(tick_at_rest(tuning), faint, 50)
    assert seen[-1] == pytest.approx(0.0004)
    now, _ = amounts(now, 1.0, 100)
    _, fading = amounts(now, 0.0, 40)
    # Halved every second tick; 2^-10 is the first power below 0.001.
    assert fading[:19] == pytest.approx([0.5 ** (n / 2) for n in range(1, 20)], rel=1e-6)
    assert fading[19:] == [0.0] * 21
