"""What a profile requests in every direction at full input."""

import math
from typing import Any, NamedTuple

from wendonic.devices.event import Event
from wendonic.devices.push import changes_between
from wendonic.errors import WendonicError
from wendonic.profile.schema.keyed import Ramped
from wendonic.profile.schema.move_binds import KeysBind
from wendonic.profile.schema.profile import Profile
from wendonic.runtime.helm import Helm
from wendonic.study.parts_of_mode import only_moving

SETTLED = 1e-7
NEARLY_DEG = 1e-6
MOST_TICKS = 2000
MOST_LETTERS = 20
"""If the names of keys are longer than this together, they are just called "keys"."""


class Envelope(NamedTuple):
    """One source of `move`: its name, and the request (right, forward) as a share of top speed at each heading (deg)
    of full input.

    `round` is true for a stick, which has every heading; keys have eight.
    """

    name: str
    round: bool
    headings_deg: tuple[float, ...]
    wanted: tuple[tuple[float, float], ...]

    @property
    def fastest(self) -> float:
        """The longest request."""
        return max((math.hypot(*pair) for pair in self.wanted), default=0.0)

    @property
    def fastest_share(self) -> float:
        """The longest request as a share of the longest straight one; 0 if there is none."""
        pairs = zip(self.headings_deg, self.wanted, strict=True)
        straight = max(
            (math.hypot(*pair) for heading, pair in pairs if abs((heading + 45.0) % 90.0 - 45.0) < NEARLY_DEG),
            default=0.0,
        )
        return self.fastest / straight if straight > 0.0 else 0.0


def _settled(helm: Helm) -> tuple[float, float]:
    """Tick until nothing changes any more, when ramps and smoothing have settled."""
    last = helm.tick(0.05).local
    for _ in range(MOST_TICKS):
        local = helm.tick(0.05).local
        if math.hypot(local[0] - last[0], local[1] - last[1]) < SETTLED:
            return local[0], local[1]
        last = local
    return last[0], last[1]


def _title(bind: Any) -> str:
    if not isinstance(bind, KeysBind):
        return str(bind.called())
    codes = (bind.keys.lists()[direction] for direction in ("forward", "left", "back", "right"))
    words = " ".join(some[0].removeprefix("Key").removeprefix("Arrow") for some in codes if some)
    return f"keys {words}" if len(words) <= MOST_LETTERS else "keys"


def _of_entry(profile: Profile, bind: Any, steps: int) -> Envelope:
    keys = isinstance(bind, Ramped)
    count = 8 if keys else steps
    headings: list[float] = []
    wanted: list[tuple[float, float]] = []
    for step in range(count):
        heading = math.tau * step / count
        right, forward = math.sin(heading), math.cos(heading)
        if keys:
            right, forward = (round(part / max(abs(right), abs(forward)), 6) for part in (right, forward))
        pushes = bind.pushes(right, forward, profile.window)
        if pushes is None:
            continue
        helm = Helm(profile)
        for control, value in changes_between((), pushes):
            helm.apply(Event(0.0, control, value))
        headings.append(math.degrees(heading))
        wanted.append(_settled(helm))
    return Envelope(_title(bind), not keys, tuple(headings), tuple(wanted))


def envelopes(profile: Profile, mode: str | None = None, steps: int = 144) -> list[Envelope]:
    """Return what each entry of a mode's `move` requests in every direction at full input: keys, sticks, axes, a
    thumb on the touch screen, the pointer.

    A stick is moved along its own rim: a circle, a square, or the measured one. Raises `WendonicError` if the mode
    has none of them.

    >>> from wendonic.demo import demo_profile
    >>> keys, stick = envelopes(demo_profile(), steps=8)
    >>> keys.name, keys.headings_deg[1], round(keys.fastest, 6), round(stick.fastest, 6)
    ('keys W A S D', 45.0, 1.0, 1.0)
    """
    name = profile.mode_name(mode)
    move = profile.mode[name].move
    only = only_moving(profile, name)
    inputs: list[Envelope] = []
    for bind in move.bind if move else ():
        found = _of_entry(only, bind, steps)
        if found.headings_deg:
            inputs.append(found)
    if not inputs:
        raise WendonicError(f'mode "{name}" has nothing under move.bind that can be held; there is nothing to draw')
    return inputs
