"""Settings solved for: which numbers give the feel that is asked for."""

import math
import tomllib
from collections.abc import Mapping, Sequence
from typing import Any, NamedTuple

from wendonic.batch import Engine
from wendonic.errors import ProfileError, WendonicError
from wendonic.profile.edit import edited, limits_of, value_at, with_values
from wendonic.profile.load import profile_from_text
from wendonic.study.feel_sheet import known_quantity, measure

REACHED_SHARE = 0.01
"""A target counts as reached to a hundredth of it: nobody feels less."""

STEP = 0.03
"""Share by which a setting is changed to see what that does; much less would drown in the ticks."""

MOST_FROM_START = 100.0
DIGITS = 4
TRIALS = 10
"""Feel sheets that a free setting takes, about."""


class Target(NamedTuple):
    """A quantity that was asked for: what it was, what it should be, what it is now."""

    quantity: str
    before: float
    wanted: float
    after: float

    @property
    def reached(self) -> bool:
        """Whether it is there, to REACHED_SHARE."""
        return abs(self.after - self.wanted) <= REACHED_SHARE * max(abs(self.wanted), 1e-6)


class FreeSetting(NamedTuple):
    """A setting that was solved for; `idle` if no target depends on it, `at_limit` if it would have gone further."""

    path: str
    before: float
    after: float
    idle: bool
    at_limit: bool


class Fitted(NamedTuple):
    """What came of it, and the new profile's text."""

    targets: tuple[Target, ...]
    settings: tuple[FreeSetting, ...]
    text: str

    @property
    def reached(self) -> bool:
        """Whether every target is there."""
        return all(target.reached for target in self.targets)


class _Trial:
    """Measures the targets for values of the free settings."""

    def __init__(
        self,
        text: str,
        targets: Mapping[str, float],
        free: Sequence[str],
        mode: str | None,
        engine: Engine,
        by: str | None,
        held: str | None,
    ) -> None:
        profile = profile_from_text(text)
        known = [(*known_quantity(name, profile.world.length), wanted) for name, wanted in targets.items()]
        targets = {name: wanted * factor for name, factor, wanted in known}
        if not targets or not free:
            raise WendonicError("a fit needs a target and a free setting")
        self.targets, self.free, self.mode, self.engine = dict(targets), list(free), mode, engine
        self.by, self.held = by, held
        self.content = tomllib.loads(text)
        self.limits = [limits_of(profile, path) for path in free]
        self.starts = [float(value_at(profile, path)) for path in free]
        self.scales = [max(abs(wanted), 1e-3) for wanted in targets.values()]
        first = self.measured(self.starts)
        missing = [name for name, value in first.items() if value is None]
        if missing:
            raise WendonicError(f"this mode has no {', '.join(missing)}; wendonic measure shows what it has")
        self.before: dict[str, float] = {name: value for name, value in first.items() if value is not None}

    def measured(self, values: Sequence[float]) -> dict[str, float | None]:
        changed = with_values(self.content, dict(zip(self.free, map(float, values), strict=True)))
        sheet = measure(changed, self.mode, self.engine, tuple(self.targets), self.by, self.held)
        return {name: getattr(sheet, name) for name in self.targets}

    def misses(self, values: Sequence[float]) -> list[float]:
        """Return by what share each target is missed; settings that do not go together miss by far."""
        try:
            found = self.measured(values)
        except ProfileError:
            return [10.0] * len(self.targets)
        pairs = zip(self.targets.items(), self.scales, strict=True)
        return [
            10.0 if (value := found[name]) is None else (value - wanted) / scale for (name, wanted), scale in pairs
        ]


