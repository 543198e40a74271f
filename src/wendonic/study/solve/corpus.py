"""The effect of a change on real play: many recordings under several profiles, one row per recording."""

import hashlib
import json
import math
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from functools import lru_cache
from pathlib import Path
from typing import TYPE_CHECKING, Any, NamedTuple

import tomlkit

from wendonic.atomic_file import atomic_file
from wendonic.batch import write_trace
from wendonic.batch.trace import shaped
from wendonic.course import Course
from wendonic.errors import ProfileError, RecordingError, WendonicError, none_such
from wendonic.profile.load import profile_from_text, text_of
from wendonic.profile.schema.profile import Profile, known_profile, named_profiles
from wendonic.profile.schema.seat import Seat
from wendonic.recording.formats import ENDINGS
from wendonic.recording.parquet import read_parquet, recordings_in
from wendonic.recording.recording import Recording
from wendonic.study.as_json import document, entry
from wendonic.study.solve.differences import DIFFERENCES, UNITS, WALKED, difference, walked
from wendonic.study.solve.pools import Pool
from wendonic.study.solve.sweep import combinations_of, with_errors

if TYPE_CHECKING:
    import pandas as pd

MOST_COMBINATIONS = 10_000
AGAINST = " against "
"""Separates two profiles in the name of a column; file names may contain anything else."""

RANKS = ("most_apart_m", "view_apart_deg", "presses")
"""Differences by which recordings are ranked unless one is requested: the first in which any recording differs."""

EFFECTS = {"distance_m", "turned_deg", "presses"}
"""Numbers of which at least one is not 0 if a recording does anything under a profile."""

CHUNK, MOST_CHUNK = 8, 64
"""Recordings that a process takes at once: only a few if there are few in all, so that every process stays busy to
the end.
"""

MOST_WORKERS = 256
"""Most workers that a cluster may have."""

Row = dict[str, Any]
Progress = Callable[[int, int], None]


class Source(NamedTuple):
    """One recording of a corpus: its name, its file, its name within that file ("" if it is the only one), and the
    file's size (bytes) and modification time (ns), which show whether it has changed.
    """

    name: str
    path: str
    part: str
    size: int
    changed_ns: int


class Job(NamedTuple):
    """The work for every recording: names and texts of the profiles, the mode, the tick rate, the requested
    quantities, the player's seat, the course.
    """

    names: tuple[str, ...]
    texts: tuple[str, ...]
    mode: str | None
    hz: float
    quantities: tuple[str, ...]
    seat: str | None
    course: Course | None


def sources_in(folder: str | Path) -> list[Source]:
    """Return the recordings in a folder and its subfolders, by name, or those in a Parquet file with a column
    `recording`. Raises `WendonicError` if there are none.

    >>> from wendonic.demo import FOLDER
    >>> [source.name for source in sources_in(FOLDER)][:2]
    ['apiary_rounds.jsonl', 'beekeeper_keys.jsonl']
    """
    top = Path(folder)
    if not top.exists():
        raise WendonicError(f"{folder} does not exist; allowed: a folder of recordings, or a Parquet file of many")
    if top.is_file():
        parts = recordings_in(top) if top.suffix.lower() == ".parquet" else None
        stat = top.stat()
        if parts is None:
            raise WendonicError(
                f"{folder} is one recording; allowed: a folder, or a Parquet file with a column recording"
            )
        return [Source(part, str(top.absolute()), part, stat.st_size, stat.st_mtime_ns) for part in parts]
    files = sorted(path for path in top.rglob("*") if path.suffix.lower() in ENDINGS and path.is_file())
    found = [
        # Workers may run in another folder.
        Source(str(path.relative_to(top)), str(path.absolute()), "", path.stat().st_size, path.stat().st_mtime_ns)
        for path in files
    ]
    if not found:
        raise WendonicError(f"{folder} has no recordings; they end with {', '.join(ENDINGS)}")
    return found


