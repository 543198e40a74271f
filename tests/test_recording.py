"""Recordings in memory and on disk."""

import json
import math

import numpy as np
import pandas as pd
import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from wendonic import ControlError, Event, Recording, RecordingError, WendonicError, shape
from wendonic.demo import demo_profile, demo_recording
from wendonic.devices.controls import find_control
from wendonic.devices.state import DeviceState
from wendonic.recording.columns import ColumnEvents, columns_of
from wendonic.recording.content import Entry, ordered_events, plain_events
from wendonic.recording.describe import describe_recording
from wendonic.recording.held import held_spans
from wendonic.recording.writer import RecordingWriter

HEADER = '{"format": "wendonic-recording", "version": 1, "title": "Smoker"}\n'
finite = st.floats(allow_nan=False, allow_infinity=False)
events = st.one_of(
    st.tuples(st.just("key.KeyW"), st.sampled_from([0.0, 1.0])),
    st.tuples(st.just("pad.left_trigger"), finite),
    st.tuples(st.sampled_from(["pad3.left_stick", "view", "mouse.move", "pointer.at"]), st.tuples(finite, finite)),
    st.tuples(st.just("mouse.wheel"), finite),
    st.tuples(st.sampled_from(["touch.9", "pad1.gyro"]), st.tuples(finite, finite, finite)),
    st.tuples(st.just("hand.left.pose"), st.tuples(*[finite] * 7)),
    st.tuples(st.just("mark"), st.text()),
    st.tuples(st.just("lost.focus"), st.just(1.0)),
)


def bits(value):
    return [
        part.hex() if isinstance(part, float) else part for part in (value if isinstance(value, tuple) else (value,))
    ]


@pytest.mark.parametrize("ending", ["jsonl", "csv", "parquet"])
@given(
    times=st.lists(st.floats(-1e9, 1e9), max_size=20).map(sorted),
    data=st.data(),
    title=st.text(),
    note=st.dictionaries(st.text().map(lambda key: f"x{key}"), st.integers(), max_size=2),
)
def test_a_file_gives_back_every_bit(tmp_path_factory, ending, times, data, title, note):
    recording = Recording([Event(t, *data.draw(events)) for t in times], title, header=note)
    path = tmp_path_factory.mktemp("walk") / f"walk.{ending}"
    recording.write(path)
    again = Recording.read(path)
    assert again.devices == recording.devices
    # CSV has no room for a header.
    assert (again.title, again.header) == (("", {}) if ending == "csv" else (title, note))
    assert [event.control for event in again] == [event.control for event in recording]
    assert [bits(event.value) for event in again] == [bits(event.value) for event in recording]
    assert [event.t.hex() for event in again] == [event.t.hex() for event in recording]


odd = st.recursive(
    st.none() | st.booleans() | st.floats() | st.integers() | st.text(max_size=3) | st.just(10**400),
    lambda inner: st.lists(inner, max_size=3),
    max_leaves=4,
)
names = st.sampled_from(["key.KeyW", "pad0.south", "pad.left_stick", "touch.0", "mark", "lost.pad", "key.W", "view"])


@given(
    entries=st.lists(
        st.fixed_dictionaries(
            {"t": odd | st.integers(0, 9), "c": odd | names, "v": odd | st.just(1) | st.just([0.5, 0.5])}
        ),
        max_size=4,
    )
)
@example(entries=[{"t": 10**400, "c": "key.KeyW", "v": 1}])
@example(entries=[{"t": 0, "c": "key.KeyW", "v": 10**400}])
@example(entries=[{"t": 1, "c": "key.KeyW", "v": 1}, {"t": 0, "c": "key.KeyW", "v": 0}])
def test_the_quick_way_of_reading_gives_what_the_careful_one_gives_or_leaves_it_to_it(entries):
    faults = []
    careful = ordered_events((Entry(None, "", entry["t"], entry["c"], entry["v"]) for entry in entries), faults)
    columns = columns_of(entries)
    for quick in (plain_events(entries), columns and ColumnEvents(columns)):
        if quick is not None:
            assert not faults
            assert [(event.t, event.control, bits(event.value)) for event in quick] == [
                (event.t, event.control, bits(event.value)) for event in careful
            ]


