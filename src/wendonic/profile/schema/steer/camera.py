"""Frame `camera`."""

from typing import ClassVar, Literal

from wendonic.kernels.frames.steer import FRAME_CAMERA
from wendonic.length_unit import METRES, LengthUnit
from wendonic.profile.schema.steer.sprite import OnFoot
from wendonic.profile.schema.table import entry


class CameraSteer(OnFoot):
    """Forward is where the camera looks, projected onto the ground."""

    number: ClassVar[int] = FRAME_CAMERA
    forward_by: ClassVar[Literal["plan", "view", "body", "other"]] = "view"
    forward_name: ClassVar[str] = "the camera"
    frame: Literal["camera"] = entry("Steer frame: what forward means.", "camera")

    def sentence(self, length: LengthUnit = METRES) -> str:  # noqa: ARG002
        """Say what forward means."""
        return "forward is where the camera looks, projected onto the ground"
