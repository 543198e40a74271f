"""Whole recordings at once: a recording and a profile in, a trace out."""

import json
import math
from collections.abc import Mapping
from pathlib import Path
from typing import TYPE_CHECKING, Any, Literal

from wendonic.devices.controls import CONTROLS
from wendonic.devices.sources import Sampler
from wendonic.devices.state import DeviceState
from wendonic.errors import WendonicError
from wendonic.kernels.loop import run_ticks
from wendonic.kernels.pipeline import MEMORY_AT_REST, SAMPLE_WIDTH, Outcome, Tuning
from wendonic.profile.schema import Profile
from wendonic.profile.tuning import mode_sources, mode_tuning
from wendonic.recording.recording import Recording
from wendonic.whole_file import whole_file

if TYPE_CHECKING:
    import numpy as np
    import pandas as pd
    from numpy.typing import NDArray

Way = Literal["auto", "interpreted", "compiled"]

COMPILED_PAYS_FROM_TICKS = 200_000
"""Ticks from which `way = "auto"` compiles: fewer are done before a first compilation would be."""


class Samples:
    """What a recording gives a profile's mode, tick by tick, before any shaping."""

    __slots__ = ("dts", "samples", "t", "views_deg")

    def __init__(self, recording: Recording, profile: Profile, mode: str, hz: float) -> None:
        """Feed the events to a `DeviceState` and keep what the sources see at the end of each tick."""
        import numpy as np

        state = DeviceState()
        sampler = Sampler(mode_sources(profile, mode))
        view_slot = CONTROLS["view"].slot
        row = [0.0] * SAMPLE_WIDTH
        rows: list[list[float]] = []
        views: list[list[float]] = []
        times: list[float] = []
        seen = -1
        for t, events in recording.ticks(hz):
            for event in events:
                state.apply(event)
            if state.changes != seen:
                seen = state.changes
                sampler.fill(state, row)
                sample = row.copy()
                view = state.values[view_slot : view_slot + 2]
            times.append(t)
            rows.append(sample)
            views.append(view)
        self.t = np.array(times)
        self.samples = np.array(rows).reshape(len(rows), SAMPLE_WIDTH)
        self.views_deg = np.array(views).reshape(len(rows), 2)
        self.dts = np.full(len(rows), 1.0 / hz)


def outcomes(tuning: Tuning, samples: Samples, way: Way = "auto") -> "NDArray[np.float64]":
    """Run the ticks and return one row a tick, one column a field of `Outcome`.

    `way` "interpreted" loops in Python, "compiled" needs Numba (extra `fast`), "auto" compiles where Numba is
    installed and there are enough ticks to pay for it. The numbers agree to rounding.
    """
    import numpy as np

    from wendonic.compiled import compiled_run_ticks, has_numba

    count = len(samples.t)
    views = np.radians(samples.views_deg)
    if way == "compiled" or (way == "auto" and count >= COMPILED_PAYS_FROM_TICKS and has_numba()):
        filled = np.empty((count, len(Outcome._fields)))
        compiled_run_ticks()(tuning, MEMORY_AT_REST, samples.samples, views, samples.dts, filled)
        return filled
    rows = [[0.0] * len(Outcome._fields) for _ in range(count)]
    run_ticks(tuning, MEMORY_AT_REST, samples.samples.tolist(), views.tolist(), samples.dts.tolist(), rows)
    return np.array(rows).reshape(count, len(Outcome._fields))