def test_a_parquet_file_of_other_tools_is_read_event_by_event(tmp_path):
    path = tmp_path / "walk.parquet"
    rows = {"t": [0, 1, 2], "c": ["pad0.south", "mark", "lost.pad"], "v0": [1, None, 1], "text": [None, "here", None]}
    pd.DataFrame(rows).to_parquet(path)
    expected = [Event(0.0, "pad.south", 1.0), Event(1.0, "mark", "here"), Event(2.0, "lost.pad", 1.0)]
    assert list(Recording.read(path)) == expected


def test_events_of_columns_are_a_sequence_like_any_other(tmp_path):
    recording = demo_recording("tablet_walk")
    recording.write(tmp_path / "walk.parquet")
    again = Recording.read(tmp_path / "walk.parquet")
    assert len(again) == len(recording)
    assert (again[0], again[-1], again[2:5]) == (recording[0], recording[-1], recording[2:5])
    assert list(again.ticks(60)) == list(recording.ticks(60))
    assert (again == recording, hash(again)) == (True, hash(recording))
    others = [Recording(recording, "Another title"), recording.between(0.0, 1.0), Recording([*recording][:-1])]
    assert all(other != recording for other in others)


def state_after(recording, until_s):
    """What stands at a time: not the mouse's way, nor where a lifted finger was."""
    state = DeviceState()
    for event in recording:
        # A helm discards; its held state knows nothing of it.
        if event.t <= until_s and event.control not in ("mouse.move", "mouse.wheel", "discard"):
            state.apply(event)
    touch = find_control("touch.9").slot
    if state.values[touch + 2] == 0.0:
        state.values[touch : touch + 2] = [0.0, 0.0]
    return state.values


@given(
    steps=st.lists(st.tuples(st.floats(0.0, 10.0), events), max_size=25),
    ends=st.tuples(st.floats(0.0, 10.0), st.floats(0.0, 10.0)).map(sorted),
    checked_s=st.floats(0.0, 10.0),
)
def test_a_stretch_holds_what_the_whole_held(steps, ends, checked_s):
    whole = Recording([Event(t, *step) for t, step in sorted(steps, key=lambda step: step[0])], title="Smoker")
    start_s, end_s = ends
    part = whole.between(start_s, end_s)
    assert Recording(part, part.title).title == "Smoker"
    assert all(start_s <= event.t <= end_s for event in part)
    notes = [event for event in whole if event.control == "mark" and start_s <= event.t <= end_s]
    assert [event for event in part if event.control == "mark"] == notes
    until_s = min(max(checked_s, start_s), end_s)
    assert state_after(part, until_s) == state_after(whole, until_s)


@given(
    first=st.lists(st.tuples(st.floats(0.0, 9.0), events), max_size=12),
    second=st.lists(st.tuples(st.floats(0.0, 9.0), events), max_size=12),
)
def test_two_recordings_together_are_all_events_in_order(first, second):
    one, other = (
        Recording([Event(t, *step) for t, step in sorted(steps, key=lambda step: step[0])])
        for steps in (first, second)
    )
    both = one + other
    # Python's sort is stable, so it is the authority for what comes first at the same time.
    assert list(both) == sorted([*one, *other], key=lambda event: event.t)
    assert len(Recording(both)) == len(one) + len(other)


