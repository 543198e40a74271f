"""The window, and zones of a touch screen by name."""

from typing import Annotated, Self

from pydantic import Field, model_validator

from wendonic.devices.sources import Zone
from wendonic.profile.table import Fraction, Table, own_fault

USUAL_ZONES = {
    "left edge": Zone(0.0, 0.0, 0.25, 1.0),
    "right edge": Zone(0.75, 0.0, 1.0, 1.0),
    "upper part": Zone(0.0, 0.0, 1.0, 0.4),
    "lower part": Zone(0.0, 0.6, 1.0, 1.0),
    "left half": Zone(0.0, 0.0, 0.5, 1.0),
    "right half": Zone(0.5, 0.0, 1.0, 1.0),
    "window": Zone(0.0, 0.0, 1.0, 1.0),
}
"""Zones that every profile has without writing them; one of its own of the same name takes their place."""


class ZoneTable(Table):
    """A rectangle of the window, in fractions of its width and height; y grows downwards."""

    left: Fraction
    top: Fraction
    right: Fraction
    bottom: Fraction

    @model_validator(mode="after")
    def _not_empty(self) -> Self:
        if self.left >= self.right or self.top >= self.bottom:
            raise own_fault("is empty; allowed: left below right, and top below bottom (y grows downwards)")
        return self


class PlanTable(Table):
    """What the window shows of the plan: where its edges lie (m)."""

    left_m: float
    back_m: float
    right_m: float
    ahead_m: float

    @model_validator(mode="after")
    def _not_empty(self) -> Self:
        if self.left_m >= self.right_m or self.back_m >= self.ahead_m:
            raise own_fault("is empty; allowed: left_m below right_m, and back_m below ahead_m")
        return self


class Window(Table):
    """What touches and the pointer are measured by: the window's width over its height, its zones by name, and which
    part of the plan it shows, if it is one.
    """

    aspect_ratio: Annotated[float, Field(gt=0.0, le=100.0)] = 16.0 / 9.0
    zone: dict[str, ZoneTable] = Field(default_factory=dict)
    plan: PlanTable | None = None

    def zone_of(self, name: str) -> Zone:
        """Return a zone by its name."""
        own = self.zone.get(name)
        return Zone(own.left, own.top, own.right, own.bottom) if own else USUAL_ZONES[name]
