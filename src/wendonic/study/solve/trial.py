"""Tries and measures values of free settings, and finds those that meet some targets."""

import itertools
import math
from collections.abc import Callable, Mapping, Sequence
from typing import Any, NamedTuple

from wendonic.batch import Engine
from wendonic.errors import ProfileError, WendonicError
from wendonic.profile.schema.profile import Profile
from wendonic.study.feel_sheet import measure
from wendonic.study.quantities import QUANTITIES

Range = tuple[float | None, float | None]
"""The lower and upper limit of a quantity; None for no limit."""

STEP = 0.03
"""Share by which a setting is changed to find its effect; the effect of a much smaller change would be lost among the
ticks.
"""

MOST_FROM_START = 100.0
REACHED = 2e-3
"""Share by which a target may be missed and count as met while it is solved for."""

INSIDE = 2.0 * REACHED
"""Share by which a solution stays inside a limit, so that it keeps the limit after rounding."""

COUNTED = "steps"
"""Unit of whole numbers, which may be at the limit itself."""

MISSED = 10.0
"""By how much an invalid profile, or one without the quantity, misses a target."""

NEAR = (1e-2, 1e-4)
"""Weights of staying near the start: first to choose among solutions, then to reach the targets as well as possible.
"""

SCANNED = 25
HALVINGS = 14
BETTER = 0.98
"""A scan must reduce the sum of squares to this share to count as better."""

IDLE = 1e-3
"""A target that changes by no more than this share, with a setting e times as large, does not depend on it."""

OPEN = 0.2
"""Share of a setting that the targets leave open from which it is called undetermined."""


class Solution(NamedTuple):
    """Values of the free settings, and for each whether no target depends on it, whether it is at its limit, whether
    the targets leave it open, and the fault that keeps it from going further, "" for none.
    """

    values: list[float]
    idle: list[bool]
    at_limit: list[bool]
    undetermined: list[bool]
    refused: list[str]


