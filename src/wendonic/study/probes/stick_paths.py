"""What a usual stick does: tilted slowly, taken round its rim, held on a border, left alone."""

import functools
import math

from wendonic.devices.event import Event
from wendonic.devices.standins.stick import StickStandIn
from wendonic.recording.recording import Recording

RAMPS = 16
RAMP_S = 1.0
"""A slow tilt from rest to the rim."""

CIRCLE_S = 2.0
ROUND_HZ = 480.0
NOISE = 0.004
"""Standard deviation of each axis of a usual stick, at rest or held, in raw units."""

REST = (0.03, -0.02)
"""Where a usual worn stick comes to rest."""

BORDER_S = 6.0
HELD_TILT = 0.7
DRIFT_S = 12.0


def _tilt(heading: float, length: float) -> tuple[float, float]:
    length = min(length, 1.0)
    return math.sin(heading) * length, -math.cos(heading) * length


@functools.cache
def slow_ramps(stick: str, period_s: float) -> Recording:
    """Return a recording in which a stick goes from rest to its rim in each direction, one every period."""
    events: list[Event] = []
    count = round(60 * RAMP_S)
    for number in range(RAMPS):
        heading, start_s = math.tau * number / RAMPS, number * period_s
        events += [Event(start_s + k / 60, stick, _tilt(heading, k / count)) for k in range(count + 1)]
        events.append(Event(start_s + RAMP_S + 1.5 / 60, stick, (0.0, 0.0)))
    return Recording([*events, Event(RAMPS * period_s, "mark", "end")])


@functools.cache
def round_the_rim(stick: str) -> Recording:
    """Return a recording of a stick that goes twice round its rim, in CIRCLE_S each."""
    count = round(2.0 * CIRCLE_S * ROUND_HZ)
    tilts = ((k / ROUND_HZ, _tilt(math.tau * k / ROUND_HZ / CIRCLE_S, 1.0)) for k in range(count))
    return Recording(Event(t, stick, tilt) for t, tilt in tilts)


@functools.cache
def on_borders(stick: str, sectors: int) -> Recording:
    """Return a recording of a usual stick, held on each border of the facings in turn."""
    events: list[Event] = []
    held = StickStandIn(stick, noise=NOISE, poll_hz=60.0)
    for border in range(sectors):
        # Of two facings, the borders are straight ahead and back.
        heading = math.tau * (border + (0.0 if sectors == 2 else 0.5)) / sectors
        place = (HELD_TILT * math.sin(heading), HELD_TILT * math.cos(heading))
        start_s = border * BORDER_S
        events += held.events(functools.partial(_always, place), start_s, start_s + BORDER_S)
    return Recording([*events, Event(sectors * BORDER_S, "mark", "end")])


@functools.cache
def untouched(stick: str) -> Recording:
    """Return a recording of a usual worn stick that nobody touches."""
    held = StickStandIn(stick, rest=REST, noise=NOISE, poll_hz=60.0)
    return Recording(held.events(functools.partial(_always, (0.0, 0.0)), 0.0, DRIFT_S))


def _always(place: tuple[float, float], _t: float) -> tuple[float, float]:
    return place
