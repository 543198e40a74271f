"""Thumbs and pointers count the same in both directions on a window of any shape, once the game has told it."""

import math
import pickle

import pytest
from hypothesis import given
from hypothesis import strategies as st

from test_batch import assert_same, helm_trace
from wendonic import ControlError, Event, Helm, Recording, shape
from wendonic.profile.load import profile_from_text

PROFILE = """format = "wendonic-profile"
version = 1
[window]
aspect_ratio = 1.5
[mode.m]
steer = { frame = "map" }
[[mode.m.move.bind]]
touch_stick = "left half"
radius = 0.2
past_rim = "PAST"
dead_zone = { form = "none" }
curve = { form = "linear" }
[[mode.m.move.bind]]
pointer = "pointer.at"
while_held = ["mouse.left"]
reach = 0.5
dead_zone = { form = "none" }
curve = { form = "linear" }
[[mode.m.look.bind]]
touch_drag = "right half"
deg_per_width = 100
"""
STAYS, DRAGS = (profile_from_text(PROFILE.replace("PAST", past)) for past in ("stay", "drag"))
DT = 1 / 60
WINDOWS = st.tuples(st.integers(200, 4000), st.integers(200, 4000))


@given(
    size=WINDOWS,
    away=st.floats(0.0, 0.35),
    angle=st.floats(-math.pi, math.pi),
    profile=st.sampled_from([STAYS, DRAGS]),
)
def test_a_thumb_tilts_as_far_as_it_slides_in_any_direction(size, away, angle, profile):
    """Right and forward are the slide in window heights over the radius, at most 1 together."""
    width, height = size
    x, y = 0.25 * width, 0.5 * height
    right, up = away * height * math.sin(angle), away * height * math.cos(angle)
    if not (0.0 <= x + right <= width):
        return
    helm = Helm(profile)
    helm.window(width, height)
    helm.touch(0, x / width, y / height)
    helm.tick(DT)
    helm.touch(0, (x + right) / width, (y - up) / height)
    found = helm.tick(DT).local
    tilt = min(away / 0.2, 1.0)
    assert found == pytest.approx((tilt * math.sin(angle), tilt * math.cos(angle)), abs=1e-9)
    if profile is DRAGS and away > 0.2:
        # Dragged along, the middle is a radius behind the thumb: half of it back is half of the tilt.
        helm.touch(
            0,
            (x + right - 0.5 * 0.2 * height * math.sin(angle)) / width,
            (y - up + 0.1 * height * math.cos(angle)) / height,
        )
        assert helm.tick(DT).local == pytest.approx((math.sin(angle) / 2.0, math.cos(angle) / 2.0), abs=1e-9)


@given(size=WINDOWS, right=st.integers(-49, 49), up=st.integers(-90, 90))
def test_pointer_and_drag_are_alike_in_both_directions(size, right, up):
    width, height = size
    helm = Helm(STAYS)
    helm.window(width, height)
    helm.pointer(0.5 + right / width, 0.5 - up / height)
    helm.button("mouse.left", True)
    reach = 0.5 * height
    length = max(math.hypot(right, up) / reach, 1.0)
    assert helm.tick(DT).local == pytest.approx((right / reach / length, up / reach / length), abs=1e-9)
    helm.touch(0, 0.75, 0.5)
    helm.tick(DT)
    helm.touch(0, 0.75 + right / width, 0.5 - up / height)
    look = helm.tick(DT).look
    assert (look.yaw_deg, look.pitch_deg) == pytest.approx((100.0 * right / width, 100.0 * up / width), abs=1e-9)


@given(size=WINDOWS, away=st.floats(0.0, 0.35), angle=st.floats(-math.pi, math.pi))
def test_a_stick_with_a_place_of_its_own_is_tilted_as_the_thumb_lands(size, away, angle):
    width, height = size
    x, y = 0.25 + away * math.sin(angle) * height / width, 0.5 - away * math.cos(angle)
    if not (0.0 <= x <= 0.5):
        return
    tilt = min(away / 0.2, 1.0)
    for profile, back in ((STAYS, 0.0), (DRAGS, max(away - 0.2, 0.0) / -0.2)):
        helm = Helm(profile.changed({"mode.m.move.bind[0].middle": "zone"}))
        helm.window(width, height)
        for _ in range(2):
            helm.touch(0, x, y)
            found = helm.tick(DT).local
            assert found == pytest.approx((tilt * math.sin(angle), tilt * math.cos(angle)), abs=1e-9)
            # In the middle of the zone it is upright, unless its own middle was dragged along.
            helm.touch(0, 0.25, 0.5)
            upright = helm.tick(DT).local
            assert upright == pytest.approx((back * math.sin(angle), back * math.cos(angle)), abs=1e-9)
            helm.touch(0, 0.25, 0.5, down=False)
            assert helm.tick(DT).amount == 0.0


