"""Solves for settings that give a requested feel."""

import math
import re
from collections.abc import Mapping, Sequence
from typing import Any, NamedTuple

from wendonic.batch import Engine
from wendonic.devices.event import finite
from wendonic.errors import ProfileError, WendonicError
from wendonic.length_unit import LengthUnit
from wendonic.profile.schema.profile import Profile, known_profile
from wendonic.profile.units import spelled_in
from wendonic.profile.value_at import number_at, value_at, whole_at
from wendonic.significant import significant
from wendonic.study.feel_sheet import known_quantity, value_words
from wendonic.study.in_columns import in_columns
from wendonic.study.quantities import QUANTITIES
from wendonic.study.solve.trial import Range, Solution, Trial

REACHED_SHARE = 0.01
"""A value counts as reached within this share; a smaller difference cannot be felt."""

ROUNDING = 1e-9

DIGITS = 4

_NOTE_GAP = "  "


class Target(NamedTuple):
    """A requested quantity: its value before, its lower and upper limit (None: no limit), and its value now."""

    quantity: str
    before: float
    low: float | None
    high: float | None
    after: float

    @property
    def reached(self) -> bool:
        """Whether it is reached: a value within REACHED_SHARE, a limit or a range exactly."""
        share = REACHED_SHARE if self.low == self.high else ROUNDING
        spare = share * max(abs(end) for end in (self.low, self.high, 1e-6) if end is not None)
        above = self.low is None or self.after >= self.low - spare
        return above and (self.high is None or self.after <= self.high + spare)


class FreeSetting(NamedTuple):
    """A free setting: its value before (None: the file did not have it) and now; `idle` if no target depends on it,
    `at_limit` if its own limit stopped it, `undetermined` if the targets leave it open, so that it stays as near to
    its start as they allow; `refused` is the fault that the profile would have if it went further, "" for none.
    """

    path: str
    before: float | None
    after: float
    idle: bool
    at_limit: bool
    undetermined: bool
    refused: str


class Trade(NamedTuple):
    """A target that was not reached together with the others: whether it can be reached alone, its value then, and
    the values of the others; `idle` if it depends on none of the free settings.
    """

    quantity: str
    reachable_alone: bool
    value: float
    others: dict[str, float]
    idle: bool


class Fitted(NamedTuple):
    """The targets, the free settings, and the profile with them; `trades` if targets conflict.

    >>> from wendonic.demo import demo_profile
    >>> found = fit(demo_profile(), {"stop_distance_m": (None, 0.1)}, ["gait.walk.brake_m_s2"])
    >>> print("\\n".join(str(found).splitlines()[:2]))
    target           before  wanted      after
    stop_distance_m  0.1707  <= 0.1  0.09959 m
    >>> found.reached, found.settings[0].after
    (True, 51.41)
    """

    targets: tuple[Target, ...]
    settings: tuple[FreeSetting, ...]
    profile: Profile
    trades: tuple[Trade, ...] = ()

    @property
    def reached(self) -> bool:
        """Whether every target is reached."""
        return all(target.reached for target in self.targets)

    def __str__(self) -> str:
        """Return what was reached with which settings, as `wendonic fit` prints it."""
        length = self.profile.world.length
        rows = [("target", "before", "wanted", "after", "")]
        rows += [(*target_words(target, length), "" if target.reached else "not reached") for target in self.targets]
        settings = [("setting", "before", "after", "")]
        settings += [(*setting_words(setting), setting_note(setting)) for setting in self.settings]
        return "\n".join([in_columns(rows, _NOTE_GAP), "", in_columns(settings, _NOTE_GAP), *missed_words(self)])


def target_words(target: Target, length: LengthUnit) -> tuple[str, str, str, str]:
    """Return a target's name, and its value before, the requested and the final value with its unit, as text."""
    unit = QUANTITIES[target.quantity].unit
    factor = length.factor(unit)
    wanted = range_words(target.low, target.high, lambda value: value_words(value, factor))
    after = f"{value_words(target.after, factor)} {length.label(unit)}".rstrip()
    return spelled_in(length, target.quantity), value_words(target.before, factor), wanted, after


