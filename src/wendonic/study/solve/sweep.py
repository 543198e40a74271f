"""Measures many profiles over a range of settings, one row each."""

import itertools
import math
import os
import time
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from concurrent.futures import Executor, ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from multiprocessing import get_context
from typing import TYPE_CHECKING, Any

from wendonic.batch import Engine
from wendonic.batch.compiled import has_numba, seconds_to_ready
from wendonic.batch.run import Run
from wendonic.counted import counted
from wendonic.devices.sample_layout import sample_layout
from wendonic.errors import ProfileError, WendonicError
from wendonic.kernels.body.ground import NO_COURSE
from wendonic.profile.plain_values import plain_value
from wendonic.profile.schema.profile import Profile, known_profile
from wendonic.profile.sources import mode_sources
from wendonic.profile.tuning import mode_tuning
from wendonic.profile.value_at import limits_of, meaning_of, whole_at
from wendonic.study.as_json import document, entry
from wendonic.study.feel_sheet import known_quantity, measure
from wendonic.study.quantities import QUANTITIES
from wendonic.study.solve.differences import DIFFERENCES, UNITS, WALKED
from wendonic.study.solve.pools import NO_PROCESS

if TYPE_CHECKING:
    import pandas as pd

MOST_PROFILES = 100_000
CHUNK = 20
ERROR = "error"
"""Column of a sweep's table that says why something has no value."""

_Row = tuple[float | str | None, ...]


def combinations_of(
    profile: Profile, over: Mapping[str, Sequence[float]], of: Sequence[str], at_most: int
) -> list[tuple[float, ...]]:
    """Return every combination of the values of some settings.

    Raises `WendonicError` for settings that do not exist, if settings, values or quantities are missing, and for too
    many combinations.
    """
    ranges: list[Sequence[float]] = [_numbers(setting, values) for setting, values in over.items()]
    if not of or not ranges or not all(ranges):
        raise WendonicError("a sweep needs settings with values, and quantities to measure")
    for index, setting in enumerate(over):
        limits_of(profile, setting)
        if whole_at(profile, setting):
            ranges[index] = _whole_numbers(setting, ranges[index])
    combinations = list(itertools.product(*ranges))
    if len(combinations) > at_most:
        raise WendonicError(f"{len(combinations):,} profiles; allowed: up to {at_most:,}")
    return combinations


def _numbers(setting: str, values: Any) -> list[float]:
    plain = plain_value(values)
    try:
        if isinstance(plain, str):
            raise TypeError
        return [float(value) for value in (plain if isinstance(plain, Iterable) else [plain])]
    except (TypeError, ValueError):
        raise WendonicError(f"{setting}: found {plain!r}; allowed: a list of numbers") from None


def _whole_numbers(setting: str, values: Sequence[float]) -> list[int]:
    for value in values:
        if not value.is_integer():
            raise WendonicError(f"{setting}: found {value:g}; allowed: whole numbers")
    return [int(value) for value in values]