def test_joining_and_moving_keep_what_belongs_to_the_recording():
    smoker = Recording([Event(5.0, "key.KeyW", 1), Event(6.5, "key.KeyW", 0)], "Smoker", {"hive": 3})
    moved = smoker.shifted(2.0)
    assert [event.t for event in moved] == [2.0, 3.5]
    assert (moved.title, moved.header) == ("Smoker", {"hive": 3})
    assert ((Recording() + moved).title, (moved + Recording(title="Hive")).header) == ("Smoker", {"hive": 3})
    assert len(Recording().shifted()) == 0
    for ends in ((3.0, 2.0), (math.inf, math.inf), (math.nan, 2.0)):
        with pytest.raises(WendonicError, match="the end not before the start"):
            smoker.between(*ends)


@pytest.mark.parametrize(
    ("rows", "words"),
    [
        ("t,c,v0\n", "line 1: found columns t, c, v0; allowed: t, c, v0, v1"),
        (
            "t,c,v0,v1,text\n1,key.KeyWW,1,,\n0.5,key.KeyW,x,,\n",
            "line 3: key.KeyW: found 'x'; allowed: a finite number",
        ),
        ("t,c,v0,v1,text\n1,key.KeyW,1,,\n0.5,key.KeyW,1,,\n", "line 3: t falls from 1.0 to 0.5"),
        ("t,c,v0,v1,text\n1,pad.left_stick,1,,\n", "found (1.0, ''); allowed: two finite numbers"),
        ("t,c,v0,v1,text\nnan,key.KeyW,1,,\n", "line 2: t: found nan"),
        ("t,c,v0,v1,text\n,key.KeyW\n", "line 2: t: found ''"),
        ('t,c,v0,v1,text\n1,mark,,,"never closed\n', "is not valid CSV"),
        ("", "found columns none"),
    ],
)
def test_faults_of_a_csv_file(tmp_path, rows, words):
    path = tmp_path / "walk.csv"
    path.write_text(rows)
    with pytest.raises(RecordingError) as caught:
        Recording.read(path)
    assert words in str(caught.value)


def test_faults_of_a_parquet_file(tmp_path):
    path = tmp_path / "walk.parquet"
    columns = {"t": [1.0, 0.5, None], "c": ["key.KeyW", "key.KeyWW", "key.KeyD"]}
    columns |= {"v0": [1.0, 1.0, 1.0], "v1": [None] * 3, "text": [None] * 3}
    pd.DataFrame(columns).to_parquet(path)
    with pytest.raises(RecordingError) as caught:
        Recording.read(path)
    assert [fault.where for fault in caught.value.faults] == ["row 1", "row 2"]
    pd.DataFrame({"t": [1.0]}).to_parquet(path)
    with pytest.raises(RecordingError, match="found columns t; allowed: t, c, v0, v1, v2"):
        Recording.read(path)
    path.write_bytes(b"PAR1 rubbish")
    with pytest.raises(RecordingError, match="is not a sound Parquet file"):
        Recording.read(path)


def test_a_damaged_parquet_file_is_an_error_wherever_the_damage_is(tmp_path):
    """One byte after another: of a name, of an index, of a text, of the metadata."""
    path = tmp_path / "walk.parquet"
    events = [Event(number / 60, name, 1.0) for number, name in enumerate(("key.KeyW", "key.KeyD", "pad.south"))]
    Recording([*events, Event(1.0, "mark", "felt late")]).write(path)
    sound = path.read_bytes()
    outcomes = {True: 0, False: 0}
    for place in range(0, len(sound), 11):
        path.write_bytes(sound[:place] + bytes([sound[place] ^ 0xA5]) + sound[place + 1 :])
        try:
            outcomes[len(shape(Recording.read(path), demo_profile())) > 0] += 1
        except WendonicError:
            outcomes[False] += 1
    assert min(outcomes.values()) > 20, outcomes


def test_a_recording_tells_its_length_and_devices_and_does_not_change():
    recording = Recording(
        [Event(1.5, "view", (0, 0)), Event(2.0, "pad0.south", True), Event(4.0, "key.KeyW", 1)], title="Smoker"
    )
    assert (len(recording), recording.start_s, recording.duration_s) == (3, 1.5, 2.5)
    assert repr(recording) == '<Recording "Smoker": 3 events in 2.500 s, pad, keys>'
    assert recording[1] == Event(2.0, "pad.south", 1.0)
    assert recording[np.int64(1)] == recording[1]
    assert recording[1:] == list(recording)[1:]
    assert len(Recording()) == Recording().duration_s == 0