def setting_words(setting: FreeSetting) -> tuple[str, str, str]:
    """Return a setting's path, and its value before and now, as text."""
    before = "-" if setting.before is None else significant(setting.before, 6)
    return setting.path, before, significant(setting.after, 6)


def setting_note(setting: FreeSetting) -> str:
    """Return a note about a setting, "" if there is nothing to say."""
    if setting.idle:
        return "affects none of the targets"
    if setting.at_limit:
        return "at its limit"
    return "not determined by the targets; nearest to its start" if setting.undetermined else ""


def missed_words(found: Fitted) -> list[str]:
    """Return a sentence for each thing that keeps targets from being reached."""
    refused = [f"{one.path} goes no further: {one.refused}" for one in found.settings if one.refused]
    return refused + [trade_words(trade, found.profile.world.length) for trade in found.trades]


def trade_words(trade: Trade, length: LengthUnit) -> str:
    """Say whether a target can be reached alone, and what the others are then."""
    name = spelled_in(length, trade.quantity)
    if trade.idle:
        return f"{name} depends on none of the free settings"
    value = _with_unit(length, trade.quantity, trade.value)
    others = ", ".join(
        f"{spelled_in(length, other)} {_with_unit(length, other, one)}" for other, one in trade.others.items()
    )
    if trade.reachable_alone:
        return f"{name} can be reached alone: {value}, at the cost of {others}"
    return f"{name} cannot be reached even alone: {value} is the nearest, with {others}"


def _with_unit(length: LengthUnit, quantity: str, value: float) -> str:
    return length.words(value, QUANTITIES[quantity].unit, ".4g").rstrip()


def fit(
    profile: Profile,
    targets: Mapping[str, float | Range],
    free: Sequence[str],
    mode: str | None = None,
    engine: Engine = "auto",
    by: str | None = None,
    held: str | None = None,
    seat: str | None = None,
) -> Fitted:
    """Solve for the free settings (field paths) of a profile so that its feel sheet meets the targets.

    A target is a number, or the smallest and largest value allowed, None for no limit; also in the game's own unit
    (`stop_distance_u`). A setting that the file lacks starts at its field's example. It minimises the squares of the
    shares by which the targets are missed (SciPy, trust region reflective), within the limits that each setting has,
    over the logarithms of settings above 0; of all answers it takes the one nearest to the start. If a quantity
    changes in steps, and so has no slope, the settings are tried over their whole range. `engine` is that of
    `wendonic.shape`; `by`, `held` and `seat` are as in `measure`.

    If targets are not reached, the nearest values are reported; if each of them could be reached alone, `trades` says
    at what cost.

    Raises `WendonicError` for a quantity or a setting that does not exist, or a quantity that the mode does not have.

    >>> from wendonic.demo import demo_profile
    >>> found = fit(demo_profile(), {"reach90_s": 0.2}, ["gait.walk.accel_m_s2"])
    >>> found.reached, 14.0 < found.profile.gait["walk"].accel_m_s2 < 16.0
    (True, True)
    >>> fit(demo_profile(), {"reach90_s": (None, 0.2)}, ["gait.walk.accel_m_s2"]).settings[0].after
    22.0
    """
    content = known_profile(profile).file_content()
    free = [free] if isinstance(free, str) else list(dict.fromkeys(free))
    if not targets or not free:
        raise WendonicError("a fit needs a target and a free setting")
    ranges: dict[str, Range] = {}
    for name, wanted in targets.items():
        known, factor = known_quantity(name, profile.world.length)
        ends = tuple(wanted) if isinstance(wanted, tuple | list) else (wanted, wanted)
        if len(ends) != 2 or any(end is not None and finite(end) is None for end in ends):
            raise WendonicError(
                f"{name}: found {wanted!r}; allowed: a finite number, or a pair: the least and the most"
            )
        low, high = ends
        ranges[known] = (None if low is None else low * factor, None if high is None else high * factor)
    starts = [(path, *number_at(profile, path)) for path in free]
    whole = [path for path in free if whole_at(profile, path)]
    if whole:
        raise WendonicError(f"cannot solve for {', '.join(whole)}: whole numbers only; try their values in a sweep")
    try:
        trial = Trial(content, ranges, starts, mode, engine, by, held, seat)
    except ProfileError as refused:
        raise WendonicError(f"cannot solve for {', '.join(free)}: {refused.in_words()}") from None
    solution = trial.solved()
    exact = [
        start if idle else value
        for start, value, idle in zip(trial.starts, solution.values, solution.idle, strict=True)
    ]
    values = [value if idle else _rounded(value) for value, idle in zip(exact, solution.idle, strict=True)]
    try:
        after = trial.measured(values)
    except ProfileError:
        # A rounded value may lie slightly past what another setting allows.
        values, after = exact, trial.measured(exact)
    found = tuple(
        Target(name, trial.before[name], low, high, math.nan if after[name] is None else float(after[name] or 0.0))
        for name, (low, high) in trial.targets.items()
    )
    settings = tuple(
        FreeSetting(path, start if _has(profile, path) else None, value, *notes)
        for path, start, value, *notes in zip(
            free,
            trial.starts,
            values,
            solution.idle,
            solution.at_limit,
            solution.undetermined,
            solution.refused,
            strict=True,
        )
    )
    missed = [target.quantity for target in found if not target.reached]
    trades = tuple(_traded(trial, name) for name in missed) if missed and len(found) > 1 else ()
    changes = {
        setting.path: setting.after
        for setting, start in zip(settings, trial.starts, strict=True)
        if not setting.idle and (setting.after != start or setting.before is None)
    }
    return Fitted(found, settings, profile.changed(changes), trades)


