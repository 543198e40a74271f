"""Folders of recordings under several profiles: one by one, cut off, on a cluster, a worker killed."""

import json
import math
import os
import shutil
import signal
import subprocess
import sys
import time
from pathlib import Path

import numpy as np
import pandas as pd
import pytest

from wendonic import Recording, WendonicError, shape
from wendonic.cli.main import app
from wendonic.demo import FOLDER, demo_course, demo_profile
from wendonic.devices.event import Event
from wendonic.length_unit import LengthUnit
from wendonic.pictures import draw_corpus, save_picture
from wendonic.recording.parquet import read_parquet, recordings_in
from wendonic.study.solve import corpus as corpus_module
from wendonic.study.solve import pools
from wendonic.study.solve.corpus import changed_most, corpus, ranked_by, sources_in, sweep_on, without_effect
from wendonic.study.solve.differences import DIFFERENCES, WALKED, difference, walked
from wendonic.study.solve.pools import Pool

OLD = demo_profile()
NEW = OLD.changed({"gait.walk.accel_m_s2": 12.0, "mode.foot.move.bind[1].dead_zone.inner": 0.2})
BOTH = {"old": OLD, "new": NEW}
PLACES = ["pos_x", "pos_y", "pos_z"]
NAMES = ("beekeeper_keys.jsonl", "beekeeper_mouse.jsonl", "beekeeper_pad.jsonl")


@pytest.fixture
def folder(tmp_path):
    """Three recordings, one of them a folder deeper, and one that is none."""
    top = tmp_path / "play"
    (top / "week 1").mkdir(parents=True)
    for name in NAMES:
        shutil.copy(FOLDER / name, top / ("week 1" if "pad" in name else ".") / name)
    (top / "broken.jsonl").write_text("{bad")
    (top / "notes.txt").write_text("not a recording")
    return top


def same(one, other):
    one, other = (
        frame.reset_index(drop=True).assign(error=frame["error"].fillna("").to_list()) for frame in (one, other)
    )
    pd.testing.assert_frame_equal(one, other, rtol=1e-9, atol=1e-9, check_dtype=False)


def test_each_row_is_what_shaping_one_by_one_gives(folder):
    reported = []
    frame = corpus(folder, BOTH, progress=lambda *done: reported.append(done))
    assert frame["recording"].tolist() == [
        "beekeeper_keys.jsonl",
        "beekeeper_mouse.jsonl",
        "broken.jsonl",
        "week 1/beekeeper_pad.jsonl",
    ]
    assert (reported[0], reported[-1]) == ((0, 4), (4, 4))
    by_name = frame.set_index("recording")
    assert "is it a recording at all" in by_name.loc["broken.jsonl", "error"]
    assert by_name.loc["broken.jsonl"].drop("error").isna().all()
    for name in NAMES:
        row = by_name.loc[name if "pad" not in name else f"week 1/{name}"]
        traces = [shape(Recording.read(FOLDER / name), profile, hz=60) for profile in (OLD, NEW)]
        assert row["ticks"] == len(traces[0])
        for label, profile, trace in zip(BOTH, (OLD, NEW), traces, strict=True):
            steps = np.linalg.norm(np.diff(trace[PLACES].to_numpy(), axis=0, prepend=0.0), axis=1)
            assert row[f"{label}.distance_m"] == pytest.approx(steps.sum())
            assert row[f"{label}.end_x_m"] == pytest.approx(trace["pos_x"].iloc[-1])
            began = sum(int(trace[f"{press}_began"].sum()) for press in profile.press_names)
            assert row[f"{label}.presses"] == began
        old, new = traces
        apart = np.linalg.norm(new[PLACES].to_numpy() - old[PLACES].to_numpy(), axis=1)
        pair = "new against old"
        assert row[f"{pair}.most_apart_m"] == pytest.approx(apart.max())
        assert row[f"{pair}.parts_s"] == pytest.approx(old["t"][np.argmax(apart > 0.05)])
        speed = [np.linalg.norm(trace[["vel_x", "vel_y", "vel_z"]], axis=1) for trace in traces]
        assert row[f"{pair}.speed_rms_m_s"] == pytest.approx(np.sqrt(np.mean((speed[1] - speed[0]) ** 2)))
        angles = [np.degrees(np.arctan2(trace["vel_x"], trace["vel_y"])).to_numpy() for trace in traces]
        moving = np.all([np.hypot(trace["vel_x"], trace["vel_y"]) > 0.05 for trace in traces], axis=0)
        turned = ((angles[1] - angles[0] + 180.0) % 360.0 - 180.0)[moving]
        assert row[f"{pair}.heading_rms_deg"] == pytest.approx(np.sqrt(np.mean(turned**2)))