@pytest.mark.parametrize(
    ("lines", "faults"),
    [
        (
            '{"t": 1, "c": "key.KeyW", "v": 1}\n{"t": 0.5, "c": "key.KeyW", "v": 0}\n',
            ["line 3: t falls from 1.0 to 0.5"],
        ),
        ('{"t": 1, "c": "key.KeyQQ", "v": 1}\n', ['line 2: unknown control "key.KeyQQ"; did you mean "key.KeyQ"?']),
        ('{"t": 1, "c": "key.KeyW", "v": NaN}\n', ["line 2: key.KeyW: found nan; allowed: a finite number"]),
        ('{"t": 1, "c": "pad.left_stick", "v": [0, Infinity]}\n', ["line 2: pad.left_stick: found [0, inf]"]),
        ('{"t": NaN, "c": "key.KeyW", "v": 1}\n', ["line 2: t: found nan"]),
        ('{"t": true, "c": "key.KeyW", "v": 1}\n', ["line 2: t: found True; allowed: a finite number of seconds"]),
        ('{"t": 1, "c": "key.KeyW", "v": 1' + "0" * 400 + "}\n", ["line 2: key.KeyW: found 1000"]),
        ('{"t": 1, "c": "key.KeyW"}\n', ['allowed: an object with "t", "c" and "v"']),
        ('[1, 2]\n\n"text"\n', ["line 2: ", "line 4: "]),
        ('{"t": 1\n{"t": 2, "c": "kei.KeyW", "v": 1}\n', ["line 2: found", "line 3: unknown control"]),
    ],
)
def test_every_fault_of_a_file_is_reported_with_its_line(tmp_path, lines, faults):
    path = tmp_path / "walk.jsonl"
    path.write_text(HEADER + lines)
    with pytest.raises(RecordingError) as caught:
        Recording.read(path)
    assert len(caught.value.faults) == len(faults)
    for words in faults:
        assert words in str(caught.value)
    assert str(path) in str(caught.value)


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"", "is empty"),
        (b"\n \n", "is empty"),
        (bytes(range(1, 256)) * 4, "no header"),
        (b"\0\x01\n" * 40 + b"\0", "a Linux input capture is read by: wendonic convert IN OUT --format linux-input"),
        (HEADER.encode("utf-16"), "line 1: is not UTF-8 text"),
        (b'{"t": 1, "c": "key.KeyW", "v": 1}\n', "no header"),
        (b"[" * 100_000, "no header"),
        (b'{"format": "wendonic-recordin", "version": 1}\n', 'did you mean "wendonic-recording"'),
        (b'{"format": "wendonic-recording", "version": 2}\n', "reads version 1"),
    ],
)
def test_a_file_that_is_not_a_recording_is_reported(tmp_path, content, words):
    path = tmp_path / "walk.jsonl"
    path.write_bytes(content)
    with pytest.raises(RecordingError, match=words):
        Recording.read(path)
    for missing in (tmp_path / "none.jsonl", tmp_path):
        with pytest.raises(RecordingError):
            Recording.read(missing)


def test_a_last_line_cut_off_anywhere_is_left_out_with_a_warning(tmp_path, caplog):
    whole = [json.dumps({"t": 0.5 * n, "c": "mark", "v": f"Bienenkönigin {n}"}, ensure_ascii=False) for n in range(3)]
    content = (HEADER + "\n".join(whole)).encode()
    last = len(whole[-1].encode())
    for kept in range(1, last):
        path = tmp_path / "walk.jsonl"
        path.write_bytes(content[: len(content) - last + kept])
        caplog.clear()
        recording = Recording.read(path)
        assert len(recording) == 2
        assert "line 4: cut off, and ignored" in recording.warnings[0]
        assert recording.warnings[0] in caplog.text
    path.write_bytes(content)
    assert len(Recording.read(path)) == 3


