"""What "ahead" means, and which way the body faces: one table for each steer frame."""

from typing import Annotated, Any, Literal, Self

from pydantic import Discriminator, Field, Tag, model_validator

from wendonic.profile.table import Seconds, Table, own_faults

TURN_DEG_S = 540.0
AT_ONCE_DEG_S = 100_000.0
"""Turn rates that count where a profile names none: of a body, and of a sprite that is seen from the side."""

TurnRate = Annotated[float, Field(gt=0.0, le=100_000.0)]
Metres = Annotated[float, Field(ge=0.0, le=1000.0)]


class Slope(Table):
    """Walking on slopes: up to `limit_deg`; steeper ground lets nobody up, and he slides down it at `slide_m_s`.

    The body's own up follows the ground's normal by a half-life.
    """

    limit_deg: Annotated[float, Field(gt=0.0, lt=90.0)] = 45.0
    slide_m_s: Annotated[float, Field(ge=0.0, le=100.0)] = 2.0
    lean_half_life_s: Seconds = 0.08


class Sprite(Table):
    """What all frames have: a sprite with `sectors` facings leaves one only `sector_margin_deg` beyond its border."""

    sectors: Literal[2, 4, 8, 16] | None = None
    sector_margin_deg: Annotated[float, Field(ge=0.0, le=45.0)] | None = None

    @model_validator(mode="after")
    def _margin_of_sectors(self) -> Self:
        if self.sector_margin_deg is None:
            return self
        if self.sectors is None:
            raise own_faults([("sector_margin_deg", "does nothing without sectors")])
        width_deg = 360.0 / self.sectors
        if self.sector_margin_deg >= width_deg / 2.0:
            words = f"{self.sector_margin_deg:g} is half a sector or more; allowed: below {width_deg / 2.0:g}"
            raise own_faults([("sector_margin_deg", words)])
        return self


class Faced(Sprite):
    """A body that turns by `face`, at `turn_deg_s` at most: to its way of travel, the view, a point to aim at, by the
    channel `turn`, or never (`hold`).
    """

    face: Literal["travel", "view", "aim", "turn", "hold"] = "travel"
    turn_deg_s: TurnRate | None = None

    @model_validator(mode="after")
    def _turns(self) -> Self:
        if self.face == "hold" and self.turn_deg_s is not None:
            raise own_faults([("turn_deg_s", 'does nothing under face "hold"')])
        return self

    @property
    def turn_rate_deg_s(self) -> float:
        """The turn rate that counts."""
        return TURN_DEG_S if self.turn_deg_s is None else self.turn_deg_s


class OnFoot(Faced):
    """A body on the ground; with `slope` it follows ground that is not level."""

    slope: Slope | None = None


class CameraSteer(OnFoot):
    """Ahead is where the camera looks, flattened."""

    frame: Literal["camera"] = "camera"


class MapSteer(OnFoot):
    """Ahead is the plan's +y; in a `side_view` only right and left are of use."""

    frame: Literal["map"]
    side_view: bool = False

    @property
    def turn_rate_deg_s(self) -> float:
        """The turn rate that counts; a sprite seen from the side turns round at once."""
        if self.turn_deg_s is None:
            return AT_ONCE_DEG_S if self.side_view else TURN_DEG_S
        return self.turn_deg_s


class FacingSteer(OnFoot):
    """Ahead is where the body faces; what it faces is up to `face`. Facing its travel, it turns as `move` goes
    sideways.
    """

    frame: Literal["facing"]
    face: Literal["travel", "view", "aim", "turn", "hold"] = "view"


