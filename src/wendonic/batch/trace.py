"""A recording and a profile in, a trace out."""

import functools
import math
from collections.abc import Callable
from typing import TYPE_CHECKING, Any, Protocol

from wendonic.batch.run import Engine, Run
from wendonic.batch.samples import Samples, samples_of
from wendonic.compiler.layout import Layout
from wendonic.devices.controls import DEVICES
from wendonic.devices.sample_places import sample_places
from wendonic.kernels.body.ground import NO_COURSE, HasNumbers
from wendonic.kernels.frames.steer import FRAME_GOTO, FRAME_GRID
from wendonic.kernels.tick import Tuning
from wendonic.profile.schema.profile import Profile
from wendonic.profile.sources import mode_sources
from wendonic.profile.tuning import mode_tuning
from wendonic.recording.recording import Recording

if TYPE_CHECKING:
    import numpy as np
    import pandas as pd
    from numpy.typing import NDArray

Maker = Callable[[], Any]


class Columns(Protocol):
    """Columns by their names: a DataFrame, or what `shaped` returns."""

    def __getitem__(self, name: str, /) -> Any:
        """Return a column."""

    def __contains__(self, name: object, /) -> bool:
        """Return whether there is such a column."""

    def __len__(self) -> int:
        """Return how many ticks there are."""


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
    return shaped(recording, profile, hz, mode, engine, seat, course).frame()


def shaped(
    recording: Recording,
    profile: Profile,
    hz: float = 60,
    mode: str | None = None,
    engine: Engine = "auto",
    seat: str | None = None,
    course: HasNumbers | None = None,
) -> "Shaped":
    """Return what `shape` returns, column by column: for probes that read three of forty columns.

    >>> from wendonic.demo import demo_profile, demo_recording
    >>> walked = shaped(demo_recording("beekeeper_keys"), demo_profile())
    >>> f"{walked['vel_y'].max():.3f} m/s"
    '3.200 m/s'
    """
    name = profile.mode_name(mode)
    numbers = NO_COURSE if course is None else course.numbers
    sources = mode_sources(profile, name, seat)
    samples = samples_of(recording, hz, sources)
    tuning = mode_tuning(profile, name, numbers[0] + numbers[1] > 0.0)
    run = Run(tuning, sample_places(sources).sample, numbers, name)
    records = run.over(samples.rows, 1.0 / hz, engine)
    return Shaped(samples, 1.0 / hz, name, records, run.layout, tuning.tick, profile.press_names)


