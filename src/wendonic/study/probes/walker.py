"""The device that walks, drives or flies a mode, and how to use it to go in each direction."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from wendonic.devices.event import Event
from wendonic.devices.push import Changes, Pushes, changes_between
from wendonic.profile.schema.bind import Bind
from wendonic.profile.schema.keyed import Opposed, Ramped
from wendonic.profile.schema.mode import Mode
from wendonic.profile.schema.move_binds import StickBind
from wendonic.profile.schema.window import Window
from wendonic.recording.recording import Recording
from wendonic.study.probes.landing import landing_window

AFTER_S = 1e-6
"""An event at the end of a tick would count for all of it; this much later it counts for the next tick."""

MIRRORED = {"forward": "back", "back": "forward", "right": "left", "left": "right", "up": "down", "down": "up"}
SIGNS = {"forward": 1.0, "back": -1.0, "right": 1.0, "left": -1.0, "up": 1.0, "down": -1.0}


@dataclass(frozen=True)
class Walker:
    """One `bind` entry for each channel that moves the body; in a mode seen from the side (`across`) it goes right
    and left. `lead` is what holds a press before anything else: changes, and how long (s) to wait after each.
    """

    entries: Mapping[str, Any]
    window: Window
    across: bool = False
    lead: tuple[tuple[Changes, float], ...] = ()

    @property
    def main(self) -> Any:
        """The entry that names it: of `move`, otherwise of `throttle`."""
        return self.entries.get("move") or self.entries.get("throttle") or next(iter(self.entries.values()))

    @property
    def name(self) -> str:
        """Its name, such as `keys` or `pad.left_stick`."""
        return str(self.main.called())

    @property
    def directions(self) -> tuple[str, ...]:
        """The directions that it goes in."""
        return tuple(direction for direction in MIRRORED if self.goes(direction))

    @property
    def ahead(self) -> str:
        """The direction that it is measured in: forward if it goes there, otherwise right, back or left."""
        order = ("right", "left") if self.across else ("forward", "right", "back", "left")
        return next((direction for direction in order if self.goes(direction)), order[0])

    @property
    def opposite(self) -> str | None:
        """The opposite direction, None if it does not go there."""
        other = MIRRORED[self.ahead]
        return other if self.goes(other) else None

    def goes(self, *directions: str) -> bool:
        """Return whether it goes in a direction, or diagonally between two."""
        return self.pushes(directions) is not None

    def pushes(self, directions: Sequence[str], amount: float = 1.0) -> Pushes | None:
        """Return what to hold to go in a direction, or diagonally between two; None if it does not go there."""
        sides: dict[str, tuple[float, float]] = {}
        for direction in directions:
            channel = self._channel(direction)
            if channel is None:
                return None
            x, y = sides.get(channel, (0.0, 0.0))
            upright = channel == "move" and direction in ("forward", "back")
            sides[channel] = (x, y + SIGNS[direction]) if upright else (x + SIGNS[direction], y)
        found = [self.entries[channel].pushes(x, y, self.window, amount) for channel, (x, y) in sides.items()]
        return None if any(pushes is None for pushes in found) else [push for pushes in found for push in pushes]

    def changes(self, before: Sequence[str], after: Sequence[str], amount: float = 1.0) -> Changes:
        """Return the changes from going in some directions at once to going in others; an empty sequence is rest."""
        return changes_between(self.pushes(before) or (), self.pushes(after, amount) or ())

    def full(self, *directions: str, amount: float = 1.0) -> Changes:
        """Return the changes from rest to `amount` of full input in one direction, or diagonally between two."""
        return self.changes((), directions, amount)

    def rest(self, *directions: str) -> Changes:
        """Return the changes that release all of it."""
        return self.changes(directions, ())

    def _channel(self, direction: str) -> str | None:
        upright = direction in ("forward", "back")
        channels = (
            ["throttle", "move"] if upright else ["turn", "move"] if direction in ("right", "left") else ["rise"]
        )
        if upright and self.across:
            return None
        return next((name for name in channels if name in self.entries), None)


def moving_channels(mode: Mode) -> tuple[str, ...]:
    """Return the channels that move the body of a mode, in the order in which one is chosen to measure it by."""
    drives = mode.steer.frame == "drive"
    names = ("throttle", "turn", "move") if drives else ("move", *(["rise"] if mode.steer.frame == "fly" else []))
    return tuple(name for name in names if getattr(mode, name) is not None)


def entries_of(mode: Mode) -> Iterator[tuple[str, Any]]:
    """Yield the `bind` entries that move the body of a mode, each with its channel."""
    for channel in moving_channels(mode):
        for bind in getattr(mode, channel).bind:
            yield channel, bind


def known_as(bind: Bind) -> frozenset[str]:
    """Return every name by which an entry may be selected: its own, its device, its controls and their sticks.

    >>> from wendonic.profile.schema.move_binds import StickBind
    >>> sorted(known_as(StickBind(stick="pad.left_stick")))
    ['pad', 'pad.left_stick', 'pad.left_stick.x', 'pad.left_stick.y']
    """
    names = {bind.called(), bind.called().split("_")[0] if bind.called().startswith("touch") else bind.called()}
    for control in bind.controls():
        if not control.startswith("zone ") and not control.startswith("key."):
            parts = control.split(".")
            names |= {".".join(parts[:count]) for count in range(1, len(parts) + 1)}
    return frozenset(names)


def choices_of(mode: Mode) -> list[str]:
    """Return what a mode can be measured by, by name."""
    return list(dict.fromkeys(bind.called() for _, bind in entries_of(mode)))


def _sides(channel: str, bind: Any, window: Window, across: bool) -> int:
    """Return in how many directions an entry requests something."""
    directions = [(1.0, 0.0), (-1.0, 0.0)]
    if channel == "move" and not across:
        directions += [(0.0, 1.0), (0.0, -1.0)]
    return sum(bind.pushes(x, y, window) is not None for x, y in directions)


def walker_of(mode: Mode, window: Window, by: str | None = None) -> Walker | None:
    """Return the walker for a mode: for each channel that moves the body, the entry that has the given name,
    otherwise the one with the most directions, keys first. None if no entry of the mode can be held.
    """
    across = mode.steer.seen_from_side
    window = landing_window(mode, window)
    entries: dict[str, Any] = {}
    like: frozenset[str] = frozenset([by] if by else [])
    for channel in moving_channels(mode):
        if channel == "move" and "throttle" in entries and not _selected(mode, "move", like):
            continue
        held = [(bind, _sides(channel, bind, window, across)) for bind in getattr(mode, channel).bind]
        held = [(bind, sides) for bind, sides in held if sides]
        if not held:
            continue
        best, _ = max(
            held,
            key=lambda pair: (bool(known_as(pair[0]) & like), pair[1], isinstance(pair[0], Opposed)),
        )
        if channel == "move" and mode.steer.frame == "drive":
            entries = {}
        entries[channel] = best
        # Turning and rising use the same device as driving or walking: keys with keys, a pad with itself.
        like = like or (known_as(best) - {"touch"})
    return Walker(entries, window, across) if entries else None


def turned_by(mode: Mode, walker: Walker) -> Walker:
    """Return a walker with an entry that turns the body by the channel `turn`: one of the walker's own device if
    there is one, with the most directions.
    """
    like = known_as(walker.main) - {"touch"}
    held = [(bind, _sides("turn", bind, walker.window, False)) for bind in (mode.turn.bind if mode.turn else ())]
    best = max(held, key=lambda pair: (pair[1] > 0, bool(known_as(pair[0]) & like), pair[1]), default=None)
    return replace(walker, entries={**walker.entries, "turn": best[0]}) if best else walker


def _selected(mode: Mode, channel: str, like: frozenset[str]) -> bool:
    """Return whether the requested name selects an entry of this channel, and none of the channels before it."""
    names = [(name, known_as(bind)) for name, bind in entries_of(mode)]
    found = {name for name, known in names if known & like}
    return channel in found and not found - {channel}


def keys_of(mode: Mode, window: Window, by: str | None = None) -> Walker | None:
    """Return keys, a d-pad or touch zones that walk in all of a mode's directions, None without."""
    return _first(mode, window, by, stick=False)


