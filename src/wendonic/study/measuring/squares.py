"""Steps on squares while a direction is held."""

import numpy as np

from wendonic.profile.schema.profile import Profile
from wendonic.study.bench import Bench
from wendonic.study.probes.walk import Walk
from wendonic.study.unmeasured import NotHere, once_each

HZ = 1000.0
PRESSED_S = 0.1
STEPS = 8
"""Number of steps that are waited for."""


@once_each
def steps_held(bench: Bench) -> list[float]:
    """Return when each step begins (s after the press); raises `NotHere` if nothing steps."""
    steer = bench.table.steer
    if steer.frame != "grid":
        raise NotHere("nothing steps on squares")
    walker = bench.any_walker
    every_s = max(steer.step_s, steer.repeat_s)
    # A press that slows the body down makes steps longer.
    every_s /= max(bench.move_scale, 0.05)
    held_s = PRESSED_S + steer.turn_first_s + steer.delay_s + STEPS * every_s
    walk = Walk(_even(bench), walker, [(PRESSED_S, walker.full(walker.ahead))], held_s, HZ, bench.engine)
    # The pace of a step that begins in the last tick is unknown.
    ticks = np.flatnonzero(np.asarray(walk["step_began"], dtype=bool)[:-1])
    if len(ticks) == 0:
        raise NotHere(f"{walker.name}: held {walker.ahead}, nothing steps")
    covered_m = np.hypot(walk["pos_x"] - walk["pos_x"][0], walk["pos_y"] - walk["pos_y"][0])
    starts_m = steer.square_m * np.arange(len(ticks))
    left_s = (
        _left_s(walk["t"], covered_m, tick, start_m) for tick, start_m in zip(ticks.tolist(), starts_m, strict=True)
    )
    return [max(t - PRESSED_S, 0.0) for t in left_s]


def _even(bench: Bench) -> Profile:
    """Return the profile with steps at an even pace, which begin when eased ones do."""
    mode = bench.moving.mode[bench.mode]
    even = mode.model_copy(update={"steer": mode.steer.model_copy(update={"eased": False})})
    return bench.moving.model_copy(update={"mode": {bench.mode: even}})


def _left_s(t: np.ndarray, covered_m: np.ndarray, tick: int, start_m: float) -> float:
    """Return when (s) the step that began in a tick left its square, from its progress and pace."""
    pace_m = covered_m[tick + 1] - covered_m[tick]
    if pace_m <= 0.0:
        return float(t[tick])
    return float(t[tick] - (covered_m[tick] - start_m) / pace_m * (t[tick + 1] - t[tick]))
