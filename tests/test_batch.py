"""The batch gives what the helm gives, whichever way it runs."""

import csv
import json
import math
import os
import shutil
import subprocess
import sys

import numpy as np
import pandas as pd
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

import wendonic.batch.compiled
import wendonic.batch.run
import wendonic.compiler.store
from few_of_many import few_of
from wendonic import Event, Helm, Recording, WendonicError, shape
from wendonic.batch import write_trace
from wendonic.batch.columns import Column
from wendonic.batch.columns import columns_of as trace_columns
from wendonic.batch.compiled import loop_text
from wendonic.batch.records import Records
from wendonic.batch.run import Run
from wendonic.batch.samples import Samples
from wendonic.batch.trace import Shaped
from wendonic.compiler.layout import Layout
from wendonic.demo import ON_COURSE, RECORDINGS, demo_course, demo_profile, demo_recording
from wendonic.devices.controls import CONTROLS
from wendonic.devices.sample_layout import sample_layout
from wendonic.kernels.body.ground import NO_COURSE
from wendonic.profile.load import profile_from_text
from wendonic.profile.sources import mode_sources
from wendonic.profile.tuning import mode_tuning

COLUMNS = (
    "tick t dt mode device raw_x raw_y local_x local_y move_x move_y amount heading_deg rise turn throttle "
    "look_yaw_deg look_pitch_deg view_yaw_deg view_pitch_deg face_deg sector pos_x pos_y pos_z "
    "vel_x vel_y vel_z grounded"
).split()


def columns_of(profile):
    return COLUMNS + [f"{name}_{flag}" for name in profile.press_names for flag in ("held", "began", "ended")]


def steering_columns(profile, mode):
    """Columns that only some steer frames have."""
    steer = profile.mode[mode].steer
    grid = ["step_x", "step_y", "refused_x", "refused_y", "step_began", "step_ended"]
    columns = grid if steer.frame == "grid" else []
    columns += ["refused"] if getattr(steer, "slope", None) else []
    columns += ["goal_x", "goal_y", "arrived"] if steer.frame == "goto" else []
    columns += ["vignette", "returned"] if profile.mode[mode].comfort else []
    return columns + (["teleported"] if getattr(steer, "teleport", None) else [])


def steering_values(intent, columns):
    expected = {"step_x": None, "step_y": None, "refused": intent.footing.refused, "arrived": intent.arrived}
    # A trace is in the plan frame, whatever the game's axes are.
    if intent.step:
        grid = intent.outcome.frame.grid
        expected |= {"step_x": grid.step.to_x, "step_y": grid.step.to_y}
        refused = (grid.step.x + grid.refused_x, grid.step.y + grid.refused_y)
        expected["refused_x"], expected["refused_y"] = refused if grid.refused else (None, None)
        expected |= {"step_began": intent.step.began, "step_ended": intent.step.ended}
    expected["goal_x"], expected["goal_y"] = intent.outcome.frame.goal[1:3] if intent.goal else (None, None)
    expected["teleported"] = intent.teleported
    if intent.comfort:
        expected |= {"vignette": intent.comfort.vignette, "returned": intent.comfort.returned}
    return [expected[name] for name in columns]


def helm_trace(recording, profile, hz, mode=None, course=None):
    """Play the recording to a helm tick by tick, as a game does."""
    helm, rows = Helm(profile, course=course, mode=mode, prepare="first"), []
    extra = steering_columns(profile, helm.mode)
    for t, events in recording.ticks(hz):
        for event in events:
            helm.apply(event)
        intent = helm.tick(1.0 / hz)
        assert intent.t == pytest.approx(t - recording.start_s, abs=1e-9)
        rows.append(
            [
                intent.tick,
                t,
                intent.dt,
                intent.mode,
                intent.device,
                *intent.outcome.raw,
                *intent.local,
                *intent.move,
                intent.amount,
                intent.heading_deg,
                intent.rise,
                intent.turn,
                intent.throttle,
                *intent.look,
                *intent.view,
                intent.face_deg,
                intent.sector,
                *intent.motion[:6],
                intent.motion.grounded,
                *(flag for press in intent.presses.values() for flag in press[:3]),
                *steering_values(intent, extra),
            ]
        )
    return pd.DataFrame(rows, columns=columns_of(profile) + extra)


