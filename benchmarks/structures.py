"""Runs more random structures than the tests do: `python benchmarks/structures.py --count 500`.

Each is a mode put together by Hypothesis from any forms, rules, frames and presses. Its tick function is run beside
the plain kernels, and every number has to be the same to the last bit. Exits with 1, and the smallest structure that
differs, where one does.
"""

import argparse
import sys
import time
from pathlib import Path

from hypothesis import HealthCheck, Phase, given, seed, settings
from rich.console import Console

TESTS = Path(__file__).parent.parent / "tests"
BATCH = 40
"""Hypothesis repeats itself: of many draws in one go more than half are duplicates."""


def main() -> None:
    parser = argparse.ArgumentParser(description="Run random structures beside the plain kernels, bit for bit.")
    parser.add_argument("--count", type=int, default=500, help="how many different structures (500)")
    parser.add_argument("--seed", type=int, default=None, help="the same ones again")
    parsed = parser.parse_args()
    if parsed.count < 1:
        parser.error("--count: allowed: 1 or more")
    sys.path.insert(0, str(TESTS))
    from test_compiler import assert_run_alike
    from wide_runs import wide_runs

    structures, ticks = set(), 0

    @settings(
        max_examples=BATCH,
        deadline=None,
        database=None,
        phases=(Phase.generate, Phase.shrink),
        suppress_health_check=list(HealthCheck),
    )
    @given(run=wide_runs())
    def alike(run) -> None:
        nonlocal ticks
        structures.add(assert_run_alike(run))
        ticks += len(run[2])

    number = time.time_ns() % 1_000_000 if parsed.seed is None else parsed.seed
    start = time.perf_counter()
    batch = 0
    while len(structures) < parsed.count:
        seed(f"{number} {batch}")(alike)()
        batch += 1
    spent = time.perf_counter() - start
    Console().print(
        f"{len(structures)} structures, {ticks} ticks, equal to the last bit; seed {number}, {spent:.0f} s",
        highlight=False,
    )


if __name__ == "__main__":
    main()
