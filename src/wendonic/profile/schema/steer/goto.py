"""Frame `goto`."""

from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from wendonic.kernels.frames.frame import FrameTuning
from wendonic.kernels.frames.goal import GotoTuning
from wendonic.kernels.frames.steer import FRAME_GOTO
from wendonic.length_unit import METRES, LengthUnit
from wendonic.profile.schema.steer.sprite import OnFoot, frame_entry
from wendonic.profile.schema.table import entry


class GotoSteer(OnFoot):
    """A pointed place is the goal: the body is there within `arrival_m`, and slower from `slow_down_m` on.

    Without `retarget` a new goal counts only once the last one is reached. Keys and sticks take over, and steer as in
    `map`.
    """

    number: ClassVar[int] = FRAME_GOTO
    forward_by: ClassVar[Literal["plan", "view", "body", "hands"]] = "plan"
    forward_name: ClassVar[str] = "the plan's +y"
    frame: Literal["goto"] = frame_entry("goto")
    arrival_m: Annotated[float, Field(gt=0.0, le=100.0)] = entry(
        "Distance within which the goal counts as reached: raise it if bodies circle their goals.", 0.1
    )
    slow_down_m: Annotated[float, Field(ge=0.0, le=1000.0)] = entry(
        "Distance from which it walks slower: raise it for a softer arrival.", 0.6
    )
    retarget: bool = entry("Whether a new goal counts at once, or only when the last one is reached.", True)

    def sentence(self, length: LengthUnit = METRES) -> str:
        """Say where it walks to."""
        new = "takes a new goal on the way" if self.retarget else "takes a new goal only once it is there"
        slow = f"slower from {length.m(self.slow_down_m)} on, " if self.slow_down_m else ""
        return f"to the pointed place: {slow}there within {length.m(self.arrival_m)}; {new}; keys steer as on a map"

    def frame_tuning(self, tuning: FrameTuning, mode: Any) -> FrameTuning:  # noqa: ARG002
        """Return the numbers with those of its own frame put in."""
        return tuning._replace(goto=GotoTuning(self.arrival_m, self.slow_down_m, int(self.retarget)))
