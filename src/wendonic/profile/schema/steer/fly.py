"""Frame `fly`."""

from typing import Any, ClassVar, Literal

from wendonic.kernels.frames.frame import FrameTuning
from wendonic.kernels.frames.steer import FRAME_FLY
from wendonic.length_unit import METRES, LengthUnit
from wendonic.profile.schema.steer.sprite import Faced, frame_entry
from wendonic.profile.schema.table import entry


class FlySteer(Faced):
    """As `camera`, with `rise` for up and down at the gait's `rise_m_s`. Unless `level`, forward climbs and dives
    with the view.
    """

    number: ClassVar[int] = FRAME_FLY
    forward_by: ClassVar[Literal["plan", "view", "body", "other"]] = "view"
    forward_name: ClassVar[str] = "the camera"
    weightless: ClassVar[str] = "a body that flies"
    glides: ClassVar[bool] = True
    frame: Literal["fly"] = frame_entry("fly")
    level: bool = entry("Whether forward stays level, or climbs and dives with the view.", True)

    def sentence(self, length: LengthUnit = METRES) -> str:  # noqa: ARG002
        """Say what forward means."""
        return f"flying forward where the camera looks, {'level' if self.level else 'pitch included'}"

    def frame_tuning(self, tuning: FrameTuning, mode: Any) -> FrameTuning:  # noqa: ARG002
        """Return the tuning with the numbers of this frame."""
        return tuning._replace(level=int(self.level))
