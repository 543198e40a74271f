"""How far a stick reaches in every direction, from the times it is moved round its rim."""

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
"""Samples within this angle of a heading count for it."""

SECTORS = 36
LEAST_REACH = 0.35
"""Below this share of its largest reach in any direction, the stick is not at its rim."""

SILENT = 20
"""Up to this many readings of (0, 0) in a row do not mean that the stick left the rim."""

FAR_SHARE = 0.75
"""Below this share of its reach at a heading, the stick is on its way to or from the rim."""

LEAST_TURNS = 1.5
TURNS_S, TURNS_DEG = 0.1, 2.0
"""A stick that moves round its rim turns by more than this angle in this time."""

ARRIVES_S = 0.15
"""At both ends of a stretch the stick may not be at the rim."""

ROUND_SHARE = 0.02
"""A rim that differs from a circle by less than this counts as a circle."""


class StickRim(NamedTuple):
    """The reach at HEADINGS headings, clockwise from forward, from the rest point; the gate that fits it; the reach
    that is left once the gate is applied; which samples were used; and how many turns they make.
    """

    lengths: tuple[Estimate, ...]
    gate: Literal["circle", "measured"]
    reach: Estimate
    used: "NDArray[np.bool_]"
    turns: float


def rim_samples(samples: StickSamples, x: float, y: float) -> "tuple[NDArray[np.bool_], float]":
    """Mark the samples at which the stick is moved round its rim, and return how many turns that makes.

    A stretch counts if the stick is far out and turns by at least three quarters of a turn without coming back in.
    """
    import numpy as np

    count = len(samples.t)
    used = np.zeros(count, dtype=bool)
    lengths = np.hypot(samples.x - x, samples.y - y)
    if not count or lengths.max() < 0.3:
        return used, 0.0
    # A square, or a rim seen from a point off its middle, is nearer in some directions than in others.
    sectors = (np.arctan2(samples.x - x, y - samples.y) / math.tau * SECTORS).astype(int) % SECTORS
    reaches = np.zeros(SECTORS)
    np.maximum.at(reaches, sectors, lengths)
    far = (lengths > FAR_SHARE * reaches[sectors]) & (lengths > LEAST_REACH * lengths.max())
    # Some devices report (0, 0) when they have nothing to report.
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
    """Mark where the heading changes; elsewhere the stick is on its way to the rim, or back."""
    import numpy as np

    reach = max(round(TURNS_S * hz / 2.0), 1)
    places = np.arange(len(angles))
    after = angles[np.minimum(places + reach, len(angles) - 1)]
    before = angles[np.maximum(places - reach, 0)]
    return np.asarray(np.abs(after - before) > math.radians(TURNS_DEG), dtype=bool)


def stick_rim(samples: StickSamples, x: float, y: float, memory: float = 1.0, step: float = 0.0) -> StickRim | None:
    """Return a stick's rim about where it rests (x, y, raw); None without LEAST_TURNS that show every heading.

    At each heading the lengths within WINDOW_DEG are used (see `reach_at`).
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
    # Within the intervals it may be a circle.
    is_round = float(np.ptp(values)) / 2.0 <= ROUND_SHARE * middle or float(values.std()) <= half
    # One stick at one rim: the errors at all headings may have the same sign.
    middle = middle if is_round else 1.0
    whole = Estimate(middle, middle - half, middle + half, int(used.sum()))
    return StickRim(found, "circle" if is_round else "measured", whole, used, turns)


def _with_uneven(reaches: list[Reach]) -> tuple[Estimate, ...]:
    """Return the lengths at all headings. Their intervals allow for a hand that does not always push equally hard, by
    the variance found over all headings together.
    """
    more = sum(reach.visits - 1 for reach in reaches)
    uneven = max(sum((reach.visits - 1) * reach.uneven for reach in reaches) / more, 0.0) if more else 0.0
    found = []
    for length, visits, _ in reaches:
        off = NORMAL_ERRORS * math.sqrt(uneven / visits)
        low, high = math.hypot(length.value - length.low, off), math.hypot(length.high - length.value, off)
        found.append(length._replace(low=length.value - low, high=length.value + high))
    return tuple(found)
