"""Pictures show the numbers they are made from."""

import math
import re

import numpy as np
import pytest
from matplotlib.figure import Figure
from matplotlib.image import imread
from matplotlib.patches import Circle, Polygon, Rectangle, Wedge

from few_of_many import few_of
from wendonic import Event, Recording, WendonicError, shape
from wendonic.course import load_course
from wendonic.demo import ON_COURSE, RECORDINGS, demo_course, demo_profile, demo_recording
from wendonic.devices.keys import KEY_CODES
from wendonic.pictures import (
    draw_comparison,
    draw_curve,
    draw_devices,
    draw_diagonals,
    draw_frame,
    draw_look,
    draw_path,
    draw_stick,
    draw_timeline,
    save_picture,
)
from wendonic.profile.load import profile_from_text
from wendonic.recording.describe import describe_recording
from wendonic.recording.held import held_spans
from wendonic.study.motion import steps_m
from wendonic.study.solve.compare import compare


@pytest.fixture(scope="module")
def keys_trace(beekeeper):
    return shape(demo_recording("beekeeper_keys"), beekeeper)


def lines(ax):
    return {line.get_label(): line.get_xydata() for line in ax.lines if not line.get_label().startswith("_")}


def test_iso_lines_are_circles_where_the_inverse_of_the_curve_says(beekeeper):
    """Amount a at tilt inner + (outer - inner) a^(1/1.6)."""
    plane, curve, _ = draw_stick(beekeeper, demo_recording("beekeeper_pad"))
    drawn = {float(label[7:]): path for label, path in lines(plane).items() if label.startswith("amount")}
    assert list(drawn) == [0.1, 0.25, 0.5, 0.75, 0.9]
    for level, path in drawn.items():
        assert np.hypot(*path.T) == pytest.approx(0.14 + 0.82 * level ** (1 / 1.6), abs=1e-6)
    assert {0.11, 0.14, 0.96, 1.0} == {patch.radius for patch in plane.patches if isinstance(patch, Circle)}
    tilt, amount = lines(curve)["shaped"].T
    assert amount == pytest.approx(np.clip((tilt - 0.14) / 0.82, 0.0, 1.0) ** 1.6)
    assert curve.get_title(loc="left") == f"Half speed at tilt {0.14 + 0.82 * 0.5 ** (1 / 1.6):.2f}"
    dots = max((line.get_xydata() for line in plane.lines), key=len)
    sticks = [event.value for event in demo_recording("beekeeper_pad") if event.control == "pad.left_stick"]
    assert dots == pytest.approx(np.array(sticks) * (1.0, -1.0))


@pytest.mark.long
def test_edges_of_any_form_lie_where_the_formulas_say():
    """Axes under a square gate: a star and paces; seen from the side: a cone and columns; a cut: one circle."""

    def drawn(profile, mode):
        plane, *_ = draw_stick(profile, mode=mode)
        (dead,) = [patch.get_xy() for patch in plane.patches if isinstance(patch, Polygon)]
        return dead, lines(plane)

    def gated(path):
        """The square gate: direction kept, length times max(|x|, |y|) / hypot."""
        return path * np.abs(path).max(axis=1, keepdims=True) / np.hypot(*path.T)[:, None]

    store_room = demo_profile("store_room")
    star, paces = drawn(store_room, "room")
    assert np.abs(gated(star)).max(axis=1) == pytest.approx(0.15, abs=1e-6)
    assert list(paces) == ["amount 0.45", "amount 1"]
    assert paces["amount 0.45"] == pytest.approx(star, abs=1e-6)
    cone, columns = drawn(store_room, "ledge")
    upright = np.abs(cone[:, 0]) <= 0.14 * np.abs(cone[:, 1])
    assert np.hypot(*cone.T) == pytest.approx(np.where(upright, 1.0, 0.14), abs=2e-3)
    column = columns["amount 0.5"][~np.isnan(columns["amount 0.5"][:, 0])]
    # A wedge of the dead zone's size takes 0.14 of each coordinate off the other one, and keeps the length.
    bent = np.maximum(np.abs(column) - 0.14 * np.abs(column[:, ::-1]), 0.0)
    amount = np.minimum((np.hypot(*column.T) - 0.14) / 0.82, 1.0) ** 1.6
    assert amount * bent[:, 0] / np.hypot(*bent.T) == pytest.approx(0.5, abs=1e-5)
    cut = demo_profile().changed({"mode.foot.move.bind[1].dead_zone": {"form": "cut", "inner": 0.3}})
    circle, amounts = drawn(cut, "foot")
    # 0.3^1.6 = 0.146, so a tenth is reached where the raw tilt first passes; 0.5 at 0.5^(1 / 1.6).
    for path, radius in ((circle, 0.3), (amounts["amount 0.1"], 0.3), (amounts["amount 0.5"], 0.5 ** (1 / 1.6))):
        assert np.hypot(*path.T) == pytest.approx(radius, abs=1e-6)


