"""Frame `map`."""

from typing import ClassVar, Literal

from wendonic.kernels.frames.steer import FRAME_MAP
from wendonic.length_unit import METRES, LengthUnit
from wendonic.profile.schema.steer.side_view import SideView
from wendonic.profile.schema.steer.sprite import frame_entry


class MapSteer(SideView):
    """Forward is always that of `[world]`. In a `side_view` only right and left count."""

    number: ClassVar[int] = FRAME_MAP
    forward_by: ClassVar[Literal["plan", "view", "body", "other"]] = "plan"
    forward_name: ClassVar[str] = "that of [world]"
    frame: Literal["map"] = frame_entry("map")

    def sentence(self, length: LengthUnit = METRES) -> str:  # noqa: ARG002
        """Say what forward means."""
        if self.side_view:
            return "right and left on the plan, seen from the side"
        return "forward is that of [world], wherever the camera looks"
