"""Help that ends with the names an option knows, which are looked up only when somebody asks for it."""

from collections.abc import Callable, Iterable
from typing import Any

from typer.core import TyperCommand


def listing(title: str, names: Callable[[], Iterable[str]]) -> type[TyperCommand]:
    """Return a kind of command whose help lists `names` under a title, above its example."""

    class WithNames(TyperCommand):
        def get_help(self, ctx: Any) -> str:
            words = ", ".join(names())
            self.epilog = f"{title}: {words}\n\n{self.epilog}" if self.epilog else f"{title}: {words}"
            return super().get_help(ctx)

    return WithNames


def defining(title: str, definitions: Callable[[], Iterable[tuple[str, str]]]) -> type[TyperCommand]:
    """Return a kind of command whose help ends with names and what each of them is, a line each, and its example."""

    class WithDefinitions(TyperCommand):
        def format_help(self, ctx: Any, formatter: Any) -> None:
            epilog, self.epilog = self.epilog, None
            super().format_help(ctx, formatter)
            from rich import box
            from rich.console import Console
            from rich.table import Table

            table = Table(box=box.SIMPLE_HEAD, show_edge=False, padding=(0, 1), title=title, title_justify="left")
            table.add_column("name", no_wrap=True)
            table.add_column("what it is")
            for name, definition in definitions():
                table.add_row(name, definition)
            console = Console()
            console.print(table)
            console.print(f"\n {epilog}" if epilog else "")
            self.epilog = epilog

    return WithDefinitions
