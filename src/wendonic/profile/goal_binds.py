"""The `bind` entries of `goal`: what points at places of the plan."""

from typing import Annotated, Literal

from pydantic import Discriminator, Field, Tag

from wendonic.profile.binds import Bind, by_key
from wendonic.profile.table import SwitchName, Table


class PointerGoalBind(Bind):
    """The place under the pointer while one of `while_held` is down, or always if it is empty."""

    pointer: Literal["pointer.at"]
    while_held: Annotated[tuple[SwitchName, ...], Field(strict=False)] = ("mouse.left",)


class TouchGoalBind(Bind):
    """The place under a finger that landed in the zone."""

    touch: str


GoalBind = Annotated[
    Annotated[PointerGoalBind, Tag("pointer")] | Annotated[TouchGoalBind, Tag("touch")],
    Discriminator(by_key("pointer", "touch")),
]


class GoalTable(Table):
    """What gives the goal of the steer frame `goto`, besides the game itself; the latest counts."""

    bind: Annotated[tuple[GoalBind, ...], Field(strict=False, min_length=1)]
