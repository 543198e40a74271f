"""The pictures of `wendonic draw`: their names, inputs and drawing functions."""

from collections.abc import Callable, Sequence
from functools import cached_property
from pathlib import Path
from typing import TYPE_CHECKING, Any, Literal, NamedTuple

from wendonic.batch import shape
from wendonic.batch.window import ticks_between
from wendonic.course import Course, load_course
from wendonic.course.unused import warn_of_unused
from wendonic.devices.controls import CONTROLS
from wendonic.profile.load import load_profile
from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.seat import Seat
from wendonic.recording.recording import Recording
from wendonic.recording.stretches import cut
from wendonic.study.no_effect import warn_of_no_effect
from wendonic.study.probes.by_name import recording_or_probe
from wendonic.study.seated import seated, seated_device
from wendonic.study.solve.compare import names_of

if TYPE_CHECKING:
    import pandas as pd

Taken = Literal[
    "profile",
    "profiles",
    "recording",
    "[recording]",
    "mode",
    "seat",
    "hz",
    "course",
    "window",
    "moments",
    "only",
    "share",
    "by",
]
"""Inputs of a picture; a recording in brackets may be left out."""


class Given:
    """The inputs of a picture; files are read when they are first needed."""

    def __init__(
        self,
        profiles: Sequence[Path] = (),
        recording: Path | None = None,
        course: Path | None = None,
        mode: str | None = None,
        seat: str | None = None,
        hz: float = 60.0,
        start_s: float | None = None,
        end_s: float | None = None,
        moments: Sequence[float] | None = None,
        only: Sequence[str] = (),
        share: float = 0.999,
        by: str | None = None,
        held: str | None = None,
    ) -> None:
        """Take the arguments of the command."""
        self._profiles, self._recording, self._course = list(profiles), recording, course
        self.mode, self.seat, self.hz = mode, seat, hz
        self.start_s, self.end_s = start_s, end_s
        self.moments, self.only, self.share = moments, only, share
        self.by, self.held = by, held

    @cached_property
    def profiles(self) -> dict[str, Profile]:
        """The profiles by short names."""
        return dict(zip(names_of(self._profiles), map(load_profile, self._profiles), strict=True))

    @property
    def profile(self) -> Profile:
        """The only profile."""
        return next(iter(self.profiles.values()))

    @cached_property
    def own_profiles(self) -> dict[str, Profile]:
        """The profiles by short names, reduced to the player in the seat if one is given."""
        if self.seat is None:
            return self.profiles
        return {name: seated(profile, self.seat) for name, profile in self.profiles.items()}

    @property
    def own_profile(self) -> Profile:
        """The only profile, reduced to the player in the seat if one is given."""
        return next(iter(self.own_profiles.values()))

    @property
    def own_by(self) -> str | None:
        """The device to measure by, that of the player in the seat if one is given."""
        return seated_device(self.profile, self.seat, self.by)

    @cached_property
    def some_recording(self) -> Recording | None:
        """The recording, None without."""
        if self._recording is None:
            return None
        if not self._profiles:
            return Recording.read(self._recording)
        return recording_or_probe(str(self._recording), self.profile, self.mode, self.seat)

    @property
    def recording(self) -> Recording:
        """The recording."""
        if self.some_recording is None:
            raise AssertionError("a picture that needs a recording says so")
        return self.some_recording

    @cached_property
    def own_recording(self) -> Recording:
        """The recording, without the devices of other players if a seat is given."""
        if self.seat is None:
            return self.recording
        seat = Seat(self.seat, self.profile.seat)
        own = [event for event in self.recording if seat.has(CONTROLS[event.control])]
        return Recording(own, f"{self.recording.title or 'Recording'}, seat {self.seat}")

    @cached_property
    def course(self) -> Course | None:
        """The ground, None without."""
        return load_course(self._course) if self._course else None

    @cached_property
    def trace(self) -> "pd.DataFrame":
        """The recording under the profile."""
        ground, seat = self.course, self.seat
        warn_of_unused(ground, self.profile, [self.mode] if self.mode else ())
        trace = shape(self.recording, self.profile, hz=self.hz, mode=self.mode, seat=seat, course=ground)
        warn_of_no_effect(trace, self.recording, seat)
        return trace

    @property
    def seen(self) -> "pd.DataFrame":
        """The ticks of the trace from `start_s` to `end_s`, all of them if neither is given."""
        return ticks_between(self.trace, self.start_s, self.end_s)

    @property
    def stretch(self) -> Recording | None:
        """The recording from `start_s` to `end_s`, all of it if neither is given; None without one."""
        if self.some_recording is None or (self.start_s is None and self.end_s is None):
            return self.some_recording
        return cut(self.some_recording, self.start_s, self.end_s)


class Picture(NamedTuple):
    """One picture: `takes` lists the inputs that `draw` reads, `sentence` says what to see, `example` a command."""

    name: str
    sentence: str
    takes: tuple[Taken, ...]
    example: str
    draw: Callable[[Given], Any]


_REGISTERED: dict[str, Picture] = {}


def picture(*takes: Taken, example: str) -> Callable[[Callable[[Given], Any]], Callable[[Given], Any]]:
    """Return a decorator that makes a function a picture of `wendonic draw`, under its own name; what to see is its
    docstring.
    """

    def register(draw: Callable[[Given], Any]) -> Callable[[Given], Any]:
        name = draw.__name__
        sentence = " ".join((draw.__doc__ or "").split())
        _REGISTERED[name] = Picture(name, sentence, takes, example, draw)
        return draw

    return register


def registered() -> dict[str, Picture]:
    """Return every picture that has been imported, by its name."""
    return dict(sorted(_REGISTERED.items()))
