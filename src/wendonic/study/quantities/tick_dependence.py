"""Largest difference of the path between tick rates, as a share of the distance."""

import random
from typing import Any

import numpy as np

from wendonic.batch.trace import shaped
from wendonic.devices.event import Event
from wendonic.profile.schema.profile import Profile
from wendonic.runtime.helm import Helm
from wendonic.study.bench import Bench
from wendonic.study.probes.walker import Steps, probe
from wendonic.study.quantity import quantity


@quantity(230, "", "largest difference of the path at 30, 60, 144 Hz and uneven ticks, as a share of the distance")
def tick_dependence(bench: Bench) -> float | None:
    """Go along a figure of straight walks, turns and a stop, whose changes fall on ticks of all rates; None where
    nothing moves.
    """
    walker = bench.walker
    if walker is None:
        return None
    corners = ["right", "left", "left"] if walker.across else ["forward", "right", "back"]
    first, second, third = corners
    figure: Steps = [
        (0.5, walker.full(first)),
        (1.5, [*walker.rest(first), *walker.full(second)]),
        (2.0, [*walker.rest(second), *walker.full(third)]),
        (2.5, walker.rest(third)),
    ]
    recording = probe(figure, 3.5)
    paths = []
    for hz in (30, 60, 144):
        walked = shaped(recording, bench.moving, hz=hz, engine=bench.engine)
        path = np.column_stack([walked["pos_x"], walked["pos_y"]])
        # Every half second is the end of a tick at each rate.
        paths.append(path[hz // 2 - 1 :: hz // 2][:7])
    paths.append(_uneven_path(figure, bench.moving))
    distance_m = float(np.linalg.norm(np.diff(paths[2], axis=0), axis=1).sum())
    if distance_m == 0.0:
        return None
    return max(float(np.linalg.norm(path - paths[2], axis=1).max()) for path in paths) / distance_m


def _uneven_path(figure: Steps, profile: Profile) -> Any:
    """Return the places at every half second of a figure, in ticks of every length from 7 to 33 ms."""
    helm = Helm(profile)
    changes = dict(figure)
    uneven = random.Random(1)
    places: list[tuple[float, float]] = []
    for half in range(7):
        for control, value in changes.get(half / 2.0, []):
            helm.apply(Event(half / 2.0, control, value))
        left_s = 0.5
        while left_s > 0.0:
            dt = min(uneven.uniform(1.0 / 144.0, 1.0 / 30.0), left_s)
            intent = helm.tick(dt)
            left_s -= dt
        places.append(intent.motion[:2])
    return np.array(places)
