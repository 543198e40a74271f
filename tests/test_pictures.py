"""Pictures show the numbers they are made from."""

import math

import numpy as np
import pytest
from matplotlib.figure import Figure
from matplotlib.image import imread
from matplotlib.patches import Circle, Wedge

from wendonic import Event, Recording, WendonicError, shape
from wendonic.demo import demo_recording
from wendonic.devices.keys import KEY_CODES
from wendonic.pictures import draw_devices, draw_path, draw_stick, draw_timeline, save_picture
from wendonic.recording.held import held_spans


@pytest.fixture(scope="module")
def keys_trace(beekeeper):
    return shape(demo_recording("beekeeper_keys"), beekeeper)


def lines(ax):
    return {line.get_label(): line.get_xydata() for line in ax.lines if not line.get_label().startswith("_")}


def test_iso_lines_are_circles_where_the_inverse_of_the_curve_says(beekeeper):
    """Amount a at tilt inner + (outer - inner) a^(1/1.6)."""
    plane, curve, _ = draw_stick(beekeeper, demo_recording("beekeeper_pad"))
    (contours,) = [kept for kept in plane.collections if hasattr(kept, "levels")]
    for level, path in zip(contours.levels, contours.get_paths(), strict=True):
        tilts = np.hypot(*path.vertices.T)
        assert tilts == pytest.approx(0.14 + 0.82 * level ** (1 / 1.6), abs=0.004)
    assert {0.14, 0.96, 1.0} == {patch.radius for patch in plane.patches if isinstance(patch, Circle)}
    tilt, amount = lines(curve)["shaped"].T
    assert amount == pytest.approx(np.clip((tilt - 0.14) / 0.82, 0.0, 1.0) ** 1.6)
    assert curve.get_title(loc="left") == f"Half speed at tilt {0.14 + 0.82 * 0.5 ** (1 / 1.6):.2f}"
    dots = max((line.get_xydata() for line in plane.lines), key=len)
    sticks = [event.value for event in demo_recording("beekeeper_pad") if event.control == "pad.left_stick"]
    assert dots == pytest.approx(np.array(sticks) * (1.0, -1.0))


def test_a_profile_without_a_stick_has_nothing_to_map(beekeeper):
    keys_only = beekeeper.mode["foot"].move.model_copy(update={"bind": beekeeper.mode["foot"].move.bind[:1]})
    mode = beekeeper.mode["foot"].model_copy(update={"move": keys_only})
    with pytest.raises(WendonicError, match="has no stick"):
        draw_stick(beekeeper.model_copy(update={"mode": {"foot": mode}}))


def test_a_timeline_shows_the_trace_within_its_window(keys_trace):
    recording = demo_recording("beekeeper_keys")
    bars, right, ahead, amount, speed = draw_timeline(keys_trace, recording, 26.0, 30.5)
    seen = keys_trace[(keys_trace["t"] >= 26.0) & (keys_trace["t"] - keys_trace["dt"] <= 30.5)]
    for ax, raw, shaped in ((right, "raw_x", "local_x"), (ahead, "raw_y", "local_y")):
        assert lines(ax)["raw"] == pytest.approx(seen[["t", raw]].to_numpy())
        assert lines(ax)["shaped"] == pytest.approx(seen[["t", shaped]].to_numpy())
    assert lines(amount)["intent"] == pytest.approx(seen[["t", "amount"]].to_numpy())
    assert lines(speed)["motion"][:, 1] == pytest.approx(np.hypot(seen["vel_x"], seen["vel_y"]))
    assert speed.get_xlim() == (26.0, 30.5)
    # Only keys that are down in the window have a lane, cut to it.
    assert [label.get_text() for label in bars.get_yticklabels()] == ["KeyW", "KeyD", "KeyS", "KeyA"]
    edges = [path.vertices[:, 0] for lane in bars.collections for path in lane.get_paths()]
    assert min(edge.min() for edge in edges) >= 26.0
    assert max(edge.max() for edge in edges) <= 30.5
    assert [note.get_text() for note in bars.texts] == ["both opposite pairs at once", "dodging bees"]


