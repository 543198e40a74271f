"""How often the intervals of a calibration hold the truth, for noise that is not white and rims that are not round.

    python benchmarks/calibration.py [--seeds N] [--workers N] [--only NOISE]

A row a kind of noise and rim: the share of runs in which the interval (95 %) of the rest point, the noise, the dead
zone and the rim holds what is true, of those runs that give a number; and the share that gives none. How far readings
lie from a quiet stick is another matter in each run, and is not counted.
"""

import argparse
import math
from concurrent.futures import ProcessPoolExecutor
from functools import partial

from stick_noise import NOISES, RIMS, recorded, true_length, true_spread
from wendonic.study.calibration.calibrate import SHARE, calibrate
from wendonic.study.calibration.estimate import Estimate

HEADINGS = (0, 5, 9, 14, 18, 23, 27, 32)


def holds(estimate: Estimate | None, truth: float) -> float | None:
    """Return 1 where an interval holds the truth, 0 where not, None without either."""
    return None if estimate is None or math.isnan(truth) else float(estimate.low <= truth <= estimate.high)


def run_of(noise: str, rim: str, truth: tuple[float, float], seed: int) -> list[float | None]:
    """Return the hits of one run: x, y, spread, inner, and the mean over some headings of the rim."""
    recording, rest_at = recorded(noise, rim, seed)
    found = calibrate(recording).sticks[0]
    if found.rest is None:
        return [None] * 5
    middle_s = float(found.samples.t[found.rest.used].mean())
    x, y = rest_at(middle_s)
    hits = [holds(found.rest.x, x), holds(found.rest.y, y), holds(found.rest.noise, truth[0])]
    hits.append(holds(found.inner, truth[1]))
    if found.rim is None:
        return [*hits, None]
    seen = (found.rest.x.value, found.rest.y.value)
    of_rim = [holds(found.rim.lengths[k], true_length(rim, seen, math.tau * k / 36)) for k in HEADINGS]
    return [*hits, sum(hit or 0.0 for hit in of_rim) / len(of_rim)]


def main() -> None:
    """Print the table."""
    options = argparse.ArgumentParser(description=__doc__)
    options.add_argument("--seeds", type=int, default=400)
    options.add_argument("--workers", type=int, default=2)
    options.add_argument("--only", default="")
    given = options.parse_args()
    print(f"{'noise':14s} {'rim':8s} {'x':>7s} {'y':>7s} {'noise':>7s} {'inner':>7s} {'rim':>7s}   without a number")
    with ProcessPoolExecutor(given.workers) as pool:
        for noise in (one for one in NOISES if given.only in one):
            truth = true_spread(noise, SHARE)
            for rim in RIMS:
                rows = list(pool.map(partial(run_of, noise, rim, truth), range(given.seeds), chunksize=4))
                cells, missing = [], []
                for column in zip(*rows, strict=True):
                    known = [hit for hit in column if hit is not None]
                    cells.append(f"{100.0 * sum(known) / len(known):5.1f} %" if known else "      -")
                    missing.append(f"{100.0 * (1.0 - len(known) / len(column)):.0f} %")
                print(f"{noise:14s} {rim:8s} {' '.join(cells)}   {' '.join(missing)}", flush=True)


if __name__ == "__main__":
    main()
