"""How a body responds to full input: pressed, released, and reversed."""

import math
from typing import Any, NamedTuple

import numpy as np

from wendonic.batch import Engine
from wendonic.profile.schema.profile import Profile
from wendonic.study.probes.walk import Walk
from wendonic.study.probes.walker import Steps, Walker
from wendonic.study.thresholds import THRESHOLDS
from wendonic.study.unmeasured import NotHere, Unmeasured

HZ = 1000.0
MOST_TICKS = 30_000
"""A walk of more ticks is sampled less often; crossings are interpolated between ticks."""

LEAD_S = 0.1
SHARE = THRESHOLDS.most
MARGIN_S = 0.5


class StepResponse(NamedTuple):
    """One walk that ends in a release and one that ends in a reversal, in the direction that a mode is measured in.
    Times (s) count from the raw change; distances (m) and speeds (m/s) are along that direction. `t` counts from the
    press, `release_s` on the same clock. What never happened is None, and so is `speed_turned_back` if no control
    goes straight back.
    """

    t: Any
    amount: Any
    speed: Any
    distance_m: Any
    face_deg: Any
    speed_turned_back: Any | None
    face_turned_back_deg: Any | None
    top_speed_m_s: float
    release_s: float
    reach90_s: float | None
    stop_time_s: float | None
    stop_distance_m: float | None
    reversal_s: float | None


def crossing(t: Any, values: Any, level: float, rising: bool = True) -> float | None:
    """Return when values first reach a level, interpolated between two ticks; None if they never do.

    >>> crossing([0.0, 1.0, 2.0], np.array([0.0, 1.0, 3.0]), 2.0)
    1.5
    """
    index = _first_beyond(values, level, rising)
    if index is None:
        return None
    if index == 0:
        return float(t[0])
    return float(t[index - 1] + (t[index] - t[index - 1]) * _share(values, index, level))


def speed_crossing(t: Any, speed: Any, covered: Any, level: float, rising: bool = True) -> float | None:
    """Return when a speed first reaches a level, None if it never does. Within a tick of d metres and h seconds the
    speed goes linearly from v to w, which it may reach early: after 2 (w h - d) / (w - v).

    >>> t = np.array([0.0, 1.0])
    >>> round(speed_crossing(t, np.array([3.0, 0.0]), np.array([0.0, 0.75]), 1.5, rising=False), 3)
    0.25
    """
    index = _first_beyond(speed, level, rising)
    if index is None or index == 0:
        return None if index is None else float(t[0])
    whole_s, distance_m = float(t[index] - t[index - 1]), float(covered[index] - covered[index - 1])
    even_s = 2.0 * (speed[index] * whole_s - distance_m) / (speed[index] - speed[index - 1])
    even_s = even_s if 0.0 < even_s < whole_s else whole_s
    return float(t[index - 1] + even_s * _share(speed, index, level))


def _first_beyond(values: Any, level: float, rising: bool) -> int | None:
    beyond = values >= level if rising else values <= level
    return int(np.argmax(beyond)) if beyond.any() else None


def _share(values: Any, index: int, level: float) -> float:
    """Return how far between the value before and that at an index the level is."""
    before, after = values[index - 1], values[index]
    return 1.0 if after == before else float((level - before) / (after - before))


def shaping_s(profile: Profile) -> float:
    """Return how long (s) ramps and smoothing take to settle."""
    mode = profile.mode[profile.first_mode]
    smoothing_s = 14.0 * mode.move.half_life_s if mode.move else 0.0
    if mode.move and mode.move.one_euro:
        smoothing_s = max(smoothing_s, 14.0 / (2.0 * math.pi * mode.move.one_euro.min_cutoff_hz))
    binds = [bind for channel in (mode.move, *mode.axis_channels) if channel for bind in channel.bind]
    ramps_s = max((getattr(bind, "rise_s", 0.0) + getattr(bind, "fall_s", 0.0) for bind in binds), default=0.0)
    return smoothing_s + ramps_s + MARGIN_S


