"""Frame `facing`."""

from typing import Annotated, ClassVar, Literal

from wendonic.kernels.frames.steer import FRAME_FACING
from wendonic.length_unit import METRES, LengthUnit
from wendonic.profile.schema.steer.sprite import FACES, OnFoot, frame_entry
from wendonic.profile.schema.table import entry


class FacingSteer(OnFoot):
    """Forward is where the body faces. `face` says what it faces; if that is its travel, it turns as `move` goes
    sideways.
    """

    number: ClassVar[int] = FRAME_FACING
    forward_by: ClassVar[Literal["plan", "view", "body", "other"]] = "body"
    forward_name: ClassVar[str] = "the body"
    frame: Literal["facing"] = frame_entry("facing")
    face: Annotated[str, FACES] = entry("What the body faces.", "view")

    def sentence(self, length: LengthUnit = METRES) -> str:  # noqa: ARG002
        """Say what forward means."""
        return "forward is where the body faces"

    def face_words(self) -> str:
        """Describe the facing of the body."""
        if self.face == "travel":
            return f"turned by move going sideways, at up to {self.turn_rate_deg_s:g} deg/s"
        return super().face_words()