def words(series):
    return [None if pd.isna(value) else value for value in series]


def assert_same(trace, other):
    """Compare every column, to 1e-9 where it is a number; a heading may meet itself across 360."""
    assert list(trace.columns) == list(other.columns)
    for name in trace.columns:
        if name in ("mode", "device"):
            assert words(trace[name]) == words(other[name]), name
            continue
        ours, theirs = trace[name].to_numpy(float), other[name].to_numpy(float)
        assert (np.isnan(ours) == np.isnan(theirs)).all(), name
        difference = np.nan_to_num(ours - theirs)
        if name in ("heading_deg", "face_deg", "view_yaw_deg"):
            difference = (difference + 180.0) % 360.0 - 180.0
        assert np.abs(difference).max(initial=0.0) <= 1e-9, name


COMPILED = ("crates_push", "harvest_run")
UNEVEN = ("apiary_rounds", "beekeeper_keys", "headset_walk", "scout_flight")


@pytest.mark.parametrize(
    ("name", "rates", "engine"),
    [
        *few_of(
            [(name, (20.0, 4.0), "interpreted") for name in RECORDINGS],
            [(one, (20.0, 4.0), "interpreted") for one in UNEVEN],
        ),
        *(pytest.param(name, (60.0,), "interpreted", marks=pytest.mark.long) for name in RECORDINGS),
        ("beekeeper_pad", (144.0,), "compiled"),
        *(pytest.param(name, (30.0, 144.0), "compiled", marks=pytest.mark.long) for name in COMPILED),
    ],
)
def test_batch_and_helm_agree_on_the_shipped_recordings(name, rates, engine):
    recording, profile = demo_recording(name), demo_profile(RECORDINGS[name])
    course = demo_course(ON_COURSE[name]) if name in ON_COURSE else None
    # One worker compiles a structure, for all its rates.
    for hz in rates:
        trace = shape(recording, profile, hz=hz, engine=engine, course=course)
        assert list(trace.columns) == columns_of(profile) + steering_columns(profile, profile.first_mode)
        assert_same(trace, helm_trace(recording, profile, hz, course=course))


def fitting(control):
    """Values for a control, some of them out of its range."""
    if control.kind in ("key", "loss"):
        return st.sampled_from([0.0, 1.0])
    if control.kind in ("button", "wheel"):
        return st.sampled_from([0.0, 0.3, 0.6, 1.0, -1.0])
    number = st.floats(-1.3, 1.3) if control.high <= 1.0 else st.floats(-200.0, 200.0)
    if control.kind == "touch":
        return st.tuples(number, number, st.sampled_from([0.0, 1.0]))
    return st.tuples(*[number] * control.width)


USED = """
    key.KeyW key.ArrowUp key.KeyS key.KeyA key.KeyD key.KeyR key.KeyF key.Space key.ShiftLeft key.KeyE key.ControlLeft
    key.KeyC pad.left_stick pad1.left_stick pad.right_stick pad.gyro pad.accel pad.right_trigger pad.left_trigger
    pad1.right_trigger pad1.left_trigger pad.south pad.dpad_up pad.dpad_down pad.dpad_left mouse.move mouse.wheel
    mouse.left pointer.at touch.0 touch.1 hand.left.pose hand.right.pose hand.left.squeeze hand.left.stick view
    lost.focus lost.pad lost.pad1 lost.touch lost.hand.left
""".split()

PARTS = [demo_recording("beekeeper_keys").between(28.0, 31.0), demo_recording("beekeeper_pad").between(12.0, 14.5)]
MIXED = PARTS[0].shifted() + PARTS[1].shifted()

any_event = st.sampled_from(USED).flatmap(lambda name: st.tuples(st.just(name), fitting(CONTROLS[name])))


