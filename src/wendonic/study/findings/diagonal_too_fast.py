"""Diagonals that are faster than straight lines."""

from collections.abc import Iterator

from wendonic.profile.schema.move_binds import DpadBind, KeysBind, StickBind
from wendonic.study.envelope import envelopes
from wendonic.study.finding import Case, Found, finding

TOO_FAST = 1.02
"""Share of top speed from which a diagonal is reported."""


@finding(70, "fault", "Moving diagonally is faster than moving straight, so everybody moves diagonally.")
def diagonal_too_fast(case: Case) -> Iterator[Found]:
    """Diagonals that are faster than straight lines."""
    binds = case.table.move.bind if case.table.move else ()
    if any(isinstance(bind, KeysBind | DpadBind | StickBind) for bind in binds):
        fastest = max(envelopes(case.profile, case.mode, steps=16), key=lambda envelope: envelope.fastest)
        if fastest.fastest > TOO_FAST:
            yield Found(
                f"{case.where}.move.diagonal",
                f"{fastest.name}: a diagonal asks for {fastest.fastest:.2f} of top speed",
                'diagonal = "cap"',
            )
