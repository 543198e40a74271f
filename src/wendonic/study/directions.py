"""How fast a body goes in eight directions."""

import math

import numpy as np

from wendonic.batch import Engine
from wendonic.batch.trace import shaped
from wendonic.profile.schema.profile import Profile
from wendonic.study.motion import speeds_m_s
from wendonic.study.probes.walker import Steps, Walker, probe
from wendonic.study.step_response import hold_s

EIGHT_DIRECTIONS = (
    ("forward",),
    ("forward", "right"),
    ("right",),
    ("back", "right"),
    ("back",),
    ("back", "left"),
    ("left",),
    ("forward", "left"),
)


def speeds_all_round(profile: Profile, walker: Walker, engine: Engine = "auto") -> list[float]:
    """Return the steady speed (m/s) in each of eight directions, clockwise from forward."""
    held_s = math.ceil(hold_s(profile))
    steps: Steps = []
    for number, together in enumerate(EIGHT_DIRECTIONS):
        if number and not walker.stick:
            steps.append((number * held_s, walker.rest(*EIGHT_DIRECTIONS[number - 1])))
        steps.append((number * held_s, walker.full(*together)))
    walked = shaped(probe(steps, len(EIGHT_DIRECTIONS) * held_s), profile, hz=60, engine=engine)
    return [float(speed) for speed in speeds_m_s(walked)[held_s * 60 - 1 :: held_s * 60]]


def spread(speeds: list[float]) -> float | None:
    """Return the largest deviation from the mean, as a share of it; None if nothing moves.

    >>> spread([2.0, 2.0, 2.0, 4.0])
    0.6
    """
    mean = float(np.mean(speeds))
    return float(np.max(np.abs(np.array(speeds) - mean)) / mean) if mean > 0.0 else None
