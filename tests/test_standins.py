"""Stand-ins have the faults they say they have, and the shipped recordings come from them."""

import itertools
import math
import random
import statistics

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from wendonic import DeviceError, Recording
from wendonic.demo import RECORDINGS, demo_recording
from wendonic.demo.make_recordings import MAKERS
from wendonic.devices.standins import (
    GyroStandIn,
    HandsStandIn,
    MouseStandIn,
    StickStandIn,
    Stroke,
    TouchStandIn,
    TrackingLoss,
    Tremor,
    Typist,
    hand_path,
)
from wendonic.devices.standins.hands import EYES_M
from wendonic.devices.standins.tremor import TREMOR_HZ
from wendonic.recording.held import held_spans


def readings(stick, right=0.0, forward=0.0, count=4000):
    return list(zip(*(stick.read(right, forward) for _ in range(count)), strict=True))


def test_a_stick_rests_where_it_says_with_the_noise_it_says():
    """Within five standard errors of 4000 readings."""
    xs, ys = readings(StickStandIn(rest=(0.031, -0.024), noise=0.02, bits=16, seed=4))
    for values, rest in ((xs, 0.031), (ys, -0.024)):
        assert statistics.fmean(values) == pytest.approx(rest, abs=5 * 0.02 / math.sqrt(4000))
        assert statistics.stdev(values) == pytest.approx(0.02, abs=5 * 0.02 / math.sqrt(8000))


@pytest.mark.parametrize("bits", [8, 16])
@given(right=st.floats(-1.0, 1.0), forward=st.floats(-1.0, 1.0))
def test_a_stick_steps_in_its_bits(bits, right, forward):
    """A reading is a whole code, at most half a code from the truth (and six decimals of rounding)."""
    steps = 2**bits - 1
    x, y = StickStandIn(bits=bits, rim_power=math.inf).read(right, forward)
    length = max(abs(right), abs(forward))
    # A square rim lets each axis reach 1, so the hand's circle is stretched towards the corners.
    stretch = math.hypot(right, forward) / length if length else 1.0
    for got, meant in ((x, right * stretch), (y, -forward * stretch)):
        code = (got + 1.0) / 2.0 * steps
        assert code == pytest.approx(round(code), abs=steps * 1e-6)
        assert abs(got - min(max(meant, -1.0), 1.0)) <= 1.0 / steps + 1e-6


@pytest.mark.parametrize(("power", "diagonal"), [(2.0, 1.0), (math.inf, math.sqrt(2.0)), (1.0, math.sqrt(0.5))])
def test_the_rim_has_its_shape(power, diagonal):
    stick = StickStandIn(rim_power=power, rim_reach=0.8)
    assert stick.rim(1.0, 0.0) == stick.rim(0.0, -3.0) == pytest.approx(0.8)
    assert stick.rim(-2.0, 2.0) == pytest.approx(0.8 * diagonal)


def test_a_stick_is_polled_at_its_rate_and_tells_of_changes_only():
    path = hand_path([(0.0, 0.0, 0.0), (1.0, 0.6, 0.0), (2.0, 0.6, 0.0)])
    events = StickStandIn(poll_hz=50.0, seed=1).events(path, 0.0, 2.0)
    assert all(event.t * 50.0 == pytest.approx(round(event.t * 50.0)) for event in events)
    assert all(one.value != other.value for one, other in itertools.pairwise(events))
    # The hand stands still from 1 s on, and without noise nothing is told of then.
    assert 40 <= len(events) <= 51
    assert events[-1].t <= 1.0


def test_the_hand_moves_with_the_least_jerk():
    """Flash and Hogan: half way at half time, and the top speed is 15/8 of the mean."""
    path = hand_path([(2.0, -1.0, 0.0), (4.0, 1.0, 1.0)])
    assert path(3.0) == (0.0, 0.5)
    step = 1e-5
    assert (path(3.0 + step)[0] - path(3.0 - step)[0]) / (2.0 * step) == pytest.approx(15.0 / 8.0)
    assert (path(0.0), path(9.0)) == ((-1.0, 0.0), (1.0, 1.0))


