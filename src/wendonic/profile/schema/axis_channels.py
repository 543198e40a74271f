"""The channels of one number: `rise`, `throttle` and `turn`."""

from typing import Annotated, ClassVar

from pydantic import Field

from wendonic.kernels.axis_channel import AxisTuning
from wendonic.kernels.move.merge import MERGE_STRONGEST, MERGE_SUM
from wendonic.profile.schema.axis_binds import RiseBind, ThrottleBind, TurnBind
from wendonic.profile.schema.keyed import joined_keys
from wendonic.profile.schema.move import merged_words
from wendonic.profile.schema.number_rows import NumberRows
from wendonic.profile.schema.table import Table, entry
from wendonic.profile.schema.words import Word, Words

AXIS_MERGES = Words(
    Word("strongest", "the strongest of", MERGE_STRONGEST, meaning="The source with the largest amount counts."),
    Word("sum", "the sum of", MERGE_SUM, meaning="The sources are added."),
)


class AxisChannel(Table):
    """A channel of one number, -1..1: its sources, and how they are merged."""

    name: ClassVar[str]

    merge: Annotated[str, AXIS_MERGES] = entry(
        "How several sources become one: the strongest wins, or they add up.", "strongest"
    )
    bind: tuple[RiseBind | ThrottleBind | TurnBind, ...]

    def sentences(self) -> list[str]:
        """Say how its sources are merged, then each of them."""
        first = f"{self.name}: {merged_words(self.merge, len(self.bind))}"
        return [first, *(f"  {bind.seated_sentence()}" for bind in self.bind)]

    def tuning(self, rows: NumberRows) -> AxisTuning:
        """Return the kernels' numbers for it."""
        sources = tuple(bind.tuning(rows) for bind in self.bind)
        return AxisTuning(sources, AXIS_MERGES.number(self.merge), *joined_keys(self.bind))


class Rise(AxisChannel):
    """The channel `rise`, -1 down to 1 up."""

    name: ClassVar[str] = "rise"
    bind: Annotated[tuple[RiseBind, ...], Field(strict=False, min_length=1)] = entry(
        "Sources of rising and sinking: one entry for each device.",
        example=[{"keys": {"up": ["KeyE"], "down": ["KeyQ"]}}],
    )


class Throttle(AxisChannel):
    """The channel `throttle`, -1 back to 1 forward."""

    name: ClassVar[str] = "throttle"
    bind: Annotated[tuple[ThrottleBind, ...], Field(strict=False, min_length=1)] = entry(
        "Sources of driving forward and back: one entry for each device.",
        example=[{"keys": {"forward": ["KeyW"], "back": ["KeyS"]}}],
    )


class Turn(AxisChannel):
    """The channel `turn`, -1 left to 1 right."""

    name: ClassVar[str] = "turn"
    bind: Annotated[tuple[TurnBind, ...], Field(strict=False, min_length=1)] = entry(
        "Sources of turning: one entry for each device.", example=[{"axis": "pad.left_stick.x"}]
    )