def test_the_same_profile_changes_nothing_and_a_press_of_its_own_parts_at_once():
    keys = Recording([Event(0.5, "key.KeyW", 1.0), Event(1.0, "key.Space", 1.0), Event(2.0, "mark", "end")])
    trace = shape(keys, OLD)
    assert difference(trace, trace, OLD.press_names) == (0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0, None)
    silent = shape(keys, OLD.changed({"mode.foot.press.jump.bind": ["key.KeyJ"]}))
    apart = difference(trace, silent, OLD.press_names)
    assert apart.presses == 1
    assert apart.parts_s == pytest.approx(1.0, abs=0.02)
    assert walked(trace.iloc[:0], OLD.press_names) == (0.0, 0.0, 0.0, 0.0, 0.0, 0)


def test_a_run_that_was_cut_off_goes_on_where_it_was(folder, tmp_path, monkeypatch):
    """Cut off after two chunks, no recording is shaped twice; one that has changed since is."""
    monkeypatch.setattr(corpus_module, "CHUNK", 1)
    out = tmp_path / "change.csv"
    shaped = []
    row_of = corpus_module.row_of

    def cut_off(job, source):
        if len(shaped) == 2:
            raise KeyboardInterrupt
        shaped.append(source.name)
        return row_of(job, source)

    monkeypatch.setattr(corpus_module, "row_of", cut_off)
    with pytest.raises(KeyboardInterrupt):
        corpus(folder, BOTH, out=out)
    assert not out.exists()
    kept = out.with_name("change.csv.rows")
    assert len(kept.read_text().splitlines()) == 3
    # Lines that a crash has left damaged, or cut in two, do not count.
    damaged = b'\x00\x00\xff\n7\n["a", 1]\n[["a"], 1, 1, {}]\n["a", 1, 1, 2]\n["beekeeper_pad.js'
    kept.write_bytes(kept.read_bytes() + damaged)
    os.utime(folder / shaped[0], (1.0, 1.0))
    again = []
    monkeypatch.setattr(
        corpus_module, "row_of", lambda job, source: (again.append(source.name), row_of(job, source))[1]
    )
    frame = corpus(folder, BOTH, out=out)
    assert sorted(again) == sorted({source.name for source in sources_in(folder)} - {shaped[1]})
    same(frame, corpus(folder, BOTH))
    assert not kept.exists()
    same(pd.read_csv(out), frame)
    # Other profiles begin anew, and so does what cannot be read at all.
    kept.write_bytes(b"\x80 rubbish\n")
    again.clear()
    corpus(folder, {"old": OLD}, ["distance_m"], out=out)
    assert len(again) == 4


def parquet_of_many(path):
    pyarrow = pytest.importorskip("pyarrow")
    parquet = pytest.importorskip("pyarrow.parquet")
    tables = []
    for name in NAMES:
        single = path.with_suffix(".one.parquet")
        Recording.read(FOLDER / name).write(single)
        table = parquet.read_table(single).replace_schema_metadata(None)
        tables.append(table.append_column("recording", pyarrow.array([name] * table.num_rows)))
    parquet.write_table(pyarrow.concat_tables(tables).unify_dictionaries(), path)
    path.with_suffix(".one.parquet").unlink()


def test_one_parquet_file_of_many_recordings_is_a_corpus_too(folder, tmp_path):
    path = tmp_path / "many.parquet"
    parquet_of_many(path)
    assert recordings_in(path) == NAMES
    assert len(read_parquet(path, NAMES[2]).events) == len(Recording.read(FOLDER / NAMES[2]))
    many = corpus(path, BOTH).set_index("recording")
    one_by_one = corpus(folder, BOTH).set_index("recording")
    same(many.loc[list(NAMES[:2])], one_by_one.loc[list(NAMES[:2])])


def test_what_cannot_be_is_refused(folder, tmp_path, monkeypatch):
    monkeypatch.setattr(pools, "CONNECT_S", 0.3)
    (tmp_path / "empty").mkdir()
    for words, what in (
        ("does not exist", lambda: corpus(tmp_path / "nowhere", BOTH)),
        ("has no recordings", lambda: corpus(tmp_path / "empty", BOTH)),
        ("is one recording", lambda: corpus(folder / NAMES[0], BOTH)),
        ("needs a profile", lambda: corpus(folder, {})),
        ('did you mean "parts_s"', lambda: corpus(folder, BOTH, ["part_s"])),
        ("no mode", lambda: corpus(folder, BOTH, mode="boat")),
        ("1 or more", lambda: corpus(folder, BOTH, workers=0)),
        ("no scheduler answers", lambda: corpus(folder, BOTH, cluster="tcp://127.0.0.1:9")),
        ("such as tcp://host:8786", lambda: corpus(folder, BOTH, cluster="127.0.0.1")),
        ("such as tcp://host:8786", lambda: corpus(folder, BOTH, cluster="http://127.0.0.1:9")),
    ):
        with pytest.raises(WendonicError, match=words):
            what()