def test_a_grid_of_positions_goes_where_the_shaping_sends_it():
    """The store room's stick: on each axis nothing up to 0.15, then a knee."""
    *_, moved = draw_stick(demo_profile("store_room"))
    shown = lines(moved)
    raw, shaped = shown["raw"], shown["shaped"]
    assert len(raw) == len(shaped) > 100
    assert (shaped[np.abs(raw).max(axis=1) <= 1 / 7 + 1e-9] == 0.0).all()
    (joined,) = moved.collections
    assert np.array(joined.get_segments()) == pytest.approx(np.stack([raw, shaped], axis=1))
    # Straight forward at full tilt is full speed, and half-way there, at a length of 0.26, it is the first pace.
    forward = {round(float(y), 3): tuple(to) for (x, y), to in zip(raw, shaped, strict=True) if x == 0.0}
    assert forward[1.0] == pytest.approx((0.0, 1.0))
    assert (4 / 7 - 0.15) / 0.8 * 0.3 / 0.6 < 0.45
    assert forward[0.571] == pytest.approx((0.0, 0.45))


def test_curves_show_amount_slope_jumps_and_the_steps_that_are_left(beekeeper):
    amount, slope = draw_curve(beekeeper)
    shown = lines(amount)
    words = [label for label in shown if label.startswith("move: pad.left_stick")]
    tilt, value = shown[words[0]].T
    assert value == pytest.approx(np.clip((tilt - 0.14) / 0.82, 0.0, 1.0) ** 1.6, abs=1e-9)
    # 127 steps; those between the dead zone and a quarter of speed.
    steps = np.arange(1, 128) / 127
    few = int(((steps > 0.14) & (steps <= 0.14 + 0.82 * 0.25 ** (1 / 1.6))).sum())
    assert words[0].endswith(f"{few} steps below a quarter")
    assert amount.get_title(loc="left") == f"{few} of 127 steps for the first quarter of speed"
    middle, steep = slope.lines[1].get_xydata().T
    inside = (middle > 0.2) & (middle < 0.9)
    assert steep[inside] == pytest.approx(1.6 / 0.82 * ((middle[inside] - 0.14) / 0.82) ** 0.6, rel=1e-3)
    # A cut and a floor jump, and say so instead of being drawn as steep.
    _, slope = draw_curve({"bees": beekeeper, "old": demo_profile("lookout")})
    both = slope.figure.axes[0]
    assert [text.get_text() for text in slope.texts] == ["old: jumps to 0.08"]
    assert max(np.nanmax(line.get_ydata()) for line in slope.lines[1:3]) < 6.0
    # What begins and ends elsewhere for each of them is marked for none.
    assert [text.get_text() for text in both.texts] == ["a quarter"]
    assert [line.partition(":")[0] for line in lines(both)][1:] == ["bees, pad.left_stick", "old, pad.left_stick"]
    cart, tablet, paces = (draw_curve(demo_profile(name))[0] for name in ("cart", "tablet", "store_room"))
    # A trigger has all of its 255 steps on one side: those from 0.05 up to 0.05 + 0.25 * 0.95.
    pulls = np.arange(1, 256) / 255
    few = int(((pulls > 0.05) & (pulls <= 0.05 + 0.25 * 0.95)).sum())
    assert cart.get_title(loc="left") == f"{few} of 255 steps for the first quarter of speed"
    assert f"throttle: triggers: from 0.05, full at 1; {few} steps below a quarter" in lines(cart)
    assert tablet.get_title(loc="left") == f"First quarter of speed up to tilt {0.25 ** (1 / 1.6):.2f}"
    assert paces.get_title(loc="left").startswith("Rounded to paces")
    mixed, _ = draw_curve({"store": demo_profile("store_room"), "bees": beekeeper})
    assert mixed.get_title(loc="left") == "44 of 127 steps for the first quarter, the rest in paces"
    with pytest.raises(WendonicError, match="7 curves in one picture; allowed: at most 6"):
        draw_curve({str(number): beekeeper for number in range(7)})