def corpus(
    folder: str | Path,
    profiles: Mapping[str, Profile | str | Path],
    quantities: Sequence[str] = (),
    mode: str | None = None,
    hz: float = 60.0,
    workers: int = 1,
    cluster: str | None = None,
    out: str | Path | None = None,
    progress: Progress | None = None,
    seat: str | None = None,
    course: Course | None = None,
) -> "pd.DataFrame":
    """Put every recording of a folder, or of a Parquet file of many, under several profiles: one row per recording.

    `profiles` are profiles, their TOML, or paths of files, by name; the others are compared with the first one. Each
    recording is sampled once for all profiles with the same bindings. Columns: `recording`, `error` (why it could not
    be read or shaped, otherwise missing), `duration_s`, `ticks`; `NAME.distance_m`, `NAME.end_x_m` and so on of each
    profile (see `Walked`); and `NAME against FIRST.end_apart_m`, `… .parts_s` and so on of each other one (see
    `Difference`). With `quantities`, only these of both.

    With `workers` above 1 the work goes to that many processes of one thread each, which has to be under `if __name__
    == "__main__":` in a script; with `cluster` to the workers of a Dask scheduler at that address, which must see the
    same files. Both need the extra `cluster`. With `out` (a table: .parquet, .csv or .jsonl) rows are kept beside
    that file as they come, and a run that was cut off continues where it was; the table is written at the end.
    `progress` is called with the number done and the number in all. `seat` and `course` are as in `wendonic.shape`.

    Raises `WendonicError` for a quantity, a mode or a seat that does not exist, for no profile, or for no recordings.

    >>> from wendonic.demo import FOLDER, demo_profile
    >>> ours = demo_profile()
    >>> theirs = ours.changed({"gait.walk.top_speed_m_s": 3.6})
    >>> frame = corpus(FOLDER, {"old": ours, "new": theirs}, ["distance_m", "parts_s"])
    >>> one = frame.set_index("recording").loc["beekeeper_keys.jsonl"]
    >>> bool(one["new.distance_m"] > one["old.distance_m"]), bool(one["new against old.parts_s"] > 0.0)
    (True, True)
    """
    import pandas as pd

    pool = Pool(workers, cluster)
    job = job_of(named_profiles(profiles), quantities, mode, hz, seat, course)
    sources = sources_in(folder)
    kept = _Kept(Path(out), job) if out is not None else None
    rows = kept.rows(sources) if kept else {}
    left = [source for source in sources if source.name not in rows]
    if progress:
        progress(len(rows), len(sources))
    chunks = chunked(left, workers if cluster is None else MOST_WORKERS)
    with pool:
        for found in pool.each(rows_of, job, chunks):
            for source, row in found:
                rows[source.name] = row
                if kept:
                    kept.keep(source, row)
            if progress:
                progress(len(rows), len(sources))
    frame = pd.DataFrame([rows[source.name] for source in sources])
    frame = frame.reindex(columns=[*columns_of(job)]).astype({"error": object})
    if kept:
        kept.finish(frame)
    return frame