def shape(
    recording: Recording, profile: Profile, hz: float = 60, mode: str | None = None, way: Way = "auto"
) -> "pd.DataFrame":
    """Return the trace of a recording under a profile: one row a tick, `hz` ticks a second.

    The profile's first mode is used unless `mode` names another. Columns: `tick t dt mode device`, then
    `raw_x raw_y` (right and ahead, of the source that steers, or of the most tilted one while none does),
    `local_x local_y` (shaped), `move_x move_y amount heading_deg` (steered; the heading is missing at rest),
    the other channels, the view, `face_deg`, and the gait's `pos_…` (m) and `vel_…` (m/s); all in the plan
    frame. `t` is the recording's own time at the end of the tick. A helm fed the same events tick by tick
    gives the same numbers. `way` is "interpreted", "compiled" or "auto": see `outcomes`.

    Raises `WendonicError` for an `hz` that is not finite, not above 0 or beyond 10,000, and for a mode that does
    not exist. A recording without events gives a trace without rows.

    >>> from wendonic.demo import demo_profile, demo_recording
    >>> trace = shape(demo_recording("beekeeper_keys"), demo_profile(), hz=60)
    >>> len(trace), f"{trace['amount'].max():.3f}", f"{trace['vel_y'].max():.3f} m/s"
    (2160, '1.000', '3.200 m/s')
    """
    import numpy as np
    import pandas as pd

    name = profile.mode_name(mode)
    samples = Samples(recording, profile, name, hz)
    rows = outcomes(mode_tuning(profile, name), samples, way)
    out = dict(zip(Outcome._fields, rows.T, strict=True))
    count = len(rows)
    devices = [source.device for source in mode_sources(profile, name)]
    kinds = list(dict.fromkeys(devices))
    # One more than there are sources, so that index -1, "none yet", finds the code for missing.
    codes = np.array([*map(kinds.index, devices), -1], dtype=np.intp)[out["source"].astype(np.intp)]
    at_rest = out["amount"] == 0.0
    zeros = np.zeros(count)
    columns: Mapping[str, Any] = {
        "tick": np.arange(1, count + 1),
        "t": samples.t,
        "dt": samples.dts,
        "mode": pd.Categorical.from_codes(np.zeros(count, dtype=np.intp), pd.Index([name])),
        "device": pd.Categorical.from_codes(codes, pd.Index(kinds, dtype=str)),
        "raw_x": out["raw_x"],
        "raw_y": out["raw_y"],
        "local_x": out["local_x"],
        "local_y": out["local_y"],
        "move_x": out["move_x"],
        "move_y": out["move_y"],
        "amount": out["amount"],
        "heading_deg": np.where(at_rest, math.nan, _compass_deg(out["heading"])),
        "rise": zeros,
        "turn": zeros,
        "throttle": zeros,
        "look_yaw_deg": zeros,
        "look_pitch_deg": zeros,
        "view_yaw_deg": samples.views_deg[:, 0],
        "view_pitch_deg": samples.views_deg[:, 1],
        "face_deg": _compass_deg(out["face"]),
        "sector": np.full(count, math.nan),
        "pos_x": out["pos_x"],
        "pos_y": out["pos_y"],
        "pos_z": zeros,
        "vel_x": out["vel_x"],
        "vel_y": out["vel_y"],
        "vel_z": zeros,
        "grounded": np.ones(count, dtype=bool),
    }
    return pd.DataFrame(columns)


def _compass_deg(angles: "NDArray[np.float64]") -> "NDArray[np.float64]":
    """Return `intent.compass_deg` of every angle."""
    import numpy as np

    degrees = np.degrees(angles)
    degrees = np.where(degrees < 0.0, degrees + 360.0, degrees)
    return np.where(degrees < 360.0, degrees, 0.0)


def write_trace(trace: "pd.DataFrame", path: str | Path) -> None:
    """Write a trace by file ending: `.csv`, `.parquet` (extra `parquet`) or `.jsonl`; whole or not at all.

    Every float comes back bit for bit; what is missing is empty in CSV and null in JSON Lines.
    """
    ending = Path(path).suffix.lower()
    if ending not in (".csv", ".parquet", ".jsonl"):
        raise WendonicError(f'cannot write {path}: found ending "{ending}"; allowed: .csv, .parquet, .jsonl')
    with whole_file(path) as beside:
        if ending == ".csv":
            trace.to_csv(beside, index=False)
        elif ending == ".jsonl":
            # pandas' own writer stops at 15 decimals; json writes every digit that counts.
            records = trace.astype(object).where(trace.notna(), None).to_dict("records")
            with beside.open("w", encoding="utf-8", newline="\n") as file:
                file.writelines(json.dumps(record) + "\n" for record in records)
        else:
            try:
                trace.to_parquet(beside, index=False)
            except ImportError:
                raise WendonicError("Parquet needs PyArrow: pip install 'wendonic[parquet]'") from None