def _has(profile: Any, path: str) -> bool:
    return value_at(profile, path) is not None


def _traded(trial: Trial, quantity: str) -> Trade:
    """Return the result of solving for one target alone."""
    single = trial.single(quantity)
    solution: Solution = single.solved()
    found = trial.measured(solution.values)
    low, high = trial.targets[quantity]
    value = math.nan if found[quantity] is None else float(found[quantity] or 0.0)
    others = {name: float(one) for name, one in found.items() if name != quantity and one is not None}
    reached = Target(quantity, 0.0, low, high, value).reached
    return Trade(quantity, reached, value, others, all(solution.idle))


def _rounded(value: float) -> float:
    return float(f"{value:.{DIGITS}g}")


_SPAN = re.compile(r"(?P<low>[^:]+):(?P<high>[^:]+)")


def targets_of(words: Sequence[str]) -> dict[str, Range]:
    """Return targets from words: a value, a limit, or a range.

    >>> targets_of(["reach90_s=0.12", "stop_distance_m<=0.3", "stop_time_s=0.1:0.2"])
    {'reach90_s': (0.12, 0.12), 'stop_distance_m': (None, 0.3), 'stop_time_s': (0.1, 0.2)}
    """
    targets: dict[str, Range] = {}
    for word in words:
        name, sign, value = _parted(word)
        span = _SPAN.fullmatch(value) if sign == "=" else None
        try:
            low, high = (float(span["low"]), float(span["high"])) if span else (float(value),) * 2
        except ValueError:
            raise WendonicError(
                f"{word}: allowed: QUANTITY=NUMBER, such as reach90_s=0.12, <=NUMBER, >=NUMBER, or =LOW:HIGH"
            ) from None
        if not math.isfinite(low) or not math.isfinite(high):
            raise WendonicError(f"{word}: allowed: a finite number")
        if low > high:
            raise WendonicError(f"{word}: {low:g} is above {high:g}; allowed: the lower end first")
        if name in targets:
            raise WendonicError(f"{word}: {name} has a target already; a range is written {name}=LOW:HIGH")
        targets[name] = (None if sign == "<=" else low, None if sign == ">=" else high)
    return targets


def _parted(word: str) -> tuple[str, str, str]:
    for sign in ("<=", ">=", "="):
        name, found, value = word.partition(sign)
        if found:
            return name.strip(), sign, value.strip()
    return word, "=", ""


def range_words(low: float | None, high: float | None, shown: Any) -> str:
    """Return a target's limits as text; `shown` formats a value.

    >>> range_words(None, 0.3, str), range_words(0.1, 0.1, str), range_words(0.1, 0.2, str)
    ('<= 0.3', '0.1', '0.1 to 0.2')
    """
    if low is None or high is None:
        return f">= {shown(low)}" if high is None else f"<= {shown(high)}"
    return str(shown(low)) if low == high else f"{shown(low)} to {shown(high)}"
