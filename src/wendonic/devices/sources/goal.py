"""What points at places of the plan."""

from collections.abc import Sequence
from typing import NamedTuple

from wendonic.devices.sources.zone import Zone


class ShownPlan(NamedTuple):
    """What a window shows of the plan: where its edges lie (m)."""

    left_m: float
    back_m: float
    right_m: float
    forward_m: float

    def place(self, x: float, y: float) -> tuple[float, float]:
        """Return the place of the plan (m) at a point of the window, in its fractions, y down.

        >>> ShownPlan(-10.0, 0.0, 10.0, 8.0).place(0.5, 0.25)
        (0.0, 6.0)
        """
        across, up = self.right_m - self.left_m, self.forward_m - self.back_m
        return self.left_m + x * across, self.forward_m - y * up


class PointedGoal(NamedTuple):
    """The place under the pointer while one of `while_held` is down, or always if empty."""

    while_held: Sequence[str]
    plan: ShownPlan


class TouchedGoal(NamedTuple):
    """The place under a finger that landed in the zone."""

    zone: Zone
    plan: ShownPlan


GoalSource = PointedGoal | TouchedGoal