@pytest.mark.parametrize("window", [(5.0, 5.0), (6.0, 5.0), (math.nan, 5.0), (100.0, 200.0)])
def test_a_window_that_shows_nothing_is_refused(keys_trace, window):
    with pytest.raises(WendonicError, match=r"window from|nothing between"):
        draw_timeline(keys_trace, demo_recording("beekeeper_keys"), *window)


def test_a_pad_timeline_has_no_lanes_and_fast_notes_do_not_overlap(beekeeper):
    # Dollars and braces are somebody's words, no formula.
    notes = [Event(0.1 * n, "mark", f"note {n}" if n else "$x^{") for n in range(8)]
    start = Event(0.0, "pad.left_stick", (0.5, 0.0))
    recording = Recording([start, *notes, Event(3.0, "mark", "end")], title="$\\frac{")
    axes = draw_timeline(shape(recording, beekeeper), recording)
    assert len(axes) == 4
    figure = axes[0].get_figure()
    figure.draw_without_rendering()
    boxes = [note.get_window_extent() for note in axes[0].texts]
    assert len(boxes) == 9
    assert not any(one.overlaps(other) for n, one in enumerate(boxes) for other in boxes[n + 1 :])


def test_a_path_shows_where_the_body_went_and_faced(keys_trace):
    ax = draw_path(keys_trace, "Once round")
    assert lines(ax)["path"] == pytest.approx(keys_trace[["pos_x", "pos_y"]].to_numpy())
    (arrows,) = [kept for kept in ax.collections if hasattr(kept, "U")]
    wedges = [patch for patch in ax.patches if isinstance(patch, Wedge)]
    assert len(wedges) == len(arrows.U) == 19
    # Every 2 s from 0 to 36: find each glyph's tick by its place, and compare heading and view.
    for (x, y), u, v, wedge in zip(arrows.get_offsets(), arrows.U, arrows.V, wedges, strict=True):
        row = keys_trace.iloc[np.hypot(keys_trace["pos_x"] - x, keys_trace["pos_y"] - y).argmin()]
        assert (row["pos_x"], row["pos_y"]) == pytest.approx((x, y))
        if row["amount"] > 0.0:
            assert math.degrees(math.atan2(u, v)) % 360.0 == pytest.approx(row["face_deg"])
            assert (90.0 - (wedge.theta1 + wedge.theta2) / 2.0) % 360.0 == pytest.approx(row["view_yaw_deg"] % 360.0)
    assert "82.9 m in 36.0 s" in ax.get_title(loc="left")


def test_pictures_stand_on_an_axes_of_ones_own(beekeeper, keys_trace):
    recording = demo_recording("beekeeper_keys")
    first, second, third = Figure().subplots(3)
    assert draw_path(keys_trace, ax=first) is first
    for drawn in (draw_timeline(keys_trace, recording, ax=second), draw_stick(beekeeper, ax=third)):
        assert all(ax.get_figure() is first.get_figure() for ax in drawn)
    with pytest.raises(WendonicError, match="subplots"):
        draw_stick(beekeeper, ax=Figure().add_axes((0, 0, 1, 1)))


def test_empty_walks_are_refused(beekeeper):
    empty = shape(Recording(), beekeeper)
    with pytest.raises(WendonicError, match="nothing to draw"):
        draw_path(empty)
    with pytest.raises(WendonicError, match="nothing to draw"):
        draw_timeline(empty, Recording())