def test_appending_goes_on_after_a_crash(tmp_path):
    path = tmp_path / "walk.jsonl"
    with RecordingWriter(path, title="Smoker", devices=("keys",)) as writer:
        for t in (0.0, 1.0):
            writer.append(Event(t, "key.KeyW", 1.0 - t))
            # Flushed: whoever reads now finds it.
            assert Recording.read(path)[-1].t == t
    whole = path.read_bytes()
    path.write_bytes(whole + b'{"t": 1.5, "c": "key')
    with RecordingWriter(path) as writer:
        with pytest.raises(RecordingError, match="t falls from 1"):
            writer.append(Event(0.5, "key.KeyW", 1))
        with pytest.raises(ControlError, match="finite"):
            writer.append(Event(2.0, "key.KeyW", math.nan))
        writer.append(Event(2.0, "mark", "lit again"))
    again = Recording.read(path)
    assert again.title == "Smoker"
    assert [event.t for event in again] == [0.0, 1.0, 2.0]
    assert path.read_bytes().startswith(whole)
    path.write_bytes(path.read_bytes().rstrip(b"\n"))
    with RecordingWriter(path) as writer:
        writer.append(Event(3.0, "mark", "out"))
    assert len(Recording.read(path)) == 4
    for ending in ("csv", "parquet"):
        with pytest.raises(RecordingError, match=r"name a \.jsonl file"):
            RecordingWriter(tmp_path / f"walk.{ending}")
    with pytest.raises(RecordingError, match="cannot be written"):
        RecordingWriter(tmp_path / "none" / "walk.jsonl")


@given(
    times=st.lists(st.floats(0.0, 5.0), min_size=1, max_size=30).map(sorted),
    hz=st.sampled_from([7.0, 30.0, 60.0, 144.0]),
)
def test_ticks_give_every_event_exactly_once_and_in_time(times, hz):
    recording = Recording([Event(t, "key.KeyW", 1) for t in times])
    ticks = list(recording.ticks(hz))
    assert [event for _, seen in ticks for event in seen] == list(recording)
    for number, (t, seen) in enumerate(ticks, start=1):
        assert t == recording.start_s + number / hz
        assert all(t - 1.0 / hz - 1e-9 <= event.t <= t for event in seen)
    assert ticks[-1][1]


@pytest.mark.parametrize("hz", [0.0, -60.0, math.nan, math.inf, 1e9])
def test_no_tick_rate_that_cannot_be(hz):
    with pytest.raises(WendonicError, match="hz: found"):
        list(Recording([Event(0, "key.KeyW", 1)]).ticks(hz))


def test_held_spans_know_repeats_losses_and_the_end():
    steps = [(0, "key.KeyW", 1), (1, "key.KeyW", 1), (2, "pad.south", 1), (3, "lost.pad", 1), (4, "key.KeyW", 0)]
    steps += [(4.5, "key.KeyW", 0), (5, "key.KeyD", 1), (6, "mark", "end")]
    assert held_spans(Recording([Event(*step) for step in steps])) == {
        "key.KeyW": [(0.0, 4.0)],
        "pad.south": [(2.0, 3.0)],
        "key.KeyD": [(5.0, 6.0)],
    }


def test_events_are_checked_on_the_way_in():
    with pytest.raises(RecordingError) as caught:
        Recording([Event(1, "key.KeyW", 1), Event(0, "key.KeyW", 0), Event(2, "mark", 3)])
    assert [fault.where for fault in caught.value.faults] == ["event 1", "event 2"]
    assert "event 1: t falls from 1.0 to 0.0" in str(caught.value)
    assert "event 2: mark: found 3; allowed: a string" in str(caught.value)


