"""Changes of facing while a trembling stick is held on a border."""

import numpy as np

from wendonic.batch.trace import shaped
from wendonic.study.bench import Bench
from wendonic.study.probes.stick_paths import BORDER_S, on_borders
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere


@quantity(110, "/min", "changes of facing while a trembling stick is held on a border, at a tilt of {border_tilt:g}")
def sector_flicker_per_min(bench: Bench) -> float | None:
    """Hold a usual stick on each border of two facings; the worst counts."""
    sectors = bench.table.steer.sectors
    if sectors is None:
        raise NotHere("no sprite with facings")
    stick = bench.stick_bind
    walked = shaped(on_borders(stick, sectors), bench.moving, hz=60, engine=bench.engine)
    # The first second of each border is spent getting there, and the next one may begin early by a tick or two.
    period = round(60 * BORDER_S)
    facings = [walked["sector"][60 + border * period : (border + 1) * period - 10] for border in range(sectors)]
    worst = max(int((np.diff(seen) != 0).sum()) for seen in facings)
    # One change is none that comes and goes: the stick has crossed the border for good.
    return worst * 3600.0 / (period - 70) if worst > 1 else 0.0