def stick_of(mode: Mode, window: Window, by: str | None = None) -> Walker | None:
    """Return a stick that moves the body, None without one."""
    return _first(mode, window, by, stick=True)


def _first(mode: Mode, window: Window, by: str | None, stick: bool) -> Walker | None:
    across = mode.steer.seen_from_side
    for bind in mode.move.bind if mode.move else ():
        fits = isinstance(bind, StickBind if stick else Ramped)
        whole = _sides("move", bind, window, across) == (2 if across else 4)
        if fits and whole and (by is None or by in known_as(bind)):
            return Walker({"move": bind}, window, across)
    return None


Steps = list[tuple[float, Changes]]


def lead_steps(lead: Sequence[tuple[Changes, float]]) -> tuple[Steps, float]:
    """Return the steps that hold a press, and the time (s) at which it is held.

    >>> lead_steps([([("key.KeyE", 1.0)], 0.25), ([("key.KeyE", 0.0)], 0.5)])
    ([(0.0, [('key.KeyE', 1.0)]), (0.25, [('key.KeyE', 0.0)])], 0.75)
    """
    steps: Steps = []
    at_s = 0.0
    for changes, wait_s in lead:
        steps.append((at_s, changes))
        at_s += wait_s
    return steps, at_s


def probe(steps: Steps, end_s: float) -> Recording:
    """Return a recording from 0 to `end_s` with the changes of each step at its time.

    >>> probe([(0.5, [("key.KeyW", 1.0)])], 1.0).duration_s
    1.0
    """
    events = [Event(0.0, "mark", "begin")]
    for t, changes in steps:
        events += [Event(t + AFTER_S, control, value) for control, value in changes]
    return Recording([*events, Event(end_s, "mark", "end")])