class Shaped:
    """A recording under a profile, whose columns are made when they are asked for."""

    def __init__(
        self,
        samples: Samples,
        dt: float,
        mode: str,
        records: "NDArray[np.float64]",
        layout: Layout,
        tuning: Tuning,
        press_names: tuple[str, ...],
    ) -> None:
        """Take the records of every tick, and what they were made from."""
        self._samples = samples
        self._dt = dt
        self._mode = mode
        self._records = records
        self._layout = layout
        self._tuning = tuning
        self._makers = self._column_makers(press_names)

    def __getitem__(self, name: str) -> "NDArray[Any]":
        """Return one column of the trace; raises `KeyError` for one that it does not have."""
        column: NDArray[Any] = self._makers[name]()
        return column

    def __contains__(self, name: object) -> bool:
        """Return whether there is such a column."""
        return name in self._makers

    def __len__(self) -> int:
        """Return how many ticks there are."""
        return len(self._samples.t)

    def frame(self) -> "pd.DataFrame":
        """Return the whole trace."""
        import pandas as pd

        return pd.DataFrame({name: make() for name, make in self._makers.items()})

    def _reported(self, *path: str) -> "NDArray[np.float64]":
        import numpy as np

        place = self._layout.places.get(("outcome", *path), -1)
        if place >= 0:
            return self._records[:, place]
        return np.full(len(self._samples.t), self._layout.constants[("outcome", *path)])

    def _column_makers(self, press_names: tuple[str, ...]) -> dict[str, Maker]:
        import numpy as np

        reported, part, count = self._reported, functools.partial, len(self._samples.t)
        makers: dict[str, Maker] = {
            "tick": lambda: np.arange(1, count + 1),
            "t": lambda: self._samples.t,
            "dt": lambda: np.full(count, self._dt),
            "mode": self._mode_column,
            "device": self._device_column,
        }
        for name in ("raw", "local", "move"):
            makers |= {f"{name}_{axis}": part(reported, name, axis) for axis in ("x", "y")}
        makers["amount"] = part(reported, "amount")
        makers["heading_deg"] = lambda: np.where(
            reported("amount") == 0.0, math.nan, _compass_deg(reported("heading"))
        )
        makers |= {axis: part(reported, "axes", axis) for axis in ("rise", "turn", "throttle")}
        for name in ("look", "view"):
            for angle in ("yaw", "pitch"):
                makers[f"{name}_{angle}_deg"] = part(self._degrees, name, angle)
        makers["face_deg"] = lambda: _compass_deg(reported("body", "face"))
        has_sectors = self._tuning.sectors > 0
        makers["sector"] = part(reported, "sector") if has_sectors else lambda: np.full(count, math.nan)
        for short, of in (("pos", "position"), ("vel", "velocity")):
            makers |= {f"{short}_{axis}": part(reported, "body", of, axis) for axis in ("x", "y", "z")}
        makers["grounded"] = part(self._flag, "grounded")
        for number, press in enumerate(press_names):
            for flag in ("held", "began", "ended"):
                makers[f"{press}_{flag}"] = part(self._flag, "presses", str(number), flag)
        return makers | self._frame_makers()

    def _frame_makers(self) -> dict[str, Maker]:
        """Return the columns that only some steer frames have."""
        part, tuning, makers = functools.partial, self._tuning, dict[str, Maker]()
        if tuning.frame.frame == FRAME_GRID:
            makers |= {f"step_{axis}": part(self._step_column, axis) for axis in ("x", "y")}
            makers |= {f"refused_{axis}": part(self._refused_column, axis) for axis in ("x", "y")}
        if tuning.frame.slope.follows:
            makers["refused"] = part(self._flag, "wanted", "refused")
        if tuning.frame.frame == FRAME_GOTO:
            makers |= {f"goal_{axis}": part(self._goal_column, axis) for axis in ("x", "y")}
            makers["arrived"] = part(self._flag, "frame", "arrived")
        if tuning.comfort.used:
            makers["vignette"] = part(self._reported, "comfort", "shown")
            makers["returned"] = part(self._flag, "comfort", "returned")
        if tuning.point_press >= 0:
            makers["landed"] = part(self._flag, "pointing", "landed")
        return makers

    def _degrees(self, *path: str) -> "NDArray[np.float64]":
        import numpy as np

        return np.degrees(self._reported(*path))

    def _flag(self, *path: str) -> "NDArray[np.bool_]":
        return self._reported(*path) > 0.0

    def _step_column(self, axis: str) -> "NDArray[np.int_]":
        return self._reported("frame", "grid", "step", f"to_{axis}").astype(int)

    def _refused_column(self, axis: str) -> "NDArray[np.float64]":
        import numpy as np

        square = self._reported("frame", "grid", "step", axis) + self._reported("frame", "grid", f"refused_{axis}")
        return np.where(self._flag("frame", "grid", "refused"), square, math.nan)

    def _goal_column(self, axis: str) -> "NDArray[np.float64]":
        import numpy as np

        return np.where(self._flag("frame", "goal", "there"), self._reported("frame", "goal", axis), math.nan)

    def _mode_column(self) -> Any:
        import numpy as np
        import pandas as pd

        codes = np.zeros(len(self._samples.t), dtype=np.intp)
        return pd.Categorical.from_codes(codes, pd.Index([self._mode]))

    def _device_column(self) -> Any:
        import numpy as np
        import pandas as pd

        source = self._reported("source").astype(np.intp)
        of_source = np.array(self._samples.devices)[source]
        devices = _last_known(np.where(source >= 0, of_source, self._samples.press_devices))
        used = sorted(set(np.unique(devices).tolist()) - {-1})
        codes = np.searchsorted(used, devices) if used else devices
        names = pd.Index([DEVICES[index] for index in used], dtype=str)
        return pd.Categorical.from_codes(np.where(devices >= 0, codes, -1), names)


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
