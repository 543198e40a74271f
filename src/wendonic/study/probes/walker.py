"""Exact stimuli: what is pressed or tilted, from when to when, as recordings."""

from typing import NamedTuple

from wendonic.devices.event import Event
from wendonic.profile.schema.mode import Mode
from wendonic.profile.schema.move_binds import DpadBind, KeysBind, StickBind
from wendonic.recording.recording import Recording

AFTER_S = 1e-6
"""What happens at the end of a tick would count for all of it: so much later it counts for the next one."""

DPAD_BUTTONS = {"forward": "up", "back": "down", "left": "left", "right": "right"}
_TILTS = {"forward": (0.0, -1.0), "back": (0.0, 1.0), "left": (-1.0, 0.0), "right": (1.0, 0.0)}
DIAGONAL = 0.5**0.5


class Walker(NamedTuple):
    """What walks in a mode: the controls of four directions, or a stick; of a mode that is seen from the side
    (`across`), the controls of two. The rim of a stick with a square gate has corners, which are its diagonals.
    """

    buttons: dict[str, str]
    stick: str
    across: bool = False
    corners: bool = False

    @property
    def ahead(self) -> str:
        """The direction that it is measured in: forward, or right as seen from the side."""
        return "right" if self.across else "forward"

    @property
    def opposite(self) -> str:
        """The direction straight back from there."""
        return "left" if self.across else "back"

    def full(self, *directions: str) -> list[tuple[str, float | tuple[float, float]]]:
        """Return the controls and values that ask for everything in one direction, or diagonally between two."""
        if self.stick:
            scale = 1.0 if len(directions) == 1 or self.corners else DIAGONAL
            x = sum(_TILTS[direction][0] for direction in directions) * scale
            y = sum(_TILTS[direction][1] for direction in directions) * scale
            return [(self.stick, (x, y))]
        return [(self.buttons[direction], 1.0) for direction in directions]

    def rest(self, *directions: str) -> list[tuple[str, float | tuple[float, float]]]:
        """Return the controls and values that let all of it go."""
        if self.stick:
            return [(self.stick, (0.0, 0.0))]
        return [(self.buttons[direction], 0.0) for direction in directions]


def key_walker(mode: Mode) -> Walker | None:
    """Return what walks by keys or a d-pad with all the directions that a mode has, None without."""
    across = mode.steer.seen_from_side
    for bind in mode.move.bind if mode.move else ():
        if isinstance(bind, KeysBind):
            lists = bind.keys.model_dump()
            if all(lists[direction] for direction in (("right", "left") if across else DPAD_BUTTONS)):
                return Walker(
                    {direction: f"key.{codes[0]}" for direction, codes in lists.items() if codes}, "", across
                )
        elif isinstance(bind, DpadBind):
            buttons = {direction: f"{bind.dpad}_{button}" for direction, button in DPAD_BUTTONS.items()}
            return Walker(buttons, "", across)
    return None


def key_driver(mode: Mode) -> Walker | None:
    """Return what drives by keys of `throttle` and `turn`, None without both directions of each."""
    named: dict[str, str] = {}
    for channel in (mode.throttle, mode.turn):
        for bind in channel.bind if channel else ():
            lists = getattr(bind, "keys", None)
            if lists is not None:
                named |= {direction: f"key.{codes[0]}" for direction, codes in lists.model_dump().items() if codes}
    return Walker(named, "") if set(named) == set(_TILTS) else None


def stick_walker(mode: Mode) -> Walker | None:
    """Return what walks by a stick, None without."""
    sticks = (bind for bind in (mode.move.bind if mode.move else ()) if isinstance(bind, StickBind))
    first = next(sticks, None)
    return Walker({}, first.stick, mode.steer.seen_from_side, first.gate == "square") if first else None


def probe_walker(mode: Mode) -> Walker | None:
    """Return what a mode is walked or driven by when it is measured: keys, else a stick, else the keys of a cart."""
    driver = key_driver(mode) if mode.steer.frame == "drive" else None
    return key_walker(mode) or stick_walker(mode) or driver


Steps = list[tuple[float, list[tuple[str, float | tuple[float, float]]]]]


def probe(steps: Steps, end_s: float) -> Recording:
    """Return a recording from 0 to `end_s` in which each step's controls change at its time.

    >>> walker = Walker({"forward": "key.KeyW"}, "")
    >>> probe([(0.5, walker.full("forward"))], 1.0).duration_s
    1.0
    """
    events = [Event(0.0, "mark", "begin")]
    for t, changes in steps:
        events += [Event(t + AFTER_S, control, value) for control, value in changes]
    return Recording([*events, Event(end_s, "mark", "end")])
