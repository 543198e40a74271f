"""A recording and a profile in, a trace out."""

import math
from collections.abc import Callable
from typing import TYPE_CHECKING, Any

from wendonic.batch.run import Engine, Run
from wendonic.batch.samples import Samples, samples_of
from wendonic.compiler.layout import Layout
from wendonic.devices.controls import DEVICES
from wendonic.devices.sample_places import sample_places
from wendonic.kernels.body.ground import NO_COURSE, HasNumbers
from wendonic.kernels.frames.frame import FRAME_GOTO, FRAME_GRID
from wendonic.kernels.tick import Tuning
from wendonic.profile.bindings import mode_sources
from wendonic.profile.schema import Profile
from wendonic.profile.tuning import mode_tuning
from wendonic.recording.recording import Recording

if TYPE_CHECKING:
    import numpy as np
    import pandas as pd
    from numpy.typing import NDArray


def shape(
    recording: Recording,
    profile: Profile,
    hz: float = 60,
    mode: str | None = None,
    engine: Engine = "auto",
    seat: str | None = None,
    course: HasNumbers | None = None,
) -> "pd.DataFrame":
    """Return the trace of a recording under a profile: one row a tick, `hz` ticks a second.

    The profile's first mode is used unless `mode` names another; in a `seat` such as "pad1" its `pad` is that pad; on
    a `course` (see `wendonic.course`) the body follows its ground and minds its blocked squares. Columns: `tick t dt
    mode device`, then `raw_x raw_y` (right and forward, of the source that steers, or of the most tilted one while
    none does), `local_x local_y` (shaped), `move_x move_y amount heading_deg` (steered; the heading is missing at
    rest), `rise turn throttle`, the look of the tick and the view with it, `face_deg`, the gait's `pos_…` (m) and
    `vel_…` (m/s), and `<press>_held <press>_began <press>_ended` for each press; all in the plan frame. After them a
    grid has `step_x step_y refused_x refused_y`, going to a place `goal_x goal_y arrived`, slopes `refused`, comfort
    `vignette returned`, and pointing `landed`. `t` is the recording's own time at the end of the tick. A helm fed the
    same events tick by tick gives the same numbers.

    `engine` "interpreted" loops in Python, "compiled" needs Numba (extra `fast`), "auto" compiles where that is
    quicker on this machine. The numbers agree to rounding.

    Raises `WendonicError` for an `hz` that is not finite, not above 0 or beyond 10,000, and for a mode that does
    not exist; `ControlError` for a seat that does not. A recording without events gives a trace without rows.

    >>> from wendonic.demo import demo_profile, demo_recording
    >>> trace = shape(demo_recording("beekeeper_keys"), demo_profile(), hz=60)
    >>> len(trace), f"{trace['amount'].max():.3f}", f"{trace['vel_y'].max():.3f} m/s"
    (2160, '1.000', '3.200 m/s')
    """
    name = profile.mode_name(mode)
    numbers = NO_COURSE if course is None else course.numbers
    sources = mode_sources(profile, name, seat)
    samples = samples_of(recording, hz, sources)
    tuning = mode_tuning(profile, name, numbers[0] + numbers[1] > 0.0)
    run = Run(tuning, sample_places(sources).sample, numbers, name)
    records = run.over(samples.rows, 1.0 / hz, engine)
    return _trace(samples, 1.0 / hz, name, records, run.layout, tuning.tick, profile.press_names)


Column = Callable[..., "NDArray[np.float64]"]


