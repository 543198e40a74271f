"""The pieces of a course, as its file writes them; lengths in metres of the plan, x right and y forward."""

from typing import Annotated, Literal, Self

from pydantic import Discriminator, Field, model_validator

from wendonic.kernels.body.ground import PIECE_MOUND, PIECE_PLANE
from wendonic.profile.schema.table import Table, entry, own_fault

Metres = Annotated[float, Field(ge=-10_000.0, le=10_000.0)]
Height = Annotated[float, Field(ge=0.0, le=1000.0)]


class Rectangle(Table):
    """A rectangle of the plan."""

    left_m: Metres = entry("Left edge on the plan.", example=-2.0)
    back_m: Metres = entry("Back edge on the plan.", example=3.0)
    right_m: Metres = entry("Right edge on the plan.", example=2.0)
    forward_m: Metres = entry("Forward edge on the plan.", example=5.0)

    @model_validator(mode="after")
    def _not_empty(self) -> Self:
        if self.left_m >= self.right_m or self.back_m >= self.forward_m:
            raise own_fault("is empty; allowed: left_m below right_m, and back_m below forward_m")
        return self


class Flat(Rectangle):
    """Level ground at a height: a terrace, whose edge is a step."""

    form: Literal["flat"] = entry("Form of the piece.", example="flat")
    height_m: Height = entry("Height of the ground. Higher than the body's step_m, its edge is a wall.", example=0.6)

    @property
    def numbers(self) -> tuple[float, ...]:
        """Return it as `kernels.body.ground.ground_at` reads it."""
        return (PIECE_PLANE, self.left_m, self.back_m, self.right_m, self.forward_m, self.height_m, 0.0, 0.0)


class Ramp(Rectangle):
    """Ground that rises evenly from one side of the rectangle, at `from_height_m`, to the side that `up` names."""

    form: Literal["ramp"] = entry("Form of the piece.", example="ramp")
    up: Literal["right", "forward", "left", "back"] = entry("Side towards which it rises.", example="forward")
    from_height_m: Height = entry("Height of the low side.", 0.0)
    to_height_m: Height = entry("Height of the high side.", example=1.0)

    @property
    def numbers(self) -> tuple[float, ...]:
        """Return it as `kernels.body.ground.ground_at` reads it: height of the left back corner, and two slopes."""
        rise_m = self.to_height_m - self.from_height_m
        across = self.right_m - self.left_m if self.up in ("right", "left") else self.forward_m - self.back_m
        slope = rise_m / across if self.up in ("right", "forward") else -rise_m / across
        corner_m = self.from_height_m if self.up in ("right", "forward") else self.to_height_m
        slopes = (slope, 0.0) if self.up in ("right", "left") else (0.0, slope)
        return (PIECE_PLANE, self.left_m, self.back_m, self.right_m, self.forward_m, corner_m, *slopes)


class Mound(Table):
    """A round hill around `at`, level at its top and at its foot."""

    form: Literal["mound"] = entry("Form of the piece.", example="mound")
    at: Annotated[tuple[Metres, Metres], Field(strict=False)] = entry(
        "Middle on the plan, right and forward.", example=[0.0, 5.0], unit="m"
    )
    radius_m: Annotated[float, Field(gt=0.0, le=10_000.0)] = entry(
        "Radius of its foot: lower it for steeper sides.", example=2.0
    )
    height_m: Height = entry("Height of its top: raise it for steeper sides.", example=0.5)

    @property
    def numbers(self) -> tuple[float, ...]:
        """Return it as `kernels.body.ground.ground_at` reads it."""
        return (PIECE_MOUND, *self.at, self.radius_m, self.height_m, 0.0, 0.0, 0.0)


class Wall(Rectangle):
    """A box that bodies cannot enter. A body above it passes over, or lands on it."""

    height_m: Annotated[float, Field(gt=0.0, le=1000.0)] = entry(
        "Height of the wall. A body above it passes over, or lands on it.", 3.0
    )

    @property
    def numbers(self) -> tuple[float, ...]:
        """Return it as `kernels.body.ground.in_wall` reads it."""
        return (self.left_m, self.back_m, self.right_m, self.forward_m, self.height_m)


FAR_M = 1e6


class Bounds(Rectangle):
    """The edges of the course, which no body crosses."""

    @property
    def numbers(self) -> tuple[float, ...]:
        """Return it as four walls outside, which no body passes over."""
        left, back, right, forward = self.left_m, self.back_m, self.right_m, self.forward_m
        boxes = (
            (-FAR_M, -FAR_M, left, FAR_M),
            (right, -FAR_M, FAR_M, FAR_M),
            (-FAR_M, -FAR_M, FAR_M, back),
            (-FAR_M, forward, FAR_M, FAR_M),
        )
        return tuple(number for box in boxes for number in (*box, FAR_M))


Piece = Annotated[Flat | Ramp | Mound, Discriminator("form")]