def chunked(sources: Sequence[Source], workers: int) -> list[list[Source]]:
    """Return the recordings in chunks for that many processes.

    >>> [len(chunk) for chunk in chunked([None] * 20, 1)], len(chunked([None] * 100_000, 2)[0])
    ([8, 8, 4], 64)
    """
    size = min(max(len(sources) // (16 * workers), CHUNK), MOST_CHUNK)
    return [list(sources[start : start + size]) for start in range(0, len(sources), size)]


def job_of(
    profiles: Mapping[str, Profile | str | Path],
    quantities: Sequence[str],
    mode: str | None,
    hz: float,
    seat: str | None = None,
    course: Course | None = None,
) -> Job:
    """Return the work for every recording, small enough to be sent between processes."""
    quantities = (quantities,) if isinstance(quantities, str) else quantities
    if not profiles:
        raise WendonicError("a corpus needs a profile")
    for name in quantities:
        if name not in WALKED and name not in DIFFERENCES:
            raise WendonicError(none_such("quantity of a corpus", name, {**WALKED, **DIFFERENCES}))
    texts = tuple(_text(profile) for profile in profiles.values())
    for text in texts:
        profile = profile_from_text(text)
        profile.mode_name(mode)
        Seat(seat, profile.seat)
    return Job(tuple(profiles), texts, mode, float(hz), tuple(quantities), seat, course)


def _text(profile: Profile | str | Path) -> str:
    if isinstance(profile, Profile):
        return tomlkit.dumps(profile.file_content())
    if isinstance(profile, Path) or "\n" not in profile:
        return text_of(profile, "profile", ProfileError)
    return profile


def columns_of(job: Job) -> Iterator[str]:
    """Yield the columns of the table, in order."""
    yield from ("recording", "error", "duration_s", "ticks")
    for name in job.names:
        yield from (f"{name}.{field}" for field in WALKED if not job.quantities or field in job.quantities)
    for name in job.names[1:]:
        wanted = (field for field in DIFFERENCES if not job.quantities or field in job.quantities)
        yield from (f"{name}{AGAINST}{job.names[0]}.{field}" for field in wanted)


@lru_cache(maxsize=256)
def _profile(text: str) -> Profile:
    return profile_from_text(text)


def rows_of(job: Job, chunk: Iterable[Source]) -> list[tuple[Source, Row]]:
    """Return the rows of some recordings."""
    return [(source, row_of(job, source)) for source in chunk]


def row_of(job: Job, source: Source) -> Row:
    """Return the row of one recording; one that cannot be read or shaped says why."""
    row: Row = {"recording": source.name, "error": None}
    try:
        recording = (
            Recording.from_checked(*read_parquet(source.path, source.part))
            if source.part
            else Recording.read(source.path)
        )
        row |= {"duration_s": recording.duration_s}
        traces = [
            (profile, shaped(recording, profile, hz=job.hz, mode=job.mode, seat=job.seat, course=job.course))
            for profile in (_profile(text) for text in job.texts)
        ]
        row["ticks"] = len(traces[0][1])
        for name, (profile, trace) in zip(job.names, traces, strict=True):
            row |= _with_prefix(name, walked(trace, profile.press_names), job)
        first, base = traces[0]
        for name, (_, trace) in zip(job.names[1:], traces[1:], strict=True):
            row |= _with_prefix(f"{name}{AGAINST}{job.names[0]}", difference(base, trace, first.press_names), job)
    except (RecordingError, WendonicError, OSError) as error:
        # The row already names the file.
        row["error"] = " ".join(str(error).removeprefix(f"{source.path}: ").split())
    return row


def _with_prefix(name: str, numbers: Any, job: Job) -> Row:
    return {
        f"{name}.{field}": value
        for field, value in numbers._asdict().items()
        if not job.quantities or field in job.quantities
    }


class _Kept:
    """Rows kept in a file beside the table, a line each, so that an interrupted run loses at most one."""

    def __init__(self, out: Path, job: Job) -> None:
        self._out = out
        self._path = out.with_name(f"{out.name}.rows")
        self._digest = hashlib.sha256(repr(job).encode()).hexdigest()

    def rows(self, sources: Sequence[Source]) -> dict[str, Row]:
        """Return the rows of an earlier run of the same job whose recordings have not changed."""
        now = {source.name: source for source in sources}
        rows: dict[str, Row] = {}
        first, *lines = self._lines() or [None]
        if first == {"digest": self._digest}:
            for line in lines:
                # Damaged rows are computed again.
                if isinstance(line, list) and len(line) == 4 and isinstance(line[3], dict):
                    name, size, changed_ns, row = line
                    source = now.get(name) if isinstance(name, str) else None
                    if source and (source.size, source.changed_ns) == (size, changed_ns):
                        rows[name] = row
        with atomic_file(self._path) as beside:
            head = json.dumps({"digest": self._digest})
            kept = [self._line(now[name], row) for name, row in rows.items()]
            beside.write_text("\n".join([head, *kept]) + "\n", encoding="utf-8", newline="\n")
        self._file = self._path.open("a", encoding="utf-8", newline="\n")
        return rows

    def _lines(self) -> list[Any]:
        """Return the content of each complete line of an earlier run, None for a damaged one."""
        content = self._path.read_bytes() if self._path.exists() else b""
        found: list[Any] = []
        for line in content.split(b"\n")[:-1]:
            try:
                found.append(json.loads(line))
            except ValueError:
                found.append(None)
        return found

    def _line(self, source: Source, row: Row) -> str:
        return json.dumps([source.name, source.size, source.changed_ns, row])

    def keep(self, source: Source, row: Row) -> None:
        """Add a row."""
        self._file.write(self._line(source, row) + "\n")
        self._file.flush()

    def finish(self, frame: "pd.DataFrame") -> None:
        """Write the table, whole or not at all, and remove the kept rows."""
        self._file.close()
        write_trace(frame, self._out)
        self._path.unlink()


class Change(NamedTuple):
    """A recording that a profile changed: how far the bodies were apart at most, and the first moment (s)."""

    recording: str
    profile: str
    amount: float
    parts_s: float | None


def changed_most(frame: "pd.DataFrame", by: str = "most_apart_m", count: int = 5) -> list[Change]:
    """Return the recordings that changed most by one of the differences, without those that did not change.

    >>> import pandas as pd
    >>> names, apart_m, parts_s = ["a", "b"], [0.1, 2.0], [None, 3.5]
    >>> frame = pd.DataFrame({"recording": names})
    >>> frame["new against old.most_apart_m"], frame["new against old.parts_s"] = apart_m, parts_s
    >>> changed_most(frame)[0]
    Change(recording='b', profile='new against old', amount=2.0, parts_s=3.5)
    """
    import pandas as pd

    changes: list[Change] = []
    for column in frame.columns:
        pair, _, field = column.rpartition(".")
        if field != by or AGAINST not in pair:
            continue
        parts = frame.get(f"{pair}.parts_s")
        for place in range(len(frame)):
            value = frame[column].iloc[place]
            at_s = None if parts is None else parts.iloc[place]
            if not pd.isna(value) and value != 0:
                name = str(frame["recording"].iloc[place])
                changes.append(Change(name, pair, float(value), None if pd.isna(at_s) else float(at_s)))
    return sorted(changes, key=lambda change: -abs(change.amount))[:count]


def ranked_by(quantities: Sequence[str], frame: "pd.DataFrame") -> str:
    """Return the difference by which recordings are ranked: the first requested one, otherwise the first of RANKS in
    which any recording differs, otherwise the first.

    >>> import pandas as pd
    >>> turned = pd.DataFrame({"b against a.most_apart_m": [0.0, 0.0], "b against a.view_apart_deg": [0.0, 9.0]})
    >>> ranked_by(["distance_m", "speed_rms_m_s"], turned), ranked_by([], turned), ranked_by([], turned[:1])
    ('distance_m', 'view_apart_deg', 'most_apart_m')
    """
    requested = (name for name in quantities if name in DIFFERENCES)
    differ = (
        name for name in RANKS if any((frame[column].fillna(0) != 0).any() for column in _compared(frame, name))
    )
    return next(requested, None) or next(differ, RANKS[0])


def changed(frame: "pd.DataFrame") -> dict[str, int]:
    """Return for each pair of profiles how many recordings differ in anything.

    >>> import pandas as pd
    >>> changed(pd.DataFrame({"b against a.most_apart_m": [0.0, 0.0, None], "b against a.presses": [1, 0, None]}))
    {'b against a': 1}
    """
    columns = [column for name in DIFFERENCES if name != "parts_s" for column in _compared(frame, name)]
    pairs = dict.fromkeys(column.rpartition(".")[0] for column in columns)
    found = {pair: [column for column in columns if column.rpartition(".")[0] == pair] for pair in pairs}
    return {pair: int((frame[names].fillna(0) != 0).any(axis=1).sum()) for pair, names in found.items()}


def _compared(frame: "pd.DataFrame", name: str) -> list[str]:
    return [str(column) for column in frame if str(column).endswith(f".{name}") and AGAINST in str(column)]


def without_effect(frame: "pd.DataFrame") -> list[str]:
    """Return the recordings that have no effect under any profile (no walking, looking or press), usually because
    they are of other devices. It is empty for a table that lacks one of these numbers.

    >>> import pandas as pd
    >>> rows = {"recording": ["keys.jsonl", "hands.jsonl"], "error": [None, None], "old.distance_m": [12.0, 0.0]}
    >>> without_effect(pd.DataFrame({**rows, "old.turned_deg": 0.0, "old.presses": 0}))
    ['hands.jsonl']
    """
    own = [str(column) for column in frame.columns if AGAINST not in str(column)]
    columns = [column for column in own if column.rpartition(".")[2] in EFFECTS]
    if {column.rpartition(".")[2] for column in columns} != EFFECTS:
        return []
    nothing = frame["error"].isna() & (frame[columns] == 0).all(axis=1)
    return list(frame.loc[nothing, "recording"])


def medians(frame: "pd.DataFrame") -> Iterator[tuple[str, float, float]]:
    """Yield each column of numbers that has values, with its median and the value farthest from 0."""
    for column in frame.columns[4:]:
        values = frame[column].dropna().astype(float)
        if len(values):
            yield str(column), float(values.median()), float(values.iloc[int(values.abs().to_numpy().argmax())])


def corpus_document(frame: "pd.DataFrame", folder: str, by: str) -> dict[str, Any]:
    """Return the result of a corpus as JSON content: medians and extremes, and the recordings that changed most."""
    values: dict[str, Any] = {}
    for column, middle, most in medians(frame):
        field = column.rpartition(".")[2]
        definition = DIFFERENCES[field] if AGAINST in column else WALKED[field]
        values[column] = entry(middle, UNITS[field], f"{definition}: median over the recordings", farthest=most)
    failed = frame[frame["error"].notna()]
    return document(
        "corpus",
        folder=folder,
        recordings=len(frame),
        errors=dict(zip(failed["recording"], failed["error"], strict=True)),
        values=values,
        changed_most=[change._asdict() for change in changed_most(frame, by, 20)],
        ranked_by=by,
    )


def sweep_on(
    profile: Profile,
    over: Mapping[str, Sequence[float]],
    of: Sequence[str],
    folder: str | Path,
    mode: str | None = None,
    progress: Progress | None = None,
    workers: int = 1,
    cluster: str | None = None,
    seat: str | None = None,
    course: Course | None = None,
) -> "pd.DataFrame":
    """Return the effect of every combination of some settings on the recordings of a folder: one row per combination,
    and a column for each setting and for each difference from the unchanged profile or number of the walk, as means
    over all recordings that can be used; if settings do not fit together, a column `error` says why.

    Raises `WendonicError` as `corpus` and `wendonic.study.solve.sweep.sweep` do.

    >>> from wendonic.demo import FOLDER, demo_profile
    >>> frame = sweep_on(demo_profile(), {"gait.walk.top_speed_m_s": [3.2, 3.6]}, ["most_apart_m"], FOLDER)
    >>> frame["most_apart_m"].gt(1.0).tolist()
    [False, True]
    """
    import pandas as pd

    of = [of] if isinstance(of, str) else of
    combinations = combinations_of(known_profile(profile), over, of, MOST_COMBINATIONS)
    changed: dict[str, Profile] = {}
    errors: list[str | None] = []
    for number, values in enumerate(combinations):
        try:
            changed[str(number)] = profile.changed(dict(zip(over, values, strict=True)))
            errors.append(None)
        except ProfileError as refused:
            errors.append(refused.in_words())
    profiles = {"base": profile, **changed}
    frame = corpus(folder, profiles, of, mode, 60.0, workers, cluster, None, progress, seat, course)
    unread = frame["error"].dropna()
    if len(unread) == len(frame):
        raise WendonicError(f"none of the recordings in {folder} could be used: {unread.iloc[0]}")
    rows: list[list[float]] = []
    for number, values in enumerate(combinations):
        columns = (f"{number}{AGAINST}base.{name}" if name in DIFFERENCES else f"{number}.{name}" for name in of)
        means = (float(frame[column].astype(float).mean()) if column in frame else math.nan for column in columns)
        rows.append([*values, *means])
    return with_errors(pd.DataFrame(rows, columns=[*over, *of]), errors)
