"""Every steer frame."""

from typing import Annotated, Any

from pydantic import Discriminator, Tag

from wendonic.profile.schema.steer.camera import CameraSteer
from wendonic.profile.schema.steer.drive import DriveSteer
from wendonic.profile.schema.steer.facing import FacingSteer
from wendonic.profile.schema.steer.fly import FlySteer
from wendonic.profile.schema.steer.goto import GotoSteer
from wendonic.profile.schema.steer.grid import GridSteer
from wendonic.profile.schema.steer.hands import HandsSteer
from wendonic.profile.schema.steer.map import MapSteer


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