def test_a_picture_is_written_whole_in_the_right_size(keys_trace, tmp_path):
    save_picture(draw_path(keys_trace), tmp_path / "path.png")
    pixels = imread(tmp_path / "path.png")
    assert pixels.shape[:2] == (800, 1280)
    # The paper's colour, in the corner.
    assert pixels[0, 0, :3] * 255 == pytest.approx([0xFA, 0xF7, 0xF0], abs=1)
    for target in (tmp_path / "path.jpeg", tmp_path / "none" / "path.png", tmp_path):
        with pytest.raises(WendonicError, match="cannot write"):
            save_picture(draw_path(keys_trace), target)
    assert [entry.name for entry in tmp_path.iterdir()] == ["path.png"]


def bars(ax):
    """Bars of each lane, as (start, end) pairs."""
    lanes = {}
    for collection in ax.collections:
        for path in getattr(collection, "get_paths", list)():
            box = path.get_extents()
            if box.width > 0.0 and box.height > 0.0:
                lanes.setdefault(round((box.y0 + box.y1) / 2), []).append((box.x0, box.x1))
    return lanes


def test_devices_have_a_lane_each_with_bars_lines_ticks_losses_and_notes():
    recording = demo_recording("beekeeper_mouse")
    ax = draw_devices(recording)
    names = [label.get_text() for label in ax.get_yticklabels()]
    assert names == list(dict.fromkeys(e.control for e in recording if e.control not in ("mark", "lost.focus")))
    held = held_spans(recording)
    for lane, found in bars(ax).items():
        assert np.array(found) == pytest.approx(np.array(held[names[lane]]), abs=0.06)
    assert set(bars(ax)) == {lane for lane, name in enumerate(names) if name in held}
    lines = {line.get_linestyle(): line for line in ax.lines if len(line.get_xdata()) > 100}
    assert set(lines) == {"-", "--"}
    words = [text.get_text() for text in ax.texts]
    assert {"lost.focus", "smoke, then four frames", "up to 1 notch"} <= set(words)
    crosses = [line for line in ax.lines if line.get_marker() == "x"]
    assert [list(line.get_xdata()) for line in crosses] == [[18.0]] * len(names)
    assert ax.get_title(loc="left").endswith("8 controls, 737 events, lost once")


def test_a_line_has_a_gap_where_its_device_was_lost_and_what_points_down_points_down():
    steps = [(0.0, "pad.left_stick", (0.0, 1.0)), (1.0, "lost.pad", 1.0), (2.0, "pad.left_stick", (0.5, -1.0))]
    ax = draw_devices(Recording([Event(*step) for step in steps] + [Event(3.0, "key.KeyW", 1)]), only=["pad"])
    right, towards = (line for line in ax.lines if len(line.get_xdata()) == 4)
    assert list(towards.get_xdata()) == [0.0, 1.0, 2.0, 3.0]
    ends = [towards.get_ydata()[index] for index in (0, 2)]
    assert math.isnan(towards.get_ydata()[1])
    # The first lane is lane 0 and lanes grow downwards: towards the player is down.
    assert ends[0] > 0.3
    assert ends[1] < -0.3
    assert right.get_ydata()[2] < 0.0
    with pytest.raises(WendonicError, match=r"no control to draw; the recording has: pad\.left_stick, lost\.pad"):
        draw_devices(Recording([Event(*step) for step in steps]), only=["hand"])
    with pytest.raises(WendonicError, match="window from 2 s to 1 s"):
        draw_devices(Recording([Event(*step) for step in steps]), start_s=2.0, end_s=1.0)


@pytest.mark.parametrize("count", [1, 80])
def test_one_key_and_eighty_both_fit(count, tmp_path):
    codes = KEY_CODES[:count]
    events = [Event(0.1 * n, f"key.{code}", 1.0) for n, code in enumerate(codes)]
    ax = draw_devices(Recording(events))
    save_picture(ax, tmp_path / "devices.png")
    image = imread(tmp_path / "devices.png")
    assert image.shape[:2] == (800, 1280)
    lanes = ax.get_yticklabels()
    heights = [label.get_window_extent().height for label in lanes]
    gap = ax.transData.transform((0, 0))[1] - ax.transData.transform((0, 1))[1]
    assert max(heights) <= gap * 1.3
