"""Squares: which way a stick steps, and when; presses that scale; turning first; walls; many blocked squares."""

import copy
import itertools
import math
import pickle
import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wendonic import Event, Helm, Recording, WendonicError, profile_from_text, shape
from wendonic.course.course import Course
from wendonic.kernels.frames.blocked import blocked_table, is_blocked, squares_in
from wendonic.runtime import body_door

HEAD = 'format = "wendonic-profile"\nversion = 1\n[world]\nright = "+x"\nforward = "+y"\nup = "+z"\n'
STICK = 'stick = "pad.left_stick"\ndead_zone = { form = "none" }\ncurve = { form = "linear" }\n'
KEYS = 'keys = { forward = ["KeyW"], back = ["KeyS"], left = ["KeyA"], right = ["KeyD"] }\n'


def helm_with(steer="", move=STICK, rest="", course=None):
    frame = f'{{ frame = "grid", step_s = 0.1{steer} }}'
    return Helm(
        profile_from_text(f"{HEAD}[mode.m]\nsteer = {frame}\n{rest}[[mode.m.move.bind]]\n{move}"), course=course
    )


def run(helm, seconds, hz=60):
    return [helm.tick(1.0 / hz) for _ in range(round(seconds * hz))]


def tilt(helm, heading_deg, amount=1.0):
    angle = math.radians(heading_deg)
    helm.stick("pad.left_stick", amount * math.sin(angle), -amount * math.cos(angle))


@pytest.mark.parametrize("heading_deg", [heading for heading in range(0, 360, 5) if heading % 90 != 45])
def test_a_stick_steps_along_its_larger_axis(heading_deg):
    helm = helm_with(", repeats = false")
    tilt(helm, heading_deg)
    step = run(helm, 0.3)[-1].step
    x, y = math.sin(math.radians(heading_deg)), math.cos(math.radians(heading_deg))
    assert (step.x, step.y) == ((round(x / abs(x)), 0) if abs(x) > abs(y) else (0, round(y / abs(y))))


@pytest.mark.parametrize("heading_deg", range(0, 360, 5))
def test_with_diagonals_it_is_the_nearest_of_eight(heading_deg):
    helm = helm_with(", repeats = false, diagonals = true")
    tilt(helm, heading_deg)
    step = run(helm, 0.3)[-1].step
    nearest = math.radians(45.0 * round(heading_deg / 45.0))
    assert (step.x, step.y) == (round(math.sin(nearest)), round(math.cos(nearest)))


@pytest.mark.parametrize(
    ("steer", "around_deg", "amount", "trembles_deg", "trembles"),
    [
        ("", 0.0, 0.5, 0.0, 0.02),
        ("", 45.0, 1.0, 4.0, 0.0),
        (", diagonals = true", 22.5, 1.0, 4.0, 0.0),
        (", margin_deg = 0, release = 0.49", 0.0, 0.5, 0.0, 0.005),
    ],
)
def test_a_trembling_thumb_steps_once(steer, around_deg, amount, trembles_deg, trembles):
    helm, rng = helm_with(f"{steer}, repeats = false"), random.Random(7)
    began = 0
    for _ in range(300):
        tilt(helm, around_deg + rng.uniform(-1, 1) * trembles_deg, amount + rng.uniform(-1, 1) * trembles)
        began += helm.tick(1 / 60).step.began
    assert began == 1


def test_where_a_stick_steps_is_a_setting():
    for above in (0.3, 0.8):
        helm = helm_with(f", above = {above}, release = 0.2")
        tilt(helm, 90.0, above - 0.01)
        assert run(helm, 0.5)[-1].step.x == 0
        tilt(helm, 90.0, above + 0.01)
        assert run(helm, 0.5)[-1].step.x > 0
        tilt(helm, 90.0, 0.21)
        before = run(helm, 0.2)[-1].step.x
        assert run(helm, 0.5)[-1].step.x > before
    with pytest.raises(WendonicError, match="would never release"):
        helm_with(", above = 0.4, release = 0.4")


@pytest.mark.parametrize(("above", "release"), [(0.5, 0.4), (0.7, 0.4), (0.3, 0.24), (0.1, 0.08)])
def test_a_press_that_counts_early_has_an_earlier_default_release(above, release):
    """Without a number of its own `release` stays below `above`: for a trigger, for a stick that presses or steps."""
    presses = f"""[mode.m.press]
    pull = {{ bind = [{{ control = "pad.right_trigger", above = {above} }}] }}
    duck = {{ bind = [{{ stick = "pad.right_stick", towards = "down", above = {above} }}] }}
    """
    helm = helm_with(f", above = {above}, repeat_s = 0", rest=presses)
    for level, down in ((above + 0.001, True), (release + 0.001, True), (release - 0.001, False)):
        helm.button("pad.right_trigger", level)
        helm.stick("pad.right_stick", 0.0, level)
        tilt(helm, 90.0, level)
        before = run(helm, 0.5)[-1]
        after = run(helm, 0.5)[-1]
        assert (after.press("pull").held, after.press("duck").held, after.step.x > before.step.x) == (down,) * 3


