"""Makes a tick function from its text."""

import linecache
from collections.abc import Callable
from typing import Any

Made = tuple[Callable[..., Any], Callable[..., Any], Callable[..., Any]]


def made_from(text: str, title: str) -> Callable[..., Made]:
    """Return the function `make` of a text; tracebacks show its lines under `title`."""
    filename = f"<wendonic {title}>"
    linecache.cache[filename] = (len(text), None, text.splitlines(keepends=True), filename)
    space: dict[str, Any] = {"__name__": filename}
    exec(compile(text, filename, "exec"), space)
    make: Callable[..., Made] = space["make"]
    return make