def hold_s(profile: Profile) -> float:
    """Return how long (s) a direction has to be held until everything is steady, as far as the profile tells: the
    slowest gait, ramps and smoothing.
    """
    gaits_s = 0.0
    for gait in profile.gaits_of(profile.first_mode).values():
        slowest = min(gait.accel_m_s2, gait.brake_m_s2, gait.reverse_m_s2 or math.inf)
        # A decay is over when the body is at rest, and not before ten time constants.
        constants = max(math.log(gait.top_speed_m_s / THRESHOLDS.rests_m_s) + 1.0, 10.0)
        decay_s = (gait.coast_half_life_s or 0.0) / math.log(2.0)
        decay_s = max(decay_s, 1.0 / gait.drag_per_s if gait.drag_per_s else 0.0)
        gaits_s = max(gaits_s, constants * decay_s, 2.2 * gait.top_speed_m_s / slowest)
    return min(gaits_s + shaping_s(profile), THRESHOLDS.longest_s)


def rate_hz(seconds: float, hz: float = HZ) -> float:
    """Return the tick rate for a walk of that many seconds. Below `hz` it is a multiple of 20 Hz, so that a change at
    a multiple of 0.1 s comes between two ticks, also at half that rate.

    >>> rate_hz(20.0), rate_hz(118.3)
    (1000.0, 240.0)
    """
    return min(hz, max(20.0 * math.floor(MOST_TICKS / (20.0 * seconds)), 20.0))


def steady_speed(walk: Walk, from_s: float, to_s: float) -> float | None:
    """Return the speed over the ground at `to_s` of something that has been held since `from_s`; None if it is not
    steady.
    """
    t, speed = walk["t"], np.hypot(walk["vel_x"], walk["vel_y"])
    at_end = float(np.interp(to_s, t, speed))
    before = float(np.interp(to_s - 0.05 * (to_s - from_s), t, speed))
    return at_end if abs(at_end - before) <= THRESHOLDS.steady * at_end else None


def step_response(profile: Profile, walker: Walker, engine: Engine = "auto") -> StepResponse:
    """Return the step response of a profile's first mode; raises `NotHere` if nothing moves, and `Unmeasured` if the
    speed does not become steady.

    >>> from wendonic.demo import demo_profile
    >>> from wendonic.study.probes.walker import walker_of
    >>> profile = demo_profile()
    >>> answer = step_response(profile, walker_of(profile.mode["foot"], profile.window))
    >>> round(answer.top_speed_m_s, 3), round(answer.stop_distance_m, 3)
    (3.2, 0.171)
    """
    longest_s = THRESHOLDS.longest_s
    held_s = math.ceil(hold_s(profile) * 10.0) / 10.0
    ahead, opposite = walker.ahead, walker.opposite
    while True:
        release_s = LEAD_S + held_s
        end_s = release_s + held_s
        hz = rate_hz(end_s)
        steps: Steps = [(LEAD_S, walker.full(ahead)), (release_s, walker.rest(ahead))]
        held = Walk(profile, walker, steps, end_s, hz, engine)
        top = steady_speed(held, LEAD_S, release_s)
        if top is not None:
            break
        if held_s >= longest_s:
            raise Unmeasured(f"held for {longest_s:g} s its speed is still changing")
        held_s = min(2.0 * held_s, longest_s)
    if top <= 0.0:
        raise NotHere(f"{walker.name}: held {ahead}, nothing moves")
    t = held["t"]
    x, y = (float(np.interp(release_s, t, held[f"vel_{axis}"])) / top for axis in "xy")
    speed = held["vel_x"] * x + held["vel_y"] * y
    covered = held["pos_x"] * x + held["pos_y"] * y
    reach = speed_crossing(t, speed, covered, SHARE * top)
    after = t > release_s
    over_ground = np.hypot(held["vel_x"], held["vel_y"])
    rest = speed_crossing(t[after], over_ground[after], covered[after], THRESHOLDS.rests_m_s, rising=False)
    turned, back, face_back = None, None, None
    if opposite is not None:
        steps = [(LEAD_S, walker.full(ahead)), (release_s, walker.changes((ahead,), (opposite,)))]
        returns = Walk(profile, walker, steps, end_s, hz, engine)
        back, face_back = returns["vel_x"] * x + returns["vel_y"] * y, returns["face_deg"]
        covered_back = returns["pos_x"] * x + returns["pos_y"] * y
        turned = None
        if back[-1] < 0.0:
            level = SHARE * float(back[-1])
            turned = speed_crossing(t[after], back[after], covered_back[after], level, rising=False)
    return StepResponse(
        t - LEAD_S,
        held["amount"],
        speed,
        covered,
        held["face_deg"],
        back,
        face_back,
        top,
        held_s,
        None if reach is None else reach - LEAD_S,
        None if rest is None else rest - release_s,
        None if rest is None else float(covered[-1] - np.interp(release_s, t, covered)),
        None if turned is None else turned - release_s,
    )