def test_without_dask_the_work_is_done_here_and_that_is_logged(folder, monkeypatch, caplog):
    monkeypatch.setitem(sys.modules, "distributed", None)
    frame = corpus(folder, BOTH, ["distance_m"], workers=2)
    assert "pip install 'wendonic[cluster]'" in caplog.text
    same(frame, corpus(folder, BOTH, ["distance_m"]))
    with pytest.raises(WendonicError, match="a cluster needs Dask"):
        corpus(folder, BOTH, cluster="tcp://127.0.0.1:9")


@pytest.mark.long
def test_a_pool_of_processes_gives_the_same(folder):
    pytest.importorskip("distributed")
    same(corpus(folder, BOTH, workers=2), corpus(folder, BOTH))


def _started(words, env):
    return subprocess.Popen(
        [sys.executable, "-m", *words], stdout=subprocess.DEVNULL, stderr=subprocess.PIPE, env=env
    )


def _slow(_job, chunk):
    time.sleep(0.15)
    return [(number, os.getpid()) for number in chunk]


@pytest.mark.long
def test_a_worker_that_dies_in_the_middle_loses_nothing_and_doubles_nothing(folder, tmp_path, monkeypatch, caplog):
    """A scheduler and two workers, processes of their own; one of them is killed while both work, and then both."""
    pytest.importorskip("distributed")
    address_file = tmp_path / "scheduler.json"
    here = str(Path(__file__).parent)
    env = {**os.environ, "PYTHONPATH": os.pathsep.join([here, os.environ.get("PYTHONPATH", "")])}
    loopback = ("--host", "127.0.0.1", "--no-dashboard")
    processes = [
        _started(["distributed.cli.dask_scheduler", *loopback, "--port", "0", "--scheduler-file", address_file], env)
    ]
    try:
        for _ in range(400):
            if address_file.exists() and address_file.read_text().strip():
                break
            time.sleep(0.05)
        address = json.loads(address_file.read_text())["address"]
        worker = ["distributed.cli.dask_worker", address, "--nthreads", "1", "--no-nanny", "--host", "127.0.0.1"]
        processes += [_started([*worker, "--no-dashboard", "--local-directory", tmp_path], env) for _ in range(2)]
        with Pool(cluster=address) as pool:
            found, killed = [], None
            for part in pool.each(_slow, None, [[number, number + 100] for number in range(16)]):
                found += part
                if killed is None and len({pid for _, pid in found}) == 2:
                    killed = processes[1].pid
                    os.kill(killed, signal.SIGKILL)
        assert sorted(number for number, _ in found) == sorted([*range(16), *range(100, 116)])
        assert killed is not None
        # What is left of the cluster does real work, from wherever it was started.
        monkeypatch.chdir(folder.parent)
        same(corpus(folder.name, BOTH, cluster=address), corpus(folder, BOTH))
        # Work that nobody is there for waits, and it is said why.
        monkeypatch.setattr(pools, "LOOK_S", 0.1)
        with Pool(cluster=address) as pool:
            results = pool.each(_slow, None, [[number] for number in range(8)])
            found = next(results)
            processes[2].kill()
            while "no workers left" not in caplog.text:
                time.sleep(0.05)
            processes.append(_started([*worker, "--no-dashboard", "--local-directory", tmp_path], env))
            found += [row for part in results for row in part]
        assert sorted(number for number, _ in found) == list(range(8))
        assert "has workers: the work goes on" in caplog.text
        # Another version would give other numbers, or none.
        monkeypatch.setattr(pools, "version_here", lambda: "0.0.1")
        with pytest.raises(
            WendonicError, match=r"worker tcp://127.0.0.1:\d+ has Wendonic .*; allowed: Wendonic 0.0.1"
        ):
            corpus(folder, BOTH, cluster=address)
    finally:
        for process in processes:
            process.kill()
            process.wait()
            process.stderr.close()


