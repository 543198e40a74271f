"""Small pieces of Markdown that several pages use."""

import re
from collections.abc import Iterable, Sequence


def row(cells: Sequence[str]) -> str:
    """Return one row of a table."""
    return f"| {' | '.join(cell.replace('|', chr(92) + '|') for cell in cells)} |"


def table(head: Sequence[str], rows: Iterable[Sequence[str]]) -> str:
    """Return a table."""
    return "\n".join([row(head), row(["---"] * len(head)), *map(row, rows)]) + "\n"


def anchor(words: str) -> str:
    """Return the name by which a heading is linked to."""
    return re.sub(r"[^a-z0-9]+", "-", words.lower()).strip("-")


def flat(text: str) -> str:
    """Return a docstring as Markdown: its paragraphs, each on one line."""
    return "\n\n".join(" ".join(part.split()) for part in text.split("\n\n"))


def written_by(script: str = "docs/write_reference.py") -> str:
    """Return the note that a page is not edited by hand."""
    return f"<!-- Written by {script}; change the definitions, not this page. -->\n"