def test_diagonals_show_the_fault_of_free_and_nothing_where_there_is_none(beekeeper):
    ax = draw_diagonals(beekeeper)
    for label, points in lines(ax).items():
        assert np.hypot(*points.T) == pytest.approx(3.2, abs=1e-6), label
    assert not ax.get_title(loc="left").endswith("too fast")
    free = draw_diagonals(demo_profile("store_room"), mode="ladder")
    (points,) = lines(free).values()
    assert sorted({round(float(length), 6) for length in np.hypot(*points.T)}) == [3.2, round(3.2 * 2**0.5, 6)]
    assert free.get_title(loc="left") == "Keys W A S D: diagonals are 41 % too fast, 4.53 m/s"
    assert [text.get_text() for text in free.texts].count("+41 %") == 4
    # Squares have no speeds.
    squares = draw_diagonals(demo_profile("crates"))
    assert (squares.get_title(loc="left"), squares.get_ylabel()) == (
        "Every direction is within the full amount, 1",
        "forward (amount)",
    )
    assert all(float(np.hypot(*points.T).max()) == pytest.approx(1.0) for points in lines(squares).values())
    with pytest.raises(WendonicError, match=r"has nothing under move\.bind that can be held"):
        draw_diagonals(demo_profile("headset"))
    thumb = draw_diagonals(demo_profile("tablet"))
    assert {round(float(np.hypot(*points.T).max()), 6) for points in lines(thumb).values()} == {3.2}


def test_look_shows_rates_by_tilt_and_angles_by_swipe_of_both_profiles(beekeeper):
    rates, angles, presses = draw_look({"bees": beekeeper, "old": demo_profile("lookout")})
    (ours, theirs), (mouse, slow, fast) = lines(rates).values(), lines(angles).values()
    tilt, rate = ours.T
    u = np.clip((tilt - 0.12) / 0.85, 0.0, 1.0)
    assert rate == pytest.approx(230.0 * (0.45 * u + 0.55 * u**3), abs=1e-6)
    assert theirs[0, 1] == 0.0
    assert theirs[-1, 1] == pytest.approx(180.0)
    assert "288 deg/s\nheld at the rim" in [text.get_text() for text in rates.texts]
    assert mouse[-1] == pytest.approx((20.0, 20.0 / 34.0 * 360.0))
    # 0.03 deg a count of an 800 dpi mouse, at gains of 0.8 and 1.6.
    per_cm = 0.03 * 800 / 2.54
    assert (slow[-1, 1], fast[-1, 1]) == pytest.approx((20.0 * per_cm * 0.8, 20.0 * per_cm * 1.6))
    # 130 deg/s, eased in over 0.2 s.
    # A profile has its colour in every panel.
    drawn = [line for panel in (rates, angles, presses) for line in panel.lines if "," in str(line.get_label())]
    of_profile = {(line.get_label().partition(",")[0], line.get_color()) for line in drawn}
    assert sorted(name for name, _ in of_profile) == ["bees", "old"]
    (press,) = lines(presses).values()
    assert presses.get_title(loc="left") == "A press of 0.1 s turns 3.2 deg"
    assert press[-1] == pytest.approx((0.5, 130.0 * (0.5 - 0.1)))
    with pytest.raises(WendonicError, match="no stick, mouse or held key turns the view at a rate here"):
        draw_look(demo_profile("tablet"))
    with pytest.raises(WendonicError, match="3 profiles; allowed: one, or two to compare"):
        draw_look({str(number): beekeeper for number in range(3)})


def test_a_profile_without_a_stick_has_nothing_to_map(beekeeper):
    keys_only = beekeeper.mode["foot"].move.model_copy(update={"bind": beekeeper.mode["foot"].move.bind[:1]})
    mode = beekeeper.mode["foot"].model_copy(update={"move": keys_only})
    with pytest.raises(WendonicError, match="has no stick"):
        draw_stick(beekeeper.model_copy(update={"mode": {"foot": mode}}))


@pytest.mark.long
def test_a_map_says_when_a_recording_has_no_positions_of_its_stick(beekeeper, caplog):
    aim = Recording([Event(0.0, "pad.right_stick", (0.5, 0.0)), Event(0.5, "pad1.left_stick", (0.5, 0.0))])
    for recording, words in (
        (demo_recording("beekeeper_keys"), ""),
        (aim, "; it has those of pad.right_stick, pad1.left_stick"),
    ):
        caplog.clear()
        plane, *_ = draw_stick(beekeeper, recording)
        assert [record.getMessage() for record in caplog.records] == [
            f"the recording has no positions of pad.left_stick{words}"
        ]
        assert "the recording has no positions of pad.left_stick" in [text.get_text() for text in plane.texts]


def test_a_timeline_shows_the_trace_within_its_window(keys_trace):
    recording = demo_recording("beekeeper_keys")
    bars, right, forward, amount, speed = draw_timeline(keys_trace, recording, 26.0, 30.5)
    seen = keys_trace[(keys_trace["t"] > 26.0 + 1e-9) & (keys_trace["t"] - keys_trace["dt"] < 30.5 - 1e-9)]
    for ax, raw, shaped in ((right, "raw_x", "local_x"), (forward, "raw_y", "local_y")):
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
    with pytest.raises(WendonicError, match=r"^(from|nothing (after|before)) .* the recording runs from 0 s to"):
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