@pytest.mark.parametrize(
    ("mode", "merge"), few_of([("all", "strongest"), ("rest", "sum"), ("fine", "latest")], [("rest", "sum")])
)
@settings(max_examples=6)
@given(
    steps=st.lists(st.tuples(st.floats(0.0, 3.0), any_event), min_size=1, max_size=40),
    hz=st.sampled_from([9.0, 50.0]),
)
def test_batch_and_helm_agree_on_any_recording(everything, mode, merge, steps, hz):
    steps = sorted(steps, key=lambda step: step[0])
    recording = Recording([Event(t, *control) for t, control in steps])
    profile = everything(merge)
    expected = helm_trace(recording, profile, hz, mode)
    numbers = expected.drop(columns=["mode", "device", "heading_deg", "sector"]).to_numpy(float)
    assert np.isfinite(numbers).all()
    assert_same(shape(recording, profile, hz=hz, mode=mode, engine="interpreted"), expected)


FORMS = {
    "gate": ['gate = "circle"', 'gate = "square"', 'gate = "measured"\nrim = [1, 0.9, 0.8, 0.9, 1.1]'],
    "zone": ["none", "round", "axes", "wedge", "round+wedge", "cut"],
    "curve": [
        'form = "linear"',
        'form = "power", exponent = 2',
        'form = "expo", amount = 0.4',
        'form = "s", amount = 0.7',
        'form = "knee", at = [0.5, 0.2]',
        'form = "points", points = [[0, 0], [0.3, 0.1], [1, 1]]',
    ],
    "ends": ["", ", floor = 0.1, ceiling = 0.9"],
    "axis": ["", ", per_axis = true"],
    "diagonal": ["cap", "unit", "free", "factor"],
    "rules": [
        "",
        "half_life_s = 0.1",
        "one_euro = {}",
        "notches = 8",
        "notches = 16\nnotch_pull = 1",
        "paces = [{ above = 0, amount = 0.4 }, { above = 0.6, amount = 1 }]\nnotches = 8\none_euro = {}",
    ],
    "reversal": ["through_zero", "at_once"],
    "sectors": [2, 4, 8, 16],
}


def assert_batch_and_helm_agree(data, hz):
    """Keys and the worn pad at once, from the shipped recordings, under some combination of forms."""
    chosen = {name: data.draw(st.sampled_from(options), label=name) for name, options in FORMS.items()}
    zone = f'{{ form = "{chosen["zone"]}" }}'
    text = f"""
        format = "wendonic-profile"
        version = 1
        [mode.foot.steer]
        sectors = {chosen["sectors"]}
        [mode.foot.move]
        merge = "{data.draw(st.sampled_from(["strongest", "sum", "latest"]))}"
        diagonal = "{chosen["diagonal"]}"
        {chosen["rules"]}
        [[mode.foot.move.bind]]
        keys = {{ forward = ["KeyW"], back = ["KeyS"], left = ["KeyA", "ArrowLeft"], right = ["KeyD", "ArrowRight"] }}
        reversal = "{chosen["reversal"]}"
        [[mode.foot.move.bind]]
        stick = "pad.left_stick"
        {chosen["gate"]}
        dead_zone = {zone}
        curve = {{ {chosen["curve"]}{chosen["ends"]}{chosen["axis"]} }}
    """
    profile = profile_from_text(text)
    expected = helm_trace(MIXED, profile, hz)
    assert np.isfinite(expected[["local_x", "local_y", "amount", "pos_x", "pos_y"]].to_numpy(float)).all()
    assert_same(shape(MIXED, profile, hz=hz, engine="interpreted"), expected)


@settings(max_examples=3)
@given(data=st.data(), hz=st.sampled_from([25.0, 60.0]))
def test_batch_and_helm_agree_under_any_combination_of_forms(data, hz):
    assert_batch_and_helm_agree(data, hz)


@pytest.mark.long
@settings(max_examples=50)
@given(data=st.data(), hz=st.sampled_from([25.0, 60.0]))
def test_batch_and_helm_agree_under_many_combinations_of_forms(data, hz):
    assert_batch_and_helm_agree(data, hz)


