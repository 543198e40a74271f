"""Runs many ticks of one mode, interpreted or compiled."""

import time
from collections.abc import Iterable
from itertools import repeat
from typing import TYPE_CHECKING, Literal

from wendonic.batch.compiled import compiled_loop, has_numba, is_loaded, seconds_to_ready
from wendonic.batch.records import Records
from wendonic.compiler.layout import Path
from wendonic.compiler.ready import ReadyTick, ready
from wendonic.kernels.row import Row
from wendonic.kernels.sample import Sample
from wendonic.profile.tuning import ModeTuning

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

Engine = Literal["auto", "interpreted", "compiled"]

TRIED_TICKS = 200
"""Number of ticks that are interpreted to estimate how long all of them would take."""

_SPENT_S: dict[str, float] = {}
"""Time (s) spent on interpreting each structure in this run."""


class Run:
    """One mode with its numbers, ready to run over rows of raw numbers, starting at rest.

    `record` is that of the last tick, `tick_part` the tick function that does not cut hitches.
    """

    def __init__(
        self, tuning: ModeTuning, sample: Sample, course: Row, title: str, read: Iterable[Path] | None = None
    ) -> None:
        """Prepare the mode's tick function; `read` are the numbers of an outcome that are needed, or all.

        A compiled loop leaves out the others, so that it compiles faster.
        """
        self.title = title
        self.ready: ReadyTick = ready(tuning.tick, sample, title)
        self.layout = self.ready.layout
        indices = self.layout.indices
        self.reported: frozenset[int] = (
            frozenset(indices.values())
            if read is None
            else frozenset(indices[("outcome", *path)] for path in read if ("outcome", *path) in indices)
        )
        self._tuning = tuning
        self.numbers = self.ready.numbers(tuning.tick)
        self._course = course
        self.tick_part, self._tick, _ = self.ready.make(self.numbers, tuning.tables, course)
        self.record = self.ready.record_at_rest(tuning.tick)

    def over(self, rows: "NDArray[np.float64]", dt: float, engine: Engine = "auto") -> Records:
        """Return the record of every tick; numbers that are not needed may be 0.

        With `auto`, a structure is compiled once interpreting it has cost, or would cost with this job, as much time
        as preparing its loop, judging by a few ticks and by earlier loops on this machine: so it never takes more
        than twice the best possible time. Hitches are always interpreted.
        """
        listed: list[tuple[float, ...]] = []
        if dt > self._tuning.tick.max_dt_s or engine == "interpreted" or not len(rows):
            self._interpreted(rows, dt, listed)
            return Records(listed)
        if engine == "auto" and not is_loaded(self.ready, self.reported):
            start = time.perf_counter()
            self._interpreted(rows[:TRIED_TICKS], dt, listed)
            job_s = (time.perf_counter() - start) / len(listed) * len(rows)
            spent_s = _SPENT_S.get(self.ready.digest, 0.0) + job_s
            compiles = has_numba() and self.ready.digest != "plain"
            if not compiles or spent_s <= seconds_to_ready(self.ready, self.reported):
                self._interpreted(rows[len(listed) :], dt, listed)
                _SPENT_S[self.ready.digest] = spent_s
                return Records(listed)
        return self._compiled(rows, dt, listed)

    def _interpreted(self, rows: "NDArray[np.float64]", dt: float, listed: list[tuple[float, ...]]) -> None:
        import numpy as np

        if not len(rows):
            return
        tick = self.tick_part if dt <= self._tuning.tick.max_dt_s else self._tick
        record = self.record
        # A tick often has the raw numbers of the tick before, so each distinct row is unpacked once.
        starts = np.flatnonzero(np.concatenate([[True], (rows[1:] != rows[:-1]).any(axis=1)]))
        counts = np.diff(starts, append=len(rows))
        for row, count in zip(rows[starts].tolist(), counts.tolist(), strict=True):
            for _ in repeat(None, count):
                record = tick(record, row, dt)
                listed.append(record)
        self.record = record

    def _compiled(self, rows: "NDArray[np.float64]", dt: float, listed: list[tuple[float, ...]]) -> Records:
        import numpy as np

        # Column by column, so that a trace is made without copying.
        table = np.zeros((self.layout.width, len(rows))).T
        records = Records(listed, table)
        if len(listed) == len(rows):
            return records
        loop = compiled_loop(self.ready, self.reported, self.title)
        loop(
            np.array(self.numbers, dtype=float),
            np.array(self._tuning.tables, dtype=float),
            np.array(self._course, dtype=float),
            np.array(self.record, dtype=float),
            np.ascontiguousarray(rows),
            dt,
            table.T,
            len(listed),
        )
        self.record = tuple(table[-1].tolist())
        return records
