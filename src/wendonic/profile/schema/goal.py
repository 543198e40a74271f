"""Pointing at places of the plan: the table `goal`, and its `bind` entries."""

from typing import Annotated, Literal

from pydantic import Discriminator, Field, Tag

from wendonic.devices.sources.goal import GoalSource, PointedGoal, ShownPlan, TouchedGoal
from wendonic.profile.schema.bind import Bind, by_key, zone_control
from wendonic.profile.schema.names import SwitchName, ZoneName
from wendonic.profile.schema.seat import Seat
from wendonic.profile.schema.table import Table, entry
from wendonic.profile.schema.window import Window
from wendonic.profile.schema.world import World


class PointerGoalBind(Bind):
    """The place under the pointer while one of `while_held` is held, or always if that is empty."""

    pointer: Literal["pointer.at"] = entry("The pointer, as a place on the plan.", example="pointer.at")
    while_held: Annotated[tuple[SwitchName, ...], Field(strict=False)] = entry(
        "Controls of which one must be held for the pointer to set a goal; empty if it always does.", ("mouse.left",)
    )

    def controls(self) -> list[str]:
        """Return its controls."""
        return [self.pointer, *self.while_held]

    def called(self) -> str:
        """Return its name when a mode is measured with it."""
        return "pointer"

    def sentence(self) -> str:
        """Describe it."""
        return f"the pointer while {' or '.join(self.while_held)} is held" if self.while_held else "the pointer"

    def source(self, plan: ShownPlan, window: Window, seat: Seat) -> GoalSource:  # noqa: ARG002
        """Return the source that a sampler reads."""
        return PointedGoal(seat.all_own(self.while_held), plan)


class TouchGoalBind(Bind):
    """The place under a finger that landed in the zone."""

    touch: ZoneName = entry("Zone in which a finger sets a goal.", example="window")

    def controls(self) -> list[str]:
        """Return its controls."""
        return [zone_control(self.touch)]

    def called(self) -> str:
        """Return its name when a mode is measured with it."""
        return "touch"

    def sentence(self) -> str:
        """Describe it."""
        return f'a finger that landed in "{self.touch}"'

    def source(self, plan: ShownPlan, window: Window, seat: Seat) -> GoalSource:  # noqa: ARG002
        """Return the source that a sampler reads."""
        return TouchedGoal(window.zone_of(self.touch), plan)


GoalBind = Annotated[
    Annotated[PointerGoalBind, Tag("pointer")] | Annotated[TouchGoalBind, Tag("touch")],
    Discriminator(by_key("pointer", "touch")),
]


class GoalTable(Table):
    """Sources of the goal of the steer frame `goto`, in addition to the game itself. The latest goal counts."""

    bind: Annotated[tuple[GoalBind, ...], Field(strict=False, min_length=1)] = entry(
        "Sources of goals: one entry for each device. The latest goal counts.", example=[{"pointer": "pointer.at"}]
    )

    def sources(self, window: Window, world: World, seat: Seat) -> tuple[GoalSource, ...]:
        """Return the sources that a sampler reads; the window has to show a plan."""
        if window.plan is None:
            raise AssertionError("a profile whose goals are pointed at has a plan")
        plan = window.plan.shown(world)
        return tuple(found.source(plan, window, seat) for found in self.bind if seat.sits(found.seat))

    def sentences(self) -> list[str]:
        """Describe the sources of goals, line by line."""
        return ["goal: the latest of", *(f"  {found.seated_sentence()}" for found in self.bind)]
