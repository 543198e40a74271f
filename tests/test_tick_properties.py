"""What must hold for every profile and every input, tick by tick."""

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from wendonic.kernels.curve import CURVE_LINEAR, CURVE_POWER
from wendonic.kernels.diagonal import DIAGONAL_CAP, DIAGONAL_FACTOR, DIAGONAL_FREE, DIAGONAL_UNIT
from wendonic.kernels.merge import MERGE_LATEST, MERGE_STRONGEST, MERGE_SUM
from wendonic.kernels.move_rules import NO_RULES
from wendonic.kernels.one_euro import NO_ONE_EURO, OneEuroTuning
from wendonic.kernels.opposites import OPPOSITES_CANCEL, OPPOSITES_EARLIEST, OPPOSITES_LATEST
from wendonic.kernels.paces import NO_PACES, PaceTuning
from wendonic.kernels.pipeline import (
    MEMORY_AT_REST,
    MOST_PARTS,
    GaitTuning,
    MoveTuning,
    Outcome,
    SteerTuning,
    Tuning,
    tick,
    tick_part,
)
from wendonic.kernels.places import SOURCES
from wendonic.kernels.source import SILENT_SOURCE, SOURCE_FORMED, SOURCE_KEYS, SOURCE_STICK
from wendonic.kernels.steer_frame import FRAME_CAMERA, FRAME_MAP

ramp_s = st.one_of(st.just(0.0), st.floats(0.01, 0.3))
key = st.sampled_from([0.0, 1.0])
ONLY_STICKS = (SOURCE_STICK,)
OPPOSITES = [OPPOSITES_CANCEL, OPPOSITES_LATEST, OPPOSITES_EARLIEST]
axis = st.floats(-1.0, 1.0)
dts = st.one_of(st.just(0.0), st.floats(1e-4, 0.1), st.floats(0.1, 30.0))


@st.composite
def sources(draw, kinds):
    """Any number of sources of any kind."""
    chosen = []
    for _ in range(draw(st.integers(1, SOURCES))):
        if kinds != ONLY_STICKS and draw(st.booleans()):
            keys = SILENT_SOURCE._replace(kind=SOURCE_KEYS, rise_s=draw(ramp_s), fall_s=draw(ramp_s))
            rules = {"opposites": draw(st.sampled_from(OPPOSITES)), "at_once": draw(st.integers(0, 1))}
            chosen.append(keys._replace(**rules))
        else:
            inner = draw(st.floats(0.0, 0.5))
            chosen.append(
                SILENT_SOURCE._replace(
                    kind=draw(st.sampled_from(kinds)),
                    inner=inner,
                    outer=draw(st.floats(inner + 0.1, 1.0)),
                    curve_form=draw(st.sampled_from([CURVE_LINEAR, CURVE_POWER])),
                    curve_exponent=draw(st.floats(0.3, 4.0)),
                )
            )
    return chosen


@st.composite
def any_rules(draw):
    """Steps 7 to 10 in every combination."""
    paces = NO_PACES
    if draw(st.booleans()):
        above = sorted(draw(st.tuples(*[st.floats(0.0, 0.9)] * 4)))
        amount = sorted(draw(st.tuples(*[st.floats(0.05, 1.0)] * 4)))
        paces = PaceTuning(draw(st.integers(1, 4)), tuple(above), tuple(amount), draw(st.floats(0.0, 0.3)))
    one_euro = NO_ONE_EURO
    if draw(st.booleans()):
        one_euro = OneEuroTuning(draw(st.floats(0.1, 20.0)), draw(st.floats(0.0, 20.0)), draw(st.floats(0.1, 20.0)))
    return NO_RULES._replace(
        any=1,
        diagonal_factor=draw(st.floats(0.1, 1.0)),
        paces=paces,
        notches=draw(st.sampled_from([0, 2, 4, 8, 16])),
        notch_pull=draw(st.floats(0.0, 1.0)),
        one_euro=one_euro,
    )


@st.composite
def tunings(
    draw,
    diagonal=(DIAGONAL_CAP, DIAGONAL_UNIT, DIAGONAL_FREE, DIAGONAL_FACTOR),
    frame=(FRAME_CAMERA, FRAME_MAP),
    merge=(MERGE_STRONGEST, MERGE_SUM, MERGE_LATEST),
    kinds=(SOURCE_STICK, SOURCE_FORMED),
    rules=True,
):
    chosen = draw(sources(kinds))
    padded = tuple(chosen + [SILENT_SOURCE] * (SOURCES - len(chosen)))
    rule = draw(st.sampled_from(diagonal))
    asked = draw(any_rules()) if rule == DIAGONAL_FACTOR or (rules and draw(st.booleans())) else NO_RULES
    return Tuning(
        draw(st.floats(0.01, 0.2)),
        MoveTuning(len(chosen), padded, draw(st.sampled_from(merge)), rule, draw(ramp_s), asked),
        SteerTuning(draw(st.sampled_from(frame)), draw(st.floats(0.5, 30.0))),
        GaitTuning(draw(st.floats(0.1, 20.0)), draw(st.floats(0.5, 200.0)), draw(st.floats(0.5, 200.0))),
    )


