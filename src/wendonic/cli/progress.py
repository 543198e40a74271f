"""A progress bar on a terminal, and nothing elsewhere."""

from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from rich.progress import Progress, ProgressColumn


def progress_bar(*columns: "ProgressColumn") -> "Progress":
    """Return a bar on stderr that disappears when it is done; results go to stdout."""
    from rich.console import Console
    from rich.progress import Progress

    console = Console(stderr=True)
    return Progress(*columns, console=console, transient=True, disable=not console.is_terminal)
