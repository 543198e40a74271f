"""A simulated mouse."""

import math
import random

from wendonic.devices.event import Event
from wendonic.devices.standins.hand import HandPath, hand_path
from wendonic.devices.standins.limits import above_zero, no_less
from wendonic.devices.standins.tremor import Tremor

CM_PER_INCH = 2.54


class MouseStandIn:
    """A mouse under a hand: it counts `counts_per_inch`, `poll_hz` times a second, and the hand trembles.

    Counts are whole numbers; a remainder is counted later, so over any time they differ from the motion by less than
    one. `tremor_mm` is the standard deviation of the hand's tremor on each axis while it is on the mouse. Same seed,
    same events.

    >>> mouse = MouseStandIn(counts_per_inch=800, poll_hz=1000, seed=5)
    >>> swipe = mouse.swipe(cm=10.0, start_s=0.0, duration_s=0.25)
    >>> sum(event.value[0] for event in swipe), sum(event.value[1] for event in swipe)
    (3150.0, 0.0)
    """

    def __init__(
        self, counts_per_inch: float = 800.0, poll_hz: float = 1000.0, tremor_mm: float = 0.0, seed: int = 0
    ) -> None:
        """Take the mouse's numbers; raises `DeviceError` for one that no mouse can have."""
        above_zero(counts_per_inch=counts_per_inch, poll_hz=poll_hz)
        no_less(0.0, tremor_mm=tremor_mm)
        self.counts_per_inch = counts_per_inch
        self.poll_hz = poll_hz
        self.tremor_mm = tremor_mm
        self._random = random.Random(seed)

    def events(self, hand_cm: HandPath, start_s: float, end_s: float) -> list[Event]:
        """Return the events from `start_s` to `end_s` while the hand goes along `hand_cm`: right and away, in cm."""
        per_cm = self.counts_per_inch / CM_PER_INCH
        tremors = [Tremor(self.tremor_mm / 10.0, 1.0 / self.poll_hz, self._random) for _ in range(2)]
        first_right, first_away = hand_cm(start_s)
        counted = [0, 0]
        events: list[Event] = []
        for poll in range(1, math.floor((end_s - start_s) * self.poll_hz + 1e-9) + 1):
            t = round(start_s + poll / self.poll_hz, 6)
            right, away = hand_cm(t)
            moved = [round((right - first_right + tremors[0].step()) * per_cm)]
            # Towards the user is positive in a mouse's own standard.
            moved.append(round((first_away - away + tremors[1].step()) * per_cm))
            if moved != counted:
                events.append(Event(t, "mouse.move", (float(moved[0] - counted[0]), float(moved[1] - counted[1]))))
                counted = moved
        return events

    def swipe(
        self, cm: float, start_s: float = 0.0, duration_s: float = 0.3, direction_deg: float = 90.0
    ) -> list[Event]:
        """Return the events of one swipe of `cm` in a compass direction: 0 away from the user, 90 to the right."""
        above_zero(duration_s=duration_s)
        right = cm * math.sin(math.radians(direction_deg))
        away = cm * math.cos(math.radians(direction_deg))
        end_s = start_s + duration_s
        path = hand_path([(start_s, 0.0, 0.0), (end_s, right, away)])
        return self.events(path, start_s, math.ceil(end_s * self.poll_hz) / self.poll_hz)
