"""The common part of steer frames: a body's facing, its sprite, and slopes."""

from collections.abc import Iterator
from typing import Annotated, Any, ClassVar, Literal, Self

from pydantic import Field, model_validator

from wendonic.arithmetic import radians, tan
from wendonic.kernels.body.facing import FACE_AIM, FACE_HOLD, FACE_TRAVEL, FACE_TURN, FACE_VIEW
from wendonic.kernels.body.sector import TIE_LATER, TIE_SIDEWAYS, TIE_UPRIGHT
from wendonic.kernels.body.slope import LEVEL_ONLY, SlopeTuning
from wendonic.kernels.frames.frame import PLAIN_FRAME, FrameTuning
from wendonic.length_unit import METRES, LengthUnit
from wendonic.profile.schema.names import Seconds
from wendonic.profile.schema.table import Choice, Table, entry, own_faults
from wendonic.profile.schema.words import Word, Words

TURN_DEG_S = 540.0
"""Default turn rate of a body."""

AT_ONCE_DEG_S = 1e9
"""Half a turn within any tick."""

TurnRate = Annotated[float, Field(gt=0.0, le=100_000.0)]

_TURNS = ("turn_deg_s",)
FACES = Words(
    Word(
        "travel",
        "the direction of travel",
        FACE_TRAVEL,
        (*_TURNS, "face_above", "diagonal_hold_s"),
        meaning="The body turns to where it is going.",
    ),
    Word("view", "where the view looks", FACE_VIEW, _TURNS, meaning="The body turns to where the view looks."),
    Word(
        "aim",
        "the point that is aimed at",
        FACE_AIM,
        _TURNS,
        meaning="The body turns to the point that the game aims at.",
    ),
    Word("turn", "by the channel turn", FACE_TURN, _TURNS, meaning="The channel turn turns the body."),
    Word("hold", "held as it is", FACE_HOLD, meaning="The body keeps its facing."),
)


TIES = Words(
    Word(
        "sideways", "two keys show the facing to the side", TIE_SIDEWAYS, meaning="The facing to the side is shown."
    ),
    Word("upright", "two keys show the facing up or down", TIE_UPRIGHT, meaning="The facing up or down is shown."),
    Word(
        "later",
        "two keys show the facing of the later one",
        TIE_LATER,
        meaning="The facing of the key that was pressed later is shown; of two at once, the one to the side.",
    ),
)
SECTORS_BY = Words(
    Word("face", "", 0, meaning="The sprite shows where the body faces now."),
    Word(
        "heading",
        " that show the heading at once",
        1,
        meaning="The sprite shows the heading that the body is turning to.",
    ),
)


class Slope(Table):
    """Movement on slopes. Ground up to `steepest_deg` can be climbed; the body slides down steeper ground at
    `slide_m_s`. Climbing costs speed by `uphill_ratio`. A step higher than `step_m` is a wall from below
    and a drop from above.

    The body's up axis follows the normal of the ground by a half-life.
    """

    steepest_deg: Annotated[float, Field(gt=0.0, lt=90.0)] = entry(
        "Steepest ground that can be climbed: raise it if players get stuck on hills, lower it to "
        "keep them off banks.",
        45.0,
    )
    slide_m_s: Annotated[float, Field(ge=0.0, le=100.0)] = entry(
        "Speed at which a body slides down ground that is too steep: raise it to get it off banks "
        "sooner; 0 for none.",
        2.0,
    )
    lean_half_life_s: Seconds = entry(
        "Half-life in which the body leans with the ground: raise it for a calmer body, lower it to follow closely.",
        0.08,
    )
    step_m: Annotated[float, Field(ge=0.0, le=100.0)] = entry(
        "Highest step that is walked up or down: raise it if kerbs stop the body or it falls down stairs, "
        "lower it if it climbs walls. Only a jump gets over a higher one.",
        0.35,
    )
    ahead_m: Annotated[float, Field(ge=0.0, le=10.0)] = entry(
        "How far ahead steep ground is noticed: raise it if bodies step onto a bank and slide back,"
        " lower it if they stop short of one.",
        0.2,
    )
    uphill_ratio: Annotated[float, Field(gt=0.0, le=1.0)] = entry(
        "Share of speed that is left straight up the steepest ground: lower it to make climbing "
        "slower; 1 costs nothing.",
        1.0,
    )

    def sentence(self, length: LengthUnit = METRES) -> str:
        """Describe it."""
        climbs = (
            f"; {100.0 * self.uphill_ratio:g} % of speed is left straight up the steepest"
            if self.uphill_ratio < 1.0
            else ""
        )
        return (
            f"slopes: up to {self.steepest_deg:g} deg{climbs}; slides down steeper ground at "
            f"{length.m_s(self.slide_m_s)}; steps up to {length.m(self.step_m)}; leans with a half-life of "
            f"{self.lean_half_life_s:g} s"
        )

    def tuning(self) -> SlopeTuning:
        """Return the kernels' numbers for it."""
        return SlopeTuning(
            1,
            tan(radians(self.steepest_deg)),
            self.slide_m_s,
            self.lean_half_life_s,
            self.ahead_m,
            self.step_m,
            int(self.uphill_ratio < 1.0),
            self.uphill_ratio,
        )


