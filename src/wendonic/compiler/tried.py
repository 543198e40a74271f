"""Finds memory of a tick that changes when the plain kernel runs on made-up numbers."""

import math
import random
from collections.abc import Collection
from itertools import pairwise
from typing import Any

from wendonic.compiler.layout import Path, built, flat, paths_of
from wendonic.kernels.body.ground import NO_COURSE
from wendonic.kernels.tick import tick_part
from wendonic.kernels.tick_record import Tick
from wendonic.kernels.tuning import Tuning

LEVELS = (0.0, 0.0, 1.0, 0.9, -0.8)
"""Values of a raw number in a tick."""

DOWN = "10111011"
"""Whether presses are down, tick by tick."""

STEP_S = 0.02


class _Ones(tuple[float, ...]):
    """A table that is 1 at every index."""

    def __getitem__(self, index: Any) -> Any:
        return 1.0


def changed_when_tried(tuning: Tuning, at_rest: Tick, sample: Any, silent: Collection[Path]) -> set[Path]:
    """Return numbers of the memory that change in a few ticks of the plain kernel: only numbers that can change,
    though perhaps not all of them. It begins with presses that were held in another mode.
    """
    paths, rest = paths_of(at_rest.memory), flat(at_rest.memory)
    raw_paths, still = paths_of(sample), flat(sample)
    chosen = random.Random(1)
    presses = tuple(press._replace(held=1.0) for press in at_rest.memory.presses)
    tick = at_rest._replace(memory=at_rest.memory._replace(presses=presses))
    found: set[Path] = set()
    for before, down in pairwise("0" + DOWN):
        press = {"down": float(down), "edges": float(down != before), "lost": 0.0}
        raw = [
            value if path in silent else press[path[-1]] if path[0] == "presses" else chosen.choice(LEVELS)
            for path, value in zip(raw_paths, still, strict=True)
        ]
        try:
            tick = tick_part(tuning, _Ones(), NO_COURSE, tick, built(sample, iter(raw)), STEP_S)
        except Exception:
            # If it fails, folding finds the numbers, and reports best what is wrong with a kernel.
            break
        numbers = zip(paths, rest, flat(tick.memory), strict=True)
        found.update(path for path, old, new in numbers if new != old and math.isfinite(new))
    return found
