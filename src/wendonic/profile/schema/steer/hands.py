"""Frame `hands`."""

from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from wendonic.kernels.frames.frame import FrameTuning
from wendonic.kernels.frames.hands import FORWARD_BOTH, FORWARD_HEAD, FORWARD_LEFT, FORWARD_RIGHT
from wendonic.kernels.frames.steer import FRAME_HANDS
from wendonic.length_unit import METRES, LengthUnit
from wendonic.profile.schema.names import PressName
from wendonic.profile.schema.steer.sprite import OnFoot, frame_entry
from wendonic.profile.schema.table import Table, entry
from wendonic.profile.schema.words import Word, Words

FORWARDS = Words(
    Word("head", "where the head points", FORWARD_HEAD, meaning="Forward is where the head points."),
    Word("hand.left", "where the left hand points", FORWARD_LEFT, meaning="Forward is where the left hand points."),
    Word(
        "hand.right", "where the right hand points", FORWARD_RIGHT, meaning="Forward is where the right hand points."
    ),
    Word(
        "hands",
        "halfway between where the two hands point",
        FORWARD_BOTH,
        meaning="Forward is halfway between where the two hands point.",
    ),
)


class Teleport(Table):
    """Teleporting: while `press` is held, an arc leaves `hand` at `speed_m_s`; released, the head is where the arc
    landed.
    """

    press: PressName = entry("Press that points while held; released, it teleports.", example="go")
    hand: Literal["hand.left", "hand.right"] = entry("Hand that points.", "hand.right")
    speed_m_s: Annotated[float, Field(gt=0.0, le=100.0)] = entry(
        "Speed at which the arc leaves the hand: raise it to reach further, lower it to aim more finely.", 7.0
    )


class HandsSteer(OnFoot):
    """Forward is where the head, one hand, or the middle between both hands points, added to the view's yaw."""

    number: ClassVar[int] = FRAME_HANDS
    forward_by: ClassVar[Literal["plan", "view", "body", "other"]] = "other"
    forward_name: ClassVar[str] = "head or hands"
    weightless: ClassVar[str] = "the play space of a headset"
    frame: Literal["hands"] = frame_entry("hands")
    teleport: Teleport | None = entry(
        "Teleporting to a place that a hand points at.", None, example={"press": "go"}, otherwise="none"
    )
    forward: Annotated[str, FORWARDS] = entry("What points forward: the head, one hand, or both.", "head")

    def sentence(self, length: LengthUnit = METRES) -> str:
        """Say what forward means."""
        words = f"forward is {FORWARDS.sentence(self.forward)}"
        if self.teleport:
            jump = self.teleport
            words += f"; while {jump.press} is held, {jump.hand} points at a place to teleport to"
            words += f", along an arc that leaves it at {length.m_s(jump.speed_m_s)}"
        return words

    def frame_tuning(self, tuning: FrameTuning, mode: Any) -> FrameTuning:  # noqa: ARG002
        """Return the tuning with the numbers of this frame."""
        return tuning._replace(hands_forward=FORWARDS.number(self.forward))
