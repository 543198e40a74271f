"""Changes of facing while a trembling stick is held on a border."""

import math

import numpy as np

from wendonic.batch.trace import shaped
from wendonic.study.bench import Bench
from wendonic.study.probes.stick_paths import BORDER_S, held_at
from wendonic.study.quantity import quantity
from wendonic.study.stick_response import StickResponse
from wendonic.study.thresholds import THRESHOLDS
from wendonic.study.unmeasured import NotHere

MOST_BENT_DEG = 44.0


@quantity(110, "/min", "changes of facing while a trembling stick is held at a border, at a tilt of {border_tilt:g}")
def sector_flicker_per_min(bench: Bench) -> float | None:
    """Hold a usual stick on each border between two facings; the worst one counts."""
    sectors = bench.table.steer.sectors
    if sectors is None:
        raise NotHere("no sprite with facings")
    stick = bench.stick_bind
    # With two facings, the borders are straight ahead and straight back.
    borders = [360.0 * (border + (0.0 if sectors == 2 else 0.5)) / sectors for border in range(sectors)]
    headings = tuple(math.radians(_held_for(bench.stick_response, border)) for border in borders)
    walked = shaped(held_at(stick, headings), bench.moving, hz=60, engine=bench.engine)
    # The stick needs the first second to get to each border, and the next border may begin early by a tick or two.
    period = round(60 * BORDER_S)
    facings = [walked["sector"][60 + border * period : (border + 1) * period - 10] for border in range(sectors)]
    worst = max(int((np.diff(seen) != 0).sum()) for seen in facings)
    # A single change is not a flicker: the stick has crossed the border for good.
    return worst * 3600.0 / (period - 70) if worst > 1 else 0.0


def _held_for(stick: StickResponse, wanted_deg: float) -> float:
    """Return the direction (deg) in which a stick must be held to request another one, since dead zones and notches
    bend it.
    """

    def past(off_deg: float) -> bool:
        right, forward = stick.at(*stick.held(THRESHOLDS.border_tilt, wanted_deg + off_deg))
        return (math.degrees(math.atan2(right, forward)) - wanted_deg + 180.0) % 360.0 >= 180.0

    low, high = -MOST_BENT_DEG, MOST_BENT_DEG
    if past(low) or not past(high):
        return wanted_deg
    for _ in range(30):
        middle = (low + high) / 2.0
        low, high = (low, middle) if past(middle) else (middle, high)
    return wanted_deg + high
