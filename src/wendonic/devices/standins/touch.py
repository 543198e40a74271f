"""A simulated finger on a touch screen."""

import math
import random

from wendonic.devices.controls import find_control
from wendonic.devices.event import Event
from wendonic.devices.standins.hand import HandPath, hand_path
from wendonic.devices.standins.limits import above_zero, no_less


class TouchStandIn:
    """A finger: it is reported `poll_hz` times a second while it is down, trembling by `noise` of the window.

    Where it goes is given in window fractions, x to the right and y down. Same seed, same events.

    >>> landed, lifted = TouchStandIn(finger=1, seed=2).tap(0.5, 0.25, t=1.0)
    >>> lifted
    Event(t=1.08, control='touch.1', value=(0.5, 0.25, 0.0))
    """

    def __init__(self, finger: int = 0, poll_hz: float = 120.0, noise: float = 0.0, seed: int = 0) -> None:
        """Take the screen's numbers; raises `DeviceError` for one that no screen can have."""
        above_zero(poll_hz=poll_hz)
        no_less(0.0, noise=noise)
        self.control = find_control(f"touch.{finger}").name
        self.poll_hz = poll_hz
        self.noise = noise
        self._random = random.Random(seed)

    def _at(self, place: tuple[float, float], pressure: float) -> tuple[float, float, float]:
        x, y = (min(max(value + self._random.gauss(0.0, self.noise), 0.0), 1.0) for value in place)
        return round(x, 6), round(y, 6), pressure

    def events(self, path: HandPath, start_s: float, end_s: float) -> list[Event]:
        """Return the events of a finger that lands at `start_s`, goes along `path` and is lifted at `end_s`."""
        above_zero(duration_s=end_s - start_s)
        events: list[Event] = []
        for poll in range(math.ceil((end_s - start_s) * self.poll_hz)):
            t = round(start_s + poll / self.poll_hz, 6)
            value = self._at(path(t), 1.0)
            if not events or events[-1].value != value:
                events.append(Event(t, self.control, value))
        events.append(Event(round(end_s, 6), self.control, self._at(path(end_s), 0.0)))
        return events

    def tap(self, x: float, y: float, t: float = 0.0, duration_s: float = 0.08) -> list[Event]:
        """Return the events of a tap at (x, y)."""
        return self.events(lambda _: (x, y), t, t + duration_s)

    def drag(
        self, start: tuple[float, float], end: tuple[float, float], t: float = 0.0, duration_s: float = 0.4
    ) -> list[Event]:
        """Return the events of a finger dragged from one place to another."""
        path = hand_path([(t, *start), (t + duration_s, *end)])
        return self.events(path, t, t + duration_s)
