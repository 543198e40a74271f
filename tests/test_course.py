"""Courses: their files, and the ground they make."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from few_of_many import few_of
from wendonic import shape
from wendonic.cli.main import app
from wendonic.course import Course, load_course
from wendonic.course.course import CourseError
from wendonic.course.unused import unused_parts
from wendonic.demo import COURSES, FOLDER, demo_course, demo_profile, demo_recording
from wendonic.kernels.frames.blocked import is_blocked

FORMAT = {"format": "wendonic-course", "version": 1}
place = st.floats(-12.0, 20.0)


@pytest.mark.parametrize("name", COURSES)
@given(place, place)
def test_the_normal_is_that_of_the_height(name, x, y):
    """Against the slope of the height itself, wherever the ground is smooth."""
    course = demo_course(name)
    step = 1e-6
    around = [course.ground(x + step * i, y + step * j) for i, j in ((0, 0), (1, 0), (-1, 0), (0, 1), (0, -1))]
    middle, right, left, forward, back = around
    normal = np.array(middle.normal)
    assert np.linalg.norm(normal) == pytest.approx(1.0)
    assert normal[2] > 0.0
    at_an_edge = max(abs(other.height - middle.height) for other in around) > 1e-3
    if not at_an_edge and max(math.dist(other.normal, middle.normal) for other in around) < 1e-4:
        slopes = (right.height - left.height) / (2 * step), (forward.height - back.height) / (2 * step)
        assert tuple(-normal[:2] / normal[2]) == pytest.approx(slopes, abs=1e-3)


@pytest.mark.parametrize(
    ("up", "corners"),
    [("forward", (1, 1, 3, 3)), ("right", (1, 3, 1, 3)), ("back", (3, 3, 1, 1)), ("left", (3, 1, 3, 1))],
)
def test_a_ramp_rises_to_the_side_that_it_names(up, corners):
    ramp = {
        "form": "ramp",
        "left_m": 0,
        "right_m": 2,
        "back_m": 0,
        "forward_m": 4,
        "from_height_m": 1,
        "to_height_m": 3,
    }
    course = Course(**FORMAT, piece=[{**ramp, "up": up}])
    heights = [course.ground(x, y).height for x, y in ((0, 0), (2, 0), (0, 4), (2, 4))]
    assert heights == pytest.approx(corners)


def test_the_highest_piece_counts_and_the_rest_is_level():
    pieces = [
        {"form": "mound", "at": [0, 0], "radius_m": 4, "height_m": 2},
        {"form": "flat", "left_m": -1, "right_m": 9, "back_m": -1, "forward_m": 1, "height_m": 1.5},
    ]
    course = Course(
        **FORMAT, piece=pieces, wall=[{"left_m": 5, "right_m": 6, "back_m": 0, "forward_m": 1}], blocked=[[1, -2]]
    )
    assert course.ground(0.0, 0.0) == (2.0, (0.0, 0.0, 1.0))
    assert course.ground(0.0, 2.0).height == pytest.approx(1.0)
    assert course.ground(3.0, 0.0) == (1.5, (0.0, 0.0, 1.0))
    assert course.ground(0.0, 5.0) == (0.0, (0.0, 0.0, 1.0))
    assert [course.in_wall(x, 0.5) for x in (4.9, 5.5, 6.1)] == [False, True, False]
    assert [is_blocked(course.numbers, x, -2.0) for x in (1.0, 2.0)] == [True, False]


def test_all_faults_of_a_course_are_reported_at_once_with_their_lines(tmp_path):
    path = tmp_path / "yard.toml"
    path.write_text(
        'format = "wendonic-course"\nversion = 1\ntitel = "Yard"\nblocked = [[1, 2], [3]]\n'
        '[[piece]]\nform = "ramp"\nleft_m = 0\nback_m = 0\nright_m = 2\nforward_m = 2\n'
        'up = "north"\nto_height_m = -1\n'
        '[[piece]]\nform = "hill"\n'
        "[[wall]]\nleft_m = 3\nback_m = 0\nright_m = 2\nforward_m = 2\n"
    )
    with pytest.raises(CourseError) as caught:
        load_course(path)
    assert [(fault.line, fault.where) for fault in caught.value.faults] == [
        (3, "titel"),
        (4, "blocked[1][1]"),
        (11, "piece[0].up"),
        (12, "piece[0].to_height_m"),
        (14, "piece[1].form"),
        (15, "wall[0]"),
    ]
    text = str(caught.value)
    for words in (
        'did you mean "title"?',
        'found "north"; allowed: "right", "forward", "left", "back"',
        "found -1; allowed: 0 to 1000",
        'found "hill"; allowed: "flat", "ramp", "mound"',
        "is empty; allowed: left_m below right_m",
    ):
        assert words in text


MOUND = {"form": "mound", "at": [0.0, 0.0], "radius_m": 60.0, "height_m": 12.0}
LEVEL = {"form": "flat", "left_m": -90.0, "right_m": 90.0, "back_m": -90.0, "forward_m": 90.0, "height_m": 0.0}
PLACE = ["pos_x", "pos_y", "pos_z"]


def on_course(**parts):
    return Course.model_validate({"format": "wendonic-course", "version": 1, **parts})


SQUARES = [[x, y] for x in range(-2, 3) for y in range(-2, 3) if x or y]
SHIPPED = {
    "beekeeper": "keys pad",
    "cart": "ride",
    "crates": "push",
    "harvest": "run",
    "headset": "walk",
    "orchard": "errands",
    "scout": "flight",
    "smoker": "rounds",
    "store_room": "walk",
    "terraces": "walk",
}


@pytest.mark.parametrize("name", few_of(SHIPPED, ["crates", "terraces"]))
def test_parts_of_a_course_reported_as_without_effect_have_none_and_the_rest_has(name):
    """In each mode alone, and in all of them: what is said is what a walk over a mound, and among squares, shows."""
    profile = demo_profile(name)
    recordings = [demo_recording(f"{name}_{rest}") for rest in SHIPPED[name].split()]
    courses = {
        "heights": (on_course(piece=[MOUND]), on_course(piece=[LEVEL])),
        "squares": (on_course(blocked=SQUARES), on_course(blocked=[])),
    }

    def differs(mode, one, other):
        return any(
            not np.array_equal(
                *(
                    shape(recording, profile, mode=mode, engine="interpreted", course=course)[PLACE].to_numpy()
                    for course in (one, other)
                )
            )
            for recording in recordings
        )

    for what, (course, without) in courses.items():
        said = {mode: bool(unused_parts(course, profile, [mode])) for mode in profile.mode}
        for mode, unused in said.items():
            if unused:
                assert not differs(mode, course, without), (mode, what)
        assert bool(unused_parts(course, profile)) == all(said.values())
        first = next(iter(profile.mode))
        assert differs(first, course, without) != said[first], what


@pytest.mark.long
def test_every_command_with_a_course_reports_its_parts_without_effect(tmp_path, capsys, caplog, monkeypatch):
    monkeypatch.chdir(tmp_path)
    course, profile, walk = (
        FOLDER / name for name in ("terraces_course.toml", "beekeeper.toml", "beekeeper_keys.jsonl")
    )
    for words in (
        f"shape {profile} {walk} -o walk.csv",
        f"draw path {profile} {walk} --to 2 -o walk.png",
        f"compare {profile} {FOLDER / 'terraces.toml'} --on {walk} --to 2",
        f"export {profile} --as lua -o lua",
        f"export {profile} --as html -o feel.html",
    ):
        caplog.clear()
        with pytest.raises(SystemExit) as end:
            app([*words.split(), "--course", str(course)], prog_name="wendonic")
        assert end.value.code == 0
        (said,) = caplog.messages
        assert (
            "heights of the course have no effect in mode foot: to follow the ground, steer needs slope = {}" in said
        )
    capsys.readouterr()
    (on_squares,) = unused_parts(demo_course("terraces"), demo_profile("crates"), ["push"])
    assert on_squares == "the heights of the course have no effect in mode push: squares are level"
    followed = demo_profile().changed({"mode.foot.steer.slope": {}})
    assert unused_parts(demo_course("terraces"), followed) == []