DEG_A_COUNT = 360.0 * 2.54 / (34.0 * 800.0)
"""Of the beekeeper's mouse: 34 cm a turn at 800 dpi."""


def swipe(start_s=0.0):
    """Two seconds of a mouse that is read 500 times a second: 3 counts to the right each time, and 1 away."""
    return [Event(start_s + n / 500, "mouse.move", (3.0, -1.0)) for n in range(1000)]


def test_a_timeline_shows_how_fast_the_view_turns(beekeeper):
    """Of a player who only looks there is nothing else; a step forward brings the walk back."""
    looking = Recording([*swipe(), Event(2.0, "mark", "end")])
    trace = shape(looking, beekeeper)
    look, view = draw_timeline(trace, looking)
    rate = lines(look)["yaw, to the right"][:, 1]
    # A tick of 1/60 s has 8 or 9 reports in it.
    assert set(np.round(rate / (3.0 * DEG_A_COUNT * 60.0), 6)) == {8.0, 9.0}
    assert lines(look)["pitch, up"][:, 1] == pytest.approx(rate / 3.0)
    assert lines(view)["yaw"][-1, 1] == pytest.approx(3000.0 * DEG_A_COUNT)
    assert lines(view)["pitch"][-1, 1] == pytest.approx(1000.0 * DEG_A_COUNT)
    turned = math.hypot(3000.0, 1000.0) * DEG_A_COUNT
    assert look.get_title(loc="left") == f"Recording: view turned {turned:.0f} deg"
    walking = Recording([*swipe(), Event(2.0, "key.KeyW", 1), Event(3.0, "mark", "end")])
    _, right, _, _, look, speed = draw_timeline(shape(walking, beekeeper), walking, 1.0, 3.0)
    assert lines(look)["yaw, to the right"][0, 1] > 0.0 == lines(look)["yaw, to the right"][-1, 1]
    assert (lines(right)["shaped"][:, 1] == 0.0).all()
    assert lines(speed)["motion"][-1, 1] == pytest.approx(3.2)
    nothing = Recording([Event(0.0, "mark", "begin"), Event(1.0, "mark", "end")])
    assert draw_timeline(shape(nothing, beekeeper), nothing)[0].get_title(loc="left") == "Recording: nothing moves"


def test_a_timeline_shows_presses_as_they_came_out(beekeeper):
    """Sprint is switched by each press, a jump waits for its key, a notch is over at once."""
    events = [
        Event(0.0, "key.ShiftLeft", 1),
        Event(0.5, "key.ShiftLeft", 0),
        Event(1.0, "mouse.wheel", 2.0),
        Event(1.5, "key.Space", 1),
        Event(2.0, "key.Space", 0),
        Event(3.0, "key.ShiftLeft", 1),
        Event(3.5, "key.ShiftLeft", 0),
        Event(4.0, "mark", "end"),
    ]
    recording = Recording(events)
    bars, *_ = draw_timeline(shape(recording, beekeeper), recording)
    names = [label.get_text() for label in bars.get_yticklabels()]
    assert names == ["ShiftLeft", "Space", "jump", "sprint", "next_frame"]
    lanes = {}
    for lane in bars.collections:
        for path in lane.get_paths():
            x, y = path.vertices.T
            lanes.setdefault(names[round(y.mean())], []).append((x.min(), x.max()))
    tick = 1 / 60
    assert lanes["ShiftLeft"] == [(0.0, 0.5), (3.0, 3.5)]
    assert np.array(lanes["sprint"]) == pytest.approx(np.array([(0.0, 3.0 - tick)]))
    assert np.array(lanes["jump"]) == pytest.approx(np.array([(1.5 - tick, 2.0 - tick)]))
    began = {names[int(line.get_ydata()[0])]: line.get_xdata() for line in bars.lines if line.get_marker() == "|"}
    for name, time in {"jump": 1.5 - tick, "sprint": 0.0, "next_frame": 1.0 - tick}.items():
        assert began[name] == pytest.approx([time])


@pytest.mark.long
def test_times_of_a_clock_that_started_long_ago_are_written_out(beekeeper):
    """Seconds since 1970, as a game may log them: no powers of ten, and nothing to add up."""
    start_s = 1764500000.25
    recording = Recording([Event(start_s, "key.KeyW", 1), Event(start_s + 20.0, "key.KeyW", 0)])
    trace = shape(recording, beekeeper)
    path, timeline = draw_path(trace), draw_timeline(trace, recording)[-1]
    assert "1764500005.25 s" in [text.get_text() for text in path.texts]
    timeline.get_figure().draw_without_rendering()
    assert timeline.xaxis.get_offset_text().get_text() == ""
    assert "1764500005.0" in {label.get_text() for label in timeline.get_xticklabels()}


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
    assert "83.2 m in 36.0 s" in ax.get_title(loc="left")