class DriveSteer(Sprite):
    """`throttle` and `turn` steer a heading; where the mode binds `move`, so does that.

    It turns at `turn_deg_s` at most, `fast_turn_deg_s` at top speed, and in no circle smaller than `turn_radius_m`;
    only `on_the_spot` lets it turn at rest. Backwards it goes at `reverse_ratio` of top speed, and `reverse` says
    whether a turn to the right then brings the heading round to the left (`flips`), as with a steered axle.
    """

    frame: Literal["drive"]
    turn_deg_s: TurnRate = 110.0
    fast_turn_deg_s: TurnRate | None = None
    turn_radius_m: Annotated[float, Field(gt=0.0, le=1000.0)] | None = None
    on_the_spot: bool = False
    reverse: Literal["flips", "keeps"] = "flips"
    reverse_ratio: Annotated[float, Field(gt=0.0, le=1.0)] = 0.5
    slope: Slope | None = None

    @model_validator(mode="after")
    def _one_of_both(self) -> Self:
        if self.on_the_spot and self.turn_radius_m is not None:
            words = "does nothing beside on_the_spot = true, which has no smallest circle"
            raise own_faults([("turn_radius_m", words)])
        return self


class FlySteer(Faced):
    """As `camera`, with `rise` up and down at the gait's `rise_m_s`; unless `level`, ahead climbs and dives with the
    view.
    """

    frame: Literal["fly"]
    level: bool = True


class GridSteer(Faced):
    """One square of `square_m` a step, which takes `step_s`, evenly or `eased`.

    A way that stays held steps again after `delay_s` from its press, and then every `repeat_s`, or as soon as the
    step is done; unless `repeats` is off. Without `diagonals`, `opposites` of the first entry that has it says which
    of two held ways wins.
    """

    frame: Literal["grid"]
    square_m: Annotated[float, Field(gt=0.0, le=1000.0)] = 1.0
    step_s: Annotated[float, Field(ge=0.01, le=10.0)] = 0.22
    repeats: bool = True
    delay_s: Seconds | None = None
    repeat_s: Seconds | None = None
    diagonals: bool = False
    eased: bool = False

    @model_validator(mode="after")
    def _nothing_idle(self) -> Self:
        idle = [name for name in ("delay_s", "repeat_s") if getattr(self, name) is not None]
        if not self.repeats and idle:
            raise own_faults([(name, "does nothing under repeats = false") for name in idle])
        return self


class GotoSteer(OnFoot):
    """A pointed place is the goal: he is there within `arrival_m`, and slower from `slow_down_m` on.

    Without `retarget` a new goal counts only once the last one is reached. Keys and sticks take over, and steer as in
    `map`.
    """

    frame: Literal["goto"]
    arrival_m: Annotated[float, Field(gt=0.0, le=100.0)] = 0.1
    slow_down_m: Metres = 0.6
    retarget: bool = True


class Teleport(Table):
    """Pointing at a place to be at: while `press` is held an arc leaves `hand` at `speed_m_s`, and once it is let go
    the head is where the arc landed.
    """

    press: str
    hand: Literal["hand.left", "hand.right"] = "hand.right"
    speed_m_s: Annotated[float, Field(gt=0.0, le=100.0)] = 7.0


class HandsSteer(OnFoot):
    """Ahead is where the head points, or a hand, or both hands between them, on top of the view's yaw."""

    frame: Literal["hands"]
    teleport: Teleport | None = None
    ahead: Literal["head", "hand.left", "hand.right", "hands"] = "head"


def _frame_of(table: Any) -> Any:
    return table.get("frame", "camera") if isinstance(table, dict) else getattr(table, "frame", None)


AnySteer = Annotated[
    Annotated[CameraSteer, Tag("camera")]
    | Annotated[MapSteer, Tag("map")]
    | Annotated[FacingSteer, Tag("facing")]
    | Annotated[DriveSteer, Tag("drive")]
    | Annotated[FlySteer, Tag("fly")]
    | Annotated[GridSteer, Tag("grid")]
    | Annotated[GotoSteer, Tag("goto")]
    | Annotated[HandsSteer, Tag("hands")],
    Discriminator(_frame_of),
]
Steer = CameraSteer | MapSteer | FacingSteer | DriveSteer | FlySteer | GridSteer | GotoSteer | HandsSteer
