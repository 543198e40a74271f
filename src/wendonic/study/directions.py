"""What directions come out as: speeds all round, errors of heading, facings that lag or flicker, circles."""

import functools
import math
from typing import Any

import numpy as np

from wendonic.batch import Engine, shape
from wendonic.devices.event import Event
from wendonic.devices.standins.stick import StickStandIn
from wendonic.profile.schema import Profile
from wendonic.profile.steer import DriveSteer, Faced, FacingSteer
from wendonic.recording.recording import Recording
from wendonic.study.probes import Steps, Walker, probe
from wendonic.study.step_response import hold_s
from wendonic.study.summary import summarise
from wendonic.study.travelled import speeds_m_s

WAYS = (
    ("ahead",),
    ("ahead", "right"),
    ("right",),
    ("back", "right"),
    ("back",),
    ("back", "left"),
    ("left",),
    ("ahead", "left"),
)
RAMPS = 16
RAMP_S = 1.0
"""A slow tilt from rest to the rim."""

ASKS = 0.05
"""Below this share of full speed a heading is not looked at: nobody can aim it."""

CIRCLE_S = 2.0
ROUND_HZ = 480.0
NOISE = 0.004
"""Standard deviation of each axis of a usual stick, at rest or held, in raw units."""

REST = (0.03, -0.02)
"""Where a usual worn stick comes to rest."""

BORDER_S = 6.0
HELD_TILT = 0.7
DRIFT_S = 12.0


def speeds_all_round(profile: Profile, walker: Walker, engine: Engine = "auto") -> list[float]:
    """Return the steady speed (m/s) in each of eight directions, clockwise from ahead."""
    held_s = math.ceil(hold_s(profile))
    steps: Steps = []
    for number, ways in enumerate(WAYS):
        if number and not walker.stick:
            steps.append((number * held_s, walker.rest(*WAYS[number - 1])))
        steps.append((number * held_s, walker.full(*ways)))
    trace = shape(probe(steps, len(WAYS) * held_s), profile, hz=60, engine=engine)
    ends = trace.iloc[held_s * 60 - 1 :: held_s * 60]
    return [float(speed) for speed in speeds_m_s(ends)]


def spread(speeds: list[float]) -> float | None:
    """Return the largest deviation from the mean, as a share of it; None if nothing moves.

    >>> spread([2.0, 2.0, 2.0, 4.0])
    0.6
    """
    mean = float(np.mean(speeds))
    return float(np.max(np.abs(np.array(speeds) - mean)) / mean) if mean > 0.0 else None


def direction_error_deg(profile: Profile, stick: str, engine: Engine = "auto") -> float | None:
    """Return the largest angle (deg) between a tilt and what it asks for, while a stick goes slowly from rest to its
    rim in each of 16 directions; None if it never asks for anything.
    """
    move = profile.mode[profile.first_mode].move
    # After 14 half-lives nothing is left of the last direction.
    rest_s = 0.5 + math.ceil(14.0 * move.half_life_s) if move else 0.5
    trace = shape(slow_ramps(stick, RAMP_S + rest_s), profile, hz=60, engine=engine)
    since = trace["t"].to_numpy() + 1e-9
    number = (since / (RAMP_S + rest_s)).astype(int)
    tilts = since - number * (RAMP_S + rest_s) <= RAMP_S
    right, ahead = trace["local_x"].to_numpy(), trace["local_y"].to_numpy()
    asks = tilts & (np.hypot(right, ahead) > ASKS)
    if not asks.any():
        return None
    off = np.arctan2(right, ahead) - math.tau * number / RAMPS
    return float(np.degrees(np.abs((off[asks] + math.pi) % math.tau - math.pi)).max())


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


def _tilt(heading: float, length: float) -> tuple[float, float]:
    length = min(length, 1.0)
    return math.sin(heading) * length, -math.cos(heading) * length


def faces_travel(profile: Profile) -> bool:
    """Return whether the body turns to where it goes, so that its face follows a stick."""
    steer = profile.mode[profile.first_mode].steer
    return isinstance(steer, Faced) and steer.face == "travel" and steer.frame in ("camera", "map", "goto")


