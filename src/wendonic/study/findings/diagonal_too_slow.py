"""Diagonals that are much slower than straight lines."""

from collections.abc import Iterator

from wendonic.errors import WendonicError
from wendonic.study.finding import Case, Found, finding

TOO_SLOW = 0.65
"""Share of what straight lines request below which a diagonal is reported."""


@finding(72, "notice", "Moving diagonally is so slow that players avoid it.")
def diagonal_too_slow(case: Case) -> Iterator[Found]:
    """Diagonals that are much slower than straight lines."""
    if case.table.move is None or case.on_squares or case.from_side:
        return
    try:
        found = case.envelopes
    except WendonicError:
        return
    for envelope in found:
        lengths = {
            heading: (x * x + y * y) ** 0.5
            for heading, (x, y) in zip(envelope.headings_deg, envelope.wanted, strict=True)
        }
        straight = [length for heading, length in lengths.items() if heading % 90.0 < 1e-6]
        diagonal = [length for heading, length in lengths.items() if abs(heading % 90.0 - 45.0) < 1e-6]
        if not straight or not diagonal or max(straight) <= 0.0:
            continue
        share = min(diagonal) / max(straight)
        if share < TOO_SLOW:
            move = f"{case.where}.move"
            capped = {f"{move}.diagonal": "cap", **case.out(f"{move}.diagonal_factor")}
            own = {f"{where}.diagonal": "cap" for where, bind in case.entries("move") if bind.diagonal is not None}
            factor = {f"{move}.diagonal_factor": 0.7071} if case.says(f"{move}.diagonal_factor") else {}
            circle = {f"{where}.gate": "circle" for where, bind in case.entries("move") if hasattr(bind, "gate")}
            fixes = [factor, {**capped, **own}, {**capped, **own, **circle}]
            words = f"{envelope.name}: a diagonal gives {share:.2f} of what a straight line gives"
            yield Found(f"{move}.diagonal", words, [fix for fix in fixes if fix])
            return