class Sprite(Choice):
    """What all frames have: a sprite with `sectors` facings leaves one only `sector_margin_deg` beyond its border."""

    chosen_by: ClassVar[str] = "frame"

    forward_by: ClassVar[Literal["plan", "view", "body", "other"]]
    """What forward turns with; for anything else, pictures derive forward from the motion of a tick."""

    forward_name: ClassVar[str]
    """Forward in a few words."""

    weightless: ClassVar[str] = ""
    """Words for bodies that never fall, "" if bodies may fall."""

    glides: ClassVar[bool] = False
    """Whether a body may roll or glide on, or has no speed to stop from."""

    frame: str
    sectors: Literal[2, 4, 8, 16] | None = entry(
        "Number of facings that the sprite is drawn in.", None, example=8, unit="facings", otherwise="any facing"
    )
    sector_margin_deg: Annotated[float, Field(ge=0.0, le=45.0)] = entry(
        "How far past its border a facing lasts: raise it if the sprite flickers, lower it if it turns late.", 6.0
    )

    sector_tie: Annotated[str, TIES] = entry(
        "With four facings: the one to show while two keys point between two of them.", "sideways"
    )
    sector_by: Annotated[str, SECTORS_BY] = entry(
        "Whether the sprite shows where the body faces now, or the heading it is turning to.", "face"
    )

    def idle_fields(self) -> Iterator[tuple[str, str]]:
        """Yield the fields that are written but have no effect, and why."""
        yield from super().idle_fields()
        for name in ("sector_margin_deg", "sector_tie", "sector_by"):
            if self.sectors is None and name in self.model_fields_set:
                yield name, "does nothing without sectors"
        if self.sectors not in (None, 4) and "sector_tie" in self.model_fields_set:
            yield "sector_tie", f"does nothing with {self.sectors} sectors; it goes with 4"

    @model_validator(mode="after")
    def _margin_of_sectors(self) -> Self:
        if self.sectors is None or "sector_margin_deg" not in self.model_fields_set:
            return self
        width_deg = 360.0 / self.sectors
        if self.sector_margin_deg >= width_deg / 2.0:
            words = f"{self.sector_margin_deg:g} is half a sector or more; allowed: below {width_deg / 2.0:g}"
            raise own_faults([("sector_margin_deg", words)])
        return self

    def sentence(self, length: LengthUnit = METRES) -> str:
        """Say what forward means."""
        raise NotImplementedError

    @property
    def seen_from_side(self) -> bool:
        """Whether there is only right and left to go."""
        return False

    @property
    def turns_with(self) -> str:
        """What forward turns with: "plan", "view", "body" or something "other"."""
        return self.forward_by

    def face_words(self) -> str:
        """Describe the facing of the body."""
        return "its heading" if self.sectors else ""

    def sentences(self, length: LengthUnit = METRES) -> list[str]:
        """Describe what forward means, the body's facing, and slopes."""
        lines = [f"steer: {self.sentence(length)}"]
        face = self.face_words()
        if face:
            margin = f", each lasting {self.sector_margin_deg:g} deg past its border"
            shown = f"; one of {self.sectors} facings{SECTORS_BY.sentence(self.sector_by)}{margin}"
            if self.sectors == 4:
                shown += f"; {TIES.sentence(self.sector_tie)}"
            lines.append(f"face: {face}{shown if self.sectors else ''}")
        slope = self.slopes
        return [*lines, slope.sentence(length)] if slope else lines

    @property
    def slopes(self) -> Slope | None:
        """Its behaviour on slopes, None without slopes."""
        return None

    def frame_tuning(self, tuning: FrameTuning, mode: Any) -> FrameTuning:  # noqa: ARG002
        """Return the tuning with the numbers of this frame; `mode` is the mode that it steers."""
        return tuning

    def tuning(self, mode: Any) -> FrameTuning:
        """Return the kernels' numbers for it."""
        slope = self.slopes
        common = PLAIN_FRAME._replace(
            frame=self.number,
            face=FACE_TRAVEL,
            turn_rate=0.0,
            slope=LEVEL_ONLY if slope is None else slope.tuning(),
            capped=int(mode.move is None or mode.move.diagonal != "free"),
        )
        return self.frame_tuning(common, mode)


