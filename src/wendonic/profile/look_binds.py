"""The `bind` entries of `look`."""

from typing import Annotated, Literal, Self

from pydantic import Discriminator, Field, Tag, model_validator

from wendonic.profile.binds import Bind, Centred, Degrees, by_key
from wendonic.profile.shapes import DEFAULT_CURVE, Curve, DeadZone
from wendonic.profile.table import GyroName, StickName, own_fault, own_faults


class LookBind(Bind):
    """What all sources of `look` have."""

    invert_yaw: bool = False
    invert_pitch: bool = False


class MouseBind(LookBind):
    """The mouse as a source of `look`: `deg_per_count`, or `cm_per_turn` with `dpi`."""

    mouse: Literal["mouse.move"]
    deg_per_count: Annotated[float, Field(gt=0.0, le=360.0)] | None = None
    cm_per_turn: Annotated[float, Field(gt=0.0, le=10_000.0)] | None = None
    dpi: Annotated[float, Field(gt=0.0, le=1_000_000.0)] | None = None
    pitch_ratio: Annotated[float, Field(gt=0.0, le=10.0)] = 1.0

    @model_validator(mode="after")
    def _one_way(self) -> Self:
        if self.deg_per_count is not None and (self.cm_per_turn is not None or self.dpi is not None):
            raise own_fault("found deg_per_count beside cm_per_turn or dpi; allowed: one way to say how far it turns")
        return self

    @property
    def count_deg(self) -> float:
        """Degrees of one count; without any number 34 cm of an 800 dpi mouse are a full turn."""
        if self.deg_per_count is not None:
            return self.deg_per_count
        return 360.0 * 2.54 / ((self.cm_per_turn or 34.0) * (self.dpi or 800.0))


class LookStickBind(LookBind, Centred):
    """A stick as a source of `look`: rates at full tilt."""

    stick: StickName
    dead_zone: DeadZone = DeadZone(inner=0.12, outer=0.97)
    curve: Curve = DEFAULT_CURVE
    yaw_deg_s: Degrees = 230.0
    pitch_deg_s: Degrees = 140.0

    @model_validator(mode="after")
    def _no_release(self) -> Self:
        if self.dead_zone.release is not None:
            raise own_faults([("dead_zone.release", "does nothing for look; take it out")])
        return self


class TouchDragBind(LookBind):
    """A finger that landed in the zone, dragged: degrees for the window's whole width."""

    touch_drag: str
    deg_per_width: Degrees = 180.0


class GyroBind(LookBind):
    """A pad's rate sensor: the view turns `turn_ratio` times as far as the hand."""

    gyro: GyroName
    turn_ratio: Annotated[float, Field(gt=0.0, le=100.0)] = 1.0


AnyLookBind = Annotated[
    Annotated[MouseBind, Tag("mouse")]
    | Annotated[LookStickBind, Tag("stick")]
    | Annotated[TouchDragBind, Tag("touch_drag")]
    | Annotated[GyroBind, Tag("gyro")],
    Discriminator(by_key("mouse", "stick", "touch_drag", "gyro")),
]
