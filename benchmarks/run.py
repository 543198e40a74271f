"""Measures Wendonic's tick against the same maths written by hand: `python benchmarks/run.py`.

Everything is measured in this one run, on the same walk, in turns. Ratios are taken round by round and the
median counts, so that a machine whose speed swings slows both sides of a ratio alike.
"""

import gc
import json
import math
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import numpy as np
from rich.console import Console
from rich.progress import track
from rich.table import Table

from by_hand import by_hand_tick
from by_hand_plain import by_hand_plain_tick
from by_numpy import by_numpy_tick
from c_loop import compiled_c_loop
from walks import HZ, beekeeper_run, beekeeper_walk, both_recordings, c_tuning, plain_profile, walk_profile
from wendonic import Event, Helm, Recording, shape
from wendonic.batch.compiled import compiled_loop, has_numba
from wendonic.compiler.collector import collector_paused
from wendonic.compiler.python_text import python_text
from wendonic.compiler.tick_function import tick_function
from wendonic.demo import RECORDINGS, demo_profile
from wendonic.devices.controls import find_control
from wendonic.devices.sample_layout import sample_layout
from wendonic.devices.state import DeviceState
from wendonic.profile.sources import mode_sources
from wendonic.profile.tuning import mode_tuning

ROUNDS = 30
LEAST_S = 0.02
ENTER_ROUNDS = 2000
READ_EVENTS = 1_000_000
READ_ROUNDS = 3
WHOLE_WAY_ROUNDS = 4
HAND = "by hand, straight-line Python"
C = "C loop, gcc -O3"
C_OUTCOME = 14
C_POSITION = [10, 11]


def what_a_game_reads(intent):
    """Read velocity, look and facing."""
    return intent.velocity(), intent.look, intent.face_deg


def helm_way(walk, profile, read=None):
    """Feed the helm: one stick event, key changes and a camera before each tick; read of its intent."""
    stick = find_control("pad.left_stick")
    view = find_control("view")
    keys = [find_control(f"key.{code}") for code in ("KeyD", "KeyA", "KeyW", "KeyS")]
    ticks = []
    last_keys = (0.0,) * 4
    for row in walk.by_hand:
        events = [(stick, (row[4], -row[5])), (view, (math.degrees(row[6]), 0.0))]
        events += [(key, new) for key, old, new in zip(keys, last_keys, row[:4], strict=True) if old != new]
        last_keys = row[:4]
        ticks.append(events)

    def run():
        helm = Helm(profile)
        state, dt, spent = helm.state, 1.0 / HZ, 0.0
        clock = time.perf_counter
        for events in ticks:
            for control, value in events:
                state.set(control, value)
            start = clock()
            intent = helm.tick(dt)
            if read:
                read(intent)
            spent += clock() - start
        return spent, (intent.motion.pos_x, intent.motion.pos_y)

    return run


def tick_function_way(walk, profile):
    """Call the tick function that Wendonic makes of its kernels."""
    rows = walk.rows.tolist()

    def run():
        job = beekeeper_run(walk, profile)
        tick, record, spent, dt = job.tick_part, job.record, 0.0, 1.0 / HZ
        clock = time.perf_counter
        for row in rows:
            start = clock()
            record = tick(record, row, dt)
            spent += clock() - start
        return spent, position_in(job, record)

    return run


def position_in(job, record):
    """Return where the body is, by a record."""
    places = job.layout.indices
    return tuple(float(record[places["memory", "body", "position", axis]]) for axis in ("x", "y"))


def hand_way(walk, tick, at_rest):
    """Call the straight-line function; its state ends with the position and the velocity."""

    def run():
        state, spent, dt = at_rest, 0.0, 1.0 / HZ
        clock = time.perf_counter
        for row in walk.by_hand:
            start = clock()
            state = tick(state, *row, dt)
            spent += clock() - start
        return spent, state[-4:-2]

    return run


def tick_ways(walk, profile, by_hand, at_rest):
    """Return the ways of one tick of a profile: the helm, the tick function, and by hand."""
    return {
        "Helm.tick, velocity, look, facing": helm_way(walk, profile, what_a_game_reads),
        "Helm.tick": helm_way(walk, profile),
        "tick function, interpreted": tick_function_way(walk, profile),
        HAND: hand_way(walk, by_hand, at_rest),
    }