def test_a_recording_says_in_words_what_it_holds_and_what_looks_wrong():
    poll_s = 1 / 250
    path = [Event(poll_s * n, "pad.left_stick", (0.5 + 0.001 * (n % 7), 0.0)) for n in range(500) if n % 7 != 3]
    steps = [
        Event(2.0, "key.KeyW", 1),
        Event(2.5, "key.KeyD", 1),
        Event(5.0, "key.KeyD", 0),
        Event(5.0, "mark", "lit"),
    ]
    words = "\n".join(describe_recording(Recording([*path, *steps])))
    for part in (
        "5.00 s from 0 s, 433 events; longest silence 2.50 s, from 2.50 s",
        "pad.left_stick: 429 events (86 a second), polled at about 250 Hz, x 0.5 to 0.506, y (towards the player) 0",
        "key.KeyD: 2 events (0.4 a second), down once, 2.50 s in all",
        'mark at 5.00 s: "lit"',
        "suspicious: key.KeyW is still down at the end",
        "suspicious: pad.left_stick never rests: its tilt is never below 0.3 for 0.5 s",
    ):
        assert part in words
    assert "KeyD is still" not in words
    lost = Recording([Event(0.0, "key.KeyW", 1), Event(1.0, "lost.focus", 1)])
    rested = Recording(
        [Event(0.0, "pad.left_stick", (0.9, 0.0)), Event(1.0, "pad.left_stick", (0.02, 0.1)), Event(1.5, "mark", "")]
    )
    for fine in (lost, rested, Recording()):
        assert "suspicious" not in "\n".join(describe_recording(fine))


def test_every_kind_of_control_has_its_own_description():
    hand = (0.1, 1.2, -0.3, 0.0, 0.0, 0.0, 1.0)
    steps = [
        ("mouse.move", (30.0, -40.0)),
        ("mouse.move", (-130.0, 0.0)),
        ("mouse.wheel", -2.0),
        ("mouse.wheel", 1.0),
    ]
    steps += [
        ("touch.0", (0.5, 0.5, 1.0)),
        ("touch.0", (0.5, 0.6, 0.0)),
        ("hand.left.pose", hand),
        ("lost.focus", 1.0),
    ]
    words = "\n".join(describe_recording(Recording([Event(0.5 * n, *step) for n, step in enumerate(steps)])))
    for part in (
        "mouse.move: 2 events (0.57 a second), 180 counts of travel; in all 100 left, 40 away from the user",
        "mouse.wheel: 2 events (0.57 a second), notches: 1 towards the user, 2 away",
        "touch.0: 2 events (0.57 a second), down once, 0.50 s in all",
        "x 0.1 m, y (up) 1.2 m, z (towards the player) -0.3 m",
        "lost.focus: 1 event",
    ):
        assert part in words


def test_a_recording_that_is_written_as_it_comes_names_its_devices_once_it_is_closed(tmp_path):
    """The header has room for them; what stands behind it stays where it is, and a crash leaves a good file."""
    path = tmp_path / "live.jsonl"
    events = [Event(0.0, "key.KeyW", 1.0), Event(0.5, "pad.left_stick", (0.5, 0.0)), Event(1.0, "mark", "end")]
    writer = RecordingWriter(path, title="Über den Hof")
    for event in events:
        writer.append(event)
    assert Recording.read(path).devices == ("keys", "pad")
    before = path.read_bytes()
    writer.close()
    writer.close()
    recording = Recording.read(path)
    assert (list(recording), recording.title) == (events, "Über den Hof")
    assert json.loads(path.read_text().splitlines()[0])["devices"] == ["keys", "pad"]
    assert path.read_bytes().split(b"\n", 1)[1] == before.split(b"\n", 1)[1]
    with RecordingWriter(path) as more:
        more.append(Event(2.0, "mouse.move", (1.0, 0.0)))
    assert len(Recording.read(path)) == 4
