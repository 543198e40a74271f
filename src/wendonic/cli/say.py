"""Text for the terminal, in which nothing from a file may control it."""

import difflib
import shutil
import sys
import textwrap
from collections.abc import Iterable
from typing import TextIO

from wendonic.errors import escaped


def say(words: object = "", file: TextIO | None = None) -> None:
    """Print text unchanged except for control characters, which are escaped."""
    print(escaped(str(words)), file=file or sys.stdout)


def say_difference(before: str, after: str, path: object, called: str) -> None:
    """Print the differences between two texts of a file, line by line."""
    lines = list(difflib.unified_diff(before.splitlines(), after.splitlines(), str(path), called, lineterm=""))
    if lines:
        say("\n".join(lines))


def say_lines(lines: Iterable[str]) -> None:
    """Print lines of text; in a terminal, long lines continue below, indented further."""
    if not sys.stdout.isatty():
        say("\n".join(lines))
        return
    width = shutil.get_terminal_size().columns
    for line in lines:
        indent = " " * (len(line) - len(line.lstrip()) + 4)
        say(textwrap.fill(line, max(width, 40), subsequent_indent=indent, break_on_hyphens=False) if line else "")
