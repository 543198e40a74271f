"""How a body answers to everything at once: pressed, released, and pressed the other way."""

import math
from typing import Any, NamedTuple

import numpy as np

from wendonic.batch import Engine
from wendonic.batch.trace import shaped
from wendonic.profile.schema.profile import Profile
from wendonic.study.probes.walker import Walker, probe

HZ = 1000.0
LEAD_S = 0.1
LONGEST_HOLD_S = 30.0
SHARE = 0.9
STEADY_S, STEADY = 0.1, 1e-3
"""A speed that changes by no more than this share in so long is the top speed."""
RESTS_M_S = 1e-3
ASKS = 1e-3


class StepResponse(NamedTuple):
    """One walk that is released, and one that is turned back, forward or, seen from the side, to the right; times
    (s) count from the raw change; m and m/s. `t` counts from the press, `release_s` on the same clock. None where it
    never came to that.
    """

    t: Any
    amount: Any
    speed: Any
    distance_m: Any
    speed_turned_back: Any
    top_speed_m_s: float
    release_s: float
    first_response_s: float | None
    reach90_s: float | None
    stop_time_s: float | None
    stop_distance_m: float | None
    reversal_s: float | None


def crossing(t: Any, values: Any, level: float, rising: bool = True) -> float | None:
    """Return when values first reach a level, interpolated between two ticks; None if they never do.

    >>> crossing([0.0, 1.0, 2.0], np.array([0.0, 1.0, 3.0]), 2.0)
    1.5
    """
    beyond = values >= level if rising else values <= level
    if not beyond.any():
        return None
    index = int(np.argmax(beyond))
    if index == 0:
        return float(t[0])
    before, after = values[index - 1], values[index]
    share = 1.0 if after == before else (level - before) / (after - before)
    return float(t[index - 1] + share * (t[index] - t[index - 1]))


def hold_s(profile: Profile) -> float:
    """Return for how long a way has to be held until everything is steady: the gait, ramps, and smoothing."""
    mode = profile.mode[profile.first_mode]
    gait = profile.gait_of(profile.first_mode)
    slowest = min(gait.accel_m_s2, gait.brake_m_s2)
    shaping_s = 0.5 + (14.0 * mode.move.half_life_s if mode.move else 0.0)
    binds = [bind for channel in (mode.move, mode.throttle, mode.turn) if channel for bind in channel.bind]
    ramps_s = max((getattr(bind, "rise_s", 0.0) + getattr(bind, "fall_s", 0.0) for bind in binds), default=0.0)
    # A decay is over after 14 half-lives, or 10 time constants.
    decays_s = max(14.0 * (gait.coast_half_life_s or 0.0), 10.0 / gait.drag_per_s if gait.drag_per_s else 0.0)
    gait_s = max(2.2 * gait.top_speed_m_s / slowest, decays_s)
    return min(gait_s + shaping_s + ramps_s, LONGEST_HOLD_S)


def step_response(profile: Profile, walker: Walker, engine: Engine = "auto") -> StepResponse | None:
    """Return the answer of a profile's first mode; None where nothing moves, or a gait is so slow that its top speed
    was not seen.

    >>> from wendonic.demo import demo_profile
    >>> from wendonic.study.probes.walker import key_walker
    >>> profile = demo_profile()
    >>> answer = step_response(profile, key_walker(profile.mode["foot"]))
    >>> round(answer.top_speed_m_s, 3), round(answer.stop_distance_m, 3)
    (3.2, 0.174)
    """
    held_s = math.ceil(hold_s(profile) * 10.0) / 10.0
    release_s = LEAD_S + held_s
    end_s = release_s + held_s
    ahead, opposite = walker.ahead, walker.opposite
    axis = "x" if walker.across else "y"
    steps = [(LEAD_S, walker.full(ahead)), (release_s, walker.rest(ahead))]
    held = shaped(probe(steps, end_s), profile, hz=HZ, engine=engine)
    t, speed = held["t"], held[f"vel_{axis}"]
    top = float(np.interp(release_s, t, speed))
    before = float(np.interp(release_s - STEADY_S, t, speed))
    if top <= 0.0 or abs(top - before) > STEADY * top:
        return None
    amount = held["amount"]
    first = crossing(t, amount, ASKS)
    reach = crossing(t, speed, SHARE * top)
    after = t > release_s
    rest = crossing(t[after], speed[after], RESTS_M_S, rising=False)
    covered = held[f"pos_{axis}"]
    steps = [(LEAD_S, walker.full(ahead)), (release_s, [*walker.rest(ahead), *walker.full(opposite)])]
    back = shaped(probe(steps, end_s), profile, hz=HZ, engine=engine)[f"vel_{axis}"]
    turned = crossing(t[after], back[after], SHARE * float(back[-1]), rising=False) if back[-1] < 0.0 else None
    return StepResponse(
        t - LEAD_S,
        amount,
        speed,
        covered,
        back,
        top,
        held_s,
        None if first is None else first - LEAD_S,
        None if reach is None else reach - LEAD_S,
        None if rest is None else rest - release_s,
        None if rest is None else float(covered[-1] - np.interp(release_s, t, covered)),
        None if turned is None else turned - release_s,
    )
