"""How fast a corpus goes: 200 recordings of a minute under two profiles, against a loop over `wendonic.shape`.

    python benchmarks/corpus.py [--recordings N] [--seconds S] [--rounds N]

Recordings come from stand-ins, half with a pad and half with keys and a mouse. Everything is compiled before the
clock starts. With `--rounds` the folder is gone through so often by one and by two processes, started beforehand.
"""

import argparse
import random
import sys
import tempfile
import time
from pathlib import Path

from wendonic import Recording, shape
from wendonic.demo import demo_profile
from wendonic.devices.standins.hand import hand_path
from wendonic.devices.standins.mouse import MouseStandIn
from wendonic.devices.standins.stick import StickStandIn
from wendonic.devices.standins.typist import Stroke, Typist
from wendonic.study.solve.corpus import chunked, corpus, job_of, rows_of, sources_in
from wendonic.study.solve.pools import Pool

HZ = 60.0


def played(seed: int, seconds: float) -> Recording:
    """Return a minute of play by stand-ins."""
    draw = random.Random(seed)
    if seed % 2:
        frames, t = [(0.0, 0.0, 0.0)], 0.0
        while t < seconds:
            t += draw.uniform(0.3, 1.5)
            frames.append((t, *(draw.uniform(-0.7, 0.7) for _ in range(2))))
        stick = StickStandIn(rest=(0.03, -0.02), noise=0.004, poll_hz=125.0, seed=seed)
        return Recording(stick.events(hand_path(frames), 0.0, seconds))
    strokes = []
    for code in ("KeyW", "KeyA", "KeyS", "KeyD", "Space"):
        t = draw.uniform(0.0, 1.0)
        while t < seconds - 2.0:
            held = draw.uniform(0.1, 1.2)
            strokes.append(Stroke(code, t, t + held))
            t += held + draw.uniform(0.1, 1.5)
    frames, t = [(0.0, 0.0, 0.0)], 0.0
    while t < seconds:
        t += draw.uniform(0.3, 2.0)
        frames.append((t, draw.uniform(-15.0, 15.0), draw.uniform(-5.0, 5.0)))
    moved = MouseStandIn(poll_hz=125.0, seed=seed).events(hand_path(frames), 0.0, seconds)
    return Recording(sorted([*Typist(seed=seed).events(strokes), *moved], key=lambda event: event.t))


def main() -> None:
    """Measure, and print figures and ratios."""
    options = argparse.ArgumentParser(description=__doc__)
    options.add_argument("--recordings", type=int, default=200)
    options.add_argument("--seconds", type=float, default=60.0)
    options.add_argument("--rounds", type=int, default=0)
    given = options.parse_args()
    old = demo_profile()
    profiles = {"old": old, "new": old.changed({"gait.walk.accel_m_s2": 14.0})}
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        for number in range(given.recordings):
            played(number, given.seconds).write(folder / f"play_{number:03d}.jsonl")
        for ending in (".jsonl", ".parquet"):
            if ending == ".parquet":
                for path in list(folder.glob("*.jsonl")):
                    Recording.read(path).write(path.with_suffix(ending))
                    path.unlink()
            corpus(folder, profiles)
            start = time.perf_counter()
            frame = corpus(folder, profiles)
            spent_s = time.perf_counter() - start
            ticks = 2 * int(frame["ticks"].sum())
            hours = 2.0 * float(frame["duration_s"].sum()) / 3600.0
            start = time.perf_counter()
            for path in sorted(folder.iterdir()):
                recording = Recording.read(path)
                for profile in profiles.values():
                    shape(recording, profile, hz=HZ)
            loop_s = time.perf_counter() - start
            print(
                f"{ending[1:]}: {ticks / spent_s:,.0f} ticks/s, {spent_s / hours:.2f} s an hour of play and profile"
            )
            print(
                f"{ending[1:]}: {loop_s / spent_s:.2f} x as fast as a loop over wendonic.shape that compares nothing"
            )
        if given.rounds:
            job = job_of(profiles, (), None, HZ)
            sources = sources_in(folder) * given.rounds
            chunks = chunked(sources, 2)
            spent = {}
            for workers in (1, 2):
                with Pool(workers) as pool:
                    # Started and warm before the clock starts.
                    list(pool.each(rows_of, job, chunks[: 2 * workers]))
                    start = time.perf_counter()
                    list(pool.each(rows_of, job, chunks))
                    spent[workers] = time.perf_counter() - start
            print(f"{spent[1]:.1f} s with one worker, {spent[2]:.1f} s with two: {spent[1] / spent[2]:.2f} x")


if __name__ == "__main__":
    sys.exit(main())