@pytest.mark.long
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


def test_a_line_has_a_gap_after_a_loss_and_down_is_drawn_down():
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
    with pytest.raises(WendonicError, match=r"from 1\.5 s to 1 s; allowed: the end after the start; the recording"):
        draw_devices(Recording([Event(*step) for step in steps]), start_s=1.5, end_s=1.0)


def test_counts_and_rates_go_up_and_down_from_the_middle_of_their_lane_and_have_units():
    events = [Event(0.0, "pad.gyro", (0.02, -0.01, 0.0)), Event(0.0, "pad.accel", (0.0, 9.81, -4.905))]
    events += [Event(0.1 * n, "mouse.move", (12345.0, 0.0)) for n in range(1, 3)]
    ax = draw_devices(Recording(events))
    lanes = [line.get_ydata()[-1] - lane for lane in range(3) for line in _solid_and_dashed(ax, lane)]
    # Lanes grow downwards; the middle line of each is nothing.
    assert lanes == pytest.approx([-0.36, 0.18, 0.0, 0.0, -0.36, 0.18, -0.36, 0.0], abs=1e-9)
    words = {text.get_text().split("\n")[-1] for text in ax.texts}
    assert words == {"-0.01 to 0.02 rad/s", "-4.905 to 9.81 m/s²", "0 to 24690 counts, summed"}


def _solid_and_dashed(ax, lane):
    """The lines of a lane, without the one through its middle."""
    drawn = [line for line in ax.lines if len(line.get_xdata()) > 1 and line.get_drawstyle() == "steps-post"]
    return [line for line in drawn if abs(line.get_ydata()[-1] - lane) < 0.5]


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


def walk_on_course(name):
    """A shipped recording on its course, and the picture of its path."""
    recording, profile = demo_recording(name), demo_profile(RECORDINGS[name])
    course = demo_course(ON_COURSE[name]) if name in ON_COURSE else None
    trace = shape(recording, profile, course=course)
    return trace, draw_path(trace, recording.title, profile=profile, recording=recording, course=course)


def test_a_path_on_squares_shows_what_is_blocked_and_where_a_step_was_refused():
    trace, ax = walk_on_course("crates_push")
    course = demo_course("store_room")
    squares = [patch for patch in ax.patches if isinstance(patch, Rectangle)]
    assert {(patch.get_x() + 0.5, patch.get_y() + 0.5) for patch in squares} == set(course.blocked)
    shown = lines(ax)
    stepped = {tuple(place) for place in shown["stepped on"].tolist()}
    assert stepped == set(zip(trace["step_x"], trace["step_y"], strict=True))
    # Half-way to a blocked square: at the edge of it.
    for x, y in shown["step refused"]:
        assert any(math.dist((x, y), square) == 0.5 for square in course.blocked)
    assert len(shown["step refused"]) == 3


def test_a_path_on_a_course_has_its_heights_as_contour_lines():
    trace, ax = walk_on_course("terraces_walk")
    course = demo_course("terraces")
    tints, contours = [kept for kept in ax.collections if hasattr(kept, "levels")]
    assert np.all(np.diff([colour[3] for colour in tints.get_facecolor()]) > 0.0)
    seen = 0
    for level, path in zip(contours.levels, contours.get_paths(), strict=True):
        for x, y in path.vertices[::7]:
            # Within the fineness of the grid, wherever the ground is no cliff.
            ground = course.ground(x, y)
            if max(abs(course.ground(x + dx, y).height - ground.height) for dx in (-0.2, 0.2)) < 0.2:
                assert ground.height == pytest.approx(level, abs=0.2)
                seen += 1
    assert seen > 100
    # Level ground has its height written on it, and beside the walk, not under it.
    numbers = {text.get_text(): text.get_position() for text in ax.texts if text.get_position()[1] > 6.0}
    for label, height in (("2 m", 2.0), ("4 m", 4.0)):
        x, y = numbers[label]
        assert course.ground(x, y).height == pytest.approx(height)
        assert np.hypot(trace["pos_x"] - x, trace["pos_y"] - y).min() > 1.0
    steep = lines(ax)["too steep"]
    assert len(steep) == trace["refused"].sum() > 20
    assert ax.get_title(loc="left").startswith("Up and down the terraces: 45.0 m")


