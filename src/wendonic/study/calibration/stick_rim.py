"""How far a stick reaches in every direction, from the times it goes round its rim."""

import math
from typing import TYPE_CHECKING, Literal, NamedTuple

from wendonic.study.calibration.estimate import NORMAL_ERRORS, Estimate
from wendonic.study.calibration.rim_reach import Reach, reach_at
from wendonic.study.calibration.stick_samples import StickSamples, says_nothing

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

HEADINGS = 36
WINDOW_DEG = 10.0
"""Samples so near to a heading count for it."""

SECTORS = 36
LEAST_REACH = 0.35
"""Nearer than this share of its farthest in any direction it is not at its rim."""

SILENT = 20
"""So many readings of nothing in a row are not a way back from the rim."""

FAR_SHARE = 0.75
"""Nearer than this share of its farthest the stick is on its way, not at the rim."""

LEAST_TURNS = 1.5
TURNS_S, TURNS_DEG = 0.1, 2.0
"""A stick that goes round turns by more than this angle in this time."""

ARRIVES_S = 0.15
"""At both ends of a stretch it may not be at the rim yet, or not any more."""

ROUND_SHARE = 0.02
"""A rim that differs from a circle by less is one."""


class StickRim(NamedTuple):
    """How far it reaches at HEADINGS headings, clockwise from forward, from where it rests; whether that is a circle;
    how far it reaches once the gate is mapped away; which samples tell.
    """

    lengths: tuple[Estimate, ...]
    gate: Literal["circle", "measured"]
    reach: Estimate
    used: "NDArray[np.bool_]"
    turns: float


def rim_samples(samples: StickSamples, x: float, y: float) -> "tuple[NDArray[np.bool_], float]":
    """Mark the samples at which the stick goes round its rim, and return how many turns that makes.

    It goes round while it is far out and turns by at least three quarters of a turn without coming in again.
    """
    import numpy as np

    count = len(samples.t)
    used = np.zeros(count, dtype=bool)
    lengths = np.hypot(samples.x - x, samples.y - y)
    if not count or lengths.max() < 0.3:
        return used, 0.0
    # A square, or a rim that is seen from beside its middle, is nearer in some directions than in others.
    sectors = (np.arctan2(samples.x - x, y - samples.y) / math.tau * SECTORS).astype(int) % SECTORS
    reaches = np.zeros(SECTORS)
    np.maximum.at(reaches, sectors, lengths)
    far = (lengths > FAR_SHARE * reaches[sectors]) & (lengths > LEAST_REACH * lengths.max())
    # A device that has nothing to say for a moment says (0, 0).
    silent = says_nothing(samples)
    for _ in range(SILENT):
        far |= silent & np.roll(far, 1)
    gaps = np.append(np.diff(samples.t) > 1.5 / samples.hz, True)
    turns = 0.0
    start = None
    for place in range(count):
        if far[place] and start is None:
            start = place
        if start is not None and (not far[place] or gaps[place]):
            end = place + 1 if far[place] else place
            angles = np.unwrap(np.arctan2(samples.x[start:end] - x, y - samples.y[start:end]))
            turned = abs(float(angles[-1] - angles[0])) / math.tau if end > start else 0.0
            if turned >= 0.75:
                arrives = round(ARRIVES_S * samples.hz)
                used[start + arrives : end - arrives] = _goes_round(angles, samples.hz)[
                    arrives : len(angles) - arrives
                ]
                turns += turned
            start = None
    return used, turns


def _goes_round(angles: "NDArray[np.float64]", hz: float) -> "NDArray[np.bool_]":
    """Mark where the heading changes; where it does not, the stick is on its way to the rim, or back."""
    import numpy as np

    reach = max(round(TURNS_S * hz / 2.0), 1)
    places = np.arange(len(angles))
    after = angles[np.minimum(places + reach, len(angles) - 1)]
    before = angles[np.maximum(places - reach, 0)]
    return np.asarray(np.abs(after - before) > math.radians(TURNS_DEG), dtype=bool)


def stick_rim(samples: StickSamples, x: float, y: float, memory: float = 1.0, step: float = 0.0) -> StickRim | None:
    """Return a stick's rim about where it rests (x, y, raw); None without LEAST_TURNS that show every heading.

    At each heading the lengths within WINDOW_DEG tell (see `reach_at`).
    """
    import numpy as np

    used, turns = rim_samples(samples, x, y)
    if turns < LEAST_TURNS:
        return None
    used &= ~says_nothing(samples)
    right, forward = samples.x[used] - x, y - samples.y[used]
    headings, lengths = np.arctan2(right, forward), np.hypot(right, forward)
    numbers = np.flatnonzero(used)
    reaches: list[Reach] = []
    for number in range(HEADINGS):
        off = (headings - math.tau * number / HEADINGS + math.pi) % math.tau - math.pi
        near = np.abs(off) <= math.radians(WINDOW_DEG)
        reach = reach_at(off[near] / math.radians(WINDOW_DEG), lengths[near], memory, step, numbers[near])
        if reach is None:
            return None
        reaches.append(reach)
    found = _with_uneven(reaches)
    values, halves = (
        np.array(column) for column in zip(*((one.value, one.high - one.low) for one in found), strict=True)
    )
    middle, half = float(values.mean()), float(halves.mean()) / 2.0
    # As far as is known, it may be one.
    is_round = float(np.ptp(values)) / 2.0 <= ROUND_SHARE * middle or float(values.std()) <= half
    # The same stick at the same rim: what is off at one heading may be off at all of them.
    middle = middle if is_round else 1.0
    whole = Estimate(middle, middle - half, middle + half, int(used.sum()))
    return StickRim(found, "circle" if is_round else "measured", whole, used, turns)


def _with_uneven(reaches: list[Reach]) -> tuple[Estimate, ...]:
    """Return the lengths at all headings. Their intervals allow for a hand that pushes harder at one time than at
    another; by how much is known from all headings together.
    """
    more = sum(reach.visits - 1 for reach in reaches)
    uneven = max(sum((reach.visits - 1) * reach.uneven for reach in reaches) / more, 0.0) if more else 0.0
    found = []
    for length, visits, _ in reaches:
        off = NORMAL_ERRORS * math.sqrt(uneven / visits)
        low, high = math.hypot(length.value - length.low, off), math.hypot(length.high - length.value, off)
        found.append(length._replace(low=length.value - low, high=length.value + high))
    return tuple(found)
