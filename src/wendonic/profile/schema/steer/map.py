"""Frame `map`."""

from typing import ClassVar, Literal

from wendonic.kernels.frames.steer import FRAME_MAP
from wendonic.length_unit import METRES, LengthUnit
from wendonic.profile.schema.steer.sprite import OnFoot, frame_entry
from wendonic.profile.schema.table import entry

AT_ONCE_DEG_S = 100_000.0
"""Turn rate of a sprite that is seen from the side."""


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
    def turn_rate_deg_s(self) -> float:
        """The turn rate that counts; a sprite seen from the side turns round at once."""
        return AT_ONCE_DEG_S if self.side_view and "turn_deg_s" not in self.model_fields_set else self.turn_deg_s

    def sentence(self, length: LengthUnit = METRES) -> str:  # noqa: ARG002
        """Say what forward means."""
        if self.side_view:
            return "right and left on the plan, seen from the side"
        return "forward is the plan's +y, whatever the camera does"
