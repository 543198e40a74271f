"""Flying: up, down, and where the view points."""

import numpy as np

from wendonic.devices.push import Changes
from wendonic.profile.schema.steer.fly import FlySteer
from wendonic.study.bench import Bench
from wendonic.study.measuring.step_response import hold_s
from wendonic.study.probes.walk import Walk
from wendonic.study.unmeasured import NotHere, Unmeasured

HZ = 120.0


def _flies(bench: Bench) -> FlySteer:
    if not isinstance(bench.table.steer, FlySteer):
        raise NotHere("nothing flies")
    return bench.table.steer


def _settled_m_s(bench: Bench, changes: Changes) -> float:
    held_s = hold_s(bench.moving)
    walk = Walk(bench.moving, bench.walker, [(0.0, changes)], held_s, HZ, bench.engine)
    speeds = walk["vel_z"]
    last = float(speeds[-1])
    if not np.isclose(last, speeds[round(-0.05 * held_s * HZ) - 1], rtol=bench.thresholds.steady, atol=1e-6):
        raise Unmeasured(f"held for {held_s:g} s the speed is still changing")
    return last


def vertical_m_s(bench: Bench, direction: str) -> float:
    """Return the speed (m/s) that holding up or down reaches, positive in that direction."""
    _flies(bench)
    if bench.table.rise is None or not bench.walker.goes(direction):
        raise NotHere(f"nothing goes {direction}")
    speed = _settled_m_s(bench, bench.walker.full(direction))
    return speed if direction == "up" else 0.0 - speed


def dive_speed_m_s(bench: Bench) -> float:
    """Return the downward speed (m/s) of flying forward while looking down as far as the view allows."""
    if _flies(bench).level:
        raise NotHere("forward stays level whatever the view's pitch")
    look = bench.table.look
    low_deg = look.pitch_limits_deg[0] if look else -90.0
    down: Changes = [("view", (0.0, low_deg)), *bench.walker.full("forward")]
    return 0.0 - _settled_m_s(bench, down)
