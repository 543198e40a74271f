"""Plays a recording through several modes with a helm, tick by tick; the trace has the columns of all of them."""

import math
from typing import TYPE_CHECKING, Any, NamedTuple

from wendonic.batch.columns import Column, columns_of, device_column
from wendonic.compiler.layout import Path
from wendonic.devices.controls import DEVICES, REPORTED
from wendonic.errors import WendonicError, none_such
from wendonic.kernels.body.ground import HasNumbers
from wendonic.profile.schema.profile import Profile
from wendonic.recording.recording import Recording
from wendonic.runtime.helm import DEVICE_NAMES, Helm
from wendonic.runtime.reader import Reader

if TYPE_CHECKING:
    import numpy as np
    import pandas as pd
    from numpy.typing import NDArray


ONE_MODE = "name a mode (--mode, or mode=) to play all of it in that one"


def needs_play(recording: Recording, profile: Profile, mode: str | None) -> bool:
    """Return whether a recording needs a helm: it has reports of a game, or the mode changes."""
    if recording.controls & REPORTED.keys():
        return True
    if mode is not None or not len(recording):
        return False
    return "mode" in recording.controls or any(
        press.enters for one in profile.mode.values() for press in one.press.values()
    )


class _Stretch(NamedTuple):
    """Ticks in one mode: their numbers, from 0, and their records."""

    reader: Reader
    ticks: list[int]
    records: list[tuple[float, ...]]


class Played:
    """The columns of a recording that is played with a helm; what a mode does not have is missing in its ticks."""

    def __init__(
        self,
        recording: Recording,
        profile: Profile,
        hz: float,
        mode: str | None,
        seat: str | None,
        course: HasNumbers | None,
    ) -> None:
        """Play it. With `mode` it stays in that mode, whatever the recording and its presses do; otherwise it begins
        in the recording's first mode, or in the profile's.

        Raises `WendonicError`, with the time, for a mode that does not exist or that cannot be entered.
        """
        self._t = recording.tick_times(hz)
        self._dt = 1.0 / hz
        self._stretches: dict[str, _Stretch] = {}
        self._devices: list[int] = []
        if mode is not None:
            profile = profile.model_copy(update={"mode": profile.mode | {mode: profile.mode[mode].staying()}})
        first = mode or _first_mode(recording)
        if first is not None and first not in profile.mode:
            words = none_such("mode", first, profile.mode)
            raise WendonicError(f"the recording begins in a mode of another profile: {words}; {ONE_MODE}")
        helm = Helm(profile, seat, course, mode=first)
        self._play(helm, recording, hz, stays=mode is not None)
        self._columns: dict[str, dict[str, Column]] = {
            name: columns_of(stretch.reader.tuning, profile.press_names) for name, stretch in self._stretches.items()
        }
        # The columns that all modes have come first, then those of some frames, each once.
        self._names = list(dict.fromkeys(name for columns in self._columns.values() for name in columns))

    def _play(self, helm: Helm, recording: Recording, hz: float, stays: bool) -> None:
        start_s = recording.start_s
        for number, (_, events) in enumerate(recording.ticks(hz)):
            for event in events:
                if event.control == "mode" and (stays or event.t == start_s):
                    continue
                try:
                    helm.apply(event)
                except WendonicError as fault:
                    advice = f"; {ONE_MODE}" if event.control == "mode" else ""
                    raise WendonicError(f"at {event.t:.3f} s of the recording: {fault}{advice}") from None
            intent = helm.tick(self._dt)
            stretch = self._stretches.get(intent.mode)
            if stretch is None:
                stretch = self._stretches[intent.mode] = _Stretch(intent.reader, [], [])
            stretch.ticks.append(number)
            stretch.records.append(intent.record)
            self._devices.append(DEVICES.index(DEVICE_NAMES[intent.device]) if intent.device else -1)

    def __getitem__(self, name: str) -> "NDArray[Any]":
        """Return one column of the trace; raises `KeyError` if no mode has it."""
        import numpy as np

        if name not in self._names:
            raise KeyError(name)
        found: Any
        match name:
            case "tick":
                found = np.arange(1, len(self) + 1)
            case "t":
                found = self._t.copy()
            case "dt":
                found = np.full(len(self), self._dt)
            case "mode":
                found = self._mode_column()
            case "device":
                found = device_column(np.array(self._devices, dtype=np.intp))
            case _:
                found = self._number_column(name)
        return found  # type: ignore[no-any-return]

    def _number_column(self, name: str) -> Any:
        import numpy as np

        column: Any = None
        for mode, stretch in self._stretches.items():
            if name not in self._columns[mode]:
                continue
            of_mode = self._columns[mode][name]
            made = of_mode.made(*(self._numbers(mode, path) for path in of_mode.paths))
            if column is None and len(made) == len(self):
                return made
            if column is None:
                # A value that a mode does not have is neither a flag nor a number.
                column = np.full(len(self), False if made.dtype == bool else math.nan)
            column[stretch.ticks] = made
        return column

    def _numbers(self, mode: str, path: Path) -> "NDArray[np.float64]":
        import numpy as np

        stretch = self._stretches[mode]
        layout = stretch.reader.layout
        index = layout.indices.get(("outcome", *path), -1)
        if index >= 0:
            return np.array([record[index] for record in stretch.records])
        return np.full(len(stretch.records), layout.constants[("outcome", *path)])

    def _mode_column(self) -> Any:
        import numpy as np
        import pandas as pd

        codes = np.zeros(len(self), dtype=np.intp)
        for code, stretch in enumerate(self._stretches.values()):
            codes[stretch.ticks] = code
        return pd.Categorical.from_codes(codes, pd.Index(list(self._stretches)))

    def __contains__(self, name: object) -> bool:
        """Return whether there is such a column."""
        return name in self._names

    def __len__(self) -> int:
        """Return how many ticks there are."""
        return len(self._t)

    def frame(self) -> "pd.DataFrame":
        """Return the whole trace."""
        import pandas as pd

        return pd.DataFrame({name: self[name] for name in self._names})


def _first_mode(recording: Recording) -> str | None:
    """Return the mode that a recording begins in; None if it does not say."""
    for event in recording:
        if event.t > recording.start_s:
            return None
        if event.control == "mode":
            return str(event.value)
    return None
