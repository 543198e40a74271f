"""Paths of a usual stick between its rest point and its rim: tilted slowly, moved round, held on a border, left
alone.
"""

import functools
import math

from wendonic.devices.event import Event
from wendonic.devices.standins.stick import StickStandIn
from wendonic.profile.schema.move_binds import StickBind
from wendonic.recording.recording import Recording
from wendonic.study.thresholds import THRESHOLDS

RAMPS = 16
RAMP_S = 1.0
"""Duration (s) of a slow tilt from rest to the rim."""

BORDER_S = 6.0
DRIFT_S = 12.0


@functools.cache
def slow_ramps(bind: StickBind, period_s: float) -> Recording:
    """Return a recording in which a stick goes from rest to its rim in each direction, one every period."""
    events: list[Event] = []
    count = round(60 * RAMP_S)
    for number in range(RAMPS):
        heading, start_s = math.tau * number / RAMPS, number * period_s
        events += [Event(start_s + k / 60, bind.stick, bind.tilted(heading, k / count)) for k in range(count + 1)]
        events.append(Event(start_s + RAMP_S + 1.5 / 60, bind.stick, bind.centre))
    return Recording([*events, Event(RAMPS * period_s, "mark", "end")])


@functools.cache
def round_the_rim(bind: StickBind, hz: float) -> Recording:
    """Return a recording of a stick that is moved twice round its rim, in the usual time each."""
    count = round(2.0 * THRESHOLDS.circle_s * hz)
    headings = (math.tau * k / hz / THRESHOLDS.circle_s for k in range(count))
    return Recording(Event(k / hz, bind.stick, bind.tilted(one, 1.0)) for k, one in enumerate(headings))


@functools.cache
def held_at(bind: StickBind, headings: tuple[float, ...]) -> Recording:
    """Return a recording of a usual, trembling stick that is held in some directions (rad) in turn."""
    events: list[Event] = []
    for border, heading in enumerate(headings):
        place = bind.tilted(heading, THRESHOLDS.border_tilt)
        held = StickStandIn(bind.stick, rest=place, noise=THRESHOLDS.noise, poll_hz=60.0, seed=border)
        start_s = border * BORDER_S
        events += held.events(_left_alone, start_s, start_s + BORDER_S)
    return Recording([*events, Event(len(headings) * BORDER_S, "mark", "end")])


def rest_of(bind: StickBind) -> tuple[float, float]:
    """Return where an untouched stick rests: as its profile says, otherwise where a usual worn one does."""
    return bind.centre if any(bind.centre) else (THRESHOLDS.rest_right, THRESHOLDS.rest_back)


@functools.cache
def untouched(bind: StickBind, lies_s: float = DRIFT_S, poll_hz: float = 60.0) -> Recording:
    """Return a recording of an untouched stick."""
    held = StickStandIn(bind.stick, rest=rest_of(bind), noise=THRESHOLDS.noise, poll_hz=poll_hz)
    return Recording([*held.events(_left_alone, 0.0, lies_s), Event(lies_s, "mark", "end")])


def _left_alone(_t: float) -> tuple[float, float]:
    return 0.0, 0.0