def test_an_empty_recording_gives_an_empty_trace(beekeeper):
    for engine in ("interpreted", "compiled"):
        trace = shape(Recording(), beekeeper, engine=engine)
        assert (len(trace), list(trace.columns)) == (0, columns_of(beekeeper))


def test_a_stick_in_its_dead_zone_is_seen_raw_but_does_not_steer(beekeeper):
    events = [Event(0.0, "pad.left_stick", (0.05, -0.04)), Event(1.0, "key.KeyW", 1), Event(2.0, "mark", "end")]
    trace = shape(Recording(events), beekeeper)
    resting, walking = trace.iloc[30], trace.iloc[90]
    assert (resting["raw_x"], resting["raw_y"], resting["amount"]) == (0.05, 0.04, 0.0)
    assert (walking["raw_x"], walking["raw_y"], walking["device"]) == (0.0, 1.0, "keys")


def test_a_clock_that_jumped_does_not_fill_the_memory(beekeeper):
    recording = Recording([Event(0.0, "key.KeyW", 1), Event(1.7e9, "key.KeyW", 0)])
    with pytest.raises(WendonicError, match=r"1\.7e\+09 s at 60 ticks a second; allowed: up to 10,000,000 ticks"):
        shape(recording, beekeeper)


def test_a_mode_can_be_chosen_and_must_exist(beekeeper):
    recording = Recording([Event(0.0, "key.KeyW", 1)])
    assert shape(recording, beekeeper, mode="foot")["mode"].tolist() == ["foot"]
    with pytest.raises(WendonicError, match='no mode "fot"; did you mean "foot"'):
        shape(recording, beekeeper, mode="fot")


@pytest.mark.parametrize("ending", [".csv", ".jsonl", ".parquet"])
def test_a_trace_comes_back_from_its_file(beekeeper, tmp_path, ending):
    trace = shape(demo_recording("beekeeper_keys"), beekeeper, hz=20)
    path = tmp_path / f"trace{ending}"
    write_trace(trace, path)
    if ending == ".parquet":
        read = pd.read_parquet(path).to_dict("records")
    elif ending == ".jsonl":
        read = [json.loads(line) for line in path.read_text().splitlines()]
    else:
        with path.open(newline="") as file:
            read = list(csv.DictReader(file))
    rows = trace.to_dict("records")
    assert len(read) == len(rows) == 720
    for row, again in zip(rows, read, strict=True):
        assert list(again) == columns_of(beekeeper)
        for name, value in row.items():
            if pd.isna(value):
                assert again[name] in ("", None) or pd.isna(again[name])
            else:
                # As text only in CSV; the type of what was written turns it back.
                assert str(again[name]) == str(value) if ending == ".csv" else again[name] == value
    assert [entry.name for entry in tmp_path.iterdir()] == [path.name]


def test_a_trace_that_cannot_be_written_leaves_what_was_there(beekeeper, tmp_path, monkeypatch):
    path = tmp_path / "trace.csv"
    path.write_text("precious")
    trace = shape(Recording([Event(0.0, "key.KeyW", 1)]), beekeeper)

    def broken(_, target, **__):
        target.write_text("half a")
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(pd.DataFrame, "to_csv", broken)
    with pytest.raises(WendonicError, match="No space left on device"):
        write_trace(trace, path)
    assert path.read_text() == "precious"
    assert [entry.name for entry in tmp_path.iterdir()] == ["trace.csv"]
    with pytest.raises(WendonicError, match=r'found ending "\.xls"; allowed: \.csv, \.parquet, \.jsonl'):
        write_trace(trace, tmp_path / "trace.xls")


