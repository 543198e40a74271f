"""A simulated stick."""

import math
import random

from wendonic.devices.controls import find_control
from wendonic.devices.event import Event
from wendonic.devices.standins.hand import HandPath
from wendonic.errors import DeviceError


class StickStandIn:
    """A stick with the faults of real ones: it rests off centre, at another place each time, is noisy, has its own
    rim, and reports in steps.

    `rest` is where it comes to rest, `scatter` the standard deviation of each axis of where it does so each time that
    it is released, and `noise` that of its trembling, in raw units. The rim
    in direction a lies at rim_reach / (|cos a|^p + |sin a|^p)^(1/p) with p = `rim_power`: 2 is a circle,
    larger is squarer (infinity a square, whose corners are at 1.41), smaller flatter in the diagonals.
    `bits` (2 to 24) sets the steps: each axis has 2^bits codes from -1 to 1, so an even number, and none of
    them is exactly 0. It is read `poll_hz` times a second and reports changes only, as drivers do.
    Same seed, same events.

    >>> stick = StickStandIn(rest=(0.02, -0.01), noise=0.003, bits=8, poll_hz=125, seed=7)
    >>> events = stick.events(lambda t: (0.0, 1.0), 0.0, 1.0)
    >>> events[0]
    Event(t=0.0, control='pad.left_stick', value=(0.019608, -1.0))
    """

    def __init__(
        self,
        control: str = "pad.left_stick",
        rest: tuple[float, float] = (0.0, 0.0),
        noise: float = 0.0,
        rim_power: float = 2.0,
        rim_reach: float = 1.0,
        bits: int = 16,
        poll_hz: float = 250.0,
        seed: int = 0,
        scatter: float = 0.0,
    ) -> None:
        """Take the stick's faults; raises `DeviceError` for a number that no stick can have."""
        for name, good, allowed in (
            ("noise", noise >= 0.0, "0 or more"),
            ("scatter", scatter >= 0.0, "0 or more"),
            ("rim_power", rim_power > 0.0, "above 0"),
            ("rim_reach", 0.0 < rim_reach < math.inf, "finite, above 0"),
            ("bits", 2 <= bits <= 24, "2 to 24"),
            ("poll_hz", 0.0 < poll_hz < math.inf, "finite, above 0"),
        ):
            if not good:
                raise DeviceError(f"{name}: found {locals()[name]!r}; allowed: {allowed}")
        if find_control(control).kind != "stick":
            raise DeviceError(f"{control} is not a stick")
        self.control = control
        self.rest = rest
        self.noise = noise
        self.scatter = scatter
        self._held = True
        self._place = rest
        self.rim_power = rim_power
        self.rim_reach = rim_reach
        self.poll_hz = poll_hz
        self._steps: int = 2**bits - 1
        self._random = random.Random(seed)

    def rim(self, right: float, forward: float) -> float:
        """Return the raw length that full tilt has in the direction (right, forward).

        >>> round(StickStandIn(rim_power=math.inf).rim(1.0, 1.0), 6)
        1.414214
        """
        length = math.hypot(right, forward)
        across, along = abs(right) / length, abs(forward) / length
        if math.isinf(self.rim_power):
            return self.rim_reach / max(across, along)
        norm: float = (across**self.rim_power + along**self.rim_power) ** (1.0 / self.rim_power)
        return self.rim_reach / norm

    def _step(self, raw: float) -> float:
        """Return the nearest code's value, with the six decimals that drivers log."""
        code = round((min(max(raw, -1.0), 1.0) + 1.0) / 2.0 * self._steps)
        return round(code / self._steps * 2.0 - 1.0, 6)

    def read(self, right: float, forward: float) -> tuple[float, float]:
        """Return one reading, (x right, y towards the player), while the hand holds (right, forward), length 0..1."""
        held = bool(right or forward)
        if self.scatter > 0.0 and self._held and not held:
            self._place = (
                self.rest[0] + self._random.gauss(0.0, self.scatter),
                self.rest[1] + self._random.gauss(0.0, self.scatter),
            )
        self._held = held
        reach = self.rim(right, forward) if held else 0.0
        x = right * reach + self._place[0] + self._random.gauss(0.0, self.noise)
        y = -forward * reach + self._place[1] + self._random.gauss(0.0, self.noise)
        return self._step(x), self._step(y)

    def events(self, hand: HandPath, start_s: float, end_s: float) -> list[Event]:
        """Return the events from `start_s` up to `end_s` while the hand goes along `hand`."""
        events: list[Event] = []
        last = None
        for poll in range(math.ceil((end_s - start_s) * self.poll_hz)):
            t = round(start_s + poll / self.poll_hz, 6)
            reading = self.read(*hand(t))
            if reading != last:
                events.append(Event(t, self.control, reading))
                last = reading
        return events