def test_a_typist_spreads_as_said_and_overlaps():
    strokes = [Stroke("KeyW" if n % 2 else "KeyD", float(n), n + 1.1) for n in range(2000)]
    typist = Typist(spread_s=0.015, seed=9)
    events = typist.events(strokes)
    downs = [event.t for event in events if event.value == 1.0]
    misses = [t - n for n, t in enumerate(sorted(downs))]
    # The first press cannot be meant before the start, so it is left out.
    assert statistics.stdev(misses[1:]) == pytest.approx(0.015, abs=5 * 0.015 / math.sqrt(4000))
    assert [event.t for event in events] == sorted(event.t for event in events)
    held = set()
    most = 0
    for event in events:
        held.add(event.control) if event.value else held.remove(event.control)
        most = max(most, len(held))
    assert most == 2
    assert not held


@given(
    gaps=st.lists(st.floats(0.0, 0.2), min_size=1, max_size=20),
    spread_s=st.floats(0.0, 0.3),
    seed=st.integers(0, 99),
)
def test_a_key_always_goes_down_and_up_in_turn_however_hasty(gaps, spread_s, seed):
    t, strokes = 0.0, []
    for gap in gaps:
        strokes.append(Stroke("KeyW", t, t + gap / 2.0))
        t += gap
    events = Typist(spread_s, seed).events(strokes)
    assert [event.value for event in events] == [1.0, 0.0] * len(gaps)
    assert all(one.t < other.t for one, other in itertools.pairwise(events))


@pytest.mark.parametrize(
    "faults", [{"noise": -1.0}, {"rim_power": 0.0}, {"rim_reach": math.inf}, {"bits": 1}, {"poll_hz": 0.0}]
)
def test_an_impossible_stick_is_refused(faults):
    with pytest.raises(DeviceError, match=f"{next(iter(faults))}: found"):
        StickStandIn(**faults)


@pytest.mark.parametrize("name", RECORDINGS)
def test_the_shipped_recordings_are_what_the_script_makes(name):
    made, shipped = MAKERS[name](), demo_recording(name)
    assert (made.title, len(made)) == (shipped.title, len(shipped))
    for one, other in zip(made, shipped, strict=True):
        assert one.control == other.control
        assert one.t == pytest.approx(other.t, abs=1e-6)
        # Another machine's sine may round to the next of a stick's 8-bit codes.
        if not isinstance(one.value, str):
            assert one.value == pytest.approx(other.value, abs=1.01 * 2 / 255)


def test_the_shipped_recordings_hold_what_they_are_for():
    keys, pad = (demo_recording(name) for name in ("beekeeper_keys", "beekeeper_pad"))
    for recording in (keys, pad):
        assert 30.0 <= recording.duration_s <= 40.0
        yaws = [event.value[0] for event in recording if event.control == "view"]
        assert (min(yaws), max(yaws)) == (0.0, 360.0)
        # Hands off for the last three seconds at least: notes and noise only.
        late = [event for event in recording if event.t > recording.duration_s - 3.0]
        assert all(event.control != "key.KeyW" for event in late)
    spans = held_spans(keys)
    held_at = [
        frozenset(name[-1] for name, bars in spans.items() if any(a <= t < b for a, b in bars))
        for t in (step / 100 for step in range(3600))
    ]
    eight = {frozenset(way) for way in ("W", "S", "A", "D", "WA", "WD", "SA", "SD")}
    assert eight | {frozenset("WS"), frozenset("AD")} <= set(held_at)
    tilts = [math.hypot(*event.value) for event in pad if event.control == "pad.left_stick"]
    assert any(0.3 < tilt < 0.45 for tilt in tilts)
    assert max(tilts) > 0.98


