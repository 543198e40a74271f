"""Docstrings as Markdown: a runnable example becomes a block of code."""

import re
from typing import Any

from griffe import Extension

EXAMPLE = re.compile(r"(?:^|\n)(>>> .*?)(?=\n\n(?!>>> )|\Z)", re.DOTALL)


def with_blocks(text: str) -> str:
    """Return a docstring with its examples fenced."""
    return EXAMPLE.sub(lambda found: f"\n```pycon\n{found[1].rstrip()}\n```\n", text)


class DoctestBlocks(Extension):
    """Fences the examples of every docstring."""

    def on_instance(self, *, obj: Any, **_: Any) -> None:
        """Take one object's docstring."""
        if obj.docstring:
            obj.docstring.value = with_blocks(obj.docstring.value)