def test_a_slope_too_gentle_to_feel_is_not_called_level(tmp_path):
    plane = "left_m = -500\nright_m = 500\nback_m = -500\nforward_m = 500\n"
    piece = f'[[piece]]\nform = "ramp"\nup = "forward"\nto_height_m = 15\n{plane}'
    (tmp_path / "slope.toml").write_text(f'format = "wendonic-course"\nversion = 1\n{piece}')
    course = load_course(tmp_path / "slope.toml")
    trace = shape(demo_recording("terraces_walk"), demo_profile("terraces"), course=course)
    written = [text for text in draw_path(trace, course=course).texts if text.get_text().endswith("m")]
    assert len(written) > 2
    # Each number is that of a line, and lies on it.
    for text in written:
        x, y = text.get_position()
        height = float(text.get_text().split()[0])
        assert course.ground(x, y).height == pytest.approx(height, abs=1e-6)
        assert height / 0.025 == pytest.approx(round(height / 0.025), abs=1e-6)


def test_a_path_to_goals_marks_each_that_stayed_and_each_arrival():
    trace, ax = walk_on_course("orchard_errands")
    circles = [patch for patch in ax.patches if isinstance(patch, Circle)]
    assert {patch.radius for patch in circles} == {0.15}
    clicked = [(0.78, 0.3), (0.8, 0.42), (0.3, 0.2), (0.25, 0.8), (0.6, 0.75), (0.4, 0.75)]
    expected = [(-16.0 + 32.0 * x, 9.0 - 18.0 * y) for x, y in clicked]
    assert np.array([patch.center for patch in circles[:6]]) == pytest.approx(np.array(expected))
    # Four that were walked to, and one that was dragged over the body for two ticks.
    assert len(lines(ax)["arrived"]) == trace["arrived"].sum() == 6


SIDE = """format = "wendonic-profile"
version = 1
[world]
right = "+x"
up = "-y"
[mode.walk]
steer = { frame = "goto", side_view = true, sectors = 2 }
[[mode.walk.move.bind]]
keys = { left = ["KeyA"], right = ["KeyD"] }
[mode.walk.press]
jump = { bind = ["key.Space"] }
[gait.walk]
gravity_m_s2 = 20
jump = { press = "jump", height_m = 1.4 }
"""


def test_seen_from_the_side_height_is_drawn_over_x_and_rise_is_no_speed():
    profile, course = profile_from_text(SIDE), demo_course("harvest")
    jumps = [Event(1.0, "key.Space", 1.0), Event(1.5, "key.Space", 0.0)]
    events = [Event(0.0, "key.KeyD", 1.0), *jumps, Event(2.0, "key.KeyD", 0.0), Event(3.0, "goal", (1.0, 0.0))]
    recording = Recording([*events, Event(6.0, "mark", "end")])
    depth = Event(0.0, "body.place", (-6.0, 8.0, 0.0))
    trace = shape(Recording([depth, *recording]), profile, course=course)
    ax = draw_path(trace, profile=profile, recording=recording, course=course)
    shown = lines(ax)
    assert shown["path"] == pytest.approx(trace[["pos_x", "pos_z"]].to_numpy())
    assert (ax.get_xlabel(), ax.get_ylabel()) == ("x, right (m)", "height (m)")
    # A section of the terrace at the body's depth: 0.9 m high from -3 to 3 m; the shed behind it is cut as a wall.
    ground = shown["ground"]
    inside = np.abs(ground[:, 0]) < 2.95
    assert ground[inside, 1] == pytest.approx(0.9)
    assert ground[np.abs(ground[:, 0]) > 3.05, 1] == pytest.approx(0.0)
    goal = trace[trace["goal_x"] == 1.0]
    assert shown["goal"] == pytest.approx(np.array([[1.0, goal["pos_z"].iloc[-1]]]))
    *_, speed = draw_timeline(trace, recording)
    seen = lines(speed)
    assert seen["over ground"][:, 1] == pytest.approx(np.abs(trace["vel_x"]))
    assert seen["up"][:, 1] == pytest.approx(trace["vel_z"])
    assert (
        speed.get_figure().axes[0].get_title(loc="left").startswith("Recording: top speed over the ground 3.20 m/s")
    )
    # Two profiles on the same input, seen in the same way.
    compared = compare({"one": profile, "two": profile}, {"walk": recording})
    path, speeds, heights = draw_comparison(compared)
    assert path.get_ylabel() == "height (m)"
    assert lines(path)["one"] == pytest.approx(compared.traces["walk"][0][["pos_x", "pos_z"]].to_numpy())
    assert lines(speeds)["one"][:, 1].max() == pytest.approx(3.2)
    assert heights.get_ylabel().split() == ["height", "(m)"]


