"""Frame `map`."""

from typing import ClassVar, Literal

from wendonic.kernels.frames.steer import FRAME_MAP
from wendonic.length_unit import METRES, LengthUnit
from wendonic.profile.schema.steer.sprite import OnFoot, frame_entry
from wendonic.profile.schema.table import entry


class MapSteer(OnFoot):
    """Forward is the plan's +y; in a `side_view` only right and left are of use."""

    number: ClassVar[int] = FRAME_MAP
    forward_by: ClassVar[Literal["plan", "view", "body", "hands"]] = "plan"
    forward_name: ClassVar[str] = "the plan's +y"
    frame: Literal["map"] = frame_entry("map")
    side_view: bool = entry(
        "Whether the game is seen from the side: forward and back are left out, and the body turns at once.", False
    )

    @property
    def turns_at_once(self) -> bool:
        """Whether the body turns at once; a sprite seen from the side does, unless a rate is written."""
        return super().turns_at_once or (self.side_view and "turn_deg_s" not in self.model_fields_set)

    def sentence(self, length: LengthUnit = METRES) -> str:  # noqa: ARG002
        """Say what forward means."""
        if self.side_view:
            return "right and left on the plan, seen from the side"
        return "forward is the plan's +y, whatever the camera does"
