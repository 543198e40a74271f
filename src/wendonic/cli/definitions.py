"""Names and descriptions in two columns as wide as the terminal."""

from collections.abc import Iterable
from typing import TYPE_CHECKING

from wendonic.errors import escaped

if TYPE_CHECKING:
    from rich.console import RenderableType


def say_definitions(rows: Iterable[tuple[str, str]], indent: int = 2) -> None:
    """Print names and descriptions, a row each; long names get their own line."""
    from rich.padding import Padding
    from rich.table import Table
    from rich.text import Text

    rows = list(rows)
    table = Table.grid(padding=(0, 2))
    table.add_column(no_wrap=True, min_width=min(max((len(name) for name, _ in rows), default=0), 24), max_width=40)
    table.add_column(overflow="fold")
    for name, words in rows:
        table.add_row(Text(escaped(name)), Text(escaped(words)))
    _say_set(Padding(table, (0, 0, 0, indent)))


def say_paragraph(words: str, indent: int = 0) -> None:
    """Print a text, wrapped to the terminal."""
    from rich.padding import Padding
    from rich.text import Text

    for paragraph in words.split("\n\n"):
        _say_set(Padding(Text(escaped(" ".join(paragraph.split()))), (0, 0, 0, indent)))


def _say_set(content: "RenderableType") -> None:
    """Print Rich's layout without the spaces at the ends of lines."""
    from rich.console import Console

    console = Console(highlight=False)
    with console.capture() as captured:
        console.print(content)
    print("\n".join(line.rstrip() for line in captured.get().rstrip("\n").split("\n")))