@pytest.mark.long
def test_the_way_backwards_and_the_swing_of_hands_are_shown():
    assert "backwards" in lines(walk_on_course("cart_ride")[1])
    trace, ax = walk_on_course("headset_walk")
    (below,) = [panel for panel in ax.figure.axes if panel is not ax]
    shown = lines(below)
    assert set(shown) == {"left hand", "right hand", "walk"}
    assert shown["walk"][:, 1] == pytest.approx(np.hypot(trace["vel_x"], trace["vel_y"]))
    assert {"pointed there", "out of the wall", "wall"} <= {text.get_text() for text in ax.get_legend().get_texts()}
    # Brought somewhere else is not walked.
    assert ax.get_title(loc="left") == "Walking by swinging the two smokers: 14.0 m in 11.0 s"


@pytest.mark.parametrize(
    ("name", "words"),
    [
        (
            "beekeeper_keys",
            "17.50 s: forward is the camera, 134 deg\nrequested: 45 deg to the left, 1.00\ngoes 89 deg",
        ),
        (
            "smoker_rounds",
            "4.00 s: forward is the body, 44 deg\nrequested: 90 deg to the left, 1.00\ngoes 314 deg, 1.00",
        ),
        ("cart_ride", "11.01 s: forward is the cart, 114 deg\nthrottle -1.00, turn 1.00\ngoes 294 deg, 0.40"),
        (
            "scout_flight",
            "1.00 s: forward is the camera, 0 deg\nnothing requested\ngoes straight up, 0.50; faces 0 deg",
        ),
        ("orchard_errands", "1.00 s: forward is that of [world], 0 deg\nthe goal is 8.4 m away\ngoes 68 deg, 1.00"),
        (
            "crates_push",
            "1.01 s: forward is that of [world], 0 deg\nrequested: 90 deg to the right, 1.00\ngoes 90 deg, 1.00",
        ),
        (
            "crates_push",
            "9.50 s: forward is that of [world], 0 deg\nrequested: straight back, 1.00\nrefused by square (3, 3)",
        ),
        (
            "terraces_walk",
            "4.40 s: forward is the camera, 0 deg\nrequested: straight ahead, 1.00\nrests, too steep; faces 0 deg",
        ),
        ("headset_walk", "3.10 s: forward is head or hands, 30 deg\nrequested: straight ahead"),
    ],
)
def test_a_rose_says_and_shows_why_it_went_there(name, words):
    moment = float(words.split(" s:")[0]) - 0.008
    recording, profile = demo_recording(name), demo_profile(RECORDINGS[name])
    course = demo_course(ON_COURSE[name]) if name in ON_COURSE else None
    trace = shape(recording, profile, course=course)
    (rose,) = draw_frame(trace, profile, [moment])
    assert rose.texts[-1].get_text().startswith(words) or any(
        text.get_text().startswith(words) for text in rose.texts
    )
    tick = trace[trace["t"] >= moment - 1e-9].iloc[0]
    arrows = [text.xy for text in rose.texts if getattr(text, "arrow_patch", None)]
    face = math.radians(tick["face_deg"])
    assert arrows[0] == pytest.approx((0.62 * math.sin(face), 0.62 * math.cos(face)))
    if not math.isnan(tick["heading_deg"]):
        heading, length = math.radians(tick["heading_deg"]), max(tick["amount"], 0.15)
        assert arrows[1] == pytest.approx((length * math.sin(heading), length * math.cos(heading)))
    (camera,) = [patch for patch in rose.patches if isinstance(patch, Wedge)]
    assert (camera.theta1 + camera.theta2) / 2.0 == pytest.approx(90.0 - tick["view_yaw_deg"])


def test_moments_are_spread_over_what_moves_and_must_lie_in_the_trace(keys_trace, beekeeper):
    roses = draw_frame(keys_trace, beekeeper)
    assert len(roses) == 6
    assert len({rose.get_subplotspec().get_geometry()[:2] for rose in roses}) == 1
    for wrong in ([], [99.0], [1.0] * 13):
        with pytest.raises(WendonicError, match="allowed: 1 to 12 from"):
            draw_frame(keys_trace, beekeeper, wrong)


def test_a_timeline_of_the_cart_shows_turn_and_throttle():
    recording, profile = demo_recording("cart_ride"), demo_profile("cart")
    trace = shape(recording, profile)
    _, turn, throttle, *_ = draw_timeline(trace, recording)
    for panel, name in ((turn, "turn"), (throttle, "throttle")):
        assert panel.get_ylabel().startswith(name)
        assert lines(panel)["shaped"][:, 1] == pytest.approx(trace[name])
    # On foot and in the cart by turns, and in flight, other channels steer beside `move`.
    for walk, profile_name, channels in (
        ("apiary_rounds", "rounds", {"turn", "throttle"}),
        ("scout_flight", "scout", {"turn", "throttle", "rise"}),
    ):
        recording = demo_recording(walk)
        trace = shape(recording, demo_profile(profile_name))
        _, right, forward, *_ = draw_timeline(trace, recording)
        shown = lines(right) | {name: line for name, line in lines(forward).items() if name not in ("raw", "shaped")}
        assert shown.keys() == channels | {"raw", "shaped"}
        for channel in channels:
            assert shown[channel][:, 1] == pytest.approx(trace[channel])