def fit(
    text: str,
    targets: Mapping[str, float],
    free: Sequence[str],
    mode: str | None = None,
    engine: Engine = "auto",
    by: str | None = None,
    held: str | None = None,
) -> Fitted:
    """Solve for the free settings (field paths) of a profile's text so that its feel sheet meets the targets.

    Least squares of the shares by which the targets are missed (SciPy, trust region reflective), within the limits
    that each setting has, over the logarithms of settings above 0. `engine` is that of `wendonic.shape`; `by`
    and `held` are as in `measure`. What could not be reached is reported as it is. A target may be in the game's own
    unit (`stop_distance_u`).

    Raises `ProfileError` for a text with faults, `WendonicError` for a quantity or a setting that does not exist, or
    a quantity that the mode does not have.

    >>> from wendonic.demo import PROFILE_PATH
    >>> found = fit(PROFILE_PATH.read_text(), {"reach90_s": 0.2}, ["gait.walk.accel_m_s2"])
    >>> found.reached, 14.0 < found.settings[0].after < 16.0
    (True, True)
    """
    import numpy as np
    from scipy.optimize import least_squares

    trial = _Trial(text, targets, free, mode, engine, by, held)
    logs = [start > 0.0 and low >= 0.0 for start, (low, _) in zip(trial.starts, trial.limits, strict=True)]

    def unpacked(packed: Any) -> list[float]:
        values: list[float] = []
        for value, log, (low, high) in zip(packed, logs, trial.limits, strict=True):
            number = math.exp(value) if log else float(value)
            # The solver keeps a hair away from its bounds.
            near = [end for end in (low, high) if not log and abs(number - end) < 1e-6]
            values.append(near[0] if near else number)
        return values

    begins, lows, highs = [], [], []
    for start, (low, high), log in zip(trial.starts, trial.limits, logs, strict=True):
        if log:
            begins.append(math.log(start))
            lows.append(math.log(max(low * (1.0 + 1e-9), start / MOST_FROM_START)))
            highs.append(math.log(min(high * (1.0 - 1e-9), start * MOST_FROM_START)))
        else:
            begins.append(start)
            lows.append(max(low, start - MOST_FROM_START))
            highs.append(min(high, start + MOST_FROM_START))
    scale = [STEP if log else max(abs(begin), 0.1) * STEP for begin, log in zip(begins, logs, strict=True)]

    def slopes(packed: Any) -> Any:
        columns = []
        for place, step in enumerate(scale):
            ends = []
            for change in (step, -step):
                moved = np.array(packed, dtype=float)
                moved[place] = min(max(moved[place] + change, lows[place]), highs[place])
                ends.append((moved[place], trial.misses(unpacked(moved))))
            (there, misses), (back, other) = ends
            columns.append((np.array(misses) - np.array(other)) / max(there - back, 1e-12))
        return np.array(columns).T

    inside = np.clip(begins, np.array(lows) + 1e-9, np.array(highs) - 1e-9)
    solved = least_squares(
        lambda packed: trial.misses(unpacked(packed)),
        inside,
        jac=slopes,
        bounds=(lows, highs),
        xtol=1e-5,
        max_nfev=40,
    )
    # What has come to where it changes nothing any more was not idle on the way.
    ever = np.maximum(np.abs(slopes(inside)), np.abs(np.array(solved.jac)))
    idle = [bool(column.max() < 1e-6) for column in ever.T]
    values = [
        start if unused else _rounded(value)
        for start, value, unused in zip(trial.starts, unpacked(solved.x), idle, strict=True)
    ]
    after = trial.measured(values)
    settings = tuple(
        FreeSetting(path, start, value, unused, not unused and min(x - low, high - x) < 1e-3)
        for path, start, value, unused, x, low, high in zip(
            free, trial.starts, values, idle, solved.x, lows, highs, strict=True
        )
    )
    found = tuple(
        Target(name, trial.before[name], wanted, math.nan if after[name] is None else float(after[name] or 0.0))
        for name, wanted in trial.targets.items()
    )
    changes = {setting.path: setting.after for setting in settings if not setting.idle}
    return Fitted(found, settings, edited(text, changes))


def _rounded(value: float) -> float:
    return float(f"{value:.{DIGITS}g}")


def targets_of(words: Sequence[str]) -> dict[str, float]:
    """Return targets from words such as "reach90_s=0.12".

    >>> targets_of(["reach90_s=0.12"])
    {'reach90_s': 0.12}
    """
    targets: dict[str, float] = {}
    for word in words:
        name, _, value = word.partition("=")
        try:
            targets[name] = float(value)
        except ValueError:
            raise WendonicError(f"{word}: allowed: QUANTITY=NUMBER, such as reach90_s=0.12") from None
        if not math.isfinite(targets[name]):
            raise WendonicError(f"{word}: allowed: a finite number")
    return targets