@pytest.mark.parametrize("amount", [0.4, 0.25, 1.0])
def test_a_press_that_scales_makes_steps_slower(amount):
    """Ten steps a second at full amount; so many of them as the press leaves, and none forgotten."""
    scaled = f'[mode.m.move]\npress_amounts = {{ carry = {amount} }}\n[mode.m.press]\ncarry = {{ bind = ["KeyC"] }}\n'
    helm = helm_with(rest=scaled, move=KEYS)
    helm.key("KeyC", True)
    helm.key("KeyD", True)
    intent = run(helm, 10.0)[-1]
    walked = intent.step.from_x + intent.step.share
    assert walked == pytest.approx(100.0 * amount, abs=0.01)
    assert intent.motion.pos_x == pytest.approx(100.0 * amount, abs=0.01)


@pytest.mark.parametrize("hz", [7.0, 60.0, 144.0])
def test_every_step_begins_and_ends_once(hz):
    helm = helm_with(move=KEYS)
    helm.key("KeyD", True)
    seen = run(helm, 3.0, hz)
    helm.key("KeyD", False)
    seen += run(helm, 1.0, hz)
    steps = seen[-1].step.x
    assert steps > 10
    if hz > 20.0:
        assert sum(intent.step.began for intent in seen) == sum(intent.step.ended for intent in seen) == steps
        for before, after in itertools.pairwise(seen):
            if after.step.began and not after.step.ended:
                assert not before.step.stepping
    assert not helm.tick(0.0).step.ended


def test_turning_first_a_tap_turns_and_a_held_direction_steps():
    """By hand: 0.12 s to turn, then a step of 0.1 s for each 0.1 s that it stays held."""
    helm = helm_with(", turn_first_s = 0.12, turn_deg_s = 100000", move=KEYS)
    helm.key("KeyD", True)
    seen = run(helm, 0.1)
    helm.key("KeyD", False)
    seen += run(helm, 0.4)
    assert (seen[-1].step.x, seen[-1].face_deg, seen[0].face_deg) == (0, 90.0, 90.0)
    # It faces there: now a tap steps at once.
    helm.key("KeyD", True)
    assert helm.tick(1 / 60).step.began
    helm.key("KeyD", False)
    run(helm, 0.5)
    helm.key("KeyW", True)
    waiting = run(helm, 0.1)
    assert not any(intent.step.began for intent in waiting)
    # 0.12 s after the press, and then every 0.1 s: four steps have begun by 0.5 s.
    assert run(helm, 0.4)[-1].step.y == 4
    # A game that turns the body says so.
    helm.key("KeyW", False)
    run(helm, 0.5)
    helm.place(facing=(1.0, 0.0, 0.0))
    helm.key("KeyD", True)
    assert helm.tick(1 / 60).step.began


@given(
    walls=st.lists(
        st.tuples(st.integers(-3, 2), st.integers(-3, 2), st.floats(0.1, 1.4), st.floats(0.1, 1.4)), max_size=4
    ),
    steps=st.lists(st.sampled_from(["KeyW", "KeyA", "KeyS", "KeyD"]), min_size=1, max_size=12),
)
def test_walls_of_a_course_refuse_steps(walls, steps):
    """Against sampling: nobody gets to a square through a wall, and nothing else is refused."""
    boxes = [(x + 0.3, y + 0.2, x + 0.3 + wide, y + 0.2 + deep) for x, y, wide, deep in walls]
    pieces = [
        {"left_m": left, "back_m": back, "right_m": right, "forward_m": forward, "height_m": 2.0}
        for left, back, right, forward in boxes
    ]
    course = Course.model_validate({"format": "wendonic-course", "version": 1, "wall": pieces})
    helm = helm_with(", repeats = false", move=KEYS, course=course)
    at = (0, 0)
    for code in steps:
        dx, dy = {"KeyW": (0, 1), "KeyS": (0, -1), "KeyA": (-1, 0), "KeyD": (1, 0)}[code]
        line = [(at[0] + dx * share / 400, at[1] + dy * share / 400) for share in range(401)]
        hit = any(left < x < right and back < y < forward for x, y in line for left, back, right, forward in boxes)
        helm.key(code, True)
        run(helm, 0.15)
        helm.key(code, False)
        step = run(helm, 0.05)[-1].step
        at = at if hit else (at[0] + dx, at[1] + dy)
        assert (step.x, step.y) == at


class Counted(list):
    """A row that counts how often it is read."""

    reads = 0

    def __getitem__(self, index):
        type(self).reads += 1
        return super().__getitem__(index)


squares = st.tuples(st.integers(-30, 30), st.integers(-30, 30))


@given(blocked=st.sets(squares, max_size=40), asked=st.lists(squares, max_size=30))
def test_the_table_of_blocked_squares_is_a_set(blocked, asked):
    course = (0.0, 0.0, 3.0, *blocked_table(blocked))
    assert {(int(x), int(y)) for x, y in squares_in(course)} == blocked
    for x, y in [*asked, *blocked]:
        assert is_blocked(course, float(x), float(y)) == ((x, y) in blocked)


