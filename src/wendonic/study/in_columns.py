"""Rows of text in aligned columns."""

from collections.abc import Sequence


def in_columns(rows: Sequence[Sequence[str]], gap: str = " ") -> str:
    """Return rows of equal length as lines: names aligned left, numbers right, then a unit or a note after a gap.

    >>> print(in_columns([("", "old", "new", ""), ("stop_time_s", "0.1066", "0.32", "s")]))
                    old   new
    stop_time_s  0.1066  0.32 s
    """
    widths = [max(map(len, column)) for column in zip(*rows, strict=True)]
    lines = []
    for first, *between, last in rows:
        cells = [f"{word:>{width}}" for word, width in zip(between, widths[1:-1], strict=True)]
        lines.append(f"{'  '.join([f'{first:<{widths[0]}}', *cells])}{gap}{last}".rstrip())
    return "\n".join(lines)
