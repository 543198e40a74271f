"""How soon a full press or tilt has an effect, and how soon half of it."""

from typing import Any, NamedTuple

import numpy as np

from wendonic.study.bench import Bench
from wendonic.study.measuring.step_response import crossing, rate_hz, shaping_s
from wendonic.study.probes.walk import Walk
from wendonic.study.probes.walker import Steps
from wendonic.study.unmeasured import NotHere, once_each

LEAD_S = 0.1
PHASES = 16
HZ = 2000.0


class RequestResponse(NamedTuple):
    """The request after a full press in the direction that a mode is measured in: times since the press (s), amounts,
    and the final amount; and the same with ticks twice as long.
    """

    t: Any
    amount: Any
    final: float
    doubled_t: Any
    doubled_amount: Any

    def reached_s(self, amount: float) -> float | None:
        """Return when an amount is first requested (s after the press), in the limit of short ticks; None if it never
        is.

        The delay that a tick adds is proportional to its length: d = 2 d(dt) - d(2 dt), Richardson extrapolation.
        """
        once, doubled = crossing(self.t, self.amount, amount), crossing(self.doubled_t, self.doubled_amount, amount)
        return None if once is None or doubled is None else max(2.0 * once - doubled, 0.0)


@once_each
def request_response(bench: Bench) -> RequestResponse:
    """Return the request after a full press; raises `NotHere` if it stays at 0."""
    if bench.on_squares:
        raise NotHere("on squares there are steps and no speeds")
    walker = bench.any_walker
    end_s = LEAD_S + shaping_s(bench.moving)
    steps: Steps = [(LEAD_S, walker.full(walker.ahead))]
    hz = rate_hz(end_s, HZ)
    once, doubled = (Walk(bench.moving, walker, steps, end_s, rate, bench.engine) for rate in (hz, hz / 2.0))
    final = float(once["amount"][-1])
    if final <= bench.thresholds.responds:
        raise NotHere(f"{walker.name}: held {walker.ahead}, nothing is requested")
    return RequestResponse(once["t"] - LEAD_S, once["amount"], final, doubled["t"] - LEAD_S, doubled["amount"])


def chain_delay(bench: Bench) -> float | None:
    """Return the mean time (s) from a full press at any moment of a tick to the end of the tick that requests half of
    it, over PHASES presses evenly spread over a tick.
    """
    hz, walker = bench.thresholds.hz, bench.any_walker
    final = request_response(bench).final
    # Everything has settled again before the next press, which comes a fraction of a tick later within its tick.
    ticks = round(shaping_s(bench.moving) * hz) + 1
    presses = [(2 * ticks * phase + 1 + (phase + 0.5) / PHASES) / hz for phase in range(PHASES)]
    steps: Steps = []
    for press_s in presses:
        steps.append((press_s, walker.full(walker.ahead)))
        steps.append((press_s + ticks / hz, walker.rest(walker.ahead)))
    walk = Walk(bench.moving, walker, steps, presses[-1] + (ticks + 1) / hz, hz, bench.engine)
    t, amount = walk["t"], walk["amount"]
    delays = []
    for press_s in presses:
        since = (t > press_s) & (t <= press_s + ticks / hz) & (amount >= bench.thresholds.half * final - 1e-12)
        if not since.any():
            return None
        delays.append(float(t[np.argmax(since)]) - press_s)
    return float(np.mean(delays))