class Trial:
    """Measures the targets for values of the free settings, each (path, start, least, most), and solves for them."""

    def __init__(
        self,
        content: Mapping[str, Any],
        targets: Mapping[str, Range],
        free: Sequence[tuple[str, float, float, float]],
        mode: str | None = None,
        engine: Engine = "auto",
        by: str | None = None,
        held: str | None = None,
        seat: str | None = None,
    ) -> None:
        """Measure the start; raises `WendonicError` for a quantity that the mode does not have."""
        self._content, self.targets, self._free = content, dict(targets), list(free)
        self._aims = {
            name: ends if QUANTITIES[name].unit == COUNTED else _inside(*ends) for name, ends in self.targets.items()
        }
        self._how: dict[str, Any] = {"mode": mode, "engine": engine, "by": by, "held": held, "seat": seat}
        self.starts = [start for _, start, _, _ in free]
        self._seen: dict[tuple[float, ...], dict[str, float | None]] = {}
        first, reasons = self._measured(self.starts)
        missing = [f"{name} ({reasons.get(name, 'no value')})" for name, value in first.items() if value is None]
        if missing:
            raise WendonicError(f"this mode has no {', '.join(missing)}; wendonic measure shows what it has")
        self.before: dict[str, float] = {name: value for name, value in first.items() if value is not None}
        self._packs()

    def single(self, quantity: str) -> "Trial":
        """Return the same trial with one target only."""
        return Trial(self._content, {quantity: self.targets[quantity]}, self._free, **self._how)

    def _packs(self) -> None:
        """Set the variables of the solver, the logarithms of settings above 0 and others as they are, and their
        bounds.
        """
        self._logs = [start > 0.0 and low >= 0.0 for _, start, low, _ in self._free]
        self._begins, self._lows, self._highs = [], [], []
        for (_, start, low, high), log in zip(self._free, self._logs, strict=True):
            if log:
                self._begins.append(math.log(start))
                self._lows.append(math.log(max(low * (1.0 + 1e-9), start / MOST_FROM_START)))
                self._highs.append(math.log(min(high * (1.0 - 1e-9), start * MOST_FROM_START)))
            else:
                self._begins.append(start)
                self._lows.append(max(low, start - MOST_FROM_START))
                self._highs.append(min(high, start + MOST_FROM_START))
        pairs = zip(self._begins, self._logs, strict=True)
        self._steps = [STEP if log else max(abs(begin), 0.1) * STEP for begin, log in pairs]

    def _unpacked(self, packed: Any) -> list[float]:
        values: list[float] = []
        for value, log, (_, _, low, high) in zip(packed, self._logs, self._free, strict=True):
            number = math.exp(value) if log else float(value)
            # The solver stays slightly inside its bounds.
            near = [end for end in (low, high) if not log and abs(number - end) < 1e-6]
            values.append(near[0] if near else number)
        return values

    def _measured(self, values: Sequence[float]) -> tuple[dict[str, float | None], dict[str, Any]]:
        paths = (path for path, _, _, _ in self._free)
        changed = Profile.from_content(self._content, dict(zip(paths, map(float, values), strict=True)))
        sheet = measure(changed, only=tuple(self.targets), **self._how)
        return {name: sheet[name] for name in self.targets}, sheet.reasons

    def measured(self, values: Sequence[float]) -> dict[str, float | None]:
        """Return the targets' quantities for values of the settings, each measured only once."""
        key = tuple(values)
        if key not in self._seen:
            self._seen[key] = self._measured(values)[0]
        return self._seen[key]

    def misses(self, packed: Any) -> list[float]:
        """Return by what share each target is missed; MISSED for settings that do not fit together."""
        try:
            found = self.measured(self._unpacked(packed))
        except ProfileError:
            return [MISSED] * len(self.targets)
        return [_missed(found[name], *ends) for name, ends in self._aims.items()]

    def _slopes(self, packed: Any, numbers: Callable[[Any], list[float]]) -> Any:
        """Return the slopes of numbers over the settings, one row for each number."""
        import numpy as np

        columns = []
        for index, step in enumerate(self._steps):
            ends = []
            for change in (step, -step):
                moved = np.array(packed, dtype=float)
                moved[index] = min(max(moved[index] + change, self._lows[index]), self._highs[index])
                ends.append((moved[index], np.array(numbers(moved))))
            (there, ahead), (back, behind) = ends
            columns.append((ahead - behind) / max(there - back, 1e-12))
        return np.nan_to_num(np.array(columns).T)

    def _values(self, packed: Any) -> list[float]:
        """Return the quantities; NaN for one without a value."""
        try:
            found = self.measured(self._unpacked(packed))
        except ProfileError:
            return [math.nan] * len(self.targets)
        return [math.nan if value is None else float(value) for value in found.values()]

    def _squared(self, begin: Any, near: float) -> Any:
        """Return the result of least squares from a start, with this weight of the starting values."""
        import numpy as np
        from scipy.optimize import least_squares

        starts, scale = np.array(self._begins), np.array(self._steps) / STEP
        clipped = np.clip(begin, np.array(self._lows) + 1e-9, np.array(self._highs) - 1e-9)
        return least_squares(
            lambda packed: np.concatenate([self.misses(packed), near * (packed - starts) / scale]),
            clipped,
            jac=lambda packed: np.concatenate([self._slopes(packed, self.misses), near * np.diag(1.0 / scale)]),
            bounds=(self._lows, self._highs),
            xtol=1e-5,
            max_nfev=40,
        ).x

    def solved(self) -> Solution:
        """Return the solution nearest to the start, or the one that misses the targets least."""
        import numpy as np

        start = np.array(self._begins, dtype=float)
        best = start
        if not self._met(start):
            for near in NEAR:
                best = min(best, self._squared(best, near), key=self._worst)
        slopes = np.abs(self._slopes(best, self._values)) + np.abs(self._slopes(start, self._values))
        scale = np.array([max(abs(value), 1e-6) for value in self.before.values()])
        idle = [bool(column.max() < IDLE) for column in (slopes / scale[:, None]).T]
        if not self._met(best):
            # If nothing has a slope, a quantity may change in steps, and every setting is worth a try.
            tried = [index for index, still in enumerate(idle) if not still or all(idle)]
            best = self._scanned(best, tried)
            idle = [still and abs(best[index] - start[index]) < 1e-9 for index, still in enumerate(idle)]
        moved = np.abs(best - start) > 1e-9
        ends = zip(best, self._lows, self._highs, idle, moved, strict=True)
        at_limit = [bool(not still and went and min(x - low, high - x) < 1e-3) for x, low, high, still, went in ends]
        refused = [""] * len(idle)
        for index, (limit, still, went) in enumerate(zip(at_limit, idle, moved, strict=True)):
            if went and not limit and not still and not self._met(best):
                best, refused[index] = self._to_the_edge(best, index)
        return Solution(self._unpacked(best), idle, at_limit, self._open(best, idle), refused)

    def _to_the_edge(self, packed: Any, index: int) -> tuple[Any, str]:
        """Move a setting on in the direction of its change until the profile would have faults; return the better of
        the old and new values, and the faults, "" for none.
        """
        import numpy as np

        step = math.copysign(self._steps[index], packed[index] - self._begins[index])
        direction = np.eye(len(packed))[index]
        faults = self._faults(packed + step * direction)
        if not faults:
            return packed, ""
        share = 0.0
        for power in range(1, HALVINGS):
            further = share + 0.5**power
            share = share if self._faults(packed + further * step * direction) else further
        return min(packed, packed + share * step * direction, key=self._worst), faults

    def _faults(self, packed: Any) -> str:
        try:
            self.measured(self._unpacked(packed))
        except ProfileError as refused:
            return refused.in_words()
        return ""

    def _worst(self, packed: Any) -> float:
        return math.fsum(miss * miss for miss in self.misses(packed))

    def _met(self, packed: Any) -> bool:
        try:
            found = self.measured(self._unpacked(packed))
        except ProfileError:
            return False
        return all(
            abs(_missed(found[name], *aim)) <= REACHED or _missed(found[name], *self.targets[name]) == 0.0
            for name, aim in self._aims.items()
        )

    def _scanned(self, begin: Any, indices: Sequence[int]) -> Any:
        """Return the best values found by scanning the settings one after the other over their whole range, with
        bisection wherever a target changes sides, for quantities that change in steps.
        """
        import numpy as np

        best = np.array(begin, dtype=float)
        for index in indices if len(indices) == 1 else (*indices, *indices):
            tried = []
            for value in np.linspace(self._lows[index], self._highs[index], SCANNED):
                packed = best.copy()
                packed[index] = value
                tried.append((self._worst(packed), packed, self.misses(packed)))
            for (_, low, below), (_, high, above) in itertools.pairwise(tuple(tried)):
                if any(one * other < 0.0 for one, other in zip(below, above, strict=True)):
                    tried.append(self._halved(low, below, high))
            least = min(tried, key=lambda one: (round(one[0], 12), abs(one[1][index] - self._begins[index])))
            if least[0] < BETTER * self._worst(best):
                best = least[1]
            if self._met(best):
                return best
        again = self._squared(best, NEAR[1])
        return min(best, again, key=self._worst)

    def _halved(self, low: Any, below: Any, high: Any) -> tuple[float, Any, Any]:
        sign = next(
            index for index, (one, other) in enumerate(zip(below, self.misses(high), strict=True)) if one * other < 0
        )
        found = (self._worst(low), low, below)
        for _ in range(HALVINGS):
            middle = (low + high) / 2.0
            misses = self.misses(middle)
            found = min(found, (self._worst(middle), middle, misses), key=lambda one: one[0])
            low, high = (middle, high) if misses[sign] * below[sign] > 0.0 else (low, middle)
        return found

    def _open(self, packed: Any, idle: Sequence[bool]) -> list[bool]:
        """Return which settings the targets leave open: those that can be changed together without missing any
        target.
        """
        import numpy as np

        if not self._met(packed):
            return [False] * len(idle)
        found = self.measured(self._unpacked(packed))
        on_end = [
            any(end is not None and abs((found[name] or 0.0) - end) <= REACHED * max(abs(end), 1e-6) for end in ends)
            for name, ends in self._aims.items()
        ]
        rows = self._slopes(packed, self._values)[on_end]
        if not len(rows):
            return [not still for still in idle]
        scale = np.maximum(np.abs(rows).max(axis=1, keepdims=True), 1e-12)
        _, sizes, directions = np.linalg.svd(rows / scale)
        free = directions[int((sizes > 1e-3 * sizes[0]).sum()) :] if sizes[0] > 0.0 else directions
        shares = np.sqrt((free**2).sum(axis=0)) if len(free) else np.zeros(rows.shape[1])
        return [bool(share > OPEN) and not still for share, still in zip(shares, idle, strict=True)]


def _inside(low: float | None, high: float | None) -> Range:
    """Return limits slightly inside others, or a single number as it is.

    >>> _inside(None, 10.0), _inside(2.0, 2.0)
    ((None, 9.96), (2.0, 2.0))
    """
    spare = INSIDE * max(abs(end) for end in (low, high) if end is not None)
    if low is not None and high is not None:
        spare = min(spare, 0.25 * (high - low))
    return None if low is None else low + spare, None if high is None else high - spare


def _missed(value: float | None, low: float | None, high: float | None) -> float:
    """Return by what share of the nearest end a value is outside a range; 0 inside it. A share m counts as m / (1 +
    |m| / MISSED), so that a quantity with a value never misses by as much as one without.

    >>> _missed(0.15, 0.1, 0.2), round(_missed(0.3, None, 0.2), 6), _missed(None, 0.0, 1.0)
    (0.0, 0.47619, 10.0)
    """
    if value is None:
        return MISSED
    share = 0.0
    if low is not None and value < low:
        share = (value - low) / max(abs(low), 1e-3)
    elif high is not None and value > high:
        share = (value - high) / max(abs(high), 1e-3)
    return share / (1.0 + abs(share) / MISSED)
