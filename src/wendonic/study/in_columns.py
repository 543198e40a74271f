"""Rows of words in columns, as plain text."""

from collections.abc import Sequence


def in_columns(rows: Sequence[Sequence[str]], gap: str = " ") -> str:
    """Return rows of equal length as lines: names to the left, numbers to the right, after a gap a unit or a note.

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