def test_the_title_of_a_timeline_says_when_top_speed_is_reached():
    """Not where a body at that speed is a little faster by rounding: 3.2 m/s at 22 m/s² from 1 s on."""
    events = [
        Event(1.0, "key.KeyW", 1),
        Event(3.0, "key.KeyD", 1),
        Event(5.0, "key.KeyD", 0),
        Event(9.0, "mark", "end"),
    ]
    trace = shape(Recording(events), demo_profile())
    title = draw_timeline(trace, Recording(events))[0].get_title(loc="left")
    assert title == f"Recording: top speed 3.20 m/s, first at {math.ceil(60 * (1 + 3.2 / 22)) / 60:.2f} s"


def test_places_are_drawn_and_reported_in_metres():
    events = [Event(0.0, "goal", (3.0, 4.0)), Event(1.0, "aim", (-1.5, 2.0)), Event(2.0, "goal", (0.0, 0.5))]
    ax = draw_devices(Recording(events))
    assert [text.get_text() for text in ax.texts] == [
        "x solid, y dashed\n0 to 4 m",
        "x solid, y dashed\n-1.5 to 2 m",
    ]
    reported = "\n".join(describe_recording(Recording(events)))
    assert "goal: 2 events (1 a second), x (right) 0 to 3 m, y (forward) 0.5 to 4 m" in reported


WALKED = [
    ("beekeeper", "beekeeper_keys"),
    ("cart", "cart_ride"),
    ("terraces", "terraces_walk"),
    ("harvest", "harvest_run"),
    ("orchard", "orchard_errands"),
    ("headset", "headset_walk"),
]


@pytest.mark.parametrize(("name", "recording"), few_of(WALKED, [WALKED[0], WALKED[2], WALKED[5]]))
def test_the_times_along_a_path_lie_on_no_line_and_on_no_other_word(name, recording):
    course = demo_course(name) if name in ("terraces", "harvest") else None
    trace = shape(demo_recording(recording), demo_profile(name), course=course)
    ax = draw_path(trace, profile=demo_profile(name), recording=demo_recording(recording), course=course)
    ax.figure.draw_without_rendering()
    boxes = {text: text.get_window_extent() for text in ax.texts if text.get_text()}
    times = [text for text in boxes if re.match(r"[\d.]+ s", text.get_text())]
    assert len(times) >= 3
    ends = ax.transData.transform(trace[["pos_x", "pos_y"]].to_numpy())
    path = np.vstack([ends[:-1] + share * np.diff(ends, axis=0) for share in np.linspace(0.0, 1.0, 9)])
    for text in times:
        box = boxes[text]
        inside = ((path > box.min) & (path < box.max)).all(axis=1)
        assert not inside.any(), text.get_text()
        assert not [other.get_text() for other in boxes if other is not text and box.overlaps(boxes[other])]
        said_s = float(text.get_text().split(" s")[0])
        there = trace.loc[(trace["t"] - said_s).abs().idxmin()]
        assert text.xy == pytest.approx((there["pos_x"], there["pos_y"]), abs=1e-9)
        # Beside its mark: no further than three times the label's own size.
        mark = ax.transData.transform(text.xy)
        middle = (box.min + box.max) / 2.0
        assert np.hypot(*(middle - mark)) < 3.0 * np.hypot(box.width, box.height)


def test_a_walk_begins_where_it_begins_and_is_as_long_as_its_squares():
    """A step of a metre in every 0.25 s from the first tick on: the first tick's part of it counts, too."""
    profile, recording, course = demo_profile("crates"), demo_recording("crates_push"), demo_course("store_room")
    trace = shape(recording, profile, course=course)
    begun = int((trace["step_began"]).sum())
    ax = draw_path(trace, profile=profile, recording=recording, course=course)
    assert ax.get_title(loc="left") == f"The walk: {begun:.1f} m in 11.5 s"
    (start,) = (line for line in ax.lines if line.get_label() == "start")
    assert (list(start.get_xdata()), list(start.get_ydata())) == ([0.0], [0.0])
    later = trace[trace["t"] > 8.0]
    assert steps_m(later).sum() == pytest.approx(steps_m(trace)[trace["t"] > 8.0].sum(), abs=1e-9)