@pytest.mark.long
def test_a_change_in_a_kernel_changes_the_result(tmp_path):
    """In a copy of the package, the wrapping of angles is changed on disk between two runs that share one cache."""
    package = tmp_path / "copy"
    shutil.copytree(next(iter(wendonic.__path__)), package / "wendonic")
    script = (
        "from wendonic import Event, Recording, profile_from_text, shape\n"
        'look = \'format="wendonic-profile"\\nversion=1\\n[[mode.m.look.bind]]\\nmouse="mouse.move"\\n\'\n'
        "events = [Event(0.0, 'view', (0.0, 0.0)), Event(0.1, 'mouse.move', (9000.0, 0.0)), Event(0.2, 'mark', '')]\n"
        "profile = profile_from_text(look + 'deg_per_count=0.09\\n')\n"
        "print(shape(Recording(events), profile, engine='compiled')['view_yaw_deg'].iloc[-1])"
    )
    environment = {"PYTHONPATH": str(package), "XDG_CACHE_HOME": str(tmp_path / "cache"), "PATH": ""}

    def yaw_deg():
        command = [sys.executable, "-P", "-c", script]
        return float(subprocess.run(command, env=environment, capture_output=True, text=True, check=True).stdout)

    assert yaw_deg() == pytest.approx(90.0)
    kernel = package / "wendonic" / "kernels" / "angles.py"
    kernel.write_text(kernel.read_text().replace("angle - math.tau * math.ceil", "9.0 + 0.0 * math.ceil"))
    kernel.write_text(kernel.read_text().replace("min(max(turned, -math.pi), math.pi)", "turned"))
    assert yaw_deg() == pytest.approx(math.degrees(9.0))


def test_writing_to_a_trace_changes_no_later_one_and_no_other_column(beekeeper):
    recording = demo_recording("beekeeper_keys")
    first, again = (shape(recording, beekeeper) for _ in range(2))
    first["t"] += 1.0
    pd.testing.assert_frame_equal(shape(recording, beekeeper), again)
    # Two numbers that a structure always leaves the same share a place in its records.
    layout = Layout(0, 1, {("outcome", "raw", "x"): 0, ("outcome", "local", "x"): 0}, {})
    columns = {f"{name}_x": Column(((name, "x"),)) for name in ("raw", "local")}
    samples = Samples(np.zeros(2), np.zeros((2, 0)), np.zeros(2, dtype=np.intp), ())
    for records in (Records([(0.0,), (0.0,)]), Records([], np.zeros((2, 1)))):
        trace = Shaped(samples, 0.1, "foot", records, layout, columns).frame()
        trace.loc[:, "raw_x"] = 1.0
        assert trace["local_x"].tolist() == [0.0, 0.0]


def test_a_compiled_loop_leaves_out_unneeded_numbers_and_the_state_behind_them(beekeeper):
    """How long a press has been held stands in no column, and nothing but itself follows from it."""
    sources = mode_sources(beekeeper, "foot")
    sample, tuning = sample_layout(sources).sample, mode_tuning(beekeeper, "foot")
    columns = trace_columns(tuning.tick, beekeeper.press_names)
    whole = Run(tuning, sample, NO_COURSE, "foot")
    asked = Run(tuning, sample, NO_COURSE, "foot", [path for column in columns.values() for path in column.paths])
    held_s = f"records[{whole.layout.index('outcome', 'presses', '0', 'held_s')}, k]"
    assert held_s in loop_text(whole.ready.text, whole.reported)
    assert held_s not in loop_text(asked.ready.text, asked.reported)


@pytest.mark.long
def test_a_compiled_loop_comes_from_disk_in_the_next_process_and_is_made_anew_where_that_is_damaged(tmp_path):
    script = (
        "import logging\nfrom wendonic import Recording, Event, profile_from_text, shape\n"
        "from wendonic.batch.compiled import _LOOPS\nlogging.basicConfig(level='INFO', format='%(message)s')\n"
        'menu = \'format="wendonic-profile"\\nversion=1\\n[mode.menu.press]\\ngo={bind=["KeyG"]}\\n\'\n'
        "keys = Recording([Event(0.105, 'key.KeyG', 1), Event(0.495, 'key.KeyG', 0), Event(1.0, 'mark', 'end')])\n"
        "print(shape(keys, profile_from_text(menu), engine='compiled')['go_held'].sum())\n"
        "(loop,) = _LOOPS.values()\nprint(sum(loop.stats.cache_hits.values()), sum(loop.stats.cache_misses.values()))"
    )

    def run():
        command = [sys.executable, "-c", script]
        environment = {**os.environ, "XDG_CACHE_HOME": str(tmp_path)}
        done = subprocess.run(command, env=environment, capture_output=True, text=True, check=True)
        return *done.stdout.splitlines(), done.stderr

    ticks, counts, said = run()
    assert (ticks, counts) == ("23", "0 1")
    assert said == "compiling the tick of mode menu, once …\n"
    assert run() == (ticks, "1 0", "")
    (machine_code,) = tmp_path.rglob("*.nbc")
    machine_code.write_bytes(machine_code.read_bytes()[:100])
    again, counts, said = run()
    assert (again, counts) == (ticks, "0 1")
    assert "is damaged (" in said