def slid(helm):
    """How a slide of 0.1 of the window's width to the right tilts the stick."""
    helm.touch(0, 0.1, 0.5)
    helm.tick(DT)
    helm.touch(0, 0.2, 0.5)
    tilted = helm.tick(DT).local[0]
    helm.touch(0, 0.2, 0.5, down=False)
    helm.tick(DT)
    return tilted


def test_until_a_shape_is_reported_that_of_the_profile_counts_and_an_invalid_one_changes_nothing():
    helm = Helm(STAYS.changed({"window.aspect_ratio": 0.8}))
    assert slid(helm) == pytest.approx(0.1 * 0.8 / 0.2)
    helm.window(1000, 1250)
    for width, height in ((0, 0), (800, 0), (-4, 3)):
        helm.window(width, height)
    for width, height in ((math.nan, 1), ("wide", 1), (None, None)):
        with pytest.raises(ControlError, match=r"window: found .* and .*; allowed: a width and a height"):
            helm.window(width, height)
    assert slid(helm) == pytest.approx(0.1 * 0.8 / 0.2)
    helm.window(1200, 1000)
    assert slid(helm) == pytest.approx(0.1 * 1.2 / 0.2)
    # Losing the focus, a new profile and another moment do not change the window.
    helm.lose()
    before = pickle.loads(pickle.dumps(helm.snapshot()))
    helm.window(1500, 1000)
    helm.retune(STAYS.changed({"window.aspect_ratio": 0.7, "mode.m.move.bind[0].radius": 0.2}))
    assert slid(helm) == pytest.approx(0.1 * 1.5 / 0.2)
    other = Helm(STAYS.changed({"window.aspect_ratio": 0.8}))
    other.window(900, 1000)
    other.restore(before)
    assert slid(other) == pytest.approx(0.1 * 0.9 / 0.2)


def test_a_session_in_a_window_that_is_resized_is_played_again_as_it_was(tmp_path):
    helm = Helm(DRAGS)
    helm.window(1600, 1000)
    walked = []
    with helm.record(tmp_path / "session.jsonl"):
        for tick in range(120):
            if tick == 50:
                # In the middle of a slide.
                helm.window(1000, 1600)
            at = 0.25 + 0.2 * math.sin(tick / 9.0), 0.5 + 0.3 * math.cos(tick / 7.0)
            helm.touch(0, *at, down=tick % 40 > 2)
            helm.touch(1, 0.7 + at[0] / 2.0, at[1], down=tick % 30 > 4)
            walked.append(helm.tick(DT))
    recording = Recording.read(tmp_path / "session.jsonl")
    trace = shape(recording, DRAGS, hz=60)
    assert len(trace) == 120
    for column, field in (("local_x", 0), ("local_y", 1)):
        assert trace[column].to_numpy() == pytest.approx([intent.local[field] for intent in walked], abs=1e-12)
    assert trace["look_pitch_deg"].to_numpy() == pytest.approx([intent.look.pitch_deg for intent in walked], abs=1e-9)
    assert_same(trace, helm_trace(recording, DRAGS, 60.0))
    assert Event(1.5, "window", 0.625) in list(recording.between(1.5, 2.0))


def test_a_recording_that_begins_in_the_middle_of_a_slide_has_its_tilt_and_turns_nothing(tmp_path):
    """Cut out of a recording, or recorded from there on: as the whole has it, for a thumb whose middle stays."""
    helm, walked = Helm(STAYS), []

    def slide(first, last):
        for tick in range(first, last):
            helm.touch(0, 0.2, 0.5 - tick / 400.0)
            helm.touch(1, 0.6 + tick / 400.0, 0.5)
            walked.append(helm.tick(DT))

    with helm.record(tmp_path / "whole.jsonl"):
        helm.window(2000, 1000)
        slide(0, 30)
        helm.window(1800, 1000)
        slide(30, 40)
    with helm.record(tmp_path / "late.jsonl"):
        slide(40, 60)
    whole, late = (Recording.read(tmp_path / f"{name}.jsonl") for name in ("whole", "late"))
    cut = whole.between(30.5 * DT, math.inf)
    assert [event.control for event in cut][:6] == ["window", "touch.0", "touch.1", "mode", "touch.0", "touch.1"]
    for recording, wanted in ((late, walked[40:60]), (cut, walked[31:40])):
        trace = shape(recording, STAYS, hz=60).iloc[: len(wanted)]
        tilts, turns = [intent.local[1] for intent in wanted], [intent.look.yaw_deg for intent in wanted]
        assert trace["local_y"].to_numpy() == pytest.approx(tilts, abs=1e-12)
        assert trace["look_yaw_deg"].to_numpy() == pytest.approx(turns, abs=1e-9)