@st.composite
def samples(draw, tuning):
    """Raw numbers that fit the tuning's sources."""
    row = []
    for source in tuning.move.sources:
        if source.kind == SOURCE_KEYS:
            row += (
                draw(st.permutations([0.0, 0.0, 1.0, 2.0])) if draw(st.booleans()) else [draw(key) for _ in range(4)]
            )
        else:
            row += [draw(axis) for _ in range(4)]
    return [*row, draw(st.sampled_from([0.0, 0.0, 0.6, 1.0]))]


@st.composite
def runs(draw, **limits):
    """A tuning and some ticks for it: (sample, view, dt)."""
    tuning = draw(tunings(**limits))
    tick_count = draw(st.integers(1, 12))
    steps = [
        (draw(samples(tuning)), (draw(st.floats(-50.0, 50.0)), draw(st.floats(-1.5, 1.5))), draw(dts))
        for _ in range(tick_count)
    ]
    return tuning, steps


def outcomes(tuning, steps):
    memory, results = MEMORY_AT_REST, []
    for sample, view, dt in steps:
        memory, outcome = tick(tuning, memory, sample, view, dt)
        results.append(outcome)
    return results


@given(run=runs())
def test_every_number_is_finite_and_in_its_range(run):
    tuning, steps = run
    for outcome in outcomes(tuning, steps):
        assert all(map(math.isfinite, outcome))
        assert outcome.amount == pytest.approx(math.hypot(outcome.move_x, outcome.move_y), abs=1e-9)
        assert outcome.amount == pytest.approx(math.hypot(outcome.local_x, outcome.local_y), abs=1e-9)
        # Under a sum every source may add its diagonal.
        sum_of = len(tuning.move.sources) if tuning.move.merge == MERGE_SUM else 1
        uncapped = tuning.move.diagonal in (DIAGONAL_FREE, DIAGONAL_FACTOR)
        most = sum_of * math.sqrt(2.0) + 1e-12 if uncapped else 1.0
        assert 0.0 <= outcome.amount <= most
        assert math.hypot(outcome.vel_x, outcome.vel_y) <= most * tuning.gait.top_speed_m_s * (1.0 + 1e-9)
        assert -math.pi <= outcome.face <= math.pi


@given(run=runs(frame=(FRAME_CAMERA,)), turn=st.floats(-3.0, 3.0))
def test_camera_and_path_turn_together(run, turn):
    """Turn every view by the same angle, and everything that came out turns by it."""
    tuning, steps = run
    turned = [(sample, (view[0] + turn, view[1]), dt) for sample, view, dt in steps]
    cosine, sine = math.cos(turn), math.sin(turn)
    for one, other in zip(outcomes(tuning, steps), outcomes(tuning, turned), strict=True):
        assert other[: Outcome._fields.index("move_x")] == one[: Outcome._fields.index("move_x")]
        for x, y in (("move_x", "move_y"), ("vel_x", "vel_y"), ("pos_x", "pos_y")):
            before = getattr(one, x), getattr(one, y)
            expected = before[0] * cosine + before[1] * sine, before[1] * cosine - before[0] * sine
            size = 1.0 + math.hypot(*before)
            assert (getattr(other, x), getattr(other, y)) == pytest.approx(expected, abs=1e-9 * size)


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
        row = list(sample)
        for start in range(2, len(row) - 1, 4):
            row[start] = sample[start] * cosine + sample[start + 1] * sine
            row[start + 1] = sample[start + 1] * cosine - sample[start] * sine
        return row

    others = outcomes(tuning, [(turned(sample), view, dt) for sample, view, dt in steps])
    for one, other in zip(outcomes(tuning, steps), others, strict=True):
        # Rounding may tip a stick over the very edge of its dead zone, or one of two equal sticks over the other.
        assume(abs(one.amount - other.amount) < 1e-6 and one.source == other.source)
        expected = one.move_x * cosine + one.move_y * sine, one.move_y * cosine - one.move_x * sine
        assert (other.move_x, other.move_y) == pytest.approx(expected, abs=1e-6)


@given(tuning=tunings(), held=st.lists(key, min_size=8, max_size=8), dt=st.floats(0.001, 5.0))
def test_opposite_keys_together_give_exactly_nothing(tuning, held, dt):
    keys = SILENT_SOURCE._replace(kind=SOURCE_KEYS, rise_s=0.05, fall_s=0.02)
    move = tuning.move._replace(sources=(keys, keys, SILENT_SOURCE, SILENT_SOURCE), source_count=2)
    # Right with left, ahead with back: both or neither.
    row = [held[0], held[0], held[1], held[1], held[2], held[2], held[3], held[3]] + [0.0] * 9
    outcome = tick(tuning._replace(move=move), MEMORY_AT_REST, row, (0.3, 0.0), dt)[1]
    assert (outcome.raw_x, outcome.raw_y, outcome.amount, outcome.vel_x, outcome.vel_y) == (0.0,) * 5


