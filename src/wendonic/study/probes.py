"""Exact stimuli: what is pressed or tilted, from when to when, as recordings."""

from typing import NamedTuple

from wendonic.devices.event import Event
from wendonic.profile.move_binds import DpadBind, KeysBind, StickBind
from wendonic.profile.schema import Mode
from wendonic.recording.recording import Recording

AFTER_S = 1e-6
"""What happens at the end of a tick would count for all of it: so much later it counts for the next one."""

DPAD_BUTTONS = {"ahead": "up", "back": "down", "left": "left", "right": "right"}
_TILTS = {"ahead": (0.0, -1.0), "back": (0.0, 1.0), "left": (-1.0, 0.0), "right": (1.0, 0.0)}
DIAGONAL = 0.5**0.5


class Walker(NamedTuple):
    """What walks in a mode: the controls of four ways, or a stick."""

    buttons: dict[str, str]
    stick: str

    def full(self, *ways: str) -> list[tuple[str, float | tuple[float, float]]]:
        """Return the controls and values that ask for everything in one way, or aslant between two."""
        if self.stick:
            scale = 1.0 if len(ways) == 1 else DIAGONAL
            x = sum(_TILTS[way][0] for way in ways) * scale
            y = sum(_TILTS[way][1] for way in ways) * scale
            return [(self.stick, (x, y))]
        return [(self.buttons[way], 1.0) for way in ways]

    def rest(self, *ways: str) -> list[tuple[str, float | tuple[float, float]]]:
        """Return the controls and values that let all of it go."""
        if self.stick:
            return [(self.stick, (0.0, 0.0))]
        return [(self.buttons[way], 0.0) for way in ways]


def key_walker(mode: Mode) -> Walker | None:
    """Return what walks by keys or a d-pad with all four ways, None without."""
    for bind in mode.move.bind if mode.move else ():
        if isinstance(bind, KeysBind):
            lists = bind.keys.model_dump()
            if all(lists.values()):
                return Walker({way: f"key.{codes[0]}" for way, codes in lists.items()}, "")
        elif isinstance(bind, DpadBind):
            return Walker({way: f"{bind.dpad}_{button}" for way, button in DPAD_BUTTONS.items()}, "")
    return None


def key_driver(mode: Mode) -> Walker | None:
    """Return what drives by keys of `throttle` and `turn`, None without both ways of each."""
    named: dict[str, str] = {}
    for channel in (mode.throttle, mode.turn):
        for bind in channel.bind if channel else ():
            lists = getattr(bind, "keys", None)
            if lists is not None:
                named |= {way: f"key.{codes[0]}" for way, codes in lists.model_dump().items() if codes}
    return Walker(named, "") if set(named) == set(_TILTS) else None


def stick_walker(mode: Mode) -> Walker | None:
    """Return what walks by a stick, None without."""
    sticks = [bind.stick for bind in (mode.move.bind if mode.move else ()) if isinstance(bind, StickBind)]
    return Walker({}, sticks[0]) if sticks else None


Steps = list[tuple[float, list[tuple[str, float | tuple[float, float]]]]]


def probe(steps: Steps, end_s: float) -> Recording:
    """Return a recording from 0 to `end_s` in which each step's controls change at its time.

    >>> walker = Walker({"ahead": "key.KeyW"}, "")
    >>> probe([(0.5, walker.full("ahead"))], 1.0).duration_s
    1.0
    """
    events = [Event(0.0, "mark", "begin")]
    for t, changes in steps:
        events += [Event(t + AFTER_S, control, value) for control, value in changes]
    return Recording([*events, Event(end_s, "mark", "end")])