def spectrum_peak_hz(values, step_s):
    power = np.abs(np.fft.rfft(np.asarray(values) - np.mean(values))) ** 2
    return np.fft.rfftfreq(len(values), step_s)[np.argmax(power)]


def test_a_tremor_has_its_size_and_swings_at_its_frequency():
    tremor = Tremor(size=0.4, step_s=0.002, random_numbers=random.Random(3))
    values = [tremor.step() for _ in range(100_000)]
    assert statistics.stdev(values) == pytest.approx(0.4, rel=0.05)
    assert spectrum_peak_hz(values, 0.002) == pytest.approx(TREMOR_HZ, abs=2.0)


@given(
    cm=st.floats(0.1, 50.0),
    direction_deg=st.floats(0.0, 360.0),
    counts_per_inch=st.sampled_from([400.0, 1600.0, 26_000.0]),
    poll_hz=st.sampled_from([125.0, 1000.0]),
)
def test_a_mouse_counts_the_whole_way_to_less_than_a_count(cm, direction_deg, counts_per_inch, poll_hz):
    mouse = MouseStandIn(counts_per_inch, poll_hz)
    swipe = mouse.swipe(cm, start_s=1.0, duration_s=0.2, direction_deg=direction_deg)
    right, towards = (sum(event.value[axis] for event in swipe) for axis in (0, 1))
    way = cm / 2.54 * counts_per_inch
    assert right == pytest.approx(way * math.sin(math.radians(direction_deg)), abs=0.51)
    assert towards == pytest.approx(-way * math.cos(math.radians(direction_deg)), abs=0.51)
    assert all(event.value != (0.0, 0.0) and 1.0 < event.t <= 1.2 + 1 / poll_hz for event in swipe)


def test_a_trembling_mouse_counts_on_the_spot_and_goes_nowhere():
    still = MouseStandIn(3200, 500, tremor_mm=0.05, seed=2).events(lambda _: (0.0, 0.0), 0.0, 20.0)
    at = list(itertools.accumulate(event.value[0] for event in still))
    assert statistics.pstdev(at) * 25.4 / 3200 == pytest.approx(0.05, rel=0.25)
    assert abs(at[-1]) < 5 * 0.05 / 25.4 * 3200


def test_a_gyro_stand_in_has_bias_warm_up_and_noise():
    pad = GyroStandIn(
        "pad1", bias=(0.01, -0.02, 0.0), drift=(0.0, 0.05, 0.0), warm_up_s=10.0, noise=0.003, accel_noise=0.02, seed=6
    )
    events = pad.events(lambda _: (0.0, 30.0), 0.0, 20.0)
    gyro = [event for event in events if event.control == "pad1.gyro"]
    accel = [event.value for event in events if event.control == "pad1.accel"]
    assert len(gyro) == len(accel) == 5000
    xs = [event.value[0] for event in gyro]
    assert statistics.fmean(xs) == pytest.approx(0.01, abs=5 * 0.003 / math.sqrt(5000))
    assert statistics.stdev(xs) == pytest.approx(0.003, rel=0.05)
    late = [event.value[1] for event in gyro if event.t > 18.0]
    # At 19 s all but e^-1.9 of the drift is there.
    assert statistics.fmean(late) == pytest.approx(-0.02 + 0.05 * (1 - math.exp(-1.9)), abs=5e-4)
    assert pad.bias_at(10.0)[1] == pytest.approx(-0.02 + 0.05 * (1 - math.exp(-1)))
    # Nose up by 30 degrees: half of gravity is felt along the pad.
    felt = [statistics.fmean(axis) for axis in zip(*accel, strict=True)]
    assert felt == pytest.approx([0.0, 9.80665 * math.cos(math.pi / 6), -9.80665 / 2], abs=5e-3)