def facing_lag_deg(profile: Profile, stick: str, engine: Engine = "auto") -> float:
    """Return how far (deg) the face is behind a stick that goes round its rim once in CIRCLE_S, steadily; 180 where
    it cannot follow.
    """
    trace = shape(_rounds(stick), profile, hz=ROUND_HZ, engine=engine)
    # Held for all of its tick, a tilt is half a tick early.
    raw = np.degrees(np.arctan2(trace["raw_x"], trace["raw_y"]))
    half_tick_deg = 180.0 / ROUND_HZ / CIRCLE_S
    behind = ((raw + half_tick_deg - trace["face_deg"] + 180.0) % 360.0 - 180.0)[-round(ROUND_HZ * CIRCLE_S) :]
    steady = float(np.ptp(behind)) < 20.0
    return float(np.abs(behind).mean()) if steady else 180.0


@functools.cache
def _rounds(stick: str) -> Recording:
    """Return a recording of a stick that goes twice round its rim."""
    count = round(2.0 * CIRCLE_S * ROUND_HZ)
    tilts = ((k / ROUND_HZ, _tilt(math.tau * k / ROUND_HZ / CIRCLE_S, 1.0)) for k in range(count))
    return Recording(Event(t, stick, tilt) for t, tilt in tilts)


def sector_flicker_per_min(profile: Profile, stick: str, engine: Engine = "auto") -> float | None:
    """Return how often a minute the facing changes while a usual, trembling stick is held on a border of two facings;
    the worst border counts. None without facings.
    """
    sectors = profile.mode[profile.first_mode].steer.sectors
    if sectors is None:
        return None
    trace = shape(_on_borders(stick, sectors), profile, hz=60, engine=engine)
    # The first second of each border is the way there, and the next one may begin early by a tick or two.
    period = round(60 * BORDER_S)
    facings = [
        trace["sector"].to_numpy()[60 + border * period : (border + 1) * period - 10] for border in range(sectors)
    ]
    worst = max(int((np.diff(seen) != 0).sum()) for seen in facings)
    return worst * 3600.0 / (period - 70)


@functools.cache
def _on_borders(stick: str, sectors: int) -> Recording:
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


def _always(place: tuple[float, float], _t: float) -> tuple[float, float]:
    return place


def turn_circle_m(profile: Profile, walker: Walker, engine: Engine = "auto") -> float | None:
    """Return how wide (m) the smallest circle at top speed is; None where a body does not drive along its own
    heading, and where it turns on the spot.
    """
    steer = profile.mode[profile.first_mode].steer
    turns = isinstance(steer, FacingSteer) and steer.face == "travel"
    if not (isinstance(steer, DriveSteer) or turns):
        return None
    held_s = hold_s(profile)
    rests: list[Any] = []
    if not walker.stick:
        rests = [(held_s, walker.full("right"))]
    steps = [(0.0, walker.full("ahead")), *rests] if rests else [(0.0, walker.full("ahead", "right"))]
    trace = shape(probe(steps, 2.0 * held_s + 2.0), profile, hz=240, engine=engine).iloc[-120:]
    faces = np.unwrap(np.radians(trace["face_deg"].to_numpy()))
    turned = abs(float(faces[-1] - faces[0]))
    gone_m = float(speeds_m_s(trace)[1:].sum() / 240.0)
    return 2.0 * gone_m / turned if turned > 1e-6 and gone_m > 0.0 else None


def rest_drift_m_per_min(profile: Profile, stick: str, engine: Engine = "auto") -> float | None:
    """Return how far (m) the body drifts in a minute while a usual worn stick lies untouched."""
    return summarise(shape(_untouched(stick), profile, hz=60, engine=engine)).rest_drift_m_per_min


@functools.cache
def _untouched(stick: str) -> Recording:
    held = StickStandIn(stick, rest=REST, noise=NOISE, poll_hz=60.0)
    return Recording(held.events(functools.partial(_always, (0.0, 0.0)), 0.0, DRIFT_S))
