"""Walking by swinging the hands: speed, delay, evenness, and the effect of a tremor."""

import math
from typing import NamedTuple

import numpy as np

from wendonic.batch.trace import shaped
from wendonic.devices.event import Event
from wendonic.devices.standins.hands import ARM_M, HandsStandIn
from wendonic.profile.schema.move_binds import HandsBind
from wendonic.recording.recording import Recording
from wendonic.study.bench import Bench
from wendonic.study.measuring.step_response import crossing
from wendonic.study.unmeasured import NotHere, Unmeasured, once_each

HZ = 90.0
SWINGS_S = 8.0
SETTLED_S = 4.0
BEGINS_S = 45.5 / HZ
"""Each pose comes in the middle of a tick: two in one tick and none in the next would look like fast hands."""

TREMBLES_S = 5.0
MOST_TREMOR_M = 0.05
FINEST_M = 2e-5
"""Resolution to which tremors are measured."""


class Swing(NamedTuple):
    """Walking speed per m/s of the hands, seconds to half of the request, and the share lost as a swing reverses."""

    gain: float
    delay_s: float | None
    dip: float


def hands_bind(bench: Bench) -> HandsBind:
    """Return the entry of swinging hands; raises `NotHere` without one."""
    if bench.by is None or bench.by in ("hands", "hand"):
        for bind in bench.table.move.bind if bench.table.move else ():
            if isinstance(bind, HandsBind):
                return bind
    raise NotHere("no hands swing")


@once_each
def swing(bench: Bench) -> Swing:
    """Return the effect of swinging both hands at a usual pace.

    The stand-in's mean speed is 4 l asin(a / l) f, with arms of length l, an amplitude a and a cadence f; a is chosen
    so that the speed is `swing_m_s`.
    """
    hands_bind(bench)
    bench.need_gait()
    limits = bench.thresholds
    amplitude_m = ARM_M * math.sin(limits.swing_m_s / (4.0 * ARM_M * limits.cadence_hz))
    hands = HandsStandIn(limits.cadence_hz, amplitude_m, poll_hz=HZ)
    swings = hands.walk(BEGINS_S, BEGINS_S + SWINGS_S)
    walked = shaped(Recording([Event(0.0, "mark", "begin"), *swings]), bench.moving, hz=HZ, engine=bench.engine)
    t, amount = walked["t"] - BEGINS_S, walked["amount"]
    settled = t > SETTLED_S
    mean = float(amount[settled].mean())
    if mean <= limits.responds:
        raise Unmeasured(f"hands that swing at {limits.swing_m_s:g} m/s ask for nothing")
    speed = float(np.hypot(walked["vel_x"], walked["vel_y"])[settled].mean())
    dip = 1.0 - float(amount[settled].min() / amount[settled].max())
    return Swing(speed / limits.swing_m_s, crossing(t, amount, limits.half * mean), dip)


def tremor_that_walks_mm(bench: Bench) -> float:
    """Return the standard deviation (mm) of the smallest tremor of resting hands that moves the body."""
    hands_bind(bench)

    def walks(tremor_m: float) -> bool:
        still = HandsStandIn(amplitude_m=0.0, tremor_m=tremor_m, poll_hz=HZ, seed=1)
        walked = shaped(Recording(still.walk(0.0, TREMBLES_S)), bench.moving, hz=HZ, engine=bench.engine)
        return bool(walked["amount"].max() > bench.thresholds.responds)

    low, high = 0.0, MOST_TREMOR_M
    if not walks(high):
        raise Unmeasured(f"a tremor of {1000.0 * high:g} mm does not walk")
    while high - low > FINEST_M:
        middle = (low + high) / 2.0
        low, high = (low, middle) if walks(middle) else (middle, high)
    return 1000.0 * high