def numpy_way(walk):
    """Call the function with small arrays."""
    rows = np.array(walk.by_hand)
    keys = np.stack([rows[:, 0] - rows[:, 1], rows[:, 2] - rows[:, 3]], axis=1)
    arrays = list(zip(keys, rows[:, 4:6], rows[:, 6].tolist(), strict=True))

    def run():
        state, spent, dt = (np.zeros(2), np.zeros(2), 0.0, np.zeros(2), np.zeros(2)), 0.0, 1.0 / HZ
        clock = time.perf_counter
        for row in arrays:
            start = clock()
            state = by_numpy_tick(state, *row, dt)
            spent += clock() - start
        return spent, tuple(state[3])

    return run


def batch_way(walk):
    """Run the batch over the tick function, interpreted."""

    def run():
        job = beekeeper_run(walk)
        start = time.perf_counter()
        job.over(walk.rows, 1.0 / HZ, "interpreted")
        return time.perf_counter() - start, position_in(job, job.record)

    return run


def compiled_way(walk):
    """Run the compiled loop over the tick function, memory given beforehand as to the C loop."""
    job = beekeeper_run(walk)
    loop = compiled_loop(job.ready, job.reported, "foot")
    numbers, record, none = np.array(job.numbers), np.array(job.record), np.zeros(0)
    records = np.zeros((job.layout.width, len(walk.rows)))

    def run():
        start = time.perf_counter()
        loop(numbers, none, none, record, walk.rows, 1.0 / HZ, records, 0)
        return time.perf_counter() - start, position_in(job, records[:, -1])

    return run


def c_way(walk, loop):
    """Run the C loop."""
    tuning = c_tuning()
    filled = np.zeros((len(walk.rows), C_OUTCOME))
    ticks, width = walk.rows.shape

    def run():
        start = time.perf_counter()
        loop(tuning, walk.rows, 1.0 / HZ, filled, ticks, width, walk.layout.view + 1)
        return time.perf_counter() - start, tuple(filled[-1, C_POSITION])

    return run


