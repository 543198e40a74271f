"""Measures this version against the one before the tick functions: `python benchmarks/before.py`.

Commit a15816d is checked out into a worktree of its own; both are measured in turns, in processes of their own, and
ratios are taken round by round. `--studies` adds feel sheets and checks, `--sweep` a sweep of 1,024 profiles.
"""

import argparse
import json
import os
import statistics
import subprocess
import sys
import tempfile
from pathlib import Path

from rich.console import Console
from rich.progress import track
from rich.table import Table

COMMIT = "a15816d"
TOP = Path(__file__).parent.parent
ROUNDS = 5
AS_THEN = """
def as_then(profile):
    # Keys had ramps and movement was smoothed by default.
    changes = {}
    for name, mode in profile.mode.items() if hasattr(profile, "changed") else ():
        move = None if mode.steer.frame == "grid" else mode.move
        if move and not move.one_euro and "half_life_s" not in move.model_fields_set:
            changes[f"mode.{name}.move.half_life_s"] = 0.02
        for channel in ("move", "rise", "throttle", "turn") if mode.steer.frame != "grid" else ():
            for index, bind in enumerate(getattr(getattr(mode, channel), "bind", ())):
                for field, then_s in (("rise_s", 0.06), ("fall_s", 0.04)):
                    if hasattr(bind, field) and field not in bind.model_fields_set:
                        changes[f"mode.{name}.{channel}.bind[{index}].{field}"] = then_s
    return profile.changed(changes) if changes else profile
"""
PLAYED = f"""{AS_THEN}
import json, sys, time
from wendonic import Helm
from wendonic.demo import ON_COURSE, RECORDINGS, demo_course, demo_profile, demo_recording

def played(name):
    course = demo_course(ON_COURSE[name]) if name in ON_COURSE else None
    helm = Helm(as_then(demo_profile(RECORDINGS[name])), course=course)
    spent, count = 0.0, 0
    for _, events in demo_recording(name).ticks(60):
        for event in events:
            helm.apply(event)
        start = time.perf_counter()
        helm.tick(1 / 60)
        spent += time.perf_counter() - start
        count += 1
    return spent / count

print(json.dumps({{name: min(played(name) for _ in range(3)) for name in sys.argv[1:]}}))
"""
STUDIED = f"""{AS_THEN}
import json, sys, time
from wendonic.demo import demo_profile
try:
    from wendonic.study.checking import check
except ImportError:
    from wendonic.study.check import check
from wendonic.study.feel_sheet import measure

def seconds(work, name):
    profile = as_then(demo_profile(name))
    start = time.perf_counter()
    work(profile)
    return time.perf_counter() - start

turns = ("first", "again")
works = {{"feel sheet": measure, "check": check}}
print(json.dumps({{f"{{words}} of {{name}}, {{turn}}": seconds(work, name)
    for name in sys.argv[1:] for words, work in works.items() for turn in turns}}))
"""
SWEPT = """
import inspect, json, time
from wendonic.demo import PROFILE_PATH, demo_profile
try:
    from wendonic.study.solve.sweep import sweep
except ImportError:
    # Where it was before.
    from wendonic.study.sweep import sweep

over = {"gait.walk.accel_m_s2": [8.0 + step for step in range(32)],
    "mode.foot.move.half_life_s": [0.005 + 0.003 * step for step in range(32)]}

# It was given the file before.
given = PROFILE_PATH if "path" in inspect.signature(sweep).parameters else demo_profile()

def seconds():
    start = time.perf_counter()
    sweep(given, over, ["reach90_s", "stop_distance_m"], workers=None)
    return time.perf_counter() - start

print(json.dumps({"sweep of 1,024 profiles, first": seconds(), "sweep of 1,024 profiles, again": seconds()}))
"""
RARER = ("cart_ride", "harvest_run", "scout_flight", "terraces_walk", "orchard_errands", "headset_walk")
FEELS = ("beekeeper", "harvest", "cart", "scout")


def run(script: str, words: tuple[str, ...], source: Path, cache: Path) -> dict[str, float]:
    """Run a script on one version, with a cache of its own."""
    environment = {**os.environ, "PYTHONPATH": str(source / "src"), "XDG_CACHE_HOME": str(cache)}
    command = [sys.executable, "-P", "-c", script, *words]
    done = subprocess.run(command, env=environment, capture_output=True, text=True, check=True)
    return json.loads(done.stdout)


def main() -> None:
    parser = argparse.ArgumentParser(description="Measure this version against the one before.")
    parser.add_argument("--studies", action="store_true", help="also feel sheets and checks, cold and warm")
    parser.add_argument("--sweep", action="store_true", help="also the sweep of 1,024 profiles")
    parsed = parser.parse_args()
    # Cold: nothing is in the cache yet. Warm: what earlier runs left there is.
    jobs = [("tick", PLAYED, RARER, False, ROUNDS)]
    if parsed.studies:
        jobs += [("cold", STUDIED, FEELS, True, 1), ("warm", STUDIED, FEELS, False, 3)]
    if parsed.sweep:
        jobs.append(("warm", SWEPT, (), False, 2))
    table = Table(title="seconds, medians of all rounds", title_justify="left")
    for heading in ("", f"at {COMMIT}", "now", "times as fast"):
        table.add_column(heading, justify="left" if not heading else "right")
    with tempfile.TemporaryDirectory() as folder:
        old = Path(folder, "before")
        subprocess.run(["git", "worktree", "add", "--detach", old, COMMIT], cwd=TOP, check=True, capture_output=True)
        try:
            for kind, script, words, cold, count in jobs:
                rounds: list[tuple[dict[str, float], dict[str, float]]] = []
                for turn in track(range(count), kind, console=Console(stderr=True), transient=True):
                    caches = [Path(folder, f"{name}-{turn if cold else ''}") for name in ("old", "new")]
                    rounds.append(
                        (run(script, words, old, caches[0]), run(script, words, TOP, caches[1])),
                    )
                for name in rounds[0][0]:
                    before = [one[name] for one, _ in rounds]
                    after = [other[name] for _, other in rounds]
                    ratio = statistics.median(a / b for a, b in zip(before, after, strict=True))
                    cells = (statistics.median(before), statistics.median(after))
                    table.add_row(f"{kind}: {name}", *(f"{cell:.6f}"[:8] for cell in cells), f"{ratio:.2f}")
        finally:
            subprocess.run(["git", "worktree", "remove", "--force", old], cwd=TOP, check=True, capture_output=True)
    Console(width=110).print(table)


if __name__ == "__main__":
    main()