def test_a_finger_lands_trembles_within_the_window_and_is_lifted():
    finger = TouchStandIn(finger=2, poll_hz=100, noise=0.01, seed=9)
    events = finger.drag((0.0, 0.5), (1.0, 0.5), t=2.0, duration_s=0.5)
    assert {event.control for event in events} == {"touch.2"}
    assert [event.value[2] for event in events] == [1.0] * (len(events) - 1) + [0.0]
    assert all(0.0 <= number <= 1.0 for event in events for number in event.value)
    assert (events[0].t, events[-1].t) == (2.0, 2.5)
    assert events[-1].value[0] == pytest.approx(1.0, abs=0.05)


def test_arms_swing_in_turns_on_their_arc_and_are_silent_while_lost():
    hands = HandsStandIn(cadence_hz=1.0, amplitude_m=0.3, poll_hz=100, seed=4)
    events = hands.walk(0.0, 10.0, losses=[TrackingLoss("hand.left", 3.0, 4.0)])
    # The head bobs, and everything hangs from it.
    bobs = {event.t: event.value[1] - EYES_M for event in events if event.control == "head.pose"}
    assert 0.02 < max(bobs.values()) - min(bobs.values()) < 0.03

    def poses(unit):
        seen = ((event.t, event.value) for event in events if event.control == f"{unit}.pose")
        return {t: (x, y - bobs[t], *rest) for t, (x, y, *rest) in seen}

    left, right = poses("hand.left"), list(poses("hand.right").values())
    assert not [t for t in left if 3.0 <= t < 4.0]
    assert [event.t for event in events if event.control == "lost.hand.left"] == [3.0]
    forward = [-pose[2] for pose in right]
    assert max(forward) == pytest.approx(0.3, abs=1e-3)
    assert spectrum_peak_hz(forward, 0.01) == pytest.approx(1.0)
    for t, value in left.items():
        assert value[2] == pytest.approx(-right[round(t * 100)][2], abs=1e-6)
    way = sum(math.dist(one[:3], other[:3]) for one, other in itertools.pairwise(right))
    assert way / 10.0 == pytest.approx(hands.speed_m_s(), rel=0.01)
    for pose in right:
        assert math.hypot(*pose[3:]) == pytest.approx(1.0, abs=1e-5)
        # Hand and shoulder stay an arm apart.
        assert math.dist(pose[:3], (0.22, 1.4, 0.0)) == pytest.approx(0.6, abs=1e-5)


@pytest.mark.parametrize(
    ("make", "words"),
    [
        (lambda: MouseStandIn(counts_per_inch=0.0), "counts_per_inch: found 0.0; allowed: finite, above 0"),
        (lambda: MouseStandIn(tremor_mm=-1.0), "tremor_mm: found -1.0; allowed: finite, 0 or more"),
        (lambda: TouchStandIn(noise=math.nan), "noise: found nan"),
        (lambda: GyroStandIn(warm_up_s=0.0), "warm_up_s: found 0.0"),
        (lambda: HandsStandIn(amplitude_m=0.7), "amplitude_m: found 0.7; allowed: below the arm's 0.6 m"),
        (lambda: HandsStandIn().walk(0, 1, [TrackingLoss("foot", 0, 1)]), "unit: found 'foot'"),
    ],
)
def test_stand_ins_that_cannot_be_are_refused(make, words):
    with pytest.raises(DeviceError, match=words):
        make()


@pytest.mark.parametrize(
    "events",
    [
        lambda seed: MouseStandIn(tremor_mm=0.1, seed=seed).swipe(5.0),
        lambda seed: TouchStandIn(noise=0.01, seed=seed).tap(0.5, 0.5),
        lambda seed: GyroStandIn(noise=0.01, seed=seed).events(lambda _: (0.0, 0.0), 0.0, 0.1),
        lambda seed: HandsStandIn(tremor_m=0.01, seed=seed).walk(0.0, 0.2),
    ],
)
def test_the_same_seed_gives_the_same_events_which_a_recording_takes(events):
    assert events(1) == events(1) != events(2)
    assert len(Recording(events(1))) == len(events(1))