@given(run=runs())
def test_no_time_changes_nothing(run):
    tuning, steps = run
    memory = MEMORY_AT_REST
    for sample, view, dt in steps:
        memory = tick(tuning, memory, sample, view, dt)[0]
        assert tick(tuning, memory, steps[0][0], view, 0.0)[0] == memory


@given(run=runs(), dt=st.floats(0.3, 5.0))
def test_a_hitch_is_its_equal_parts_one_after_another(run, dt):
    tuning, steps = run
    sample, view, _ = steps[0]
    parts = math.ceil(dt / tuning.max_dt_s)
    memory = MEMORY_AT_REST
    for _ in range(parts):
        memory = tick(tuning, memory, sample, view, dt / parts)[0]
    assert tick(tuning, MEMORY_AT_REST, sample, view, dt)[0] == memory


def test_a_night_asleep_is_cut_into_a_limited_number_of_parts_and_still_adds_up():
    keys = SILENT_SOURCE._replace(kind=SOURCE_KEYS)
    move = MoveTuning(1, (keys, SILENT_SOURCE, SILENT_SOURCE, SILENT_SOURCE), MERGE_STRONGEST, DIAGONAL_CAP, 0.02)
    tuning = Tuning(0.1, move, SteerTuning(FRAME_MAP, 9.0), GaitTuning(2.0, 20.0, 20.0))
    night_s = 8 * 3600.0
    assert night_s / 0.1 > MOST_PARTS
    outcome = tick(tuning, MEMORY_AT_REST, [0.0, 0.0, 1.0, 0.0] + [0.0] * 13, (0.0, 0.0), night_s)[1]
    # Smoothing to a half-life of 0.02 s and speeding up cost a few centimetres at the start, no more.
    assert outcome.pos_y == pytest.approx(2.0 * night_s, abs=2.0 * night_s / MOST_PARTS)
    assert outcome.vel_y == 2.0
    memory = MEMORY_AT_REST
    for _ in range(MOST_PARTS):
        part_s = night_s / MOST_PARTS
        memory = tick_part(tuning, memory, [0.0, 0.0, 1.0, 0.0] + [0.0] * 13, (0.0, 0.0), part_s)
    assert outcome == memory[1]


@given(tilt=st.floats(0.05, 1.0), heading=st.floats(-3.0, 3.0), gap=st.floats(1e-9, 1e-5), edge=st.booleans())
def test_amount_has_no_jump_at_either_edge_of_the_dead_zone(tilt, heading, gap, edge):
    stick = SILENT_SOURCE._replace(kind=SOURCE_STICK, inner=min(tilt, 0.4), outer=max(tilt, 0.6), curve_exponent=1.0)
    move = MoveTuning(1, (stick, SILENT_SOURCE, SILENT_SOURCE, SILENT_SOURCE), MERGE_STRONGEST, DIAGONAL_CAP, 0.0)
    tuning = Tuning(0.1, move, SteerTuning(FRAME_MAP, 9.0), GaitTuning(2.0, 20.0, 20.0))

    def amount(length):
        row = [0.0, 0.0, length * math.sin(heading), length * math.cos(heading)] + [0.0] * 13
        return tick(tuning, MEMORY_AT_REST, row, (0.0, 0.0), 0.01)[1].amount

    at = stick.inner if edge else stick.outer
    assert abs(amount(at + gap) - amount(at - gap)) <= 2.0 * gap / (stick.outer - stick.inner) + 1e-9


def test_rest_comes_ten_half_lives_after_letting_go_and_a_faint_wish_is_no_rest():
    stick = SILENT_SOURCE._replace(kind=SOURCE_STICK, inner=0.2, outer=1.0)
    move = MoveTuning(1, (stick, SILENT_SOURCE, SILENT_SOURCE, SILENT_SOURCE), MERGE_STRONGEST, DIAGONAL_CAP, 0.02)
    tuning = Tuning(0.1, move, SteerTuning(FRAME_MAP, 9.0), GaitTuning(2.0, 20.0, 20.0))

    def amounts(memory, tilt, ticks):
        results = []
        for _ in range(ticks):
            memory, outcome = tick(tuning, memory, [0.0, 0.0, 0.0, tilt] + [0.0] * 13, (0.0, 0.0), 0.01)
            results.append(outcome.amount)
        return memory, results

    # 0.0004 of full speed is below the threshold of rest, yet somebody asks for it.
    faint = 0.2 + 0.8 * 0.0004
    memory, seen = amounts(MEMORY_AT_REST, faint, 50)
    assert seen[-1] == pytest.approx(0.0004)
    memory, _ = amounts(memory, 1.0, 100)
    _, fading = amounts(memory, 0.0, 40)
    # Halved every second tick; 2^-10 is the first power below 0.001.
    assert fading[:19] == pytest.approx([0.5 ** (n / 2) for n in range(1, 20)], rel=1e-6)
    assert fading[19:] == [0.0] * 21
