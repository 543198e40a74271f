"""Axes that are left-handed without saying so."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding
from wendonic.world_axes import WorldAxes


@finding(
    10,
    "notice",
    "If the game's axes are right-handed, left and right are swapped, and every turn goes the other way.",
    once=True,
)
def left_handed_axes(case: Case) -> Iterator[Found]:
    """Axes that are left-handed without saying so."""
    world = case.profile.world
    axes = WorldAxes(world.right, world.forward, world.up)
    if axes.right_handed is False and world.handed is None:
        flipped = ("-" if world.right[0] == "+" else "+") + world.right[1]
        yield Found(
            "world",
            f"right {world.right}, forward {world.forward}, up {world.up} are left-handed axes",
            # Only the game knows which of the two is meant.
            (),
            f'handed = "left" in [world] if they are meant to be; else right = "{flipped}"',
        )
