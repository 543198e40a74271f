"""The summary of a trace against walks whose numbers are known beforehand."""

import math

import numpy as np
import pytest

from wendonic import Event, Recording, shape
from wendonic.demo import demo_profile, demo_recording
from wendonic.study.summary import summarise


def walk(*steps):
    return Recording([Event(*step) for step in steps])


def test_a_straight_walk_has_the_length_of_its_speed_ramp(foot_profile):
    """Keys at once, no smoothing: v²/2a to speed up, the rest at top speed, v²/2b to stop."""
    profile = foot_profile(move="half_life_s = 0", keys="rise_s = 0\nfall_s = 0")
    trace = shape(walk((0, "key.KeyW", 1), (2, "key.KeyW", 0), (4, "mark", "end")), profile, hz=50)
    summary = summarise(trace)
    top, accel, brake = 3.2, 22.0, 30.0
    # The key is up in the tick that ends at its time: one tick of 1/50 s less.
    held_s = 2.0 - 1 / 50
    expected = top * held_s - top**2 / 2 / accel + top**2 / 2 / brake
    assert summary.distance_m == pytest.approx(expected)
    assert (summary.ticks, summary.duration_s) == (200, pytest.approx(4.0))
    assert (summary.top_amount, summary.straight_speed_m_s) == (1.0, pytest.approx(top))
    assert summary.diagonal_speed_m_s is None
    assert summary.rest_drift_m_per_min == pytest.approx(0.0, abs=1e-12)


def test_a_relocation_by_the_game_is_not_walked(foot_profile):
    """Two seconds to the north, a new life 7 m off in the middle; the body that a game moves itself does walk."""
    steps = [(0, "key.KeyW", 1), (1.001, "body.place", (7.0, 0.0, 0.0)), (2, "mark", "end")]
    trace = shape(walk(*steps), foot_profile(move="half_life_s = 0", keys="rise_s = 0\nfall_s = 0"), hz=50)
    went_m = 3.2 * 2.0 - 3.2**2 / 2 / 22.0
    # The tick in which it is put there is not in it.
    assert summarise(trace).distance_m == pytest.approx(went_m - 3.2 / 50)
    places = [(k / 50, "body.place", (0.8 * k, 0.0, 0.0)) for k in range(1, 50)]
    moved = shape(walk(*places, (1, "mark", "end")), foot_profile(), hz=50)
    assert summarise(moved).distance_m == pytest.approx(0.8 * 48, rel=0.03)


@pytest.mark.parametrize(("rule", "ratio"), [("cap", 1.0), ("unit", 1.0), ("free", math.sqrt(2.0))])
def test_the_diagonal_fault_shows(foot_profile, rule, ratio):
    steps = [(0, "key.KeyW", 1), (1, "key.KeyD", 1), (2, "key.KeyW", 0), (3, "key.KeyD", 0), (4, "mark", "end")]
    summary = summarise(shape(walk(*steps), foot_profile(move=f'diagonal = "{rule}"')))
    assert summary.diagonal_speed_m_s / summary.straight_speed_m_s == pytest.approx(ratio, rel=0.005)
    assert summary.top_amount == pytest.approx(ratio, rel=1e-3)


@pytest.mark.parametrize(
    ("heading_deg", "straight", "diagonal"),
    [
        (0.0, True, False),
        (9.0, True, False),
        (12.0, False, False),
        (34.0, False, False),
        (37.0, False, True),
        (-52.0, False, True),
        (99.0, True, False),
        (180.0, True, False),
        (225.0, False, True),
    ],
)
def test_a_direction_counts_as_straight_or_diagonal_to_ten_degrees(foot_profile, heading_deg, straight, diagonal):
    heading = math.radians(heading_deg)
    steps = [(0, "pad.left_stick", (math.sin(heading), -math.cos(heading))), (2, "mark", "end")]
    summary = summarise(shape(walk(*steps), foot_profile()))
    assert (summary.straight_speed_m_s is not None, summary.diagonal_speed_m_s is not None) == (straight, diagonal)


def test_a_stick_that_drifts_shows_its_metres_per_minute(foot_profile):
    """Resting at tilt 0.10 over a dead zone of 0.05: (0.10 - 0.05) / 0.90 of 3.2 m/s, linear, once smoothed."""
    profile = foot_profile(pad='dead_zone = { inner = 0.05, outer = 0.95 }\ncurve = { form = "linear" }')
    steps = [(0, "pad.left_stick", (0.0, -0.10)), (60, "mark", "end")]
    summary = summarise(shape(walk(*steps), profile))
    assert summary.rest_drift_m_per_min == pytest.approx(0.05 / 0.90 * 3.2 * 60.0, rel=1e-6)


def test_a_held_stick_is_not_a_drift(foot_profile):
    steps = [(0, "pad.left_stick", (0.0, -0.5)), (30, "mark", "end")]
    assert summarise(shape(walk(*steps), foot_profile())).rest_drift_m_per_min is None
    assert summarise(shape(walk(), foot_profile())).ticks == 0


@pytest.mark.parametrize(
    ("name", "walk_name"),
    [("cart", "cart_ride"), ("headset", "headset_walk"), ("orchard", "orchard_errands")],
)
def test_movement_by_other_means_is_not_drift(name, walk_name):
    """Carts roll, goals are walked to, hands swing: no stick makes anybody drift there."""
    summary = summarise(shape(demo_recording(walk_name), demo_profile(name)))
    assert summary.rest_drift_m_per_min is None or summary.rest_drift_m_per_min < 1e-9


def test_a_climb_counts_its_height_and_a_landing_is_not_walked():
    trace = shape(demo_recording("scout_flight"), demo_profile("scout"))
    plan_m = np.hypot(np.diff(trace["pos_x"]), np.diff(trace["pos_y"])).sum()
    assert summarise(trace).distance_m > plan_m + 1.0
    pointing = shape(demo_recording("headset_walk"), demo_profile("headset"))
    jump_m = math.dist(
        *pointing.loc[pointing.index[pointing["teleported"]][0] - np.array([1, 0]), ["pos_x", "pos_y"]].values
    )
    assert jump_m > 0.5
    places = pointing[["pos_x", "pos_y", "pos_z"]].to_numpy()
    all_m = np.linalg.norm(np.diff(places, axis=0), axis=1).sum()
    assert all_m - summarise(pointing).distance_m >= jump_m - 1e-9
    # Who does not say so jumped all the same.
    unmarked = pointing.drop(columns=["teleported", "returned"])
    assert summarise(unmarked).distance_m == pytest.approx(summarise(pointing).distance_m)
