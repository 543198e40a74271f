"""A simulated pair of hands on a keyboard."""

import random
from collections.abc import Iterable
from typing import NamedTuple

from wendonic.devices.controls import find_key
from wendonic.devices.event import Event
from wendonic.errors import DeviceError

SHORTEST_STROKE_S = 0.03
"""No finger releases sooner after a press, nor presses again sooner after a release."""


class Stroke(NamedTuple):
    """What the typist means to do: hold the key of a W3C code down from `down_s` to `up_s`."""

    code: str
    down_s: float
    up_s: float


class Typist:
    """Presses and releases when meant to, give or take a normal spread of `spread_s`.

    Fingers are independent: two keys meant for the same moment come a few milliseconds apart and in either
    order, and strokes of different keys overlap as they fall. Same seed, same events.

    >>> events = Typist(spread_s=0.01, seed=3).events([Stroke("KeyW", 1.0, 2.0), Stroke("KeyD", 1.0, 2.0)])
    >>> [event.control for event in events], events[0].t == events[1].t
    (['key.KeyD', 'key.KeyW', 'key.KeyD', 'key.KeyW'], False)
    """

    def __init__(self, spread_s: float = 0.012, seed: int = 0) -> None:
        """Take the spread (s, 0 or more) and the seed."""
        if spread_s < 0.0:
            raise DeviceError(f"spread_s: found {spread_s!r}; allowed: 0 or more")
        self.spread_s = spread_s
        self._random = random.Random(seed)

    def events(self, strokes: Iterable[Stroke]) -> list[Event]:
        """Return all downs and ups in the order of time; times are 0 or more, in whole microseconds."""
        events: list[Event] = []
        free_s: dict[str, float] = {}
        for stroke in sorted(strokes, key=lambda stroke: stroke.down_s):
            control = find_key(stroke.code).name
            down_s = max(self._random.gauss(stroke.down_s, self.spread_s), free_s.get(control, 0.0))
            up_s = max(self._random.gauss(stroke.up_s, self.spread_s), down_s + SHORTEST_STROKE_S)
            free_s[control] = up_s + SHORTEST_STROKE_S
            events.append(Event(round(down_s, 6), control, 1.0))
            events.append(Event(round(up_s, 6), control, 0.0))
        return sorted(events, key=lambda event: event.t)