def test_the_picture_names_those_that_changed_most(folder, tmp_path):
    frame = corpus(folder, BOTH)
    spread, most = draw_corpus(frame)
    assert spread.get_title(loc="left") == "3 of 3 recordings change"
    assert any("1 could not be compared" in text.get_text() for text in spread.texts)
    ranked = changed_most(frame)
    assert [label.get_text() for label in most.get_yticklabels()][::-1] == [change.recording for change in ranked]
    assert ranked[0].amount == frame["new against old.most_apart_m"].max()
    save_picture([spread, most], tmp_path / "change.png")
    # In a game's own unit axes and words count in it, and what is no length stays: each number is scaled once.
    for by, per_m in (("most_apart_m", 48.0), ("heading_rms_deg", 1.0)):
        spread, most = draw_corpus(frame, by, length=LengthUnit("px", 48.0))
        (bar, label), amount = (most.patches[-1], most.texts[-1]), changed_most(frame, by)[0].amount
        spread.figure.canvas.draw()
        ticks = [float(tick.get_text()) / tick.get_position()[0] for tick in most.get_xticklabels()[1:]]
        assert ticks == pytest.approx([per_m] * len(ticks))
        assert bar.get_width() == amount
        assert float(label.get_text().split()[0].rstrip(",")) == pytest.approx(amount * per_m, rel=1e-2)
    # Only the rate of a stick that nothing else depends on differs: views and no bodies.
    Recording([Event(0.0, "pad.right_stick", (1.0, 0.0)), Event(2.0, "mark", "end")]).write(folder / "look.jsonl")
    looks = corpus(folder, {"old": OLD, "new": OLD.changed({"mode.foot.look.bind[1].yaw_deg_s": 200})})
    spread, most = draw_corpus(looks)
    assert spread.get_title(loc="left") == "1 of 4 recordings change"
    (change,) = changed_most(looks, ranked_by([], looks))
    assert (change.recording, change.amount) == ("look.jsonl", pytest.approx(60.0))
    assert [label.get_text() for label in most.get_yticklabels()] == ["look.jsonl"]
    spread, most = draw_corpus(corpus(folder, {"old": OLD, "new": OLD}))
    assert (spread.get_title(loc="left"), len(most.patches)) == ("0 of 4 recordings change", 0)
    with pytest.raises(WendonicError, match="has no most_apart_m"):
        draw_corpus(corpus(folder, {"old": OLD}))
    # Each of several profiles has its own count, also one whose name goes on with that of another, and a long one.
    by_name = {"old": OLD, "v2": NEW, "v2.1": OLD, "after_the_third_playtest_of_the_week": NEW}
    spread, _ = draw_corpus(corpus(folder, by_name))
    lines = [text.get_text().replace("\u00a0", " ") for text in spread.get_legend().get_texts()]
    assert lines == ["v2: 3 of 4", "v2.1: 0 of 4", "after_the_third_\nplaytest_of_the_\nweek: 3 of 4"]


def test_a_sweep_over_recordings_is_a_corpus_for_each_combination(folder):
    values = [8.0, 22.0]
    frame = sweep_on(demo_profile(), {"gait.walk.accel_m_s2": values}, ["most_apart_m", "end_x_m"], folder)
    assert frame["gait.walk.accel_m_s2"].tolist() == values
    slow = corpus(folder, {"old": OLD, "slow": OLD.changed({"gait.walk.accel_m_s2": 8.0})})
    assert frame["most_apart_m"][0] == pytest.approx(slow["slow against old.most_apart_m"].mean())
    assert frame["end_x_m"][0] == pytest.approx(slow["slow.end_x_m"].mean())
    assert frame["most_apart_m"][1] == 0.0


def test_a_corpus_walks_on_a_course(tmp_path, caplog):
    """As shaped one by one; the terraces lie in the way of the walk, and no profile that follows no ground minds."""
    shutil.copy(FOLDER / "terraces_walk.jsonl", tmp_path)
    profile, course = demo_profile("terraces"), demo_course("terraces")
    (row,) = corpus(tmp_path, {"now": profile}, course=course).to_dict("records")
    trace = shape(Recording.read(FOLDER / "terraces_walk.jsonl"), profile, 60.0, course=course)
    assert [row[f"now.end_{axis}_m"] for axis in "xyz"] == pytest.approx(trace[PLACES].iloc[-1].to_list())
    assert trace["pos_z"].max() > 0.3
    (level,) = corpus(tmp_path, {"now": profile}).to_dict("records")
    assert level["now.distance_m"] != pytest.approx(row["now.distance_m"], abs=1e-3)
    over = {"gait.walk.top_speed_m_s": [3.0]}
    (mean,) = sweep_on(profile, over, ["distance_m"], tmp_path, course=course)["distance_m"]
    slower = profile.changed({"gait.walk.top_speed_m_s": 3.0})
    (slow,) = corpus(tmp_path, {"slow": slower}, course=course).to_dict("records")
    assert mean == pytest.approx(slow["slow.distance_m"] - row["now.distance_m"])
    words = ["corpus", tmp_path, "--profile", FOLDER / "beekeeper.toml", "--course", FOLDER / "terraces_course.toml"]
    app([str(word) for word in words], standalone_mode=False)
    assert any("beekeeper" in message and "follow" in message for message in caplog.messages), caplog.messages


