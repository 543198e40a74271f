"""Units of looking: converted and back, and a projection as the authority."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from wendonic import WendonicError, look_units

size = st.floats(0.01, 1e4)
fov = st.floats(2.0, 170.0)


@given(sensitivity=st.floats(1e-4, 10.0), dpi=st.floats(50.0, 30_000.0), rate=st.floats(-2000.0, 2000.0), fov_deg=fov)
def test_there_and_back_again(sensitivity, dpi, rate, fov_deg):
    turn_cm = look_units.cm_per_turn(sensitivity, dpi)
    assert look_units.deg_per_count_from_cm(turn_cm, dpi) == pytest.approx(sensitivity)
    assert look_units.deg_per_count_from_counts(look_units.counts_per_turn(sensitivity)) == pytest.approx(sensitivity)
    # A full turn of the mouse by its length, counted.
    assert look_units.dpi_from_swipe(look_units.counts_per_turn(sensitivity), turn_cm) == pytest.approx(dpi)
    moved = look_units.half_windows_per_second(rate, fov_deg)
    assert look_units.deg_s_from_half_windows(moved, fov_deg) == pytest.approx(rate, abs=1e-9)
    across = look_units.other_fov_deg(fov_deg, 16 / 9)
    assert look_units.other_fov_deg(across, 9 / 16) == pytest.approx(fov_deg)
    ways = [("cm_per_turn", turn_cm), ("deg_per_count", sensitivity), ("counts_per_turn", 360.0 / sensitivity)]
    for name, number in ways:
        assert look_units.one_sensitivity(dpi, **{name: number}) == pytest.approx(sensitivity)


@given(fov_deg=fov, angle_deg=st.floats(-80.0, 80.0))
def test_a_point_is_seen_where_a_projection_puts_it(fov_deg, angle_deg):
    """A pinhole camera: turn the point into the camera's axes, divide by its depth, scale by the edge's own place."""
    angle, edge = math.radians(angle_deg), math.radians(fov_deg / 2.0)
    turn = np.array([[math.cos(angle), math.sin(angle)], [-math.sin(angle), math.cos(angle)]])
    right, depth = turn @ np.array([0.0, 1.0])
    edge_right, edge_depth = math.sin(edge), math.cos(edge)
    expected = (right / depth) / (edge_right / edge_depth)
    assert look_units.screen_part(angle_deg, fov_deg) == pytest.approx(expected, rel=1e-9, abs=1e-12)


@given(fov_deg=fov, zoom_fov_deg=fov, at=st.floats(0.0, 1.0))
def test_a_zoom_ratio_carries_the_same_part_of_the_screen_to_the_middle(fov_deg, zoom_fov_deg, at):
    ratio = look_units.zoom_ratio(fov_deg, zoom_fov_deg, at)
    seen_deg = math.degrees(math.atan(max(at, 1e-4) * math.tan(math.radians(fov_deg / 2.0))))
    assert look_units.screen_part(seen_deg * ratio, zoom_fov_deg) == pytest.approx(max(at, 1e-4), rel=1e-3)
    assert look_units.zoom_ratio(fov_deg, fov_deg, at) == pytest.approx(1.0)
    assert ratio * look_units.zoom_ratio(zoom_fov_deg, fov_deg, at) == pytest.approx(1.0)
    # In the limit of the middle the picture moves as fast for the same hand.
    middle = look_units.zoom_ratio(fov_deg, zoom_fov_deg)
    assert look_units.half_windows_per_second(90.0 * middle, zoom_fov_deg) == pytest.approx(
        look_units.half_windows_per_second(90.0, fov_deg)
    )


def test_the_table_agrees_with_itself():
    rows = {words: value for words, value, _ in look_units.look_table(0.05, 1600, 200.0, 90.0, 30.0)}
    assert rows["counts for a full turn"] == 7200.0
    assert rows["mouse for a full turn"] == pytest.approx(7200 / 1600 * 2.54)
    assert rows["mouse for 200 deg/s"] == pytest.approx(4000.0)
    assert rows["hand for 200 deg/s"] == pytest.approx(4000 / 1600 * 2.54)
    assert rows["zoomed to 30 deg, matched at the edge"] == pytest.approx(1 / 3)


@pytest.mark.parametrize(
    ("call", "words"),
    [
        (lambda: look_units.cm_per_turn(0.0, 800), "deg_per_count: found 0.0; allowed: a finite number above 0"),
        (lambda: look_units.deg_per_count_from_cm(34, math.nan), "dpi: found nan; allowed: a finite number above 0"),
        (lambda: look_units.zoom_ratio(180.0, 40), "fov_deg: found 180.0; allowed: above 0 and below 180 degrees"),
        (lambda: look_units.zoom_ratio(80, 40, 1.5), r"found 1.5 as a part of the screen; allowed: 0 \(the middle\)"),
        (lambda: look_units.screen_part(90.0, 80), "angle_deg: found 90.0; allowed: above -90 and below 90"),
        (lambda: look_units.hand_cm_s(math.inf, 34), "deg_s: found inf; allowed: a finite number"),
        (lambda: look_units.one_sensitivity(800, 34, 0.05), "found 2 of cm_per_turn, deg_per_count and counts_per"),
    ],
)
def test_numbers_that_cannot_be_are_said_to(call, words):
    with pytest.raises(WendonicError, match=words):
        call()
