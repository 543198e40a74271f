"""The window, and zones of a touch screen by name."""

from typing import Annotated, Self

from pydantic import Field, model_validator

from wendonic.devices.sources.goal import ShownPlan
from wendonic.devices.sources.zone import Zone
from wendonic.length_unit import METRES, LengthUnit
from wendonic.profile.schema.names import Fraction
from wendonic.profile.schema.table import Table, entry, own_fault
from wendonic.profile.schema.world import World

USUAL_ZONES = {
    "left edge": Zone(0.0, 0.0, 0.25, 1.0),
    "right edge": Zone(0.75, 0.0, 1.0, 1.0),
    "upper part": Zone(0.0, 0.0, 1.0, 0.4),
    "lower part": Zone(0.0, 0.6, 1.0, 1.0),
    "left half": Zone(0.0, 0.0, 0.5, 1.0),
    "right half": Zone(0.5, 0.0, 1.0, 1.0),
    "window": Zone(0.0, 0.0, 1.0, 1.0),
}
"""Predefined zones; a profile's own zone of the same name replaces one."""


class ZoneTable(Table):
    """A rectangle of the window, in fractions of its width and height; y grows downwards."""

    left: Fraction = entry("Left edge of the zone.", example=0.0, unit="window widths")
    top: Fraction = entry(
        "Upper edge of the zone, measured from the top of the window.", example=0.5, unit="window heights"
    )
    right: Fraction = entry("Right edge of the zone.", example=0.4, unit="window widths")
    bottom: Fraction = entry(
        "Lower edge of the zone, measured from the top of the window.", example=1.0, unit="window heights"
    )

    @model_validator(mode="after")
    def _not_empty(self) -> Self:
        if self.left >= self.right or self.top >= self.bottom:
            raise own_fault("is empty; allowed: left below right, and top below bottom (y grows downwards)")
        return self


class PlanTable(Table):
    """The part of the plan that the window shows: the places (m) at its edges, along the game's own axes.

    Where y grows downwards, `forward_m` is less than `back_m`.
    """

    left_m: float = entry("Place at the window's left edge, along the game's axis that points right.", example=-8.0)
    back_m: float = entry(
        "Place at the window's lower edge, along the game's axis that points forward.", example=-4.5
    )
    right_m: float = entry("Place at the window's right edge, along the game's axis that points right.", example=8.0)
    forward_m: float = entry(
        "Place at the window's upper edge, along the game's axis that points forward.", example=4.5
    )

    def shown(self, world: World) -> ShownPlan:
        """Return the region in the plan frame.

        >>> PlanTable(left_m=0, right_m=32, forward_m=0, back_m=18).shown(World(right="+x", forward="-y"))
        ShownPlan(left_m=0.0, back_m=-18.0, right_m=32.0, forward_m=0.0)
        """
        right, forward = (-1.0 if axis and axis[0] == "-" else 1.0 for axis in (world.right, world.forward))
        edges = (right * self.left_m, forward * self.back_m, right * self.right_m, forward * self.forward_m)
        # No plain product: an edge at the origin would become -0.0.
        return ShownPlan(*(0.0 + edge for edge in edges))

    def fault(self, world: World) -> str:
        """Return its fault in a world, "" for none."""
        shown = self.shown(world)
        for low, high, axis in (("left_m", "right_m", world.right), ("back_m", "forward_m", world.forward or "+y")):
            if getattr(shown, low) >= getattr(shown, high):
                side = "above" if axis[0] == "-" else "below"
                return f"shows nothing; allowed: {low} {side} {high}, because {high.removesuffix('_m')} is {axis}"
        return ""


class Window(Table):
    """What touches and the pointer are measured in: the window's aspect ratio, its zones by name, and the part of the
    plan that it shows, if any.
    """

    aspect_ratio: Annotated[float, Field(gt=0.0, le=100.0)] = entry(
        "Width of the window over its height, so that thumbs and pointers count the same in both directions; it "
        "holds until the game passes the window's size to `Helm.window`.",
        16.0 / 9.0,
    )
    zone: dict[str, ZoneTable] = entry(
        "Zones of the touch screen, by name.",
        {},
        example={"thumb": {"left": 0.0, "top": 0.3, "right": 0.4, "bottom": 1.0}},
    )
    plan: PlanTable | None = entry(
        "Part of the plan that the window shows, so that a point in the window is a place on the plan.",
        None,
        example={"left_m": -8.0, "back_m": -4.5, "right_m": 8.0, "forward_m": 4.5},
        otherwise="it shows no plan",
    )

    def zone_of(self, name: str) -> Zone:
        """Return a zone by its name."""
        own = self.zone.get(name)
        return Zone(own.left, own.top, own.right, own.bottom) if own else USUAL_ZONES[name]

    def sentences(self, length: LengthUnit = METRES) -> list[str]:
        """Describe it, line by line; nothing if the profile has none."""
        if self == Window():
            return []
        lines = [f"window: {self.aspect_ratio:.4g} times as wide as high"]
        for name, zone in self.zone.items():
            across = f"{zone.left:g} to {zone.right:g} of the width"
            lines.append(f'  zone "{name}": {across}, {zone.top:g} to {zone.bottom:g} of the height from the top')
        if self.plan:
            plan = self.plan
            across = f"{plan.left_m * length.per_m:g} to {length.m(plan.right_m)}"
            along = f"{plan.back_m * length.per_m:g} to {length.m(plan.forward_m)}"
            lines.append(f"  shows the plan from {across} to the right and from {along} forward")
        return lines
