"""Everything that a mode binds."""

from collections.abc import Sequence
from typing import NamedTuple

from wendonic.devices.sources.base import Source
from wendonic.devices.sources.goal import GoalSource
from wendonic.devices.sources.presses import PressBind


class ModeSources(NamedTuple):
    """Every binding of a mode. `presses` has an entry for each press of the profile, empty if it is not bound here.

    `goal` is None for a mode without goals, and `goals_wait` says whether all goals of a tick count; `aims` and
    `tracks` say whether the mode uses a point to aim at, and the poses of head and hands, and `points` which hand
    points at places to teleport to.
    """

    move: Sequence[Source] = ()
    rise: Sequence[Source] = ()
    throttle: Sequence[Source] = ()
    turn: Sequence[Source] = ()
    look: Sequence[Source] = ()
    presses: Sequence[Sequence[PressBind]] = ()
    goal: Sequence[GoalSource] | None = None
    goals_wait: bool = False
    aims: bool = False
    tracks: bool = False
    points: str = ""

    @property
    def channels(self) -> tuple[Sequence[Source], ...]:
        """The sources of `move`, `rise`, `throttle`, `turn` and `look`."""
        return self.move, self.rise, self.throttle, self.turn, self.look