def test_auto_compiles_once_interpreting_has_cost_as_much_and_does_without_numba(beekeeper, monkeypatch):
    recording = demo_recording("beekeeper_keys")
    compiled = []
    loop = wendonic.batch.run.compiled_loop
    monkeypatch.setattr(wendonic.batch.run, "_SPENT_S", {})
    monkeypatch.setattr(wendonic.batch.run, "is_loaded", lambda *_: False)
    monkeypatch.setattr(wendonic.batch.run, "compiled_loop", lambda *given: compiled.append(given[2]) or loop(*given))
    monkeypatch.setattr(wendonic.batch.run, "seconds_to_ready", lambda *_: 3600.0)
    few = shape(recording, beekeeper)
    assert compiled == []
    # What it has cost so far counts too.
    (spent_s,) = wendonic.batch.run._SPENT_S.values()
    monkeypatch.setattr(wendonic.batch.run, "seconds_to_ready", lambda *_: 1.01 * spent_s)
    assert_same(shape(recording, beekeeper), few)
    assert compiled == ["foot"]
    monkeypatch.setattr(wendonic.batch.run, "has_numba", lambda: False)
    assert shape(recording, beekeeper).equals(few)
    assert compiled == ["foot"]
    monkeypatch.setattr(wendonic.batch.compiled, "has_numba", lambda: False)
    with pytest.raises(WendonicError, match=r"the compiled engine needs Numba: pip install 'wendonic\[fast\]'"):
        shape(recording, beekeeper, engine="compiled")


def test_where_numba_is_not_installed_the_batch_is_interpreted(monkeypatch, beekeeper):
    """There is no version of it to ask for either."""
    monkeypatch.setattr(wendonic.batch.run, "has_numba", lambda: False)
    monkeypatch.setattr(wendonic.batch.run, "is_loaded", lambda *_: False)
    monkeypatch.setattr(wendonic.batch.compiled, "_versions", lambda: 1 / 0)
    recording = demo_recording("beekeeper_keys")
    assert shape(recording, beekeeper).equals(shape(recording, beekeeper, engine="interpreted"))


def test_without_a_cache_of_the_users_own_the_code_lies_where_nobody_else_put_it(monkeypatch, tmp_path):
    (tmp_path / "file").touch()
    monkeypatch.setattr("platformdirs.user_cache_path", lambda *_, **__: tmp_path / "file" / "cache")
    monkeypatch.setattr(wendonic.batch.compiled, "cache_folder", wendonic.compiler.store.cache_folder.__wrapped__)
    folder = wendonic.batch.compiled.loop_folder.__wrapped__
    first, second = folder(), folder()
    assert first != second
    for own in (first, second):
        assert own.stat().st_mode & 0o077 == 0
        assert not list(own.iterdir())


@pytest.mark.parametrize("name", few_of(["beekeeper_pad", "lookout_devices", "tablet_walk"], ["beekeeper_pad"]))
def test_a_recording_kept_as_columns_gives_the_same_trace(name, tmp_path):
    """From Parquet, where no event is made of what speaks all the time, losses among it."""
    recording, profile = demo_recording(name), demo_profile(RECORDINGS[name])
    losses = [Event(recording.start_s + share, "lost.pad", 1.0) for share in (2.0, 5.5)]
    events = sorted([*recording, *losses], key=lambda event: event.t)
    Recording(events).write(tmp_path / "walk.parquet")
    assert shape(Recording.read(tmp_path / "walk.parquet"), profile).equals(shape(Recording(events), profile))
