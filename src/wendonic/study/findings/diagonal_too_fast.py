"""Diagonals that are faster than straight lines."""

from collections.abc import Iterator

from wendonic.errors import WendonicError
from wendonic.study.finding import Case, Found, finding

TOO_FAST = 1.02
"""Share of top speed, or of a straight line by the same device, from which a diagonal is reported."""


@finding(70, "fault", "Moving diagonally is faster than moving straight, so everybody moves diagonally.")
def diagonal_too_fast(case: Case) -> Iterator[Found]:
    """Diagonals that are faster than straight lines."""
    if case.table.move is None or case.on_squares or case.table.steer.frame == "drive":
        return
    try:
        found = case.envelopes
    except WendonicError:
        return
    fastest = max(found, key=lambda envelope: envelope.fastest)
    words = f"{fastest.name}: a diagonal gives {fastest.fastest:.2f} of top speed"
    too_fast = fastest.fastest > TOO_FAST
    if not too_fast:
        # Slower than top speed, and still faster than straight ahead.
        fastest = max(found, key=lambda envelope: envelope.fastest_share)
        words = f"{fastest.name}: a diagonal gives {fastest.fastest_share:.2f} times what a straight line gives"
        too_fast = fastest.fastest_share > TOO_FAST
    if too_fast:
        move = f"{case.where}.move"
        capped = {f"{move}.diagonal": "cap", **case.out(f"{move}.diagonal_factor")}
        own = {f"{where}.diagonal": "cap" for where, bind in case.entries("move") if bind.diagonal is not None}
        yield Found(
            f"{move}.diagonal",
            words,
            [capped, {**capped, **own}, {**capped, **own, f"{move}.merge": "strongest"}],
        )
