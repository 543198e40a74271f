"""Frame `drive`."""

import math
from collections.abc import Iterator
from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from wendonic.arithmetic import log1p, radians
from wendonic.kernels.frames.drive_tuning import DriveTuning
from wendonic.kernels.frames.frame import FrameTuning
from wendonic.kernels.frames.steer import FRAME_DRIVE
from wendonic.length_unit import METRES, LengthUnit
from wendonic.profile.schema.steer.sprite import Slope, Sprite, TurnRate, frame_entry
from wendonic.profile.schema.table import entry
from wendonic.profile.schema.words import Word, Words

REVERSES = Words(
    Word(
        "flips",
        "the opposite way",
        1,
        meaning="Turning right in reverse swings the heading left, as with a steered axle.",
    ),
    Word("keeps", "the same way", 0, meaning="Turning right in reverse swings the heading right."),
)

GRIP_S = 0.1
"""Time after which `grip` says what is gone of the speed sideways."""


class DriveSteer(Sprite):
    """`throttle` and `turn` steer a heading, and so does `move` if the mode binds it: forward drives, right turns.

    It turns at up to `turn_deg_s`, at up to `fast_turn_deg_s` at top speed, and in no circle smaller than
    `turn_radius_m`; `turn` is a share of that rate, so half of it drives a circle twice as wide. Only with
    `on_the_spot` does it turn at rest. In reverse it goes at `reverse_ratio` of top speed, and turning right swings
    the heading left, as with a steered axle, or right (`reverse`). With less than full `grip` it drifts.
    """

    number: ClassVar[int] = FRAME_DRIVE
    forward_by: ClassVar[Literal["plan", "view", "body", "other"]] = "body"
    forward_name: ClassVar[str] = "the cart"
    glides: ClassVar[bool] = True
    frame: Literal["drive"] = frame_entry("drive")
    turn_deg_s: TurnRate = entry("Fastest turn: raise it for a nimbler vehicle, lower it for a heavier one.", 110.0)
    fast_turn_deg_s: TurnRate | None = entry(
        "Fastest turn at top speed: lower it so that a fast vehicle is harder to turn.",
        None,
        example=60.0,
        otherwise="turn_deg_s",
    )
    turn_radius_m: Annotated[float, Field(gt=0.0, le=1000.0)] = entry(
        "Radius of the smallest circle: raise it for a longer vehicle, lower it for a nimbler one.", 2.0
    )
    on_the_spot: bool = entry("Whether it turns while standing still, as on tracks.", False)
    reverse: Annotated[str, REVERSES] = entry(
        "Whether turning right in reverse swings the heading left, as with a steered axle, or right.",
        "flips",
    )
    reverse_ratio: Annotated[float, Field(gt=0.0, le=1.0)] = entry(
        "Top speed in reverse over top speed forward.", 0.5
    )
    grip: Annotated[float, Field(ge=0.0, le=1.0)] = entry(
        "Share of sideways speed that is lost in 0.1 s: lower it to drift; 1 goes where it points.",
        1.0,
        unit="share",
    )
    slope: Slope | None = entry(
        "How the body drives on slopes.", None, example={"steepest_deg": 45.0}, otherwise="ground is taken as level"
    )

    def idle_fields(self) -> Iterator[tuple[str, str]]:
        """Yield the fields that are written but have no effect, and why."""
        yield from super().idle_fields()
        if self.on_the_spot and "turn_radius_m" in self.model_fields_set:
            yield "turn_radius_m", "does nothing with on_the_spot = true, which has no smallest circle"

    @property
    def slopes(self) -> Slope | None:
        """How it drives on slopes, None where it does not."""
        return self.slope

    def sentence(self, length: LengthUnit = METRES) -> str:
        """Say how it is driven."""
        fast = f", {self.fast_turn_deg_s:g} deg/s at top speed" if self.fast_turn_deg_s is not None else ""
        circle = (
            "on the spot too"
            if self.on_the_spot
            else f"in no circle narrower than {length.m(2.0 * self.turn_radius_m)}"
        )
        return (
            f"throttle and turn drive: turns at up to {self.turn_deg_s:g} deg/s{fast}, {circle}; in reverse at "
            f"{self.reverse_ratio:g} of top speed, turning {REVERSES.sentence(self.reverse)}{self._grip_sentence()}"
        )

    @property
    def slip_half_life_s(self) -> float:
        """Half-life of its speed sideways."""
        if self.grip in (0.0, 1.0):
            return math.inf if self.grip == 0.0 else 0.0
        half_life_s: float = GRIP_S * math.log(0.5) / log1p(-self.grip)
        return half_life_s

    def _grip_sentence(self) -> str:
        if self.grip == 1.0:
            return ""
        return f"; drifts: {100.0 * self.grip:.0f} % of its sideways speed is lost in {GRIP_S:g} s"

    def frame_tuning(self, tuning: FrameTuning, mode: Any) -> FrameTuning:  # noqa: ARG002
        """Return the tuning with the numbers of this frame."""
        fast = self.turn_deg_s if self.fast_turn_deg_s is None else self.fast_turn_deg_s
        drive = DriveTuning(
            radians(self.turn_deg_s),
            radians(fast),
            int(not self.on_the_spot),
            self.turn_radius_m,
            self.reverse_ratio,
            REVERSES.number(self.reverse),
            int(self.grip < 1.0),
            self.slip_half_life_s,
        )
        return tuning._replace(drive=drive)