class Faced(Sprite):
    """A body that turns by `face`, at `turn_deg_s` at most: to its direction of travel, the view, a point to aim at,
    by the channel `turn`, or never (`hold`).
    """

    face: Annotated[str, FACES] = entry("What the body faces.", "travel")
    turn_deg_s: TurnRate = entry(
        "Fastest turn of the body: raise it for a nimbler body, lower it for a heavier one. Left "
        "out, a body that faces the view turns at once.",
        TURN_DEG_S,
    )

    face_above: Annotated[float, Field(ge=0.0, lt=1.0)] = entry(
        "Amount above which the body turns: raise it if the body flips round when a stick springs "
        "back, lower it if small tilts should turn it.",
        0.0,
        unit="amount",
        example=0.3,
    )

    diagonal_hold_s: Seconds = entry(
        "How long a diagonal facing lasts after one of its two keys is released: raise it if the "
        "sprite never stops on a diagonal, lower it if it feels late.",
        0.0,
    )

    @property
    def turns_at_once(self) -> bool:
        """Whether the body faces it at once: the view, unless a rate is written."""
        return self.face == "view" and "turn_deg_s" not in self.model_fields_set

    @property
    def turn_rate_deg_s(self) -> float:
        """The turn rate that counts."""
        return AT_ONCE_DEG_S if self.turns_at_once else self.turn_deg_s

    def face_words(self) -> str:
        """Describe the facing of the body."""
        rate = ", at once" if self.turns_at_once else f", turning at up to {self.turn_deg_s:g} deg/s"
        rate = rate if self.uses("turn_deg_s") else ""
        above = f", above an amount of {self.face_above:g}" if self.face_above > 0.0 else ""
        above += f", diagonals held for {self.diagonal_hold_s:g} s" if self.diagonal_hold_s > 0.0 else ""
        return f"{FACES.sentence(self.face)}{rate}{above}"

    def tuning(self, mode: Any) -> FrameTuning:
        """Return the kernels' numbers for it."""
        return (
            super()
            .tuning(mode)
            ._replace(
                face=FACES.number(self.face),
                turn_rate=radians(self.turn_rate_deg_s),
                face_limited=int(self.face_above > 0.0),
                face_above=self.face_above,
                holds=int(self.diagonal_hold_s > 0.0),
                hold_s=self.diagonal_hold_s,
            )
        )


class OnFoot(Faced):
    """A body on the ground; with `slope` it follows ground that is not level."""

    slope: Slope | None = entry(
        "How the body moves on slopes.", None, example={"steepest_deg": 45.0}, otherwise="ground is taken as level"
    )

    @property
    def slopes(self) -> Slope | None:
        """Its behaviour on slopes, None without slopes."""
        return self.slope


def frame_entry(frame: str) -> Any:
    """Declare the field that names a steer frame."""
    return entry("Steer frame: what forward means.", example=frame)
