"""Measures the bench itself: `python benchmarks/feel.py`.

A feel sheet and a check of every shipped profile's first mode, interpreted and compiled in turns (compiling itself
left out), and a sweep of a thousand profiles over two numbers. Ratios are of one run.
"""

import functools
import statistics
import time

from rich.console import Console
from rich.table import Table

from wendonic.batch.compiled import has_numba
from wendonic.demo import demo_profile
from wendonic.study.checking import check
from wendonic.study.feel_sheet import measure
from wendonic.study.solve.sweep import sweep

ROUNDS = 5
PROFILES = ("beekeeper", "harvest", "cart", "scout")
ACROSS = 32
OVER = {
    "gait.walk.accel_m_s2": [8.0 + step for step in range(ACROSS)],
    "mode.foot.move.half_life_s": [0.005 + 0.003 * step for step in range(ACROSS)],
}


def seconds_of(work) -> float:
    start = time.perf_counter()
    work()
    return time.perf_counter() - start


def main() -> None:
    console = Console(width=110)
    engines = ("interpreted", "compiled") if has_numba() else ("interpreted",)
    table = Table(title=f"seconds, medians of {ROUNDS} rounds", title_justify="left")
    for heading in ("", "interpreted", "compiled, warm", "times as fast"):
        table.add_column(heading, justify="left" if not heading else "right")
    for name in PROFILES:
        profile = demo_profile(name)
        for words, work in (("feel sheet", measure), ("check, all modes", check)):
            jobs = [functools.partial(work, profile, engine=engine) for engine in engines]
            for job in jobs:
                job()
            rounds = [[seconds_of(job) for job in jobs] for _ in range(ROUNDS)]
            medians = [statistics.median(column) for column in zip(*rounds, strict=True)]
            ratio = statistics.median(row[0] / row[-1] for row in rounds)
            cells = [f"{median:.2f}" for median in medians] + ["-"] * (2 - len(medians))
            table.add_row(f"{words} of {name}", *cells, f"{ratio:.1f}")
    console.print(table)
    spent = seconds_of(lambda: sweep(demo_profile(), OVER, ["reach90_s", "stop_distance_m"], workers=None))
    console.print(f"sweep of {ACROSS * ACROSS} profiles, two quantities, one process for each core: {spent:.1f} s")


if __name__ == "__main__":
    main()
