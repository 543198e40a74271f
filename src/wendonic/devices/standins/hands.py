"""Two simulated hands with motion controllers, and a head, walking on the spot."""

import math
import random
from collections.abc import Iterable
from typing import NamedTuple

from wendonic.devices.event import Event
from wendonic.devices.standins.limits import above_zero, no_less
from wendonic.devices.standins.tremor import Tremor
from wendonic.errors import DeviceError

SHOULDER_M = 1.4
ARM_M = 0.6
EYES_M = 1.65


class TrackingLoss(NamedTuple):
    """A device (`hand.left`, `hand.right` or `head`) is not tracked from `start_s` to `end_s`."""

    unit: str
    start_s: float
    end_s: float


class HandsStandIn:
    """Arms that swing like pendulums, `cadence_hz` times a second each way and back, in turns, squeezing all the
    while.

    Each hand swings `amplitude_m` forward and back of straight down, on an arc about its shoulder; `tremor_m` is the
    standard deviation of its tremor on each axis. Poses are WebXR's (y up, -z forward, metres, quaternion x y z w),
    `poll_hz` a second. A lost hand is reported, silent for a time, and then returns. Same seed, same events.

    >>> hands = HandsStandIn(cadence_hz=1.0, amplitude_m=0.25, seed=8)
    >>> events = hands.walk(0.0, 1.0)
    >>> events[0], [event.control for event in events[2:5]]
    (Event(t=0.0, control='hand.left.squeeze', value=1.0), ['head.pose', 'hand.left.pose', 'hand.right.pose'])
    """

    def __init__(
        self,
        cadence_hz: float = 0.9,
        amplitude_m: float = 0.25,
        tremor_m: float = 0.0,
        poll_hz: float = 90.0,
        seed: int = 0,
    ) -> None:
        """Take the arms' numbers; raises `DeviceError` for one that no arm can have."""
        above_zero(cadence_hz=cadence_hz, poll_hz=poll_hz)
        no_less(0.0, amplitude_m=amplitude_m, tremor_m=tremor_m)
        if amplitude_m >= ARM_M:
            raise DeviceError(f"amplitude_m: found {amplitude_m!r}; allowed: below the arm's {ARM_M} m")
        self.cadence_hz = cadence_hz
        self.amplitude_m = amplitude_m
        self.tremor_m = tremor_m
        self.poll_hz = poll_hz
        self._random = random.Random(seed)

    def speed_m_s(self) -> float:
        """Return a hand's mean speed along its arc, tremor left out: four swings of the arc's half a period."""
        return 4.0 * ARM_M * math.asin(self.amplitude_m / ARM_M) * self.cadence_hz

    def _pose(self, side: float, t: float, bob: float, tremors: list[Tremor]) -> tuple[float, ...]:
        reach = math.asin(self.amplitude_m / ARM_M)
        angle = reach * math.sin(math.tau * self.cadence_hz * t) * side
        at = (0.22 * side, SHOULDER_M + bob - ARM_M * math.cos(angle), -ARM_M * math.sin(angle))
        x, y, z = (round(value + tremor.step(), 6) for value, tremor in zip(at, tremors, strict=True))
        return x, y, z, round(math.sin(angle / 2.0), 6), 0.0, 0.0, round(math.cos(angle / 2.0), 6)

    def walk(self, start_s: float, end_s: float, losses: Iterable[TrackingLoss] = ()) -> list[Event]:
        """Return all events from `start_s` to `end_s`; raises `DeviceError` for a loss of something else."""
        lost = list(losses)
        for loss in lost:
            if loss.unit not in ("hand.left", "hand.right", "head"):
                raise DeviceError(f"unit: found {loss.unit!r}; allowed: hand.left, hand.right, head")
        events = [Event(start_s, f"{hand}.squeeze", 1.0) for hand in ("hand.left", "hand.right")]
        events += [Event(loss.start_s, f"lost.{loss.unit}", 1.0) for loss in lost]
        # A hand that comes back squeezes still.
        events += [Event(loss.end_s, f"{loss.unit}.squeeze", 1.0) for loss in lost if loss.unit != "head"]
        tremors = {
            unit: [Tremor(self.tremor_m, 1.0 / self.poll_hz, self._random) for _ in range(3)]
            for unit in ("head", "hand.left", "hand.right")
        }
        for poll in range(math.ceil((end_s - start_s) * self.poll_hz)):
            t = round(start_s + poll / self.poll_hz, 6)
            # The head bobs twice a cadence, and the shoulders with it.
            bob = 0.012 * math.cos(2.0 * math.tau * self.cadence_hz * (t - start_s))
            poses = {
                "head": (0.0, round(EYES_M + bob, 6), 0.0, 0.0, 0.0, 0.0, 1.0),
                "hand.left": self._pose(-1.0, t - start_s, bob, tremors["hand.left"]),
                "hand.right": self._pose(1.0, t - start_s, bob, tremors["hand.right"]),
            }
            events += [
                Event(t, f"{unit}.pose", pose)
                for unit, pose in poses.items()
                if not any(loss.unit == unit and loss.start_s <= t < loss.end_s for loss in lost)
            ]
        events += [Event(end_s, f"{hand}.squeeze", 0.0) for hand in ("hand.left", "hand.right")]
        return sorted(events, key=lambda event: event.t)