def test_looking_up_a_square_takes_as_long_among_forty_thousand():
    reads = {}
    for side in (10, 200):
        row = Counted([0.0, 0.0, 3.0, *blocked_table(itertools.product(range(side), range(side)))])
        Counted.reads = 0
        rng = random.Random(3)
        for _ in range(2000):
            is_blocked(row, float(rng.randint(-side, 2 * side)), float(rng.randint(-side, 2 * side)))
        reads[side] = Counted.reads / 2000
    assert reads[200] < 1.5 * reads[10] < 20.0
    helm = helm_with(move=KEYS)
    helm.block(itertools.product(range(1, 201), range(200)))
    helm.key("KeyD", True)
    assert helm.tick(1 / 60).step.refused == (1, 0)


near = st.tuples(st.integers(-2, 2), st.integers(-2, 2), st.booleans())
doings = st.one_of(
    st.lists(near, min_size=1, max_size=4),
    st.sampled_from(["tick", "tick", "retune", "copy", "pickle", "restore", "hitch", "ask", "restart"]),
    st.sampled_from(["KeyW", "KeyS", "KeyA", "KeyD"]),
)


@given(doings=st.lists(doings, max_size=30))
def test_squares_reported_one_by_one_block_as_those_reported_at_once(doings):
    """By events as a recording has them, against `block` with a set that the test keeps; whatever comes between."""
    one, two, blocked = helm_with(move=KEYS), helm_with(move=KEYS), set()
    moments = [one.snapshot(), two.snapshot()]
    for doing in [*doings, "tick"]:
        if isinstance(doing, list):
            for x, y, is_blocked_now in doing:
                one.apply(Event(0.0, "square", (float(x), float(y), float(is_blocked_now))))
                (blocked.add if is_blocked_now else blocked.discard)((x, y))
            two.block(blocked)
        elif doing.startswith("Key"):
            for helm in (one, two):
                helm.lose("keys")
                helm.key(doing, True)
        elif doing in ("copy", "pickle"):
            one = copy.copy(one) if doing == "copy" else pickle.loads(pickle.dumps(one))
        elif doing in ("retune", "restart"):
            for helm in (one, two):
                helm.restart() if doing == "restart" else helm.retune(
                    helm.profile.changed({"mode.m.steer.step_s": 0.1 + 0.01 * len(blocked)})
                )
        elif doing == "restore":
            # Squares are no part of a moment.
            for helm, moment in zip((one, two), moments, strict=True):
                helm.restore(moment)
        elif doing == "ask":
            assert set(one.blocked_squares()) == blocked
        else:
            moments = [one.snapshot(), two.snapshot()]
            dt = 0.25 if doing == "hitch" else 0.05
            assert one.tick(dt).step == two.tick(dt).step


def test_a_recording_with_thousands_of_blocked_squares_makes_their_table_once(tmp_path, monkeypatch):
    made = []
    monkeypatch.setattr(body_door, "blocked_table", lambda squares: made.append(1) or blocked_table(squares))
    helm = helm_with(move=KEYS)
    walls = list(itertools.product(range(1, 61), range(60)))
    helm.block(walls)
    # What is said in each tick costs no more than to see that it is the same.
    with monkeypatch.context() as patched:
        patched.setattr(body_door, "squares_in", None)
        helm.block(walls)
        helm.block(list(map(tuple, reversed(walls))))
    assert sorted(helm.blocked_squares()) == walls
    with helm.record(tmp_path / "yard.jsonl") as recorder:
        helm.key("KeyD", True)
        run(helm, 0.5)
    made.clear()
    trace = shape(Recording.read(recorder.path), helm.profile)
    assert (trace["refused_x"].iloc[-1], len(made)) == (1.0, 1)


def test_a_square_that_is_reported_before_going_back_stays_blocked():
    helm = helm_with(move=KEYS)
    helm.key("KeyD", True)
    run(helm, 0.15)
    moment = helm.snapshot()
    helm.apply(Event(0.0, "square", (3.0, 0.0, 1.0)))
    helm.restore(moment)
    assert run(helm, 1.0)[-1].step.refused == (3, 0)


@pytest.mark.parametrize(("repeat_s", "again_s"), [(0.0, 0.1), (0.25, 0.25)])
@pytest.mark.parametrize("hz", [20, 60, 144])
def test_a_direction_held_against_a_blocked_square_requests_again_after_a_step_or_the_repeat(repeat_s, again_s, hz):
    """The square becomes free in the tick of 0.02 s before the third time, and the body goes at that time."""
    helm = helm_with(f", repeat_s = {repeat_s}", KEYS)
    helm.block([(0, 1)])
    helm.key("KeyW", True)
    began_s = None
    for number in range(2 * hz):
        if (number + 1) / hz >= 3.0 * again_s - 0.02:
            helm.block([])
        if helm.tick(1.0 / hz).step.began and began_s is None:
            began_s = (number + 1) / hz
    assert 3.0 * again_s - 1e-9 <= began_s <= 3.0 * again_s + 1.0 / hz + 1e-9