def _trace(
    samples: Samples,
    dt: float,
    mode: str,
    records: "NDArray[np.float64]",
    layout: Layout,
    tuning: Tuning,
    press_names: tuple[str, ...],
) -> "pd.DataFrame":
    import numpy as np
    import pandas as pd

    count = len(samples.t)

    def told(*path: str) -> "NDArray[np.float64]":
        place = layout.places.get(("outcome", *path), -1)
        if place >= 0:
            return records[:, place]
        return np.full(count, layout.constants[("outcome", *path)])

    source = told("source").astype(np.intp)
    devices = _last_known(np.where(source >= 0, np.array(samples.devices)[source], samples.press_devices))
    used = sorted(set(np.unique(devices).tolist()) - {-1})
    codes = np.searchsorted(used, devices) if used else devices
    amount = told("amount")
    sectors = told("sector") if tuning.sectors > 0 else np.full(count, math.nan)
    columns: dict[str, Any] = {
        "tick": np.arange(1, count + 1),
        "t": samples.t,
        "dt": np.full(count, dt),
        "mode": pd.Categorical.from_codes(np.zeros(count, dtype=np.intp), pd.Index([mode])),
        "device": pd.Categorical.from_codes(
            np.where(devices >= 0, codes, -1), pd.Index([DEVICES[index] for index in used], dtype=str)
        ),
        "raw_x": told("raw", "x"),
        "raw_y": told("raw", "y"),
        "local_x": told("local", "x"),
        "local_y": told("local", "y"),
        "move_x": told("move", "x"),
        "move_y": told("move", "y"),
        "amount": amount,
        "heading_deg": np.where(amount == 0.0, math.nan, _compass_deg(told("heading"))),
        "rise": told("axes", "rise"),
        "turn": told("axes", "turn"),
        "throttle": told("axes", "throttle"),
        "look_yaw_deg": np.degrees(told("look", "yaw")),
        "look_pitch_deg": np.degrees(told("look", "pitch")),
        "view_yaw_deg": np.degrees(told("view", "yaw")),
        "view_pitch_deg": np.degrees(told("view", "pitch")),
        "face_deg": _compass_deg(told("body", "face")),
        "sector": sectors,
    }
    for part, of in (("pos", "position"), ("vel", "velocity")):
        for axis in ("x", "y", "z"):
            columns[f"{part}_{axis}"] = told("body", of, axis)
    columns["grounded"] = told("grounded") > 0.0
    for number, press in enumerate(press_names):
        for flag in ("held", "began", "ended"):
            columns[f"{press}_{flag}"] = told("presses", str(number), flag) > 0.0
    columns |= _columns_of_frames(tuning, told)
    return pd.DataFrame(columns)


def _columns_of_frames(tuning: Tuning, told: Column) -> dict[str, Any]:
    """Return the columns that only some steer frames have."""
    import numpy as np

    columns: dict[str, Any] = {}
    if tuning.frame.frame == FRAME_GRID:
        step = {name: told("frame", "grid", "step", name) for name in ("x", "y", "to_x", "to_y")}
        refused = told("frame", "grid", "refused") > 0.0
        columns["step_x"], columns["step_y"] = step["to_x"].astype(int), step["to_y"].astype(int)
        for axis in ("x", "y"):
            square = step[axis] + told("frame", "grid", f"refused_{axis}")
            columns[f"refused_{axis}"] = np.where(refused, square, math.nan)
    if tuning.frame.slope.follows:
        columns["refused"] = told("wanted", "refused") > 0.0
    if tuning.frame.frame == FRAME_GOTO:
        going = told("frame", "goal", "there") > 0.0
        for axis in ("x", "y"):
            columns[f"goal_{axis}"] = np.where(going, told("frame", "goal", axis), math.nan)
        columns["arrived"] = told("frame", "arrived") > 0.0
    if tuning.comfort.used:
        columns["vignette"] = told("comfort", "shown")
        columns["returned"] = told("comfort", "returned") > 0.0
    if tuning.point_press >= 0:
        columns["landed"] = told("pointing", "landed") > 0.0
    return columns


def _last_known(codes: "NDArray[np.intp]") -> "NDArray[np.intp]":
    """Return each code, or the one before where it is -1."""
    import numpy as np

    places = np.maximum.accumulate(np.where(codes >= 0, np.arange(len(codes)), -1))
    return np.where(places >= 0, codes[places], -1)


def _compass_deg(angles: "NDArray[np.float64]") -> "NDArray[np.float64]":
    """Return `intent.compass_deg` of every angle."""
    import numpy as np

    degrees = np.degrees(angles)
    degrees = np.where(degrees < 0.0, degrees + 360.0, degrees)
    return np.where(degrees < 360.0, degrees, 0.0)
