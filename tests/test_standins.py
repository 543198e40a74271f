"""Stand-ins have the faults they say they have, and the shipped recordings come from them."""

import itertools
import math
import statistics

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wendonic import DeviceError
from wendonic.demo import RECORDINGS, demo_recording
from wendonic.demo.make_recordings import MAKERS
from wendonic.devices.standins import StickStandIn, Stroke, Typist, hand_path
from wendonic.recording.held import held_spans


def readings(stick, right=0.0, ahead=0.0, count=4000):
    return list(zip(*(stick.read(right, ahead) for _ in range(count)), strict=True))


def test_a_stick_rests_where_it_says_with_the_noise_it_says():
    """Within five standard errors of 4000 readings."""
    xs, ys = readings(StickStandIn(rest=(0.031, -0.024), noise=0.02, bits=16, seed=4))
    for values, rest in ((xs, 0.031), (ys, -0.024)):
        assert statistics.fmean(values) == pytest.approx(rest, abs=5 * 0.02 / math.sqrt(4000))
        assert statistics.stdev(values) == pytest.approx(0.02, abs=5 * 0.02 / math.sqrt(8000))


@pytest.mark.parametrize("bits", [8, 16])
@given(right=st.floats(-1.0, 1.0), ahead=st.floats(-1.0, 1.0))
def test_a_stick_steps_in_its_bits(bits, right, ahead):
    """A reading is a whole code, at most half a code from the truth (and six decimals of rounding)."""
    steps = 2**bits - 1
    x, y = StickStandIn(bits=bits, rim_power=math.inf).read(right, ahead)
    length = max(abs(right), abs(ahead))
    # A square rim lets each axis reach 1, so the hand's circle is stretched towards the corners.
    stretch = math.hypot(right, ahead) / length if length else 1.0
    for got, meant in ((x, right * stretch), (y, -ahead * stretch)):
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
def test_a_stick_that_cannot_be_is_refused(faults):
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
