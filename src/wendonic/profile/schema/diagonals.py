"""Rules for what two axes together may add up to, for the channel `move` and for its entries."""

from typing import Annotated

from wendonic.kernels.move.diagonal import DIAGONAL_CAP, DIAGONAL_FACTOR, DIAGONAL_FREE, DIAGONAL_UNIT
from wendonic.profile.schema.bind import Bind
from wendonic.profile.schema.table import entry
from wendonic.profile.schema.words import Word, Words

DIAGONALS = Words(
    Word("cap", "diagonals capped at full speed", DIAGONAL_CAP),
    Word("unit", "any input is full speed", DIAGONAL_UNIT),
    Word("free", "diagonals free (41 % too fast with keys)", DIAGONAL_FREE),
    Word(
        "factor", "both axes of a diagonal multiplied by {diagonal_factor:.4g}", DIAGONAL_FACTOR, ("diagonal_factor",)
    ),
)


class Moving(Bind):
    """An entry that moves in two directions."""

    diagonal: Annotated[str, DIAGONALS] | None = entry(
        "Rule for the diagonals of this entry, where it is not that of the channel.",
        None,
        example="unit",
        otherwise="the channel's; cap for what tilts, where the channel's is unit or factor",
    )
