"""Largest difference of the path between tick rates, as a share of the distance."""

import random
from typing import Any

import numpy as np

from wendonic.devices.event import Event
from wendonic.profile.schema.steer.drive import DriveSteer
from wendonic.profile.schema.steer.sprite import Faced
from wendonic.study.bench import Bench
from wendonic.study.probes.walk import Walk
from wendonic.study.probes.walker import Steps, Walker, turned_by
from wendonic.study.quantity import quantity
from wendonic.study.unmeasured import NotHere

FIGURE_S, HALVES = 3.5, 7


@quantity(
    230,
    "",
    "largest difference between the paths at 30, 60 and 144 Hz and with uneven ticks, as a share of the distance",
)
def tick_dependence(bench: Bench) -> float | None:
    """Follow a figure of straight walks, turns and a stop, whose changes fall on ticks of all rates."""
    walker, directions = _walker_and_directions(bench)
    first, second, third = directions
    figure: Steps = [
        (0.5, walker.full(*first)),
        (1.5, walker.changes(first, second)),
        (2.0, walker.changes(second, third)),
        (2.5, walker.rest(*third)),
    ]
    paths = []
    for hz in (30, 60, 144):
        walked = Walk(bench.moving, walker, figure, FIGURE_S, hz, bench.engine)
        path = np.column_stack([walked["pos_x"], walked["pos_y"]])
        # Every half second coincides with the end of a tick at each rate.
        paths.append(path[hz // 2 - 1 :: hz // 2][:HALVES])
    paths.append(_uneven_path(figure, bench))
    distance_m = float(np.linalg.norm(np.diff(paths[2], axis=0), axis=1).sum())
    if distance_m == 0.0:
        raise NotHere("nothing moves")
    return max(float(np.linalg.norm(path - paths[2], axis=1).max()) for path in paths) / distance_m


def _walker_and_directions(bench: Bench) -> tuple[Walker, list[tuple[str, ...]]]:
    """Return the walker and the directions of the figure. A body that is driven, or turned by the channel `turn`,
    turns while it goes ahead.
    """
    steer, walker = bench.table.steer, bench.walker
    turned = isinstance(steer, Faced) and steer.face == "turn"
    if turned:
        walker = turned_by(bench.table, walker)
    if (turned or isinstance(steer, DriveSteer)) and walker.goes("forward", "right"):
        sides = [side for side in ("right", "left") if walker.goes("forward", side)]
        return walker, [("forward",), ("forward", sides[0]), ("forward", sides[-1])]
    others = [
        direction
        for direction in ("forward", "right", "back", "left")
        if walker.goes(direction) and direction != walker.ahead
    ]
    singles = [walker.ahead, *others[:2], *2 * [others[0] if others else walker.ahead]][:3]
    return walker, [(direction,) for direction in singles]


def _uneven_path(figure: Steps, bench: Bench) -> Any:
    """Return the places at every half second of a figure, with ticks of varying length from 7 to 33 ms."""
    helm = bench.helm()
    changes = dict(figure)
    uneven = random.Random(1)
    places: list[tuple[float, float]] = []
    for half in range(HALVES):
        for control, value in changes.get(half / 2.0, []):
            helm.apply(Event(half / 2.0, control, value))
        left_s = 0.5
        while left_s > 0.0:
            dt = min(uneven.uniform(1.0 / 144.0, 1.0 / 30.0), left_s)
            intent = helm.tick(dt)
            left_s -= dt
        places.append(intent.motion[:2])
    return np.array(places)