def sweep(
    profile: Profile,
    over: Mapping[str, Sequence[float]],
    of: Sequence[str],
    mode: str | None = None,
    progress: Callable[[int, int], None] | None = None,
    workers: int | None = 1,
    by: str | None = None,
    held: str | None = None,
    seat: str | None = None,
) -> "pd.DataFrame":
    """Return quantities of the feel sheet for every combination of some settings of a profile.

    `over` has values for each field path, such as `{"gait.walk.accel_m_s2": [8, 16, 32]}`; `of` names quantities, in
    metres or in the game's own unit (`stop_distance_u`). There is one row per combination, the last setting changing
    fastest, and a column for each setting and each quantity. A quantity is NaN if a profile does not have it or the
    settings do not fit together; the table then has a column `error` that says why. `progress` is called with the
    number done and the number in all. The work is done in this process, or shared by several `workers`, with None by
    one per core, which has to be under `if __name__ == "__main__":` in a script. `by`, `held` and `seat` are as in
    `measure`.

    Raises `WendonicError` for a setting, a quantity or a mode that does not exist, and for more than MOST_PROFILES
    combinations.

    >>> from wendonic.demo import demo_profile
    >>> frame = sweep(demo_profile(), {"gait.walk.brake_m_s2": [15.0, 30.0]}, ["stop_distance_m"])
    >>> frame["stop_distance_m"].round(2).tolist()
    [0.34, 0.17]
    """
    import pandas as pd

    name = known_profile(profile).mode_name(mode)
    of = [of] if isinstance(of, str) else list(dict.fromkeys(of))
    known = [known_quantity(quantity, profile.world.length) for quantity in of]
    measured_names = [quantity for quantity, _ in known]
    combinations = combinations_of(profile, over, of, MOST_PROFILES)
    workers = min(workers or os.cpu_count() or 1, -(-len(combinations) // CHUNK))
    how = {"only": tuple(measured_names), "by": by, "held": held, "seat": seat}
    engine = _engine(profile, name, how, len(combinations) / workers)
    job = (profile.file_content(), tuple(over), how, name, engine, tuple(of))
    chunks = [combinations[start : start + CHUNK] for start in range(0, len(combinations), CHUNK)]
    rows: list[_Row] = []
    for measured in _measured(job, chunks, workers):
        rows += measured
        if progress:
            progress(len(rows), len(combinations))
    settings = pd.DataFrame(combinations, columns=list(over))
    found = pd.DataFrame([row[:-1] for row in rows], columns=list(of), dtype=float) / [factor for _, factor in known]
    return with_errors(pd.concat([settings, found], axis=1), [row[-1] for row in rows])


def with_errors(frame: "pd.DataFrame", errors: Sequence[Any]) -> "pd.DataFrame":
    """Return a table with a column `error` if something has no value."""
    return frame.assign(**{ERROR: errors}) if any(errors) else frame


def summary(frame: "pd.DataFrame", of: Sequence[str]) -> str:
    """Return how many profiles a sweep has, how many of them lack a quantity, and why the first of those does. Raises
    `WendonicError` if nothing could be measured.

    >>> import pandas as pd
    >>> frame = pd.DataFrame({"accel": [1.0, 2.0], "reach90_s": [0.1, None], "error": [None, "nothing walks"]})
    >>> summary(frame, ["reach90_s"])
    '2 profiles, 1 not fully measured: nothing walks'
    """
    if ERROR not in frame:
        return counted(len(frame), "profile")
    errors = frame[ERROR].dropna()
    if frame[list(of)].isna().all(axis=None):
        raise WendonicError(f"none of the {len(frame)} profiles could be measured: {errors.iloc[0]}")
    return f"{counted(len(frame), 'profile')}, {len(errors)} not fully measured: {errors.iloc[0]}"


def sweep_document(
    frame: "pd.DataFrame",
    over: Sequence[str],
    of: Sequence[str],
    profile: Profile,
    path: str,
    mode: str | None = None,
    by: str | None = None,
    held: str | None = None,
    seat: str | None = None,
) -> dict[str, Any]:
    """Return what a sweep found as JSON content: the columns with units and definitions, and the rows; a quantity
    that was requested in the game's own unit is in that, and numbers about recordings are in metres.
    """
    length = profile.world.length
    columns: dict[str, Any] = {setting: entry(None, *meaning_of(profile, setting)) for setting in over}
    for name in of:
        if name in UNITS:
            definition = DIFFERENCES.get(name) or WALKED[name]
            columns[name] = entry(None, UNITS[name], f"{definition}: mean over the recordings")
            continue
        known, factor = known_quantity(name, length)
        one = QUANTITIES[known]
        columns[name] = entry(None, one.unit if factor == 1.0 else length.label(one.unit), one.definition)
    for column in columns.values():
        del column["value"]
    if ERROR in frame:
        columns[ERROR] = {"unit": "", "definition": "why something has no value"}
    rows = frame.astype(object).where(frame.notna(), None).to_numpy().tolist()
    head = {"profile": path, "mode": mode, "seat": seat, "by": by, "while": held}
    return document("sweep", **head, columns=columns, rows=[dict(zip(columns, row, strict=True)) for row in rows])


def _engine(profile: Profile, mode: str, how: Mapping[str, Any], count: float) -> Engine:
    """Return the engine for `count` profiles per process: compiled if interpreting them would take longer than
    preparing the compiled loop, which all of them share.
    """
    if not has_numba():
        return "interpreted"
    measure(profile, mode, "interpreted", **how)
    start = time.perf_counter()
    measure(profile, mode, "interpreted", **how)
    spent_s = time.perf_counter() - start
    sources = mode_sources(profile, mode, None)
    run = Run(mode_tuning(profile, mode, False), sample_layout(sources).sample, NO_COURSE, mode)
    if spent_s * count <= seconds_to_ready(run.ready, run.reported):
        return "interpreted"
    measure(profile, mode, "compiled", **how)
    return "compiled"


def _measured(job: Any, chunks: list[Any], workers: int) -> Iterator[list[_Row]]:
    """Yield the result of each chunk, in order."""
    if workers <= 1:
        yield from (_chunk(job, chunk) for chunk in chunks)
        return
    # A spawned process shares no locks with the threads of a game or a notebook.
    pool: Executor
    with ProcessPoolExecutor(workers, mp_context=get_context("spawn")) as pool:
        try:
            yield from pool.map(_chunk, itertools.repeat(job), chunks)
        except BrokenProcessPool:
            raise WendonicError(NO_PROCESS) from None


def _chunk(job: Any, combinations: list[tuple[float, ...]]) -> list[_Row]:
    content, paths, how, mode, engine, of = job
    quantities = how["only"]
    rows: list[_Row] = []
    for values in combinations:
        try:
            profile = Profile.from_content(content, dict(zip(paths, values, strict=True)))
        except ProfileError as refused:
            rows.append((*[None] * len(quantities), refused.in_words()))
            continue
        sheet = measure(profile, mode, engine, **how)
        missing = [(name, given) for name, given in zip(quantities, of, strict=True) if sheet[name] is None]
        reasons = [f"{given}: {sheet.reasons.get(name, 'no value')}" for name, given in missing]
        rows.append((*(sheet[name] for name in quantities), "; ".join(reasons) or None))
    return rows


def over_of(words: Sequence[str]) -> dict[str, list[float]]:
    """Return settings with their values from texts such as "gait.walk.accel_m_s2=8:40:5": first, last, number of
    values.

    >>> over_of(["gait.walk.accel_m_s2=8:40:5"])
    {'gait.walk.accel_m_s2': [8.0, 16.0, 24.0, 32.0, 40.0]}
    >>> over_of(["mode.foot.move.bind[1].dead_zone.inner=0.05:0.2:4"])
    {'mode.foot.move.bind[1].dead_zone.inner': [0.05, 0.1, 0.15, 0.2]}
    """
    over: dict[str, list[float]] = {}
    for word in words:
        path, _, span = word.partition("=")
        try:
            low, high, count = (float(part) for part in span.split(":"))
            steps = int(count)
            if steps != count or steps < 2 or not math.isfinite(low) or not math.isfinite(high):
                raise ValueError
        except ValueError:
            raise WendonicError(
                f"{word}: allowed: SETTING=FROM:TO:COUNT, such as gait.walk.accel_m_s2=8:40:30"
            ) from None
        if path in over:
            raise WendonicError(f"{word}: {path} has values already; allowed: each setting once")
        # Rounded to 12 digits: 0.15, not 0.15000000000000002.
        over[path] = [float(f"{low + (high - low) * step / (steps - 1):.12g}") for step in range(steps)]
    return over
