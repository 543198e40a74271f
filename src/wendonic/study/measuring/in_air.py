"""How a body accelerates and stops in the air."""

import math
from collections.abc import Callable
from typing import TYPE_CHECKING

from wendonic.devices.event import Event
from wendonic.devices.push import Changes
from wendonic.profile.schema.gait import Gait
from wendonic.study.unmeasured import NotHere, Unmeasured

if TYPE_CHECKING:
    from wendonic.runtime.helm import Helm
    from wendonic.study.bench import Bench

TICK_S = 4e-3
LONGEST_RAMP_S = 1.0
"""A speed that has been constant for this long counts as steady."""
LONGEST_S = 10.0
"""Longest time in the air that is measured."""


def air_start_s(bench: "Bench") -> float:
    """Return how long (s) it takes from rest to most of top speed, in the air. Raises `NotHere` if the gait has no
    numbers of its own for the air, `Unmeasured` if that speed is not reached.
    """
    gait = _gait_in_air(bench)
    helm = bench.helm()
    helm.ground(False)
    _apply(helm, bench.walker.full(bench.walker.ahead))
    enough_m_s = bench.thresholds.most * gait.top_speed_m_s
    return _time_s(helm, lambda speed: speed - enough_m_s, "it does not get that fast")


def air_stop_s(bench: "Bench") -> float:
    """Return how long (s) it takes from top speed to rest, in the air; raises likewise."""
    _gait_in_air(bench)
    helm, walker = bench.helm(), bench.walker
    _apply(helm, walker.full(walker.ahead))
    helm.ground(True)
    _until_steady(helm)
    helm.ground(False)
    _apply(helm, walker.rest(walker.ahead))
    return _time_s(helm, lambda speed: bench.thresholds.rests_m_s - speed, "it does not come to rest")


def _gait_in_air(bench: "Bench") -> Gait:
    """Return the gait if it has other accelerations in the air."""
    bench.need_gait()
    name = bench.table.press_gaits.get(bench.held or "", bench.table.gait)
    gait = bench.profile.every_gait[name]
    if gait.airborne is None or gait.airborne == type(gait.airborne)():
        raise NotHere("in the air a body steers as on the ground")
    return gait


def _apply(helm: "Helm", changes: Changes) -> None:
    for control, value in changes:
        helm.apply(Event(0.0, control, value))


def _until_steady(helm: "Helm") -> None:
    was = -1.0
    for _ in range(round(LONGEST_S / TICK_S)):
        speed = _speed_m_s(helm)
        if abs(speed - was) < 1e-9 and speed > 0.0:
            return
        was = speed
    raise Unmeasured(f"after {LONGEST_S:g} s its speed still changes")


def _time_s(helm: "Helm", over: Callable[[float], float], otherwise: str) -> float:
    """Return when (s) `over` of the speed is first 0 or more, interpolated linearly between two ticks."""
    was, same = -math.inf, 0
    for number in range(round(LONGEST_S / TICK_S)):
        now = over(_speed_m_s(helm))
        if now >= 0.0:
            return (number + (1.0 if math.isinf(was) else -was / (now - was))) * TICK_S
        same = same + 1 if now == was else 0
        if same > LONGEST_RAMP_S / TICK_S:
            break
        was = now
    raise Unmeasured(f"in the air {otherwise}")


def _speed_m_s(helm: "Helm") -> float:
    motion = helm.tick(TICK_S).motion
    return math.hypot(motion.vel_x, motion.vel_y)
