"""Shapes a recording under a profile into a trace."""

from typing import TYPE_CHECKING, Any, Protocol

from wendonic.batch.columns import Column, columns_of, device_column
from wendonic.batch.play import Played, needs_play
from wendonic.batch.records import Records
from wendonic.batch.run import Engine, Run
from wendonic.batch.samples import Samples, samples_of
from wendonic.compiler.layout import Layout, Path
from wendonic.devices.sample_layout import sample_layout
from wendonic.errors import WendonicError
from wendonic.kernels.body.ground import HasNumbers
from wendonic.profile.schema.profile import Profile, known_profile
from wendonic.profile.sources import mode_sources
from wendonic.profile.tuning import mode_tuning
from wendonic.recording.recording import Recording, known_recording
from wendonic.runtime.course_numbers import course_numbers

if TYPE_CHECKING:
    import numpy as np
    import pandas as pd
    from numpy.typing import NDArray


class Columns(Protocol):
    """Columns by name: a DataFrame, or the result of `shaped`."""

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

    A recording is played through the modes that it enters, by itself or by presses, starting in the profile's first
    mode; with `mode` it stays in that one. Reports of a game (places, pushes, the ground) count. In a `seat` such as
    "pad1" its `pad` is that pad; on a `course` (see `wendonic.course`) the body follows the ground and stops at walls
    and blocked squares.

    Columns: `tick t dt mode device`, then `raw_x raw_y` (right and forward, of the source that steers, or of the most
    tilted one while none does), `local_x local_y` (shaped), `move_x move_y amount heading_deg` (steered; the heading
    is missing at rest), `rise turn throttle`, the look of the tick and the view with it, `face_deg`, the gait's
    `pos_…` (m) and `vel_…` (m/s), and `<press>_held <press>_began <press>_ended` for each press; all in the plan
    frame. A grid adds `step_x step_y refused_x refused_y step_began step_ended`, frame `goto` adds `goal_x goal_y
    arrived`, slopes `refused`, comfort `vignette returned`, and `teleported`; in ticks of a mode without them they
    are missing or false. `t` is the recording's own time at the end of the tick. A helm fed the same events tick by
    tick gives the same numbers.

    `engine` "interpreted" loops in Python, "compiled" needs Numba (extra `fast`), "auto" compiles if that is faster
    on this machine. The numbers agree to rounding.

    Raises `WendonicError` for an `hz` that is not finite, not above 0 or beyond 10,000, and for a mode that does not
    exist, or cannot be entered where the recording enters it; `ControlError` for a seat that does not exist. A
    recording without events gives a trace without rows.

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
) -> "Shaped | Played":
    """Return the same as `shape`, but each column only when it is read: for probes that read three of forty columns.

    >>> from wendonic.demo import demo_profile, demo_recording
    >>> walked = shaped(demo_recording("beekeeper_keys"), demo_profile())
    >>> f"{walked['vel_y'].max():.3f} m/s"
    '3.200 m/s'
    """
    name = known_profile(profile).mode_name(mode)
    if needs_play(known_recording(recording), profile, mode):
        if engine == "compiled":
            raise WendonicError(
                "the compiled engine plays one mode, and nothing that a game reports; allowed here: engine "
                '"auto" or "interpreted"'
            )
        return Played(recording, profile, hz, mode, seat, course)
    numbers = course_numbers(course)
    sources = mode_sources(profile, name, seat)
    samples = samples_of(recording, hz, sources)
    tuning = mode_tuning(profile, name, numbers[0] + numbers[1] > 0.0)
    columns = columns_of(tuning.tick, profile.press_names)
    read = {path for column in columns.values() for path in column.paths}
    run = Run(tuning, sample_layout(sources).sample, numbers, name, read)
    records = run.over(samples.rows, 1.0 / hz, engine)
    return Shaped(samples, 1.0 / hz, name, records, run.layout, columns)


class Shaped:
    """A recording under a profile, whose columns are made when they are needed."""

    def __init__(
        self,
        samples: Samples,
        dt: float,
        mode: str,
        records: Records,
        layout: Layout,
        columns: dict[str, Column],
    ) -> None:
        """Take the records of all ticks, and the samples that they were made from."""
        self._samples = samples
        self._dt = dt
        self._mode = mode
        self._records = records
        self._layout = layout
        self._columns = columns

    def __getitem__(self, name: str) -> "NDArray[Any]":
        """Return one column of the trace; raises `KeyError` for one that it does not have."""
        import numpy as np

        column = self._columns[name]
        numbers = [self._reported(path) for path in column.paths]
        found: Any
        match name:
            case "tick":
                found = np.arange(1, len(self) + 1)
            case "t":
                found = self._samples.t.copy()
            case "dt":
                found = np.full(len(self), self._dt)
            case "mode":
                found = self._mode_column()
            case "device":
                found = self._device_column(*numbers)
            case _:
                found = column.made(*numbers)
        return found  # type: ignore[no-any-return]

    def __contains__(self, name: object) -> bool:
        """Return whether there is such a column."""
        return name in self._columns

    def __len__(self) -> int:
        """Return how many ticks there are."""
        return len(self._samples.t)

    def frame(self) -> "pd.DataFrame":
        """Return the whole trace."""
        import pandas as pd

        columns: dict[str, Any] = {}
        taken: set[int] = set()
        for name in self._columns:
            column = self[name]
            # Columns with the same numbers are still separate: writing to one leaves the other as it is.
            pointer = getattr(column, "ctypes", None)
            if pointer is not None and pointer.data in taken:
                column = column.copy()
            elif pointer is not None:
                taken.add(pointer.data)
            columns[name] = column
        return pd.DataFrame(columns, copy=False)

    def _reported(self, path: Path) -> "NDArray[np.float64]":
        import numpy as np

        index = self._layout.indices.get(("outcome", *path), -1)
        if index >= 0:
            return self._records.column(index)
        return np.full(len(self), self._layout.constants[("outcome", *path)])

    def _mode_column(self) -> Any:
        import numpy as np
        import pandas as pd

        return pd.Categorical.from_codes(np.zeros(len(self), dtype=np.intp), pd.Index([self._mode]))

    def _device_column(self, sources: "NDArray[np.float64]") -> Any:
        import numpy as np

        source = sources.astype(np.intp)
        of_source = np.array(self._samples.devices)[source]
        return device_column(_last_known(np.where(source >= 0, of_source, self._samples.press_devices)))


def _last_known(codes: "NDArray[np.intp]") -> "NDArray[np.intp]":
    """Return each code, or the last one before it where it is -1."""
    import numpy as np

    known = np.maximum.accumulate(np.where(codes >= 0, np.arange(len(codes)), -1))
    return np.where(known >= 0, codes[known], -1)
