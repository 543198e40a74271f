"""Frame `goto`."""

from collections.abc import Iterator
from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from wendonic.kernels.frames.frame import FrameTuning
from wendonic.kernels.frames.goal import GotoTuning
from wendonic.kernels.frames.steer import FRAME_GOTO
from wendonic.length_unit import METRES, LengthUnit
from wendonic.profile.schema.steer.side_view import SideView
from wendonic.profile.schema.steer.sprite import frame_entry
from wendonic.profile.schema.table import entry
from wendonic.profile.schema.words import Word, Words

FORWARDS = Words(
    Word("map", "as on a map", 0, meaning="Forward is always that of `[world]`."),
    Word("camera", "by the camera", 1, meaning="Forward is where the camera looks."),
)


class GotoSteer(SideView):
    """A place that the player points at is the goal. The body has arrived within `arrival_m`, and slows down from
    `slow_down_m`.

    Without `retarget`, a new goal waits until the last one is reached; with a `queue`, as many wait, and the body
    goes from one to the next without stopping. Keys and sticks override the goal, and steer as on a map or by the
    camera. In a `side_view` only the goal's distance to the right or left counts, not its height.
    """

    number: ClassVar[int] = FRAME_GOTO
    forward_by: ClassVar[Literal["plan", "view", "body", "other"]] = "plan"
    forward_name: ClassVar[str] = "that of [world]"
    frame: Literal["goto"] = frame_entry("goto")
    arrival_m: Annotated[float, Field(gt=0.0, le=100.0)] = entry(
        "Distance within which a goal counts as reached: raise it if bodies circle their goals, "
        "lower it to stop closer.",
        0.1,
    )
    slow_down_m: Annotated[float, Field(ge=0.0, le=1000.0)] = entry(
        "Distance from which it slows down: raise it for a softer arrival, lower it to arrive sooner.", 0.6
    )
    retarget: bool = entry(
        "Whether a new goal replaces the last one at once, or waits until that one is reached.", True
    )
    queue: Annotated[int, Field(ge=0, le=64)] = entry(
        "How many goals can wait, to be walked to in turn without stopping; 0 keeps only the newest.",
        0,
        unit="goals",
        example=8,
    )
    forward: Annotated[str, FORWARDS] = entry("What forward means for keys and sticks.", "map")

    def idle_fields(self) -> Iterator[tuple[str, str]]:
        """Yield the fields that are written but have no effect, and why."""
        yield from super().idle_fields()
        if self.queue and "retarget" in self.model_fields_set:
            yield "retarget", "does nothing with a queue"
        if self.side_view and self.forward != "map":
            yield "forward", "does nothing in a side view, which has no forward"

    @property
    def turns_with(self) -> str:
        """What forward turns with."""
        return "view" if self.by_camera else "plan"

    @property
    def by_camera(self) -> bool:
        """Whether keys and sticks steer by the camera."""
        return self.forward == "camera" and not self.side_view

    def sentence(self, length: LengthUnit = METRES) -> str:
        """Say where it walks to."""
        new = "takes a new goal at once" if self.retarget else "takes a new goal only after arriving"
        if self.queue:
            new = f"up to {self.queue} goals wait, and are reached without stopping"
        slow = f"slower from {length.m(self.slow_down_m)}, " if self.slow_down_m else ""
        keys = "right and left" if self.side_view else FORWARDS.sentence(self.forward)
        place = "goal, right or left only" if self.side_view else "pointed place"
        return f"to the {place}: {slow}arrived within {length.m(self.arrival_m)}; {new}; keys steer {keys}"

    def frame_tuning(self, tuning: FrameTuning, mode: Any) -> FrameTuning:  # noqa: ARG002
        """Return the tuning with the numbers of this frame."""
        at_once = self.retarget and not self.queue
        waiting = self.queue or int(not at_once)
        across, by_view = int(self.side_view), int(self.by_camera)
        goto = GotoTuning(self.arrival_m, self.slow_down_m, int(at_once), waiting, by_view, across)
        return tuning._replace(goto=goto)