def long_recording(path: Path, events: int = READ_EVENTS) -> None:
    """Write keys, stick, mouse and view in turns, a thousand a second."""
    kinds = (
        lambda n: ("pad.left_stick", (math.sin(n * 0.001), math.cos(n * 0.0013))),
        lambda n: ("mouse.move", (float(n % 19 - 9), float(n % 7 - 3))),
        lambda n: ("key.KeyW", float(n // 4 % 2)),
        lambda n: ("view", (n * 0.01, -8.0)),
    )
    Recording([Event(n / 1000.0, *kinds[n % 4](n)) for n in range(events)], title="Long").write(path)


def reading_lines() -> list[str]:
    """Return how long reading and applying a long recording takes, as ratios within each of a few rounds."""
    with tempfile.TemporaryDirectory() as folder:
        by_lines, by_columns = Path(folder, "long.jsonl"), Path(folder, "long.parquet")
        long_recording(by_lines)
        Recording.read(by_lines).write(by_columns)
        lines = by_lines.read_bytes().splitlines()
        seconds = {"json.loads": [], "jsonl": [], "parquet": [], "made": [], "apply": []}
        for _ in track(range(READ_ROUNDS), "reading", console=Console(stderr=True), transient=True):
            gc.collect()
            clock = [time.perf_counter()]
            for line in lines:
                json.loads(line)
            clock.append(time.perf_counter())
            recording = Recording.read(by_lines)
            clock.append(time.perf_counter())
            columns = Recording.read(by_columns)
            clock.append(time.perf_counter())
            columns[0]
            clock.append(time.perf_counter())
            apply = DeviceState().apply
            for event in recording:
                apply(event)
            clock.append(time.perf_counter())
            for name, start, end in zip(seconds, clock, clock[1:], strict=False):
                seconds[name].append(end - start)
    jsonl = ratio(seconds["jsonl"], seconds["json.loads"])
    parquet = ratio(seconds["jsonl"], seconds["parquet"])
    made = ratio(seconds["jsonl"], [a + b for a, b in zip(seconds["parquet"], seconds["made"], strict=True)])
    apply_us = statistics.median(seconds["apply"]) / READ_EVENTS * 1e6
    applied = ratio(seconds["apply"], seconds["json.loads"])
    return [
        f"reading {READ_EVENTS:,} events of JSON Lines takes {jsonl} times as long as json.loads of its lines",
        f"reading Parquet is {parquet} times as quick as JSON Lines, {made} times with every event made",
        f"DeviceState.apply takes {apply_us:.2f} µs an event, {applied} of json.loads of its line",
    ]


def whole_way_lines() -> list[str]:
    """Return how many ticks a second go from a Parquet file to a trace, everything warm."""
    walk = both_recordings()
    once_s = walk[len(walk) - 1].t
    lines = []
    with tempfile.TemporaryDirectory() as folder:
        for words, times in (("one hour", math.ceil(3600.0 / once_s)), (f"{once_s:.0f} s", 1)):
            path = Path(folder, f"{times}.parquet")
            starts = [turn * math.ceil(once_s) for turn in range(times)]
            events = [Event(round(event.t + start, 6), *event[1:3]) for start in starts for event in walk]
            Recording(events, title="Long").write(path)
            # What has never been compiled would be interpreted, as one recording alone does not pay for it.
            shape(Recording.read(path), walk_profile(), hz=HZ, engine="compiled")
            rounds = []
            for _ in range(WHOLE_WAY_ROUNDS):
                gc.collect()
                start = time.perf_counter()
                trace = shape(Recording.read(path), walk_profile(), hz=HZ)
                rounds.append(len(trace) / (time.perf_counter() - start))
            warm = statistics.median(rounds[1:])
            lines.append(f"from Parquet to trace, {words} at {HZ:.0f} Hz: {warm:,.0f} ticks a second")
    return lines


def entering_line() -> str:
    """Return what going over to another mode costs, in ticks of the mode it leaves, round by round in turns."""
    helm = Helm(demo_profile("harvest"))
    other = {"foot": "barrow", "barrow": "foot"}
    seconds = {"enter": [], "tick": []}
    for _ in range(ENTER_ROUNDS):
        for name, call in (("tick", lambda: helm.tick(1.0 / HZ)), ("enter", lambda: helm.enter(other[helm.mode]))):
            start = time.perf_counter()
            call()
            seconds[name].append(time.perf_counter() - start)
    return (
        f"Helm.enter between foot and barrow takes {ratio(seconds['enter'], seconds['tick'])} of the tick before it"
    )


def placing_line() -> str:
    """Return what it costs a game that moves the body itself to report it, in ticks, round by round in turns."""
    helm = Helm(demo_profile())
    seconds = {"place": [], "tick": []}
    for _ in range(ENTER_ROUNDS):
        for name, call in (
            ("tick", lambda: helm.tick(1.0 / HZ)),
            ("place", lambda: helm.place(1.0, 0.0, -2.0, velocity=(0.0, 0.0, -3.2))),
        ):
            start = time.perf_counter()
            call()
            seconds[name].append(time.perf_counter() - start)
    return f"Helm.place with a velocity takes {ratio(seconds['place'], seconds['tick'])} of a tick on foot"


def start_up_s(*words: str) -> float:
    """Return the fastest of five starts of Python with `words`, less that of Python alone, in seconds."""

    def fastest(*command: str) -> float:
        times = []
        for _ in range(5):
            start = time.perf_counter()
            subprocess.run([sys.executable, *command], check=True, stdout=subprocess.DEVNULL)
            times.append(time.perf_counter() - start)
        return min(times)

    return fastest(*words) - fastest("-c", "pass")


def measured(ways: dict[str, Callable]) -> tuple[dict[str, list[float]], float]:
    """Return each way's seconds, round by round, and the largest difference between their last positions (m)."""
    seconds = {name: [] for name in ways}
    ends = {}
    for _ in track(range(ROUNDS), "measuring", console=Console(stderr=True), transient=True):
        for name, run in ways.items():
            goes = [run()]
            # The quick ones get more goes, or a single interruption would spoil their round.
            while sum(spent for spent, _ in goes) < LEAST_S:
                goes.append(run())
            seconds[name].append(min(spent for spent, _ in goes))
            ends[name] = goes[-1][1]
    spread = np.ptp(np.array(list(ends.values())), axis=0).max()
    return seconds, float(spread)


def ratio(these: list[float], those: list[float]) -> str:
    """Return the median over all rounds of one way's seconds over another's: both in a round ran side by side."""
    return f"{statistics.median(a / b for a, b in zip(these, those, strict=True)):.3f}"


def structure_line():
    """Time what a new structure costs: the tick function of each shipped mode, made and not kept."""
    made_s = {}
    for name in sorted(set(RECORDINGS.values())):
        profile = demo_profile(name)
        for mode in profile.mode:
            numbers = mode_tuning(profile, mode).tick
            sample = sample_layout(mode_sources(profile, mode, None)).sample
            start = time.perf_counter()
            # As a helm has it made.
            with collector_paused():
                python_text(tick_function(numbers, sample))
            made_s[f"{name}, {mode}"] = time.perf_counter() - start
    least, most = min(made_s, key=made_s.get), max(made_s, key=made_s.get)
    return (
        f"a tick function is made in {statistics.median(made_s.values()):.2f} s, the median of {len(made_s)} modes "
        f"({made_s[least]:.2f} s for {least}; {made_s[most]:.2f} s for {most})"
    )


def table_of(seconds: dict[str, list[float]], title: str, ticks: int) -> Table:
    """Return each way's time, and its ratio to the way by hand and to the C loop."""
    table = Table(title=title, title_justify="left")
    for heading in ("", "µs a tick", "ticks a second", "time against by hand", "speed against C"):
        table.add_column(heading, justify="left" if not heading else "right")
    for name, rounds in seconds.items():
        spent = statistics.median(rounds)
        against_c = ratio(seconds[C], rounds) if C in seconds else "-"
        against_hand = ratio(rounds, seconds[HAND])
        table.add_row(name, f"{spent / ticks * 1e6:.2f}", f"{ticks / spent:,.0f}", against_hand, against_c)
    return table


def main() -> None:
    walk = beekeeper_walk()
    ticks = len(walk.rows)
    ways = {
        "by hand, small NumPy arrays": numpy_way(walk),
        **tick_ways(walk, walk_profile(), by_hand_tick, (0.0,) * 10),
    }
    ways["batch, interpreted"] = batch_way(walk)
    left_out = []
    if has_numba():
        ways["batch, compiled"] = compiled_way(walk)
        ways["batch, compiled"]()
    else:
        left_out.append("Numba is not installed: no compiled batch")
    c_loop = compiled_c_loop()
    if c_loop:
        ways[C] = c_way(walk, c_loop)
    else:
        left_out.append("no C compiler: no C loop")
    seconds, spread = measured(ways)

    console = Console(width=110)
    console.print(table_of(seconds, f"{ticks} ticks of the beekeeper's walk, {ROUNDS} rounds: medians", ticks))
    faster = ratio(seconds["by hand, small NumPy arrays"], seconds["Helm.tick"])
    console.print(f"Helm.tick is {faster} times as fast as small NumPy arrays")
    console.print(f"all ways end within {spread:.1e} m of each other", *left_out, sep="\n")
    seconds, spread = measured(tick_ways(walk, plain_profile(), by_hand_plain_tick, (0.0,) * 6))
    console.print(table_of(seconds, "without ramps and smoothing, as the profile is shipped", ticks))
    console.print(f"all ways end within {spread:.1e} m of each other")
    for line in (structure_line(), entering_line(), placing_line(), *reading_lines(), *whole_way_lines()):
        console.print(line)
    for words, label in (
        (("-c", "import wendonic"), "import wendonic"),
        (("-c", "from wendonic import Helm, load_profile"), "from wendonic import Helm, load_profile"),
        (("-m", "wendonic", "--help"), "wendonic --help"),
    ):
        console.print(f"{label}: {start_up_s(*words):.2f} s on top of Python's own start")


if __name__ == "__main__":
    main()
