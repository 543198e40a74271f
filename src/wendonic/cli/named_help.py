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
