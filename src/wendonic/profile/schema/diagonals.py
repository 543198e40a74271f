"""Diagonal rules of the channel `move` and of its entries."""

from typing import Annotated

from wendonic.kernels.move.diagonal import DIAGONAL_CAP, DIAGONAL_FACTOR, DIAGONAL_FREE, DIAGONAL_UNIT
from wendonic.profile.schema.bind import Bind
from wendonic.profile.schema.table import entry
from wendonic.profile.schema.words import Word, Words

DIAGONALS = Words(
    Word(
        "cap",
        "diagonals capped at full speed",
        DIAGONAL_CAP,
        meaning="The length is at most 1, or the ceiling of a curve, and partial tilt is kept.",
    ),
    Word("unit", "any input is full speed", DIAGONAL_UNIT, meaning="Any input has length 1."),
    Word(
        "free",
        "diagonals free (41 % too fast with keys)",
        DIAGONAL_FREE,
        meaning="No limit: two keys together are 41 % faster.",
    ),
    Word(
        "factor",
        "both axes of a diagonal multiplied by {diagonal_factor:.4g}",
        DIAGONAL_FACTOR,
        ("diagonal_factor",),
        meaning="Two axes together are each multiplied by diagonal_factor.",
    ),
)


class Moving(Bind):
    """An entry that moves in two directions."""

    diagonal: Annotated[str, DIAGONALS] | None = entry(
        "Diagonal rule of this entry, where it differs from the channel's.",
        None,
        example="unit",
        otherwise="the channel's; cap for what tilts, where the channel's is unit or factor",
    )
