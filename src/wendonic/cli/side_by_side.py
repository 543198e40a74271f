"""A table with a column for each profile, in as many pieces as the width of the terminal requires."""

import re
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from rich import box
from rich.cells import cell_len
from rich.console import Console
from rich.table import Table

NARROWEST, WIDEST = 12, 32
"""Limits of the width of a value column, so that two fit side by side; longer values are folded."""

FIRST_PERCENT = 60
"""Share of the terminal for the first column: names are meant to be copied, which folded ones cannot be."""

PADDING = 3
"""Spaces around a column, and its separator."""


class Row(NamedTuple):
    """The name of a row, its cell for each profile, and its unit."""

    of: str
    cells: Sequence[str]
    unit: str = ""


def print_side_by_side(of: str, names: Sequence[str], rows: Sequence[Row], title: str | None = None) -> None:
    """Print a table of `rows` with a column for each name; without any unit it has no column of units."""
    console = Console()
    widest = max(WIDEST, console.width * FIRST_PERCENT // 100)
    has_units = any(row.unit for row in rows)
    first = _width(of, [row.of for row in rows], widest)
    last = _width("unit", [row.unit for row in rows], WIDEST) if has_units else 0
    space = console.width - first - last
    fits = min(max(space // min(len(names), 2) - PADDING, *map(cell_len, names), NARROWEST), WIDEST)
    widths = [_width(name, [row.cells[index] for row in rows], fits) for index, name in enumerate(names)]
    for piece in pieces(widths, space):
        table = Table(box=box.SIMPLE_HEAD, show_edge=False, padding=(0, 1), title=title, title_justify="left")
        table.add_column(of, overflow="fold", max_width=widest)
        for index in piece:
            table.add_column(names[index], justify="right", overflow="fold", max_width=fits)
        if has_units:
            table.add_column("unit")
        for row in rows:
            cells = (folded(row.cells[index], fits) for index in piece)
            table.add_row(row.of, *cells, *([row.unit] if has_units else []))
        console.print(table)


def folded(cell: str, width: int) -> str:
    """Return the lines of a cell, folded between words if they fit, otherwise after a dot or an underscore.

    >>> folded("key.ShiftLeft, pad.left_stick_press", 14).splitlines()
    ['key.ShiftLeft,', 'pad.left_', 'stick_press']
    """
    lines = [""]
    for word in cell.split(" "):
        parts = [word] if cell_len(word) <= width else re.findall(r"[^._/]+[._/]?|[._/]", word)
        for number, part in enumerate(parts):
            glue = " " if number == 0 and lines[-1] else ""
            if not lines[-1] or cell_len(lines[-1] + glue + part) <= width:
                lines[-1] += glue + part
            else:
                lines.append(part)
    return "\n".join(lines)


def _width(heading: str, cells: Sequence[str], widest: int) -> int:
    return min(max(map(cell_len, (heading, *cells))), widest) + PADDING


def pieces(widths: Sequence[int], space: int) -> Iterator[range]:
    """Yield the columns of each piece: as many as fit, at least one.

    >>> [list(piece) for piece in pieces([10, 10, 10, 30, 8], 25)]
    [[0, 1], [2], [3], [4]]
    """
    start = 0
    while start < len(widths):
        end = start + 1
        while end < len(widths) and sum(widths[start : end + 1]) <= space:
            end += 1
        yield range(start, end)
        start = end