def test_the_command(folder, tmp_path, capsys):
    def run(*words):
        with pytest.raises(SystemExit) as end:
            app([str(word) for word in words], prog_name="wendonic")
        assert end.value.code == 0
        return capsys.readouterr().out

    old, new = FOLDER / "beekeeper.toml", tmp_path / "new.toml"
    new.write_text(old.read_text().replace("accel_m_s2 = 22 ", "accel_m_s2 = 9 "))
    both = ("--profile", old, "--profile", new)
    out, picture = tmp_path / "change.jsonl", tmp_path / "change.svg"
    shown = run("corpus", folder, *both, "-o", out, "--picture", picture)
    assert "4 recordings, 1.5 min of play; 1 could not be used" in shown
    assert "broken.jsonl: " in shown
    assert "new against beekeeper: 3 of 3 recordings change\nchanged most, by most_apart_m:" in shown
    assert ", from " in shown
    assert picture.stat().st_size > 1000
    assert len(out.read_text().splitlines()) == 4
    # The table of the last run is no recording, though an error in it has the words of one's header.
    for _ in range(2):
        run("corpus", folder, *both, "-o", tmp_path / "change.parquet")
    (error,) = pd.read_parquet(tmp_path / "change.parquet")["error"].replace("", None).dropna()
    assert "wendonic-recording" in error
    # The number by the name that it has in a game's own unit.
    by_unit, by_metre = (run("corpus", folder, *both, "--quantity", f"most_apart_{end}") for end in "um")
    assert by_unit == by_metre
    content = json.loads(run("corpus", folder, *both, "--json", "--quantity", "distance_m"))
    assert (content["command"], content["ranked_by"], content["recordings"]) == ("corpus", "distance_m", 4)
    assert list(content["errors"]) == ["broken.jsonl"]
    one = content["values"]["new against beekeeper.distance_m"]
    assert one["unit"] == "m"
    assert one["value"] < 0.0
    assert one["definition"].startswith(DIFFERENCES["distance_m"])
    swept = tmp_path / "sweep.csv"
    words = ("--over", "gait.walk.accel_m_s2=9:22:2", "--of", "most_apart_m", "--on", folder, "-o", swept)
    run("sweep", old, *words)
    table = pd.read_csv(swept)
    assert table["most_apart_m"][0] > 0.1 > table["most_apart_m"][1]
    assert math.isclose(table["most_apart_m"][1], 0.0, abs_tol=1e-9)
    # As a picture and as JSON.
    content = json.loads(run("sweep", old, *words[:-1], tmp_path / "sweep.svg", "--json"))
    assert content["columns"]["most_apart_m"]["definition"].startswith(DIFFERENCES["most_apart_m"])
    assert (tmp_path / "sweep.svg").stat().st_size > 1000
    assert set(WALKED) >= {"distance_m", "presses"}


def test_recordings_of_other_devices_are_named(tmp_path, capsys):
    mixed = tmp_path / "mixed"
    mixed.mkdir()
    for name in ("beekeeper_keys.jsonl", "headset_walk.jsonl", "beekeeper_mouse.jsonl"):
        (mixed / name).write_bytes((FOLDER / name).read_bytes())
    Recording([Event(0.0, "key.Space", 1), Event(0.5, "key.Space", 0)]).write(mixed / "jump.jsonl")
    (mixed / "broken.jsonl").write_text("{}")
    frame = corpus(mixed, BOTH)
    assert without_effect(frame) == ["headset_walk.jsonl"]
    assert without_effect(corpus(mixed, BOTH, ["distance_m"])) == []
    new = tmp_path / "new.toml"
    new.write_text((FOLDER / "beekeeper.toml").read_text().replace("accel_m_s2 = 22 ", "accel_m_s2 = 9 "))
    with pytest.raises(SystemExit):
        app(["corpus", str(mixed), "--profile", str(FOLDER / "beekeeper.toml"), "--profile", str(new)])
    assert "no effect under any profile: headset_walk.jsonl\n" in capsys.readouterr().out
